"""The WSGI application that waitress, or any WSGI server, runs."""

import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "greenmeasure.settings")
application = get_wsgi_application()
