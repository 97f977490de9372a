"""Reckoning over the API: many areas, rows for a ground, rules and budget, backwards, side by side, measuring, the line."""

from typing import Any

from greenmeasure.accounts.models import Account
from greenmeasure.ground.actions import save_area
from greenmeasure.ground.schemas import AreaIn
from greenmeasure.shelf.actions import save_product
from greenmeasure.shelf.models import Product
from greenmeasure.shelf.schemas import ProductIn
from greenmeasure.tests.base import AREA, FEED, FUNGICIDE, ApiTest

RATE = {"value": 0.6, "unit": "fl_oz/kft2"}


class WholeTest(ApiTest):
    def part(self, **more: Any) -> dict[str, Any]:
        return self.job(**more)["parts"][0]  # type: ignore[no-any-return]

    def bank(self, **more: Any) -> int:
        given = AREA | {"name": "Bank", "size": {"value": 3000, "unit": "ft2"}} | more
        return save_area(Account.objects.get(pk=self.account.pk), AreaIn(**given)).pk

    def change(self, **card: Any) -> None:
        was = Product.objects.get(pk=self.spray.pk)
        save_product(Account.objects.get(pk=self.account.pk), ProductIn(**(FUNGICIDE | card), version=was.version), was)

    def keys(self, said: dict[str, Any], part: int = 0) -> dict[str, str]:
        return {f["key"]: f["act"] for f in said["parts"][part]["doses"][0]["findings"]}


class ManyAreas(WholeTest):
    def test_two_areas_one_tank_two_entries(self) -> None:
        # 7 × 0.6 and 3 × 0.6; 6.6 really used is 1.1 times the 6 planned, on each ground alike.
        job = self.job() | {"parts": [self.part(), self.part(area_id=self.bank())]}
        said = self.ask("POST", "reckon/job", job)
        self.assertEqual(said["headline"], "Pour 6 fl oz of Test SC for North green and Bank: 3 tanks, 10 gal in all.")
        self.assertEqual([p["doses"][0]["amount"] for p in said["parts"]], ["4.2 fl oz", "1.8 fl oz"])
        self.assertEqual(said["loads"][0]["where"], "North green and Bank")
        begun = self.ask("POST", "rounds", job, 201)
        body = {
            "used": [{"amount": {"value": "6.6", "unit": "fl_oz"}}],
            "treated": [{"value": 7000, "unit": "ft2"}, {"value": 3000, "unit": "ft2"}],
        }
        entries = self.ask("POST", f"rounds/{begun['id']}/finish", body)
        self.assertEqual(
            [(a["area"], a["entries"][0]["used"]) for a in entries], [("North green", "4.62 fl oz"), ("Bank", "1.98 fl oz")]
        )
        self.assertEqual({a["entries"][0]["actual"] for a in entries}, {"0.66 fl oz/1000 ft²"})

    def test_a_spot_of_a_fifth_and_two_zones(self) -> None:
        # 1.4 × 0.6 = 0.84; 2 × 0.8 + 5 × 0.4 = 3.6.
        self.assertEqual(self.ask("POST", "reckon/job", self.job(share="20 %"))["mix"][0]["amount"]["text"], "0.84 fl oz")
        zones = [
            self.part(share="2/7", zone="core", rate={"value": 0.8, "unit": "fl_oz/kft2"}),
            self.part(share="5/7", zone="surround", rate={"value": 0.4, "unit": "fl_oz/kft2"}),
        ]
        said = self.ask("POST", "reckon/job", self.job() | {"parts": zones})
        self.assertEqual(said["mix"][0]["amount"]["text"], "3.6 fl oz")
        self.assertEqual(
            [x["where"] for x in said["loads"]], ["North green, core", "North green, surround", "North green, surround"]
        )
        over = self.job() | {"parts": [self.part(share="2/3"), self.part(share="2/3")]}
        self.assertEqual(list(self.faults("POST", "reckon/job", over)), ["parts.0.treated"])

    def test_faults_name_the_area(self) -> None:
        job = self.job() | {"parts": [self.part(), self.part(rate={"value": "x", "unit": "fl_oz/kft2"})]}
        self.assertEqual(list(self.faults("POST", "reckon/job", job)), ["parts.1.doses.0.rate"])


