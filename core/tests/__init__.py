"""Tests of the core alone. They need no Django, no database and no clock.

How long it takes to draw an example depends on the machine and says nothing of the code, so it fails no test.
"""

from hypothesis import HealthCheck, settings

settings.register_profile("plain", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("plain")
