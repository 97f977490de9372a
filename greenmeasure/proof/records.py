"""Records of applications, as authorities and customers want them: by days, ground and product."""

import csv
from collections.abc import Iterator, Sequence
from dataclasses import replace

from core.days import clock as at_clock
from core.days import dated
from core.errors import InputError
from core.label.product import Kind
from core.ledger.locks import Forbidden, Lock, locks_of
from greenmeasure.accounts.models import Account, sites_of
from greenmeasure.accounts.sites import site_of
from greenmeasure.book.models import Application, Entry
from greenmeasure.book.queries import applications, entry_out
from greenmeasure.book.words import where
from greenmeasure.common.csv_text import Echo, safe
from greenmeasure.common.schemas import FactOut
from greenmeasure.ground.queries import area_of, kin
from greenmeasure.proof.schemas import RecordOut, RecordProductOut, RecordsAsked, RecordsOut
from greenmeasure.proof.words import LICENCE, REGISTRATION, WIND, records_sentence
from greenmeasure.shelf.queries import card_of

BOUND = {k.value for k in Kind if k.label_binds}
MOST = 2_000
"""Applications in one document (ours)."""


def found(account: Account, asked: RecordsAsked) -> list[Application]:
    """The applications that are asked for, the oldest first; struck ones are none.

    Raises:
        InputError: the days run backwards, or there are too many for one document.
        Missing: no such site, area or product.
    """
    if asked.begin and asked.end and asked.end < asked.begin:
        raise InputError("end", asked.end, "The last day is before the first.", "Give the later day as the last.")
    rows = applications(account)
    if asked.begin:
        rows = rows.filter(applied_on__gte=asked.begin)
    if asked.end:
        rows = rows.filter(applied_on__lte=asked.end)
    if asked.site_id:
        rows = rows.filter(area__site_id=site_of(account, asked.site_id).pk)
    if asked.area_id:
        rows = rows.filter(area_id__in=kin(account, area_of(account, asked.area_id).pk))
    if asked.product_id:
        rows = rows.filter(entries__product_id=card_of(account, asked.product_id).product.pk).distinct()
    if (count := rows.count()) > MOST:
        raise InputError("begin", count, f"{count:,} applications are too many for one document.", "Ask for fewer days.")
    return list(rows.select_related("area__site", "round", "account").prefetch_related("entries").order_by("finished_at", "pk"))


def records(account: Account, asked: RecordsAsked) -> RecordsOut:
    """The records that are asked for. Raises as `found`."""
    every = found(account, asked)
    told = records_sentence(len(every), asked.begin, asked.end)
    return RecordsOut(sentence=told, records=[record_out(a) for a in every], lacks=_lacks(every))


def record_out(a: Application) -> RecordOut:
    """An application as a record."""
    zone = a.zone_there
    begun = a.round.at if a.round and a.round.at and a.round.at < a.finished_at else None
    return RecordOut(
        application_id=a.pk,
        day=dated(a.applied_on),
        begun=f"{begun.astimezone(zone):%H:%M}" if begun else "",
        ended=f"{a.finished_at.astimezone(zone):%H:%M}",
        site=a.area.site.name if a.area and len(sites_of(a.account)) > 1 else "",
        area=where(a),
        treated=str(a.treated),
        products=[_product_out(a, e) for e in sorted(a.entries.all(), key=lambda e: e.position)],
        spray=str(a.spray) if a.spray else "",
        machine=a.machine_name,
        wind=a.wind,
        air=a.air,
        looked=a.looked,
        reentry=_reentry(a),
        applicator=a.by_name,
        licence=a.licence,
        note=a.note,
    )


def _product_out(a: Application, entry: Entry) -> RecordProductOut:
    told = entry_out(entry, a)
    return RecordProductOut(
        product=told.product,
        registration=told.registration,
        contents=told.contents,
        rate=told.actual or "to taste",
        label=told.label,
        amount=told.used,
        target=told.target or told.use,
        lot=told.lot,
        against=told.against,
    )


def locks(a: Application) -> list[Lock]:
    """What an application keeps off its ground, those that end first first."""
    put = [replace(e.applied(), at=a.finished_at) for e in a.entries.all()]
    return locks_of(put, a.zone_there)


def _reentry(a: Application) -> str:
    """When people might walk there again, as the labels say; empty where they say nothing."""
    ends = [x.end for x in locks(a) if x.what is Forbidden.WALK]
    return at_clock(max(ends), a.zone_there) if ends else ""


def _lacks(every: Sequence[Application]) -> list[FactOut]:
    """What authorities ask for and some applications do not tell: how many, and where it is filled in."""
    bound = [a for a in every if any(_bound(e) for e in a.entries.all())]
    wanted = (
        ("Licence number", sum(not a.licence for a in bound), LICENCE),
        ("Registration number", sum(any(_bound(e) and not e.registration for e in a.entries.all()) for a in bound), REGISTRATION),
        ("Wind", sum(a.spray is not None and not a.wind for a in bound), WIND),
    )
    return [FactOut(name=name, text=how.format(count=count)) for name, count, how in wanted if count]


def _bound(e: Entry) -> bool:
    return e.kind in BOUND


COLUMNS = ("day", "begun", "ended", "site", "area", "treated", "spray", "machine", "wind", "air", "looked", "reentry")
OF_PRODUCT = ("product", "registration", "contents", "rate", "label", "amount", "target", "lot")
LAST = ("applicator", "licence", "note")


def csv_lines(account: Account, asked: RecordsAsked) -> Iterator[str]:
    """The records as CSV (RFC 4180), a line a product, the oldest first, a header line before. Raises as `found`."""
    every = records(account, asked).records
    writer = csv.writer(Echo())
    yield writer.writerow([*COLUMNS, *OF_PRODUCT, "against", *LAST])
    for r in every:
        for p in r.products:
            cells = [getattr(r, c) for c in COLUMNS] + [getattr(p, c) for c in OF_PRODUCT]
            yield writer.writerow([safe(x) for x in (*cells, " ".join(p.against), *(getattr(r, c) for c in LAST))])