class Rules(WholeTest):
    def spray_on(self, day: str, used: float = 4.2) -> None:
        begun = self.ask("POST", "rounds", self.job() | {"on": day}, 201)
        self.ask("POST", f"rounds/{begun['id']}/finish", {"used": [{"amount": {"value": used, "unit": "fl_oz"}}]})

    def test_the_book_is_counted_against_the_seasons_cap(self) -> None:
        # 0.6 booked and 0.6 planned are 1.2, over a cap of 1.
        self.change(rules={"most_per_season": "1 fl oz per 1,000 sq ft"})
        self.spray_on("2026-06-01")
        said = self.ask("POST", "reckon/job", self.job())
        self.assertEqual(self.keys(said)["season-product"], "refuse")
        line = next(b for b in said["parts"][0]["doses"][0]["budget"] if b["key"] == "product")
        self.assertEqual(
            (line["used_text"], line["total_text"], line["cap_text"], line["over"]), ("0.6", "1.2 fl oz/1000 ft²", "1", True)
        )
        refused = self.ask("POST", "rounds", self.job(), 422)
        self.assertEqual(refused["code"], "refused")
        self.assertIn("the most is 1", refused["message"])

    def test_a_part_of_an_area_shares_its_history(self) -> None:
        self.change(rules={"applications_per_season": 1})
        half = self.bank(name="Half", parent_id=self.area.pk, share="1/2", size=None)
        self.spray_on("2026-06-01")
        self.assertEqual(self.keys(self.ask("POST", "reckon/job", self.job(area_id=half)))["season-times"], "refuse")
        self.assertNotIn("season-times", self.keys(self.ask("POST", "reckon/job", self.job(area_id=self.bank(name="Else")))))

    def test_the_labels_interval_and_the_next_dates(self) -> None:
        self.change(rates=[{"phrase": "0.4 to 0.8 fl oz per 1,000 sq ft", "interval_low": 14, "interval_high": 21}])
        self.spray_on("2026-06-01")
        from datetime import timedelta

        from greenmeasure.common.clock import today

        day = today(self.account)
        soon, later = (str(day + timedelta(days=n)) for n in (5, 30))
        self.assertEqual(self.keys(self.ask("POST", "reckon/job", self.job() | {"on": soon}))["too-soon"], "refuse")
        said = self.ask("POST", "reckon/job", self.job() | {"on": later})
        self.assertNotIn("too-soon", self.keys(said))
        self.assertRegex(said["parts"][0]["doses"][0]["again"], r"^The next by the label: \d+ \w+ to \d+ \w+\.$")

    def test_a_target_that_is_not_listed_is_refused_and_look_alikes_are_told(self) -> None:
        self.change(rates=[{"phrase": "0.4 to 0.8 fl oz per 1,000 sq ft", "target": "Brown patch"}])
        said = self.ask("POST", "reckon/job", self.job(target="leaf_spot"))
        self.assertEqual(self.keys(said)["target-not-listed"], "refuse")
        self.assertEqual(self.keys(said)["look-alike"], "note")
        self.assertTrue(said["refused"])

    def test_a_slip_offers_what_was_meant(self) -> None:
        # 22 fl oz an acre ÷ 43.56 = 0.50505.
        said = self.ask("POST", "reckon/job", self.job(rate={"value": 22, "unit": "fl_oz/kft2"}))
        slip = next(f for f in said["parts"][0]["doses"][0]["findings"] if f["act"] == "ask")
        self.assertEqual(slip["readings"][0]["text"], "0.50505")

    def test_the_house_rules_change_what_is_said(self) -> None:
        # 0.8 is the label's top.
        house = self.ask("GET", "house")
        self.assertEqual(next(q for q in house["questions"] if q["key"] == "start_rate")["chosen"], "low")
        lake = {"what": "N", "start": {"month": 6, "day": 1}, "end": {"month": 8, "day": 31}, "why": "a lake"}
        self.ask("PUT", "house", {"answers": {"start_rate": "top", "fill_order": "water_first"}})
        site = self.ask("GET", "sites")[0]
        self.ask("PUT", f"sites/{site['id']}", site | {"closed": [lake]})
        rows = self.ask("POST", "reckon/rows", {"product_id": self.spray.pk, "area_id": self.area.pk})
        self.assertEqual(rows[0]["start"]["text"], "0.8 fl oz/1000 ft²")
        self.assertEqual(self.ask("POST", "reckon/job", self.job())["loads"][0]["acts"][0]["key"], "water")
        said = self.ask("POST", "reckon/job", self.feed_job() | {"on": "2026-07-04"})
        self.assertEqual(self.keys(said)["closed-season"], "refuse")

    def test_faults_in_house_rules(self) -> None:
        first = {"month": 1, "day": 1}
        for body, field in (
            ({"answers": {"iron": "lots"}}, "answers.iron"),
            ({"season_start": {"month": 2, "day": 30}}, "season_start"),
        ):
            self.assertEqual(list(self.faults("PUT", "house", body)), [field])
        site = self.ask("GET", "sites")[0] | {"closed": [{"what": "K", "start": first, "end": first}], "time_zone": "Mars"}
        self.assertEqual(set(self.faults("PUT", f"sites/{site['id']}", site)), {"closed.0.what", "time_zone"})

    def test_rows_for_a_ground_say_why_they_do_not_fit(self) -> None:
        # Half of the full rate of 0.8; that it starts there is common practice, no source.
        self.change(
            kind="growth_regulator",
            rates=[
                {"phrase": "5 to 8 fl oz per acre", "grasses": ["creeping_bentgrass"], "height_high": 0.5},
                {"phrase": "0.5 to 0.8 fl oz/M", "grasses": ["tall_fescue"], "height_low": 2},
            ],
        )
        tall = self.bank(grass="tall_fescue", height={"value": 3, "unit": "in"})
        rows = self.ask("POST", "reckon/rows", {"product_id": self.spray.pk, "area_id": tall})
        self.assertEqual([r["fits"] for r in rows], [True, False])
        self.assertEqual(rows[0]["start"]["text"], "0.4 fl oz/1000 ft²")
        self.assertIn("half the full rate", rows[0]["why"])
        self.assertIn("The row lists creeping bentgrass", rows[1]["misses"][0])


