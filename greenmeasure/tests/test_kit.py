"""The kit through the API: benches, calibrations in force, curves, what rounds teach, cleaning, nozzle and pace.

Expected outputs are arithmetic with exact units (NIST Handbook 44 Appendix C) unless a source stands beside them.
"""

from datetime import date, timedelta
from typing import Any

from django.utils import timezone

from greenmeasure.common.clock import today
from greenmeasure.kit.models import Calibration
from greenmeasure.rounds.models import Round
from greenmeasure.tests.base import ApiTest


def q(value: float, unit: str) -> dict[str, Any]:
    return {"value": value, "unit": unit}


STRIP: dict[str, Any] = {
    "method": "strip",
    "length": q(100, "ft"),
    "width": q(5, "ft"),
    "runs": [0.5, 0.5, 0.5],
    "unit": "gal",
    "seconds": [],
}
FLOW: dict[str, Any] = {
    "method": "flow",
    "runs": [0.5, 0.5],
    "unit": "gal",
    "seconds": [60, 60],
    "distance": q(100, "ft"),
    "pace_seconds": 60,
    "width": q(5, "ft"),
}
CATCH: dict[str, Any] = {"method": "catch", "course": "acre_128", "nozzle_width": q(20, "in"), "runs": [40, 40], "unit": "fl_oz"}
EMPTYING: dict[str, Any] = {
    "method": "emptying",
    "volume": q(2, "gal"),
    "seconds": [240, 240],
    "distance": q(100, "ft"),
    "pace_seconds": 60,
    "width": q(5, "ft"),
}
TIPS: dict[str, Any] = {"method": "tips", "runs": [40, 41, 40, 47, 36], "unit": "fl_oz", "seconds": 60}
DIAL: dict[str, Any] = {
    "method": "dial",
    "dial": q(1, "fl_oz"),
    "dial_per": q(1, "gal"),
    "bucket": q(5, "gal"),
    "bucket_seconds": 60,
    "seconds": 120,
    "area": q(2000, "ft2"),
}
PANS: dict[str, Any] = {"method": "pans", "runs": [2, 6, 10, 12, 12, 13, 12, 12, 10, 6, 2], "unit": "g", "apart": q(2, "ft")}


class KitTest(ApiTest):
    def bench(self, figures: dict[str, Any], machine: Any = None, expect: int = 200) -> Any:
        found = machine or self.sprayer
        return self.ask("POST", f"machines/{found.pk}/bench", {"figures": figures}, expect)

    def keep(self, figures: dict[str, Any], machine: Any = None, expect: int = 201, **more: Any) -> Any:
        found = machine or self.sprayer
        body = {"figures": figures, "taken_on": str(today(self.account)), **more}
        return self.ask("POST", f"machines/{found.pk}/calibrations", body, expect)

    def weight(self, setting: float, pounds: float, product: Any = None) -> dict[str, Any]:
        """So many pounds on 1,000 ft² at a setting."""
        return {
            "method": "weight",
            "product_id": (product or self.feed).pk,
            "setting": setting,
            "length": q(100, "ft"),
            "width": q(10, "ft"),
            "runs": [pounds, pounds],
            "unit": "lb",
        }

    def planned(self, product: Any = None, machine: Any = None, rate: float = 0.6, passes: int = 1) -> dict[str, Any]:
        product = product or self.spray
        row = product.rates.get()
        unit = row.label().highest.unit.key
        return {
            "mix": [{"product_id": product.pk}],
            "machine_id": (machine or self.sprayer).pk,
            "passes": passes,
            "parts": [{"area_id": self.area.pk, "doses": [{"row_id": row.pk, "rate": q(rate, unit)}]}],
        }


