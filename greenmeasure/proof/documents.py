"""The documents: records, the notice for the gate, and the customer's note, each from what the book holds."""

from collections.abc import Sequence
from datetime import date

from reportlab.platypus import Flowable

from core.book.after import signs
from core.ledger.locks import Forbidden
from greenmeasure.accounts.models import Account
from greenmeasure.book.models import Application
from greenmeasure.book.words import target_name
from greenmeasure.common import clock
from greenmeasure.outings.models import Outing
from greenmeasure.outings.queries import outing_out
from greenmeasure.proof.paper import gap, pages, printed, table, together, words
from greenmeasure.proof.records import locks, records
from greenmeasure.proof.schemas import RecordOut, RecordsAsked
from greenmeasure.proof.words import (
    ACT_HEAD,
    ASKED,
    DRY,
    LABEL_FIRST,
    TO_TASTE,
    TOP_UP,
    WATER,
    act_on_paper,
    foot,
    measured_text,
    people_text,
    person_text,
    put_down,
    site_lines,
    when,
    whom,
)
from greenmeasure.reckon.outs import job_out
from greenmeasure.reckon.queries import reckoned
from greenmeasure.reckon.schemas import LoadOut
from greenmeasure.rounds.models import Round
from greenmeasure.rounds.queries import round_out
from greenmeasure.scouting.followups import kinds_of


def records_pdf(account: Account, asked: RecordsAsked, today: date) -> bytes:
    """The records that are asked for as PDF. Raises as `greenmeasure.proof.records.found`."""
    told = records(account, asked)
    parts: list[Flowable] = [words(f"{account.name}: records of applications", size=16, strong=True, after=3)]
    parts += [words(told.sentence, size=10, soft=True, after=10)]
    for record in told.records:
        parts += [together(_record(record)), gap(10)]
    return printed("Records of applications", parts, us=account.us, wide=True, foot=foot(account.name, today))


def _record(r: RecordOut) -> list[Flowable]:
    hours = f"{r.begun} to {r.ended}" if r.begun else r.ended
    where = ", ".join(x for x in (r.site, r.area, f"{r.treated} treated") if x)
    head = ("Product", "Registration", "Holds", "Rate", "The label says", "Amount", "Against", "Lot")
    rows = [(p.product, p.registration, p.contents, p.rate, p.label, p.amount, p.target, p.lot) for p in r.products]
    facts = (
        ("Applicator", ", licence ".join(x for x in (r.applicator, r.licence) if x)),
        ("Machine", r.machine),
        ("Spray", r.spray),
        ("Wind", r.wind),
        ("Air", r.air),
        ("Looked at", r.looked),
        ("Re-entry from", r.reentry),
        ("Note", r.note),
    )
    against = [words(f"Against the label: {rule}", size=8.5) for p in r.products for rule in p.against]
    return [
        words(f"{r.day}, {hours}: {where}", size=11, strong=True, after=2),
        table(head, rows, (3, 2, 4, 2.4, 3.2, 1.8, 2.6, 1.4)),
        gap(2),
        words("; ".join(f"{name}: {text}" for name, text in facts if text), size=8.5, soft=True),
        *against,
    ]


def gate_pdf(account: Account, every: Sequence[Application]) -> bytes:
    """The notice for the gate of each application, a page each: what was put down, and until when to keep off."""
    title = f"Notice for {every[0].area_name}" if len(every) == 1 else "Notices for the gates"
    return printed(title, pages([_gate(account, a) for a in every]), us=account.us, foot=LABEL_FIRST)


def _gate(account: Account, a: Application) -> list[Flowable]:
    until = {x.what: x.until(a.zone_there) for x in locks(a)}
    ground = a.area_name
    return [
        words("Keep off" if Forbidden.WALK in until else "Treated turf", size=46, strong=True, after=8),
        words(ground, size=26, strong=True, after=18),
        words(ASKED[Forbidden.WALK].format(until=until[Forbidden.WALK]) if Forbidden.WALK in until else DRY, size=20, after=14),
        *(words(ASKED[what].format(until=end), size=15, after=6) for what, end in until.items() if what is not Forbidden.WALK),
        gap(14),
        words(put_down(a), size=15, after=14),
        words(whom(account.name, a.area.site if a.area else None), size=13, soft=True),
    ]


