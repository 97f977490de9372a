"""Mode-of-action groups: FRAC codes of fungicides, HRAC of herbicides, IRAC of insecticides, classes of growth
regulators.

Codes and actives after the FRAC, HRAC and IRAC code lists (from memory); risk and the rule of two in a row are FRAC general
guidance (from memory). Multi-site codes begin with M and do not count in a row.
"""

import re
from dataclasses import dataclass

from core.errors import NotUnderstood

FRAC, HRAC, IRAC, CLASS = "FRAC", "HRAC", "IRAC", "Class"


@dataclass(frozen=True)
class Group:
    """One group: its scheme and code, what it is called, its resistance risk, and the turf actives in it."""

    scheme: str
    code: str
    name: str
    risk: str
    actives: tuple[str, ...]

    @property
    def text(self) -> str:
        return f"{self.scheme} {self.code}"

    @property
    def multi_site(self) -> bool:
        return self.scheme == FRAC and self.code.startswith("M")


_ROWS = (
    Group(FRAC, "1", "MBC", "high", ("thiophanate-methyl",)),
    Group(FRAC, "2", "dicarboximides", "medium to high", ("iprodione", "vinclozolin")),
    Group(
        FRAC,
        "3",
        "DMI",
        "medium",
        ("propiconazole", "tebuconazole", "triticonazole", "metconazole", "myclobutanil", "triadimefon", "mefentrifluconazole"),
    ),
    Group(FRAC, "4", "phenylamides", "high", ("mefenoxam", "metalaxyl")),
    Group(
        FRAC,
        "7",
        "SDHI",
        "medium to high",
        ("boscalid", "fluxapyroxad", "penthiopyrad", "isofetamid", "fluopyram", "pydiflumetofen", "flutolanil"),
    ),
    Group(FRAC, "11", "QoI", "high", ("azoxystrobin", "pyraclostrobin", "trifloxystrobin", "fluoxastrobin", "mandestrobin")),
    Group(FRAC, "12", "phenylpyrroles", "low to medium", ("fludioxonil",)),
    Group(FRAC, "14", "aromatic hydrocarbons", "low to medium", ("quintozene", "chloroneb", "etridiazole", "tolclofos-methyl")),
    Group(FRAC, "19", "polyoxins", "medium", ("polyoxin D zinc salt", "polyoxin D")),
    Group(FRAC, "21", "QiI", "medium to high", ("cyazofamid",)),
    Group(FRAC, "28", "carbamates", "low to medium", ("propamocarb",)),
    Group(FRAC, "29", "uncouplers", "low", ("fluazinam",)),
    Group(FRAC, "43", "benzamides", "medium", ("fluopicolide",)),
    Group(FRAC, "49", "OSBPI", "medium to high", ("oxathiapiprolin",)),
    Group(FRAC, "M03", "dithiocarbamates", "low", ("mancozeb", "thiram")),
    Group(FRAC, "M05", "chloronitriles", "low", ("chlorothalonil",)),
    Group(FRAC, "P01", "host defence", "low", ("acibenzolar-S-methyl",)),
    Group(FRAC, "P07", "phosphonates", "low", ("fosetyl-aluminium", "phosphorous acid", "potassium phosphite")),
    Group(HRAC, "1", "ACCase", "", ("fenoxaprop-P-ethyl", "sethoxydim", "fluazifop-P-butyl")),
    Group(HRAC, "2", "ALS", "", ("metsulfuron-methyl", "halosulfuron-methyl", "trifloxysulfuron", "foramsulfuron")),
    Group(HRAC, "3", "microtubule assembly", "", ("pendimethalin", "prodiamine", "dithiopyr")),
    Group(HRAC, "4", "auxins", "", ("2,4-D", "dicamba", "MCPP", "mecoprop-P", "MCPA", "triclopyr", "quinclorac", "fluroxypyr")),
    Group(HRAC, "5", "PSII, serine", "", ("simazine", "atrazine")),
    Group(HRAC, "6", "PSII, histidine", "", ("bentazone",)),
    Group(HRAC, "9", "EPSPS", "", ("glyphosate",)),
    Group(HRAC, "10", "glutamine synthetase", "", ("glufosinate-ammonium",)),
    Group(HRAC, "14", "PPO", "", ("sulfentrazone", "carfentrazone-ethyl", "oxadiazon")),
    Group(HRAC, "15", "VLCFA", "", ("ethofumesate", "dimethenamid-P")),
    Group(HRAC, "22", "PSI electrons", "", ("diquat",)),
    Group(HRAC, "27", "HPPD", "", ("mesotrione", "topramezone")),
    Group(HRAC, "29", "cellulose synthesis", "", ("indaziflam", "isoxaben")),
    Group(IRAC, "3A", "pyrethroids", "", ("bifenthrin", "lambda-cyhalothrin")),
    Group(IRAC, "4A", "neonicotinoids", "", ("imidacloprid", "clothianidin")),
    Group(IRAC, "28", "diamides", "", ("chlorantraniliprole", "cyantraniliprole")),
    Group(CLASS, "A", "late gibberellin inhibitors", "", ("trinexapac-ethyl", "prohexadione-calcium")),
    Group(CLASS, "B", "early gibberellin inhibitors", "", ("paclobutrazol", "flurprimidol")),
    Group(CLASS, "C", "mitotic inhibitors", "", ("mefluidide", "maleic hydrazide")),
    Group(CLASS, "E", "ethylene releasers", "", ("ethephon",)),
    Group(CLASS, "F", "natural hormones", "", ("gibberellic acid",)),
)

