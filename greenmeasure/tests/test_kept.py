"""What is kept of an account is used again while nothing changes, read afresh after a change, and never another account's."""

from collections.abc import Callable

from greenmeasure.accounts.models import PARTS, Account
from greenmeasure.common.clock import today
from greenmeasure.common.kept import kept
from greenmeasure.ground.actions import save_area
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas
from greenmeasure.ground.schemas import AreaIn
from greenmeasure.kit.models import Calibration, Cleaning
from greenmeasure.kit.queries import machines
from greenmeasure.scouting.models import Scouting
from greenmeasure.shelf.queries import cards
from greenmeasure.sky.models import HandReading, Rhythm
from greenmeasure.tests.base import AREA, ApiTest, make_account
from greenmeasure.water.models import WaterAudit

FEET = {"value": 10, "unit": "ft"}


class Kept(ApiTest):
    def fresh(self) -> Account:
        """The account as the next request would read it."""
        return Account.objects.get(pk=self.account.pk)

    def test_reading_twice_asks_the_database_once(self) -> None:
        account = self.fresh()
        areas(account)
        with self.assertNumQueries(0):
            self.assertEqual(set(areas(account)), {self.area.pk})

    def test_every_kind_of_change_is_seen_by_the_next_request(self) -> None:
        changes: dict[str, Callable[[], object]] = {
            "add": lambda: save_area(self.fresh(), AreaIn(**{**AREA, "name": "Another"})),
            "change": lambda: save_area(
                self.fresh(), AreaIn(**AREA | {"name": "Renamed", "version": 1}), Area.objects.get(name="Another")
            ),
            "put away": lambda: Area.objects.get(name="Renamed").archive(),
        }
        for what, change in changes.items():
            before = self.fresh().revisions(PARTS)
            areas(self.fresh())
            change()
            self.assertNotEqual(self.fresh().revisions(PARTS), before, what)
            now = {a.name: bool(a.archived_at) for a in areas(self.fresh()).values()}
            read = {a.name: bool(a.archived_at) for a in Area.objects.filter(account=self.account)}
            self.assertEqual(now, read, what)

    def test_calibrations_cleanings_and_audits_are_changes_too(self) -> None:
        day = str(today(self.account))
        strip = {"method": "strip", "length": FEET, "width": FEET, "runs": [1], "unit": "gal"}
        at = f"machines/{self.sprayer.pk}"
        cans = {"cans": [{"caught": 5}] * 16, "unit": "mm", "minutes": 20, "taken_on": day}
        changes = (
            ("POST", f"{at}/calibrations", {"figures": strip, "taken_on": day}, 201),
            ("POST", f"{at}/calibrations/{{calibration}}/leave", None, 200),
            ("POST", f"{at}/cleanings", {"steps": ["rinse"]}, 201),
            ("DELETE", f"{at}/cleanings/{{cleaning}}", None, 200),
            ("POST", f"areas/{self.area.pk}/water", cans, 201),
            ("POST", f"areas/{self.area.pk}/water/{{audit}}/leave", None, 200),
            ("PUT", f"passes/areas/{self.area.pk}/places", {"places": []}, 200),
        )
        for method, path, body, expect in changes:
            before = self.fresh().revisions(PARTS)
            latest = {
                "calibration": Calibration.objects.values_list("pk", flat=True).last(),
                "cleaning": Cleaning.objects.values_list("pk", flat=True).last(),
                "audit": WaterAudit.objects.values_list("pk", flat=True).last(),
            }
            self.ask(method, path.format(**latest), body, expect)
            self.assertNotEqual(self.fresh().revisions(PARTS), before, path)

    def test_what_changes_the_sky_is_a_change_too(self) -> None:
        day, rhythm = str(today(self.account)), {"kind": "quiet", "days": [1], "begin": "09:00", "end": "10:00"}
        scout = {"area_id": self.area.pk, "on": day, "what": "dollar_spot", "seen": True}
        gauge = {"kind": "rain", "value": {"value": 5, "unit": "mm"}, "on": day}
        changes = (
            ("PUT", "sky/station", {"name": "Mast"}, 200),
            ("POST", "sky/readings", gauge, 201),
            ("DELETE", "sky/readings/{reading}", None, 204),
            ("POST", "scouting", scout, 201),
            ("POST", "scouting/{scouting}/strike", {"why": "the other green"}, 200),
            ("POST", "sky/rhythms", rhythm, 201),
            ("DELETE", "sky/rhythms/{rhythm}", None, 204),
            ("PUT", f"sky/areas/{self.area.pk}/watch/rust", {"on": True}, 200),
        )
        for method, path, body, expect in changes:
            before = self.fresh().revisions(PARTS)
            latest = {
                "reading": HandReading.objects.values_list("pk", flat=True).last(),
                "scouting": Scouting.objects.values_list("pk", flat=True).last(),
                "rhythm": Rhythm.objects.values_list("pk", flat=True).last(),
            }
            self.ask(method, path.format(**latest), body, expect)
            self.assertNotEqual(self.fresh().revisions(PARTS), before, path)

    def test_a_tick_renews_what_reads_ticks_and_nothing_else(self) -> None:
        begun = self.ask("POST", "rounds", self.job(), 201)
        before = dict(zip(PARTS, self.fresh().revisions(PARTS)[1:], strict=True))
        gear = begun["sheet"]["wear"][0]["key"]
        self.ask("POST", f"rounds/{begun['id']}/ticks", {"load": 0, "act": gear, "done": True})
        after = dict(zip(PARTS, self.fresh().revisions(PARTS)[1:], strict=True))
        self.assertEqual([part for part in PARTS if before[part] != after[part]], ["ticks"])

    def test_two_accounts_of_one_revision_are_told_apart(self) -> None:
        other = make_account("other")
        Account.objects.update(account_revision=self.account.account_revision)
        mine, theirs = self.fresh(), Account.objects.get(pk=other.pk)
        for read in (areas, machines, cards):
            self.assertFalse(set(read(mine)) & set(read(theirs)), read.read.__name__)

    def test_what_fails_is_not_kept(self) -> None:
        tries = []

        @kept()
        def breaks(account: Account) -> int:
            tries.append(account)
            raise ZeroDivisionError

        for _ in range(2):
            self.assertRaises(ZeroDivisionError, breaks, self.account)
        self.assertEqual(len(tries), 2)
