"""A mix from label to book through the API: several products in one tank are one job, one sheet, one application."""

import csv
import io
from datetime import UTC, datetime
from typing import Any
from unittest.mock import patch

from greenmeasure.book.models import Application, Entry
from greenmeasure.rounds.models import Round
from greenmeasure.shelf.models import Lot, Product
from greenmeasure.tests.base import AREA, FUNGICIDE, ApiTest

NOW = datetime(2026, 8, 12, 14, 0, tzinfo=UTC)  # 10:00 in New York
IRON = {
    "name": "Iron SL",
    "kind": "iron",
    "formulation": "SL",
    "density": {"value": 10, "unit": "lb/gal"},
    "contents": [{"name": "Fe", "basis": "Fe", "amount": 6, "unit": "%"}],
    "rates": [{"phrase": "2 to 4 fl oz per 1,000 sq ft"}],
    "packages": [{"value": 1, "unit": "gal", "price": "32.00"}],
}
STICKER = {"name": "Sticker", "kind": "adjuvant", "formulation": "SL", "rates": [{"phrase": "0.25 to 0.5% v/v"}]}
DYE = {"name": "Dye", "kind": "colourant", "formulation": "SL", "rates": [{"phrase": "1 to 2 fl oz per gallon of spray"}]}
WEEDS = {
    "name": "Weeds SL",
    "kind": "herbicide",
    "formulation": "SL",
    "contents": [{"name": "an active", "basis": "active", "amount": 3, "unit": "lb/gal"}],
    "rates": [{"phrase": "1 to 1.5 fl oz per 1,000 sq ft"}],
}


AMOUNTS = ["4.2 fl oz", "21 fl oz", "2.24 fl oz", None]
NAMES = ["Test SC", "Iron SL", "Sticker", "Dye"]


class MixTest(ApiTest):
    """10:00 on 12 August, a shelf of things that go into one tank."""

    def setUp(self) -> None:
        super().setUp()
        clock = patch("greenmeasure.common.clock.now", return_value=NOW)
        clock.start()
        self.addCleanup(clock.stop)
        self.cards = {p["name"]: p for p in self.ask("GET", "products")}
        for card in (IRON, STICKER, DYE, WEEDS):
            self.cards[card["name"]] = self.ask("POST", "products", card, 201)

    def dose(self, name: str, value: float | None, unit: str = "fl_oz/kft2") -> dict[str, Any]:
        if value is None:
            return {}
        return {"row_id": self.cards[name]["rates"][0]["id"], "rate": {"value": value, "unit": unit}}

    def mix(self, *what: tuple[str, float | None] | tuple[str, float | None, str], **more: Any) -> dict[str, Any]:
        """A job of some products at rates on the green, whose 7,000 ft² take 7 gal of spray."""
        doses = [self.dose(*w) for w in what]
        job = {
            "mix": [{"product_id": self.cards[w[0]]["id"]} for w in what],
            "machine_id": self.sprayer.pk,
            "parts": [{"area_id": self.area.pk, "doses": doses}],
        }
        return job | more

    def whole(self, **more: Any) -> dict[str, Any]:
        return self.mix(("Test SC", 0.6), ("Iron SL", 3), ("Sticker", 0.25, "pct_vv"), ("Dye", None), **more)

    def rule(self, name: str, **rules: Any) -> None:
        Product.objects.filter(name=name).update(rules=rules)
        self.account.refresh_from_db()
        self.account.touch()

    def findings(self, job: dict[str, Any], place: int = 0, part: int = 0) -> dict[str, str]:
        said = self.ask("POST", "reckon/job", job)["parts"][part]["doses"][place]["findings"]
        return {f["key"]: f["act"] for f in said}


