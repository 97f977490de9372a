"""Outlines of a year's programme to start from, by turf and wish, for the northern half of the world.

Timings of feeding by extension teaching (most nitrogen of a cool lawn in autumn, of a warm one in summer), a pre-emergent
before five days' mean soil of 12.8 °C (55 °F), both schools of snow-mould sprays: common practice, no source, where nothing else
is said. What the label, the soil test and the place ask for comes first.
"""

from dataclasses import dataclass
from datetime import date

from core.grasses import Sward
from core.label.product import Kind
from core.season.steps import Timing, When

SOIL_OF_CRABGRASS = 12.8
"""Five days' mean soil before which a pre-emergent goes down [°C] (extension teaching, common practice)."""
PRACTICE = "Common practice, no source."


@dataclass(frozen=True)
class Sketch:
    """A step of an outline: what kind of product, when in the year (month, day), how much N [lb/1000 ft²], and why."""

    name: str
    kind: Kind
    timing: Timing
    begin: tuple[int, int]
    end: tuple[int, int] | None = None
    nitrogen: float = 0.0
    target: str = ""
    why: str = ""
    every: int = 0
    monthly: tuple[int, ...] = ()
    soil: float = 0.0
    rising: bool = True
    grace: int = 10
    cold: float = 0.0

    def when(self, year: int) -> When:
        """When it is due in a year."""
        begin = date(year, *self.begin)
        end = date(year, *self.end) if self.end else begin
        return When(
            self.timing,
            begin,
            end,
            every=self.every,
            monthly=self.monthly,
            soil=self.soil,
            rising=self.rising,
            grace=self.grace,
            cold=self.cold,
        )


@dataclass(frozen=True)
class Outline:
    """A programme to start from, and whose it is: for grass of which season (None for both) or what is no `turf`, for which uses
    (none for all).
    """

    key: str
    name: str
    told: str
    source: str
    cool: bool | None
    uses: tuple[str, ...]
    steps: tuple[Sketch, ...]
    turf: bool = True


FEED, IRON = Kind.FERTILISER, Kind.IRON
DATED, EVERY, MONTHLY, SOIL = Timing.DATED, Timing.EVERY, Timing.MONTHLY, Timing.SOIL
CRABGRASS = Sketch(
    "Pre-emergent",
    Kind.HERBICIDE,
    SOIL,
    (2, 15),
    (5, 31),
    target="crabgrass",
    why="Before the soil reaches 55 °F (12.8 °C), when crabgrass begins to germinate.",
    soil=SOIL_OF_CRABGRASS,
)


def _snow(name: str, begin: tuple[int, int], end: tuple[int, int], cold: float, why: str) -> Sketch:
    return Sketch(name, Kind.FUNGICIDE, Timing.COLD, begin, end, target="snow_mould", grace=14, why=why, cold=cold)


