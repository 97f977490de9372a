"""What follows applications: what to expect, when to look again, how it was then, and what several without effect call for."""

from collections.abc import Iterable
from datetime import date, timedelta

from core.book import after as core
from core.book.after import How, Tried, read_days
from core.days import dated
from core.label.product import Kind
from core.label.targets import PESTS, TARGETS, find_target
from core.readable import joined
from greenmeasure.accounts.models import Account
from greenmeasure.book.models import Application, Entry
from greenmeasure.book.queries import applications
from greenmeasure.common.errors import Missing
from greenmeasure.common.kept import kept
from greenmeasure.common.models import seen_by
from greenmeasure.common.schemas import FactOut, OptionOut
from greenmeasure.scouting.models import FollowUp, Photo, Spot
from greenmeasure.scouting.queries import photos
from greenmeasure.scouting.schemas import AfterOut, FollowDueOut, FollowUpOut, ShotOut, SpotSinceOut
from greenmeasure.scouting.words import CARD_SAYS, days_text, follow_text, looks_text, shot_text, since_text
from greenmeasure.shelf.queries import cards

KNOWN = {k.value for k in Kind}
YEAR = timedelta(days=400)
"""How far back applications are looked through for those without effect (ours)."""


def followup_of(account: Account, pk: int) -> FollowUp:
    """What was said of an application that is seen. Raises Missing."""
    found = FollowUp.objects.filter(seen_by(account, "application__area__site"), application__account=account, pk=pk)
    one = found.select_related("application").prefetch_related("application__entries").first()
    if one is None:
        raise Missing("follow-up")
    return one


def kinds_of(application: Application) -> list[Kind]:
    """The kinds of its products."""
    return [Kind(e.kind) for e in application.entries.all() if e.kind in KNOWN]


def preventive(application: Application) -> bool:
    """Whether it went down before anything was there."""
    return any("preventive" in e.use.lower() for e in application.entries.all())


def days_of(account: Account, application: Application) -> list[int]:
    """The days after an application on which to look: those of its cards, else those usual for its kinds in this house."""
    own: dict[Kind, list[int]] = {}
    for e in application.entries.all():
        card = cards(account).get(e.product_id or 0)
        if card and card.product.looks and e.kind in KNOWN:
            own.setdefault(Kind(e.kind), []).extend(read_days(card.product.looks))
    rhythm = core.Rhythm(account.house_rules.of("look_after"))
    return core.looks(kinds_of(application), preventive(application), own, rhythm)


def said_by_cards(account: Account, application: Application) -> list[str]:
    """What the cards of its products say is seen after them."""
    found = [cards(account).get(e.product_id or 0) for e in application.entries.all()]
    return [c.product.expect for c in found if c and c.product.expect]


def products_of(application: Application) -> str:
    """The products that something follows from, in words."""
    named = [e.product_name for e in application.entries.all() if e.kind in core.COURSES]
    return joined(list(dict.fromkeys(named)))


@kept("book", "scouting", "ground", "shelf")
def due_followups(account: Account, today: date) -> tuple[FollowDueOut, ...]:
    """Whose day to look has come, the oldest first; of several of one kind on an area the latest alone is asked for.

    Args:
        account: whose.
        today: the day it is asked.
    """
    recent = applications(account).filter(applied_on__gte=today - core.WINDOW, applied_on__lte=today, area__archived_at=None)
    found: dict[tuple[int, frozenset[Kind]], FollowDueOut | None] = {}
    rows = recent.select_related("area__site").prefetch_related("entries", "followups").order_by("-applied_on", "-pk")
    for a in rows:
        kinds = kinds_of(a)
        days = days_of(account, a)
        key = (a.area_id or 0, frozenset(k for k in kinds if k in core.COURSES))
        if a.area is None or not days or key in found:
            continue
        answered = [f.on for f in _standing(a.followups.all())]
        found[key] = _due_out(account, a, today) if core.due(a.applied_on, days, today, answered) is not None else None
    return tuple(sorted((x for x in found.values() if x), key=lambda x: x.on))


def _due_out(account: Account, a: Application, today: date) -> FollowDueOut:
    assert a.area
    kinds, gone = kinds_of(a), (today - a.applied_on).days
    return FollowDueOut(
        application_id=a.pk,
        area_id=a.area.pk,
        area=a.area.name,
        on=a.applied_on,
        since=since_text(gone, products_of(a), _target_name(a)),
        signs=[*said_by_cards(account, a), *(s.text for s in core.signs(kinds) if s.first <= gone <= s.last)],
        answers=[OptionOut(key=h.value, text=h.text) for h in core.answers(kinds)],
        spots=spots_since(account, a),
    )


