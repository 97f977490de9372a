"""The grammar of the reckon line.

Names of the account's products, areas, machines and kept mixes are found first, wherever they stand (`core.reckon.names`); then
the rates, amounts, shares, numbers and days (`core.reckon.pieces`). What is asked is told by those and by the words between them,
in any order that people use:

    convert  = rate ("in" | "as" | "to" | "=") [number] rate-unit | amount ("in" | "as" | "to" | "=") unit | temperature "in" "C"
    sum      = plain arithmetic, see `core.reckon.sums`
    kept     = [“mix”] MIX [grounds] [MACHINE] [passes]
    earlier  = ["same"] "as on" day [AREA]
    history  = "what went on" AREA "last" | "when did I last spray" PRODUCT [AREA]
    may      = "can" PRODUCT "go on" AREA [day] | "when can" PRODUCT "go on" AREA
    date     = number ("days" | "weeks" | "months" | "years") ("after" | "before" | "from") day | day "to" day | day
    degrees  = "gdd" ["base" number] "since" (day | PRODUCT AREA) | "when does" PRODUCT "reach" number "gdd on" AREA
             | "high" number "low" number "gdd base" number
    water    = "how long to water in" depth AREA | depth AREA "in litres"
    cost     = "cost" dose | "what does" PRODUCT "cost per lb N" | "$/M" PRODUCT "at" rate
    stock    = "enough" PRODUCT "for" number "sprays of" grounds "at" rate
    compare  = "compare" PRODUCT {PRODUCT} AREA ["for" TARGET] | PRODUCT [rate] "vs" PRODUCT [rate] [AREA] ["per lb N" | "cost"]
    reach    = "how far does" amount [PRODUCT] "go at" rate | amount PRODUCT "at" rate "covers"
             | [amount] MACHINE "how much ground"
    backwards = "what rate is" amount ["less" amount] PRODUCT grounds | "is" amount PRODUCT "ok for" grounds
             | "started with" amount PRODUCT amount "left" grounds | amount size
    brings   = "what does" rate PRODUCT "bring"
    measure  = "measure" amount [PRODUCT]
    cup      = "cup" amount ("weighs" | "holds") amount ["at" temperature]
    output   = [MACHINE] volume "in" (area | time) | length "in" time
    dose     = see `core.reckon.dosing`
    rate     = a label phrase, see `core.label.phrase`

What is ambiguous is asked back with its readings as whole lines; a word that nobody knows is named, with the names near it.
"""

from collections.abc import Callable, Sequence

from core.errors import NotUnderstood
from core.reckon import amounts, money, past
from core.reckon.alone import alone
from core.reckon.asked import Asked
from core.reckon.dosing import dose
from core.reckon.names import Names, mask
from core.reckon.pieces import Line, take_apart
from core.units import pointed, tidy

MOST_CHARACTERS = 200
"""In one line (ours)."""

QUESTIONS: Sequence[Callable[[Line], Asked | None]] = (
    past.kept,
    past.earlier,
    past.degree_days,
    past.may,
    past.brought,
    past.history,
    amounts.size,
    amounts.boom,
    amounts.water,
    money.stock,
    money.compare,
    money.cost,
    amounts.brings,
    amounts.cup,
    amounts.measure,
    amounts.backwards,
    amounts.reach,
    amounts.output,
    past.date_of,
    dose,
)
"""In the order in which they are tried; the last takes every line, and says what it lacks."""


def read_line(text: str, names: Names) -> Asked:
    """What the line asks.

    Raises:
        NotUnderstood: what was not understood, or a name the account does not have, with names that are close.
        Ambiguous: a word with two readings, each given as a whole line to pick.
        InputError: numbers that measure nothing.
    """
    clean = pointed(tidy(text)).rstrip(" ?.!")
    if not clean:
        raise NotUnderstood("line", text, "The line is empty.", "Type a rate and an area, or a conversion.")
    if len(clean) > MOST_CHARACTERS:
        raise NotUnderstood("line", clean[:40] + "…", "That is too long for one line.", "One rate, one area, one machine.")
    masked = mask(clean, names)
    if not masked.called and (found := alone(masked.text, names)):
        return found
    line = take_apart(masked, names, clean)
    return next(asked for question in QUESTIONS if (asked := question(line)))
