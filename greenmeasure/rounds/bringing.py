"""Past applications out of a CSV such as the book writes: first what each line would put in the book and what stood against
it, then the lines themselves. What happened is never refused, only marked; what cannot be read is.
"""

import re
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Protocol, TypeVar
from uuid import uuid4

from django.db import transaction
from pydantic import ValidationError

from core.errors import InputError
from core.label.match import fits
from core.label.phrase import read_label_rate
from core.label.product import Kind
from core.label.rate import Rate
from core.rates.actual import actual_rate
from core.units import AREA, MASS, VOLUME, Quantity, exact_number, read_number, read_quantity
from greenmeasure.accounts.models import Account, User, sites_of
from greenmeasure.book.models import Entry
from greenmeasure.common.bringing import ImportOut, LineChangeOut, brought_in
from greenmeasure.common.clock import local_day, moment_at
from greenmeasure.common.csv_text import rows_of
from greenmeasure.common.errors import Faulty
from greenmeasure.common.schemas import QuantityIn
from greenmeasure.ground.models import Area
from greenmeasure.ground.queries import areas
from greenmeasure.kit.models import Machine
from greenmeasure.kit.queries import machines
from greenmeasure.reckon.queries import reckoned
from greenmeasure.reckon.schemas import ComponentIn, DoseIn, JobIn, PartIn
from greenmeasure.rounds.actions import record_done
from greenmeasure.rounds.schemas import DoneIn, FinishIn, UsedIn
from greenmeasure.rounds.words import brought_line
from greenmeasure.shelf.models import RateRow
from greenmeasure.shelf.queries import Card, cards

NEEDED = ("date", "area", "product", "machine")
READ = (
    *NEEDED,
    "application",
    "time",
    "site",
    "zone",
    "spots",
    "treated",
    "treated_unit",
    "amount",
    "used",
    "used_unit",
    "actual_rate",
    "planned_rate",
    "rate_unit",
    "spray",
    "spray_unit",
    "use",
    "target",
    "passes",
    "lot",
    "wind",
    "air",
    "applicator",
    "reason",
    "note",
)
MOST_LINES = 500
PER = re.compile(r"/|\bper\b", re.IGNORECASE)
"""What a rate is written with, and an amount is not."""
ALIKE = 1e-6
"""Two amounts that differ by less are one written twice."""
FROM_FILE = "From a file of past records"
"""Why an application against a rule stands in the book, where the file does not say."""

Cells = dict[str, str]


@dataclass(frozen=True)
class Line:
    """A line of the file whose product is known, and the label row that it goes by."""

    cells: Cells
    card: Card
    row: RateRow | None


@dataclass(frozen=True)
class Brought:
    """Lines that are one application: when, where and with what is as their first line says."""

    lines: tuple[Line, ...]
    at: datetime
    area: Area
    machine: Machine
    treated: Quantity
    spray: Quantity | None

    @property
    def cells(self) -> Cells:
        return self.lines[0].cells


Numbered = tuple[int, Cells]


def read(account: Account, user: User, text: str, keep: bool) -> ImportOut:
    """What a file would put in the book, line by line; with `keep`, do it where nothing is at fault.

    The lines go in by their dates, so that a rule that two of them break together is told at the later one.

    Raises:
        NotUnderstood, InputError: the file as a whole is at fault.
    """
    given = list(rows_of(text, NEEDED, READ))
    if len(given) > MOST_LINES:
        raise InputError("text", len(given), f"{len(given)} lines are too many at once.", f"Bring in {MOST_LINES} at most.")
    lines: list[LineChangeOut] = []
    with transaction.atomic():
        for together in _applications(given):
            with transaction.atomic():
                lines += _taken(account, user, together)
        refused = sum(line.act == "refused" for line in lines)
        if not keep or refused:
            transaction.set_rollback(True)
    lines.sort(key=lambda line: line.line)
    return ImportOut(lines=lines, refused=refused, sentence=brought_in(lines, keep))


def _by_amount(cells: Cells) -> Cells:
    """A line with its amount as somebody writes it, what was used or at which rate, in the column that it is of.

    Raises:
        InputError: it can be read as neither.
    """
    text = cells.get("amount", "")
    if not text:
        return cells
    try:
        read_quantity(text, "amount", MASS, VOLUME)
        return cells | {"used": text, "used_unit": ""}
    except InputError as fault:
        if not PER.search(text):
            raise fault
        read_label_rate(text, "amount")
        return cells | {"actual_rate": text, "rate_unit": ""}


