"""The reckon line's answers for an account: doses, money, the book, rules of time, degree days, water."""

from datetime import UTC, date, datetime, timedelta
from typing import Any
from unittest.mock import patch
from zoneinfo import ZoneInfo

from greenmeasure.accounts.models import Account, Site
from greenmeasure.ground.actions import save_area
from greenmeasure.ground.schemas import AreaIn
from greenmeasure.sky.models import Foretold, Reading, Station
from greenmeasure.tests.base import AREA, ApiTest

NOW = datetime(2026, 8, 14, 14, 0, tzinfo=UTC)  # 10:00 in New York
ZONE = ZoneInfo("America/New_York")
REGULATOR: dict[str, Any] = {
    "name": "Marsh ME",
    "kind": "growth_regulator",
    "formulation": "ME",
    "density": {"value": 8.3, "unit": "lb/gal"},
    "contents": [{"name": "trinexapac-ethyl", "basis": "active", "amount": 12, "unit": "%"}],
    "rates": [{"phrase": "0.1 to 0.2 fl oz per 1,000 sq ft", "interval_low": 21}],
    "packages": [{"value": 1, "unit": "gal", "price": "256.00"}],
}
STICKER = {"name": "Sticker SL", "kind": "adjuvant", "formulation": "SL", "rates": [{"phrase": "0.25 to 0.5% v/v"}]}
DYE = {"name": "Blue Dye", "kind": "colourant", "formulation": "SL", "rates": [{"phrase": "1 to 2 fl oz per gallon of spray"}]}
FEED = {
    "name": "Quick 40-0-0",
    "kind": "fertiliser",
    "formulation": "GR",
    "contents": [{"name": "N", "basis": "N", "amount": 40, "unit": "%"}],
    "rates": [{"phrase": "1 to 3 lb per 1,000 sq ft"}],
    "packages": [{"value": 50, "unit": "lb", "price": "60.00"}],
    "rules": {"water_in_depth": {"value": 0.5, "unit": "in"}},
}
EXTREMES = {4: (27, 15), 5: (28, 16), 6: (30, 18), 7: (26, 14)}
"""The highest and the lowest temperature of days of August [°C]; 4 and 5 days on are the forecast's."""


class LineTest(ApiTest):
    """10:00 on 14 August in New York; a shelf with one of each thing that a line asks about."""

    def setUp(self) -> None:
        super().setUp()
        clock = patch("greenmeasure.common.clock.now", return_value=NOW)
        clock.start()
        self.addCleanup(clock.stop)
        self.cards = {card["name"]: self.ask("POST", "products", card, 201) for card in (REGULATOR, STICKER, DYE, FEED)}
        self.ask("POST", "areas", AREA | {"name": "Back lawn", "size": {"value": 2000, "unit": "ft2"}}, 201)

    def line(self, text: str) -> dict[str, Any]:
        said: dict[str, Any] = self.ask("POST", "reckon/line", {"line": text})
        return said

    def says(self, text: str, *words: str) -> dict[str, Any]:
        said = self.line(text)
        for w in words:
            self.assertIn(w, " | ".join([said["sentence"], *said["details"]]), text)
        return said

    def refuses(self, text: str, field: str, words: str) -> list[str]:
        said = self.ask("POST", "reckon/line", {"line": text}, 422)["fields"][0]
        self.assertEqual(said["field"], field, said)
        self.assertIn(words, f"{said['problem']} {said['remedy']}")
        return [c["text"] for c in said["choices"]]

    def put_down(self, *lines: str) -> None:
        text = "\n".join(["date,time,area,product,machine,amount", *lines])
        self.assertEqual(self.ask("POST", "rounds/import", {"text": text})["refused"], 0)


