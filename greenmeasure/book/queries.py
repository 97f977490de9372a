"""What is read of the book, and its CSV."""

import csv
import re
from collections.abc import Iterator
from itertools import combinations
from typing import Any

from django.db.models import Count, Q, QuerySet

from core.days import dated
from core.label.product import Kind
from core.label.rate import show_label_rate
from core.rates.limits import judge
from core.readable import joined
from core.units import exact_number
from greenmeasure.accounts.models import Account, sites_of
from greenmeasure.book import facts
from greenmeasure.book.models import Application, Entry
from greenmeasure.book.schemas import ApplicationOut, BookOut, ChangeOut, EntryOut, FormerOut
from greenmeasure.book.words import again, book_sentence, target_name, where
from greenmeasure.common.csv_text import Echo, safe
from greenmeasure.common.errors import Missing
from greenmeasure.common.judgements import judgement_out
from greenmeasure.common.kept import kept
from greenmeasure.common.models import seen_by
from greenmeasure.common.schemas import rule_out
from greenmeasure.ground.queries import areas
from greenmeasure.shelf.queries import cards

PER_PAGE = 25


def applications(account: Account, words: str = "", *, struck: bool = False) -> QuerySet[Application]:
    """The applications that are seen, newest first; every word must stand in area, person or note, or in one of its products.

    A name of several words, of an area, a site or a product, is that one and no other: Yard 1 is not Yard 10. Those that are
    struck are among them only where they are asked for.
    """
    found = Application.objects.filter(seen_by(account, "area__site"), account=account)
    found = found if struck else found.filter(struck_at=None)
    if not words.strip():
        return found
    named, rest = _named(account, words)
    for one in (*named, *map(_with, rest.split()[:8])):
        found = found.filter(one)
    return found.distinct()


def _named(account: Account, words: str) -> tuple[list[Q], str]:
    """What the names in some words ask for, the longest name first, and the words that are no name."""
    kinds: dict[str, Q] = {}

    def name(text: str, asked: Q) -> None:
        """A name that is asked for, unless it is one word, which may be of many names."""
        if " " in text and text.lower() in words.lower():
            kinds[text.lower()] = kinds.get(text.lower(), Q()) | asked

    for area in areas(account).values():
        name(area.name, Q(area_id=area.pk) | Q(area_name__iexact=area.name))
    for site in sites_of(account).values():
        name(site.name, Q(area__site_id=site.pk))
    for card in cards(account).values():
        name(card.product.name, Q(entries__in=Entry.objects.filter(product_name__iexact=card.product.name)))
    asked, left = [], words.lower()
    for one in sorted(kinds, key=len, reverse=True):
        if re.search(whole := rf"(?<!\w){re.escape(one)}(?!\w)", left):
            asked.append(kinds[one])
            left = re.sub(whole, " ", left)
    return asked, left


def _with(word: str) -> Q:
    """Applications that have a word somewhere."""
    either = Q()
    for place in ("area_name", "machine_name", "by_name", "note"):
        either |= Q(**{f"{place}__icontains": word})
    for place in ("product_name", "use", "contents", "group_code", "kind"):
        either |= Q(entries__in=Entry.objects.filter(**{f"{place}__icontains": word}))
    return either


def entries(account: Account) -> QuerySet[Entry]:
    """The entries that are seen, newest first, with their applications."""
    found = Entry.objects.filter(seen_by(account, "application__area__site"), application__account=account)
    return found.select_related("application")


@kept("book")
def mixed_before(account: Account) -> frozenset[frozenset[int]]:
    """The pairs of products that have been in one tank, by their ids, whoever saw to it."""
    mixes: dict[int, list[int]] = {}
    several = Application.objects.filter(account=account, struck_at=None).annotate(count=Count("entries")).filter(count__gt=1)
    held = Entry.objects.filter(application__in=several, product__isnull=False)
    for application, product in held.values_list("application", "product"):
        mixes.setdefault(application, []).append(product)
    return frozenset(frozenset(pair) for mix in mixes.values() for pair in combinations(mix, 2))


def application_of(account: Account, pk: int) -> Application:
    """An application that is seen. Raises Missing."""
    found = applications(account, struck=True).filter(pk=pk).first()
    if found is None:
        raise Missing("application")
    return found


def application_out(found: Application) -> ApplicationOut:
    """An application in words, product by product."""
    made = [entry_out(e, found) for e in sorted(found.entries.all(), key=lambda e: e.position)]
    return ApplicationOut(
        id=found.pk,
        applied_on=found.applied_on,
        day=dated(found.applied_on),
        finished_at=found.finished_at,
        area=where(found),
        treated=str(found.treated),
        area_id=found.area_id,
        machine_id=found.machine_id,
        name=joined([e.product for e in made]),
        rates=joined([e.actual or "to taste" for e in made]),
        entries=made,
        spray=str(found.spray) if found.spray else "",
        machine=found.machine_name,
        passes=found.passes,
        loads=found.loads,
        wind=found.wind,
        air=found.air,
        looked=found.looked,
        note=found.note,
        by=found.by_name,
        licence=found.licence,
        clock=f"{found.finished_at.astimezone(found.zone_there):%H:%M}",
        struck=found.struck,
        formers=[
            FormerOut(day=dated(f.at.date()), by=f.by, why=f.why, changes=[ChangeOut(**c) for c in f.told])
            for f in found.formers.all()
        ],
    )


