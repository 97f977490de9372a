"""One table of plans, walked through every door: what one refuses all refuse, and what one takes all take.

The verdicts are reckoned by hand from the rules of a made-up card: 14 days apart, so much a season, two in a row of its group.
"""

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from datetime import timedelta
from typing import Any
from uuid import uuid4

from django.db import transaction

from core.ledger.history import applied
from core.units import UNITS, Quantity
from greenmeasure.accounts.models import Account, User
from greenmeasure.book import facts
from greenmeasure.book.models import Application
from greenmeasure.ground.models import Area
from greenmeasure.rounds.models import Round
from greenmeasure.season.models import Planned
from greenmeasure.shelf.models import Product
from greenmeasure.tests.base import AREA
from greenmeasure.tests.sky_base import NOW, SkyTest

GREEN, COLLAR, LAWN = "North green", "Collar", "Bank"
SEVEN = {
    "name": "Seven SC",
    "kind": "fungicide",
    "formulation": "SC",
    "group_code": "FRAC 7",
    "density": {"value": 9, "unit": "lb/gal"},
    "contents": [{"name": "boscalid", "basis": "active", "amount": 20, "unit": "%"}],
    "rates": [
        {
            "use": "Dollar spot",
            "target": "Dollar spot",
            "phrase": "0.3 to 0.5 fl oz per 1,000 sq ft",
            "interval_low": 14,
            "interval_high": 28,
            "grasses": ["creeping_bentgrass"],
        }
    ],
}
OTHERS = {
    "Three SC": ("FRAC 3", "propiconazole"),
    "Eleven SC": ("FRAC 11", "azoxystrobin"),
    "Multi SC": ("FRAC M05", "chlorothalonil"),
    "Pair SC": ("FRAC 7 + FRAC 11", "fluxapyroxad"),
    "Other seven SC": ("FRAC 7", "boscalid"),
}
RATE = 0.3
BOOKED, UNDER_WAY, PLANNED = "booked", "under way", "planned"


@dataclass(frozen=True)
class Was:
    """What is on the ground already: a product so many days ago (ahead, below 0), where, how much, and how far it has come."""

    product: str
    days: float
    where: str = GREEN
    rate: float = RATE
    how: str = BOOKED
    zone: str = ""
    share: float = 1.0
    together: str = ""


@dataclass(frozen=True)
class Case:
    """A plan of 0.3 fl oz/1000 ft² of Seven SC, and whether it may go down."""

    name: str
    refused: bool
    past: tuple[Was, ...] = ()
    card: dict[str, Any] = field(default_factory=dict)
    other: dict[str, dict[str, Any]] = field(default_factory=dict)
    ground: dict[str, dict[str, Any]] = field(default_factory=dict)
    where: str = GREEN


def rules(**typed: Any) -> dict[str, Any]:
    return {"rules": typed}


def spaced() -> Iterator[Case]:
    """14 days between two of it, whatever became of the first."""
    for how in (BOOKED, UNDER_WAY):
        for days in (0, 1, 6, 13, 14, 15, 16, 18, 21, 28, 29):
            yield Case(f"{days} days after, {how}", days < 14, (Was("Seven SC", days, how=how),))
    for days in (1, 8, 13):
        yield Case(f"another product {days} days ago", False, (Was("Three SC", days),))
        yield Case(f"booked ahead by {days} days", True, (Was("Seven SC", -days),))
    for days in (14, 20):
        yield Case(f"booked ahead by {days} days", False, (Was("Seven SC", -days),))