class Reckoned(MixTest):
    def test_four_liquids_on_one_ground_are_one_job(self) -> None:
        """7,000 ft² at 1 gal: 7 gal, 4.2 and 21 fl oz, 0.25 % of 896 fl oz is 2.24 (arithmetic)."""
        said = self.ask("POST", "reckon/job", self.whole())
        self.assertEqual(
            [c["amount"] and c["amount"]["text"] for c in said["mix"]], ["4.2 fl oz", "21 fl oz", "2.24 fl oz", None]
        )
        self.assertEqual(
            said["headline"],
            "Mix 4.2 fl oz of Test SC, 21 fl oz of Iron SL, 2.24 fl oz of Sticker and Dye to taste for North green: "
            "2 tanks, 7 gal in all.",
        )
        first = said["loads"][0]
        # of 4 gal, 512 fl oz, the liquids take 4/7 of 27.44: 15.68, so that 496.32 are water, 3.8775 gal
        self.assertEqual((first["volume"], first["water"]), ("4 gal", "3.878 gal"))
        self.assertEqual([p["amount"] for p in first["pours"]], ["2.4 fl oz", "12 fl oz", "1.28 fl oz", "to taste"])
        pours = [a["pours"] for a in first["acts"] if a["pours"]]
        self.assertEqual(pours, ["Test SC", "Iron SL", "Dye", "Sticker"])
        self.assertEqual([c["per_volume"] for c in said["mix"]], ["0.6 fl oz/gal", "3 fl oz/gal", "0.32 fl oz/gal", ""])
        # 4.2/128 × 320 and 21/128 × 32: 10.50 + 5.25; the sticker has no price, so that the whole has none
        self.assertEqual([c["cost"] and c["cost"]["total"] for c in said["mix"]], ["10.50 USD", "5.25 USD", None, None])
        self.assertIsNone(said["cost"])
        self.assertFalse(said["refused"])

    def test_gear_rules_and_cautions_of_all(self) -> None:
        self.rule("Test SC", reentry={"value": 12, "unit": "h"})
        self.rule("Iron SL", mow_after={"value": 4, "unit": "h"})
        said = self.ask("POST", "reckon/job", self.whole())
        texts = [r["text"] for r in said["label_rules"]]
        self.assertTrue(any(t.startswith("Keep people") for t in texts), texts)
        self.assertTrue(any(t.startswith("Do not mow") for t in texts), texts)
        keys = [c["key"] for c in said["cautions"]]
        self.assertEqual(len(keys), len(set(keys)))
        self.assertTrue({"stains", "drift", "keep-off"} <= set(keys))

    def test_what_is_wrong_names_the_component(self) -> None:
        iron = self.mix(("Test SC", 0.6), ("Iron SL", 3))
        bad: dict[str, tuple[dict[str, Any], str]] = {
            "a rate below nothing": (self.mix(("Test SC", 0.6), ("Iron SL", -3)), "parts.0.doses.1.rate"),
            "no rate": (self.mix(("Test SC", 0.6), ("Iron SL", None)), "parts.0.doses.1.rate"),
            "another's row": (
                iron | {"parts": [iron["parts"][0] | {"doses": [iron["parts"][0]["doses"][0]] * 2}]},
                "parts.0.doses.1.row_id",
            ),
            "one rate for two": (
                iron | {"parts": [iron["parts"][0] | {"doses": iron["parts"][0]["doses"][:1]}]},
                "parts.0.doses",
            ),
            "the same twice": (self.mix(("Iron SL", 3), ("Iron SL", 3)), "mix"),
            "granules in a tank": (
                self.mix(("Test SC", 0.6))
                | {
                    "mix": [{"product_id": self.spray.pk}, {"product_id": self.feed.pk}],
                    "parts": [
                        {
                            "area_id": self.area.pk,
                            "doses": [
                                self.dose("Test SC", 0.6),
                                {"row_id": self.feed.rates.get().pk, "rate": {"value": 0.5, "unit": "lb/kft2:N"}},
                            ],
                        }
                    ],
                },
                "mix.1",
            ),
        }
        for name, (job, field) in bad.items():
            with self.subTest(name):
                self.assertEqual(list(self.faults("POST", "reckon/job", job)), [field])
                self.assertEqual(list(self.faults("POST", "rounds", job)), [field])
        self.assertEqual(Round.objects.count(), 0)

    def test_areas_of_the_same_rates_share_their_tanks(self) -> None:
        bank = self.ask("POST", "areas", AREA | {"name": "Bank", "size": {"value": 1000, "unit": "ft2"}}, 201)["id"]
        job = self.mix(("Test SC", 0.6), ("Iron SL", 3))
        other = job["parts"][0] | {"area_id": bank}
        self.assertEqual(len(self.ask("POST", "reckon/job", job | {"parts": [*job["parts"], other]})["loads"]), 2)
        other = other | {"doses": [self.dose("Test SC", 0.6), self.dose("Iron SL", 2)]}
        self.assertEqual(len(self.ask("POST", "reckon/job", job | {"parts": [*job["parts"], other]})["loads"]), 3)


