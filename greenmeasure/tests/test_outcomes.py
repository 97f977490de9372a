"""Did it work: applications held against looks, forecasts against what was seen, plans against what was done."""

from datetime import UTC, date, datetime, timedelta
from typing import Any
from unittest.mock import patch

import numpy as np

from core.disease.model import Series
from greenmeasure.accounts.models import User
from greenmeasure.scouting.actions import add_scouting
from greenmeasure.scouting.schemas import ScoutIn
from greenmeasure.season.models import Planned
from greenmeasure.sky.models import Station
from greenmeasure.sky.weather import whole
from greenmeasure.tests.base import make_account
from greenmeasure.tests.sky_base import NOW, SkyTest

TODAY = NOW.date()


class Outcomes(SkyTest):
    def sprayed(self, on: date, **more: Any) -> int:
        """0.6 fl oz on 1,000 ft² of 7,000: 4.2 fl oz at 320 the gallon are 10.50 (by hand)."""
        job = self.job(on=str(on), clock="05:30", target="Dollar spot", **more)
        used = {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}]}
        self.ask("POST", "rounds/done", {"job": job, "finish": used, "reason": "It was so."}, 201)
        return int(max(a["id"] for a in self.ask("GET", "book")["applications"]))

    def looked(self, on: date, seen: bool, what: str = "dollar_spot") -> None:
        told = ScoutIn(area_id=self.area.pk, on=on, kind="disease", what=what, seen=seen, severity="3" if seen else "")
        add_scouting(self.account, User.objects.get(username="manager-alder"), told)

    def told(self, query: str = "") -> dict[str, Any]:
        found: dict[str, Any] = self.ask("GET", f"outcomes{query}")
        return found

    def test_nothing_yet(self) -> None:
        told = self.told()
        self.assertEqual(told["sentence"], "Nothing went down against anything in 2026.")
        self.assertEqual((told["effects"], told["skills"], told["plans"], told["years"]), ([], [], [], [2026]))

    def test_what_came_of_a_product(self) -> None:
        """Without weather the cover is the label's longest: the test card gives no interval, so that no day is protected."""
        pk = self.sprayed(TODAY - timedelta(days=10))
        self.looked(TODAY - timedelta(days=4), False)
        self.looked(TODAY - timedelta(days=2), True)
        self.ask("POST", "scouting/followups", {"application_id": pk, "how": "better"}, 201)
        (row,) = self.told()["effects"]
        self.assertEqual((row["product"], row["target"], row["times"]), ("Test SC", "Dollar spot", 1))
        self.assertEqual((row["cost"], row["protected"], row["per_day"]), ("10.50 USD", "", ""))
        self.assertEqual(row["seen"], "Clear on 1 of 2 looks (9% to 91%)")  # Wilson, by hand
        self.assertEqual(row["answers"], "Better 1")
        self.assertEqual(row["verdict"], "Too few to judge: 4 more applications looked at would do.")
        self.assertIn("1 of them looked at", self.told()["sentence"])
        self.assertEqual(self.told("?year=2025")["effects"], [])

    def test_cost_of_a_protected_day_and_lapses_inside_cover(self) -> None:
        """Cover of 14 to 21 days without weather is 21: ten days after it a spot is a lapse, 10.50 ÷ 21 = 0.50 (by hand)."""
        self.give_interval(14, 21)
        self.sprayed(TODAY - timedelta(days=25))
        self.looked(TODAY - timedelta(days=15), True)
        self.looked(TODAY - timedelta(days=1), True)  # after its cover
        (row,) = self.told()["effects"]
        self.assertEqual((row["protected"], row["per_day"]), ("21 days", "0.50 USD, 0.07 USD on 1000 ft²"))
        self.assertEqual(row["lapses"], ["Seen on North green, Tue 28 Jul 2026, 10 days after it went down"])
        self.assertEqual(row["seen"], "Clear on 0 of 1 looks (0% to 79%)")  # Wilson, by hand

    def give_interval(self, low: int, high: int) -> None:
        row = self.spray.rates.get()
        row.interval_low, row.interval_high, row.target = low, high, "Dollar spot"
        row.save()
        self.account.touch("shelf")

    def test_forecasts_say_how_many_looks_it_would_take(self) -> None:
        self.station()
        self.fetched()
        for n in (2, 5):
            self.looked(TODAY - timedelta(days=n), n == 2)
        (told,) = self.told()["skills"]
        self.assertEqual((told["disease"], told["site"], told["enough"]), ("Dollar spot", "Site alder", False))
        self.assertIn("It would take 9 more that find it and 9 more that find none.", told["text"])
        self.assertFalse(any(t["best"] or t["skill"] for t in told["tried"]))

    def test_enough_looks_are_judged_and_other_thresholds_tried(self) -> None:
        """A model that stands at 0.5 for 20 days and at 0.15 before: seen on 12 later looks, not seen on 12 earlier ones.

        At its 20 % it is right each time, at 15 % it cries wolf on all 12: skill 1 and 0 (by hand).
        """
        self.station()
        self.fetched()
        known = whole(Station.objects.get())
        assert known
        days = len(known.weather.days)
        at = np.where(np.arange(days) < days - 20, 0.15, 0.5)
        last = known.weather.days.first + timedelta(days=days - 1)
        for n in range(12):
            self.looked(last - timedelta(days=n // 2 + 8), True)
            self.looked(last - timedelta(days=n // 2 + 20), False)
        with patch("greenmeasure.outcomes.queries._series", return_value=Series(at, np.zeros(days, bool))):
            (told,) = self.told()["skills"]
        self.assertTrue(told["enough"])
        self.assertEqual(
            told["text"], "It tells days with it from days without: skill 1.00 (1.00 to 1.00; 0 is a coin, 1 perfect)."
        )
        tried = {t["threshold"].split()[0]: t for t in told["tried"]}
        said = [(t["own"], t["best"], t["skill"]) for t in (tried["15"], tried["20"])]
        self.assertEqual(said, [(False, False, "0.00"), (True, True, "1.00")])
        self.assertEqual((tried["15"]["hits"], tried["15"]["false_alarms"]), (12, 12))
        self.assertIn({"name": "Of what was seen, forecast", "text": "100% (76% to 100%), 12 of 12"}, told["facts"])

    def test_a_look_under_cover_is_no_false_alarm(self) -> None:
        self.station()
        self.fetched()
        self.give_interval(14, 21)
        self.sprayed(TODAY - timedelta(days=6))
        self.looked(TODAY - timedelta(days=2), False)
        (told,) = self.told()["skills"]
        self.assertEqual(told["left_out"], ["1 under cover: what is held off proves no false alarm."])
        self.assertEqual(told["tried"], [])

    def test_what_became_of_plans(self) -> None:
        for n, product in ((20, self.spray), (3, self.feed)):
            begin = datetime(2026, 8, 12, 10, tzinfo=UTC) - timedelta(days=n)
            Planned.objects.create(
                account=self.account,
                area=self.area,
                disease="dollar_spot" if product is self.spray else "brown_patch",
                product=product,
                begin=begin,
                end=begin + timedelta(hours=30),
                by="manager",
                made_at=begin,
            )
        self.sprayed(TODAY - timedelta(days=16))
        told = self.told()
        self.assertEqual(
            [(p["became"], p["text"]) for p in told["plans"]],
            [("skipped", "Skipped"), ("late", "3 days late, on Mon 27 Jul 2026")],
        )
        self.assertEqual({f["name"]: f["text"] for f in told["kept"]}, {"Late": "1", "Skipped": "1"})

    def test_what_is_struck_counts_for_nothing(self) -> None:
        pk = self.sprayed(TODAY - timedelta(days=5))
        self.ask("POST", f"book/{pk}/strike", {"version": 0, "why": "It was never done."})
        told = self.told()
        self.assertEqual((told["effects"], told["years"]), ([], [2026]))

    def test_of_one_area_and_never_of_anothers(self) -> None:
        self.sprayed(TODAY - timedelta(days=5))
        self.assertEqual(len(self.told(f"?area_id={self.area.pk}")["effects"]), 1)
        self.ask("GET", "outcomes?area_id=999999", expect=404)
        self.ask("GET", "outcomes?year=99999", expect=422)
        make_account("birch")
        self.sign_in("manager", "birch")
        self.assertEqual(self.ask("GET", "/api/accounts/birch/outcomes")["effects"], [])

    def test_products_without_a_target_are_told_as_such(self) -> None:
        self.give_interval(14, 21)
        row = self.spray.rates.get()
        row.target, row.use = "", ""
        row.save()
        self.account.touch("shelf")
        job = self.job(on=str(TODAY - timedelta(days=3)), clock="05:30")
        used = {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}]}
        with patch("greenmeasure.common.clock.now", return_value=NOW):
            self.ask("POST", "rounds/done", {"job": job, "finish": used, "reason": "It was so."}, 201)
        self.assertEqual(self.told()["untold"], "One application does not say what it was against, and is not told here.")
