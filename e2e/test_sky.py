"""Sky and season in the browser: a service killed, slowed and fed garbage while the screens stay true; and what is due."""

import json
import re
from datetime import UTC, datetime, timedelta
from threading import Thread
from typing import Any
from unittest.mock import patch

import requests
from playwright.sync_api import expect

from e2e.base import PHONE, BrowserTest
from greenmeasure.accounts.models import Account
from greenmeasure.scouting.models import Scouting
from greenmeasure.shelf.actions import save_product
from greenmeasure.shelf.schemas import ProductIn
from greenmeasure.sky import providers
from greenmeasure.sky.fetching import fetch, wanted
from greenmeasure.sky.models import Reading, Station
from greenmeasure.tests.base import make_account
from greenmeasure.tests.test_clocks import REGULATOR
from greenmeasure.tests.test_due import FUNGICIDES
from sims.weather_service import Service

NOW = datetime(2026, 8, 12, 10, 20, tzinfo=UTC)  # 06:20 in New York, in a humid spell


class SkyBrowser(BrowserTest):
    """An account with a bentgrass green, and a simulated service whose clock stands still with the application's."""

    def setUp(self) -> None:
        super().setUp()
        self.service = Service(now=NOW)
        Thread(target=self.service.serve_forever, daemon=True).start()
        self.addCleanup(self.service.server_close)
        self.addCleanup(self.service.shutdown)
        clock = patch("greenmeasure.common.clock.now", return_value=NOW)
        clock.start()
        self.addCleanup(clock.stop)
        self.account = make_account("alder")
        self.let_in()

    def fault(self, **faults: Any) -> None:
        """Switch faults on as an operator would, over the service's own door."""
        requests.put(f"{self.service.url}/faults", data=json.dumps(faults), timeout=5)

    def station(self) -> None:
        """Set the station up in the browser, and fetch."""
        self.go("sky/station")
        self.fill("Name", "Harbour mast")
        self.fill("Address of its service", self.service.url)
        self.fill("Latitude", "41.22")
        self.fill("Longitude", "-72.61")
        self.button("Set it up").click()
        expect(self.button("Fetch it now")).to_be_visible()
        self.fetch()
        expect(self.page.locator("[data-fetch=ok]").first).to_contain_text("720 hours came, 720 of them new")

    def fetch(self) -> None:
        self.button("Fetch it now").click()
        expect(self.page.get_by_text("The service will be asked in a moment.")).to_be_visible()
        expect(self.button("Asking …")).to_be_disabled()
        for station in wanted():
            fetch(station)
        expect(self.button("Fetch it now")).to_be_enabled(timeout=20_000)

    def fungicides(self) -> None:
        from greenmeasure.shelf.actions import save_product
        from greenmeasure.shelf.schemas import ProductIn

        for given in FUNGICIDES:
            save_product(
                self.account,
                ProductIn(
                    **{
                        "kind": "fungicide",
                        "formulation": "SC",
                        "density": {"value": 9, "unit": "lb/gal"},
                        "contents": [{"name": "an active", "basis": "active", "amount": 20, "unit": "%"}],
                        "packages": [{"value": 1, "unit": "gal", "price": "256.00"}],
                        "rules": {"rain_after": {"value": 2, "unit": "h"}, "leaf": "dry"},
                    }
                    | given
                ),
            )


