"""All disease models by their keys; the one to begin with comes first for its disease."""

from core.disease import (
    anthracnose_danneberger,
    brown_patch_fidanza,
    dollar_spot_hall,
    dollar_spot_mills_rothwell,
    dollar_spot_smith_kerns,
    pythium_blight_nutter,
    rules_of_thumb,
    snow_moulds,
    soil_triggers,
)
from core.disease.model import Model

MODELS: dict[str, Model] = {
    m.key: m
    for m in (
        dollar_spot_smith_kerns.MODEL,
        dollar_spot_mills_rothwell.MODEL,
        dollar_spot_hall.MODEL,
        brown_patch_fidanza.MODEL,
        pythium_blight_nutter.MODEL,
        anthracnose_danneberger.MODEL,
        *rules_of_thumb.MODELS,
        snow_moulds.COLD_MODEL,
        snow_moulds.MODEL,
        *soil_triggers.MODELS,
    )
}


def of_disease(disease: str) -> list[Model]:
    """The models of a disease, the one to begin with first."""
    return [m for m in MODELS.values() if m.disease == disease]
