"""Products."""

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from ninja import File, Path, Router
from ninja.files import UploadedFile

from greenmeasure.accounts.auth import APPLICATOR, MANAGER, VIEWER, account_of
from greenmeasure.common.answers import sends
from greenmeasure.common.bounds import Id
from greenmeasure.common.bringing import ImportOut
from greenmeasure.common.errors import Missing
from greenmeasure.common.names import put_back
from greenmeasure.common.versions import against
from greenmeasure.shelf import actions, files, queries
from greenmeasure.shelf.models import Product
from greenmeasure.shelf.pasted import pasted_out
from greenmeasure.shelf.schemas import (
    GradeOut,
    LabelTextIn,
    LotIn,
    NameIn,
    PastedOut,
    PhraseIn,
    PhraseOut,
    ProductIn,
    ProductOut,
    ShelfOptionsOut,
    ShelfTextIn,
)

router = Router(tags=["shelf"])


@router.get("", response=list[ProductOut], auth=VIEWER)
def list_products(request: HttpRequest, account: Path[str]) -> list[ProductOut]:
    """The account's products."""
    return queries.shelf(account_of(request))


@router.get("/options", response=ShelfOptionsOut, auth=VIEWER)
def product_options(request: HttpRequest, account: Path[str]) -> ShelfOptionsOut:
    """What a product's form offers to pick from."""
    return queries.options(account_of(request).us)


@router.post("/phrase", response=PhraseOut, auth=VIEWER)
def read_phrase(request: HttpRequest, account: Path[str], data: PhraseIn) -> PhraseOut:
    """Read a rate as a label prints it; changes nothing."""
    return queries.phrase_out(data.phrase, data.formulation)


@router.post("/grade", response=GradeOut, auth=VIEWER)
def read_grade(request: HttpRequest, account: Path[str], data: NameIn) -> GradeOut:
    """The contents that a product's name states; changes nothing."""
    return queries.grade_out(data.name)


@router.post("/label", response=PastedOut, auth=VIEWER)
def read_label(request: HttpRequest, account: Path[str], data: LabelTextIn) -> PastedOut:
    """Read a label's text into a card that is still to be confirmed; changes nothing."""
    return pasted_out(data.text, frozenset(data.without))


@router.get("/shelf.json", auth=VIEWER, openapi_extra=sends("application/json"))
def export_shelf_json(request: HttpRequest, account: Path[str]) -> HttpResponse:
    """The whole shelf as JSON."""
    return _file(files.to_json(account_of(request)), "application/json", f"{account_of(request).slug}-shelf.json")


