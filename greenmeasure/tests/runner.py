"""Django's runner, whose database is made at once from the models and noted as brought up to date."""

from typing import Any

from django.test.runner import DiscoverRunner

from greenmeasure.common.fresh import note_landed_in_tests


class Runner(DiscoverRunner):
    """Runs the tests."""

    def setup_databases(self, **given: Any) -> Any:
        """The database, and its copies for processes side by side."""
        note_landed_in_tests()
        return super().setup_databases(**given)