class OnTheLine(MixTest):
    def line(self, text: str, expect: int = 200) -> Any:
        return self.ask("POST", "reckon/line", {"line": text}, expect)

    def test_a_mix_in_one_line_is_the_mix_that_reckon_has(self) -> None:
        # 7 × 0.6, 7 × 3, and 0.25 % of 7 gal, 896 fl oz
        said = self.line("0.6 fl oz/M Test SC + 3 fl oz/M of Iron SL + 0.25% Sticker on North green with Sprayer")
        self.assertEqual(
            said["sentence"],
            "Mix 4.2 fl oz of Test SC, 21 fl oz of Iron SL and 2.24 fl oz of Sticker for North green: 2 tanks, 7 gal in all.",
        )
        self.assertEqual(len(said["job"]["mix"]), 3)
        self.assertEqual(self.ask("POST", "reckon/job", said["job"])["headline"], said["sentence"])
        self.assertTrue(any("2.4 fl oz" in d or "Test SC in the" in d for d in said["details"]), said["details"])

    def test_it_asks_the_same_gate(self) -> None:
        self.rule("Test SC", incompatible=[{"what": "Iron SL", "days": 0}])
        for ground in ("North green", "7,000 sq ft"):
            said = self.line(f"0.6 fl oz/M Test SC + 3 fl oz/M Iron SL on {ground} with Sprayer")
            self.assertTrue(said["refused"], ground)
            self.assertTrue(said["sentence"].startswith("Do not mix"))

    def test_without_an_of_it_is_understood(self) -> None:
        # 7 × 0.6
        self.assertIn("Pour 4.2 fl oz", self.line("0.6 fl oz/M Test SC on North green with Sprayer")["sentence"])

    def test_what_is_not_named_or_not_here_is_said(self) -> None:
        for text in (
            "0.6 fl oz/M + 3 fl oz/M Iron SL on North green",
            "0.6 fl oz/M Test SC + 3 fl oz/M on North green",
            "0.6 fl oz/M Test SC + 3 fl oz/M Nonsense on North green",
            "0.6 fl oz/M Test SC + 3 fl oz/M Iron SL",
            "0.6 fl oz/M Test SC + 0.6 fl oz/M Test SC on North green",
        ):
            self.line(text, 422)

    def test_areas_joined_by_a_plus_are_still_areas(self) -> None:
        self.ask("POST", "areas", AREA | {"name": "Bank"}, 201)
        said = self.line("0.6 fl oz/M of Test SC on North green + Bank with Sprayer")
        self.assertEqual((len(said["job"]["mix"]), len(said["job"]["parts"])), (1, 2))


class AtTheGate(MixTest):
    """Each component against the ledger, and against the others."""

    def test_what_is_kept_apart_is_refused_in_one_tank_both_ways(self) -> None:
        self.assertNotIn("kept-apart", self.findings(self.whole()))
        self.rule("Test SC", incompatible=[{"what": "Iron SL", "days": 0}])
        job = self.whole()
        self.assertEqual([self.findings(job, c).get("kept-apart") for c in (0, 1)], ["refuse", "refuse"])
        self.assertTrue(self.ask("POST", "reckon/job", job)["refused"])
        self.ask("POST", "rounds", job, 422)

    def test_one_active_in_two_products_counts_against_one_cap(self) -> None:
        """0.6 fl oz/1000 ft² of 20 % at 9 lb/gal and 1 fl oz of 3 lb/gal are 0.367 and 1.02 lb ai an acre (arithmetic)."""
        self.rule("Weeds SL", active_per_season="1.2 lb ai per acre")
        self.assertFalse(self.ask("POST", "reckon/job", self.mix(("Weeds SL", 1)))["refused"])
        both = self.mix(("Weeds SL", 1), ("Test SC", 0.6))
        self.assertIn("refuse", {act for key, act in self.findings(both).items() if key.startswith("season")})

    def test_one_wants_the_leaf_dry_and_one_is_watered_in(self) -> None:
        self.rule("Test SC", rain_after={"value": 4, "unit": "h"})
        self.rule("Iron SL", water_in_depth={"value": 0.1, "unit": "in"}, water_in_delay={"value": 2, "unit": "h"})
        job = self.mix(("Test SC", 0.6), ("Iron SL", 3))
        self.assertEqual(self.findings(job, 1)["washes-off"], "refuse")
        said = self.ask("POST", "reckon/job", job)["parts"][0]["doses"][1]["findings"]
        self.assertIn("not in one job", next(f["sentence"] for f in said if f["key"] == "washes-off"))

    def test_the_same_tank_keeps_nobody_off_it(self) -> None:
        self.rule("Test SC", reentry={"value": 12, "unit": "h"})
        self.assertNotIn("walked-on", self.findings(self.mix(("Test SC", 0.6), ("Iron SL", 3)), 1))

    def test_a_dye_and_a_sticker_are_no_partners(self) -> None:
        self.ask("PUT", "house", {"answers": {"partners": "few"}})
        self.account.refresh_from_db()
        self.assertNotIn("partners", self.findings(self.whole()))
        three = self.mix(("Test SC", 0.6), ("Iron SL", 3), ("Weeds SL", 1))
        self.assertIn("partners", self.findings(three))

    def test_every_grass_must_be_on_every_label(self) -> None:
        Product.objects.get(name="Weeds SL").rates.update(grasses=["bermudagrass"])
        self.account.touch()
        job = self.mix(("Test SC", 0.6), ("Weeds SL", 1))
        self.assertEqual(self.findings(job, 1)["grass-not-listed"], "refuse")
        self.assertNotIn("grass-not-listed", self.findings(job, 0))

    def test_a_target_is_of_the_component_that_is_for_it(self) -> None:
        Product.objects.get(name="Test SC").rates.update(target="Dollar spot")
        self.account.touch()
        job = self.mix(("Test SC", 0.6), ("Iron SL", 3))
        job["mix"][0]["target"] = "dollar_spot"
        self.assertNotIn("refuse", {*self.findings(job, 0).values(), *self.findings(job, 1).values()})