@router.get("/shelf.csv", auth=VIEWER, openapi_extra=sends("text/csv"))
def export_shelf_csv(request: HttpRequest, account: Path[str]) -> StreamingHttpResponse:
    """The shelf as CSV, a line a rate."""
    found = account_of(request)
    answer = StreamingHttpResponse(files.csv_lines(found), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{found.slug}-shelf.csv"'
    return answer


def _file(text: str, kind: str, name: str) -> HttpResponse:
    answer = HttpResponse(text, content_type=f"{kind}; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{name}"'
    return answer


@router.post("/import/preview", response=ImportOut, auth=MANAGER)
def preview_shelf(request: HttpRequest, account: Path[str], data: ShelfTextIn) -> ImportOut:
    """What a file would do to the shelf, product by product; changes nothing."""
    return files.read(account_of(request), data.form, data.text, keep=False)


@router.post("/import", response=ImportOut, auth=MANAGER)
def import_shelf(request: HttpRequest, account: Path[str], data: ShelfTextIn) -> ImportOut:
    """Bring products in from a file; all of them, or none where one is at fault."""
    return files.read(account_of(request), data.form, data.text, keep=True)


@router.post("", response={201: ProductOut}, auth=MANAGER)
def add_product(request: HttpRequest, account: Path[str], data: ProductIn) -> tuple[int, ProductOut]:
    """Add a product."""
    return 201, queries.product_out(actions.save_product(account_of(request), data))


@router.put("/{product_id}", response=ProductOut, auth=MANAGER)
def change_product(request: HttpRequest, account: Path[str], product_id: Id, data: ProductIn) -> ProductOut:
    """Change a product."""
    found = account_of(request)

    def product() -> Product:
        return Product.objects.one(found, product_id)

    with against(data, lambda: queries.product_out(product())):
        return queries.product_out(actions.save_product(found, data, product()))


@router.delete("/{product_id}", response=ProductOut, auth=MANAGER)
def remove_product(request: HttpRequest, account: Path[str], product_id: Id) -> ProductOut:
    """Put a product away; the book keeps it, and it can be put back."""
    product = Product.objects.one(account_of(request), product_id)
    product.archive()
    return queries.product_out(product)


@router.post("/{product_id}/put-back", response=ProductOut, auth=MANAGER)
def put_back_product(request: HttpRequest, account: Path[str], product_id: Id) -> ProductOut:
    """Undo a removal."""
    return queries.product_out(put_back(Product.objects.one(account_of(request), product_id)))


@router.post("/{product_id}/lots", response={201: ProductOut}, auth=APPLICATOR)
def add_lot(request: HttpRequest, account: Path[str], product_id: Id, data: LotIn) -> tuple[int, ProductOut]:
    """Put a lot on the shelf."""
    product = Product.objects.one(account_of(request), product_id)
    actions.save_lot(product, data)
    return 201, queries.product_out(product)


@router.put("/{product_id}/lots/{lot_id}", response=ProductOut, auth=APPLICATOR)
def change_lot(request: HttpRequest, account: Path[str], product_id: Id, lot_id: Id, data: LotIn) -> ProductOut:
    """Say what is left of a lot."""
    product = Product.objects.one(account_of(request), product_id)
    with against(data, lambda: queries.lot_out(actions.lot_of(product, lot_id))):
        actions.save_lot(product, data, actions.lot_of(product, lot_id))
    return queries.product_out(product)


@router.delete("/{product_id}/lots/{lot_id}", response=ProductOut, auth=APPLICATOR)
def remove_lot(request: HttpRequest, account: Path[str], product_id: Id, lot_id: Id) -> ProductOut:
    """Take a lot off the shelf."""
    product = Product.objects.one(account_of(request), product_id)
    actions.lot_of(product, lot_id).delete()
    product.account.touch("stock")
    return queries.product_out(product)


@router.post("/{product_id}/labels", response={201: ProductOut}, auth=MANAGER)
def add_label(request: HttpRequest, account: Path[str], product_id: Id, file: File[UploadedFile]) -> tuple[int, ProductOut]:
    """Keep a photograph or a PDF of the label."""
    product = Product.objects.one(account_of(request), product_id)
    actions.add_label_file(product, file.name or "label", file.read())
    return 201, queries.product_out(product)


@router.get("/{product_id}/labels/{label_id}", auth=VIEWER, openapi_extra=sends("image/jpeg", "application/pdf"))
def get_label(request: HttpRequest, account: Path[str], product_id: Id, label_id: Id) -> HttpResponse:
    """A label's photograph or PDF."""
    found = Product.objects.one(account_of(request), product_id).labels.filter(pk=label_id).first()
    if found is None:
        raise Missing("label")
    answer = HttpResponse(bytes(found.data), content_type=found.kind)
    answer["Content-Disposition"] = "inline"
    answer["X-Content-Type-Options"] = "nosniff"
    answer["Content-Security-Policy"] = "default-src 'none'; img-src 'self'; style-src 'unsafe-inline'; sandbox"
    return answer


@router.delete("/{product_id}/labels/{label_id}", response=ProductOut, auth=MANAGER)
def remove_label(request: HttpRequest, account: Path[str], product_id: Id, label_id: Id) -> ProductOut:
    """Take a label's picture away."""
    product = Product.objects.one(account_of(request), product_id)
    actions.remove_label_file(product, label_id)
    return queries.product_out(product)
