"""What is read of what was seen."""

from collections.abc import Sequence
from typing import TypeVar

from core.days import dated
from core.label.targets import TARGETS
from core.scouting.colour import Floats, colours, turf
from core.scouting.kinds import LOOKS, Look, Namer, Sure
from core.scouting.likeness import Light, Mown, between, doubts
from core.units import show_number
from greenmeasure.accounts.models import Account
from greenmeasure.common import pictures
from greenmeasure.common.errors import Missing
from greenmeasure.common.kept import kept
from greenmeasure.common.models import seen_by
from greenmeasure.common.schemas import FactOut, OptionOut
from greenmeasure.ground.queries import area_of, kin
from greenmeasure.scouting.models import Photo, Scouting, Spot
from greenmeasure.scouting.schemas import (
    ColourOut,
    EyesOut,
    LookOut,
    LooksOut,
    PairOut,
    PhotoOut,
    ScaleOut,
    ScoutOut,
    SpotOut,
    TargetLookOut,
)
from greenmeasure.scouting.words import COLOUR_SOURCES, colour_facts, eyes_sentence, name_of, named_text, photo_text, scout_text

T = TypeVar("T")
MOST = 300
"""Photographs and reports that one answer tells (ours)."""
COLOUR_WIDE = 800
"""Longer side at which colours are read [pixels]: fine enough for leaves, and soon done (ours)."""


@kept("scouting", "ground")
def reports(account: Account) -> list[Scouting]:
    """Every report on the areas that are seen, the latest first, the struck ones among them."""
    found = Scouting.objects.filter(seen_by(account, "area__site"), area__account=account)
    return list(found.select_related("area__site", "area__account", "spot"))


@kept("scouting", "ground")
def photos(account: Account) -> list[Photo]:
    """Every photograph of the areas that are seen, the latest first."""
    found = Photo.objects.filter(seen_by(account, "area__site"), account=account)
    return list(found.select_related("area__site", "spot"))


def files_of(account: Account) -> set[str]:
    """The digests of every picture file that an account shows, whatever its reader sees."""
    return set(Photo.objects.filter(account=account).values_list("sha", flat=True))


def by_report(taken: Sequence[Photo]) -> dict[int | None, list[int]]:
    """The ids of photographs by their report; those of none under None."""
    found: dict[int | None, list[int]] = {}
    for p in taken:
        found.setdefault(p.report_id, []).append(p.pk)
    return found


def standing(account: Account) -> list[Scouting]:
    """The reports that count: those that are not struck, the latest first."""
    return [s for s in reports(account) if s.struck_at is None]


def report_of(account: Account, pk: int) -> Scouting:
    """A report that is seen. Raises Missing."""
    found = Scouting.objects.filter(seen_by(account, "area__site"), area__account=account, pk=pk)
    return _one(found.select_related("area__site", "area__account", "spot").first(), "scout report")


def photo_of(account: Account, pk: int) -> Photo:
    """A photograph that is seen. Raises Missing."""
    found = Photo.objects.filter(seen_by(account, "area__site"), account=account, pk=pk)
    return _one(found.select_related("area__site", "spot").first(), "photograph")


def spot_of(account: Account, pk: int) -> Spot:
    """A spot that is seen and was not put away. Raises Missing."""
    found = Spot.objects.filter(seen_by(account, "area__site"), account=account, archived_at=None, pk=pk)
    return _one(found.select_related("area__site").first(), "spot")


def _one(found: T | None, name: str) -> T:
    if found is None:
        raise Missing(name)
    return found


def looks(account: Account) -> LooksOut:
    """Everything that can be looked for."""
    return LooksOut(
        looks=[_look(look, account.us) for look in LOOKS.values()],
        sure=[OptionOut(key=s.value, text=s.text) for s in Sure],
        named_by=[OptionOut(key=n.value, text=n.text) for n in Namer],
        light=[OptionOut(key=x.value, text=x.text) for x in Light],
        mown=[OptionOut(key=m.value, text=m.text) for m in Mown],
    )


def _look(look: Look, us: bool) -> LookOut:
    scale = look.scale
    return LookOut(
        key=look.key,
        name=look.name,
        targets=[
            TargetLookOut(key=t.key, text=t.name, unlike=[FactOut(name=TARGETS[k].name, text=how) for k, how in t.unlike])
            for t in TARGETS.values()
            if look.of and t.kind == look.of
        ],
        scale=None
        if scale is None
        else ScaleOut(
            name=scale.name,
            least=scale.least,
            most=scale.most,
            text=scale.text,
            per="" if not scale.per_area else "ft²" if us else "m²",
        ),
        share=look.share,
    )