def note_pdf(account: Account, every: Sequence[Application]) -> bytes:
    """The customer's note of each application, a page each: what was done, what to leave be until when, what will be seen."""
    title = f"Note on {every[0].area_name}" if len(every) == 1 else "Customers’ notes"
    return printed(title, pages([_note(account, a) for a in every]), us=account.us, foot=LABEL_FIRST)


def _note(account: Account, a: Application) -> list[Flowable]:
    until = {x.what: x.until(a.zone_there) for x in locks(a)}
    kinds = kinds_of(a)
    left = [ASKED[what].format(until=end) for what, end in until.items()]
    put = [(e.product_name, e.contents, e.use or target_name(e.target)) for e in a.entries.all()]
    parts: list[Flowable] = [
        words(f"What was done on {a.area_name}", size=18, strong=True, after=4),
        words(f"{when(a)}, by {a.by_name}", size=11, soft=True, after=12),
        table(("What", "Holds", "Against"), put, (3, 4, 3)),
        gap(14),
        words("Until when to leave it be", size=13, strong=True, after=4),
        *(words(said, size=11, after=3) for said in (left or [DRY])),
        gap(10),
    ]
    if seen := signs(kinds):
        parts.append(words("What you will see", size=13, strong=True, after=4))
        parts += [words(f"Day {s.first} to {s.last}: {s.text}", size=11, after=3) for s in seen]
    return [*parts, gap(14), words(whom(account.name, a.area.site if a.area else None), size=10, soft=True)]


def outing_pdf(account: Account, outing: Outing) -> bytes:
    """An outing for whoever goes: what to know of each site, the acts in order with room to tick, and what is to be measured."""
    told = outing_out(account, outing)
    head = "; ".join(x for x in (told.day, told.crew, people_text(told.people)) if x)
    parts: list[Flowable] = [words(told.sentence, size=18, strong=True, after=3), words(head, size=11, soft=True, after=10)]
    for s in told.sites:
        facts = [(name, text) for name, text in site_lines(s) if text]
        if facts:
            parts += [words(s.name, size=12, strong=True, after=2), table(("What", "Told"), facts, (2, 9)), gap(8)]
    acts = [(a.time, person_text(a.who, told.people), act_on_paper(a), a.note, "") for a in told.acts]
    parts += [words("In order", size=12, strong=True, after=2), table(ACT_HEAD, acts, (2, 1.4, 6, 4, 1.4)), gap(12)]
    for job in told.jobs:
        if job.asked and job.state == "open":
            sheet = job_out(reckoned(account, job.asked))
            parts += [words(sheet.headline, size=12, strong=True, after=4)]
            parts += [block for load in sheet.loads for block in (_load(load), gap(10))]
    return printed(told.sentence, parts, us=account.us, foot=foot(account.name, clock.today(account)))


def measuring_pdf(account: Account, found: Round) -> bytes:
    """The measuring list of a round: for each load what is measured in what, with room for what it really was."""
    told = round_out(found)
    sheet = told.sheet
    parts: list[Flowable] = [
        words("To measure", size=18, strong=True, after=3),
        words(sheet.headline, size=11, after=3),
        words("; ".join(x for x in (told.at_text, sheet.machine, sheet.where) if x), size=10, soft=True, after=10),
        table(("Wear for mixing", "On"), [(w.text, "") for w in sheet.wear if w.when == "mixing"], (9, 1)),
        gap(10),
    ]
    for load in sheet.loads:
        parts += [_load(load), gap(10)]
    return printed("Measuring list", parts, us=account.us, foot=foot(account.name, clock.today(account)))


def _load(load: LoadOut) -> Flowable:
    """What goes into a load, with room for what it really was."""
    head = ", ".join(x for x in (load.name, load.where, load.covers and f"covers {load.covers}") if x)
    rows = [(p.product, p.amount or TO_TASTE, measured_text(p), "") for p in load.pours]
    water = [(WATER, load.water, TOP_UP.format(volume=load.volume), "")] if load.water else []
    return together(
        [
            words(head, size=12, strong=True, after=2),
            table(("What", "How much", "In what", "Really measured"), [*rows, *water], (3, 2.4, 4, 2)),
        ]
    )
