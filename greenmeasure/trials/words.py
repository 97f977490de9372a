"""Trials in words: what a layout could show, what scores do show, and what makes the ground unequal."""

from collections.abc import Sequence
from datetime import date

from core.areas.measure import in_trade
from core.book.results import Difference, Outcome
from core.book.trial import could_show
from core.days import dated, so_many
from core.readable import joined
from core.scouting.kinds import Look, Scale
from core.units import show_number
from greenmeasure.book.models import Application
from greenmeasure.common.schemas import FactOut
from greenmeasure.scouting.words import length_text, name_of
from greenmeasure.trials.laying import Laid
from greenmeasure.trials.models import Trial

FEW = 4
"""Fewer blocks than this show only what one sees anyway (common practice, no source)."""
ONE = "One of each is one comparison: what it shows cannot be told from what the ground does by itself."


def marks(value: float) -> str:
    """A mark, to a tenth or better."""
    return show_number(round(value, 2), 3)


def unit_of(look: Look, us: bool) -> str:
    """What a mark counts in."""
    if look.scale is None:
        return "%"
    if look.scale.per_area:
        return f"in a square {'foot' if us else 'metre'}"
    return "marks"


def scale_text(look: Look, us: bool) -> str:
    """How a plot is scored."""
    if look.scale is None:
        return "How much of the plot shows it, 0 to 100 %."
    if look.scale.per_area:
        return f"Counted {unit_of(look, us)}."
    return f"{show_number(look.scale.least)} to {show_number(look.scale.most)}: {look.scale.text}."


def ends(look: Look) -> tuple[float, float]:
    """The ends of what a plot can be scored."""
    scale = look.scale or Scale("Share", 0, 100)
    return scale.least, scale.most


NO_SCORE = "Nothing is scored yet."
FEW_TEXT = "Fewer than four repeats show only what one sees anyway. Narrower strips, or fewer treatments, make room for more."
PIECES = "Its drawing is of several pieces, laid side by side as they were measured: a strip may run over two of them."
SCORERS = "Several people scored on one day. People score apart: one scores all that is to be compared."


def layout_sentence(found: Laid, us: bool) -> str:
    """A layout in a sentence."""
    others = len(found.names) - 1
    what = f"{found.names[0]} and {found.names[1] if others == 1 else f'{others} treatments'}"
    if found.layout.blocks == 1:
        times = "one plot each"
    else:
        times = f"{found.layout.blocks} times each"
    size = in_trade(found.area.size.base / len(found.layout.plots), us)
    narrow, wide = (length_text(w, us) for w in (found.layout.width, found.layout.widest))
    across = wide if wide == narrow else f"{narrow} to {wide}"
    return f"{what}, {times}: {len(found.layout.plots)} plots of {size}, {across} wide."


def shows_text(look: Look, blocks: int, treatments: int, scatter: float | None, us: bool) -> str:
    """How small a difference could be shown, said before anything goes down.

    Args:
        look: what is scored.
        blocks: how many times each treatment stands.
        treatments: how many, the untreated one counted.
        scatter: of plots treated alike [marks]; None where it is not known.
        us: whether the reader counts in square feet.
    """
    least = could_show(blocks, treatments, scatter or 1.0)
    if least is None:
        return f"{ONE} It shows by pictures and scores beside each other, and by no test."
    if scatter is None:
        return f"It would show a difference {marks(least)} times as large as plots treated alike differ, four times out of five."
    return (
        f"It would show a difference of {amount(look, least, us)} four times out of five, if plots treated alike are "
        f"scored {marks(scatter)} apart. A smaller one it would mostly miss."
    )


def amount(look: Look, value: float, us: bool) -> str:
    """A difference with what it counts in.

    Args:
        look: what is scored.
        value: the difference [marks].
        us: whether the reader counts in square feet.
    """
    said = marks(abs(value))
    if unit_of(look, us) == "marks":
        return f"{said} {'mark' if said == '1' else 'marks'}"
    return f"{said} {unit_of(look, us)}"


def difference_text(name: str, first: str, d: Difference, look: Look, us: bool) -> str:
    """A treatment held against the first, and what may be said of it."""
    if d.mean == 0:
        head = f"{name} and {first} came out alike"
    else:
        head = f"{name}: {amount(look, d.mean, us)} {'more' if d.mean > 0 else 'less'} than {first[0].lower()}{first[1:]}"
    if d.low is None or d.high is None:
        return f"{head}."
    return f"{head}, likely {signed(d.low)} to {signed(d.high)} (95 %){'' if d.shown else ': not shown'}."


def signed(value: float) -> str:
    """A difference with its sign.

    Args:
        value: it [marks].
    """
    return f"+{marks(value)}" if value > 0 else marks(value)


def reading_text(trial: Trial, found: Outcome | None, names: Sequence[str], us: bool) -> str:
    """What the scores of a day show."""
    if found is None:
        return "No block is scored whole: nothing can be compared."
    if found.blocks < 2:
        return ONE
    if found.alike:
        return "The scores do not scatter at all. By a scale this coarse nothing can be said of chance."
    shown = [i for i, d in enumerate(found.differences, start=1) if d.shown]
    if not shown:
        return "No difference could be shown. That is not the same as none."
    told = []
    for i in shown:
        d = found.differences[i - 1]
        told.append(f"{names[i]} {amount(trial.look, d.mean, us)} {'more' if d.mean > 0 else 'less'}")
    return f"A difference is shown: {joined(told)} than {names[0][0].lower()}{names[0][1:]}."


