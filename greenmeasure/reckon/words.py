"""A job as one says it: in one sentence, its loads and passes, what to buy, what was left out."""

from collections.abc import Sequence
from typing import Literal

from core.job import ComponentPlan, Job, LoadPlan, MachineKind
from core.label.product import Product
from core.label.rate import Rate
from core.machines.working import time_text
from core.rates.compare import Purchase, short_of
from core.readable import handy, joined, readable
from core.units import UNITS, VOLUME, Quantity
from greenmeasure.reckon.schemas import BoughtOut
from greenmeasure.shelf.models import RateRow


def headline(job: Job, refused: bool = False, spots: bool = False) -> str:
    """The job in one sentence, the way one would say it at the bench; "do not" where a rule stands against it."""
    act = "Mix" if len(job.mix) > 1 else "Pour" if job.main.product.liquid else "Weigh out"
    amount = f"{act} {joined([_told(c) for c in job.mix])} for {'spots on ' if spots else ''}{job.where}"
    if refused:
        return f"Do not {amount[0].lower()}{amount[1:]}."
    return f"{amount}: {_fills(job)}." if job.machine else f"{amount}."


def refilled(job: Job) -> str:
    """What a job that is refused would fill."""
    fills = _fills(job)
    return f"It would be {fills}."


def _fills(job: Job) -> str:
    """The fills of a job's machine."""
    count = len(job.loads)
    if job.machine and job.machine.draws:
        return _bottles(job)
    if job.machine and job.machine.kind is MachineKind.SPREADER:
        fills = "one hopper fill" if count == 1 else f"{count} hopper fills"
        return f"{fills}, {job.passes} passes" if job.passes > 1 else fills
    spray = readable(job.spray, job.us) if job.spray else ""
    return f"one tank of {spray}" if count == 1 else f"{count} tanks, {spray} in all"


def _bottles(job: Job) -> str:
    """A hose-end's bottles, where its dial stands and how long it runs in all."""
    count, draws = len(job.loads), [x.draw for x in job.loads if x.draw]
    dials = list(dict.fromkeys(str(d.dial) for d in draws))
    timed = [d.seconds for d in draws if d.seconds is not None]
    time = f", {time_text(sum(timed))} of spraying" if len(timed) == count else ""
    return f"{'one bottle' if count == 1 else f'{count} bottles'}, dial at {joined(dials)}{time}"


def vessel_of(job: Job) -> Literal["tank", "hopper", "bottle", ""]:
    """What is filled, in a word; nothing without a machine."""
    return job.machine.vessel if job.machine else ""


def _told(plan: ComponentPlan) -> str:
    return f"{handy(plan.amount)} of {plan.product.name}" if plan.amount else f"{plan.product.name} to taste"


def also(plan: ComponentPlan, us: bool) -> list[str]:
    """An amount as others would say it: in the other system, and liquids by weight where the density is known."""
    if plan.amount is None:
        return []
    amount = handy(plan.amount)
    found = [readable(amount, us), readable(amount, not us)]
    if plan.grams is not None and amount.unit.dimension == VOLUME:
        found.append(readable(Quantity(plan.grams, UNITS["g"]), us))
    texts = [str(q) for q in found if q.unit is not amount.unit]
    return list(dict.fromkeys(texts))


def load_name(plan: LoadPlan, vessel: str) -> str:
    """What a load is called, by what is filled."""
    name = f"{vessel.capitalize()} {plan.load.number}"
    return f"{name}, pass {plan.load.pass_number}" if plan.load.pass_number else name


CROSSINGS = {
    "crosswise": "crosswise to the one before",
    "diagonal": "diagonal to the one before",
    "offset": "offset by half a swath",
}
"""How a further pass lies to the one before, in words."""


def pass_text(plan: LoadPlan, passes: int) -> str:
    """The pass, or passes, that a load goes into; empty where there is but one."""
    first, last = plan.load.passes
    if passes == 1:
        return ""
    return f"pass {first}" if first == last else f"ends pass {first}, goes on in pass {last}"


def bought_out(found: Purchase, stock: str, short: str, us: bool) -> BoughtOut:
    """What to buy, in words."""
    packages = [f"{b.count} × {b.package.size}" for b in found.packages]
    currency = found.packages[0].package.currency
    cost = f"{found.cost:,} {currency}" if found.cost is not None else ""
    leftover = str(readable(found.leftover, us)) if found.leftover.value > 1e-9 else "nothing"
    have = f"{stock} in stock, {short} short. " if stock else ""
    price = f" for {cost}" if cost else ""
    sentence = f"{have}Buy {' and '.join(packages)}{price}; {leftover} is left over."
    return BoughtOut(stock=stock, short=short, packages=packages, cost=cost, leftover=leftover, sentence=sentence)


def stock_enough(need: Quantity, stock: Quantity | None) -> str:
    """That what is in stock is enough; empty where it is not."""
    return f"{stock} in stock, enough" if stock and short_of(need, stock).value <= 1e-9 * need.value else ""


def goes_as_far(amount: Quantity, far: Quantity, rate: Rate) -> str:
    """How far an amount goes at a rate."""
    return f"{amount} goes as far as {far} at {rate}."


def compared_sentence(count: int, cheapest: str, cost: str) -> str:
    """How many products stand side by side, or which of them costs least."""
    if cheapest:
        return f"{cheapest} costs least here: {cost}."
    return f"{count} product{'s' if count != 1 else ''} side by side."


def brings_sentence(rate: Rate, product: str, brings: Sequence[str], foot: Quantity) -> str:
    """What a rate of a product brings of its contents per foot of the account."""
    return f"{rate} of {product} brings {', '.join(brings)} per {foot.unit.symbol}."


def left_out(name: str) -> str:
    """That a thing of an earlier job is left out of it now."""
    return f"{name} has been put away and is left out."


def row_changed(area: str, row: RateRow) -> str:
    """That the card no longer has the row that an earlier job went by."""
    return f"{area}: the label row has changed; this is {row.use or row.phrase}."


def cost_why_not(product: Product) -> str:
    """Why there is no cost, said in place of one."""
    if product.package is None:
        return "No package on the card."
    return "" if product.package.price is not None else "No price on the card."