class ByTheLabel(MixTest):
    """What a label says of its tank."""

    def test_an_adjuvant_is_asked_for_or_forbidden(self) -> None:
        alone, with_it = self.mix(("Test SC", 0.6)), self.mix(("Test SC", 0.6), ("Sticker", 0.25, "pct_vv"))
        self.rule("Test SC", adjuvant="needed")
        self.assertEqual(self.findings(alone)["adjuvant-needed"], "warn")
        self.assertNotIn("adjuvant-needed", self.findings(with_it))
        self.rule("Test SC", adjuvant="forbidden")
        self.assertEqual(self.findings(with_it)["adjuvant-forbidden"], "refuse")
        self.ask("POST", "rounds", with_it, 422)
        self.assertNotIn("adjuvant-forbidden", self.findings(alone))

    def test_low_to_middle_rates_only_when_mixed(self) -> None:
        self.rule("Test SC", most_mixed="0.5 fl oz per 1,000 sq ft")
        self.assertNotIn("most-mixed", self.findings(self.mix(("Test SC", 0.6))))
        self.assertEqual(self.findings(self.mix(("Test SC", 0.6), ("Weeds SL", 1)))["most-mixed"], "refuse")
        self.assertNotIn("most-mixed", self.findings(self.mix(("Test SC", 0.5), ("Weeds SL", 1))))
        # what helps the spray is no partner
        self.assertNotIn("most-mixed", self.findings(self.mix(("Test SC", 0.6), ("Sticker", 0.25, "pct_vv"))))

    def test_never_all_three(self) -> None:
        self.rule("Test SC", never_all="Weeds SL; Iron SL")
        for two in (("Weeds SL", 1.0), ("Iron SL", 3.0)):
            self.assertNotIn("never-all", self.findings(self.mix(("Test SC", 0.6), two)))
        self.assertEqual(self.findings(self.mix(("Test SC", 0.6), ("Weeds SL", 1), ("Iron SL", 3)))["never-all"], "refuse")

    def test_the_strictest_of_what_several_say_stands_first(self) -> None:
        """The shortest mixed life, the longest re-entry, the widest buffer."""
        self.rule("Test SC", mixed_life={"value": 24, "unit": "h"}, reentry={"value": 4, "unit": "h"})
        more = {
            "mixed_life": {"value": 2, "unit": "h"},
            "reentry": {"value": 12, "unit": "h"},
            "buffer": {"value": 10, "unit": "ft"},
        }
        self.rule("Weeds SL", **more)
        said = self.ask("POST", "reckon/job", self.mix(("Test SC", 0.6), ("Weeds SL", 1)))["label_rules"]
        together = [r["text"] for r in said if not r["product"]]
        self.assertEqual(
            together,
            [
                "Use the mix within 2 h (Weeds SL).",
                "Keep people and animals off for 12 h (Weeds SL).",
                "Keep 10 ft from water (Weeds SL).",
            ],
        )
        self.assertEqual({r["product"] for r in said if r["product"]}, {"Test SC", "Weeds SL"})
        alone = self.ask("POST", "reckon/job", self.mix(("Test SC", 0.6)))["label_rules"]
        self.assertEqual({r["product"] for r in alone}, {""})

    def test_what_cannot_be_read_of_them_stops_the_plan(self) -> None:
        self.rule("Test SC", adjuvant="perhaps")
        self.assertEqual(self.findings(self.mix(("Test SC", 0.6)))["rule-unreadable"], "refuse")
        wrong = FUNGICIDE | {"rules": {"most_mixed": "much"}}
        self.assertEqual(list(self.faults("PUT", f"products/{self.spray.pk}", wrong)), ["rules.most_mixed"])


