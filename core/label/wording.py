"""The words of label phrases: what joins the parts of a rate, what stands round it, and spellings that come to one.

Which words labels use is common practice, no source.
"""

import re

from core.label.rate import Basis
from core.units import NUMBER, NUMBER_WORDS


def words(pattern: str) -> re.Pattern[str]:
    """A pattern in any case."""
    return re.compile(pattern, re.IGNORECASE)


SPELT = tuple(
    (words(pattern), to)
    for pattern, to in (
        (r"\bfluid ozs?\b", "fl oz"),
        (r"\bozs\b", "oz"),
        (r"\bdry (?:oz|ounces?)\b", "oz wt"),
        (r"\bounces?\s*\(?\s*(?:wt|by weight|weight)\b\s*\)?", "oz wt"),
        (r"\b(\w+) and an? half\b", r"\1 1/2"),
        (r"\boz\s*\(\s*(?:dry|wt|weight|by weight)\s*\)", "oz wt"),
        (r"\boz\s*\(\s*(?:liquid|fluid|fl)\s*\)", "fl oz"),
        (r"\boz\s*(?=\(\s*[\d.]+\s*(?:ml|l|litres?|liters?)\s*\))", "fl oz "),
        (r"\boz\s*(?=\(\s*[\d.]+\s*(?:g|kg|grams?)\s*\))", "oz wt "),
        (r"(?<![\d.] )(?<!\d)\bhundred\b", "100"),
        (r"\b(?:level|heaping|heaped|rounded)\s+", ""),
        (r"\bgpa\b", "gal per acre"),
        (r"\bthree[ -]quarters?(?: of)?(?: an?)?\b(?=\s+[a-z])", "3/4"),
        (r"\b(?:an?\s+|one\s+)?quarter(?: of)?(?: an?)?\b(?=\s+[a-z])", "1/4"),
        (r"\b(?:one\s+)?half(?: of)?(?: an?)?\b(?=\s+[a-z])", "1/2"),
    )
)
"""Spellings that come to one before anything is read."""

BARE_OUNCE = words(r"(?<!fl )(?<!fl\. )(?<!fluid )\b(?:oz|ozs|ounces?)\b\.?(?!\s*\(?\s*(?:wt|dry|weight|by weight))")
"""An ounce of which nobody says whether it is fluid."""

LEAD = words(
    r"(?:(?:label rate|use rate|application rate|rate|apply|use|mix|spread|add|at|of|a|an|the|one|from|between)\b"
    r"\s*:?\s*)*"
)
ANY_LEAD = words(
    r"(?:(?!\b(?:up to|not? (?:to )?exceed|no more|not more|at least|maximum)\b)[^\d.(%]|\.(?!\d))*?(?=\d|\.\d|-\s?\d|\b(?:"
    + "|".join(NUMBER_WORDS)
    + r"|up to|do not exceed|not to exceed|no more than|not more than|at least|(?:a )?maximum of)\b)"
)
"""Whatever a whole phrase begins with, up to its first number or limit."""
NUMBER_AT = re.compile(NUMBER)
NUMBER_WORD = words("(?:" + "|".join(NUMBER_WORDS) + r")\b")
TO = words(r"\s*(?:-|to\b|through\b|and up to\b|and\b|up to\b)\s*")
PER = words(
    r"\s*(?:/|per\b|for each\b|for every\b|to each\b|to every\b|is applied per\b|to\b(?=\s*[\d,.]+\s*(?:sq|ft|m2|acre)))\s*"
)
OF_SPRAY = words(r"\s*(?:of )?(?:finished )?(?:spray|water|mix|solution)(?: (?:solution|mix|volume))?\b")
WATER = words(r"\b(?:water|spray|solution|mix)\b")
IN = words(r"\s*,?\s*(?:in|with|water volume:?|spray volume:?)\s+(?:a minimum of\s+|at least\s+)?")
COVERS = words(
    r"\s*(?:covers|treats|(?:makes )?enough to (?:treat|cover)|makes enough for|and apply (?:evenly )?(?:to|over)|applied to|for)"
    r"\b\s*(?:up to\b\s*)?"
)
COVERAGE = words(r"\s*coverage:?\s*(?:up to\b\s*)?")
PACKAGE = words(r"\s*\b(?:bag|bottle|jug|pack|packet|container|box|drum|case|sachet|pouch|tub|can)s?\b")
LIMIT = words(
    r"\s*(?:up to|do not exceed|not to exceed|no more than|not more than|at most|an? maximum of|maximum of|maximum)\b\s*"
)
LEAST = words(r"\s*at least\b\s*")
VV = words(
    r"\s*%\s*(?:solution\s*)?(?:\(?v\s*/\s*v\)?|by vol(?:ume)?\b|vol\s*/\s*vol\b)|\s*percent (?:solution )?by vol(?:ume)?\b"
)
PERCENT = words(r"\s*(?:%|percent\b)(\s*solution\b)?")
GOES_ON = words(r"(?:on|over|from|of|with)\b")
NAME = re.compile(
    r"\s*(?:of\s+)?(?!N\b|P\b|K\b|A\b|M\b)[A-Za-z][\w-]*(?:\s+[A-Z][\w-]*)*(?=\s*(?:/|\bper\b|\bin\b|\bwith\b|\bfor each\b))"
)
"""What the amount is of, where the rate goes on after it."""
TANK = words(r"\s*(?:spray )?tank(?:ful)?\b")

