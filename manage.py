#!/usr/bin/env python3
"""Django's command line for Green Measure."""

import os
import sys


def main() -> None:
    """Run Django's command line, with the tests' settings for tests."""
    testing = len(sys.argv) > 1 and sys.argv[1] == "test"
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "greenmeasure.settings_test" if testing else "greenmeasure.settings")
    from django.core.management import execute_from_command_line

    execute_from_command_line(sys.argv)


if __name__ == "__main__":
    main()