def spots_since(account: Account, a: Application) -> list[SpotSinceOut]:
    """The fixed spots of an application's ground that were photographed, before it and since."""
    of: dict[Spot, list[Photo]] = {}
    for p in photos(account):
        if p.area_id == a.area_id and p.spot and p.spot.archived_at is None:
            of.setdefault(p.spot, []).append(p)
    found = []
    for spot, taken in of.items():
        since = next((p for p in taken if p.local.date() > a.applied_on), None)
        before = next((p for p in taken if p.local.date() <= a.applied_on), None)
        found.append(SpotSinceOut(spot_id=spot.pk, name=spot.name, before=_shot(before, a), since=_shot(since, a)))
    return found


def _shot(p: Photo | None, a: Application) -> ShotOut | None:
    return ShotOut(id=p.pk, text=shot_text(p.local.date(), a.applied_on)) if p else None


def after(account: Account, application_id: int) -> AfterOut:
    """What to expect after an application, and what was seen then. Raises Missing."""
    a = (
        applications(account)
        .filter(pk=application_id)
        .select_related("area__site")
        .prefetch_related("entries", "followups")
        .first()
    )
    if a is None:
        raise Missing("application")
    kinds = kinds_of(a)
    without, what_else = _without_effect(account, a)
    return AfterOut(
        signs=[
            *(FactOut(name=CARD_SAYS, text=text) for text in said_by_cards(account, a)),
            *(FactOut(name=days_text(s.first, s.last), text=s.text) for s in core.signs(kinds)),
        ],
        looks=looks_text(a.applied_on, days_of(account, a)),
        answers=[OptionOut(key=h.value, text=h.text) for h in core.answers(kinds)],
        spots=spots_since(account, a),
        found=[followup_out(f) for f in a.followups.all()],
        without=without,
        what_else=what_else,
    )


def followup_out(f: FollowUp) -> FollowUpOut:
    """What was said, in words."""
    return FollowUpOut(
        id=f.pk,
        application_id=f.application_id,
        on=f.on,
        day=dated(f.on),
        how=f.how,
        text=follow_text(How(f.how), (f.on - f.application.applied_on).days, products_of(f.application)),
        note=f.note,
        by=f.by,
        struck=f.struck,
    )


# --- several without effect -------------------------------------------------------------------------------------


def _target_of(e: Entry) -> str:
    """The key of the pest that an entry was put down against; empty where it is none, or not known."""
    found = find_target(e.target) or find_target(e.use)
    return found.key if found and found.kind in PESTS else ""


def _targets_of(a: Application) -> list[str]:
    """The keys of the pests that an application was against."""
    return list(dict.fromkeys(key for e in a.entries.all() if (key := _target_of(e))))


def _target_name(a: Application) -> str:
    return joined([TARGETS[key].name.lower() for key in _targets_of(a)])


def _without_effect(account: Account, a: Application) -> tuple[str, list[str]]:
    """What is said where several against the same had no effect, and what else to do."""
    past = _past(account, a.area_id, a.applied_on)
    for key in _targets_of(a):
        if run := core.without_effect(_tried(past, key)):
            return core.without_effect_text(TARGETS[key].name.lower(), run), core.what_else(TARGETS[key].kind, run)
    return "", []


def _past(account: Account, area_id: int | None, until: date) -> list[Application]:
    """The applications on an area up to a day; none where the area is no longer known."""
    if area_id is None:
        return []
    rows = applications(account).filter(area_id=area_id, applied_on__gte=until - YEAR, applied_on__lte=until)
    return list(rows.prefetch_related("entries", "followups"))


def _tried(past: Iterable[Application], key: str) -> list[Tried]:
    """Those applications that were against a target, with how each was seen to be last."""
    found = []
    for a in past:
        meant = [e for e in a.entries.all() if _target_of(e) == key]
        if not meant:
            continue
        said = _standing(a.followups.all())
        codes = tuple(dict.fromkeys(c for e in meant for c in e.group_code.replace("+", " ").split()))
        found.append(Tried(a.applied_on, meant[0].product_name, codes, How(said[-1].how) if said else None))
    return found


def _standing(rows: Iterable[FollowUp]) -> list[FollowUp]:
    """Those that are not struck, the oldest first."""
    return sorted((f for f in rows if f.struck_at is None), key=lambda f: (f.on, f.pk))


def without_effect_here(account: Account, area_id: int, today: date) -> list[str]:
    """What is said of an area where several against the same had no effect of late."""
    past = _past(account, area_id, today)
    keys = dict.fromkeys(key for a in past if a.applied_on >= today - core.TOGETHER for key in _targets_of(a))
    runs = ((TARGETS[k].name.lower(), core.without_effect(_tried(past, k))) for k in keys)
    return [core.without_effect_text(name, run) for name, run in runs if run]
