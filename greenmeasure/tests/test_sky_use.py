"""Hours fit to work, readings by hand, watching and scouting, what comes back every week, and files of weather."""

import gzip
import json
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any
from unittest.mock import patch
from zoneinfo import ZoneInfo

import numpy as np
import pvlib
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import override_settings

from greenmeasure.sky.models import Reading, Station
from greenmeasure.tests.sky_base import NOW, SkyTest

EPW = gzip.decompress((Path(__file__).parent / "data" / "tmy_45_8.epw.gz").read_bytes())
TMY3 = Path(pvlib.__file__).parent / "data" / "723170TYA.CSV"


class Fit(SkyTest):
    """A product that must stay dry for four hours on a dry leaf, in a moderate wind."""

    def setUp(self) -> None:
        super().setUp()
        self.station()
        self.fetched()
        self.ask(
            "PUT",
            f"products/{self.spray.pk}",
            self.card(rules={"rain_after": {"value": 4, "unit": "h"}, "leaf": "dry", "wind_high": {"value": 10, "unit": "mph"}}),
        )

    def card(self, **more: Any) -> dict[str, Any]:
        return {
            "name": "Test SC",
            "kind": "fungicide",
            "formulation": "SC",
            "density": {"value": 9, "unit": "lb/gal"},
            "contents": [{"name": "an active", "basis": "active", "amount": 20, "unit": "%"}],
            "rates": [{"use": "preventive", "phrase": "0.4 to 0.8 fl oz per 1,000 sq ft"}],
        } | more

    def fit(self, *products: int, **more: Any) -> Any:
        return self.ask("POST", "sky/hours", {"area_id": self.area.pk, "product_ids": list(products) or [self.spray.pk]} | more)

    def test_a_week_of_hours_each_with_its_reasons(self) -> None:
        said = self.fit()
        self.assertEqual(len(said["hours"]), 7 * 24)
        self.assertEqual([f["name"] for f in said["asks"]], ["Wind", "Leaf", "No rain after it"])
        self.assertTrue(all(h["reasons"] for h in said["hours"] if h["fit"] == "no"))
        dark = [h for h in said["hours"] if h["hour"] in (0, 1, 2, 3)]
        self.assertTrue(all(h["fit"] == "no" and "dark" in str(h["reasons"]) for h in dark))
        for w in said["windows"]:
            self.assertGreaterEqual(w["hours"], 1)
        self.assertEqual([w["good"] for w in said["windows"]], sorted((w["good"] for w in said["windows"]), reverse=True))

    def test_a_longer_job_has_fewer_windows(self) -> None:
        self.assertLess(len(self.fit(hours=12)["windows"]), len(self.fit(hours="1")["windows"]))
        for hours in ("0", "30", "soon"):
            body = {"area_id": self.area.pk, "product_ids": [self.spray.pk], "hours": hours}
            self.assertIn("hours", self.faults("POST", "sky/hours", body))

    def test_a_tank_that_contradicts_itself_is_refused_by_name(self) -> None:
        root = self.ask(
            "POST",
            "products",
            self.card(
                name="Root SC",
                rules={"water_in_delay": {"value": 2, "unit": "h"}, "water_in_depth": {"value": 0.2, "unit": "in"}},
            ),
            201,
        )["id"]
        said = self.fit(self.spray.pk, root)
        self.assertEqual((said["verdict"], said["windows"]), ("no", []))
        self.assertIn("Root SC must be watered in within 2 h; Test SC must stay dry for 4 h", said["contradictions"][0])
        watered = self.fit(root)
        self.assertIn("Water Root SC in within 2 h after it. After the best hours that is by", watered["water_in"][0])
        end = datetime.fromisoformat(watered["windows"][0]["begin"]) + timedelta(hours=3)
        self.assertIn(f"{end.astimezone(ZoneInfo('America/New_York')):%H:%M}", watered["water_in"][0])

    def test_hours_the_account_keeps_free_and_the_mower(self) -> None:
        free = self.ask(
            "POST",
            "sky/rhythms",
            {"kind": "quiet", "days": list(range(7)), "begin": "09:00", "end": "17:00", "why": "matches"},
            201,
        )
        at_ten = [h for h in self.fit()["hours"] if h["hour"] == 10]
        self.assertTrue(all("keeps these hours free" in str(h["reasons"]) for h in at_ten))
        self.ask("DELETE", f"sky/rhythms/{free['id']}", expect=204)
        self.assertFalse(any("keeps these hours free" in str(h["reasons"]) for h in self.fit()["hours"]))
        said = self.faults("POST", "sky/rhythms", {"kind": "mow", "days": [1], "begin": "09:00", "end": "10:00"})
        self.assertIn("area_id", said)
        self.assertIn("end", self.faults("POST", "sky/rhythms", {"kind": "quiet", "days": [1], "begin": "22:00", "end": "02:00"}))
        self.assertIn("days", self.faults("POST", "sky/rhythms", {"kind": "quiet", "days": [], "begin": "08:00", "end": "09:00"}))

    def mown(self) -> set[tuple[str, int]]:
        """The hours that mowing shuts for a label that asks for four hours without it, before."""
        hours = {"mow_before": {"value": 4, "unit": "h"}}
        self.ask("PUT", f"products/{self.spray.pk}", self.card(rules=hours))
        return {(h["at"], h["hour"]) for h in self.fit()["hours"] if "It is mown within 4 h before" in str(h["reasons"])}

    def test_a_mowing_that_was_noted_shuts_the_hours_after_it(self) -> None:
        """It is 06:20; mown at 05:40, the hours up to 9 lie within four hours of it (by hand)."""
        self.assertEqual(self.mown(), set())
        body = {"kind": "mow", "area_ids": [self.area.pk], "clock": "05:40"}
        made = self.ask("POST", "works", body, 201)[0]
        self.assertEqual({hour for _, hour in self.mown()}, {6, 7, 8, 9})
        self.ask("POST", f"works/{made['id']}/strike", {"why": "the other green"})
        self.assertEqual(self.mown(), set())

    def test_what_was_noted_stands_in_the_place_of_the_days_rhythm(self) -> None:
        """Mown daily from 5 to 6: on 12 August it was noted as not done, on the 13th it comes back."""
        rhythm = {"kind": "mow", "area_id": self.area.pk, "days": list(range(7)), "begin": "05:00", "end": "06:00"}
        self.ask("POST", "sky/rhythms", rhythm, 201)
        before = self.mown()
        today = {(at, hour) for at, hour in before if at.startswith("2026-08-12")}
        self.assertEqual({hour for _, hour in today}, {6, 7, 8, 9})
        self.ask("POST", "works", {"kind": "mow", "area_ids": [self.area.pk], "done": False}, 201)
        self.assertEqual(self.mown(), before - today)

    def test_an_old_forecast_is_doubted_and_its_margins_are_wider(self) -> None:
        fresh = self.fit()
        Station.objects.get().foretold.update(issued=NOW - timedelta(hours=60))
        Station.objects.get().renew()
        old = self.fit()
        self.assertEqual(fresh["doubt"], "")
        self.assertIn("60 h old", old["doubt"])

        def minds(said: Any) -> int:
            return sum("can be that far off" in str(h["reasons"]) for h in said["hours"])

        self.assertGreaterEqual(minds(old), minds(fresh))

    def test_a_metric_account_is_never_told_in_us_units(self) -> None:
        self.account.units = "metric"
        self.account.save()
        self.account.touch()
        Station.objects.get().renew()  # no door changes an account's units; what was kept of its station was read before
        told = json.dumps(
            [
                self.fit(),
                self.ask("GET", "sky"),
                self.ask("GET", f"sky/strip?area_id={self.area.pk}"),
                self.ask("GET", f"sky/day?area_id={self.area.pk}&on=2026-08-10"),
            ],
            ensure_ascii=False,
        )
        for unit in ("°F", "mph", " in of", "°F·d"):
            self.assertNotIn(unit, told)
        self.assertIn("m/s", told)