class Weather(SkyBrowser):
    def test_killed_slowed_and_fed_garbage_the_screens_stay_true(self) -> None:
        self.station()
        self.go("sky")
        expect(self.page.locator("[data-fresh=fresh]")).to_be_visible()
        strip = self.page.locator("[data-strip]")
        expect(strip).to_be_visible()
        count = Reading.objects.count()
        for fault, words in (
            ({"down": True}, "refused the question"),
            ({"dead": True}, "cannot be reached"),
            ({"slow": 1.0}, "did not answer"),
            ({"garbage": "text"}, "no JSON"),
            ({"garbage": "half"}, "cut off"),
            ({"shift": 3}, "clock is about"),
        ):
            self.fault(**fault)
            self.go("sky/station")
            with patch.object(providers.WeatherService.__init__, "__defaults__", (0.4,)):
                self.fetch()
            expect(self.page.locator("[data-fetch=failed]").first).to_contain_text(words)
            self.go("sky")
            expect(self.page.locator("[data-fresh]")).to_contain_text(words)
            expect(strip).to_be_visible()
            self.assertEqual(Reading.objects.count(), count)
        self.fault()
        self.go("sky/station")
        self.fetch()
        expect(self.page.locator("[data-fetch=ok]").first).to_contain_text("0 of them new")

    def test_old_weather_is_said_to_be_old_wherever_it_matters(self) -> None:
        self.station()
        self.fungicides()
        with patch("greenmeasure.common.clock.now", return_value=NOW + timedelta(hours=30)):
            for place in ("sky", "season", "today", "sky/station"):
                self.go(place)
                expect(self.page.locator("[data-fresh=stale]"), place).to_contain_text("Old weather")
            self.go("sky/hours")
            self.pick_many("What goes down, one or a tank of several", "Seven SC")
            expect(self.page.get_by_text("margins at every limit are as much wider")).to_be_visible()

    def test_values_that_cannot_be_are_set_aside_and_shown(self) -> None:
        self.fault(garbage="values")
        self.go("sky/station")
        self.fill("Name", "Harbour mast")
        self.fill("Address of its service", self.service.url)
        self.button("Set it up").click()
        self.fetch()
        aside = self.page.get_by_role("group", name="Values set aside")
        expect(aside).to_contain_text("air of 999.9 is not between -60 and 60")
        self.go("sky")
        expect(self.page.get_by_text(re.compile(r"\d+ values set aside"))).to_be_visible()

    def test_a_station_at_fault_is_told_field_by_field(self) -> None:
        self.go("sky/station")
        self.fill("Address of its service", "harbour.example")
        self.fill("Latitude", "95")
        self.fill("Longitude", "5")
        self.button("Set it up").click()
        for words in ("The station has no name", "begins with http", "95° is no latitude"):
            expect(self.page.get_by_text(words)).to_be_visible()
        expect(self.page.get_by_role("textbox", name="Name", exact=True)).to_be_focused()
        self.assertFalse(Station.objects.exists())

    def test_the_strip_by_keyboard_and_a_day_unfolded(self) -> None:
        self.station()
        self.go("sky")
        strip = self.page.get_by_role("group", name=re.compile("day by day: arrow keys"))
        strip.focus()
        self.page.keyboard.press("ArrowLeft")
        expect(self.page.get_by_role("heading", name=re.compile("Tuesday 11 August"))).to_be_visible()
        self.page.keyboard.press("ArrowLeft")
        expect(self.page.get_by_role("heading", name=re.compile("Monday 10 August"))).to_be_visible()
        model = self.page.locator("[data-model='Smith and Kerns']")
        model.locator("summary").click()
        expect(model).to_contain_text("−11.4041 + 0.1932 ×")
        expect(self.page.get_by_role("group", name="The hours of the day").locator("tbody tr")).to_have_count(24)
        self.button("Fold it up").click()
        expect(self.page.get_by_text("Pick a day to unfold it")).to_be_visible()

    def test_a_gauge_read_by_hand_and_taken_back(self) -> None:
        self.station()
        self.page.get_by_label("On", exact=True).fill("2026-08-10")
        self.fill("It read", "0.6")
        self.button("Keep the reading").click()
        expect(self.page.get_by_role("group", name="Readings by hand")).to_contain_text("Rain gauge: 0.6 in")
        self.button("Undo").click()
        expect(self.page.get_by_role("group", name="Readings by hand")).to_have_count(0)
        self.fill("It read", "60")
        self.button("Keep the reading").click()
        expect(self.page.get_by_text("That cannot be")).to_be_visible()

    def test_a_file_with_its_faults_and_then_mended(self) -> None:
        # 68 °F are 20 °C.
        self.station()
        self.go("sky/files")
        rows = "".join(
            f"{datetime(2026, 6, 1, tzinfo=UTC) + timedelta(hours=i):%Y-%m-%d %H:%M},0.{80 + i % 9},68\n" for i in range(60)
        )
        self.take_file(
            "File of weather", {"name": "june.csv", "mimeType": "text/csv", "buffer": f"time_utc,rh %,air_degC\n{rows}".encode()}
        )
        expect(self.page.get_by_text("is a fraction")).to_be_visible()
        expect(self.page.get_by_text("too hot for °C")).to_be_visible()
        expect(self.button("Nothing can be kept")).to_be_disabled()
        self.pick("Unit of humidity", "fraction")
        expect(self.page.get_by_text("is a fraction")).to_have_count(0)
        self.pick("Unit of air", "°F")
        self.button("Keep 60 hours").click()
        self.says("Harbour mast")
        self.assertEqual(Reading.objects.filter(source="csv").count(), 60)
        self.assertAlmostEqual(Reading.objects.filter(source="csv").earliest("at").air or 0, 20.0)

    def test_hours_fit_by_keyboard(self) -> None:
        self.station()
        self.fungicides()
        self.go("sky/hours")
        self.pick_many("What goes down, one or a tank of several", "Seven SC")
        grid = self.page.get_by_role("group", name=re.compile("Hours to come"))
        expect(grid.locator("[data-fit]")).to_have_count(168)
        grid.focus()
        self.page.keyboard.press("ArrowDown")
        expect(self.page.get_by_role("heading", name=re.compile("Thu 13, 06:00"))).to_be_visible()
        self.page.keyboard.press("ArrowLeft")
        expect(self.page.get_by_role("heading", name=re.compile(r"Thu 13, 05:00 · No"))).to_be_visible()
        expect(self.page.get_by_role("listitem").filter(has_text="It is dark.")).to_be_visible()
        self.fill("The job takes, in hours", "0")
        expect(self.page.get_by_text("0 is not above zero").or_(self.page.get_by_text("above zero")).first).to_be_visible()

    def test_ten_years_of_hours_are_drawn(self) -> None:
        self.station()
        station = Station.objects.get()
        begin = datetime(2016, 8, 1, tzinfo=UTC)
        Reading.objects.bulk_create(
            [
                Reading(station=station, at=begin + timedelta(hours=i), air=10.0 + i % 24, humidity=70, source="csv")
                for i in range(86_000)
            ],
            2000,
        )
        station.renew()
        self.go("sky/long")
        chart = self.page.locator("[data-hours]")
        expect(chart).to_be_visible(timeout=20_000)
        self.assertGreater(int(chart.get_attribute("data-hours") or 0), 86_000)
        expect(chart.locator("canvas")).to_be_visible()