def season() -> Iterator[Case]:
    """0.8 fl oz/1000 ft² a season, and three applications."""
    cap = rules(most_per_season="0.8 fl oz per 1,000 sq ft")
    for how in (BOOKED, UNDER_WAY):
        for before in (0.1, 0.2, 0.3, 0.4, 0.45, 0.5, 0.51, 0.6, 0.9):
            yield Case(f"{before} before, {how}", before + RATE > 0.8, (Was("Seven SC", 40, rate=before, how=how),), cap)
    yield Case("two halves before", True, (Was("Seven SC", 60, rate=0.3), Was("Seven SC", 40, rate=0.3)), cap)
    yield Case("of another product", False, (Was("Three SC", 60, rate=0.9),), cap)
    yield Case("of last season", False, (Was("Seven SC", 300, rate=0.9),), cap)
    yield Case("ahead in this season", True, (Was("Seven SC", -40, rate=0.6),), cap)
    thrice = rules(applications_per_season=3)
    for times in (0, 1, 2, 3, 4):
        past = tuple(Was("Seven SC", 20 * (n + 1)) for n in range(times))
        yield Case(f"{times} times before", times >= 3, past, thrice)
    # 20 % of 9 lb/gal is 1.8 lb/gal: 0.3 fl oz/1000 ft² are 0.00422 lb ai, 0.1838 lb ai an acre
    active = rules(active_per_season="0.5 lb ai per acre")
    for before in (0.2, 0.5, 0.52, 0.9):
        past = (Was("Other seven SC", 40, rate=before),)
        yield Case(f"{before} of the same active", (before + RATE) * 0.61256 > 0.5, past, active)


def rows() -> Iterator[Case]:
    """Two in a row of its group: by the day, by the ground, a premix like a partner, what is planned never between."""
    two = rules(consecutive=2)
    twice = (Was("Seven SC", 40), Was("Seven SC", 20))
    yield Case("the third in a row", True, twice, two)
    yield Case("the second in a row", False, twice[1:], two)
    for name, between in (("3", "Three SC"), ("11", "Eleven SC"), ("M05", "Multi SC")):
        yield Case(f"group {name} between", False, (*twice, Was(between, 10)), two)
        paired = (Was("Seven SC", 40), Was(between, 40), Was("Seven SC", 20), Was(between, 20))
        yield Case(f"paired with {name} on its days", True, paired, two)
        yield Case(f"{name} on the day itself", True, (*twice, Was(between, 0)), two)
        yield Case(f"{name} planned between", True, (*twice, Was(between, -1, how=PLANNED)), two)
    yield Case("a premix counts", True, (Was("Pair SC", 40), Was("Pair SC", 20)), two)
    yield Case("another of its group counts", True, (Was("Other seven SC", 40), Was("Other seven SC", 20)), two)
    yield Case("one before and one after", True, (Was("Other seven SC", 20), Was("Other seven SC", -20)), two)
    yield Case("on another ground", False, tuple(replace(w, where=LAWN) for w in twice), two)
    yield Case("under way", True, (twice[0], replace(twice[1], how=UNDER_WAY)), two)
    yield Case("twice on one day is one", False, (Was("Other seven SC", 20), Was("Other seven SC", 20)), two)


def apart() -> Iterator[Case]:
    """Kept apart by 10 days by its own label, or by the other's."""
    for what in ("FRAC 3", "propiconazole", "Three SC"):
        own = rules(incompatible=[{"what": what, "days": 10}])
        for days in (0, 4, 9, 10, 11, 12, 15, 30):
            yield Case(f"{what} {days} days ago", days < 10, (Was("Three SC", days),), own)
        yield Case(f"{what} booked ahead", True, (Was("Three SC", -4),), own)
        yield Case(f"{what} planned ahead", True, (Was("Three SC", -4, how=PLANNED),), own)
    for what in ("FRAC 7", "boscalid", "Seven SC"):
        theirs = {"Three SC": rules(incompatible=[{"what": what, "days": 10}])}
        for days in (0, 4, 9, 10, 12, 20):
            yield Case(f"their label keeps {what} away, {days} days", days < 10, (Was("Three SC", days),), other=theirs)
        yield Case(f"their label, {what}, under way", True, (Was("Three SC", 3, how=UNDER_WAY),), other=theirs)
    yield Case("neither names the other", False, (Was("Three SC", 0),))