class ByHand(SkyTest):
    def setUp(self) -> None:
        super().setUp()
        self.station()
        self.fetched()

    def read(self, kind: str, value: Any, unit: str, **more: Any) -> Any:
        body = {"kind": kind, "value": {"value": value, "unit": unit}, "on": "2026-08-10"} | more
        return self.ask("POST", "sky/readings", body, 201)

    def day(self, on: str = "2026-08-10") -> Any:
        strip = self.ask("GET", f"sky/strip?area_id={self.area.pk}&weeks=2")
        return next(d for d in strip["days"] if d["on"] == on)

    def test_a_gauge_goes_before_the_station_and_can_be_taken_back(self) -> None:
        # 0.8 in is what was read.
        before = self.day()["rain"]
        made = self.read("rain", "0.8", "in")
        self.assertEqual(self.day()["rain"], 0.8)
        self.ask("DELETE", f"sky/readings/{made['id']}", expect=204)
        self.assertEqual(self.day()["rain"], before)

    def test_a_thermometer_sets_the_soil_right(self) -> None:
        # 61 °F is what was read.
        Reading.objects.update(soil=None)
        Station.objects.get().renew()
        self.read("soil", "61.0", "degF", clock="09:00")
        self.assertEqual(self.day()["soil"], 61.0)
        self.assertIn("61 °F, measured", str(self.ask("GET", f"sky/day?area_id={self.area.pk}&on=2026-08-10")["facts"]))
        self.assertIn("estimated", str(self.ask("GET", f"sky/day?area_id={self.area.pk}&on=2026-08-11")["facts"]))

    def test_a_leaf_that_was_wet(self) -> None:
        self.read("wet", "wet", "", clock="13:00")
        hours = self.ask("GET", f"sky/day?area_id={self.area.pk}&on=2026-08-10")["hours"]
        self.assertEqual(next(h["wet"] for h in hours if h["label"] == "13:00"), "wet")

    def test_a_frosted_leaf_is_no_wet_one_and_still_air_is_calm(self) -> None:
        """A day of −1 °C, 95 % and 0.3 m/s: ice all day, no hour of wetness, cups that stand still."""
        Reading.objects.update(air=-1, humidity=95, rain=0, wind=0.3, wet=None, dew=None)
        Station.objects.get().renew()
        said = self.ask("GET", f"sky/day?area_id={self.area.pk}&on=2026-08-10")
        facts = {f["name"]: f["text"] for f in said["facts"]}
        self.assertEqual({(h["wet"], h["wind"]) for h in said["hours"] if not h["forecast"]}, {("frost", "calm")})
        self.assertIn("h, not counted as wet", facts["Frost on the leaf"])
        self.assertTrue(facts["Wet leaf by humidity"].startswith("0 h"), facts)

    def test_what_cannot_be_is_refused_by_its_field(self) -> None:
        for kind, value, unit, more, field in (
            ("rain", "900", "mm", {}, "value"),
            ("soil", "140", "degC", {}, "value"),
            ("rain", "1", "degC", {}, "value"),
            ("wet", "moist", "", {}, "value"),
            ("rain", "x", "in", {}, "value"),
            ("soil", "60", "degF", {"on": "2026-08-13"}, "on"),
        ):
            body = {"kind": kind, "value": {"value": value, "unit": unit}, "on": "2026-08-10"} | more
            self.assertIn(field, self.faults("POST", "sky/readings", body), (kind, value))