ONCE = words(r"\s*,?\s*(?:per|in any one|in one|in a single|at each|each)\s+application\b")
A_YEAR = r"(?:per|a|each|every|in any|in a|over a)\s+(?:12[ -]month period|12 months|calendar year|growing season|season|year)\b"
SEASON = words(rf"\s*,?\s*{A_YEAR}|\s*,?\s*(?:annually|yearly)\b")
SEASON_LEAD = words(r"\b(?:annual|yearly|seasonal|season)\b.*\b(?:limit|maximum|max|total)\b")
SETTING = words(r"\bsettings?\b")
EVERY = words(r"\s*,?\s*(?:every|at|on)\s+(?:an?\s+)?(\d+)(?:\s*(?:-|to)\s*(\d+))?[ -](day|week)s?(?:\s+intervals?)?\b")
WATER_IN = words(r"\s*,?\s*(?:and\s+)?(?:then\s+)?(?:to be\s+)?water(?:ed)?(?: it)? in\b[^;]*")
FILL = words(r"\s*,?\s*and (?:add|top up with|fill with) water\b[^;]*")
NOTE = words(r"\s*,?\s*\b(?:for|as|when|where|and spray|and apply|to point|spray|before|after)\b[^\d;()]*$")
WHEN = words(r"\s*when\b(?=[^\d]*\d)")
OTHER = words(r"\s*(?:[;,.]|\bor\b|\band\b)?\s*")
TRADE_NAME = re.compile(r"\s*[A-Z][a-z][\w-]*(?:\s+[A-Z][\w-]*)*\s*$")

WHAT = words(
    r"\s*(?:of\s+)?(?:actual\s+)?(?P<what>nitrogen|phosphate|potash|potassium|phosphorus|iron|manganese|magnesium|calcium"
    r"|sulfur|sulphur|boron|zinc|copper|molybdenum|active ingredient|active|product|concentrate|P2O5|K2O|Fe|Mn|Mg|Ca|Zn|Cu|Mo|ai"
    r"|N|P|K|S|B)\b"
)
WHAT_MEANS = {
    "nitrogen": Basis.N,
    "n": Basis.N,
    "phosphate": Basis.P2O5,
    "p2o5": Basis.P2O5,
    "potash": Basis.K2O,
    "k2o": Basis.K2O,
    "phosphorus": Basis.P,
    "p": Basis.P,
    "potassium": Basis.K,
    "k": Basis.K,
    "iron": Basis.FE,
    "fe": Basis.FE,
    "manganese": Basis.MN,
    "mn": Basis.MN,
    "magnesium": Basis.MG,
    "mg": Basis.MG,
    "calcium": Basis.CA,
    "ca": Basis.CA,
    "sulfur": Basis.S,
    "sulphur": Basis.S,
    "s": Basis.S,
    "boron": Basis.B,
    "b": Basis.B,
    "zinc": Basis.ZN,
    "zn": Basis.ZN,
    "copper": Basis.CU,
    "cu": Basis.CU,
    "molybdenum": Basis.MO,
    "mo": Basis.MO,
    "active ingredient": Basis.ACTIVE,
    "active": Basis.ACTIVE,
    "ai": Basis.ACTIVE,
    "product": Basis.PRODUCT,
    "concentrate": Basis.PRODUCT,
}