class Benches(KitTest):
    def test_each_wet_bench_comes_to_the_same_ground(self) -> None:
        """Half a gallon on 500 ft² in a minute is 1 gal/1000 ft², by whichever way it is measured."""
        for figures in (STRIP, FLOW, EMPTYING):
            found = self.bench(figures)
            self.assertEqual(found["answer"], "1 gal/1000 ft²", figures["method"])
            self.assertIn("43.56 gal/acre", found["also"])
            self.assertEqual(found["trust"], "agree")
            self.assertTrue(found["working"])

    def test_a_course_reads_ounces_as_gallons_an_acre(self) -> None:
        """40 fl oz on 1/128 acre is 40 gal/acre, 0.9183 gal/1000 ft²; 340.3 ft² in 20 in is 204 ft to walk."""
        found = self.bench(CATCH)
        self.assertEqual(found["answer"], "0.9183 gal/1000 ft²")
        self.assertIn("40 gal/acre", found["also"])
        self.assertEqual(found["facts"][0]["text"], "204 ft while it is caught")

    def test_the_metric_courses(self) -> None:
        """A litre on a hectare is a millilitre on 10 m²: 400 mL are 400 L/ha; 30 mL on 1 m² are 30 mL/m², 300 L/ha."""
        self.account.units = "metric"
        self.account.save()
        for course, caught, per_ha in (("ten_m2", 400, "400 L/ha"), ("one_m2", 30, "300 L/ha")):
            found = self.bench(CATCH | {"course": course, "runs": [caught] * 3, "unit": "ml", "nozzle_width": q(0.5, "m")})
            self.assertIn(per_ha, found["also"])

    def test_a_timed_course_tells_the_pace(self) -> None:
        """204.2 ft in 51 s are 4 ft/s (arithmetic)."""
        facts = {f["name"]: f["text"] for f in self.bench(CATCH | {"walk_seconds": 51})["facts"]}
        self.assertIn("4 ft/s", facts["Pace"])
        self.assertEqual(self.bench(CATCH | {"walk_seconds": 2}, expect=422)["fields"][0]["field"], "walk_seconds")

    def test_the_trades_constant_stands_in_the_working(self) -> None:
        """0.5 gal/min, 100 ft/min (1.136 mph) and 60 in: 5,940 × 0.5 ÷ 68.18 = 43.56 gal/acre."""
        notes = " ".join(s["note"] for s in self.bench(FLOW)["working"])
        self.assertIn("43.56 gal/acre", notes)
        self.assertIn("5,940", notes)

    def test_a_hose_end_by_its_dial(self) -> None:
        """5 gal/min for 2 min is 10 gal with 10 fl oz in it, on 2,000 ft²: 5 fl oz/1000 ft²."""
        self.sprayer.form = "hose_end"
        self.sprayer.save()
        found = self.bench(DIAL)
        self.assertEqual(found["answer"], "5 fl oz/1000 ft²")
        self.assertIn("5 gal/1000 ft²", found["sentence"])

    def test_tips_against_their_mean_and_against_new(self) -> None:
        """The sound ones give 40 to 41 fl oz; 47 is 16 % over and is changed, 36 is 11 % under and is cleaned."""
        found = self.bench(TIPS)
        self.assertEqual([t["state"] for t in found["tips"]], ["good", "good", "good", "change", "clean"])
        self.assertEqual(found["answer"], "3 of 5 tips sound")
        # an ISO 10625 size 03 gives 1.2 L/min at 3 bar: 40.58 fl oz in a minute
        new = self.bench(TIPS | {"nozzle_size": "03", "pressure": q(3, "bar")})
        self.assertIn("40.58 fl oz", [f["text"] for f in new["facts"]])
        self.assertIn("above a new tip", new["tips"][3]["sentence"])

    def test_pans_try_every_spacing(self) -> None:
        """The coefficients are scipy's for the same sums; the curve falls, rises and falls again (see core tests)."""
        found = self.bench(PANS, self.spreader)
        pattern = found["pattern"]
        self.assertEqual([s["pans"] for s in pattern["spacings"]], list(range(2, 12)))
        cv = {s["pans"]: s["cv"] for s in pattern["spacings"]}
        self.assertLess(cv[8], cv[7])
        self.assertGreater(cv[9], cv[8])
        self.assertEqual(found["answer"], "16 ft")
        self.assertFalse(pattern["skewed"])
        picked = self.bench(PANS | {"spacing": 9}, self.spreader)
        self.assertEqual(picked["answer"], "18 ft")

    def test_a_skewed_throw_says_which_way(self) -> None:
        heavy = [1, 2, 4, 6, 8, 9, 12, 14, 12, 6, 1]
        for runs, side in ((heavy, "right"), (heavy[::-1], "left")):
            self.assertIn(f"to the {side}: skewed", self.bench(PANS | {"runs": runs}, self.spreader)["sentence"])

    def test_granules_by_weight_and_by_tray(self) -> None:
        """1.5 lb on 1,000 ft²; 40 g under a tray of 2 ft over 20 ft is 1 g/ft², 2.205 lb/1000 ft²."""
        self.assertEqual(self.bench(self.weight(6, 1.5), self.spreader)["answer"], "1.5 lb/1000 ft²")
        tray = {**self.weight(6, 1), "method": "tray", "length": q(20, "ft"), "width": q(2, "ft"), "runs": [40], "unit": "g"}
        self.assertEqual(self.bench(tray, self.spreader)["answer"], "2.205 lb/1000 ft²")

    def test_the_run_that_stands_alone_is_named_and_an_empty_one_passed_over(self) -> None:
        found = self.bench(STRIP | {"runs": [0.5, "", 0.51, 1.0]})
        self.assertEqual(found["trust"], "differ")
        self.assertEqual([r["odd"] for r in found["runs"]], [False, False, True])
        self.assertIn("2 times run 1", found["verdict"])

    def test_bad_figures_are_named_by_their_field(self) -> None:
        cases: list[tuple[dict[str, Any], str]] = [
            (STRIP | {"runs": [0.5, 0, 0.5]}, "runs.1"),
            (STRIP | {"runs": []}, "runs.0"),
            (STRIP | {"unit": "lb"}, "unit"),
            (STRIP | {"length": q(0, "ft")}, "length"),
            (STRIP | {"length": q(3, "gal")}, "length"),
            (FLOW | {"seconds": [60, 0]}, "seconds.1"),
            (FLOW | {"seconds": [60]}, "seconds.1"),
            (FLOW | {"pace_seconds": ""}, "pace_seconds"),
            (FLOW | {"pace_seconds": 1}, "pace_seconds"),
            (FLOW | {"width": None}, "width"),
            (CATCH | {"course": "moon"}, "course"),
            (EMPTYING | {"seconds": []}, "seconds.0"),
            (TIPS | {"runs": [40]}, "tips"),
            (TIPS | {"nozzle_size": "99", "pressure": q(3, "bar")}, "nozzle_size"),
            (STRIP | {"runs": ["half a cup"]}, "runs.0"),
        ]
        for figures, field in cases:
            fields = [f["field"] for f in self.bench(figures, expect=422)["fields"]]
            self.assertEqual(fields, [field], figures)

    def test_bad_pans(self) -> None:
        for runs, field in (
            ([5], "pans"),
            ([0] * 7, "pans"),
            ([1, -1, 3, 4, 3, 2, 1], "runs.1"),
            ([9, 8, 6, 4, 2, 1, 1], "pans"),
        ):
            fields = [f["field"] for f in self.bench(PANS | {"runs": runs}, self.spreader, 422)["fields"]]
            self.assertEqual(fields, [field], runs)

    def test_a_flow_alone_is_never_taken_for_an_output(self) -> None:
        said = self.bench(FLOW | {"pace_seconds": ""}, expect=422)["message"]
        self.assertIn("no rate on ground", said)

    def test_a_bench_of_the_other_kind(self) -> None:
        self.assertEqual(self.bench(STRIP, self.spreader, 422)["fields"][0]["field"], "method")
        self.assertEqual(self.bench(PANS, self.sprayer, 422)["fields"][0]["field"], "method")