def grounds() -> Iterator[Case]:
    """Wholes, parts and zones: ground is one."""
    yield Case("on its part", True, (Was("Seven SC", 5, COLLAR),))
    yield Case("on its whole", True, (Was("Seven SC", 5),), where=COLLAR)
    yield Case("on the other area", False, (Was("Seven SC", 5, LAWN),))
    yield Case("on a zone of it", True, (Was("Seven SC", 5, zone="core", share=0.3),))
    yield Case("on some of it", True, (Was("Seven SC", 5, share=0.3),))
    yield Case("on some of its whole, beside it", False, (Was("Seven SC", 5, share=0.3),), where=COLLAR)
    yield Case("on nearly all of its whole", True, (Was("Seven SC", 5, share=0.99),), where=COLLAR)
    cap = rules(most_per_season="0.8 fl oz per 1,000 sq ft", applications_per_season=2)
    core, rest = (
        Was("Seven SC", 30, rate=0.45, zone="core", share=0.3, together="a"),
        Was("Seven SC", 30, rate=0.3, zone="surround", share=0.7, together="a"),
    )
    yield Case("zones of one round are one application", False, (core, rest), cap)
    yield Case("the zone that had most counts", True, (replace(core, rate=0.51), rest), cap)
    again = tuple(replace(w, days=50, together="b") for w in (core, rest))
    yield Case("two rounds by zones are two", True, (core, rest, *again), rules(applications_per_season=2))
    bermuda = {COLLAR: {"grass": "bermudagrass"}}
    yield Case("a part whose grass is not listed", True, ground=bermuda)
    yield Case("that part alone", True, ground=bermuda, where=COLLAR)
    yield Case("the other area's grass", True, ground={LAWN: {"grass": "tall_fescue"}}, where=LAWN)
    yield Case("listed grass", False, where=LAWN)
    yield Case("a part that was put away keeps its past", True, (Was("Seven SC", 5, COLLAR),), ground={COLLAR: {"gone": True}})
    yield Case("a part that was put away has no grass", False, ground={COLLAR: {"grass": "bermudagrass", "gone": True}})


def seed() -> Iterator[Case]:
    """28 days after seed, 21 before."""
    wait, ahead = rules(seed_after={"value": 28, "unit": "day"}), rules(seed_before={"value": 21, "unit": "day"})
    for days in (1, 20, 27, 28, 29, 45, 60):
        sown = (NOW - timedelta(days=days)).date()
        yield Case(f"sown {days} days ago", days < 28, card=wait, ground={GREEN: {"sown_on": sown}})
        yield Case(f"its part sown {days} days ago", days < 28, card=wait, ground={COLLAR: {"sown_on": sown}})
        meant = {GREEN: {"overseed_on": sown}}
        yield Case(f"to be overseeded {days} days ago, and nobody says it was not", days < 28, card=wait, ground=meant)
    for days in (1, 20, 21, 22, 40, 60):
        coming = {GREEN: {"overseed_on": (NOW + timedelta(days=days)).date()}}
        yield Case(f"to be overseeded in {days} days", days < 21, card=ahead, ground=coming)


def water() -> Iterator[Case]:
    """48 hours without water after a leaf product; water within 6 hours of one that works in the soil."""
    dry = {"rain_after": {"value": 48, "unit": "h"}}
    soak = {"water_in_depth": {"value": 0.1, "unit": "in"}, "water_in_delay": {"value": 6, "unit": "h"}}
    for hours in (1, 10, 26, 47, 48, 49, 72):
        leaf = {"Three SC": rules(**dry)}
        for how in (BOOKED, UNDER_WAY):
            past = (Was("Three SC", hours / 24, how=how),)
            yield Case(f"watered in {hours} h after a leaf product, {how}", hours < 48, past, rules(**soak), leaf)
        yield Case(f"not watered in, {hours} h after", False, (Was("Three SC", hours / 24),), other=leaf)
    for hours in (5, 20, 40, 60):
        coming = {"Three SC": rules(**soak)}
        past = (Was("Three SC", -hours / 24, how=PLANNED),)
        yield Case(f"a leaf product {hours} h before water that is planned", hours < 48, past, rules(**dry), coming)
    on_bank = (Was("Three SC", 0.5, LAWN),)
    yield Case("a leaf product elsewhere", False, on_bank, rules(**soak), {"Three SC": rules(**dry)})


