"""The shelf against the season: lots by their dates, what is planned, what last year took, what to buy."""

from datetime import UTC, datetime, timedelta
from typing import Any
from unittest.mock import patch

from greenmeasure.shelf.models import Product
from greenmeasure.tests.base import ApiTest, make_account

NOW = datetime(2026, 8, 12, 10, 20, tzinfo=UTC)
TODAY = NOW.date()


class Stores(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        held = patch("greenmeasure.common.clock.now", return_value=NOW)
        held.start()
        self.addCleanup(held.stop)

    def lot(self, left: str, unit: str = "fl_oz", product: Product | None = None, **more: Any) -> None:
        body = {"number": "L 1", "left": {"value": left, "unit": unit}} | more
        self.ask("POST", f"products/{(product or self.spray).pk}/lots", body, 201)

    def line(self, name: str = "Test SC") -> dict[str, Any]:
        found: dict[str, Any] = next(x for x in self.ask("GET", "stores")["lines"] if x["product"] == name)
        return found

    def sprayed(self, on: str, used: float = 4.2) -> None:
        job = self.job(on=on, clock="05:30")
        finish = {"used": [{"amount": {"value": used, "unit": "fl_oz"}}]}
        self.ask("POST", "rounds/done", {"job": job, "finish": finish, "reason": "It was so."}, 201)

    def test_an_empty_shelf_says_so(self) -> None:
        told = self.ask("GET", "stores")
        self.assertEqual((told["lines"], told["cost"]), ([], ""))

    def test_lots_by_their_dates(self) -> None:
        self.lot("64", number="new", received_on=str(TODAY - timedelta(days=20)))
        self.lot("10", number="old", received_on="2021-05-01")
        self.lot("10", number="soon", expires_on="2026-10-01")
        self.lot("10", number="past", expires_on="2026-08-01")
        self.lot("10", number="bare")
        told = self.ask("GET", "stores")
        jugs = {j["number"]: j for j in told["lines"][0]["jugs"]}
        self.assertEqual(
            {n: j["keeps"] for n, j in jugs.items()},
            {"new": "good", "old": "old", "soon": "soon", "past": "past", "bare": "undated"},
        )
        self.assertIn("Here for 5 years. Is it still good?", jugs["old"]["text"])
        self.assertIn("Good until Thu 1 Oct 2026.", jugs["soon"]["text"])
        self.assertEqual(jugs["new"]["since"], "Thu 23 Jul 2026, 20 days")
        self.assertEqual(told["sentence"], "2 lots are to be looked at before use, 1 goes out of date soon.")
        self.assertEqual(told["lines"][0]["left"], "94 fl oz")  # 64 + 10 + 10 + 10, without what is past its date

    def test_the_rest_of_last_season_is_a_need(self) -> None:
        """4.2 fl oz went down a year ago in September, 4.2 in July: one is still ahead. 1 fl oz is left: 3.2 short (by hand)."""
        self.sprayed("2025-09-10")
        self.sprayed("2025-07-10")
        self.lot("1")
        told = self.line()
        self.assertEqual(
            (told["left"], told["planned"], told["as_last"], told["short"]), ("1 fl oz", "", "4.2 fl oz", "3.2 fl oz")
        )
        self.assertEqual(told["buy"], "1 × 1 gal, 320.00 USD")
        self.assertEqual(self.ask("GET", "stores")["sentence"], "1 product falls short.")
        self.assertEqual(self.ask("GET", "stores")["cost"], "320.00 USD")

    def test_what_is_struck_is_no_need(self) -> None:
        self.sprayed("2025-09-10")
        self.lot("1")
        pk = self.ask("GET", "book")["applications"][0]["id"]
        self.ask("POST", f"book/{pk}/strike", {"version": 0, "why": "It was never done."})
        self.assertEqual((self.line()["as_last"], self.line()["short"]), ("", ""))

    def test_a_round_under_way_is_a_need_until_it_is_out(self) -> None:
        self.lot("10")
        self.ask("POST", "rounds", self.job(), 201)
        told = self.line()
        self.assertEqual((told["planned"], told["short"], told["buy"]), ("4.2 fl oz", "", ""))  # 0.6 × 7
        self.assertEqual(self.ask("GET", "stores")["sentence"], "The shelf holds what is planned.")

    def test_dry_products_are_counted_by_weight(self) -> None:
        """0.5 lb N on 7,000 ft² of a 20-0-10 are 17.5 lb (by hand); no size is on its card."""
        self.ask("POST", "rounds", self.feed_job(), 201)
        told = self.line("Test 20-0-10")
        self.assertEqual((told["planned"], told["short"], told["buy"]), ("17.5 lb", "17.5 lb", ""))
        self.assertIn("No package size", told["note"])

    def test_nobody_sees_anothers(self) -> None:
        self.lot("10")
        make_account("birch")
        self.sign_in("viewer", "birch")
        self.assertEqual(self.ask("GET", "/api/accounts/birch/stores")["lines"], [])