class OfTheTank(MixTest):
    """What is said of the mix as a whole, beside its machine."""

    def keys(self, job: dict[str, Any]) -> dict[str, str]:
        return {f["key"]: f["act"] for f in self.ask("POST", "reckon/job", job)["machine_findings"]}

    def test_a_jar_test_is_asked_the_first_time(self) -> None:
        job = self.mix(("Test SC", 0.6), ("Iron SL", 3), ("Sticker", 0.25, "pct_vv"))
        self.assertEqual(self.keys(job).get("jar-test"), "warn")
        begun = self.ask("POST", "rounds", job, 201)
        self.assertIn("jar test first", " ".join(f["sentence"] for f in begun["sheet"]["findings"]))
        used = [{"amount": {"value": v, "unit": "fl_oz"}} for v in (4.2, 21, 2.24)]
        self.ask("POST", f"rounds/{begun['id']}/finish", {"used": used})
        self.assertNotIn("jar-test", self.keys(job))
        self.assertIn("jar-test", self.keys(self.mix(("Test SC", 0.6), ("Weeds SL", 1))))
        self.assertNotIn("jar-test", self.keys(self.mix(("Weeds SL", 1), ("Sticker", 0.25, "pct_vv"))))

    def test_droplets_that_disagree_stop_the_round(self) -> None:
        self.rule("Test SC", droplets_low="coarse")
        self.rule("Weeds SL", droplets_low="fine", droplets_high="medium")
        job = self.mix(("Test SC", 0.6), ("Weeds SL", 1))
        self.assertEqual(self.keys(job).get("droplets-apart"), "refuse")
        self.assertIn("no nozzle suits both", self.ask("POST", "rounds", job, 422)["message"])

    def test_the_nozzle_is_held_against_the_label(self) -> None:
        path = f"products/{self.cards['Weeds SL']['id']}"
        bad = WEEDS | {"rules": {"droplets_low": "huge"}}
        self.assertIn("rules.droplets_low", self.faults("PUT", path, bad))
        self.cards["Weeds SL"] = self.ask("PUT", path, WEEDS | {"rules": {"droplets_low": "coarse"}})
        self.assertIn("Droplets coarse or coarser.", [s["text"] for s in self.cards["Weeds SL"]["rules_said"]])
        self.sprayer.droplets = 2
        self.sprayer.save()
        self.assertEqual(self.keys(self.mix(("Weeds SL", 1))).get("droplets"), "refuse")

    def test_an_odd_last_tank_is_offered_to_be_shared_out(self) -> None:
        """4.05 gal: the last tank holds 0.05 gal and 0.03 fl oz, 0.9 mL by tenths of a mL."""
        job = self.mix(("Test SC", 0.6))
        job["parts"][0]["treated"] = {"value": 4050, "unit": "ft2"}
        self.assertIn("Share it out", self.ask("POST", "reckon/job", job)["share_out"])
        self.assertEqual(self.ask("POST", "reckon/job", job | {"even": True})["share_out"], "")
        self.assertEqual(self.ask("POST", "reckon/job", self.mix(("Test SC", 0.6)))["share_out"], "")


class InTwoPasses(MixTest):
    """1 gal/1000 ft² twice over 7,000 ft²: 14 gal, four tanks of 4, the second of which ends the first pass."""

    def test_tanks_carry_their_pass_and_the_sheet_how_they_lie(self) -> None:
        job = self.mix(("Test SC", 0.6), passes=2, crossing="crosswise")
        loads = self.ask("POST", "reckon/job", job)["loads"]
        self.assertEqual([x["where"] for x in loads], ["pass 1", "ends pass 1, goes on in pass 2", "pass 2", "pass 2"])
        own = self.ask("POST", "reckon/job", job | {"by_pass": True})["loads"]
        self.assertEqual([x["name"] for x in own][1:3], ["Tank 2, pass 1", "Tank 3, pass 2"])
        begun = self.ask("POST", "rounds", job, 201)
        self.assertEqual(begun["sheet"]["loads"][1]["where"], "ends pass 1, goes on in pass 2")
        self.assertIn({"name": "Second pass", "text": "crosswise to the one before"}, begun["sheet"]["setup"])
        done = self.ask("POST", f"rounds/{begun['id']}/finish", {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}}]})
        again = self.ask("GET", f"reckon/again/{done[0]['id']}")["job"]
        self.assertEqual((again["passes"], again["crossing"]), (2, "crosswise"))

    def test_one_pass_lies_to_no_other(self) -> None:
        begun = self.ask("POST", "rounds", self.mix(("Test SC", 0.6), crossing="diagonal"), 201)
        self.assertNotIn("Second pass", [f["name"] for f in begun["sheet"]["setup"]])
        self.assertIn("crossing", self.faults("POST", "reckon/job", self.mix(("Test SC", 0.6), crossing="sideways")))