def eyes(account: Account, area_id: int) -> EyesOut:
    """What was seen on an area with its parts and what it is a part of. Raises Missing."""
    area, near = area_of(account, area_id), kin(account, area_id)
    pictures_here = [p for p in photos(account) if p.area_id in near]
    reports_here = [s for s in reports(account) if s.area_id in near]
    spots = Spot.objects.filter(area_id__in=near, archived_at=None)
    of = by_report(pictures_here)
    return EyesOut(
        area_id=area.pk,
        area=area.name,
        sentence=eyes_sentence(area.name, [s for s in reports_here if not s.struck_at], pictures_here, account.us),
        spots=[spot_out(s, [p for p in pictures_here if p.spot_id == s.pk]) for s in spots],
        photos=[photo_out(p) for p in pictures_here[:MOST]],
        reports=[scout_out(s, of.get(s.pk, [])) for s in reports_here[:MOST]],
        more=len(pictures_here) > MOST or len(reports_here) > MOST,
    )


def spot_out(spot: Spot, taken: Sequence[Photo] = ()) -> SpotOut:
    """A spot with what was taken of it, the latest first."""
    return SpotOut(
        id=spot.pk,
        name=spot.name,
        x=spot.x,
        y=spot.y,
        photos=len(taken),
        last=taken[0].pk if taken else None,
        version=spot.version,
    )


def scout_out(s: Scouting, of: Sequence[int] = ()) -> ScoutOut:
    """A scout report in words."""
    return ScoutOut(
        id=s.pk,
        area_id=s.area_id,
        area=s.area.name,
        on=s.on,
        day=dated(s.on),
        kind=s.kind,
        what=s.what,
        name=name_of(s.look, s.what),
        seen=s.seen,
        severity="" if s.severity is None else f"{show_number(s.severity)} %",
        score="" if s.score is None else show_number(s.score, 3),
        named=named_text(s),
        spot=s.spot.name if s.spot else "",
        x=s.x,
        y=s.y,
        across=s.across,
        where=s.where,
        note=s.note,
        by=s.by,
        text=scout_text(s, s.area.account.us),
        struck=s.struck,
        photos=list(of),
    )


def photo_out(p: Photo) -> PhotoOut:
    """A photograph in words."""
    local = p.local
    return PhotoOut(
        id=p.pk,
        area_id=p.area_id,
        area=p.area.name,
        spot_id=p.spot_id,
        spot=p.spot.name if p.spot else "",
        report_id=p.report_id,
        width=p.width,
        height=p.height,
        on=local.date(),
        day=dated(local.date()),
        clock=f"{local:%H:%M}" if p.timed else "",
        taken=f"{dated(local.date())}{f', {local:%H:%M}' if p.timed else ''}",
        light=p.light,
        mown=p.mown,
        text=photo_text(p),
        note=p.note,
        by=p.by,
        version=p.version,
    )


def pair(account: Account, a: int, b: int) -> PairOut:
    """Two photographs beside each other, the older one first. Raises Missing."""
    then, now = sorted((photo_of(account, a), photo_of(account, b)), key=lambda p: (p.taken_at, p.pk))
    return PairOut(
        then=photo_out(then), now=photo_out(now), apart=between(then.shot, now.shot), doubts=doubts(then.shot, now.shot)
    )


def colour(found: Photo) -> ColourOut:
    """What a photograph says of its colour. Raises Missing where its file is gone."""
    said = colours(_pixels(found))
    return ColourOut(facts=colour_facts(said), doubts=[d.sentence for d in said.doubts], sources=COLOUR_SOURCES)


def masked(found: Photo) -> bytes:
    """A photograph (PNG) in which what does not count as turf is faded. Raises Missing where its file is gone."""
    rgb = _pixels(found)
    return pictures.shaded(rgb, turf(rgb))


def _pixels(found: Photo) -> Floats:
    try:
        return pictures.pixels(found.sha, COLOUR_WIDE)
    except OSError:
        raise Missing("photograph’s file") from None


def file(found: Photo, small: bool) -> bytes:
    """A photograph's file. Raises Missing where it is gone."""
    try:
        return pictures.file_of(found.sha, small).read_bytes()
    except OSError:
        raise Missing("photograph’s file") from None
