"""A trial from the first question to what it shows, at desk and phone width."""

from playwright.sync_api import expect

from e2e.base import PHONE, WIDE, BrowserTest
from greenmeasure.ground.actions import save_area
from greenmeasure.ground.models import Area
from greenmeasure.ground.schemas import AreaIn
from greenmeasure.tests.base import make_account
from greenmeasure.trials.models import Plot, Trial

LAWN = {
    "name": "Long lawn",
    "grass": "creeping_bentgrass",
    "measure": {"method": "rectangle", "unit": "ft", "values": {"length": "120", "width": "60"}},
}


class Trials(BrowserTest):
    """An account with a lawn of 120 ft by 60 ft that has an outline."""

    def setUp(self) -> None:
        super().setUp()
        account = make_account("alder")
        save_area(account, AreaIn(**LAWN))
        self.let_in()

    def begin(self) -> Trial:
        """From the list of trials through the wizard."""
        self.go("book/trials")
        self.says("No trial yet.")
        self.page.get_by_role("link", name="Begin a trial").click()
        self.fill("Name", "Does feed show?")
        self.pick("On", "Long lawn")
        self.pick("Product", "Test 20-0-10")
        self.fill("How it is put down", "0.5 lb N on 1,000 ft², once")
        self.fill("Times each", "4")
        self.says("Untreated and Test 20-0-10, 4 times each: 8 plots of 900 ft², 15 ft wide.")
        expect(self.page.get_by_text("four times out of five")).to_be_visible()
        self.pick("Scored", "Colour")
        self.settle()
        self.button("Begin the trial").click()
        self.page.wait_for_url("**/book/trials/*")
        self.says("Does feed show? Day 0. Nothing is scored yet.")
        return Trial.objects.get()

    def score(self, trial: Trial) -> None:
        """Score all plots: the fed ones two marks up, give or take a half."""
        self.button("Score the plots").click()
        expect(self.page.get_by_text("Blind: numbers alone")).to_be_visible()
        expect(self.page.get_by_role("img", name="Plots by their numbers")).not_to_contain_text("A")
        for p in Plot.objects.filter(treatment__trial=trial).select_related("treatment"):
            self.fill(f"Plot {p.number}", f"{5 + 2 * p.treatment.position + (p.block % 2) * p.treatment.position / 2}")
        self.button("Keep the scores").click()
        self.says("A difference is shown: Test 20-0-10 2.25 marks more than untreated.")

    def test_from_the_question_to_what_it_shows(self) -> None:
        """7 and 7.5 against 5 over four blocks: 2.25 marks more (by hand)."""
        for size in (WIDE, PHONE):
            self.page.set_viewport_size(size)
            Trial.objects.all().delete()
            Area.objects.exclude(parent=None).delete()
            trial = self.begin()
            self.go("today")
            self.page.get_by_role("link", name="Does feed show? Day 0").click()
            self.score(trial)
            wide = self.page.evaluate("() => document.documentElement.scrollWidth")
            self.assertLessEqual(wide, size["width"])

    def test_its_product_is_reckoned_for_its_plots_and_the_map_is_on_the_sheet(self) -> None:
        self.begin()
        self.page.get_by_role("link", name="Reckon it").click()
        self.says("Test 20-0-10")
        self.says("Long lawn: Test 20-0-10")
        self.pick("Machine", "Spreader")
        self.settle()
        self.button("Start the round").click()
        self.page.wait_for_url("**/round/*")
        expect(self.page.get_by_role("heading", name="Plots of the trial Does feed show?")).to_be_visible()
        expect(self.page.get_by_text("Mark their corners first.").first).to_be_visible()

    def test_it_is_ended_and_taken_up_again(self) -> None:
        trial = self.begin()
        self.button("Change name or days").click()
        self.fill("On days", "soon")
        self.button("Keep it").click()
        expect(self.page.get_by_text("are no days")).to_be_visible()
        self.fill("On days", "0, 3")
        self.button("Keep it").click()
        expect(self.page.get_by_text("0, 3", exact=True)).to_be_visible()
        self.button("End it").click()
        self.says("Ended on")
        self.button("Take it up again").click()
        self.says("Day 0")
        self.button("Begun by mistake").click()
        self.says("No trial yet.")
        self.assertFalse(Trial.objects.filter(pk=trial.pk, archived_at=None).exists())

    def test_ground_without_an_outline_says_what_to_do(self) -> None:
        self.go("book/trials/new")
        self.pick("On", "North green")
        expect(self.page.get_by_text("North green has no outline to cut.")).to_be_visible()
        self.page.reload()
        expect(self.page.get_by_role("button", name="North green On")).to_be_visible()  # what was typed is kept