class ThroughTheBook(MixTest):
    def used(self, *amounts: float | None, **more: Any) -> dict[str, Any]:
        typed = [{"amount": None if a is None else {"value": a, "unit": "fl_oz"}} for a in amounts]
        return {"used": typed} | more

    def test_from_sheet_to_book(self) -> None:
        begun = self.ask("POST", "rounds", self.whole(), 201)
        self.assertEqual([c["product"] for c in begun["mix"]], NAMES)
        self.assertEqual(begun["sheet"]["product"], "Test SC, Iron SL, Sticker and Dye")
        poured = [p["amount"] for p in begun["sheet"]["loads"][0]["pours"]]
        self.assertEqual(poured, ["2.4 fl oz", "12 fl oz", "1.28 fl oz", "to taste"])
        for gear in begun["sheet"]["wear"]:
            self.ask("POST", f"rounds/{begun['id']}/ticks", {"load": 0, "act": gear["key"], "done": True})
        for load in begun["sheet"]["loads"]:
            for act in load["acts"]:
                said = self.ask("POST", f"rounds/{begun['id']}/ticks", {"load": load["number"], "act": act["key"], "done": True})
        self.assertEqual(said["loads_done"], 2)
        lot = Lot.objects.create(product=Product.objects.get(name="Iron SL"), number="I-1", left_value=100, left_unit="fl_oz")
        body = self.used(4.2, 22.4, 2.2, None, wind="calm")
        body["used"][1]["lot_id"] = lot.pk
        checked = self.ask("POST", f"rounds/{begun['id']}/actual", body)["parts"][0]["doses"]
        # 22.4 over 7 is 3.2, 6.67 % over the plan of 3
        self.assertEqual([d["product"] for d in checked], ["Test SC", "Iron SL", "Sticker"])
        self.assertEqual(checked[1]["against_plan"], "+6.67 % against the plan of 3 fl oz/1000 ft²")
        (made,) = self.ask("POST", f"rounds/{begun['id']}/finish", body)
        self.assertEqual((made["name"], made["area"]), ("Test SC, Iron SL, Sticker and Dye", "North green"))
        self.assertEqual([e["used"] for e in made["entries"]], ["4.2 fl oz", "22.4 fl oz", "2.2 fl oz", ""])
        self.assertIsNone(made["entries"][3]["judgement"])
        self.assertEqual((Application.objects.count(), Entry.objects.count()), (1, 4))
        lot.refresh_from_db()
        self.assertAlmostEqual(lot.left_value, 77.6)
        self.assertEqual(self.ask("GET", "book?words=iron")["count"], 1)
        self.assertEqual(self.ask("GET", "book?words=iron+sticker")["count"], 1)
        self.assertEqual(self.ask("GET", "book?words=iron+badger")["count"], 0)

    def test_a_tank_of_which_only_part_was_sprayed_is_seen(self) -> None:
        """3.5 of 7 gal sprayed with all of the product told as used: half of each went down (arithmetic)."""
        pk = self.ask("POST", "rounds", self.whole(), 201)["id"]
        half = {"spray": {"value": 3.5, "unit": "gal"}}
        said = self.ask("POST", f"rounds/{pk}/actual", self.used(4.2, 21, 2.24, None, **half))["partly"]
        self.assertEqual([u and u["text"] for u in said["used"]], ["2.1 fl oz", "10.5 fl oz", "1.12 fl oz", None])
        self.assertIn("3.5 gal of 7 gal was sprayed", said["sentence"])
        # 2.1, 10.5 and 1.12 are what went down: nothing more to say
        for other in (self.used(2.1, 10.5, 1.12, None, **half), self.used(4.2, 21, 2.24, None)):
            self.assertIsNone(self.ask("POST", f"rounds/{pk}/actual", other)["partly"])

    def test_what_was_used_is_needed_of_each_that_had_an_amount(self) -> None:
        # 4.2 and 21 fl oz are what was planned.
        pk = self.ask("POST", "rounds", self.whole(), 201)["id"]
        self.assertEqual(
            list(self.faults("POST", f"rounds/{pk}/finish", self.used(4.2, None, -1, None))), ["used.1.amount", "used.2.amount"]
        )
        self.assertEqual(list(self.faults("POST", f"rounds/{pk}/finish", self.used(4.2, 21))), ["used"])
        self.assertEqual(Application.objects.count(), 0)

    def test_it_counts_as_one_application_for_each_of_its_products(self) -> None:
        self.rule("Iron SL", applications_per_season=1)
        body = {"job": self.whole(), "finish": self.used(4.2, 21, 2.2, None), "reason": ""}
        self.ask("POST", "rounds/done", body, 201)
        self.assertEqual(self.findings(self.mix(("Iron SL", 3)))["season-times"], "warn")
        self.assertNotIn("season-times", self.findings(self.mix(("Test SC", 0.6))))

    def test_a_rule_that_stood_against_one_marks_that_one(self) -> None:
        self.rule("Test SC", applications_per_season=1)
        body = {"job": self.whole(), "finish": self.used(4.2, 21, 2.2, None), "reason": "A slip"}
        self.ask("POST", "rounds/done", body, 201)
        (made,) = self.ask("POST", "rounds/done", body, 201)
        self.assertEqual([bool(e["against"]) for e in made["entries"]], [True, False, False, False])

    def test_the_whole_mix_is_what_the_tank_held(self) -> None:
        self.ask("POST", "rounds/done", {"job": self.mix(("Weeds SL", 1), ("Dye", None)), "finish": self.used(7, None)}, 201)
        again = self.ask("POST", "reckon/job", self.mix(("Weeds SL", 1), ("Dye", None), on="2026-08-13"))
        self.assertNotIn("herbicide-in-tank", [f["key"] for f in again["machine_findings"]])
        other = self.ask("POST", "reckon/job", self.mix(("Test SC", 0.6), ("Dye", None)))
        self.assertEqual(other["machine_findings"][0]["key"], "herbicide-in-tank")

    def test_the_csv_has_a_line_an_entry_and_comes_in_again_as_the_mix_it_was(self) -> None:
        self.ask("POST", "rounds/done", {"job": self.whole(on="2026-08-10"), "finish": self.used(4.2, 21, 2.2, None)}, 201)
        answer = self.client.get("/api/accounts/alder/book/book.csv")
        text = b"".join(answer.streaming_content).decode()  # type: ignore[attr-defined]
        rows = list(csv.DictReader(io.StringIO(text)))
        self.assertEqual([r["product"] for r in rows], NAMES)
        self.assertEqual(len({r["application"] for r in rows}), 1)
        self.assertEqual([x["act"] for x in self.ask("POST", "rounds/import", {"text": text})["lines"]], ["same"] * 4)
        Application.objects.all().delete()
        Round.objects.all().delete()
        self.assertEqual([x["act"] for x in self.ask("POST", "rounds/import", {"text": text})["lines"]], ["add"] * 4)
        self.assertEqual([e.product_name for e in Application.objects.get().entries.all()], NAMES)

    def test_it_is_done_again_less_what_was_put_away(self) -> None:
        (made,) = self.ask("POST", "rounds/done", {"job": self.whole(), "finish": self.used(4.2, 21, 2.2, None)}, 201)
        said = self.ask("GET", f"reckon/again/{made['id']}")
        self.assertEqual([c["product_id"] for c in said["job"]["mix"]], [self.cards[n]["id"] for n in NAMES])
        self.ask("POST", "reckon/job", said["job"])
        Product.objects.get(name="Iron SL").archive()
        self.account.touch()
        said = self.ask("GET", f"reckon/again/{made['id']}")
        self.assertEqual((len(said["job"]["mix"]), said["notes"]), (3, ["Iron SL has been put away and is left out."]))

    def test_a_round_that_was_given_up_is_taken_up_with_its_mix(self) -> None:
        self.rule("Test SC", applications_per_season=1)
        pk = self.ask("POST", "rounds", self.whole(), 201)["id"]
        self.ask("POST", f"rounds/{pk}/give-up")
        self.assertEqual(self.ask("POST", f"rounds/{pk}/take-up")["status"], "under_way")
        self.ask("POST", f"rounds/{pk}/give-up")
        self.ask("POST", "rounds/done", {"job": self.mix(("Test SC", 0.6)), "finish": self.used(4.2)}, 201)
        self.assertIn("allows 1", self.faults("POST", f"rounds/{pk}/take-up", None)["round"])


