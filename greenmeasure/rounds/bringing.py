"""Past applications out of a CSV such as the book writes: first what each line would put in the book and what stood against
it, then the lines themselves. What happened is never refused, only marked; what cannot be read is.
"""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import datetime
from typing import Protocol, TypeVar
from uuid import uuid4

from django.db import transaction
from pydantic import ValidationError

from core.errors import InputError
from core.label.match import fits
from core.label.phrase import read_label_rate
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
from greenmeasure.reckon.schemas import JobIn, PartIn
from greenmeasure.rounds.actions import record_done
from greenmeasure.rounds.schemas import DoneIn, FinishIn
from greenmeasure.rounds.words import brought_line
from greenmeasure.shelf.models import RateRow
from greenmeasure.shelf.queries import Card, cards

NEEDED = ("date", "area", "product", "machine")
READ = (
    *NEEDED,
    "time",
    "site",
    "zone",
    "treated",
    "treated_unit",
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
ALIKE = 1e-6
"""Two amounts that differ by less are one written twice."""
FROM_FILE = "From a file of past records"
"""Why an application against a rule stands in the book, where the file does not say."""

Cells = dict[str, str]


@dataclass(frozen=True)
class Line:
    """A line of the file whose things are known: when, where, what, by what, and the label row it goes by."""

    cells: Cells
    at: datetime
    area: Area
    card: Card
    machine: Machine
    row: RateRow
    treated: Quantity


def read(account: Account, user: User, text: str, keep: bool) -> ImportOut:
    """What a file would put in the book, line by line; with `keep`, do it where nothing is at fault.

    The lines go in by their dates, so that a rule that two of them break together is told at the later one.

    Raises:
        NotUnderstood, InputError: the file as a whole is at fault.
    """
    given = list(rows_of(text, NEEDED, READ))
    if len(given) > MOST_LINES:
        raise InputError("text", len(given), f"{len(given)} lines are too many at once.", f"Bring in {MOST_LINES} at most.")
    lines = []
    with transaction.atomic():
        for number, cells in sorted(given, key=lambda g: (g[1]["date"], g[1].get("time", ""), g[0])):
            with transaction.atomic():
                lines.append(_line(account, user, number, cells))
        refused = sum(line.act == "refused" for line in lines)
        if not keep or refused:
            transaction.set_rollback(True)
    lines.sort(key=lambda line: line.line)
    return ImportOut(lines=lines, refused=refused, sentence=brought_in(lines, keep))


def _line(account: Account, user: User, number: int, cells: Cells) -> LineChangeOut:
    name = f"{cells['date']} {cells['product']} on {cells['area']}"
    try:
        line = _known(account, cells)
        job = _job(line)
        used = _used(account, line, job)
        if _in_the_book(account, line, used):
            return LineChangeOut(line=number, name=name, act="same", changes=[], problems=[])
        done = DoneIn(job=job, finish=_finish(line, used), reason=cells.get("reason") or FROM_FILE)
        (entry,) = record_done(account, user, done, uuid4(), line.at)
        return LineChangeOut(line=number, name=name, act="add", changes=brought_line(entry), problems=[])
    except ValidationError as wrong:
        problems = [f"{'.'.join(map(str, e['loc']))}: {e['msg']}." for e in wrong.errors()]
    except Faulty as several:
        problems = [f"{f.field}: {f.sentence}" for f in several.faults]
    except InputError as fault:
        problems = [f"{fault.field}: {fault.sentence}"]
    return LineChangeOut(line=number, name=name, act="refused", changes=[], problems=problems)


def _known(account: Account, cells: Cells) -> Line:
    """A line with its things found by their names. Raises InputError by its column."""
    area = _area(account, cells)
    card = _named("product", cells["product"], cards(account).values(), lambda c: c.product)
    machine = _named("machine", cells["machine"], machines(account).values(), lambda m: m)
    try:
        at = datetime.fromisoformat(cells["date"]).date()
    except ValueError:
        raise InputError("date", cells["date"], f"“{cells['date']}” is no date.", "Write it like 2026-05-12.") from None
    treated = _amount(cells, "treated", AREA) or area.size
    when = moment_at(area, at, cells.get("time", ""))
    return Line(cells, when, area, card, machine, _row(account, cells, card, area), treated)


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


def _row(account: Account, cells: Cells, card: Card, area: Area) -> RateRow:
    """The row that a line names by its use, else the one that the label means for the ground."""
    rows = list(card.rows.values())
    if not rows:
        raise InputError("product", card.product.name, "Its card has no label rate.", "Add one on the shelf first.")
    use = cells.get("use", "").casefold()
    named = [i for i, r in enumerate(rows) if use and r.use.casefold() == use]
    fitting = [f.index for f in fits(card.label_rows, area.ground, cells.get("target", ""))]
    return rows[next((i for i in fitting if i in named), fitting[0])]


def _job(line: Line) -> JobIn:
    """A line as the job it was, at the planned rate, else at the actual one. Raises InputError where neither is told."""
    cells = line.cells
    rate = _rate(cells, "planned_rate") or _rate(cells, "actual_rate")
    if rate is None:
        used, spray = _amount(cells, "used", MASS, VOLUME), _amount(cells, "spray", VOLUME)
        if used is None:
            raise InputError("used", "", "How much was used is missing.", "Fill in used and used_unit, or actual_rate.")
        rate = actual_rate(line.card.core, line.row.label(), used, line.treated, spray)
    part = PartIn(
        area_id=line.area.pk,
        row_id=line.row.pk,
        rate=_typed(rate.value, rate.unit.key),
        treated=_typed(line.treated.value, line.treated.unit.key),
        zone=cells.get("zone", ""),
    )
    return JobIn(
        product_id=line.card.product.pk,
        machine_id=line.machine.pk,
        parts=[part],
        passes=int(read_number(cells.get("passes") or "1", "passes")),
        target=cells.get("target", ""),
    )


def _used(account: Account, line: Line, job: JobIn) -> Quantity:
    """What was used: as told, else what the actual rate comes to, else the planned one."""
    if told := _amount(line.cells, "used", MASS, VOLUME):
        return told
    if actual := _rate(line.cells, "actual_rate"):
        part = job.parts[0].model_copy(update={"rate": _typed(actual.value, actual.unit.key)})
        job = job.model_copy(update={"parts": [part]})
    return reckoned(account, job, line.at).job.amount


def _finish(line: Line, used: Quantity) -> FinishIn:
    """A line as the finish of its round."""
    cells, spray = line.cells, _amount(line.cells, "spray", VOLUME)
    return FinishIn(
        used=_typed(used.value, used.unit.key),
        spray=_typed(spray.value, spray.unit.key) if spray else None,
        lot=cells.get("lot", ""),
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


def _in_the_book(account: Account, line: Line, used: Quantity) -> bool:
    """Whether the book has it already: the same product on the same ground and day, as much of it."""
    held = Entry.objects.filter(
        account=account,
        area=line.area,
        product=line.card.product,
        applied_on=local_day(line.area, line.at),
        zone=line.cells.get("zone", ""),
    )
    return any(abs(e.used.base / used.base - 1) < ALIKE for e in held if e.used.unit.dimension == used.unit.dimension)
