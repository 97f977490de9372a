"""Wrong requests at every operation, a short run of `make break`: no 500, and every answer as the document tells."""

from django.test import TestCase

from stress.fuzz import SCREENS, Fuzz, the_world
from stress.poison import spoil


class WrongRequests(TestCase):
    def test_no_operation_breaks_or_answers_otherwise_than_told(self) -> None:
        with the_world() as service:
            fuzz = Fuzz(service, tries=5)
            found = fuzz.run()
            spoilt = spoil(fuzz, SCREENS, values=1)
        self.assertEqual(set(fuzz.document.operations) - found.told_well, set())
        self.assertEqual(sorted(found.problems), [])
        self.assertGreater(found.calls, 700)
        self.assertEqual(spoilt, {}, "a row that no door lets in any more took a screen down")
