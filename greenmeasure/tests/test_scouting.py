"""What is seen on the ground: reports of anything, fixed spots, photographs and what they say of colour."""

import io
import json
import zipfile
from datetime import UTC, datetime
from hashlib import sha256
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest.mock import patch

from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import CommandError, call_command
from django.test import TestCase, TransactionTestCase
from PIL import Image

from greenmeasure.accounts.models import Account, Membership
from greenmeasure.archive import reading, writing
from greenmeasure.common import backup, pictures
from greenmeasure.ground.actions import save_area
from greenmeasure.ground.models import Area
from greenmeasure.ground.schemas import AreaIn
from greenmeasure.scouting.models import Photo, Scouting, Spot
from greenmeasure.tests.base import AREA, ApiTest, make_account
from greenmeasure.tests.demo import load_demo

NOW = datetime(2026, 8, 12, 10, tzinfo=UTC)
IFD, GPS, SHOT_AT = 0x8769, 0x8825, 0x9003


def make_area(account: Account) -> Area:
    """Another area of an account."""
    return save_area(account, AreaIn(**AREA | {"name": "South green"}))


def photograph(colour: tuple[int, int, int] = (60, 110, 40), size: tuple[int, int] = (400, 300), at: str = "") -> bytes:
    """A picture of one colour with a place in it, and an hour."""
    exif = Image.Exif()
    exif.get_ifd(GPS)[2] = (52.0, 30.0, 0.0)
    if at:
        exif.get_ifd(IFD)[SHOT_AT] = at
    out = io.BytesIO()
    Image.new("RGB", size, colour).save(out, "JPEG", exif=exif, quality=95)
    return out.getvalue()


def send(test: ApiTest, data: bytes, expect: int = 201, area: int = 0, name: str = "a.jpg", **told: object) -> dict[str, object]:
    """Bring a photograph in, as a form does."""
    at = f"/api/accounts/alder/areas/{area or test.area.pk}/photos"
    answer = test.client.post(at, {"file": SimpleUploadedFile(name, data, "image/jpeg"), **told})
    test.assertEqual(answer.status_code, expect, answer.content[:300])
    found: dict[str, object] = json.loads(answer.content)
    return found


