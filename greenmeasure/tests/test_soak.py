"""Writers and readers at once, a short run of `make break`: nobody meets a lock, and no change is lost."""

from pathlib import Path

from django.db import connection
from django.test import TransactionTestCase

from stress.soak import soaked


class Soaking(TransactionTestCase):
    def test_no_request_meets_a_lock_and_no_change_is_lost(self) -> None:
        found = soaked(6, writers=8, readers=8, begin=Path(str(connection.settings_dict["NAME"])))
        self.assertEqual(found.wrong, [])
        self.assertGreater(found.changed, 0)
        self.assertGreater(len(found.among), 20)
