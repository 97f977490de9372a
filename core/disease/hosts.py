"""Which grasses a disease is commonly met on, so that an area is watched for what can strike it.

Common practice, no source; after the usual host lists of the trade.
"""

from core.grasses import Sward

_BENT = ("creeping_bentgrass", "colonial_bentgrass")
_WARM = ("bermudagrass", "zoysiagrass", "seashore_paspalum")

HOSTS: dict[str, tuple[str, ...]] = {
    "dollar_spot": (*_BENT, "annual_bluegrass", "kentucky_bluegrass", "perennial_ryegrass", "fine_fescue", *_WARM),
    "brown_patch": (*_BENT, "perennial_ryegrass", "tall_fescue"),
    "pythium_blight": (*_BENT, "annual_bluegrass", "perennial_ryegrass"),
    "anthracnose": ("annual_bluegrass",),
    "gray_leaf_spot": ("perennial_ryegrass", "tall_fescue", "st_augustinegrass"),
    "microdochium_patch": (*_BENT, "annual_bluegrass", "kentucky_bluegrass", "perennial_ryegrass", "fine_fescue"),
    "gray_snow_mould": (*_BENT, "annual_bluegrass", "kentucky_bluegrass", "perennial_ryegrass"),
    "red_thread": ("perennial_ryegrass", "fine_fescue", "tall_fescue"),
    "rust": ("perennial_ryegrass", "kentucky_bluegrass", "zoysiagrass"),
    "leaf_spot": ("kentucky_bluegrass", "tall_fescue", "perennial_ryegrass", "fine_fescue", "bermudagrass"),
    "large_patch": ("zoysiagrass", "st_augustinegrass", "centipedegrass", "seashore_paspalum"),
    "spring_dead_spot": ("bermudagrass", "zoysiagrass"),
    "take_all_patch": _BENT,
    "summer_patch": ("kentucky_bluegrass", "annual_bluegrass", "fine_fescue"),
    "necrotic_ring_spot": ("kentucky_bluegrass",),
    "fairy_ring": _BENT,
    "powdery_mildew": ("kentucky_bluegrass",),
    "yellow_patch": (*_BENT, "kentucky_bluegrass"),
}


def diseases_of(sward: Sward) -> list[str]:
    """The diseases that any grass of a sward is commonly met with, by their keys.

    All of them where nobody said which grasses; none of ornamentals, which other fungi strike.
    """
    if not sward.grasses:
        return list(HOSTS)
    return [disease for disease, hosts in HOSTS.items() if any(g in hosts for g in sward.grasses)]
