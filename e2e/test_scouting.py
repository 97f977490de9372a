"""Scouting in the interface: photographs brought and taken, spots on the plan, before and after, colours, reports."""

import io
import re
from datetime import timedelta

from PIL import Image
from playwright.sync_api import expect

from e2e.base import PHONE, WIDE, BrowserTest
from greenmeasure.common import clock
from greenmeasure.ground.actions import add_measurement
from greenmeasure.ground.models import Area
from greenmeasure.ground.schemas import MeasurementIn
from greenmeasure.scouting.actions import add_photo, save_spot
from greenmeasure.scouting.models import Photo, Scouting, Spot
from greenmeasure.scouting.schemas import PhotoIn, SpotIn
from greenmeasure.tests.base import make_account


def file(name: str, colour: tuple[int, int, int] | None = (60, 110, 40)) -> dict[str, object]:
    """A picture of one colour, or one that is none."""
    out = io.BytesIO(b"" if colour else b"no picture")
    if colour:
        Image.new("RGB", (640, 480), colour).save(out, "JPEG")
    return {"name": name, "mimeType": "image/jpeg", "buffer": out.getvalue()}


class Scouted(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.account = make_account("alder")
        self.let_in()
        self.area = Area.objects.get()
        self.user = self.account.memberships.get(role="manager").user

    def open(self, more: str = "") -> None:
        self.go(f"ground/{self.area.pk}/seen{more}")
        expect(self.sentence()).to_be_visible()

    def shot(self, colour: tuple[int, int, int], days: int, **told: object) -> Photo:
        """A photograph of some days ago."""
        data = file("a.jpg", colour)["buffer"]
        assert isinstance(data, bytes)
        on = clock.today(self.area) - timedelta(days=days)
        return add_photo(self.account, self.user, self.area, "a.jpg", data, PhotoIn(on=on, clock="07:00", **told))

    def test_several_are_brought_at_once_and_one_that_is_none_says_so(self) -> None:
        for size in (WIDE, PHONE):
            self.page.set_viewport_size(size)
            Photo.objects.all().delete()
            Spot.objects.all().delete()
            self.account.touch()
            self.open()
            expect(self.page.get_by_text("Nothing is noted of North green yet.", exact=False)).to_be_visible()
            self.button("Photograph it").click()
            self.pick("Of which spot", "Another spot")
            self.fill("Name of the spot", "By the third post")
            self.button("Keep the spot").click()
            expect(self.page.get_by_role("button", name="By the third post Of which spot")).to_be_visible()
            self.pick("Light", "Cloud")
            files = [file("one.jpg"), file("two.jpg", (90, 120, 50)), file("none.jpg", None)]
            self.page.locator("input[type=file]").set_input_files(files)
            expect(self.page.get_by_text("kept", exact=True)).to_have_count(2)
            expect(self.page.get_by_text("“none.jpg” is no photograph that can be read.")).to_be_visible()
            expect(self.button("Try again")).to_be_visible()
            self.button("Done").click()
            strip = self.page.get_by_role("list", name="By the third post over the season")
            expect(strip.get_by_role("listitem")).to_have_count(2)
            expect(strip.get_by_text("Cloud")).to_have_count(2)
            self.assertLessEqual(self.evaluate("() => document.documentElement.scrollWidth"), size["width"])
        self.assertEqual({p.spot.name for p in Photo.objects.all() if p.spot}, {"By the third post"})

    def test_without_a_signal_it_is_kept_on_the_screen_and_tried_again(self) -> None:
        self.open()
        self.button("Photograph it").click()
        self.context.set_offline(True)
        self.page.locator("input[type=file]").set_input_files([file("one.jpg")])
        expect(self.page.get_by_text("No connection.", exact=False).first).to_be_visible()
        self.context.set_offline(False)
        self.button("Try again").click()
        expect(self.page.get_by_text("kept", exact=True)).to_be_visible()
        self.assertEqual(Photo.objects.count(), 1)

    def test_the_camera_shows_the_last_picture_faint_over_it(self) -> None:
        """The browser's own made-up camera stands in for one."""
        spot = save_spot(self.account, self.area, SpotIn(name="Post"))
        self.shot((60, 110, 40), 8, spot_id=spot.pk)
        self.context.grant_permissions(["camera"], origin=self.live_server_url)
        self.addCleanup(self.context.clear_permissions)
        self.open()
        self.button("Photograph it").click()
        self.button("Use the camera here").click()
        expect(self.page.get_by_alt_text("The last picture of this spot, faint")).to_be_visible()
        take = self.button("Take the photograph")
        expect(take).to_be_enabled()
        take.click()
        expect(self.page.get_by_text("kept", exact=True)).to_be_visible()
        self.button("Close the camera").click()
        self.button("Done").click()
        expect(self.page.get_by_role("list", name="Post over the season").get_by_role("listitem")).to_have_count(2)
        self.assertTrue(all(p.spot_id == spot.pk for p in Photo.objects.all()))

    def test_where_there_is_no_camera_it_says_what_to_do(self) -> None:
        self.page.add_init_script("navigator.mediaDevices.getUserMedia = () => Promise.reject(new Error('none'))")
        self.open()
        self.button("Photograph it").click()
        self.button("Use the camera here").click()
        expect(self.page.get_by_text("The camera cannot be used here", exact=False)).to_be_visible()
        self.button("Choose photographs").click()
        expect(self.button("Use the camera here")).to_be_visible()

    def test_before_and_after_by_a_slider_with_what_is_to_be_doubted(self) -> None:
        spot = save_spot(self.account, self.area, SpotIn(name="Post"))
        self.shot((60, 110, 40), 14, spot_id=spot.pk, light="sun", mown="fresh")
        self.shot((90, 120, 50), 2, spot_id=spot.pk, light="cloud", mown="fresh")
        self.open()
        self.page.get_by_role("link", name="Compare the last two of Post").click()
        expect(self.sentence()).to_have_text("Post: 12 days apart.")
        expect(self.page.get_by_text("Sun then, cloud now: colours do not compare.")).to_be_visible()
        slider = self.page.get_by_role("slider", name="How much of the older picture shows, in %")
        over = self.page.get_by_alt_text(re.compile("^Before: "))
        self.assertIn("50%", over.evaluate("e => e.style.clipPath"))
        slider.focus()
        self.page.keyboard.press("ArrowRight")
        self.assertIn("49%", over.evaluate("e => e.style.clipPath"))
        self.page.keyboard.press("Home")
        self.assertIn("100%", over.evaluate("e => e.style.clipPath"))

    def test_a_photograph_is_put_right_its_colours_read_and_it_is_removed(self) -> None:
        """The dark green index of the pixel 60, 110, 40 is 0.549 (Karcher & Richardson 2003), within what a JPEG changes."""
        made = self.shot((60, 110, 40), 2)
        self.open(f"/{made.pk}")
        self.button("Read its colours").click()
        expect(self.page.get_by_text(re.compile(r"^0\.5[45]\d of 1$"))).to_be_visible()
        expect(self.page.get_by_text("100 % of the picture")).to_be_visible()
        expect(self.page.get_by_alt_text("The picture, faded where it is no green turf")).to_be_visible()
        self.pick("Mowing", "Just mown")
        self.fill("Note", "Dew on it")
        self.button("Save").click()
        expect(self.page.get_by_text("Just mown. Dew on it")).to_be_visible()
        self.button("Remove the photograph").click()
        self.button("Remove it for good").click()
        self.page.wait_for_url("**/seen")
        expect(self.page.get_by_text("Nothing is noted of North green yet.", exact=False)).to_be_visible()
        self.assertEqual(Photo.objects.count(), 0)
        self.open(f"/{made.pk}")
        expect(self.sentence()).to_have_text("That photograph is not there.")

    def test_anything_can_be_noted_and_struck_with_a_reason(self) -> None:
        self.open()
        self.button("Note what was seen").click()
        self.pick("Looked for", "Insect")
        self.button("Note what was found").click()
        expect(self.page.get_by_text("“” is no insect known here.", exact=False).first).to_be_visible()
        self.pick("Which", "White grubs")
        self.fill("Count in 1 ft²", "8")
        self.pick("How sure", "Likely")
        self.pick("Named by", "An adviser")
        self.button("Note what was found").click()
        expect(self.page.get_by_text("▲ White grubs seen, 8 in a square foot")).to_be_visible()
        expect(self.page.get_by_text("named by an adviser and likely")).to_be_visible()
        self.page.get_by_role("button", name=re.compile("^Strike: White grubs")).click()
        self.fill("Why it is struck", "It was the other green.")
        self.button("Strike it").click()
        expect(self.page.get_by_text("Struck by Manager alder: It was the other green.")).to_be_visible()
        self.assertEqual(Scouting.objects.filter(struck_at=None).count(), 0)

    def test_a_patch_is_marked_on_the_plan(self) -> None:
        taken = MeasurementIn(method="rectangle", values={"length": 100, "width": 70}, taken_on=clock.today(self.area), use=True)
        add_measurement(self.area, taken, self.user)
        self.open()
        self.button("Note what was seen").click()
        self.pick("Looked for", "Damage")
        self.page.get_by_role("img", name="The plan, to mark the patch on").click()
        expect(self.page.get_by_role("img", name="The plan, with the patch on it")).to_be_visible()
        self.fill("Across", "20")
        self.button("Note what was found").click()
        expect(self.page.get_by_text("Damage seen, 20 ft across", exact=True)).to_be_visible()
        expect(self.page.get_by_role("img", name="Plan with the fixed spots and what was seen")).to_be_visible()

    def test_what_it_is_easily_taken_for_is_told(self) -> None:
        self.open()
        self.button("Note what was seen").click()
        self.pick("Which", "Dollar spot")
        expect(self.page.get_by_text("pythium turns blades greasy", exact=False)).to_be_visible()

    def test_a_viewer_looks_only(self) -> None:
        self.shot((60, 110, 40), 2)
        self.let_in("viewer")
        self.open()
        expect(self.page.get_by_role("list", name="Photographs of no fixed spot")).to_be_visible()
        expect(self.button("Photograph it")).to_have_count(0)

    def test_pictures_stand_in_the_area_s_story(self) -> None:
        made = self.shot((60, 110, 40), 2)
        self.go(f"ground/{self.area.pk}")
        event = self.page.locator("tr[data-event^=photos]")
        expect(event).to_contain_text("A photograph")
        event.get_by_role("link", name="Photograph 1 of 1").click()
        self.page.wait_for_url(f"**/seen/{made.pk}")