class Backwards(WholeTest):
    def back(self, **more: Any) -> Any:
        body = {
            "mode": "used",
            "product_id": self.spray.pk,
            "row_id": self.spray.rates.get().pk,
            "area_id": self.area.pk,
            "amount": {"value": 4.2, "unit": "fl_oz"},
        }
        return self.ask("POST", "reckon/backwards", body | more)

    def test_used_left_and_whole(self) -> None:
        # 4.2 ÷ 7; (128 − 122.4) ÷ 7 = 0.8; 5.6 ÷ 128 gal; 4.2 in packages of 2 is 3; 2 ÷ 0.6 = 3.333.
        self.assertEqual(self.back()["rate"]["text"], "0.6 fl oz/1000 ft²")
        left = self.back(mode="left", amount={"value": 1, "unit": "gal"}, left={"value": 122.4, "unit": "fl_oz"})
        self.assertEqual((left["rate"]["text"], left["used"]), ("0.8 fl oz/1000 ft²", "0.04375 gal"))
        whole = self.back(mode="whole", amount={"value": 2, "unit": "fl_oz"}, rate=RATE)
        self.assertEqual((whole["packages"], whole["meant"]), (3, "4.2 fl oz"))
        self.assertIn("goes as far as 3,333 ft²", whole["reach"])

    def test_a_doubled_dose_is_caught_at_the_pour(self) -> None:
        said = self.back(amount={"value": 8.4, "unit": "fl_oz"})
        self.assertTrue(said["judgement"]["refused"])
        self.assertIn("twice the ground", said["misread"]["sentence"])


