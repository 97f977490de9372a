"""A server killed while it saves, a short run of `make break`: what it acknowledged is there, and nothing is there by half."""

from django.db import connection
from django.test import TransactionTestCase

from stress.kills import killed


class Killed(TransactionTestCase):
    def test_what_was_acknowledged_is_there_and_nothing_is_there_by_half(self) -> None:
        connection.close()
        kept = killed(saves=33, kills=3, begin=connection.settings_dict)
        self.assertEqual(kept.wrong, [])
        self.assertEqual((kept.kills, sum(kept.acknowledged.values())), (3, 33))
        self.assertEqual(len(kept.acknowledged), 11)