class Reports(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        clock = patch("greenmeasure.common.clock.now", return_value=NOW)
        clock.start()
        self.addCleanup(clock.stop)

    def report(self, expect: int = 201, **told: object) -> dict[str, object]:
        found: dict[str, object] = self.ask("POST", "scouting", {"area_id": self.area.pk, "on": "2026-08-10"} | told, expect)
        return found

    def test_every_kind_can_be_noted(self) -> None:
        """Numbers are those that were sent; 8 in a square foot stay 8 for who counts in feet."""
        for told, text in (
            ({"kind": "disease", "what": "dollar_spot", "severity": "4", "where": "north"}, "Dollar spot seen on 4 %, north"),
            ({"kind": "weed", "what": "moss", "seen": False}, "No moss seen"),
            ({"kind": "insect", "what": "white_grubs", "score": "8"}, "White grubs seen, 8 in a square foot"),
            ({"kind": "quality", "score": 6.5}, "Quality as a whole, 6.5 of 9"),
            ({"kind": "compaction", "score": 3}, "Compaction, a probe goes in with force"),
            ({"kind": "damage", "what": "Tyre marks", "severity": 2}, "Tyre marks seen on 2 %"),
        ):
            with self.subTest(text):
                self.assertEqual(self.report(**told)["text"], text)
        lines = self.ask("GET", f"areas/{self.area.pk}/story")["events"]
        self.assertEqual({e["kind"] for e in lines}, {"scouting"})
        self.assertEqual(len(lines), 6)

    def test_a_patch_on_the_plan_has_a_place_and_a_size(self) -> None:
        """20 ft are 6.096 m (international foot)."""
        patch_ = {"x": 12.5, "y": 8.0, "across": {"value": "20", "unit": "ft"}}
        made = self.report(kind="damage", what="Tyre marks", **patch_)
        self.assertEqual((made["x"], made["text"]), (12.5, "Tyre marks seen, 20 ft across"))
        self.assertAlmostEqual(float(str(made["across"])), 6.096)
        body = {"area_id": self.area.pk, "on": "2026-08-10", "kind": "damage"}
        for wrong in ({"across": patch_["across"]}, patch_ | {"across": {"value": "9", "unit": "mile"}}):
            self.assertEqual(list(self.faults("POST", "scouting", body | wrong)), ["across"])
        bare = self.report(kind="damage", x=1.0, y=2.0, across={"value": "", "unit": "ft"})
        self.assertEqual((bare["y"], bare["across"]), (2.0, None))

    def test_who_named_it_and_how_sure(self) -> None:
        made = self.report(kind="disease", what="rust", sure="likely", named_by="laboratory")
        self.assertEqual(made["named"], "named by a laboratory and likely")

    def test_bad_reports_name_every_field_at_once(self) -> None:
        wrong = {"kind": "quality", "score": "12", "severity": 3, "sure": "perhaps", "named_by": "crow", "on": "2026-08-13"}
        body = {"area_id": self.area.pk, "spot_id": 99} | wrong
        found = set(self.faults("POST", "scouting", body))
        self.assertEqual(found, {"score", "severity", "sure", "named_by", "on", "spot_id"})
        self.assertEqual(Scouting.objects.count(), 0)

    def test_only_what_stands_counts_and_the_struck_one_stays_readable(self) -> None:
        made = self.report(kind="disease", what="dollar_spot")
        self.faults("POST", f"scouting/{made['id']}/strike", {"why": " "})
        self.ask("POST", f"scouting/{made['id']}/strike", {"why": "the other green"})
        self.ask("POST", f"scouting/{made['id']}/strike", {"why": "again"}, 409)
        event = self.ask("GET", f"areas/{self.area.pk}/story")["events"][0]
        self.assertIn("the other green", event["struck"])
        self.assertEqual(self.ask("GET", f"areas/{self.area.pk}/eyes")["reports"][0]["struck"], event["struck"])

    def test_what_is_mistaken_for_it_is_told_with_how_to_tell(self) -> None:
        looks = self.ask("GET", "scouting/kinds")["looks"]
        spot = next(t for t in looks[0]["targets"] if t["key"] == "dollar_spot")
        self.assertEqual({u["name"] for u in spot["unlike"]}, {"Brown patch", "Pythium blight"})
        self.assertEqual(next(x for x in looks if x["key"] == "insect")["scale"]["per"], "ft²")


class Spots(ApiTest):
    def test_a_spot_has_a_name_of_its_own_on_its_area(self) -> None:
        """The place is the one that was sent, by hand."""
        at = f"areas/{self.area.pk}/spots"
        made = self.ask("POST", at, {"name": " By the  third post ", "x": 2.5, "y": 3}, 201)
        self.assertEqual((made["name"], made["x"]), ("By the third post", 2.5))
        self.assertIn("name", self.faults("POST", at, {"name": "by the THIRD post"}))
        self.assertIn("name", self.faults("POST", at, {"name": " "}))
        changed = self.ask("PUT", f"{at}/{made['id']}", {"name": "By the fourth", "version": made["version"]})
        self.assertEqual(changed["name"], "By the fourth")
        self.ask("PUT", f"{at}/{made['id']}", {"name": "Late", "version": made["version"]}, 409)
        self.ask("DELETE", f"{at}/{made['id']}", expect=204)
        self.assertEqual(self.ask("GET", f"areas/{self.area.pk}/eyes")["spots"], [])
        self.assertEqual(Spot.objects.count(), 1)

    def test_a_spot_of_another_area_is_refused(self) -> None:
        other = make_area(self.account)
        spot = self.ask("POST", f"areas/{other.pk}/spots", {"name": "Gate"}, 201)
        self.assertIn(
            "spot_id",
            self.faults("POST", "scouting", {"area_id": self.area.pk, "on": "2026-01-02", "what": "rust", "spot_id": spot["id"]}),
        )
        send(self, photograph((1, 90, 3)), 422, spot_id=spot["id"])


class Photographs(ApiTest):
    def setUp(self) -> None:
        super().setUp()
        clock = patch("greenmeasure.common.clock.now", return_value=NOW)
        clock.start()
        self.addCleanup(clock.stop)

    def test_its_place_goes_and_its_hour_stays(self) -> None:
        """Sized to 2400 pixels on the longer side, as the house keeps pictures."""
        made = send(self, photograph(size=(3000, 1500), at="2026:08:03 06:55:10"))
        self.assertEqual((made["on"], made["clock"], made["width"], made["height"]), ("2026-08-03", "06:55", 2400, 1200))
        answer = self.client.get(f"/api/accounts/alder/photos/{made['id']}/picture")
        with Image.open(io.BytesIO(answer.content)) as kept:
            self.assertEqual((kept.size, dict(kept.getexif())), ((2400, 1200), {}))
        self.assertIn("private", answer["Cache-Control"])
        small = self.client.get(f"/api/accounts/alder/photos/{made['id']}/picture?small=true")
        with Image.open(io.BytesIO(small.content)) as less:
            self.assertEqual(less.size, (pictures.SMALL, pictures.SMALL // 2))

    def test_without_a_camera_s_hour_it_is_of_now_and_one_of_tomorrow_is_not_believed(self) -> None:
        made = send(self, photograph((61, 111, 41)))
        self.assertEqual(str(made["on"]), "2026-08-12")
        late = send(self, photograph((62, 111, 41), at="2031:01:01 10:00:00"))
        self.assertEqual(str(late["on"]), "2026-08-12")
        none = send(self, photograph((63, 111, 41), at="0000:00:00 00:00:00"))
        self.assertEqual(str(none["on"]), "2026-08-12")

    def test_a_day_that_is_told_goes_before_the_camera(self) -> None:
        made = send(self, photograph((64, 111, 41), at="2026:08:03 06:55:10"), on="2026-07-20", clock="06:20")
        self.assertEqual((made["on"], made["clock"]), ("2026-07-20", "06:20"))
        fields = send(self, photograph((65, 111, 41)), 422, on="2026-08-20")["fields"]
        assert isinstance(fields, list)
        self.assertEqual([f["field"] for f in fields], ["on"])

    def test_the_same_picture_is_kept_once(self) -> None:
        first, again = send(self, photograph((66, 111, 41))), send(self, photograph((66, 111, 41)))
        self.assertEqual(first["id"], again["id"])
        other = make_area(self.account)
        send(self, photograph((66, 111, 41)), area=other.pk)
        self.assertEqual((Photo.objects.count(), Photo.objects.values("sha").distinct().count()), (2, 1))

    def test_what_is_none_or_too_large_is_told_and_keeps_nothing(self) -> None:
        bomb = io.BytesIO()
        Image.new("1", (13_000, 13_000)).save(bomb, "PNG")
        for data, said in (
            (b"GIF89a and more", "no photograph"),
            (photograph((67, 111, 41))[:600], "no photograph"),
            (bomb.getvalue(), "pixels are too many"),
            (b"\xff\xd8" + bytes(12_000_001), "MB is too large"),
            (b"", "no photograph"),
        ):
            with self.subTest(said):
                answer = send(self, data, 422, name="thing.jpg")
                fields = answer["fields"]
                assert isinstance(fields, list)
                self.assertEqual(fields[0]["field"], "file")
                self.assertIn(said, fields[0]["problem"])
        self.assertEqual(Photo.objects.count(), 0)

    def test_what_is_noted_of_it_is_changed_from_its_version(self) -> None:
        made = send(self, photograph((68, 111, 41)))
        at = f"photos/{made['id']}"
        changed = self.ask("PUT", at, {"light": "sun", "mown": "fresh", "note": "Dew", "version": made["version"]})
        self.assertEqual(changed["text"], "Sun, just mown. Dew")
        self.ask("PUT", at, {"light": "cloud", "version": made["version"]}, 409)
        self.assertIn("light", self.faults("PUT", at, {"light": "moon", "version": 2}))

    def test_two_beside_each_other_say_what_makes_them_hard_to_compare(self) -> None:
        spot = self.ask("POST", f"areas/{self.area.pk}/spots", {"name": "Post"}, 201)["id"]
        a = send(self, photograph((69, 111, 41), at="2026:08:11 07:00:00"), spot_id=spot, light="cloud", mown="fresh")
        b = send(self, photograph((70, 111, 41), at="2026:08:03 07:00:00"), spot_id=spot, light="sun", mown="fresh")
        found = self.ask("GET", f"photos/pair?a={a['id']}&b={b['id']}")
        self.assertEqual((found["then"]["id"], found["now"]["id"], found["apart"]), (b["id"], a["id"], "8 days"))
        self.assertEqual(found["doubts"], ["Sun then, cloud now: colours do not compare."])

    def test_colours_come_with_their_mask_their_doubts_and_their_sources(self) -> None:
        """Karcher & Richardson 2003: 0.5488 for a pixel of 60, 110, 40, within what a JPEG changes."""
        made = send(self, photograph())
        said = self.ask("GET", f"photos/{made['id']}/colour")
        facts = {f["name"]: f["text"] for f in said["facts"]}
        self.assertEqual(facts["Green turf"], "100 % of the picture")
        self.assertAlmostEqual(float(facts["Dark green colour index"].split()[0]), 0.5488, delta=0.01)
        self.assertEqual(said["doubts"], [])
        soil = send(self, photograph((120, 80, 60)))
        self.assertIn("Hardly anything", self.ask("GET", f"photos/{soil['id']}/colour")["doubts"][0])
        mask = self.client.get(f"/api/accounts/alder/photos/{soil['id']}/mask")
        with Image.open(io.BytesIO(mask.content)) as shaded:
            pixel = shaded.convert("RGB").getpixel((10, 10))
        assert isinstance(pixel, tuple)
        self.assertGreater(min(pixel), 150, "what is no turf is faded")

    def test_a_lost_file_is_told_and_the_page_still_comes(self) -> None:
        made = send(self, photograph((71, 111, 41)))
        pictures.drop(Photo.objects.get().sha)
        self.ask("GET", f"photos/{made['id']}/colour", expect=404)
        self.ask("GET", f"photos/{made['id']}/picture", expect=404)
        self.assertEqual(len(self.ask("GET", f"areas/{self.area.pk}/eyes")["photos"]), 1)

    def test_a_viewer_looks_and_does_not_bring(self) -> None:
        made = send(self, photograph((72, 111, 41)))
        self.sign_in("viewer")
        self.assertEqual(self.client.get(f"/api/accounts/alder/photos/{made['id']}/picture").status_code, 200)
        send(self, photograph((73, 111, 41)), 403)

    def test_another_account_s_is_not_there(self) -> None:
        made = send(self, photograph((74, 111, 41)))
        make_account("birch")
        self.sign_in("manager", "birch")
        for what in ("picture", "mask", "colour"):
            answer = self.client.get(f"/api/accounts/birch/photos/{made['id']}/{what}")
            self.assertEqual(answer.status_code, 404)


class Files(TransactionTestCase):
    """Files beside the database: taken along, backed up, put back, and gone with the last row."""

    def setUp(self) -> None:
        held = TemporaryDirectory()
        self.addCleanup(held.cleanup)
        self.folder = Path(held.name)
        whole = patch.object(pictures, "folder", return_value=self.folder / "pictures")
        whole.start()
        self.addCleanup(whole.stop)

    def kept(self, account: Account, colour: tuple[int, int, int]) -> Photo:
        sha = pictures.store(photograph(colour))
        area = account.areas.all()[0]
        return Photo.objects.create(
            account=account, area=area, sha=sha, width=400, height=300, taken_at=NOW, by="Ann", noted_at=NOW
        )

    def test_the_file_goes_with_the_last_photograph_that_shows_it(self) -> None:
        from greenmeasure.scouting.actions import remove_photo

        account = make_account("alder")
        one, two = self.kept(account, (90, 111, 41)), self.kept(account, (90, 111, 41))
        remove_photo(account, one)
        self.assertTrue(pictures.file_of(two.sha).exists())
        remove_photo(account, two)
        self.assertEqual(list(self.folder.rglob("*.jpg")), [])

    def test_an_archive_brings_them_along_and_a_changed_one_is_refused(self) -> None:
        account = make_account("alder")
        sha = self.kept(account, (91, 111, 41)).sha
        packed = io.BytesIO()
        writing.write(account, packed)
        whole = pictures.file_of(sha).read_bytes()
        pictures.drop(sha)
        manager = Membership.objects.filter(role="manager")[0].user
        made = reading.read(packed, manager)
        self.assertEqual(pictures.file_of(sha).read_bytes(), whole)
        self.assertTrue(pictures.file_of(sha, small=True).exists())
        again = io.BytesIO()
        writing.write(made, again)
        told = [json.loads(zipfile.ZipFile(f).read("manifest.json"))["content"] for f in (packed, again)]
        self.assertEqual(*told)
        other = io.BytesIO()
        with zipfile.ZipFile(packed) as was, zipfile.ZipFile(other, "w") as new:
            for name in was.namelist():
                new.writestr(name, photograph((10, 10, 200)) if name.endswith(".jpg") else was.read(name))
        count = Account.objects.count()
        with self.assertRaisesMessage(Exception, "was changed"):
            reading.read(other, manager)
        self.assertEqual(Account.objects.count(), count)

    def test_an_archive_of_before_is_read_as_it_was(self) -> None:
        """Scout reports lay in the sky under another column, and spots and photographs there were none."""
        account = make_account("alder")
        area = account.areas.all()[0]
        Scouting.objects.create(area=area, on=NOW.date(), what="dollar_spot", seen=True, severity=3, by="Ann")
        packed, old = io.BytesIO(), io.BytesIO()
        writing.write(account, packed)
        with zipfile.ZipFile(packed) as was, zipfile.ZipFile(old, "w") as new:
            manifest = json.loads(was.read("manifest.json"))
            told = manifest["tables"]
            for name in ("scouting.spot", "scouting.photo", "work.work"):
                del told[name]
            lines = [json.loads(x) for x in was.read("scouting.scouting.jsonl").splitlines()]
            columns = ["area", "on", "what", "seen", "severity", "where", "note", "by"]
            places = [lines[0].index(c) for c in columns]
            rows = [[c.replace("what", "disease") for c in columns], *([row[i] for i in places] for row in lines[1:])]
            text = "".join(json.dumps(row) + "\n" for row in rows)
            told["sky.scouting"] = {"rows": 1, "digest": sha256(text.encode()).hexdigest()}
            del told["scouting.scouting"]
            manifest["content"] = writing.digest_of(told)
            new.writestr("manifest.json", json.dumps(manifest))
            new.writestr("sky.scouting.jsonl", text)
            for name in was.namelist():
                if name.removesuffix(".jsonl") in told or name == "people.jsonl":
                    new.writestr(name, was.read(name))
        made = reading.read(old, Membership.objects.filter(role="manager")[0].user)
        found = Scouting.objects.get(area__account=made)
        self.assertEqual((found.what, found.severity, found.kind), ("dollar_spot", 3, "disease"))

    def test_an_archive_in_a_file_on_the_server(self) -> None:
        account = make_account("alder")
        self.kept(account, (93, 111, 41))
        to = self.folder / "alder.zip"
        with to.open("wb") as file:
            writing.write(account, file)
        said = io.StringIO()
        call_command("bring_archive", str(to), "manager-alder", stdout=said)
        self.assertIn("brought in", said.getvalue())
        self.assertEqual(Account.objects.count(), 2)
        for file, who in (("none.zip", "manager-alder"), (str(to), "nobody")):
            with self.assertRaises(CommandError):
                call_command("bring_archive", file, who)

    def test_backups_share_the_files_and_let_them_go_with_the_last(self) -> None:
        import sqlite3
        from contextlib import closing

        live, to = self.folder / "live.sqlite3", self.folder / "b"
        with closing(sqlite3.connect(live)) as made:
            made.executescript("create table accounts_account (id); create table scouting_photo (sha)")
        shas = [pictures.store(photograph((94 + n, 111, 41))) for n in range(3)]
        for n, sha in enumerate(shas):
            with closing(sqlite3.connect(live)) as held:
                held.execute("delete from scouting_photo")
                held.execute("insert into scouting_photo values (?)", (sha,))
                held.commit()
            backup.back_up(live, to, 2, NOW.replace(hour=n), pictures.folder())
        there = {f.name.split(".")[0] for f in (to / "pictures").rglob("*.jpg")}
        self.assertEqual(there, set(shas[1:]), "the first copy is gone, and its picture with it")
        for file in list(pictures.folder().rglob("*.jpg")):
            file.unlink()
        backup.bring(to / "pictures", pictures.folder(), {shas[1]})
        self.assertEqual({f.name.split(".")[0] for f in pictures.folder().rglob("*.jpg")}, {shas[1]})


class Drawn(TestCase):
    def test_the_demo_has_pictures_of_spots_over_the_season(self) -> None:
        load_demo()
        spot = Spot.objects.get(name="Rink 5, north bank end")
        self.assertGreaterEqual(spot.photos.count(), 2)
        self.assertTrue(all(pictures.file_of(p.sha).exists() and p.timed for p in spot.photos.all()))