class Due(SkyBrowser):
    def setUp(self) -> None:
        super().setUp()
        self.station()
        self.fungicides()

    def test_from_today_to_a_round_in_one_step(self) -> None:
        self.go("today")
        self.says(re.compile("due"))
        line = self.page.locator("[data-due$=dollar_spot]")
        expect(line).to_contain_text("Seven SC, 0.3 fl oz/1000 ft²")
        line.get_by_role("link", name="Dollar spot on North green").click()
        self.says("Protection of North green against dollar spot is")
        expect(self.page.locator("[data-choice='Three SC']")).to_contain_text("does not list creeping bentgrass")
        self.button("Make it a round").click()
        self.page.wait_for_url(re.compile(r"/round/\d+"))
        expect(self.page.get_by_text("0.3 fl oz/1000 ft²").first).to_be_visible()
        self.page.get_by_role("button", name=re.compile("Take .* mph and .* °F from Harbour mast")).click()
        expect(self.page.get_by_role("textbox", name="Wind", exact=True)).to_have_value(re.compile("mph"))
        self.go("season")
        expect(self.page.get_by_role("link", name="A round is under way")).to_be_visible()

    def test_planned_missed_and_dropped(self) -> None:
        area = Account.objects.get(slug="alder").areas.get().pk
        self.go(f"season/{area}/dollar_spot")
        self.button("Plan it for these hours").click()
        expect(self.page.get_by_role("note").filter(has_text="Planned")).to_be_visible()
        self.go(f"sky?area={area}")
        expect(self.page.locator("[data-job=planned]")).to_have_count(1)
        with patch("greenmeasure.common.clock.now", return_value=NOW + timedelta(days=3)):
            self.go("season")
            expect(self.page.get_by_text(re.compile("and missed: .* unprotected until the next window"))).to_be_visible()
            self.go(f"season/{area}/dollar_spot")
            self.button("Drop the plan").click()
            expect(self.page.get_by_role("alert")).to_have_count(0)

    def test_the_list_as_a_calendar(self) -> None:
        self.go("season")
        with self.page.expect_download() as got:
            self.page.get_by_role("link", name="As a calendar (iCalendar)").click()
        text = got.value.path().read_text(encoding="utf-8")
        self.assertIn("BEGIN:VCALENDAR", text)
        self.assertIn("Seven SC on North green", text.replace("\r\n ", ""))

    def test_scouting_makes_it_curative_and_stands_on_the_strip(self) -> None:
        area = Account.objects.get(slug="alder").areas.get().pk
        self.go(f"sky/watch?area={area}")
        self.page.get_by_label("On", exact=True).first.fill("2026-08-11")
        self.fill("On how much of the turf, in %", "2")
        self.button("Note what was found").click()
        expect(self.page.get_by_text("▲ Dollar spot seen on 2 %")).to_be_visible()
        self.assertEqual(Scouting.objects.get().severity, 2)
        self.go(f"season/{area}/dollar_spot")
        self.says("It was seen on 11 August")
        expect(self.page.locator("[data-choice='Seven SC']")).to_contain_text("0.6 fl oz/1000 ft², curative")
        self.go(f"sky?area={area}")
        expect(self.page.locator("[data-risk=dollar_spot] path.seen")).to_have_count(1)

    def test_on_a_phone_it_can_be_read_and_started(self) -> None:
        self.page.set_viewport_size(PHONE)
        area = Account.objects.get(slug="alder").areas.get().pk
        for place in ("season", f"season/{area}/dollar_spot", "sky", "sky/hours"):
            self.go(place)
            expect(self.sentence()).to_be_visible()
            self.still(quiet=100, at_most=2_000)
            over = self.page.evaluate("() => document.documentElement.scrollWidth - innerWidth")
            self.assertLessEqual(over, 0, place)
        self.go(f"season/{area}/dollar_spot")
        box = self.button("Make it a round").bounding_box()
        assert box
        self.assertGreaterEqual(box["height"], 44)

    def test_the_watch_moves_the_threshold(self) -> None:
        area = Account.objects.get(slug="alder").areas.get().pk
        self.go(f"sky/watch?area={area}")
        self.button("Change how dollar spot is watched").click()
        self.fill("A threshold of your own", "0")
        self.button("Watch it so").click()
        expect(self.page.get_by_text("is no threshold of Smith and Kerns")).to_be_visible()
        self.fill("A threshold of your own", "99")
        self.button("Watch it so").click()
        expect(self.page.locator("[data-watch=dollar_spot]")).to_contain_text("99 % probability")
        self.go("season")
        expect(self.page.locator("[data-due$=dollar_spot]")).to_have_count(0)


