"""Where a rate stands against its label, at the border."""

from typing import Literal

from core.rates.limits import Judgement, Stand
from greenmeasure.common.schemas import Out

StandName = Literal["within", "below", "above"]
WORDS = {Stand.WITHIN: "Within the label", Stand.BELOW: "Below the label", Stand.ABOVE: "Above the label"}


class JudgementOut(Out):
    """Where a rate stands against its label, and whether that is refused."""

    stand: StandName
    refused: bool
    word: str
    sentence: str


def judgement_out(judgement: Judgement) -> JudgementOut:
    """A judgement at the border."""
    return JudgementOut(
        stand=judgement.stand.value, refused=judgement.refused, word=WORDS[judgement.stand], sentence=judgement.sentence
    )