class InForce(KitTest):
    def output(self) -> Any:
        return next(m["output"]["text"] for m in self.ask("GET", "machines") if m["id"] == self.sprayer.pk)

    def test_the_latest_in_use_is_the_output_and_reckon_uses_it(self) -> None:
        """7,000 ft² at 1 gal/1000 ft² typed are 7 gal; at 1.5 by the strip 10.5 gal."""
        self.assertEqual(self.ask("POST", "reckon/job", self.planned())["spray"], "7 gal")
        kept = self.keep(STRIP | {"runs": [0.75, 0.75]})
        self.assertEqual(self.output(), "1.5 gal/1000 ft²")
        self.assertEqual(self.ask("POST", "reckon/job", self.planned())["spray"], "10.5 gal")
        only = kept["calibrations"][0]
        self.assertTrue(only["in_force"])
        self.ask("POST", f"machines/{self.sprayer.pk}/calibrations/{only['id']}/leave")
        self.assertEqual(self.ask("POST", "reckon/job", self.planned())["spray"], "7 gal")
        self.ask("POST", f"machines/{self.sprayer.pk}/calibrations/{only['id']}/use")
        self.assertEqual(self.output(), "1.5 gal/1000 ft²")

    def test_what_was_typed_is_said_to_be_typed_until_it_is_measured(self) -> None:
        keys = [f["key"] for f in self.ask("POST", "reckon/job", self.planned())["machine_findings"]]
        self.assertEqual(keys, ["not-calibrated"])
        self.keep(STRIP)
        self.assertEqual(self.ask("POST", "reckon/job", self.planned())["machine_findings"], [])

    def test_a_nozzle_check_gives_no_output(self) -> None:
        self.keep(TIPS)
        self.assertEqual(self.output(), "1 gal/1000 ft²")

    def test_old_and_another_nozzle_are_said_at_use(self) -> None:
        self.sprayer.nozzle_size, self.sprayer.nozzle_count = "03", 2
        self.sprayer.save()
        self.keep(STRIP, taken_on=str(today(self.account) - timedelta(days=300)))
        self.sprayer.nozzle_size = "04"
        self.sprayer.save()
        keys = {f["key"] for f in self.ask("POST", "reckon/job", self.planned())["machine_findings"]}
        self.assertEqual(keys, {"calibration-old", "other-nozzle"})

    def test_days_that_cannot_be(self) -> None:
        day = today(self.account)
        ahead = self.keep(STRIP, expect=422, taken_on=str(day + timedelta(days=2)))
        before = self.keep(STRIP, expect=422, expires_on=str(day - timedelta(days=2)))
        self.assertEqual([ahead["fields"][0]["field"], before["fields"][0]["field"]], ["taken_on", "expires_on"])
        self.assertEqual(Calibration.objects.count(), 0)

    def test_a_sprayer_may_wait_for_its_output(self) -> None:
        made = self.ask("POST", "machines", {"name": "New", "kind": "sprayer", "capacity": q(3, "gal")}, 201)
        self.assertEqual(made["state"], "not known yet")
        refused = self.ask("POST", "reckon/job", self.planned() | {"machine_id": made["id"]}, 422)
        self.assertIn("not known", refused["message"])

    def test_a_metric_account_is_told_litres(self) -> None:
        self.account.units = "metric"
        self.account.save()
        found = self.bench(STRIP | {"length": q(20, "m"), "width": q(2, "m"), "runs": [2, 2], "unit": "l"})
        self.assertEqual(found["answer"], "5 L/100 m²")
        self.assertNotIn("gal", str(found))