class Watching(SkyTest):
    def setUp(self) -> None:
        super().setUp()
        self.station()
        self.fetched()

    def watch(self, disease: str, **more: Any) -> Any:
        body = {"on": True, "model": "", "susceptible": "usual", "bears": "usual", "history": False, "own": ""} | more
        said = self.ask("PUT", f"sky/areas/{self.area.pk}/watch/{disease}", body)
        return next(w for w in said["watches"] if w["disease"] == disease)

    def test_the_usual_diseases_of_the_grass_and_what_moves_a_threshold(self) -> None:
        said = self.ask("GET", f"sky/areas/{self.area.pk}/watch")
        self.assertIn("dollar_spot", [w["disease"] for w in said["watches"] if w["on"]])
        self.assertNotIn("rust", [w["disease"] for w in said["watches"] if w["on"]])
        self.assertEqual(self.watch("dollar_spot")["threshold"], "20 % probability")
        moved = self.watch("dollar_spot", susceptible="high", bears="low")
        self.assertEqual(moved["threshold"], "15 % probability")
        self.assertIn("a grass that falls ill easily", moved["why"])
        self.assertEqual(self.watch("dollar_spot", own="33")["threshold"], "33 % probability")
        self.assertFalse(self.watch("dollar_spot", on=False)["on"])
        self.assertNotIn("dollar_spot", [r["disease"] for r in self.ask("GET", "sky")["risks"]])

    def test_another_model_of_the_same_disease_can_be_gone_by(self) -> None:
        self.watch("dollar_spot", model="mills_rothwell")
        strip = self.ask("GET", f"sky/strip?area_id={self.area.pk}")
        mine = next(r for r in strip["risks"] if r["disease"] == "dollar_spot")
        self.assertEqual((mine["model"], mine["threshold"]), ("mills_rothwell", "at 3 days of the last 7"))
        for body, field in (({"model": "nutter"}, "model"), ({"own": "0"}, "own"), ({"own": "140"}, "own")):
            self.assertIn(field, self.faults("PUT", f"sky/areas/{self.area.pk}/watch/dollar_spot", body))

    def test_a_day_unfolds_by_the_areas_own_threshold_of_the_model_it_is_watched_by(self) -> None:
        """The other models are told by their published thresholds: 20 % (Smith and Kerns 2018), three days of seven."""
        self.watch("dollar_spot", model="mills_rothwell", own="5")
        models = self.ask("GET", f"sky/day?area_id={self.area.pk}&on=2026-08-10")["models"]
        said = {m["model"]: m["value"] for m in models if m["disease"] == "dollar_spot"}
        self.assertIn("against 20 % (probability)", said["Smith and Kerns"])
        self.assertIn("against 5 (days of the last 7)", next(v for k, v in said.items() if k.startswith("Mills")))

    def test_scouts_stand_on_the_curve_and_score_the_model(self) -> None:
        for on, seen in (("2026-08-10", True), ("2026-07-20", False)):
            self.ask("POST", "scouting", {"area_id": self.area.pk, "on": on, "what": "dollar_spot", "seen": seen}, 201)
        strip = self.ask("GET", f"sky/strip?area_id={self.area.pk}")
        self.assertEqual([(s["on"], s["seen"]) for s in strip["scouts"]], [("2026-07-20", False), ("2026-08-10", True)])
        self.assertIn("outbreaks were warned of", next(r for r in strip["risks"] if r["disease"] == "dollar_spot")["score"])
        self.ask("POST", f"scouting/{strip['scouts'][0]['id']}/strike", {"why": "the other green"})
        strip = self.ask("GET", f"sky/strip?area_id={self.area.pk}")
        self.assertEqual([(s["on"], s["seen"]) for s in strip["scouts"]], [("2026-08-10", True)])
        for more, field in (
            ({"on": "2026-09-01"}, "on"),
            ({"what": "moss"}, "what"),
            ({"severity": "120"}, "severity"),
            ({"seen": False, "severity": 4}, "severity"),
        ):
            body = {"area_id": self.area.pk, "on": "2026-08-10", "what": "dollar_spot", "seen": True} | more
            self.assertIn(field, self.faults("POST", "scouting", body))

    def test_a_day_unfolds_into_the_published_sum(self) -> None:
        """Smith and Kerns (2018): the screen's own figures put into the equation give the probability it shows."""
        said = self.ask("GET", f"sky/day?area_id={self.area.pk}&on=2026-08-10")
        lines = {x["name"]: x["text"] for x in next(m for m in said["models"] if m["model"] == "Smith and Kerns")["lines"]}
        air = float(lines["Mean air of five days"].split(" ")[0])
        humidity = float(lines["Mean humidity of five days"].split(" ")[0])
        p = 100 / (1 + np.exp(11.4041 - 0.1932 * air - 0.0894 * humidity))
        self.assertAlmostEqual(float(lines["Probability"].split("= ")[1].split(" ")[0]), p, delta=0.4)
        self.assertEqual(len(said["hours"]), 24)
        self.assertIn("120 of 120 hours known", lines["Rests on"])
        self.assertIn(
            "on", {f["field"] for f in self.ask("GET", f"sky/day?area_id={self.area.pk}&on=2019-01-01", expect=422)["fields"]}
        )


