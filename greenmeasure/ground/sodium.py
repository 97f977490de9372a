"""Sodium of an area's soil: from what is typed, its water or its latest sample; and the gypsum that trades it out."""

from typing import Any

from core.errors import InputError
from core.soil.gypsum import SODIC, about, exchangeable_sodium, gypsum_need, sodium_ratio, sodium_share
from core.soil.ph import spread_text
from core.units import LENGTH, UNITS, Quantity
from core.weather.words import rainfall
from greenmeasure.accounts.models import Account
from greenmeasure.common.schemas import filled, number_in, quantity_in, working_out
from greenmeasure.ground.models import Area, SoilReading
from greenmeasure.ground.schemas import SodiumIn, SodiumOut
from greenmeasure.ground.words import BY_WATER, TYPED, by_sample, gypsum_sentence, no_need

DEPTH = 6 * 0.0254
"""The depth that is treated unless told [m]: the 6 in that advice is given for."""
WATER = ("water_sodium", "water_calcium", "water_magnesium")


def sodium(account: Account, area_id: int, data: SodiumIn) -> SodiumOut:
    """What an area's sodium asks for.

    Raises:
        InputError: nothing to know it from, or as `core.soil.gypsum`.
    """
    area, us = Area.objects.one(account, area_id), account.us
    sample = _sampled(area)
    exchange = _number("exchange", data.exchange) or (sample.sample.figures["cec"].own if sample else None)
    if exchange is None:
        raise InputError("exchange", None, "The cation exchange capacity is not known.", "Copy it from the laboratory’s report.")
    share, told = _share(data, sample, exchange)
    target = number_in("target", data.target)
    green = area.use == "green"
    known: dict[str, Any] = {
        "share": share,
        "target": target,
        "sodic": SODIC,
        "from_text": told,
        "notes": about(share, green, us),
    }
    if target >= share:
        return SodiumOut(sentence=no_need(area.name, share, target), **known)
    need = gypsum_need(
        share,
        target,
        exchange,
        number_in("density", data.density),
        quantity_in("depth", given, LENGTH).base if (given := filled(data.depth)) else DEPTH,
        purity=number_in("purity", data.purity),
        efficiency=number_in("efficiency", data.efficiency),
        green=green,
        us=us,
    )
    amount = UNITS["lb" if us else "kg"]
    return SodiumOut(
        sentence=gypsum_sentence(area.name, share, target, need, us),
        **known,
        per_area=spread_text(need.bought, us),
        amount=str(Quantity(need.bought * area.size.base / amount.size, amount)),
        each=spread_text(need.bought / need.times, us),
        times=need.times,
        water=rainfall(need.water, us),
        working=working_out(need.working),
    )


def _share(data: SodiumIn, sample: SoilReading | None, exchange: float) -> tuple[float, str]:
    """Exchangeable sodium [%], and where it is from: what is typed goes before the water, the water before a sample."""
    typed = _number("sodium", data.sodium)
    if typed is not None:
        return typed, TYPED
    given = [_number(name, getattr(data, name)) for name in WATER]
    if any(x is not None for x in given):
        for name, x in zip(WATER, given, strict=True):
            if x is None:
                raise InputError(name, None, "The ratio takes sodium, calcium and magnesium.", "Copy all three.")
        return exchangeable_sodium(sodium_ratio(*(x for x in given if x is not None))), BY_WATER
    if sample is not None:
        return sodium_share(sample.sample.figures["na"].own, exchange), by_sample(sample.spot, sample.taken_on)
    raise InputError("sodium", None, "The exchangeable sodium is not known.", "Copy it from the soil’s report, or the water’s.")


def _sampled(area: Area) -> SoilReading | None:
    """The latest sample that tells both sodium and exchange capacity."""
    return next((r for r in area.soil.all() if {"na", "cec"} <= r.sample.figures.keys()), None)


def _number(field: str, given: float | str) -> float | None:
    return None if str(given).strip() == "" else number_in(field, given)
