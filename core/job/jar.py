"""The jar test: products that have not been in one tank before are tried in a jar first."""

from collections.abc import Collection, Sequence
from itertools import combinations

from core.findings import Finding, Weight
from core.job.mix import Role, role_of
from core.label.product import Product
from core.readable import joined

Pair = frozenset[int]
"""Two products by their ids."""


def jar_test(mix: Sequence[Product], before: Collection[Pair]) -> list[Finding]:
    """What is asked of products that share a tank for the first time; nothing of a mix of one, or with a dye or an adjuvant.

    Clear jar, the same water, shares and order, a look after a quarter of an hour: common practice, no source.

    Args:
        mix: what is in the tank.
        before: pairs that have been in one tank already.
    """
    main = [p for p in mix if role_of(p) is Role.MAIN]
    new = [(a, b) for a, b in combinations(main, 2) if frozenset((a.id, b.id)) not in before]
    if not new:
        return []
    names = joined(list(dict.fromkeys(p.name for pair in new for p in pair)))
    said = f"{names} have not been in one tank here before. Make a jar test first: in a clear jar, with the same water,"
    look = "in the same shares and order. Look after 15 minutes: no flakes, no curd, no layers that will not shake up, no warmth."
    return [Finding("jar-test", Weight.WARN, f"{said} {look}")]
