"""House rules: questions that practitioners answer differently, each side's reason, and what the answer changes here.

Both sides are common practice, no source. A label's own rule overrides every one of them.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date

from core.errors import InputError


@dataclass(frozen=True)
class Option:
    """One answer, and the reason its school gives."""

    key: str
    text: str
    reason: str


@dataclass(frozen=True)
class Question:
    """One question. `changes` says what the answer changes; the first option is the default."""

    key: str
    ask: str
    changes: str
    options: tuple[Option, ...]

    @property
    def default(self) -> str:
        return self.options[0].key


def _q(key: str, ask: str, changes: str, *options: tuple[str, str, str]) -> Question:
    return Question(key, ask, changes, tuple(Option(*o) for o in options))


_ROWS = (
    _q(
        "fill_order",
        "In what order is the tank filled?",
        "The acts on the mix sheet.",
        ("half_first", "Half the water, product, then top up", "Product meets moving water and spreads through it evenly."),
        ("water_first", "All the water, then the products", "A full tank foams least."),
        ("product_first", "Product, then the water on top", "The falling water does the stirring."),
        (
            "slurry_first",
            "A little water with the agitator on, then the products",
            "Dry granules are wet before they can settle.",
        ),
    ),
    _q(
        "two_groups",
        "Fungicide groups 3 and 11 on the same ground together?",
        "A warning when both go on within the gap.",
        ("together", "Together is fine", "Two modes of action cover more and guard each other against resistance."),
        ("never_same_day", "Never on one day", "On warm-season grass the pair is feared to burn the leaf."),
        ("month_apart", "A month apart", "Each has its season; apart they also rotate."),
    ),
    _q(
        "next_curative",
        "What follows a curative spray?",
        "How many uses of one group in a row are warned of.",
        ("repeat_once", "The same again, then another group", "The pair that fits the disease is given its second hit."),
        ("change_always", "Another group every time", "Resistance is slowed most by never repeating."),
    ),
    _q(
        "partners",
        "How many products on one ground in a day?",
        "A warning when a day's products pass it.",
        ("few", "Two at the most", "What goes wrong can then be told from what went right."),
        ("all", "Everything in one go", "One pass saves the time that spraying costs."),
        ("by_uptake", "Leaf products first, soil products hours later with water", "Each stays where it is taken up."),
    ),
    _q(
        "first_regulator",
        "How strong is the first growth-regulator dose of a season?",
        "The rate that Reckon opens with.",
        ("ramp", "Half, then three quarters, then full", "Turf is eased in, and yellows less."),
        ("full", "Full from the first", "The first application then holds as long as the others."),
        ("lowest", "The label's lowest, raised by experience", "Each ground shows what it needs."),
    ),
    _q(
        "regulator_rate",
        "Several rows of a label fit the ground: which is offered?",
        "The row that Reckon opens with.",
        ("height", "By height of cut, the narrower row", "Taller turf has more leaf to take the product up."),
        ("grass", "By grass, the row that names it", "Grasses differ more than heights do."),
        ("lower", "The lower rate", "What is short can be added; what is over cannot be taken back."),
    ),
    _q(
        "regulator_again",
        "When is a regulator put down again?",
        "The date given after an application.",
        ("calendar", "By the label's days", "It needs no weather, and it is what the label prints."),
        ("degree_days", "By degree days", "Heat breaks it down; the same days mean different things in May and July."),
    ),
    _q(
        "yellowing",
        "What about the yellow tinge after a regulator?",
        "The note on the mix sheet.",
        ("mow_off", "Mow it off", "It is harmless and grows out in days."),
        ("prevent", "Prevent it: lower dose, mow before", "Less leaf carries less product."),
        ("mask", "Mask it with a little iron or nitrogen", "Colour returns while growth is held."),
    ),
    _q(
        "two_regulators",
        "Two classes of regulator at once?",
        "A warning while another class still works.",
        ("one", "One at a time", "Double suppression and heat are hard to foresee."),
        ("stack", "Two, timed to end together", "They stop growth at two places."),
    ),
    _q(
        "start_rate",
        "Where in a label's range does one start?",
        "The rate that Reckon opens with.",
        ("low", "Low: what is short can be added", "More is not better; start small."),
        ("middle", "The middle of the range", "Room on both sides."),
        ("top", "The highest rate", "Hit it once and hard."),
    ),
    _q(
        "feeding",
        "How is nitrogen fed?",
        "The most N in one application before it is warned of.",
        ("combine", "Granular as the base, liquid as a boost", "The base lasts, the boost shows."),
        ("spoon", "Little and often, as liquid", "Short turf takes small doses evenly."),
        ("granular", "Granular only", "Fewer outings; slow release does the spoon-feeding."),
    ),
    _q(
        "nitrogen_in_heat",
        "Nitrogen in heat?",
        "A warning when ground is marked as heat-stressed.",
        ("cool_no", "Not on cool-season grass", "Pushed in heat it burns its reserves and falls to disease."),
        ("none", "On no grass", "Fed turf needs water that heat takes."),
        ("any", "On any, lightly", "Hungry turf stands heat badly too."),
    ),
    _q(
        "nitrogen_source",
        "Which nitrogen in cold weather?",
        "A note when urea goes down in the cold months.",
        ("quick_cold", "Ammonium sulfate or nitrate", "Urea must first be turned over, which cold soil does slowly."),
        ("urea", "Dissolved urea in tiny doses", "It is cheap and gentle, and waits for warmth."),
    ),
    _q(
        "iron",
        "Iron: is there too much?",
        "The most Fe in one application before it is warned of.",
        ("capped", "Small doses; it is a micronutrient", "It blackens turf, burns in heat and stains stone."),
        ("label", "As much as the label allows", "It colours without growth."),
    ),
    _q(
        "biostimulants",
        "What are biostimulants worth?",
        "Whether what they bring counts in the nutrient budget's sentence.",
        ("complement", "They add to feeding, never replace it", "They carry a few grams where turf needs hundreds."),
        ("premium", "They make a cheap bag do more", "Roots are said to take up more."),
    ),
    _q(
        "ph",
        "When is soil pH corrected?",
        "The pH that the planner aims at.",
        ("only_out", "Only outside what the grass stands", "Most grasses do well over two whole units."),
        ("to_ideal", "To the middle of what the grass likes", "Nutrients come best near slightly acid."),
    ),
    _q(
        "look_after",
        "How often does one look after an application?",
        "The days on which Today asks how it is now; a card's own days go before.",
        ("usual", "On each of the days usual for its kind", "What is seen on day 3 is forgotten by day 14."),
        ("last", "Once, on the last of them", "One look tells whether it worked."),
        ("card", "Only where the card names days", "Nobody is asked without need."),
    ),
    _q(
        "concentrates",
        "Strong concentrates?",
        "The order that Compare opens in.",
        ("cheapest", "Cheapest for the dose", "A concentrate costs most to buy and least to use."),
        ("forgiving", "The one that forgives an error", "A slip of the cup is smaller with a weak product."),
    ),
)

QUESTIONS = {q.key: q for q in _ROWS}


@dataclass(frozen=True)
class Closed:
    """A time of year, both ends in it, in which something may not go down: `what` is N or P2O5."""

    what: str
    start: tuple[int, int]
    end: tuple[int, int]
    why: str = ""

    def holds(self, on: date) -> bool:
        """Whether `on` lies in it; it may run over the new year."""
        here = (on.month, on.day)
        if self.start <= self.end:
            return self.start <= here <= self.end
        return here >= self.start or here <= self.end


@dataclass(frozen=True)
class House:
    """An account's answers, its closed times, and the month and day its season starts."""

    answers: Mapping[str, str] = field(default_factory=dict)
    closed: tuple[Closed, ...] = ()
    season_start: tuple[int, int] = (1, 1)

    def of(self, key: str) -> str:
        """The account's answer to a question, or the default."""
        return self.answers.get(key, QUESTIONS[key].default)

    def season_of(self, on: date) -> date:
        """The first day of the season that `on` belongs to."""
        start = date(on.year, *self.season_start)
        return start if start <= on else date(on.year - 1, *self.season_start)


PLAIN = House()
"""Every default."""


def check_answers(answers: Mapping[str, str], field_name: str = "answers") -> dict[str, str]:
    """Answers that are options of known questions.

    Raises:
        InputError: a question or an option that is not known; names it.
    """
    for key, option in answers.items():
        if key not in QUESTIONS:
            raise InputError(f"{field_name}.{key}", key, f"“{key}” is not a house rule.", "Use one of the list.")
        known = [o.key for o in QUESTIONS[key].options]
        if option not in known:
            raise InputError(f"{field_name}.{key}", option, f"“{option}” is no answer to it.", f"Use one of: {', '.join(known)}.")
    return dict(answers)