class SideBySide(WholeTest):
    def test_all_that_are_for_a_target_the_cheapest_first(self) -> None:
        # At the low rate 7 × 0.4 ÷ 128 × 320 = 7.00.
        self.change(rates=[{"phrase": "0.4 to 0.8 fl oz per 1,000 sq ft", "target": "Dollar spot"}])
        dear = FUNGICIDE | {"name": "Dear SC", "rates": [{"phrase": "1 fl oz/M", "use": "Dollar spot"}]}
        self.ask("POST", "products", dear, 201)
        self.ask("POST", "products", dear | {"name": "Other", "rates": [{"phrase": "1 fl oz/M", "use": "Rust"}]}, 201)
        said = self.ask("POST", "reckon/compare", {"area_id": self.area.pk, "target": "dollar_spot"})
        self.assertEqual([r["product"] for r in said["rows"]], ["Test SC", "Dear SC"])
        self.assertEqual(said["sentence"], "Test SC costs least here: 7.00 USD.")
        self.assertEqual(said["rows"][0]["cost"], "7.00 USD")
        self.assertEqual(said["rows"][0]["best"], ["cost"])
        matched = self.ask(
            "POST",
            "reckon/compare",
            {"area_id": self.area.pk, "target": "dollar_spot", "equal_to": said["rows"][1]["product_id"]},
        )
        self.assertEqual({r["active"] for r in matched["rows"]}, {said["rows"][1]["active"]})

    def test_like_with_like(self) -> None:
        """20 % and 10 % N at 0.3 to 0.6 lb N/1000 ft², 7,000 ft²: at the lowest 2.1 lb N, 10.5 and 21 lb (arithmetic)."""
        weak = FEED | {
            "name": "Weak 10-0-0",
            "contents": [
                {"name": "N", "basis": "N", "amount": 10, "unit": "%"},
                {"name": "Fe", "basis": "Fe", "amount": 2, "unit": "%"},
            ],
            "packages": [{"value": 50, "unit": "lb", "price": "20.00"}],
        }
        made = self.ask("POST", "products", weak, 201)
        self.ask("POST", f"products/{made['id']}/lots", {"number": "1", "left": {"value": 30, "unit": "lb"}}, 201)
        body = {"area_id": self.area.pk, "kind": "fertiliser"}

        def rows(**more: Any) -> dict[str, Any]:
            return {r["product"]: r for r in self.ask("POST", "reckon/compare", body | more)["rows"]}

        for at, amounts in (("low", ("10.5 lb", "21 lb")), ("middle", ("15.75 lb", "31.5 lb")), ("high", ("21 lb", "42 lb"))):
            found = rows(at=at)
            self.assertEqual(tuple(found[n]["amount"] for n in ("Test 20-0-10", "Weak 10-0-0")), amounts)
        low = rows(at="low")["Weak 10-0-0"]
        self.assertEqual((low["stock"], low["purchase"], low["packages"]), ("30 lb in stock, enough", "", "50 lb, 20.00 USD"))
        self.assertEqual(low["per_nutrient"], "4.00 USD")  # 20 ÷ (50 × 0.1)
        self.assertEqual(rows(at="low", nutrient="Fe")["Weak 10-0-0"]["per_nutrient"], "20.00 USD")  # 20 ÷ (50 × 0.02)
        chosen = [{"product_id": made["id"], "rate": {"value": "0.5", "unit": "lb/kft2:N"}}]
        self.assertEqual(rows(at="low", rates=chosen)["Weak 10-0-0"]["amount"], "35 lb")  # 7 × 0.5 ÷ 0.1
        equal = rows(at="low", rates=chosen, equal_to=made["id"], equal_in="N")
        self.assertEqual({r["brought"] for r in equal.values()}, {"0.5 lb/1000 ft²"})
        for bad, field in (
            ({"equal_in": "love"}, "equal_in"),
            ({"nutrient": "active sun"}, "nutrient"),
            ({"rates": [{"product_id": made["id"], "rate": {"value": "much", "unit": "lb/kft2"}}]}, "rates.0.rate"),
            ({"equal_to": self.feed.pk, "equal_in": "Fe"}, "equal_to"),
        ):
            self.assertEqual(list(self.faults("POST", "reckon/compare", body | bad)), [field])

    def test_nothing_for_it_is_said(self) -> None:
        self.assertEqual(list(self.faults("POST", "reckon/compare", {"area_id": self.area.pk, "target": "rust"})), ["target"])