class Doses(LineTest):
    """Amounts by hand: the green is 7,000 ft², the lawn 2,000 ft²; the sprayer has 4 gal and puts out 1 gal/1000 ft²."""

    def test_names_machine_and_passes_in_any_order(self) -> None:
        for text in (
            "test sc 0.5 north sprayer",
            "sprayer, north green: .5 fl oz/M test sc",
            "0.5 oz/M of Test SC on north w sprayer",
        ):
            self.assertEqual(self.says(text)["sentence"], "Pour 3.5 fl oz of Test SC for North green: 2 tanks, 7 gal in all.")

    def test_a_mix_with_a_dye_to_taste(self) -> None:
        # 0.25 % of 7 gal, which are 896 fl oz: 2.24.
        said = self.says("test sc .5, sticker .25%, dye; north, sprayer", "3.5 fl oz of Test SC, 2.24 fl oz of Sticker SL")
        self.assertEqual([d.get("rate") for d in said["job"]["parts"][0]["doses"]][2], None)
        self.assertEqual(self.ask("POST", "reckon/job", said["job"])["mix"][2]["amount"], None)

    def test_loads_that_are_alike_are_told_in_one_line(self) -> None:
        # Two tanks of 3.5 gal, 1.75 fl oz each; the measure rounds to the vessel's marks.
        loads = [d for d in self.line("test sc 0.5 north sprayer")["details"] if d.startswith("Tank")]
        self.assertEqual(len(loads), 1 if loads[0].startswith("Tank 1 and Tank 2, each: ") else 2, loads)

    def test_a_full_tank_and_so_much_of_one(self) -> None:
        self.says("per tank: test sc .5, sprayer", "2 fl oz of Test SC for 4,000 ft²", "A full tank of Sprayer is 4 gal")
        self.says("mix 2 gal test sc .5 sprayer", "1 fl oz of Test SC for 2,000 ft²", "2 gal of Sprayer covers 2,000 ft²")

    def test_what_is_refused_still_says_what_it_would_be(self) -> None:
        said = self.says("test sc 1.5 north sprayer", "It would be 2 tanks, 7 gal in all.")
        self.assertTrue(said["refused"])
        self.refuses("quick 2 lb product/M + test sc .5 on north", "mix.0", "spread dry")

    def test_at_both_ends_of_a_label_and_in_the_middle(self) -> None:
        # 0.4, 0.6, 0.8 × 7.
        said = self.says(
            "test sc on north, low middle high", "2.8 fl oz at the low rate, 4.2 fl oz at the middle and 5.6 fl oz at the high"
        )
        self.assertEqual(self.ask("POST", "reckon/job", said["job"])["name"], "Test SC")

    def test_in_so_much_spray(self) -> None:
        self.says("dye 1.5 fl oz per gal, 3 gal", "Pour 4.5 fl oz of Blue Dye into 3 gal")
        self.says("mix 2 gal dye spots", "Pour 4 fl oz of Blue Dye into 2 gal")
        self.refuses("mix 2 gal test sc spot spray", "product", "no rate per volume")

    def test_a_nutrient_asks_from_which_product(self) -> None:
        choices = self.refuses("0.5 lb N/M on north", "product", "from which product")
        self.assertIn("0.5 lb N/M from Quick 40-0-0 on north", choices)
        # 7 × 0.5 ÷ 0.4.
        self.says("0.5 lb N/M from quick on north", "8.75 lb of Quick 40-0-0")

    def test_how_many_bags(self) -> None:
        # 9 × 3 = 27 lb of bags of 50.
        self.says("how many bags of quick for north and back at 3 lb product/M", "Buy 1 × 50 lb for 60", "23 lb is left over")

    def test_the_rate_of_so_many_bags(self) -> None:
        # 50 ÷ 7.
        self.says("1 bag of quick on north", "7.143 lb/1000 ft²")
        self.refuses("2 bags of test 20-0-10 on north", "product", "no package")

    def test_two_areas_of_one_name_are_told_apart_by_their_sites(self) -> None:
        site = Site.objects.create(account=self.account, name="Far side", time_zone="America/New_York")
        save_area(Account.objects.get(), AreaIn(**(AREA | {"site_id": site.pk})))
        choices = self.refuses("test sc .5 on north", "area", "could be")
        self.assertIn("test sc .5 on North green, Far side", choices)
        self.assertEqual(self.line("test sc .5 on North green, Far side")["kind"], "dose")


