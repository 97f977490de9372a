"""Passes and water through the API. Figures are arithmetic unless a source stands beside them."""

import base64
import json
from datetime import timedelta
from typing import Any

from pyproj import Geod

from greenmeasure.common.clock import today
from greenmeasure.tests.base import ApiTest
from greenmeasure.tests.test_kit import PANS, q

FT2 = 0.09290304


class PassesTest(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        measure = {"method": "rectangle", "unit": "ft", "values": {"length": 100, "width": 70}}
        body = {"name": "North green", "measure": measure, "grass": "creeping_bentgrass", "hazards": []}
        self.ask("PUT", f"areas/{self.area.pk}", body)
        self.area.refresh_from_db()

    def plan(self, expect: int = 200, **more: Any) -> Any:
        return self.ask("POST", "passes/plan", self.asked(**more), expect)

    def asked(self, **more: Any) -> dict[str, Any]:
        return {"area_id": self.area.pk, "spacing": q(10, "ft"), "edges": 0, **more}

    def landing(self, walked: dict[str, Any] | None = None, **more: Any) -> Any:
        return self.ask("POST", "passes/landing", {"plan": self.asked(**more), "walked": walked or {}})

    def field(self, answer: Any) -> Any:
        return [f["field"] for f in answer["fields"]]


class Plans(PassesTest):
    def test_stripes_the_best_way_with_distance_and_time(self) -> None:
        """70 ft by 10 ft are 7 stripes of 100 ft: 700 ft, and 6 turns of 10 ft; at 100 ft/min 7.6 min, and 4 s a turn."""
        found = self.plan(pace=q(100 / 88, "mph"))
        self.assertEqual((len(found["passes"]), found["direction"]), (7, 0))
        facts = {f["name"]: f["text"] for f in found["facts"]}
        self.assertEqual((facts["Walked putting down"], facts["Walked between"]), ("700 ft", "60 ft"))
        self.assertTrue(facts["Time"].startswith("8 min"))
        self.assertEqual(facts["Ground covered"], "7,000 ft² a round, of 7,000 ft²")

    def test_across_takes_ten(self) -> None:
        self.assertEqual(len(self.plan(direction=90)["passes"]), 10)

    def test_rings_first_or_last_and_guides(self) -> None:
        kinds = [p["kind"] for p in self.plan(edges=1)["passes"]]
        self.assertEqual((kinds[0], kinds[-1]), ("edge", "stripe"))
        self.assertEqual([p["kind"] for p in self.plan(edges=1, edges_last=True)["passes"]][-1], "edge")
        self.assertEqual([p["guide"] for p in self.plan(guides=3)["passes"]].count(True), 2)

    def test_a_second_round_at_right_angles_diagonal_or_between(self) -> None:
        for second, count in (("right_angles", 17), ("offset", 14)):
            found = self.plan(second=second)
            self.assertEqual(len(found["passes"]), count, second)
            self.assertEqual({p["round"] for p in found["passes"]}, {1, 2})
        self.assertGreater(len(self.plan(second="diagonal")["passes"]), 17)

    def test_refills_where_a_tank_runs_out(self) -> None:
        """4 gal at 1 gal/1000 ft² go 4,000 ft², 400 ft of passes 10 ft apart: the end of the fourth."""
        found = self.plan(machine_id=self.sprayer.pk)
        self.assertEqual([r["text"] for r in found["refills"]], ["1"])
        self.assertIn("on pass 4, 100 ft along it", " ".join(found["steps"]))

    def test_the_swath_of_the_machine_is_the_spacing(self) -> None:
        self.ask(
            "POST",
            f"machines/{self.spreader.pk}/calibrations",
            {"figures": PANS | {"product_id": self.feed.pk}, "taken_on": str(today(self.account))},
            201,
        )
        found = self.plan(spacing=None, machine_id=self.spreader.pk)
        self.assertIn("16 ft apart", found["sentence"])

    def test_ground_that_was_never_measured_is_a_rectangle(self) -> None:
        bare = self.ask("POST", "areas", {"name": "Bank", "size": q(5000, "ft2"), "grass": "tall_fescue"}, 201)
        found = self.plan(area_id=bare["id"], length=q(100, "ft"))
        self.assertEqual((found["has_plan"], len(found["passes"])), (False, 5))
        self.assertIn("never measured", " ".join(found["notes"]))

    def test_what_cannot_be_walked(self) -> None:
        cases: list[tuple[dict[str, Any], str]] = [
            ({"spacing": None}, "spacing"),
            ({"spacing": None, "machine_id": self.sprayer.pk}, "spacing"),
            ({"spacing": q(90, "ft")}, "spacing"),
            ({"spacing": q(0, "ft")}, "spacing"),
            ({"edges": 11}, "edges"),
            ({"direction": "north"}, "direction"),
            ({"direction": 400}, "direction"),
            ({"pace": q(40, "mph")}, "pace"),
        ]
        for more, field in cases:
            self.assertEqual(self.field(self.plan(422, **more)), [field], more)

    def test_another_accounts_ground_is_not_there(self) -> None:
        self.plan(404, area_id=999_999)


class Near(PassesTest):
    def place(self, places: list[Any], expect: int = 200) -> Any:
        return self.ask("PUT", f"passes/areas/{self.area.pk}/places", {"places": places}, expect)

    def setUp(self) -> None:
        super().setUp()
        self.area.hazards = [{"kind": "drain", "name": "yard", "value": 10.0, "unit": "ft"}]
        self.area.save()

    def test_a_drain_is_left_out_with_its_buffer(self) -> None:
        """A drain 2 ft wide with 10 ft around it takes out a circle of 11 ft radius, 380 ft² of 7,000."""
        self.assertIn("Not on the plan yet: yard", " ".join(self.plan()["notes"]))
        self.place([{"how": "spot", "unit": "ft", "x": 50, "y": 35, "across": 2}])
        found = self.plan()
        self.assertEqual({z["buffer"] for z in found["zones"]}, {True, False})
        self.assertGreater(len(found["passes"]), 7)
        off = self.plan(keep_off=False)
        self.assertEqual((len(off["passes"]), off["zones"]), (7, []))
        self.assertIn("Keep 10 ft off drain, yard.", found["steps"])

    def test_a_labels_wider_buffer_counts_near_water(self) -> None:
        self.place([{"how": "spot", "unit": "ft", "x": 50, "y": 35, "across": 2}])
        self.feed.rules = {"buffer": q(25, "ft")}
        self.feed.save()
        row = self.feed.rates.get()
        found = self.plan(product_id=self.feed.pk, row_id=row.pk, rate=q(0.5, "lb/kft2:N"))
        self.assertIn("Keep 25 ft off drain, yard.", found["steps"])

    def test_along_a_side_and_off_the_plan_again(self) -> None:
        self.place([{"how": "side", "side": 1}])
        self.assertLess(self.covered(self.plan()), 7000)
        self.place([None])
        self.assertEqual(self.plan()["zones"], [])

    def covered(self, plan: Any) -> Any:
        lines = (p["line"] for p in plan["passes"])
        return sum(abs(a[0]["x"] - a[-1]["x"]) + abs(a[0]["y"] - a[-1]["y"]) for a in lines) * 10 * 0.3048 / FT2

    def test_places_that_are_none(self) -> None:
        self.assertEqual(self.field(self.place([], 422)), ["places"])
        self.assertEqual(self.field(self.place([{"how": "spot", "x": "left"}], 422)), ["places.0.x"])
        self.assertEqual(self.field(self.place([{"how": "spot", "x": 4, "y": 4}], 422)), ["places.0.across"])
        self.assertEqual(self.field(self.place([{"how": "side", "side": 9}], 422)), ["places.0.side"])

    def test_a_place_that_the_outline_has_no_more_leaves_the_plan_readable(self) -> None:
        """The ground was measured anew since, and has fewer sides: the plan is drawn, and what has no place on it is named."""
        self.place([{"how": "side", "side": 2}])
        self.area.refresh_from_db()
        self.area.hazards[0]["lies"]["side"] = 9
        self.area.save()
        self.account.touch()
        notes = " ".join(self.plan()["notes"])
        self.assertIn("Not on the plan yet:", notes)

    def test_changing_the_area_keeps_where_things_lie(self) -> None:
        self.place([{"how": "spot", "unit": "ft", "x": 50, "y": 35, "across": 2}])
        shown = self.ask("GET", f"areas/{self.area.pk}")["area"]
        hazards = [{"kind": h["kind"], "name": h["name"], "buffer": h["buffer"], "lies": h["lies"]} for h in shown["hazards"]]
        body = {"name": "North green", "size": q(7000, "ft2"), "grass": "creeping_bentgrass", "hazards": hazards}
        self.assertEqual(self.ask("PUT", f"areas/{self.area.pk}", body)["hazards"][0]["lies"]["x"], 50)


class Landing(PassesTest):
    def test_an_even_swath_lands_evenly(self) -> None:
        # Even is a CV of 0; shares of a whole.
        found = self.landing()
        self.assertEqual(found["cv"], "0 %")
        self.assertIn("nothing will show dark", found["sentence"])
        self.assertAlmostEqual(sum(found["histogram"]), 1.0)
        cells = base64.b64decode(found["cells"])
        self.assertEqual(len(cells), found["columns"] * found["rows"])
        self.assertEqual(max(cells), 100)

    def test_walked_too_close_shows_dark(self) -> None:
        """A swath of 16 ft by the pans walked 10 ft apart overlaps; the mean rate is kept by the spacing."""
        self.ask(
            "POST",
            f"machines/{self.spreader.pk}/calibrations",
            {"figures": PANS | {"product_id": self.feed.pk}, "taken_on": str(today(self.account))},
            201,
        )
        wide = self.landing(machine_id=self.spreader.pk, spacing=q(20, "ft"))
        self.assertIn("dark stripe", wide["sentence"])
        self.assertIn("pan test", wide["notes"][0])

    def test_grams_beside_and_against_the_label(self) -> None:
        """0.6 lb N of 20 % is 3 lb/1000 ft², 21 lb on 7,000 ft²; at its highest, half the label is its lowest."""
        row = self.feed.rates.get()
        found = self.landing(product_id=self.feed.pk, row_id=row.pk, rate=q(0.6, "lb/kft2:N"))
        self.assertAlmostEqual(found["label_low"], 0.5)
        self.assertAlmostEqual(found["label_high"], 1.0)
        self.assertIn("Over the label’s highest", [f["name"] for f in found["facts"]])

    def test_wander_and_a_late_gate_make_it_uneven(self) -> None:
        worse = self.landing({"line": q(10, "in"), "pace": 10, "late": q(2, "ft"), "slow_over": q(6, "ft"), "slow": 70})
        self.assertGreater(float(worse["cv"].split()[0]), 5)

    def test_bad_figures_of_the_walk(self) -> None:
        for walked, field in (({"pace": 90}, "pace"), ({"line": q(20, "ft")}, "line"), ({"slow": 5}, "slow")):
            answer = self.ask("POST", "passes/landing", {"plan": self.asked(), "walked": walked}, 422)
            self.assertEqual(self.field(answer), [field])

    def test_four_ways_side_by_side(self) -> None:
        found = self.ask("POST", "passes/compare", {"plan": self.asked(), "walked": {"line": q(8, "in"), "pace": 8}})
        self.assertEqual([v["second"] for v in found["variants"]], ["none", "right_angles", "diagonal", "offset"])
        self.assertEqual(sum(v["best"] for v in found["variants"]), 1)
        once, twice = (next(v for v in found["variants"] if v["second"] == s) for s in ("none", "offset"))
        self.assertLess(twice["cv"], once["cv"], "two half rounds even out what wanders")


class OnTheMap(PassesTest):
    def test_a_taped_plan_is_asked_where_it_lies(self) -> None:
        # pyproj's Geod is the reference: 100 ft are 30.48 m; 60 ft hold 7 swaths.
        self.assertEqual(self.field(self.ask("POST", "passes/geojson", {"plan": self.asked()}, 422)), ["latitude"])
        made = self.ask("POST", "passes/geojson", {"plan": self.asked(), "latitude": "41.2", "longitude": "-71.6"})
        self.assertEqual(made["type"], "FeatureCollection")
        lines = [f for f in made["features"] if f["geometry"]["type"] == "LineString"]
        self.assertEqual(len(lines), 7)
        (a, b), geod = lines[0]["geometry"]["coordinates"], Geod(ellps="WGS84")
        self.assertAlmostEqual(geod.inv(*a, *b)[2], 30.48, delta=0.02)

    def test_ground_of_positions_lies_where_it_was_walked(self) -> None:
        ring = "41.20000, -71.60000\n41.20030, -71.60000\n41.20030, -71.59960\n41.20000, -71.59960"
        self.ask(
            "PUT",
            f"areas/{self.area.pk}",
            {"name": "North green", "measure": {"method": "ring", "unit": "m", "ring": ring}, "grass": "creeping_bentgrass"},
        )
        made = self.ask("POST", "passes/geojson", {"plan": self.asked()})
        corners = made["features"][0]["geometry"]["coordinates"][0]
        for lat, lon in ((41.2, -71.6), (41.2003, -71.6), (41.2003, -71.5996), (41.2, -71.5996)):
            self.assertTrue(any(abs(x - lon) < 2e-7 and abs(y - lat) < 2e-7 for x, y in corners), json.dumps(corners))

    def test_off_the_earth(self) -> None:
        body = {"plan": self.asked(), "latitude": "95", "longitude": "10"}
        self.assertEqual(self.field(self.ask("POST", "passes/geojson", body, 422)), ["latitude"])


class WaterTest(ApiTest):
    cans = [0.2, 0.22, 0.24, 0.26, 0.25, 0.23, 0.21, 0.19, 0.22, 0.2, 0.24, 0.26, 0.24, 0.1, 0.23, 0.21]

    def figures(self, **more: Any) -> dict[str, Any]:
        cans = [{"caught": c, "x": 10 + i % 4 * 20, "y": 10 + i // 4 * 15} for i, c in enumerate(self.cans)]
        return {"cans": cans, "unit": "in", "minutes": 30, "heads": "rotor", "wind": q(2, "mph"), **more}

    def audit(self, expect: int = 200, **more: Any) -> Any:
        return self.ask("POST", f"areas/{self.area.pk}/water/audit", self.figures(**more), expect)

    def keep(self, expect: int = 201, tasks: bool = True, **more: Any) -> Any:
        path = f"areas/{self.area.pk}/water{'?tasks=true' if tasks else ''}"
        return self.ask("POST", path, self.figures(taken_on=str(today(self.account)), **more), expect)


class Audits(WaterTest):
    def test_rate_low_quarter_and_christiansen(self) -> None:
        """Mean 3.5 ÷ 16 = 0.21875 in in half an hour; lowest four 0.1, 0.19, 0.2, 0.2: 0.1725 ÷ 0.21875 = 78.9 %.

        Christiansen (1942, Bulletin 670): 1 − mean distance from the mean ÷ mean = 1 − 0.0253 ÷ 0.21875 = 88.4 %.
        """
        found = self.audit(wanted=q(0.25, "in"))
        self.assertEqual((found["rate"], found["low_quarter"], found["christiansen"]), ("0.438 in/h", "79 %", "88 %"))
        self.assertEqual([c["number"] for c in found["cans"] if c["state"] == "dry"], [14])
        # 0.25 ÷ 0.4375 in/h = 34.3 min by the mean; ÷ 0.789 = 43.5 min for the driest quarter
        self.assertEqual((found["run"]["by_mean"], found["run"]["by_quarter"]), ("35 min", "44 min"))

    def test_volumes_by_the_cans_mouth(self) -> None:
        """50 mL in a mouth of 8 cm, 50.27 cm², stand 9.95 mm (0.392 in) deep."""
        cans = [{"caught": 50}] * 16
        found = self.audit(cans=cans, unit="ml", mouth=q(8, "cm"), minutes=60)
        self.assertEqual(found["rate"], "0.392 in/h")
        self.assertEqual(self.audit(422, unit="ml")["fields"][0]["field"], "mouth")

    def test_clay_must_rest(self) -> None:
        self.area.texture = "clay"
        self.area.save()
        found = self.audit(wanted=q(0.5, "in"))
        self.assertGreater(found["run"]["parts"], 1)
        self.assertIn("apart", found["run"]["soak"])

    def test_what_is_no_audit(self) -> None:
        cases: list[tuple[dict[str, Any], str]] = [
            ({"cans": [{"caught": 0.2}] * 3}, "cans"),
            ({"minutes": 0}, "minutes"),
            ({"cans": [{"caught": 0}] * 8}, "cans"),
            ({"cans": [{"caught": 0.2}] * 5 + [{"caught": "wet"}]}, "cans.5"),
            ({"unit": "lb"}, "unit"),
            ({"wanted": q(90, "ft")}, "depth"),
        ]
        for more, field in cases:
            self.assertEqual([f["field"] for f in self.audit(422, **more)["fields"]], [field], more)

    def test_few_cans_and_wind_are_said(self) -> None:
        found = self.audit(cans=[{"caught": c} for c in (0.2, 0.22, 0.21, 0.2, 0.2)], wind=q(9, "mph"))
        self.assertIn("few", " ".join(found["notes"]))
        self.assertIn("windy", " ".join(found["notes"]))


class Kept(WaterTest):
    def test_dry_spots_become_tasks_and_are_seen_to(self) -> None:
        self.keep()
        listed = self.ask("GET", "today")["tasks"]
        self.assertEqual(len(listed), 1)
        self.assertIn("can 14, 30 ft across and 55 ft up the plan", listed[0]["text"])
        done = self.ask("POST", f"tasks/{listed[0]['id']}/done")
        self.assertTrue(done["done_at"])
        self.assertEqual(self.ask("GET", "tasks"), [])
        self.ask("POST", f"tasks/{listed[0]['id']}/open")
        self.assertEqual(len(self.ask("GET", "tasks")), 1)

    def test_an_audit_left_out_hides_its_tasks_until_it_counts_again(self) -> None:
        at = f"areas/{self.area.pk}/water/{self.keep()['audits'][0]['id']}"
        self.assertIsNone(self.ask("POST", f"{at}/leave")["current"])
        self.assertEqual(self.ask("GET", "tasks"), [])
        self.assertEqual(self.ask("POST", f"{at}/use")["tasks"], self.ask("GET", "tasks"))
        self.assertEqual(len(self.ask("GET", "tasks")), 1)

    def test_a_task_of_ones_own(self) -> None:
        self.ask("POST", f"areas/{self.area.pk}/tasks", {"texts": ["Raise the sunken head by the gate"]}, 201)
        self.assertEqual(self.ask("POST", f"areas/{self.area.pk}/tasks", {"texts": [" "]}, 422)["fields"][0]["field"], "texts.0")

    def test_a_part_is_watered_as_its_whole_and_a_zone_as_its_neighbour(self) -> None:
        self.area.zone = "B"
        self.area.save()
        self.keep(tasks=False)
        small = {"size": {"value": 500, "unit": "ft2"}, "grass": "mixed"}
        part = self.ask("POST", "areas", small | {"name": "Corner", "parent_id": self.area.pk}, 201)
        other = self.ask("POST", "areas", small | {"name": "Next", "zone": "b"}, 201)
        far = self.ask("POST", "areas", small | {"name": "Far", "zone": "C"}, 201)
        site = self.ask("POST", "sites", {"name": "Elsewhere", "time_zone": "Europe/Oslo"}, 201)
        there = self.ask("POST", "areas", small | {"name": "There", "zone": "B", "site_id": site["id"]}, 201)
        for area, known in ((part, True), (other, True), (far, False), (there, False)):
            self.assertEqual(self.ask("GET", f"areas/{area['id']}/water")["current"] is not None, known, area["name"])

    def test_the_labels_water_in_is_told_in_minutes_here(self) -> None:
        """0.25 in at 0.4375 in/h with 79 %: 34.3 ÷ (0.4 + 0.6 × 0.789) = 39.3 min, rounded up."""
        self.feed.rules = {"water_in_depth": q(0.25, "in")}
        self.feed.save()
        row = self.feed.rates.get()
        part = {"area_id": self.area.pk, "doses": [{"row_id": row.pk, "rate": q(0.5, "lb/kft2:N")}]}
        job = {"mix": [{"product_id": self.feed.pk}], "machine_id": self.spreader.pk, "parts": [part]}
        said = [r["text"] for r in self.ask("POST", "reckon/job", job)["label_rules"]]
        self.assertTrue(any("audit its water" in s for s in said), said)
        self.keep(tasks=False)
        said = [r["text"] for r in self.ask("POST", "reckon/job", job)["label_rules"]]
        self.assertTrue(any("0.25 in takes 40 min" in s for s in said), said)

    def test_days_ahead(self) -> None:
        ahead = str(today(self.account) + timedelta(days=2))
        body = self.figures() | {"taken_on": ahead}
        self.assertEqual(self.ask("POST", f"areas/{self.area.pk}/water", body, 422)["fields"][0]["field"], "taken_on")