class Holds(SkyBrowser):
    def test_a_target_of_ones_own_is_set_and_taken_back(self) -> None:
        """On a phone: 300 °C·d in place of the known one, which comes back at a press."""
        made = save_product(self.account, ProductIn(**REGULATOR))
        green = self.account.areas.get()
        part = {"area_id": green.pk, "doses": [{"row_id": made.rates.get().pk, "rate": {"value": 5, "unit": "fl_oz/acre"}}]}
        job = {"mix": [{"product_id": made.pk, "target": ""}], "machine_id": self.account.machines.get(kind="sprayer").pk}
        job |= {"passes": 1, "parts": [part], "on": "2026-08-06", "clock": "08:00"}
        done = {"job": job, "finish": {"used": [{"amount": {"value": "0.8", "unit": "fl_oz"}}]}, "reason": "It was so."}
        answer = self.client.post("/api/accounts/alder/rounds/done", json.dumps(done), content_type="application/json")
        self.assertEqual(answer.status_code, 201, answer.content)
        self.station()
        self.page.set_viewport_size(PHONE)
        self.go("sky/clocks")
        self.button("Set how long Slow ME holds on North green").click()
        self.fill("Again after, °C·d", "3")
        self.button("Count by it").click()
        expect(self.page.get_by_role("textbox", name="Again after, °C·d")).to_be_focused()
        self.fill("Again after, °C·d", "300")
        self.button("Count by it").click()
        expect(self.page.get_by_text("of 300 °C·d").first).to_be_visible()
        self.button("Set how long Slow ME holds on North green").click()
        self.button("The known one again").click()
        expect(self.page.get_by_text("of 300 °C·d")).to_have_count(0)
        over = self.page.evaluate("() => document.documentElement.scrollWidth - innerWidth")
        self.assertLessEqual(over, 0)
