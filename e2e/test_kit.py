"""Kit in the browser: each bench walked through by keyboard, at the phone's width, and kept; what a round teaches."""

import re
from datetime import timedelta
from typing import Any

from django.utils import timezone
from playwright.sync_api import expect

from e2e.base import PHONE, BrowserTest
from greenmeasure.accounts.models import Account, User
from greenmeasure.common.clock import today
from greenmeasure.kit.models import Calibration, Machine
from greenmeasure.rounds.models import Round

PANS = "2 6 10 12 12 13 12 12 10 6 2"


class KitTest(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.let_in()
        self.account = Account.objects.get(slug="alder")
        self.sprayer, self.spreader = (Machine.objects.get(kind=k) for k in ("sprayer", "spreader"))

    def at(self, machine: Machine, part: str = "") -> None:
        self.go(f"kit/{machine.pk}{part}")

    def answer(self) -> Any:
        return self.page.locator("[data-answer=bench]")

    def set(self, machine: Machine, **more: Any) -> None:
        for key, value in more.items():
            setattr(machine, key, value)
        machine.save()

    def type_over(self, *words: str) -> None:
        """Type into one field after another, going on by the tab key; an empty word passes a field or a button by."""
        for word in words:
            if word:
                self.page.keyboard.press("Control+A")
                self.page.keyboard.type(word)
            self.page.keyboard.press("Tab")


class WetBenches(KitTest):
    def test_a_strip_by_keyboard_alone_is_kept_and_used(self) -> None:
        """30 × 3 ft is 90 ft²; 0.09 gal on it is 1 gal/1000 ft² (arithmetic). 0.108 gal are 1.2 gal/1000 ft²."""
        self.at(self.sprayer, "/calibrate?bench=strip")
        self.page.get_by_role("textbox", name="Length of the strip", exact=True).focus()
        self.type_over("30", "", "3", "")
        self.page.get_by_role("button", name=re.compile("Measured in")).focus()
        self.page.keyboard.press("ArrowDown")
        self.page.keyboard.type("gal")
        self.page.keyboard.press("Enter")
        self.page.keyboard.press("Tab")
        for _ in range(3):
            self.type_over("0.108", "", "", "")
        expect(self.answer()).to_contain_text("1.2 gal/1000 ft²")
        self.page.get_by_role("button", name="Keep it and use it").focus()
        self.page.keyboard.press("Enter")
        self.says("puts down 1.2 gal/1000 ft² in a pass")
        self.assertEqual(Calibration.objects.get().by, "Manager alder")
        self.pick_spray()
        self.page.get_by_role("heading", name="Spray in all").wait_for()
        expect(self.page.get_by_text("8.4 gal").first).to_be_visible()

    def test_the_clock_on_the_page_times_a_run(self) -> None:
        self.at(self.sprayer, "/calibrate?bench=flow")
        clock = self.page.get_by_role("button", name="Start the clock of run 1")
        clock.focus()
        self.page.keyboard.press("Enter")
        stop = self.page.get_by_role("button", name="Stop the clock of run 1")
        expect(stop).to_have_attribute("data-clock", "on")
        self.page.wait_for_timeout(1200)
        self.page.keyboard.press("Enter")
        expect(clock).to_be_visible()
        seconds = float(self.page.get_by_role("textbox", name="Time of run 1, s").input_value())
        self.assertTrue(1.0 < seconds < 6.0, seconds)

    def test_a_flow_alone_comes_to_nothing_and_a_pace_makes_it_one(self) -> None:
        """Half a gallon in a minute, 100 ft in a minute, 5 ft wide: 1 gal/1000 ft² (arithmetic)."""
        self.at(self.sprayer, "/calibrate?bench=flow")
        self.pick("Measured in", "gal")
        self.fill("Caught in run 1, gal", "0.5")
        self.fill("Time of run 1, s", "60")
        self.fill("Swath", "5")
        expect(self.answer()).to_have_count(0)
        self.fill("Distance timed", "100")
        self.fill("It took, s", "60")
        expect(self.answer()).to_contain_text("1 gal/1000 ft²")
        self.fill("It took, s", "1")
        expect(self.page.get_by_role("alert").first).to_contain_text("no pace to spray at")

    def test_the_run_that_stands_alone_is_left_out(self) -> None:
        self.at(self.sprayer, "/calibrate?bench=strip")
        self.pick("Measured in", "gal")
        self.fill("Length of the strip", "100")
        self.fill("Swath", "10")
        for n, used in enumerate(("1", "1.01", "2"), 1):
            self.fill(f"Used in run {n}, gal", used)
        expect(self.page.get_by_text("They disagree.")).to_be_visible()
        self.page.get_by_role("group", name="Run 3").get_by_role("button", name="Do not use").click()
        expect(self.answer()).to_have_attribute("data-trust", "agree")
        expect(self.answer()).to_contain_text("1.005 gal/1000 ft²")
        self.page.reload()
        expect(self.answer()).to_contain_text("1.005 gal/1000 ft²")

    def test_a_course_tells_how_far_to_walk(self) -> None:
        """1/128 acre is 340.3 ft²: 204 ft for a nozzle of 20 in; 40 fl oz read as 40 gal/acre (arithmetic)."""
        self.at(self.sprayer, "/calibrate?bench=catch")
        self.pick("Course", "1/128 acre")
        self.fill("One nozzle covers", "20 in")
        for n in (1, 2, 3):
            self.fill(f"Caught in run {n}, fl oz", "40")
        expect(self.answer()).to_contain_text("40 gal/acre")
        expect(self.page.get_by_text("204 ft while it is caught")).to_be_visible()

    def test_emptying_and_zero_time(self) -> None:
        self.at(self.sprayer, "/calibrate?bench=emptying")
        self.fill("Poured in", "2")
        self.fill("Distance timed", "100")
        self.fill("It took, s", "60")
        self.fill("Swath", "5")
        self.fill("Empty after, in run 1, s", "240")
        expect(self.answer()).to_contain_text("1 gal/1000 ft²")
        self.fill("Empty after, in run 2, s", "0")
        expect(self.page.locator("[data-field='seconds.1'] [role=alert]")).to_contain_text("Zero measures nothing")

    def test_a_booms_tips(self) -> None:
        self.set(self.sprayer, form="walking_boom")
        self.at(self.sprayer, "/calibrate?bench=tips")
        self.fill("Caught for, s", "60")
        self.fill("Caught by tip, from the left", "40 41 40 47 36")
        expect(self.answer()).to_contain_text("3 of 5 tips sound")
        tips = self.page.get_by_role("list", name="Tips from the left").get_by_role("listitem")
        expect(tips.nth(3)).to_contain_text("Change it.")
        expect(tips.nth(4)).to_contain_text("Clean it.")
        self.button("Keep the check").click()
        self.says("Sprayer puts down 1 gal/1000 ft² in a pass: typed, not measured")

    def test_a_hose_end(self) -> None:
        """5 gal/min for 2 min with 1 fl oz in each gallon: 10 fl oz on 2,000 ft² (arithmetic)."""
        self.set(self.sprayer, form="hose_end")
        self.at(self.sprayer, "/calibrate")
        for label, text in (
            ("The dial sets", "1"),
            ("in each", "1"),
            ("The bucket holds", "5"),
            ("Full after, s", "60"),
            ("Area sprayed", "2000"),
            ("It took, s", "120"),
        ):
            self.fill(label, text)
        expect(self.answer()).to_contain_text("5 fl oz/1000 ft²")


class DryBenches(KitTest):
    def test_weighed_over_an_area_at_two_settings_makes_a_curve(self) -> None:
        """1 and 2 lb on 1,000 ft² at 5 and 7: 1.5 lb/1000 ft² lies half way, at 6 (arithmetic)."""
        for setting, pounds in (("5", "1"), ("7", "2")):
            self.at(self.spreader, "/calibrate?bench=weight")
            self.pick("Product", "Test 20-0-10")
            self.fill("Setting", setting)
            self.fill("Length walked", "100")
            self.fill("Width of a pass", "10")
            self.fill("Put down in run 1, lb", pounds)
            expect(self.answer()).to_contain_text(f"{pounds} lb/1000 ft²")
            self.button("Keep it and use it").click()
            self.says("Spreader: one product tested")
        self.at(self.spreader, "/setting")
        self.fill("Product wanted in all", "1.5")
        expect(self.page.locator("[data-answer=setting]")).to_have_text("Setting 6")
        self.pick("Passes", "2")
        expect(self.page.locator("[data-finding=beyond-tests]")).to_contain_text("test a lower setting")

    def test_a_setting_without_its_product_is_not_kept(self) -> None:
        self.at(self.spreader, "/calibrate?bench=weight")
        self.fill("Setting", "5")
        self.fill("Length walked", "100")
        self.fill("Width of a pass", "10")
        self.fill("Put down in run 1, lb", "1")
        self.button("Keep it and use it").click()
        expect(self.page.get_by_text("A setting holds for one product.")).to_be_visible()
        self.assertEqual(Calibration.objects.count(), 0)

    def test_pans_draw_the_pattern_and_every_spacing(self) -> None:
        self.set(self.spreader, form="broadcast")
        self.at(self.spreader, "/calibrate?bench=pans")
        self.fill("Pans apart, middle to middle", "2")
        self.pick("Measured in", "g")
        self.fill("Caught by pan, from the left", PANS)
        self.says("Passes 16 ft apart")
        expect(self.page.get_by_role("img", name="Pattern across the path, 11 pans")).to_be_visible()
        self.pick("Walk", "18 ft apart")
        self.says("Passes 18 ft apart: fair")
        self.fill("Caught by pan, from the left", "9 8 6 4 2 1 1")
        expect(self.page.get_by_text("the throw goes on beyond it")).to_be_visible()
        self.fill("Caught by pan, from the left", "5")
        expect(self.page.get_by_text("1 pans show no pattern")).to_be_visible()

    def test_a_tray_under_a_drop_spreader(self) -> None:
        self.set(self.spreader, form="drop")
        self.at(self.spreader, "/calibrate")
        self.pick("Product", "Test 20-0-10")
        self.fill("Setting", "4")
        self.fill("Length pushed", "20")
        self.fill("Width of the spreader", "2")
        self.pick("Measured in", "g")
        self.fill("Caught in run 1, g", "40")
        expect(self.answer()).to_contain_text("2.205 lb/1000 ft²")

    def test_half_way_there(self) -> None:
        self.at(self.spreader, "/setting")
        self.fill("Loaded for the whole", "40")
        self.fill("Left now", "24")
        expect(self.page.locator("[data-answer=midway]")).to_contain_text("20 lb should be left now")


class ByKeyboard(KitTest):
    """Every bench at the phone's width, worked by the keyboard alone, from the first field to the button that keeps it."""

    def setUp(self) -> None:
        super().setUp()
        self.page.set_viewport_size(PHONE)

    def tab_to(self, name: str) -> None:
        """Go on by the tab key until what is called so has the focus.

        Sixty presses take less than a second: on a busy machine they can be over before the answer that brings a field is there.
        So it goes round once more when the page has come to rest.
        """
        for n in range(120):
            if n == 60:
                self.settle()
            self.page.keyboard.press("Tab")
            here = self.page.evaluate("""() => { const e = document.activeElement; if (!e) return '';
                const by = (e.getAttribute('aria-labelledby') || '').split(' ').map(i => document.getElementById(i)?.innerText);
                return [e.getAttribute('aria-label'), e.labels?.[0]?.innerText, ...by, e.innerText].join('|'); }""")
            if name in here.split("|"):
                return
        self.fail(f"the tab key does not reach {name!r}")

    def work(self, machine: Machine, method: str, typed: dict[str, str]) -> Calibration:
        """Work a bench: fields are typed into, lists (`Product=`) picked from by their first letters."""
        self.at(machine, f"/calibrate?bench={method}")
        self.page.get_by_role("button", name=re.compile("Bench$")).focus()
        for name, text in typed.items():
            self.tab_to(name.rstrip("="))
            if name.endswith("="):
                self.page.keyboard.press("Enter")
                self.page.get_by_role("listbox").wait_for()
            self.page.keyboard.type(text)
            if name.endswith("="):
                self.page.keyboard.press("Enter")
                self.list_is_shut()
        expect(self.answer()).to_be_visible()
        self.tab_to("Keep the check" if method == "tips" else "Keep it and use it")
        self.page.keyboard.press("Enter")
        self.page.wait_for_url(f"**/kit/{machine.pk}")
        return Calibration.objects.get(method=method)

    def test_the_wet_ones(self) -> None:
        paced = {"Distance timed": "100", "It took, s": "60", "Swath": "5"}
        gallons = {"Measured in=": "gal"}
        strip = {"Length of the strip": "100", "Swath": "5", **gallons, "Used in run 1, gal": ".5"}
        flow = {**paced, **gallons, "Caught in run 1, gal": ".5", "Time of run 1, s": "60"}
        catch = {"Course=": "1/128 acre", "One nozzle covers": "2", "Caught in run 1, fl oz": "43.56"}
        emptying = {"Poured in": "2", **paced, "Empty after, in run 1, s": "240"}
        for method, typed in (("strip", strip), ("flow", flow), ("catch", catch), ("emptying", emptying)):
            kept = self.work(self.sprayer, method, typed)
            self.assertAlmostEqual((kept.rate or 0) / 0.0407458, 1, places=4, msg=method)  # 1 gal/1000 ft² in L/m²
        checked = self.work(self.sprayer, "tips", {"Caught for, s": "60", "Caught by tip, from the left": "40 41 40"})
        self.assertIsNone(checked.rate)

    def test_the_hose(self) -> None:
        self.set(self.sprayer, form="hose_end")
        self.work(
            self.sprayer,
            "dial",
            {
                "The dial sets": "1",
                "in each": "1",
                "The bucket holds": "5",
                "Full after, s": "60",
                "Area sprayed": "2000",
                "It took, s": "120",
            },
        )

    def test_the_dry_ones(self) -> None:
        product = {"Product=": "Test 20"}
        weighed = self.work(
            self.spreader,
            "weight",
            {**product, "Setting": "5", "Length walked": "100", "Width of a pass": "10", "Put down in run 1, lb": "1"},
        )
        self.assertEqual((weighed.setting, weighed.product and weighed.product.name), (5, "Test 20-0-10"))
        caught = self.work(
            self.spreader,
            "tray",
            {**product, "Setting": "4", "Length pushed": "20", "Width of the spreader": "2", "Caught in run 1, lb": "0.1"},
        )
        self.assertEqual(caught.setting, 4)
        pans = {**product, "Pans apart, middle to middle": "2", "Caught by pan, from the left": PANS}
        self.assertAlmostEqual(self.work(self.spreader, "pans", pans).swath or 0, 16 * 0.3048)


class OnThePhone(KitTest):
    def setUp(self) -> None:
        super().setUp()
        self.page.set_viewport_size(PHONE)

    def test_a_bench_is_worked_and_kept_with_a_thumb(self) -> None:
        self.at(self.sprayer, "/calibrate?bench=strip")
        self.fill("Length of the strip", "100")
        self.fill("Swath", "10")
        self.pick("Measured in", "gal")
        self.fill("Used in run 1, gal", "1")
        expect(self.answer()).to_contain_text("1 gal/1000 ft²")
        small = self.page.evaluate("""() => [...document.querySelectorAll('main button, main input')]
            .filter(e => !e.matches('[data-term]'))
            .filter(e => e.offsetParent && e.type !== 'checkbox' && e.getBoundingClientRect().height < 44)
            .map(e => e.innerText || e.name)""")
        self.assertEqual(small, [])
        self.button("Keep it and use it").click()
        self.says("Sprayer puts down 1 gal/1000 ft²")

    def test_the_beat_is_walked_to_and_the_marks_are_pressed(self) -> None:
        """0.5 gal/min over 5 ft at 1 gal/1000 ft²: 100 ft/min, a 10 ft mark every 6 s (arithmetic)."""
        self.at(self.sprayer, "/pace")
        self.fill("Flow in a minute", "0.5")
        self.fill("Swath", "5")
        self.fill("Marks apart", "1")
        self.says("a mark every 0.6 s")
        self.button("Start the beat").click()
        for n in (1, 2, 3):
            self.page.wait_for_timeout(500)
            self.button("At a mark").click()
            expect(self.page.locator("[data-answer=walked]")).to_contain_text(f"{n} stretch")
        self.button("Stop the beat").click()
        expect(self.page.locator("[data-beat=off]")).to_be_visible()
        self.assertEqual(len(self.page.get_by_role("textbox", name="Time of each stretch, s").input_value().split()), 3)
        self.fill("Time of each stretch, s", "6 6.3 6.6 7")
        expect(self.page.get_by_text("Tired.")).to_be_visible()


class InUse(KitTest):
    def test_leaving_a_calibration_out_and_its_undo(self) -> None:
        Calibration.objects.create(
            machine=self.sprayer, method="strip", taken_on=today(self.account), rate=0.0814916, trust="agree"
        )
        self.at(self.sprayer)
        self.says("2 gal/1000 ft²")
        self.page.get_by_role("button", name=re.compile("^Do not use: strip test")).click()
        self.says("1 gal/1000 ft² in a pass: typed, not measured")
        self.button("Undo").click()
        self.says("2 gal/1000 ft²")

    def test_the_card_holds_nozzle_and_swath_and_another_tip_is_said(self) -> None:
        self.at(self.sprayer, "/change")
        self.pick("Built as", "Walking boom")
        self.fill("Swath", "10")
        self.pick("Size of the tips", "04 red")
        self.fill("How many tips", "six")
        self.fill("Working pressure", "40")
        self.button("Save the changes").click()
        self.says("to put it down with")
        Calibration.objects.create(
            machine=self.sprayer, method="strip", taken_on=today(self.account), rate=0.04, trust="agree", nozzle="6 × 03 blue"
        )
        self.account.touch()
        self.at(self.sprayer)
        expect(self.page.get_by_text("6 × 04 red").first).to_be_visible()
        expect(self.page.locator("[data-finding=other-nozzle]")).to_contain_text("6 × 03 blue")

    def test_a_nozzle_card_and_its_droplets(self) -> None:
        """ISO 10625 size 04: 1.6 L/min at 3 bar, 0.4227 gal/min."""
        self.at(self.sprayer, "/nozzle")
        self.pick("Size of the tips", "04 red")
        expect(self.page.locator("[data-answer=nozzle]")).to_have_text("0.4227 gal/min")
        expect(self.page.locator("[data-answer=droplets]")).to_contain_text("Medium.")
        self.pick("It works", "In the soil")
        expect(self.page.locator("[data-answer=droplets]")).to_contain_text("Coarse")

    def test_the_tank_is_cleaned_step_by_step(self) -> None:
        found = Round.objects.create(
            account=self.account,
            key="8c0f9a52-6c5c-4f0f-9a0e-2f5f0a2f1a11",
            machine=self.sprayer,
            sheet={},
            status="done",
            ended_at=timezone.now(),
            started_by=User.objects.get(username="manager-alder"),
            started_at=timezone.now() - timedelta(hours=2),
            at=timezone.now() - timedelta(hours=2),
        )
        found.mix.create(position=0, product=self.account.products.get(name="Test SC"), amount_value=4, amount_unit="fl_oz")
        self.account.touch()
        self.at(self.sprayer, "/clean")
        self.says("Last in it: Test SC (fungicide)")
        boxes = self.page.locator("label:has(input[type=checkbox])")
        expect(boxes).to_have_count(2)
        boxes.nth(0).click()
        self.button("Note the cleaning").click()
        self.says("one step of cleaning is still to do")
        self.button("Undo").click()
        self.says("2 steps of cleaning are still to do")
        found.delete()


class FinishTeaches(KitTest):
    def test_spray_really_used_is_taken_over(self) -> None:
        """7.7 gal on 7,000 ft² are 1.1 gal/1000 ft² (arithmetic)."""
        self.pick_spray()
        self.button("Start the round").click()
        self.page.wait_for_url("**/round/*")
        self.page.get_by_role("textbox", name="Spray put down").fill("7.7 gal")
        expect(self.page.get_by_text("1.1 gal/1000 ft² in a pass, +10 %")).to_be_visible()
        self.page.get_by_text("Take this as its output from now on").click()
        self.button("Put it in the book").click()
        self.page.wait_for_url("**/book/*")
        self.at(self.sprayer)
        self.says("1.1 gal/1000 ft² in a pass: a finished round")


class OwnVessels(KitTest):
    def test_kept_checked_measured_with_and_retired(self) -> None:
        """431.23 g of water at 20 °C are 432 mL (998.2 g/L): a mark of 400 mL is 8 % out; 216 mL are at its 200."""
        self.go("kit")
        self.page.get_by_role("link", name="Add a vessel").click()
        self.fill("Name", "Blue jug")
        self.pick("What it is", "Jug")
        self.fill("Holds", "500")
        self.fill("Between two marks", "600")
        self.button("Add the vessel").click()
        expect(self.page.get_by_text("is more than the 500 mL it holds").first).to_be_visible()
        self.fill("Between two marks", "10")
        self.button("Add the vessel").click()
        self.page.get_by_role("link", name="Blue jug").click()
        self.fill("The mark says", "400")
        self.fill("Its water weighs", "431.23")
        self.button("Keep this check").click()
        self.says("they hold +8 %")
        self.go("reckon/measure")
        self.fill("Dose", "216 mL")
        self.says("200 mL by the marks of Blue jug")
        self.go("kit")
        self.page.get_by_role("link", name="Blue jug").click()
        self.button("Put the vessel away").click()
        expect(self.page.get_by_text("Retired: Blue jug")).to_be_visible()
        self.page.get_by_role("link", name="Blue jug").click()
        self.button("Put it back").click()
        expect(self.page.get_by_role("cell", name="Blue jug")).to_be_visible()