class Backwards(LineTest):
    def test_rates_reach_and_contents(self) -> None:
        self.says("what rate is 3.5 oz of test sc on north", "0.5 fl oz/1000 ft² is within the label")
        self.says("is 6 oz of test sc ok for north", "0.8571 fl oz/1000 ft²", "over the label")
        self.says("started with 8 fl oz test sc, 4.5 left, north", "3.5 fl oz on 7,000 ft² is 0.5")
        self.says("15.6 lb on 6000 ft2", "2.6 lb/1000 ft²", "113.3 lb/acre")  # 2.6 × 43.56
        self.says("50 lb bag quick at 1 lb N/M covers?", "20,000 ft²")  # 50 × 0.4 lb N
        self.says("4 lb quick on back is how much N", "0.8 lb N")  # 4 × 0.4 ÷ 2
        self.says("sprayer how much ground", "4 gal from Sprayer covers 4,000 ft²")
        self.refuses("spreader how much ground", "machine", "no tank")

    def test_outputs(self) -> None:
        self.says("0.5 gal in 500 ft2", "1 gal/1000 ft² (43.56 gal/acre)")
        self.says("sprayer 4 gal covered 3200 sq ft", "1.25 gal/1000 ft²", "25 % more")
        self.says("caught 32 fl oz in 30 seconds", "0.5 gal/min (64 fl oz/min)")
        self.says("100 ft in 23 sec", "2.964 mph")  # 100 ÷ 23 × 3600 ÷ 5280
        self.says("0.4 gpm at 4 mph 20 in spacing", "29.7 gal/acre")  # 5940 × 0.4 ÷ (4 × 20), the handbook formula
        self.says("how big is north", "7,000 ft²", "0.1607 acre")  # 7000 ÷ 43560
        self.says("test sc", "0.4 to 0.8 fl oz per 1000 ft²")


class Money(LineTest):
    def test_costs(self) -> None:
        """A gallon, 128 fl oz, of the fungicide is 320, of the regulator 256; a bag of 50 lb of the feed is 60."""
        for text, words in {
            "cost of 0.5 fl oz/M test sc on north": "costs 8.75 USD",  # 3.5 × 2.5
            "what does quick cost per lb N": "3.00 USD per lb N",  # 60 ÷ 20
            "$/M marsh at 0.2": "0.40 USD per 1000 ft²",  # 0.2 × 2
            "cost per acre of marsh at 0.2": "17.42 USD per acre",  # × 43.56
            "how much does 6 fl oz of marsh cost": "12.00 USD",
            "price per gallon of marsh": "256.00 USD per gal",
            "test sc .5 vs marsh .1 on north cost": "Marsh ME costs least: 1.40 USD; Test SC costs 8.75 USD",
            "test sc vs marsh per fl oz": "Marsh ME costs least: 2.00 USD per fl oz; Test SC costs 2.50 USD",
        }.items():
            self.says(text, words)
        self.refuses("cost of sticker 0.25% north sprayer", "product", "No package")
        self.refuses("compare test sc on north", "line", "with what")

    def test_enough(self) -> None:
        card = self.cards["Marsh ME"]["id"]
        self.says("enough marsh for 3 sprays of north at 0.2", "need 4.2 fl oz of Marsh ME; its stock is not counted")
        self.ask("POST", f"products/{card}/lots", {"number": "A1", "left": {"value": 4, "unit": "fl_oz"}}, 201)
        self.says("enough marsh for 3 sprays of north at 0.2", "Not enough: 3 applications need 4.2 fl oz", "0.2 fl oz short")
        self.says(
            "do I have enough marsh for 2 sprays of north at 0.2", "Enough: 2 applications need 2.8 fl oz", "1.2 fl oz is left"
        )