def entry_out(entry: Entry, of: Application) -> EntryOut:
    """A product of an application in words, with where it stands against its label."""
    label, actual = entry.label, entry.actual
    binds = facts.read(entry.facts, of.applied_on, entry.product_name, Kind(entry.kind), entry.product_id).label_binds
    return EntryOut(
        id=entry.pk,
        product_id=entry.product_id,
        product=entry.product_name,
        kind=Kind(entry.kind).text,
        contents=entry.contents,
        group_code=entry.group_code,
        registration=entry.registration,
        use=entry.use,
        target=target_name(entry.target),
        lot=entry.lot,
        again=again(entry, of.applied_on),
        label=show_label_rate(label) if label else "",
        planned=str(entry.planned or ""),
        actual=str(actual or ""),
        used_value=exact_number(entry.used_value) if entry.used_value is not None else "",
        used_unit=entry.used_unit,
        judgement=judgement_out(judge(actual, label, binds)) if actual and label else None,
        rule=rule_out(label, actual.value, binds) if actual and label else None,
        used=str(entry.used or ""),
        cost=f"{entry.cost:,} {entry.currency}" if entry.cost is not None else "",
        against=entry.against.splitlines(),
        reason=entry.reason,
    )


def book(account: Account, words: str, page: int) -> BookOut:
    """A page of the book, narrowed by words."""
    found = applications(account, words, struck=True).select_related("account", "area__site")
    count = found.count()
    pages = max(1, -(-count // PER_PAGE))
    page = min(max(1, page), pages)
    shown = found.prefetch_related("entries", "formers")[(page - 1) * PER_PAGE : page * PER_PAGE]
    marked = Entry.objects.filter(Q(stand="above") | ~Q(against=""))
    above = found.filter(entries__in=marked, struck_at=None).distinct().count()
    return BookOut(
        applications=[application_out(a) for a in shown],
        count=count,
        page=page,
        pages=pages,
        sentence=book_sentence(words, count, above),
    )


# --- CSV --------------------------------------------------------------------------------------------------------

COLUMNS: tuple[tuple[str, Any], ...] = (
    ("application", lambda e: str(e.application_id)),
    ("date", lambda e: e.application.applied_on.isoformat()),
    ("time", lambda e: _there(e.application)),
    ("finished_at_utc", lambda e: e.application.finished_at.strftime("%Y-%m-%dT%H:%M:%SZ")),
    ("site", lambda e: e.application.area.site.name if e.application.area else ""),
    ("area", lambda e: e.application.area_name),
    ("zone", lambda e: e.application.zone),
    ("spots", lambda e: "yes" if e.application.spots else ""),
    ("treated", lambda e: exact_plain(e.application.treated_value)),
    ("treated_unit", lambda e: e.application.treated.unit.symbol),
    ("product", lambda e: e.product_name),
    ("type", lambda e: Kind(e.kind).text),
    ("contents", lambda e: e.contents),
    ("group", lambda e: e.group_code),
    ("registration", lambda e: e.registration),
    ("lot", lambda e: e.lot),
    ("use", lambda e: e.use),
    ("target", lambda e: target_name(e.target)),
    ("label_rate", lambda e: show_label_rate(e.label) if e.label else ""),
    ("label_low", lambda e: exact_plain(e.label and e.label.lowest.value)),
    ("label_high", lambda e: exact_plain(e.label and e.label.highest.value)),
    ("planned_rate", lambda e: exact_plain(e.planned_value)),
    ("actual_rate", lambda e: exact_plain(e.actual_value)),
    ("rate_unit", lambda e: e.actual.unit.symbol if e.actual else ""),
    ("against_label", lambda e: e.stand),
    ("against_rules", lambda e: e.against.replace("\n", " ")),
    ("reason", lambda e: e.reason),
    ("used", lambda e: exact_plain(e.used_value)),
    ("used_unit", lambda e: e.used.unit.symbol if e.used else ""),
    ("spray", lambda e: exact_plain(e.application.spray_value)),
    ("spray_unit", lambda e: e.application.spray.unit.symbol if e.application.spray else ""),
    ("machine", lambda e: e.application.machine_name),
    ("passes", lambda e: str(e.application.passes)),
    ("loads", lambda e: str(e.application.loads)),
    ("cost", lambda e: str(e.cost) if e.cost is not None else ""),
    ("currency", lambda e: e.currency),
    ("wind", lambda e: e.application.wind),
    ("air", lambda e: e.application.air),
    ("looked", lambda e: e.application.looked),
    ("applicator", lambda e: e.application.by_name),
    ("licence", lambda e: e.application.licence),
    ("note", lambda e: e.application.note),
)


def _there(found: Application) -> str:
    """The hour at which it was done, by the clock of its ground."""
    return f"{found.finished_at.astimezone(found.area.site.zone):%H:%M}" if found.area else ""


def exact_plain(value: float | None) -> str:
    """A number that a spreadsheet reads: all its digits, no grouping; nothing for none."""
    if value is None:
        return ""
    return repr(float(value)) if value != int(value) else str(int(value))


def csv_lines(account: Account, words: str) -> Iterator[str]:
    """The book as CSV (RFC 4180), a line an entry, oldest first, a header line before."""
    writer = csv.writer(Echo())
    yield writer.writerow([name for name, _ in COLUMNS])
    shown = applications(account, words).values("pk")
    found = entries(account).filter(application__in=shown).select_related("application__area__site")
    for entry in found.order_by("application__finished_at", "application", "position").iterator():
        yield writer.writerow([safe(value(entry)) for _, value in COLUMNS])