class Settings(KitTest):
    def setUp(self) -> None:
        super().setUp()
        for setting, pounds in ((5, 1.0), (7, 2.0)):
            self.keep(self.weight(setting, pounds), self.spreader)

    def setting(self, pounds: float, passes: int = 1, product: Any = None) -> Any:
        body = {"product_id": (product or self.feed).pk, "rate": q(pounds, "lb/kft2"), "passes": passes}
        return self.ask("POST", f"machines/{self.spreader.pk}/setting", body)

    def test_straight_between_tests_and_half_of_it_twice(self) -> None:
        # 1.5 lb lies half way between the tests at 5 and 7; two passes at half of 3 lb are the same.
        self.assertEqual(self.setting(1.5)["setting"], "6")
        self.assertEqual(self.setting(3.0, passes=2)["setting"], "6")

    def test_none_beyond_the_tests_nor_for_another_product(self) -> None:
        # 2.5 lb lies beyond the tests.
        self.assertEqual(self.setting(2.5)["findings"][0]["key"], "beyond-tests")
        other = self.ask(
            "POST",
            "products",
            {
                "name": "Other 10-0-0",
                "kind": "fertiliser",
                "formulation": "GR",
                "contents": [{"name": "N", "basis": "N", "amount": 10, "unit": "%"}],
                "rates": [{"phrase": "1 lb N per 1,000 sq ft"}],
            },
            201,
        )
        body = {"product_id": other["id"], "rate": q(1.5, "lb/kft2")}
        found = self.ask("POST", f"machines/{self.spreader.pk}/setting", body)
        self.assertEqual((found["setting"], found["findings"][0]["key"]), ("", "no-setting"))

    def test_reckon_says_the_setting_of_each_pass(self) -> None:
        """0.6 lb N of 20 % is 3 lb of product, 1.5 lb in each of two passes: setting 6."""
        found = self.ask("POST", "reckon/job", self.planned(self.feed, self.spreader, 0.6, passes=2))
        self.assertEqual(found["parts"][0]["setting"], "6")
        self.assertEqual(found["machine_findings"], [])

    def test_a_setting_needs_its_product(self) -> None:
        fault = self.keep(self.weight(8, 3) | {"product_id": None}, self.spreader, 422)
        self.assertEqual(fault["fields"][0]["field"], "product_id")

    def test_tests_that_contradict_are_said_and_can_be_left_out(self) -> None:
        kept = self.keep(self.weight(8, 1.2), self.spreader)
        self.assertIn("Setting 8 put down no more", kept["curves"][0]["problem"])
        bad = kept["calibrations"][0]["id"]
        mended = self.ask("POST", f"machines/{self.spreader.pk}/calibrations/{bad}/leave")
        self.assertEqual((mended["curves"][0]["problem"], len(mended["curves"][0]["points"])), ("", 2))

    def test_half_way_there(self) -> None:
        """40 lb for the whole: 20 should be left at half; 24 left means 16 used, 8 over at the end."""
        found = self.ask("POST", "machines/midway", {"loaded": q(40, "lb"), "left": q(24, "lb"), "done": "50 %"})
        self.assertEqual((found["expected"], found["ends_with"], found["good"]), ("20 lb", "8 lb", False))
        self.assertEqual(found["factor"], "+50 %")
        fault = self.ask("POST", "machines/midway", {"loaded": q(40, "lb"), "left": q(50, "lb")}, 422)
        self.assertEqual(fault["fields"][0]["field"], "left")