GROUPS = {g.text: g for g in _ROWS}
_OLD = {"M3": "M03", "M5": "M05", "33": "P07", "P33": "P07"}
_SCHEMES = {"frac": FRAC, "hrac": HRAC, "irac": IRAC, "class": CLASS, "group": FRAC, "fungicide group": FRAC, "pgr class": CLASS}


def read_codes(text: str, field: str = "group_code", scheme: str = FRAC) -> tuple[str, ...]:
    """Group codes as a card writes them, one spelling each: `FRAC 3 + 11` is (`FRAC 3`, `FRAC 11`).

    A code alone is of the `scheme` of its kind of product: `A` of a regulator is a class, `4` of a herbicide HRAC's. A premix
    counts for every code in it. Codes that are not listed here are kept as they are.

    Raises:
        NotUnderstood: something that is no code.
    """
    found = []
    for part in re.split(r"\s*(?:[+;&/]|,(?!4-D)|\band\b)\s*", text.strip()):
        if not part:
            continue
        match = re.fullmatch(
            r"(?:(frac|hrac|irac|(?:pgr )?class|(?:fungicide )?group)\s*)?([A-Za-z]?\s?\d{0,2}|\d{1,2}[A-Z]|[A-F])", part, re.I
        )
        if not match or not match[2].strip():
            raise NotUnderstood(field, text, f"“{part}” is no group code.", "Write it like FRAC 3 + 11, HRAC 4 or Class A.")
        scheme = _SCHEMES[match[1].lower()] if match[1] else scheme
        code = match[2].replace(" ", "").upper()
        found.append(f"{scheme} {_OLD.get(code, code) if scheme == FRAC else code}")
    return tuple(dict.fromkeys(found))


_OTHER_NAMES = {
    "fosetyl": "fosetyl-aluminium",
    "fosetyl-al": "fosetyl-aluminium",
    "aluminium tris(o-ethyl phosphonate)": "fosetyl-aluminium",
    "phosphite": "potassium phosphite",
    "pcnb": "quintozene",
    "metalaxyl-m": "mefenoxam",
    "bentazon": "bentazone",
    "bentazon-sodium": "bentazone",
    "glufosinate": "glufosinate-ammonium",
    "prohexadione": "prohexadione-calcium",
    "prohexadione-ca": "prohexadione-calcium",
    "trinexapac": "trinexapac-ethyl",
    "ga3": "gibberellic acid",
    "gibberellin a3": "gibberellic acid",
    "gibberellins": "gibberellic acid",
    "mecoprop": "MCPP",
    "fenoxaprop": "fenoxaprop-P-ethyl",
    "carfentrazone": "carfentrazone-ethyl",
    "metsulfuron": "metsulfuron-methyl",
    "halosulfuron": "halosulfuron-methyl",
    "acibenzolar": "acibenzolar-S-methyl",
}
"""What labels call actives besides their ISO common names; salts and esters are left off, or the other way round."""


def _plain(name: str) -> str:
    """A name as it is compared: aluminium is aluminum, a space a hyphen."""
    return re.sub(r"[\s-]+", "-", name.strip().casefold().replace("aluminum", "aluminium"))


def _by_active() -> dict[str, Group]:
    own = {_plain(active): group for group in _ROWS for active in group.actives}
    return own | {_plain(other): own[_plain(name)] for other, name in _OTHER_NAMES.items()}


_BY_ACTIVE = _by_active()


def group_of(active: str) -> Group | None:
    """The group of an active by its common name, in any of its spellings; None where it is not known here."""
    return _BY_ACTIVE.get(_plain(active))


_COMMON = {_plain(active): active for group in _ROWS for active in group.actives}
_COMMON |= {_plain(other): name for other, name in _OTHER_NAMES.items()}


def common_name(active: str) -> str:
    """The common name of an active that is known here, from any of its spellings; empty where it is not."""
    return _COMMON.get(_plain(active), "")


def multi_site(code: str) -> bool:
    """Whether a code (`FRAC M05`) is of a multi-site group, which builds up no resistance in a row."""
    return code.startswith("FRAC M")
