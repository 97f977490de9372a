"""What products are put down for, with the names people use and what each is taken for.

Names follow the Compendium of Turfgrass Diseases' usage (from memory); look-alikes are common practice, no source.
"""

import re
from dataclasses import dataclass
from functools import lru_cache


@dataclass(frozen=True)
class Target:
    """One purpose. `also` are other names for it; `unlike` are keys of what it is mistaken for, with how to tell."""

    key: str
    name: str
    kind: str
    also: tuple[str, ...] = ()
    unlike: tuple[tuple[str, str], ...] = ()


DISEASE, WEED, INSECT, GROWTH, FEED, SOIL, SPRAY = "disease", "weed", "insect", "growth", "feeding", "soil", "spray"

_ROWS = (
    Target(
        "dollar_spot",
        "Dollar spot",
        DISEASE,
        ("clarireedia", "sclerotinia homoeocarpa"),
        (
            ("brown_patch", "its patches are coin-sized with straw lesions across the blade; brown patch rings are far larger"),
            ("pythium_blight", "its cobweb at dawn dries off; pythium turns blades greasy"),
        ),
    ),
    Target(
        "brown_patch",
        "Brown patch",
        DISEASE,
        ("rhizoctonia solani", "rhizoctonia blight"),
        (("large_patch", "large patch is on warm-season grass in cool wet months; brown patch in hot nights"),),
    ),
    Target("large_patch", "Large patch", DISEASE, ("zoysia patch",)),
    Target("pythium_blight", "Pythium blight", DISEASE, ("pythium", "cottony blight", "grease spot")),
    Target(
        "gray_leaf_spot",
        "Gray leaf spot",
        DISEASE,
        ("grey leaf spot", "pyricularia", "blast"),
        (("leaf_spot", "leaf spot and melting-out is another fungus, in cooler weather; its rates are other rows"),),
    ),
    Target(
        "leaf_spot",
        "Leaf spot and melting-out",
        DISEASE,
        ("leaf spot", "melting out", "melting-out", "drechslera", "bipolaris", "helminthosporium"),
        (("gray_leaf_spot", "gray leaf spot is another fungus, in hot late summer; its rates are other rows"),),
    ),
    Target("anthracnose", "Anthracnose", DISEASE, ("colletotrichum", "basal rot anthracnose")),
    Target(
        "microdochium_patch",
        "Microdochium patch",
        DISEASE,
        ("pink snow mold", "pink snow mould", "fusarium patch"),
        (("gray_snow_mould", "gray snow mould needs long snow cover and shows small hard sclerotia"),),
    ),
    Target("gray_snow_mould", "Gray snow mould", DISEASE, ("gray snow mold", "grey snow mould", "typhula", "typhula blight")),
    Target("snow_mould", "Snow moulds", DISEASE, ("snow mold", "snow mould", "snow molds")),
    Target("red_thread", "Red thread", DISEASE, ("laetisaria", "pink patch")),
    Target("rust", "Rust", DISEASE, ("puccinia", "stem rust", "crown rust")),
    Target("summer_patch", "Summer patch", DISEASE, ("magnaporthiopsis",)),
    Target("necrotic_ring_spot", "Necrotic ring spot", DISEASE, ("nrs",)),
    Target("take_all_patch", "Take-all patch", DISEASE, ("take-all", "take all", "gaeumannomyces")),
    Target("fairy_ring", "Fairy ring", DISEASE, ("fairy rings",)),
    Target("spring_dead_spot", "Spring dead spot", DISEASE, ("ophiosphaerella",)),
    Target("powdery_mildew", "Powdery mildew", DISEASE, ("erysiphe", "mildew")),
    Target("yellow_patch", "Yellow patch", DISEASE, ("cool-season brown patch",)),
    Target("broadleaf_weeds", "Broadleaf weeds", WEED, ("broadleaf", "dandelion", "clover", "plantain", "broad-leaved weeds")),
    Target(
        "crabgrass",
        "Crabgrass",
        WEED,
        ("digitaria", "annual grasses"),
        (("goosegrass", "goosegrass is white and flat at its crown and germinates weeks later"),),
    ),
    Target("goosegrass", "Goosegrass", WEED, ("eleusine",)),
    Target("annual_bluegrass", "Annual bluegrass", WEED, ("poa annua", "annual meadow-grass")),
    Target("sedges", "Sedges", WEED, ("nutsedge", "kyllinga", "yellow nutsedge")),
    Target("moss", "Moss", WEED, ("silvery thread moss",)),
    Target("white_grubs", "White grubs", INSECT, ("grubs", "chafer grubs", "beetle grubs")),
    Target("cutworms", "Cutworms", INSECT, ("black cutworm", "armyworm")),
    Target("chinch_bugs", "Chinch bugs", INSECT, ("chinch bug",)),
    Target("billbugs", "Billbugs", INSECT, ("weevils", "annual bluegrass weevil")),
    Target("growth", "Growth regulation", GROWTH, ("regulation", "clippings", "less mowing", "growth")),
    Target("seedheads", "Seedheads", GROWTH, ("seed heads", "seedhead suppression")),
    Target("feeding", "Feeding", FEED, ("nitrogen", "fertility", "nutrition", "by nitrogen", "maintenance feeding")),
    Target("colour", "Colour", FEED, ("color", "greening", "iron", "deficiency")),
    Target("soil_ph", "Soil pH", SOIL, ("ph", "liming", "acidifying")),
    Target("soil_structure", "Soil structure and sodium", SOIL, ("gypsum", "sodium", "compaction")),
    Target("wetting", "Wetting dry soil", SOIL, ("dry patch", "localised dry spot", "localized dry spot", "wetting agent")),
    Target("spreading", "Spreading and sticking", SPRAY, ("surfactant", "spreader", "sticker", "adjuvant")),
    Target("marking", "Marking the spray", SPRAY, ("dye", "colourant", "marker")),
)

TARGETS = {t.key: t for t in _ROWS}

PESTS = (DISEASE, WEED, INSECT)
"""Kinds of targets that a row names for good: a rate against one is no rate against another."""


def _plain(text: str) -> str:
    return re.sub(r"[^a-z0-9]+", " ", text.lower()).strip()


_NAMES = {_plain(name): t.key for t in _ROWS for name in (t.key, t.name, *t.also)}


@lru_cache(maxsize=2000)
def find_target(text: str) -> Target | None:
    """The target that a text names, by any of its names; None where it names none known here.

    The longest name that stands in the text wins, so that "gray leaf spot, curative" is not leaf spot.
    """
    plain = f" {_plain(text)} "
    hits = [name for name in _NAMES if f" {name} " in plain]
    return TARGETS[_NAMES[max(hits, key=len)]] if hits else None


INCLUDES = {"snow_mould": ("microdochium_patch", "gray_snow_mould")}
"""Purposes that a label names in one word, and what they are."""


def includes(named: str, key: str) -> bool:
    """Whether what a label names (a target's key) is good for a target."""
    return named == key or key in INCLUDES.get(named, ())


def mistaken_for(key: str) -> list[str]:
    """What to look at before believing a target: one sentence a look-alike."""
    target = TARGETS.get(key)
    if target is None:
        return []
    return [f"{TARGETS[other].name} looks like it: {how}." for other, how in target.unlike]