def reading_facts(found: Outcome | None, skipped: int) -> list[FactOut]:
    """The numbers behind a reading."""
    facts = []
    if skipped:
        facts.append(FactOut(name="Left out", text=f"{so_many_blocks(skipped)} not scored whole"))
    if found is None or found.mse is None or found.lsd is None:
        return facts
    facts.append(FactOut(name="Blocks", text=f"{found.blocks}, {found.df} degrees of freedom"))
    facts.append(FactOut(name="Scatter", text=f"{marks(found.mse**0.5)} between plots treated alike"))
    facts.append(FactOut(name="Least significant difference", text=f"{marks(found.lsd)}, at 5 %"))
    if found.f is not None and found.p is not None:
        facts.append(FactOut(name="Treatments", text=f"F {show_number(found.f, 3)}, p {p_text(found.p)}"))
    rank = found.differences[0].signed_rank if len(found.differences) == 1 else None
    if rank is not None:
        least = 2 / 2**found.blocks
        never = f"; {found.blocks} pairs can never come below {show_number(least, 2)}" if least > 0.05 else ""
        facts.append(FactOut(name="By ranks alone", text=f"p {p_text(rank)}, exact{never}"))
    return facts


def so_many_blocks(count: int) -> str:
    """A number of blocks."""
    return "1 block" if count == 1 else f"{count} blocks"


def p_text(p: float) -> str:
    """A probability as one says it.

    Args:
        p: it [-].
    """
    return "below 0.001" if p < 0.001 else show_number(p, 2)


def scored_text(trial: Trial) -> str:
    """What is scored."""
    return name_of(trial.look, trial.what)


def state_text(trial: Trial, today: date, latest: str) -> str:
    """How a trial stands, in a sentence."""
    if trial.ended_on:
        head = f"Ended on {dated(trial.ended_on)}, after {so_many(trial.day_of(trial.ended_on))}."
    elif today < trial.began_on:
        head = f"Begins on {dated(trial.began_on)}."
    else:
        head = f"Day {trial.day_of(today)}."
    return f"{called(trial.name)} {head} {latest or NO_SCORE}"


def called(name: str) -> str:
    """A name that more is said after."""
    return name if name[-1:] in "?!." else f"{name}."


def trial_facts(trial: Trial, plots: int, treatments: int, us: bool) -> list[FactOut]:
    """How a trial was laid out."""
    return [
        FactOut(name="Begun", text=f"{dated(trial.began_on)}, by {trial.by}"),
        FactOut(name="Plots", text=f"{plots}, in {so_many_blocks(trial.blocks)}"),
        FactOut(name="No strip below", text=length_text(trial.least, us)),
        FactOut(name="Lots drawn from", text=str(trial.seed)),
        FactOut(name="Could show", text=shows_text(trial.look, trial.blocks, treatments, trial.scatter or None, us)),
    ]


def since_text(trial: Trial) -> str:
    """From when to when a trial lasted."""
    return f"{dated(trial.began_on)} to {dated(trial.ended_on)}" if trial.ended_on else f"Since {dated(trial.began_on)}"


def day_text(trial: Trial, on: date) -> str:
    """A day of looking."""
    return f"Day {trial.day_of(on)}, {dated(on)}"


def list_sentence(trials: Sequence[Trial]) -> str:
    """The list of trials in a sentence."""
    open_ = sum(t.ended_on is None for t in trials)
    if not trials:
        return "No trial yet."
    if not open_:
        return "No trial is under way."
    return "One trial is under way." if open_ == 1 else f"{open_} trials are under way."


def due_text(trial: Trial, day: int, today: date) -> str:
    """That a trial is to be looked at."""
    late = trial.day_of(today) - day
    return f"Day {day}: score it by {scored_text(trial).lower()}{f', {so_many(late)} late' if late else ''}."


def next_text(on: date, day: int) -> str:
    """When a trial is looked at next."""
    return f"Next on {dated(on)}, day {day}."


def plots_text(numbers: Sequence[int]) -> str:
    """Some plots by their numbers."""
    return f"Plot{'s' if len(numbers) > 1 else ''} {joined([str(n) for n in numbers])}"


def part_note(trial: Trial, numbers: Sequence[int]) -> str:
    """What is noted of the part of an area that a treatment's plots are."""
    return f"{plots_text(numbers)} of the trial {trial.name}."


def put_down(found: Application) -> str:
    """What went down by an application."""
    return joined([e.product_name for e in found.entries.all()])


def before_text(what: str, area: str, on: date) -> str:
    """Something that went down on a part of the ground before a trial began."""
    return f"{what} on {area} alone, {dated(on)}"


def unequal_text(told: Sequence[str], more: int) -> str:
    """That the ground of a trial was not treated alike in the year before."""
    rest = f"; and {more} more" if more else ""
    return f"Its ground was not treated alike in the year before: {'; '.join(told)}{rest}. Blocks share it out only in part."


def past_text(what: str, on: date) -> str:
    """Something that went down on a treatment's plots."""
    return f"{dated(on)}: {what}"


def untreated_text(what: str, on: date) -> str:
    """That the untreated plots were treated."""
    return f"The untreated plots got {what} on {dated(on)}: they are no check any more of what that does."


def stray_text(name: str, what: str, on: date) -> str:
    """That a treatment's plots got what is not its own."""
    return f"{name} got {what} on {dated(on)}, which is not what it tries: their histories differ by more than the trial."


def start_text(worst: str) -> str:
    """That plots differed before anything went down."""
    return f"They differed already before anything went down: {worst}"


def map_text(names: Sequence[str], plots: Sequence[int]) -> str:
    """What a mix sheet says above the map of a trial."""
    return (
        f"Only {plots_text(plots)[:1].lower()}{plots_text(plots)[1:]} get this: {joined(list(names))}. Mark their corners first."
    )
