"""The WSGI application that waitress, or any WSGI server, runs.

The collector rests while modules load, and is told afterwards that what is loaded stays.
"""

import gc
import os

from django.core.wsgi import get_wsgi_application
from django.urls import get_resolver

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "greenmeasure.settings")
gc.disable()
application = get_wsgi_application()
URLS = get_resolver().url_patterns  # the API is built before the first request, not by it
gc.freeze()
gc.enable()