class Taught(KitTest):
    def begin(self, job: dict[str, Any]) -> Any:
        return self.ask("POST", "rounds", job, 201)

    def test_the_spray_really_used_is_noted_and_taken_over_when_asked(self) -> None:
        """7.7 gal on 7,000 ft² is 1.1 gal/1000 ft², 10 % over what the strip said."""
        self.keep(STRIP)
        begun = self.begin(self.planned())
        body = {"used": [{"amount": q(4.2, "fl_oz")}], "spray": q(7.7, "gal"), "teach": False}
        told = self.ask("POST", f"rounds/{begun['id']}/actual", body)["taught"]
        self.assertIn("1.1 gal/1000 ft² in a pass, +10 %", told["sentence"])
        self.assertTrue(told["far"])
        self.ask("POST", f"rounds/{begun['id']}/finish", body)
        noted = Calibration.objects.get(method="round")
        self.assertFalse(noted.in_use)
        self.assertEqual(self.ask("POST", "reckon/job", self.planned())["spray"], "7 gal")
        again = self.begin(self.planned())
        self.ask("POST", f"rounds/{again['id']}/finish", body | {"teach": True})
        self.assertEqual(self.ask("POST", "reckon/job", self.planned())["spray"], "7.7 gal")

    def test_two_rounds_to_one_side_are_a_drift(self) -> None:
        self.keep(STRIP)
        for spray in (7.6, 7.8):
            begun = self.begin(self.planned())
            self.ask("POST", f"rounds/{begun['id']}/finish", {"used": [{"amount": q(4.2, "fl_oz")}], "spray": q(spray, "gal")})
        keys = [f["key"] for f in self.ask("POST", "reckon/job", self.planned())["machine_findings"]]
        self.assertIn("drifting", keys)
        self.assertIn("drifting", [f["key"] for f in self.ask("GET", "today")["machines"]])

    def test_a_round_without_measured_spray_teaches_nothing(self) -> None:
        begun = self.begin(self.planned())
        self.ask("POST", f"rounds/{begun['id']}/finish", {"used": [{"amount": q(4.2, "fl_oz")}]})
        self.assertEqual(Calibration.objects.count(), 0)
        entry = Round.objects.get(pk=begun["id"]).applications.get()
        self.assertEqual(entry.spray and str(entry.spray.to("gal")), "7 gal")

    def test_what_was_left_in_the_hopper_teaches_the_curve_when_asked(self) -> None:
        """21 lb meant, 18.9 used on 7,000 ft² at setting 6: 2.7 lb/1000 ft²."""
        body: dict[str, Any] = {"used": [{"amount": q(18.9, "lb")}], "setting": 6}
        unasked = self.begin(self.planned(self.feed, self.spreader))
        self.ask("POST", f"rounds/{unasked['id']}/finish", body)
        self.assertEqual(self.ask("GET", f"machines/{self.spreader.pk}")["curves"], [])
        begun = self.begin(self.planned(self.feed, self.spreader))
        self.ask("POST", f"rounds/{begun['id']}/finish", body | {"teach": True})
        whole = self.ask("GET", f"machines/{self.spreader.pk}")
        self.assertEqual(whole["curves"][0]["points"][0]["text"], "6: 2.7 lb/1000 ft²")
        self.assertEqual(whole["calibrations"][0]["with_what"], "Test 20-0-10")
        bad = self.begin(self.planned(self.feed, self.spreader))
        fault = self.ask("POST", f"rounds/{bad['id']}/finish", {"used": [{"amount": q(18.9, "lb")}], "setting": -6}, 422)
        self.assertEqual(fault["fields"][0]["field"], "setting")

    def test_what_was_left_and_walked_out_is_another_pass(self) -> None:
        """21 lb planned in one pass, walked twice: 1.5 lb/1000 ft² in each (21 ÷ 7 ÷ 2), not 3."""
        begun = self.begin(self.planned(self.feed, self.spreader))
        body = {"used": [{"amount": q(21, "lb")}], "setting": 6, "walked": 2, "teach": True}
        told = self.ask("POST", f"rounds/{begun['id']}/actual", body)["taught"]["sentence"]
        self.assertIn("1.5 lb/1000 ft² in a pass", told)
        self.ask("POST", f"rounds/{begun['id']}/finish", body)
        self.assertEqual(Round.objects.get(pk=begun["id"]).applications.get().passes, 2)

    def test_a_setting_is_a_click_of_the_dial(self) -> None:
        """2 lb/M at 4 and 4 at 8: 3 lb/M is 6; with clicks of 4 it is 4 or 8, 33 % off."""
        for setting, pounds in ((4, 2), (8, 4)):
            self.keep(self.weight(setting, pounds), self.spreader)
        job = self.planned(self.feed, self.spreader)
        self.assertEqual(self.ask("POST", "reckon/job", job)["parts"][0]["setting"], "6")
        card = self.ask("GET", f"machines/{self.spreader.pk}")["machine"]
        given = {k: card[k] for k in ("name", "kind", "form", "version")} | {"capacity": q(50, "lb"), "setting_step": 4}
        self.ask("PUT", f"machines/{self.spreader.pk}", given)
        found = self.ask("POST", "reckon/job", job)
        self.assertIn(found["parts"][0]["setting"], ("4", "8"))
        self.assertIn("33 %", next(f["sentence"] for f in found["machine_findings"] if f["key"] == "dial-step"))