SLOWING, BEFORE_SNOW = 10.0, 6.0
"""Ten days' mean air [°C] at which cool grass grows a little, and at which snow may soon lie (common practice, no source)."""
OUTLINES = {
    o.key: o
    for o in (
        Outline(
            "cool_easy",
            "Cool-season lawn, little effort",
            "Two feedings, both when the roots grow.",
            PRACTICE,
            True,
            ("lawn", ""),
            (
                Sketch("Late spring feed", FEED, DATED, (5, 25), nitrogen=0.75, why="After the flush of spring is over."),
                Sketch("Autumn feed", FEED, DATED, (9, 5), nitrogen=1.0, why="The feeding that matters most."),
            ),
        ),
        Outline(
            "cool_show",
            "Cool-season lawn to be proud of",
            "Five feedings with most of it in autumn, a pre-emergent, iron through the summer.",
            PRACTICE,
            True,
            ("lawn", ""),
            (
                CRABGRASS,
                Sketch("Spring feed", FEED, DATED, (4, 20), nitrogen=0.5, why="Light: growth comes by itself in spring."),
                Sketch("Late spring feed", FEED, DATED, (5, 25), nitrogen=0.75, why="Carries it into the summer."),
                Sketch("Iron for colour", IRON, EVERY, (6, 15), (8, 15), every=28, why="Colour without growth in the heat."),
                Sketch("Early autumn feed", FEED, DATED, (9, 1), nitrogen=1.0, why="Recovery from the summer."),
                Sketch("Autumn feed", FEED, DATED, (10, 1), nitrogen=0.75, why="Roots and density."),
                Sketch("Late autumn feed", FEED, DATED, (11, 5), nitrogen=0.5, why="While it is green and hardly grows."),
            ),
        ),
        Outline(
            "cool_spoon",
            "Cool-season green, spoon-fed",
            "A little nitrogen twice a month, a regulator, iron: growth held even at low nitrogen.",
            "Regulator by Kreuser & Soldat (2011) Crop Sci 51:2228-2236; the feeding is common practice, no source.",
            True,
            ("green",),
            (
                Sketch("Spoon feed", FEED, MONTHLY, (4, 15), (10, 15), nitrogen=0.1, monthly=(1, 15), why="Little and often."),
                Sketch(
                    "Regulator",
                    Kind.GROWTH_REGULATOR,
                    EVERY,
                    (5, 5),
                    (9, 20),
                    every=14,
                    why="Holds growth; the degree-day clock tells the day.",
                    grace=5,
                ),
                Sketch("Iron for colour", IRON, MONTHLY, (5, 8), (9, 30), monthly=(8,), why="Colour at low nitrogen."),
                Sketch("Autumn feed", FEED, DATED, (10, 20), nitrogen=0.4, why="Before it stops growing."),
            ),
        ),
        Outline(
            "cool_base",
            "Cool-season turf, granular base with liquid boosts",
            "Two granular feedings carry it; liquids on the 1st and 15th through the playing season.",
            PRACTICE,
            True,
            (),
            (
                Sketch("Spring base", FEED, DATED, (4, 15), nitrogen=0.75, why="Slow release carries it to midsummer."),
                Sketch("Liquid boost", FEED, MONTHLY, (5, 15), (8, 31), nitrogen=0.15, monthly=(1, 15), why="Tops the base up."),
                Sketch("Autumn base", FEED, DATED, (9, 5), nitrogen=1.0, why="Slow release into the winter."),
            ),
        ),
        Outline(
            "warm_lawn",
            "Warm-season turf",
            "Fed while it grows, from full green to a month and more before frost; a pre-emergent in spring.",
            PRACTICE,
            False,
            (),
            (
                CRABGRASS,
                Sketch("Early summer feed", FEED, DATED, (5, 15), nitrogen=0.75, why="Once it is wholly green."),
                Sketch("Summer feed", FEED, DATED, (6, 20), nitrogen=1.0, why="In its best growth."),
                Sketch("Late summer feed", FEED, DATED, (8, 1), nitrogen=0.75, why="The last: later feeding is hurt by frost."),
            ),
        ),
        Outline(
            "snow_early_late",
            "Snow moulds, two sprays",
            "One while it still grows, one before lasting snow. Needs no station; where there is one, the cold moves them.",
            PRACTICE,
            True,
            (),
            (
                _snow("First snow-mould spray", (10, 12), (11, 5), SLOWING, "While it still grows."),
                _snow("Last snow-mould spray", (11, 18), (12, 10), BEFORE_SNOW, "Before lasting snow, on bare turf."),
            ),
        ),
        Outline(
            "snow_late",
            "Snow moulds, one spray",
            "One spray, as late as the ground is bare. Needs no station; where there is one, the cold moves it.",
            PRACTICE,
            True,
            (),
            (_snow("Snow-mould spray", (11, 15), (12, 10), BEFORE_SNOW, "The last dry day before lasting snow."),),
        ),
        Outline(
            "ornamentals",
            "Ornamentals, every 30 days",
            "Leaves protected every 30 days from leaf to early autumn.",
            PRACTICE,
            None,
            (),
            (
                Sketch(
                    "Protect the leaves", Kind.FUNGICIDE, EVERY, (4, 20), (9, 20), every=30, why="Spray both sides of the leaf."
                ),
            ),
            turf=False,
        ),
    )
}
"""By key."""


def fits(outline: Outline, sward: Sward, use: str) -> bool:
    """Whether an outline is for a ground: for any of what grows on it, and what it is kept as."""
    if outline.turf != sward.turf:
        return False
    return (outline.cool is None or outline.cool in sward.seasons) and (not outline.uses or use in outline.uses)