TABLE = [case for family in (spaced, season, rows, apart, grounds, seed, water) for case in family()]


class Doors(SkyTest):
    """A humid August: dollar spot is due on a green, on the collar that is a part of it, and on a bank of its own."""

    def setUp(self) -> None:
        super().setUp()
        self.station()
        self.fetched()
        for name, more in ((COLLAR, {"parent_id": self.area.pk}), (LAWN, {})):
            self.ask("POST", "areas", AREA | {"name": name, "size": {"value": "2,000", "unit": "ft2"}} | more, 201)
        self.ask("POST", "products", SEVEN, 201)
        for name, (code, active) in OTHERS.items():
            card = SEVEN | {"name": name, "group_code": code, "contents": [SEVEN["contents"][0] | {"name": active}]}  # type: ignore[index]
            self.ask("POST", "products", card, 201)

    # --- the past

    def lay(self, case: Case) -> None:
        """Bring the account to where the case begins."""
        for name, more in {"Seven SC": case.card, **case.other}.items():
            if more:
                Product.objects.filter(name=name).update(**more)
        for name, more in case.ground.items():
            changed = {k: v for k, v in more.items() if k != "gone"}
            Area.objects.filter(name=name).update(**changed, **({"archived_at": NOW} if more.get("gone") else {}))
        rounds: dict[str, Round] = {}
        for was in case.past:
            self.put_down(was, rounds)
        Account.objects.get(slug="alder").touch()

    def put_down(self, was: Was, rounds: dict[str, Round]) -> None:
        area, product = Area.objects.get(name=was.where), Product.objects.get(name=was.product)
        treated = Quantity(area.size.value * was.share, area.size.unit)
        amount = Quantity(was.rate * treated.base / UNITS["kft2"].size, UNITS["fl_oz"])
        at = NOW - timedelta(days=was.days)
        row = product.rates.get()
        made = replace(applied(product.core(), amount, treated, at.date(), row.core()), interval=(None, None))
        kept = facts.stored(made)
        if was.how == PLANNED:
            span = {"begin": at - timedelta(hours=2), "end": at + timedelta(hours=2)}
            whose = {"account": self.account, "area": area, "product": product, "disease": "rust", "by": "x", "made_at": NOW}
            Planned.objects.create(**whose, **span, facts=kept)
            return
        begun = rounds.get(was.together) or self.round_of(product, amount, at, was.how)
        if was.together:
            rounds[was.together] = begun
        place = begun.parts.count() + begun.applications.count()
        if was.how == UNDER_WAY:
            part = begun.parts.create(
                position=place, area=area, zone=was.zone, treated_value=treated.value, treated_unit=treated.unit.key
            )
            part.doses.create(
                component=begun.mix.get(), phrase=row.phrase, rate_value=was.rate, rate_unit="fl_oz/kft2", dose=amount.base
            )
            return
        done = Application.objects.create(
            account=self.account,
            round=begun,
            position=place,
            area=area,
            applied_on=at.date(),
            finished_at=at,
            area_name=area.name,
            zone=was.zone,
            treated_value=treated.value,
            treated_unit=treated.unit.key,
            machine_name="Sprayer",
            by=User.objects.get(username="manager-alder"),
            by_name="Manager",
        )
        done.entries.create(
            product=product,
            product_name=product.name,
            kind=product.kind,
            facts=kept,
            phrase=row.phrase,
            planned_value=was.rate,
            actual_value=was.rate,
            rate_unit="fl_oz/kft2",
            stand="within",
            used_value=amount.value,
            used_unit="fl_oz",
        )

    def round_of(self, product: Product, amount: Quantity, at: Any, how: str) -> Round:
        over = {} if how == UNDER_WAY else {"status": Round.Status.DONE, "ended_at": at}
        made = Round.objects.create(
            account=self.account,
            key=uuid4(),
            machine=self.sprayer,
            sheet={},
            started_by=User.objects.get(username="manager-alder"),
            started_at=at,
            at=at,
            **over,
        )
        made.mix.create(position=0, product=product, amount_value=amount.value, amount_unit="fl_oz")
        return made

    # --- the doors: whether each refuses; None where it has nothing to say

    def post(self, path: str, body: dict[str, Any]) -> tuple[int, Any]:
        """What a door answers, with nothing of it kept."""
        with transaction.atomic():
            answer = self.client.post(f"/api/accounts/alder/{path}", body, "application/json")
            transaction.set_rollback(True)
        return answer.status_code, answer.json()

    def refuses(self, path: str, body: dict[str, Any]) -> bool | None:
        status, said = self.post(path, body)
        if status == 201:
            return False
        self.assertEqual(status, 422, said)
        return True if said["code"] == "refused" else None

    def verdicts(self, where: str) -> dict[str, bool | None]:
        area, seven = Area.objects.get(name=where), Product.objects.get(name="Seven SC")
        part = {"area_id": area.pk, "doses": [{"row_id": seven.rates.get().pk, "rate": {"value": RATE, "unit": "fl_oz/kft2"}}]}
        mix = [{"product_id": seven.pk, "target": "dollar_spot"}]
        job = {"mix": mix, "machine_id": self.sprayer.pk, "parts": [part]}
        due = {"area_id": area.pk, "disease": "dollar_spot", "product_id": seven.pk}
        window = {"begin": NOW.isoformat(), "end": (NOW + timedelta(hours=2)).isoformat()}
        line = f"{RATE} fl oz/M of Seven SC on {where} with Sprayer"
        listed = self.client.get(f"/api/accounts/alder/season/due/{area.pk}/dollar_spot")
        choice = None
        if listed.status_code == 200:
            choice = next(not c["allowed"] for c in listed.json()["choices"] if c["product"] == "Seven SC")
        return {
            "Reckon": self.post("reckon/job", job)[1]["refused"],
            "the line": self.post("reckon/line", {"line": line})[1]["refused"],
            "round start": self.refuses("rounds", job),
            "due list": choice,
            "planned": self.refuses("season/planned", due | window),
            "season start": self.refuses("season/start", due | {"machine_id": self.sprayer.pk}),
            "repeat": self.once_more(area),
            "import": self.brought_in(area),
        }

    def once_more(self, area: Area) -> bool:
        """What Reckon says of an application of long ago that is done again."""
        with transaction.atomic():
            self.put_down(Was("Seven SC", 1000, area.name), {})
            long_ago = Application.objects.latest("pk").pk
            job = self.client.get(f"/api/accounts/alder/reckon/again/{long_ago}").json()["job"]
            said: bool = self.post("reckon/job", job | {"machine_id": self.sprayer.pk})[1]["refused"]
            transaction.set_rollback(True)
        return said

    def brought_in(self, area: Area) -> bool | None:
        """Whether a line of a file of past applications is marked: what has happened is never refused. None where the line is
        taken for what is in the book already.
        """
        line = f"{NOW.astimezone(area.site.zone):%Y-%m-%d,%H:%M},{area.name},Seven SC,Sprayer,{RATE},fl oz/1000 ft2,dollar_spot"
        text = f"date,time,area,product,machine,planned_rate,rate_unit,target\n{line}\n"
        (said,) = self.post("rounds/import/preview", {"text": text})[1]["lines"]
        if said["act"] == "same":
            return None
        self.assertEqual(said["act"], "add", said)
        return any(change.startswith("Marked") for change in said["changes"])

    def test_every_plan_of_the_table_at_every_door(self) -> None:
        asked = 0
        for case in TABLE:
            with self.subTest(case.name), transaction.atomic():
                self.lay(case)
                found = self.verdicts(case.where)
                wrong = {door: verdict for door, verdict in found.items() if verdict not in (case.refused, None)}
                self.assertEqual(wrong, {}, f"{case.name} is {'refused' if case.refused else 'allowed'}")
                asked += sum(verdict is not None for verdict in found.values())
                transaction.set_rollback(True)
        self.assertGreater(asked, 7.5 * len(TABLE))
        self.assertGreaterEqual(len(TABLE), 120)
        self.assertGreaterEqual(sum(not c.refused for c in TABLE), len(TABLE) / 2)
