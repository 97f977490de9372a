"""Writers and readers at once at two servers of one database, a short run of `make break`: nobody meets a lock, no change is
lost, and no server is behind the other.
"""

from django.db import connection
from django.test import TransactionTestCase

from stress.soak import soaked


class Soaking(TransactionTestCase):
    def test_no_request_meets_a_lock_and_no_change_is_lost(self) -> None:
        connection.close()
        found = soaked(6, writers=8, readers=8, begin=connection.settings_dict, servers=2)
        self.assertEqual(found.wrong, [])
        self.assertGreater(found.changed, 0)
        self.assertGreater(len(found.among), 20)
