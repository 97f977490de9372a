"""A row that cannot be right takes no screen down: it is read within bounds, and Today names it."""

from datetime import UTC, date, datetime, timedelta

from greenmeasure.common import clock
from greenmeasure.common.bounds import FIRST_DAY
from greenmeasure.common.rows import nearest_number
from greenmeasure.ground.models import Area
from greenmeasure.season.models import Planned
from greenmeasure.shelf.models import Lot
from greenmeasure.tests.base import ApiTest, make_account

SCREENS = (
    "today",
    "season/due",
    "outings/ahead.ics",
    "sky",
    "sky/locks",
    "areas",
    "products",
    "book",
    "rounds",
    "products/shelf.csv",
)


class RowsThatCannotBe(ApiTest):
    def planned(self, begin: datetime, disease: str = "dollar_spot") -> Planned:
        end = begin + timedelta(hours=2)
        made = Planned.objects.create(
            account=self.account,
            area=self.area,
            product=self.spray,
            disease=disease,
            begin=begin,
            end=end,
            by="",
            made_at=clock.now(),
        )
        self.account.touch()
        return made

    def read_all(self) -> None:
        for path in (*SCREENS, f"sky/strip?area_id={self.area.pk}", f"areas/{self.area.pk}"):
            answer = self.client.get(f"/api/accounts/alder/{path}")
            self.assertEqual(answer.status_code, 200, path)
            self.assertTrue(b"".join(answer))

    def test_a_window_in_year_one_leaves_every_screen_and_is_named(self) -> None:
        self.planned(datetime(1, 1, 1, tzinfo=UTC))
        self.planned(datetime(9999, 12, 31, 20, tzinfo=UTC), "brown_patch")
        self.read_all()
        told = [f["sentence"] for f in self.ask("GET", "today")["amiss"]]
        self.assertEqual(len(told), 4)  # the beginning and the end of each
        self.assertIn("Planned of North green, begin: 0001-01-01 cannot be and is read as 1900-01-01.", told[-2])

    def test_what_may_be_empty_is_read_as_nothing(self) -> None:
        Area.objects.update(sown_on=date(1, 1, 1))
        lot = Lot.objects.create(product=self.spray, number="L 1", left_value=1, left_unit="gal", expires_on=date(9999, 12, 31))
        self.account.touch()
        self.read_all()
        self.assertIsNone(Area.objects.get(account=self.account).sown_on)
        self.assertIsNone(Lot.objects.get(pk=lot.pk).expires_on)
        told = " ".join(f["sentence"] for f in self.ask("GET", "today")["amiss"])
        self.assertIn("is read as nothing", told)

    def test_numbers_without_end(self) -> None:
        for size in (float("inf"), 5e-324, -1e308):
            Area.objects.update(size_value=size)
            self.account.touch()
            self.read_all()
            self.assertEqual(len(self.ask("GET", "today")["amiss"]), 1)

    def test_sound_rows_are_read_as_they_stand_and_nothing_is_told(self) -> None:
        self.planned(clock.now() + timedelta(days=3))
        self.assertEqual(self.ask("GET", "today")["amiss"], [])
        self.assertEqual([nearest_number(x) for x in (0.0, -2.5, 1e-3)], [0.0, -2.5, 1e-3])  # as given

    def test_another_accounts_rows_are_not_told_of(self) -> None:
        Area.objects.filter(account=make_account("birch")).update(sown_on=FIRST_DAY - timedelta(days=1))
        self.assertEqual(self.ask("GET", "today")["amiss"], [])