class Cleaning(KitTest):
    def setUp(self) -> None:
        super().setUp()
        self.weeds = self.ask(
            "POST",
            "products",
            {
                "name": "Weed SL",
                "kind": "herbicide",
                "formulation": "SL",
                "density": q(9, "lb/gal"),
                "contents": [{"name": "an active", "basis": "active", "amount": 30, "unit": "%"}],
                "rates": [{"phrase": "1 to 2 fl oz per 1,000 sq ft"}],
            },
            201,
        )

    def weed(self) -> None:
        row = self.weeds["rates"][0]
        job = {**self.planned(), "mix": [{"product_id": self.weeds["id"]}]}
        job["parts"] = [{"area_id": self.area.pk, "doses": [{"row_id": row["id"], "rate": q(1, "fl_oz/kft2")}]}]
        begun = self.ask("POST", "rounds", job, 201)
        self.ask("POST", f"rounds/{begun['id']}/finish", {"used": [{"amount": q(7, "fl_oz")}]})

    def clean(self, *steps: str, expect: int = 201) -> Any:
        return self.ask("POST", f"machines/{self.sprayer.pk}/cleanings", {"steps": list(steps)}, expect)

    def test_nothing_else_is_loaded_after_a_herbicide_until_it_is_clean(self) -> None:
        self.weed()
        planned = self.ask("POST", "reckon/job", self.planned())
        self.assertTrue(planned["refused"])
        self.assertEqual(planned["machine_findings"][0]["key"], "herbicide-in-tank")
        refused = self.ask("POST", "rounds", self.planned(), 422)
        self.assertEqual((refused["code"], refused["fields"][0]["field"]), ("refused", "machine_id"))
        self.assertIn("tank cleaner", refused["message"])
        first = self.clean("rinse", "cleaner")
        self.assertEqual([s["done"] for s in first["tank"]["steps"]], [True, True, False, False, False])
        last = self.clean("screens", "rinse", "rinse")
        self.assertTrue(last["tank"]["clean"])
        self.assertFalse(self.ask("POST", "reckon/job", self.planned())["refused"])
        undone = self.ask("DELETE", f"machines/{self.sprayer.pk}/cleanings/{last['cleanings'][0]['id']}")
        self.assertFalse(undone["tank"]["clean"])

    def test_the_worst_stays_in_it_whatever_is_booked_after(self) -> None:
        other = self.ask("POST", "rounds", self.planned(), 201)
        self.weed()
        self.ask("POST", f"rounds/{other['id']}/finish", {"used": [{"amount": q(4.2, "fl_oz")}]})
        Round.objects.filter(pk=other["id"]).update(at=timezone.now())
        said = self.ask("POST", "reckon/job", self.planned())
        self.assertEqual(said["machine_findings"][0]["key"], "herbicide-in-tank")
        self.assertIn("Weed SL", self.ask("GET", f"machines/{self.sprayer.pk}")["tank"]["sentence"])
        self.clean("rinse", "cleaner", "screens", "rinse", "rinse")
        self.assertFalse(self.ask("POST", "reckon/job", self.planned())["refused"])

    def test_a_round_counts_from_its_first_pour(self) -> None:
        row = self.weeds["rates"][0]
        job = {**self.planned(), "mix": [{"product_id": self.weeds["id"]}]}
        job["parts"] = [{"area_id": self.area.pk, "doses": [{"row_id": row["id"], "rate": q(1, "fl_oz/kft2")}]}]
        begun = self.ask("POST", "rounds", job, 201)
        self.assertFalse(self.ask("POST", "reckon/job", self.planned())["refused"])
        for wear in begun["sheet"]["wear"]:
            self.ask("POST", f"rounds/{begun['id']}/ticks", {"load": 0, "act": wear["key"], "done": True})
        act = begun["sheet"]["loads"][0]["acts"][0]["key"]
        self.ask("POST", f"rounds/{begun['id']}/ticks", {"load": 1, "act": act, "done": True})
        self.assertTrue(self.ask("POST", "reckon/job", self.planned())["refused"])

    def test_a_step_that_is_none(self) -> None:
        self.assertEqual(self.clean("spit", expect=422)["fields"][0]["field"], "steps.0")