@override_settings(DATA_UPLOAD_MAX_MEMORY_SIZE=None)
class Files(SkyTest):
    def setUp(self) -> None:
        super().setUp()
        self.ask("PUT", "sky/station", {"name": "Files only"})

    def send(self, act: str, text: str | bytes, expect: int, name: str = "weather.csv", **more: Any) -> Any:
        data = text.encode() if isinstance(text, str) else text
        answer = self.client.post(f"/api/accounts/alder/sky/station/{act}", {"file": SimpleUploadedFile(name, data), **more})
        self.assertEqual(answer.status_code, expect, answer.content.decode()[:600])
        return answer.json()

    def table(self, air: str = "21.5", humidity: str = "80", count: int = 72) -> str:
        begin = datetime(2026, 8, 1, tzinfo=UTC)
        rows = [f"{begin + timedelta(hours=i):%Y-%m-%dT%H:%M},{air},{humidity}" for i in range(count)]
        return "time_utc,air_degC,humidity_%\n" + "\n".join(rows) + "\n"

    def test_a_preview_keeps_nothing_and_the_keeping_all(self) -> None:
        seen = self.send("preview", self.table(), 200)
        self.assertEqual((seen["hours"], seen["refused"], seen["mapping"]["zone"]), (72, False, "UTC"))
        self.assertEqual(Reading.objects.count(), 0)
        kept = self.send("keep", self.table(), 201, mapping=json.dumps(seen["mapping"]))
        self.assertEqual((kept["new"], Reading.objects.count()), (72, 72))
        self.assertEqual(set(Reading.objects.values_list("source", "quality")), {("csv", "whole")})
        again = self.send("preview", self.table(), 200)
        self.assertEqual(again["known_already"], 72)
        self.assertEqual(self.send("keep", self.table(), 201)["new"], 0)

    def test_what_stands_against_the_whole_keeps_all_of_it_out(self) -> None:
        whole = self.table()
        for text, word in (
            (self.table(humidity="0.82"), "fraction"),
            (self.table(air="78"), "too hot for °C"),
            (whole[:-7], "columns"),
            (whole[:-1], "cut off"),
        ):
            seen = self.send("preview", text, 200)
            self.assertTrue(seen["refused"])
            self.assertIn(word, str(seen["against"]))
            said = self.send("keep", text, 422)
            self.assertIn("Nothing was kept", said["fields"][0]["remedy"])
            self.assertEqual(Reading.objects.count(), 0)

    def test_hours_that_have_not_been_are_refused(self) -> None:
        with patch("greenmeasure.common.clock.now", return_value=datetime(2026, 8, 2, tzinfo=UTC)):
            seen = self.send("preview", self.table(), 200)
        self.assertIn("have not been yet", str(seen["against"]))

    def test_a_single_bad_line_is_listed_and_left_out(self) -> None:
        text = self.table().replace("2026-08-01T05:00,21.5,80", "2026-08-01T05:00,21.5,eighty")
        seen = self.send("preview", text, 200)
        self.assertEqual([(f["line"], f["value"]) for f in seen["faults"]], [(7, "eighty")])
        self.assertEqual(self.send("keep", text, 201)["new"], 72)
        self.assertEqual(Reading.objects.filter(humidity=None).count(), 1)

    def test_what_is_no_table(self) -> None:
        for data, name in ((b"\xff\xfe\x00", "w.csv"), (b"just words", "w.csv"), (b"LOCATION,x\n", "w.epw")):
            self.assertEqual(self.send("preview", data, 422, name)["fields"][0]["field"], "file")
        said = self.send(
            "preview",
            self.table(),
            422,
            mapping=json.dumps({"time": "when", "zone": "UTC", "columns": {"air": {"name": "air_degC", "unit": "degC"}}}),
        )
        self.assertEqual(said["fields"][0]["field"], "columns.time")

    def test_the_typical_year_that_pvlib_carries(self) -> None:
        """TMY3 of Greensboro, NC, in pvlib's own data: 8,760 hours, a July mean near 25 °C (climate normals, from memory)."""
        data = TMY3.read_bytes()
        seen = self.send("preview", data, 200, TMY3.name, year=2025)
        self.assertEqual((seen["kind"], seen["hours"], seen["refused"]), ("typical", 8760, False))
        self.send("keep", data, 201, TMY3.name, year=2025)
        self.assertIn("Rain is left out: the makers of TMY3 say", seen["sentence"])
        self.assertFalse(Reading.objects.exclude(rain=None).exists())
        first, last = Reading.objects.order_by("at").first(), Reading.objects.order_by("at").last()
        assert first and last
        # The first line is stamped 01:00 at UTC−5, the end of its hour: 10.0 °C; the last one 24:00 of 31 December.
        self.assertEqual((first.at, first.air), (datetime(2025, 1, 1, 5, tzinfo=UTC), 10.0))
        self.assertEqual(last.at, datetime(2026, 1, 1, 4, tzinfo=UTC))
        july = Reading.objects.filter(at__month=7, at__year=2025).values_list("air", flat=True)
        self.assertAlmostEqual(float(np.mean(list(july))), 25.0, delta=2.0)
        self.assertEqual(self.ask("GET", "sky/long?field=air")["values"].count(None), 0)
        self.assertEqual(self.send("preview", data[: len(data) // 2], 422, TMY3.name)["fields"][0]["field"], "file")

    def test_an_epw_as_it_comes(self) -> None:
        """A typical year at 45° N 8° E by PVGIS; its first line: 1 January, hour 1, UTC+1, 2.29 °C, 91.95 %."""
        seen = self.send("preview", EPW, 200, "here.epw", year=2025)
        self.assertEqual((seen["kind"], seen["hours"], seen["refused"]), ("typical", 8760, False))
        self.assertEqual(
            seen["sentence"], "8,760 of 8,760 lines can be taken. Rain is left out: the file has none that could be a year's."
        )
        self.send("keep", EPW, 201, "here.epw", year=2025)
        first = Reading.objects.order_by("at").first()
        assert first
        self.assertEqual((first.at, first.air, first.humidity), (datetime(2024, 12, 31, 23, tzinfo=UTC), 2.29, 91.95))
        self.assertEqual((first.rain, first.snow), (None, None))
        self.assertEqual(self.ask("GET", "sky/long?field=humidity")["values"].count(None), 0)

    def test_an_epw_with_rain_and_one_of_noughts(self) -> None:
        def rained(each: str) -> bytes:
            head, rows = EPW.decode().splitlines()[:8], EPW.decode().splitlines()[8:]
            lines = [[*row.split(",")[:33], each if i % 10 == 0 else "0", "1"] for i, row in enumerate(rows)]
            return "\n".join([*head, *(",".join(line) for line in lines)]).encode()

        wet = self.send("preview", rained("1.2"), 200, "here.epw", year=2025)
        self.assertNotIn("Rain is left out", wet["sentence"])
        self.assertEqual(wet["mapping"]["columns"]["rain"]["unit"], "mm")
        self.assertIn("Rain is left out", self.send("preview", rained("0"), 200, "here.epw", year=2025)["sentence"])

    def test_an_epw_that_was_cut_off_or_is_none(self) -> None:
        for data in (EPW[: len(EPW) // 2], EPW[:3000], b"a,b\n" * 9000):
            fault = self.send("preview", data, 422, "here.epw", year=2025)["fields"][0]
            self.assertEqual(fault["field"], "file")
