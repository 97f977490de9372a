"""What really went down: the product used over the ground treated, in the label's own unit."""

from core.errors import DENSITY, InputError, Mend
from core.label.product import Product
from core.label.rate import Basis, LabelRate, Rate
from core.rates.dose import counted_content
from core.units import MASS, VOLUME, Quantity, positive


def actual_rate(product: Product, label: LabelRate, used: Quantity, treated: Quantity, spray: Quantity | None) -> Rate:
    """The rate that `used` product on `treated` ground came to.

    Args:
        product: with the density or composition that the label's unit may need.
        label: whose unit the answer is in.
        used: the product that was really used, by weight or volume.
        treated: the ground really treated.
        spray: the spray put down, for labels that state a share of it.

    Raises:
        InputError: a density, a composition or the spray volume is missing.
    """
    unit = label.highest.unit
    counted = _counted(product, unit.basis, unit.amount.dimension, used)
    if unit.per_area:
        return Rate(counted / positive("treated", treated.base) / unit.size, unit)
    if spray is None:
        raise InputError(
            "spray", None, f"The label's {unit.symbol} is a share of the spray.", "Enter the spray volume that was used."
        )
    return Rate(counted / positive("spray", spray.base) / unit.size, unit)


def _counted(product: Product, basis: Basis, dimension: str, used: Quantity) -> float:
    """What the label counts in the used product, in base units of `dimension` (g or L; a share counts L)."""
    if basis is Basis.PRODUCT:
        return _in(product, used, MASS if dimension == MASS else VOLUME)
    content, factor = counted_content(product, basis)
    if content.g_per_l is not None and used.unit.dimension == VOLUME:
        return used.base * content.g_per_l * factor
    return _in(product, used, MASS) * (product.share(content) or 0.0) * factor


def _in(product: Product, used: Quantity, dimension: str) -> float:
    if used.unit.dimension == dimension:
        return used.base
    if product.density_g_per_l is None:
        raise InputError(
            "used",
            str(used),
            f"{product.name} needs a density to be counted by {dimension}.",
            f"Enter the amount by {dimension}, or add the density to the product.",
            mend=Mend(DENSITY, product.id),
        )
    return used.base * product.density_g_per_l if dimension == MASS else used.base / product.density_g_per_l