class Before(LineTest):
    def setUp(self) -> None:
        super().setUp()
        self.put_down(
            "2026-06-01,08:00,North green,Quick 40-0-0,Spreader,2 lb/M",
            "2026-07-01,08:00,North green,Quick 40-0-0,Spreader,1 lb/M",
            "2026-08-03,08:00,North green,Marsh ME,Sprayer,0.2 fl oz/M",
            "2026-08-10,08:00,Back lawn,Test SC,Sprayer,0.5 fl oz/M",
        )

    def test_what_went_down_last(self) -> None:
        self.says(
            "what went on north last?", "Mon 3 Aug 2026, 11 days ago: Marsh ME at 0.2 fl oz/1000 ft² on North green, with Sprayer"
        )
        self.says("when did I last spray test sc", "Mon 10 Aug 2026, 4 days ago", "Back lawn")
        self.says("last fertiliser on north", "Wed 1 Jul 2026")
        self.says("days since quick on back", "Nothing of Quick 40-0-0 on Back lawn is in the book.")
        self.refuses("what went on the fairway last", "area", "fairway")

    def test_what_an_area_has_had(self) -> None:
        # 2 and 1 lb/1000 ft² of 40 % N: 1.2.
        self.says("how much N has north had this year", "1.2 lb/1000 ft² of N", "2 applications", "0.4 lb/1000 ft², Quick 40-0-0")

    def test_may_it_go_again(self) -> None:
        said = self.says(
            "can marsh go on north today", "Marsh ME not on North green on Fri 14 Aug 2026: from Mon 24 Aug 2026"
        )  # 3 + 21
        self.assertTrue(said["refused"])
        self.says("can marsh go on back tomorrow", "Yes: nothing stands against Marsh ME on Back lawn, Sat 15 Aug 2026")

    def test_as_on_a_day_and_on_another_area(self) -> None:
        self.says("as on 10 aug", "1 fl oz of Test SC for Back lawn")
        self.says("as on 10 aug on north", "3.5 fl oz of Test SC for North green")

    def test_sums_of_days(self) -> None:
        self.says("6 weeks after 4 aug", "Tue 15 Sep 2026: 32 days from today")
        self.says("next Tuesday", "Tue 18 Aug 2026: 4 days from today")
        self.says("days between 4 aug and 15 sep", "42 days")


class Weather(LineTest):
    """Means of the extremes above: 21, 22, 24, 20 °C."""

    def setUp(self) -> None:
        super().setUp()
        station = Station.objects.create(account=self.account, site=Site.objects.get(), name="Mast", latitude=41, longitude=-72)
        for i, (high, low) in enumerate(EXTREMES.values()):
            on = date(2026, 8, 12) + timedelta(days=i)
            for hour in range(24):
                at = datetime(on.year, on.month, on.day, hour, tzinfo=ZONE).astimezone(UTC)
                air = high if hour == 15 else low if hour == 5 else (high + low) / 2
                row = {"station": station, "at": at, "air": air, "humidity": 70.0}
                if on < NOW.date():
                    Reading.objects.create(source="file", **row)
                else:
                    Foretold.objects.create(issued=NOW, **row)

    def test_sums_since_a_day(self) -> None:
        # The 13th: 22; the 14th and 15th: 24 and 20 more.
        self.says("gdd since 12 aug", "22 °C·d (40 °F·d) since Wed 12 Aug 2026, up to Thu 13 Aug 2026", "66 °C·d")
        self.says("gdd base 50F since 12 aug on north", "12 °C·d (22 °F·d)", "base 10 °C (50 °F)")
        self.refuses("gdd since 1 feb", "line", "known from")

    def test_since_a_regulator_and_the_day_it_reaches_a_sum(self) -> None:
        self.put_down("2026-08-12,08:00,North green,Marsh ME,Sprayer,0.2 fl oz/M")
        self.says("degree days since marsh on north", "22 °C·d")
        self.says("when does marsh reach 40 gdd on north", "on Fri 14 Aug 2026, by the forecast: 46 °C·d")
        self.says("when does marsh reach 400 gdd on north", "not reached")
        self.refuses("degree days since test sc on north", "product", "Nothing of Test SC")

    def test_one_day(self) -> None:
        self.says("high 88 low 61 gdd base 50", "24.5 °F·d")  # (88 + 61) ÷ 2 − 50


class Water(LineTest):
    def test_how_long_and_how_much(self) -> None:
        """Cans caught 0.5 in in an hour; 0.5 in on 7,000 ft² are 7000 × 0.5 ÷ 12 × 7.48052 = 2,182 gal (231 in³ a gallon)."""
        self.refuses("how long to water in 0.25 in on north", "area", "catch cans")
        cans = {"cans": [{"caught": 0.5}] * 6, "unit": "in", "minutes": 60, "taken_on": "2026-08-01"}
        self.ask("POST", f"areas/{self.area.pk}/water", cans, 201)
        self.says("how long to water in 0.25 in on north", "30 min")
        self.says("water in quick on north", "60 min")
        self.says("20 min on north how much water", "0.167 in")
        self.says("0.5 in on north in gallons", "2,182 gal")
        self.refuses("water in test sc on north", "product", "no depth")