class Tools(KitTest):
    def nozzle(self, expect: int = 200, **more: Any) -> Any:
        return self.ask("POST", "machines/nozzle", {"size": "04", "pressure": q(3, "bar"), **more}, expect)

    def test_the_sizes_flow_and_the_square_root_of_pressure(self) -> None:
        """ISO 10625: size 04 gives 1.6 L/min at 3 bar (0.4227 gal/min); four times the pressure gives twice that."""
        self.assertEqual(self.nozzle()["answer"], "0.4227 gal/min")
        self.assertEqual(self.nozzle(pressure=q(12, "bar"))["answer"], "0.8454 gal/min")

    def test_output_and_the_pressure_for_another(self) -> None:
        """0.4227 gal/min on 20 in at 3 mph: 5,940 × 0.4227 ÷ 60 = 41.84 gal/acre; twice that asks for 12 bar, 174 psi."""
        found = self.nozzle(spacing=q(20, "in"), pace=q(3, "mph"), wanted=q(83.69, "gal/acre"))
        facts = {f["name"]: f["text"] for f in found["facts"]}
        self.assertIn("41.84 gal/acre", facts["Puts down"])
        self.assertIn("174 psi with this tip", facts["For that output"])
        self.assertIn("08 white", facts["Nearest tip"])

    def test_a_heavier_spray_flows_less(self) -> None:
        """1.28 times water's weight: 1 ÷ √1.28 = 0.8839 of the flow."""
        self.assertEqual(self.nozzle(gravity=1.28)["answer"], "0.3736 gal/min")
        self.assertEqual(self.nozzle(422, gravity=3)["fields"][0]["field"], "gravity")

    def test_droplets_for_leaf_soil_and_near_water(self) -> None:
        self.assertEqual(self.nozzle(works_on="leaf")["droplets"], "medium")
        self.assertEqual(self.nozzle(works_on="leaf", systemic=True)["droplets"], "medium to coarse")
        self.assertIn("coarse", self.nozzle(works_on="soil")["droplets"])
        self.area.hazards = [{"kind": "water", "name": "pond", "value": None, "unit": ""}]
        self.area.save()
        self.assertEqual(self.nozzle(works_on="leaf", area_id=self.area.pk)["droplets"], "coarse")

    def pace(self, expect: int = 200, **more: Any) -> Any:
        return self.ask("POST", f"machines/{self.sprayer.pk}/pace", {"marks": q(10, "ft"), **more}, expect)

    def test_the_pace_the_beat_and_the_time(self) -> None:
        """0.5 gal/min over 5 ft at 1 gal/1000 ft² is 100 ft/min: a 10 ft mark every 6 s, 1,000 ft² in 2 min."""
        found = self.pace(output=q(1, "gal/kft2"), flow=q(0.5, "gal"), width=q(5, "ft"), area=q(1000, "ft2"))
        self.assertAlmostEqual(found["beat"], 6.0)
        self.assertIn("2 min of spraying", found["sentence"])

    def test_a_calibration_fills_in_flow_and_swath(self) -> None:
        # FLOW walks 100 ft in 60 s: a mark every 10 ft is one every 6 s.
        self.keep(FLOW)
        self.assertAlmostEqual(self.pace()["beat"], 6.0)

    def test_what_is_not_known_is_asked_for(self) -> None:
        self.assertEqual(self.pace(422)["fields"][0]["field"], "flow")

    def test_a_pace_that_drifts_is_told(self) -> None:
        known = {"output": q(1, "gal/kft2"), "flow": q(0.5, "gal"), "width": q(5, "ft")}
        self.assertTrue(self.pace(**known, splits=[6, 6.2, 6.5, 6.7])["tired"])
        steady = self.pace(**known, splits=[6, 6.05, 5.95, 6])
        self.assertFalse(steady["tired"])
        self.assertIn("held", steady["drift"])
        self.assertIn("too fast", self.pace(**known, splits=[5, 5])["walked"])
        self.assertEqual(self.pace(422, **known, splits=[5, "x"])["fields"][0]["field"], "splits.1")


class Expiry(KitTest):
    def test_half_a_year_where_none_is_given(self) -> None:
        day = today(self.account) - timedelta(days=10)
        kept = self.keep(STRIP, taken_on=str(day))
        self.assertEqual(date.fromisoformat(kept["calibrations"][0]["expires_on"]) - day, timedelta(days=182))