def _applications(given: Sequence[Numbered]) -> list[list[Numbered]]:
    """The lines by their applications, each a mix of those that name the same one, oldest first."""
    groups: dict[tuple[str, ...], list[Numbered]] = {}
    for number, cells in given:
        named = cells.get("application", "")
        key = (named, cells["date"], cells["area"]) if named else (f"line {number}",)
        groups.setdefault(key, []).append((number, cells))
    return sorted(groups.values(), key=lambda g: (g[0][1]["date"], g[0][1].get("time", ""), g[0][0]))


def _taken(account: Account, user: User, together: Sequence[Numbered]) -> list[LineChangeOut]:
    """What one application's lines came to: all of them added, or as they are, or kept out by what is at fault with one."""

    def told(act: str, changes: Sequence[list[str]] = (), problems: Sequence[str] = ()) -> list[LineChangeOut]:
        return [
            LineChangeOut(
                line=number,
                name=f"{cells['date']} {cells['product']} on {cells['area']}",
                act=act,
                changes=changes[i] if changes else [],
                problems=list(problems),
            )
            for i, (number, cells) in enumerate(together)
        ]

    try:
        brought = _known(account, [cells for _, cells in together])
        job = _job(brought)
        used = _used(account, brought, job)
        if _in_the_book(account, brought, used):
            return told("same")
        done = DoneIn(job=job, finish=_finish(brought, used), reason=brought.cells.get("reason") or FROM_FILE)
        (made,) = record_done(account, user, done, uuid4(), brought.at)
        return told("add", [brought_line(e) for e in made.entries.order_by("position")])
    except ValidationError as wrong:
        problems = [f"{'.'.join(map(str, e['loc']))}: {e['msg']}." for e in wrong.errors()]
    except Faulty as several:
        problems = [f"{f.field}: {f.sentence}" for f in several.faults]
    except InputError as fault:
        problems = [f"{fault.field}: {fault.sentence}"]
    return told("refused", problems=problems)


def _known(account: Account, lines: Sequence[Cells]) -> Brought:
    """Lines with their things found by their names. Raises InputError by its column."""
    lines = [_by_amount(cells) for cells in lines]
    first = lines[0]
    area = _area(account, first)
    mix = []
    for cells in lines:
        card = _named("product", cells["product"], cards(account).values(), lambda c: c.product)
        mix.append(Line(cells, card, _row(cells, card, area)))
    machine = _named("machine", first["machine"], machines(account).values(), lambda m: m)
    try:
        day = datetime.fromisoformat(first["date"]).date()
    except ValueError:
        raise InputError("date", first["date"], f"“{first['date']}” is no date.", "Write it like 2026-05-12.") from None
    treated, spray = _amount(first, "treated", AREA) or area.size, _amount(first, "spray", VOLUME)
    return Brought(tuple(mix), moment_at(area, day, first.get("time", "")), area, machine, treated, spray)


class Named(Protocol):
    """A thing of the account that a file calls by its name."""

    name: str
    archived_at: datetime | None


T = TypeVar("T")


def _named(column: str, name: str, every: Iterable[T], thing: Callable[[T], Named]) -> T:
    """What is called by a name; of several the one that was not put away. Raises InputError by its column."""
    found = [x for x in every if thing(x).name.casefold() == name.casefold()]
    kept = [x for x in found if thing(x).archived_at is None] or found
    if not kept:
        raise _no_such(column, name)
    if len(kept) > 1:
        raise InputError(column, name, f"There are {len(kept)} called “{name}”.", "Name the site too, or rename one of them.")
    return kept[0]


def _no_such(column: str, name: str) -> InputError:
    if not name:
        return InputError(column, name, f"The line names no {column}.", "Fill it in.")
    return InputError(column, name, f"There is no {column} “{name}”.", "Add it first, or write it as it is called here.")


def _area(account: Account, cells: Cells) -> Area:
    """The area of a line: of its site, where that is named. Raises InputError."""
    every: Iterable[Area] = areas(account).values()
    if site := cells.get("site"):
        here = _named_site(account, site)
        every = [a for a in every if a.site_id == here]
    return _named("area", cells["area"], every, lambda a: a)


def _named_site(account: Account, name: str) -> int:
    found = next((s for s in sites_of(account).values() if s.name.casefold() == name.casefold()), None)
    if found is None:
        raise _no_such("site", name)
    return found.pk


def _row(cells: Cells, card: Card, area: Area) -> RateRow | None:
    """The row that a line names by its use, else the one that the label means for the ground; None to taste."""
    told = any(cells.get(column) for column in ("used", "actual_rate", "planned_rate"))
    if not told and card.core.kind is Kind.COLOURANT:
        return None
    rows = list(card.rows.values())
    if not rows:
        raise InputError("product", card.product.name, "Its card has no label rate.", "Add one on the shelf first.")
    use = cells.get("use", "").casefold()
    named = [i for i, r in enumerate(rows) if use and r.use.casefold() == use]
    fitting = [f.index for f in fits(card.label_rows, area.ground, cells.get("target", ""))]
    return rows[next((i for i in fitting if i in named), fitting[0])]