class Measuring(WholeTest):
    def test_a_dose_by_every_measure(self) -> None:
        # 0.38 × 29.5735 mL (NIST Handbook 44) = 11.24.
        said = self.ask("POST", "reckon/measure", {"amount": {"value": "0.38", "unit": "fl_oz"}, "product_id": self.spray.pk})
        self.assertEqual({w["unit"]: w["text"] for w in said["ways"]}["mL"], "11.24 mL")
        self.assertIn("g", {w["unit"] for w in said["ways"]})
        self.assertTrue(said["leasts"])

    def test_a_cup_by_its_water(self) -> None:
        body = {
            "mark": {"value": 4, "unit": "fl_oz"},
            "weight": {"value": "118.1", "unit": "g"},
            "temperature": {"value": 68, "unit": "degF"},
        }
        self.assertTrue(self.ask("POST", "reckon/cup", body)["good"])
        self.assertEqual(list(self.faults("POST", "reckon/cup", body | {"weight": {"value": 400, "unit": "g"}})), ["weight"])


class Line(WholeTest):
    def line(self, text: str, expect: int = 200) -> Any:
        return self.ask("POST", "reckon/line", {"line": text}, expect)

    def test_several_areas_become_one_job(self) -> None:
        # (7 + 1.5) × 0.6 = 5.1.
        self.bank()
        said = self.line("0.6 fl oz/M of Test SC on North green and half of Bank with sprayer")
        self.assertEqual([p["share"] for p in said["job"]["parts"]], ["", "50 %"])
        self.assertEqual(self.ask("POST", "reckon/job", said["job"])["mix"][0]["amount"]["text"], "5.1 fl oz")

    def test_a_bare_pound_of_a_feed_is_asked_back_with_both_readings(self) -> None:
        """0.25 lb of a 20 % feed brings 0.05 lb N; 0.25 lb N takes 1.25 lb of it, five times as much (arithmetic)."""
        said = self.line("0.25 lb/M of Test 20-0-10 on North green", 422)
        choices = said["fields"][0]["choices"]
        rest = "/M of Test 20-0-10 on North green"
        self.assertEqual([c["text"] for c in choices], [f"0.25 lb product{rest}", f"0.25 lb N{rest}"])
        self.assertIn("5 times as much", said["message"])
        self.assertEqual(
            [self.line(c["text"])["sentence"].split(" of")[0] for c in choices], ["Weigh out 1.75 lb", "Weigh out 8.75 lb"]
        )

    def test_every_other_question(self) -> None:
        for text, words in (
            ("what rate is 4.2 fl oz of Test SC on North green", "is 0.6 fl oz/1000 ft²"),
            ("what rate was 1 gal less 122.4 fl oz of Test SC on North green", "0.8 fl oz/1000 ft²"),
            ("what does 3 lb/M of Test 20-0-10 bring", "0.6 lb N per 1000 ft²"),
            ("measure 0.38 fl oz of Test SC", "11 mL in the 20 mL syringe"),
            ("cup 4 fl oz holds 118.1 g of water at 20 C", "The mark is good"),
            ("compare Test SC and Test 20-0-10 on North green", "side by side"),
            ("how far does 30 lb go at 3 lb/M", "10,000 ft²"),
        ):
            self.assertIn(words, self.line(text)["sentence"], text)
