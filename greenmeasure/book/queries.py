"""What is read of the book, and its CSV."""

import csv
from collections.abc import Iterator
from datetime import datetime
from typing import Any

from django.db.models import Q, QuerySet

from core.days import dated
from core.label.product import Kind
from core.label.rate import show_label_rate
from core.ledger.history import Applied
from core.rates.limits import judge
from greenmeasure.accounts.models import Account
from greenmeasure.book.models import Entry
from greenmeasure.book.schemas import BookOut, EntryOut
from greenmeasure.book.words import again, book_sentence, target_name, where
from greenmeasure.common.csv_text import Echo, safe
from greenmeasure.common.errors import Missing
from greenmeasure.common.judgements import judgement_out
from greenmeasure.common.kept import kept
from greenmeasure.common.models import seen_by
from greenmeasure.common.schemas import rule_out
from greenmeasure.ground.queries import kin

PER_PAGE = 25


def entries(account: Account, words: str = "") -> QuerySet[Entry]:
    """The entries that are seen, newest first; every word must stand in area, product, use, contents, person or note."""
    found = Entry.objects.filter(seen_by(account, "area__site"), account=account)
    for word in words.split()[:8]:
        places = ("area_name", "product_name", "use", "contents", "group_code", "machine_name", "by_name", "note", "kind")
        either = Q()
        for place in places:
            either |= Q(**{f"{place}__icontains": word})
        found = found.filter(either)
    return found


def entry_of(account: Account, pk: int) -> Entry:
    """An entry that is seen. Raises Missing."""
    found = entries(account).filter(pk=pk).first()
    if found is None:
        raise Missing("entry")
    return found


def entry_out(entry: Entry) -> EntryOut:
    """An entry in words, with where it stands against its label."""
    kind, label, actual = Kind(entry.kind), entry.label, entry.actual
    binds = entry.applied().label_binds
    return EntryOut(
        id=entry.pk,
        applied_on=entry.applied_on,
        day=dated(entry.applied_on),
        finished_at=entry.finished_at,
        area=where(entry),
        treated=str(entry.treated),
        area_id=entry.area_id,
        product_id=entry.product_id,
        machine_id=entry.machine_id,
        product=entry.product_name,
        kind=kind.text,
        contents=entry.contents,
        group_code=entry.group_code,
        use=entry.use,
        target=target_name(entry.target),
        lot=entry.lot,
        again=again(entry),
        label=show_label_rate(label),
        planned=str(entry.planned),
        actual=str(actual),
        judgement=judgement_out(judge(actual, label, binds)),
        rule=rule_out(label, actual.value, binds),
        used=str(entry.used),
        spray=str(entry.spray) if entry.spray else "",
        machine=entry.machine_name,
        passes=entry.passes,
        loads=entry.loads,
        cost=f"{entry.cost:,} {entry.currency}" if entry.cost is not None else "",
        wind=entry.wind,
        air=entry.air,
        looked=entry.looked,
        note=entry.note,
        by=entry.by_name,
        against=entry.against.splitlines(),
        reason=entry.reason,
    )


@kept
def histories(account: Account) -> dict[int, list[Applied]]:
    """What has gone down on each area, by its id."""
    found: dict[int, list[Applied]] = {}
    for entry in entries(account).filter(area__isnull=False).defer("note", "contents"):
        found.setdefault(entry.area_id or 0, []).append(entry.applied())
    return found


def history(account: Account, area_id: int) -> list[Applied]:
    """What has gone down on an area, on what it is part of, and on its parts."""
    every = histories(account)
    return [a for pk in kin(account, area_id) for a in every.get(pk, ())]


def book(account: Account, words: str, page: int) -> BookOut:
    """A page of the book, narrowed by words."""
    found = entries(account, words)
    count = found.count()
    pages = max(1, -(-count // PER_PAGE))
    page = min(max(1, page), pages)
    shown = found[(page - 1) * PER_PAGE : page * PER_PAGE]
    above = found.filter(Q(stand="above") | ~Q(against="")).count()
    return BookOut(
        entries=[entry_out(e) for e in shown], count=count, page=page, pages=pages, sentence=book_sentence(words, count, above)
    )


# --- CSV --------------------------------------------------------------------------------------------------------

COLUMNS: tuple[tuple[str, Any], ...] = (
    ("date", lambda e: e.applied_on.isoformat()),
    ("time", lambda e: _there(e).strftime("%H:%M") if e.area else ""),
    ("finished_at_utc", lambda e: e.finished_at.strftime("%Y-%m-%dT%H:%M:%SZ")),
    ("site", lambda e: e.area.site.name if e.area else ""),
    ("area", lambda e: e.area_name),
    ("zone", lambda e: e.zone),
    ("treated", lambda e: exact_plain(e.treated_value)),
    ("treated_unit", lambda e: e.treated.unit.symbol),
    ("product", lambda e: e.product_name),
    ("type", lambda e: Kind(e.kind).text),
    ("contents", lambda e: e.contents),
    ("group", lambda e: e.group_code),
    ("lot", lambda e: e.lot),
    ("use", lambda e: e.use),
    ("target", lambda e: target_name(e.target)),
    ("label_rate", lambda e: show_label_rate(e.label)),
    ("label_low", lambda e: exact_plain(e.label.lowest.value)),
    ("label_high", lambda e: exact_plain(e.label.highest.value)),
    ("planned_rate", lambda e: exact_plain(e.planned_value)),
    ("actual_rate", lambda e: exact_plain(e.actual_value)),
    ("rate_unit", lambda e: e.actual.unit.symbol),
    ("against_label", lambda e: e.stand),
    ("against_rules", lambda e: e.against.replace("\n", " ")),
    ("reason", lambda e: e.reason),
    ("used", lambda e: exact_plain(e.used_value)),
    ("used_unit", lambda e: e.used.unit.symbol),
    ("spray", lambda e: exact_plain(e.spray_value) if e.spray_value is not None else ""),
    ("spray_unit", lambda e: e.spray.unit.symbol if e.spray else ""),
    ("machine", lambda e: e.machine_name),
    ("passes", lambda e: str(e.passes)),
    ("loads", lambda e: str(e.loads)),
    ("cost", lambda e: str(e.cost) if e.cost is not None else ""),
    ("currency", lambda e: e.currency),
    ("wind", lambda e: e.wind),
    ("air", lambda e: e.air),
    ("looked", lambda e: e.looked),
    ("applicator", lambda e: e.by_name),
    ("note", lambda e: e.note),
)


def _there(entry: Entry) -> datetime:
    """When it was done, by the clock of its ground."""
    assert entry.area
    return entry.finished_at.astimezone(entry.area.site.zone)


def exact_plain(value: float) -> str:
    """A number that a spreadsheet reads: all its digits, no grouping."""
    return repr(float(value)) if value != int(value) else str(int(value))


def csv_lines(found: QuerySet[Entry]) -> Iterator[str]:
    """The book as CSV (RFC 4180), oldest first, a header line before."""
    writer = csv.writer(Echo())
    yield writer.writerow([name for name, _ in COLUMNS])
    for entry in found.select_related("area__site").order_by("finished_at").iterator():
        yield writer.writerow([safe(value(entry)) for _, value in COLUMNS])
