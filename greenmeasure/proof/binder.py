"""The label binder: each product's card on paper, and after it the label itself as it was photographed or kept."""

import io
from itertools import groupby

from PIL import UnidentifiedImageError
from pypdf import PdfWriter
from pypdf.errors import PdfReadError
from reportlab.platypus import Flowable

from greenmeasure.accounts.models import Account
from greenmeasure.proof.paper import gap, pictured, printed, table, words
from greenmeasure.proof.words import EMPTY, LABEL_FIRST, UNREADABLE
from greenmeasure.shelf.models import LabelFile
from greenmeasure.shelf.queries import card_of, shelf
from greenmeasure.shelf.schemas import ProductOut


def binder_pdf(account: Account, product_id: int | None) -> bytes:
    """The cards of all products on the shelf, or of one, each with its labels.

    Raises:
        Missing: no such product.
    """
    only = card_of(account, product_id).product.pk if product_id else None
    every = [p for p in shelf(account) if only in (None, p.id)]
    held = LabelFile.objects.defer(None).filter(product__in=[p.id for p in every]).order_by("product_id", "added_at")
    labels = {pk: list(rows) for pk, rows in groupby(held.iterator(), key=lambda f: f.product_id)}
    whole = PdfWriter()
    for product in every:
        whole.append(io.BytesIO(printed(product.name, _card(product), us=account.us, foot=LABEL_FIRST)))
        for label in labels.get(product.id, []):
            _add(whole, label, account.us)
    if not every:
        whole.append(io.BytesIO(printed(account.name, [words(EMPTY)], us=account.us)))
    out = io.BytesIO()
    whole.write(out)
    return out.getvalue()


def _card(p: ProductOut) -> list[Flowable]:
    facts = (
        ("Registration", p.registration),
        ("Formulation", p.formulation_text),
        ("Holds", "; ".join(c.text for c in p.contents)),
        ("Group", p.group_code),
        ("Gear for mixing", p.ppe_mixing),
        ("Gear for applying", p.ppe_applying),
        ("Note", p.note),
    )
    parts: list[Flowable] = [words(p.name, size=20, strong=True, after=2), words(p.kind_text, size=11, soft=True, after=8)]
    parts += [words(f"{name}: {said}", size=10, after=2) for name, said in facts if said]
    parts += [gap(8), table(("For", "Rate", "On"), [(r.use, r.phrase, r.ground) for r in p.rates], (3, 4, 4)), gap(8)]
    return parts + [words(r.text, size=10, after=3) for r in p.rules_said]


def _add(whole: PdfWriter, label: LabelFile, us: bool) -> None:
    """A label after its card: a PDF's pages as they are, a photograph on a page of its own; one that cannot be read is named."""
    data = bytes(label.data)
    try:
        if label.kind == "application/pdf":
            whole.append(io.BytesIO(data), import_outline=False)
        else:
            whole.append(io.BytesIO(printed(label.name, [pictured(data)], us=us, foot=label.name)))
    except (PdfReadError, UnidentifiedImageError, OSError, ValueError):
        whole.append(io.BytesIO(printed(label.name, [words(UNREADABLE.format(name=label.name))], us=us)))