class PourCheck(MixTest):
    """What was measured, before the tank is topped up: two tanks, 4 gal with 2.4 of Test SC's 4.2 fl oz and 3 gal with 1.8."""

    def setUp(self) -> None:
        super().setUp()
        self.begun = self.ask("POST", "rounds", self.whole(), 201)
        self.path = f"rounds/{self.begun['id']}/poured"

    def pour(self, amount: float | str | None, unit: str = "fl_oz", load: int = 1, place: int = 0, check: bool = True) -> Any:
        typed = None if amount is None else {"value": amount, "unit": unit}
        return self.ask("POST", f"{self.path}/check" if check else self.path, {"load": load, "place": place, "amount": typed})

    def dress(self) -> None:
        for gear in self.begun["sheet"]["wear"]:
            self.ask("POST", f"rounds/{self.begun['id']}/ticks", {"load": 0, "act": gear["key"], "done": True})

    def test_as_planned_and_off_it(self) -> None:
        self.assertEqual(self.pour(2.4)["sentence"], "That makes 0.6 fl oz/1000 ft², as planned.")
        # 3 for 2.4 is a quarter more
        self.assertEqual(self.pour(3)["sentence"], "That makes 0.75 fl oz/1000 ft², +25 % against the plan.")
        self.assertEqual(self.pour(3)["judgement"]["stand"], "within")

    def test_the_whole_dose_in_one_tank_is_stopped_and_asked_about(self) -> None:
        found = self.pour(4.2)
        self.assertTrue(found["stops"])
        self.assertIn("dose of the whole job", found["slip"])

    def test_double_the_iron_of_the_plot_is_seen_before_it_goes_in(self) -> None:
        # 12 fl oz is the tank's: 24 makes 6 fl oz/1000 ft² where the label's most is 4; a feed warns
        found = self.pour(24, place=1)
        self.assertEqual((found["judgement"]["stand"], found["stops"], found["off"]), ("above", False, True))
        self.assertIn("twice as much spray", found["slip"])

    def test_ounces_for_millilitres(self) -> None:
        self.assertIn("read in mL", self.pour(71)["slip"])
        self.assertIn("read in fl oz", self.pour(2.4, "ml")["slip"])

    def test_a_share_of_the_spray_is_checked_too(self) -> None:
        # 1.28 fl oz in 4 gal is 0.25 %
        self.assertEqual(self.pour(1.28, place=2)["sentence"], "That makes 0.25 % v/v, as planned.")

    def test_it_is_kept_with_the_round_taken_back_and_used_at_the_end(self) -> None:
        self.ask("POST", self.path, {"load": 1, "place": 0, "amount": {"value": 2.5, "unit": "fl_oz"}}, 409)
        self.dress()
        self.pour(2.5, check=False)
        said = self.pour(2.4, check=False)
        self.assertEqual([(p["load"], p["place"], p["amount"]["text"]) for p in said["poured"]], [(1, 0, "2.4 fl oz")])
        self.assertEqual(said["poured"][0]["by"], "Manager alder")
        self.assertIsNone(said["mix"][0]["poured"])
        said = self.pour(1.9, load=2, check=False)
        # 2.4 and 1.9, every load being measured
        self.assertEqual(said["mix"][0]["poured"]["text"], "4.3 fl oz")
        said = self.pour(None, load=2, check=False)
        self.assertEqual(len(said["poured"]), 1)

    def test_what_cannot_be_measured_is_refused_and_nothing_is_kept(self) -> None:
        self.dress()
        for body, field in (
            ({"load": 9, "place": 0}, "load"),
            ({"load": 1, "place": 9}, "place"),
            ({"load": 1, "place": 3}, "load"),
            ({"load": 1, "place": 0, "amount": {"value": -1, "unit": "fl_oz"}}, "amount"),
            ({"load": 1, "place": 0, "amount": {"value": 1, "unit": "ft2"}}, "amount"),
        ):
            given = {"amount": {"value": 1, "unit": "fl_oz"}} | body
            self.assertEqual(list(self.faults("POST", self.path, given)), [field])
        self.assertFalse(Round.objects.get().poured.exists())

    def test_a_round_that_is_over_takes_no_more(self) -> None:
        self.dress()
        self.ask("POST", f"rounds/{self.begun['id']}/give-up")
        self.ask("POST", self.path, {"load": 1, "place": 0, "amount": {"value": 2.4, "unit": "fl_oz"}}, 409)