def _job(brought: Brought) -> JobIn:
    """An application as the job it was. Raises InputError where of a line neither amount nor rate is told."""
    part = PartIn(
        area_id=brought.area.pk,
        doses=[_dose(brought, line) for line in brought.lines],
        treated=_typed(brought.treated.value, brought.treated.unit.key),
        zone=brought.cells.get("zone", ""),
    )
    return JobIn(
        mix=[ComponentIn(product_id=x.card.product.pk, target=x.cells.get("target", "")) for x in brought.lines],
        machine_id=brought.machine.pk,
        parts=[part],
        passes=int(read_number(brought.cells.get("passes") or "1", "passes")),
        spots=brought.cells.get("spots", "").strip().casefold() in ("yes", "true", "1"),
    )


def _dose(brought: Brought, line: Line) -> DoseIn:
    """A line's rate: the planned one, else the actual one, else what the amount comes to."""
    if line.row is None:
        return DoseIn()
    rate = _rate(line.cells, "planned_rate") or _rate(line.cells, "actual_rate")
    if rate is None:
        used = _amount(line.cells, "used", MASS, VOLUME)
        if used is None:
            raise InputError("used", "", "How much was used is missing.", "Fill in used and used_unit, actual_rate, or amount.")
        rate = actual_rate(line.card.core, line.row.label(), used, brought.treated, brought.spray)
    return DoseIn(row_id=line.row.pk, rate=_typed(rate.value, rate.unit.key))


def _used(account: Account, brought: Brought, job: JobIn) -> list[Quantity | None]:
    """What was used of each: as told, else what the actual rate comes to, else the planned one; None to taste."""
    told = [_amount(x.cells, "used", MASS, VOLUME) for x in brought.lines]
    if all(u or x.row is None for u, x in zip(told, brought.lines, strict=True)):
        return told
    doses = [
        DoseIn(row_id=d.row_id, rate=_typed(actual.value, actual.unit.key)) if (actual := _rate(x.cells, "actual_rate")) else d
        for d, x in zip(job.parts[0].doses, brought.lines, strict=True)
    ]
    job = job.model_copy(update={"parts": [job.parts[0].model_copy(update={"doses": doses})]})
    plans = reckoned(account, job, brought.at).job.mix
    return [u or plan.amount for u, plan in zip(told, plans, strict=True)]


def _finish(brought: Brought, used: Sequence[Quantity | None]) -> FinishIn:
    """An application as the finish of its round."""
    cells, spray = brought.cells, brought.spray
    return FinishIn(
        used=[
            UsedIn(amount=_typed(u.value, u.unit.key) if u else None, lot=x.cells.get("lot", ""))
            for u, x in zip(used, brought.lines, strict=True)
        ],
        spray=_typed(spray.value, spray.unit.key) if spray else None,
        by=cells.get("applicator", ""),
        wind=cells.get("wind", ""),
        air=cells.get("air", ""),
        note=cells.get("note", ""),
    )


def _amount(cells: Cells, column: str, *dimensions: str) -> Quantity | None:
    """An amount of two columns, number and unit, or of one that holds both; None where it is empty."""
    text = f"{cells.get(column, '')} {cells.get(f'{column}_unit', '')}".strip()
    return read_quantity(text, column, *dimensions) if cells.get(column) else None


def _rate(cells: Cells, column: str) -> Rate | None:
    if not cells.get(column):
        return None
    return read_label_rate(f"{cells[column]} {cells.get('rate_unit', '')}", column).highest


def _typed(value: float, unit: str) -> QuantityIn:
    return QuantityIn(value=exact_number(value), unit=unit)


def _in_the_book(account: Account, brought: Brought, used: Sequence[Quantity | None]) -> bool:
    """Whether the book has it already: the same products on the same ground and day, as much of each."""
    held = Entry.objects.filter(
        application__account=account,
        application__struck_at=None,
        application__area=brought.area,
        application__applied_on=local_day(brought.area, brought.at),
        application__zone=brought.cells.get("zone", ""),
    )
    there = [(e.product_id, e.used) for e in held]
    return all(
        any(pk == x.card.product.pk and _alike(amount, mine) for pk, amount in there)
        for x, mine in zip(brought.lines, used, strict=True)
    )


def _alike(a: Quantity | None, b: Quantity | None) -> bool:
    if a is None or b is None:
        return a is b
    return a.unit.dimension == b.unit.dimension and abs(a.base / b.base - 1) < ALIKE
