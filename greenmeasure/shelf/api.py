"""Products."""

from django.http import HttpRequest
from ninja import Path, Router

from greenmeasure.common.auth import MANAGER, VIEWER, club_of
from greenmeasure.common.names import put_back
from greenmeasure.shelf import actions, queries
from greenmeasure.shelf.models import Product
from greenmeasure.shelf.schemas import PhraseIn, PhraseOut, ProductIn, ProductOut, ShelfOptionsOut

router = Router(tags=["shelf"])


@router.get("", response=list[ProductOut], auth=VIEWER)
def list_products(request: HttpRequest, club: Path[str]) -> list[ProductOut]:
    """The club's products."""
    return queries.shelf(club_of(request))


@router.get("/options", response=ShelfOptionsOut, auth=VIEWER)
def product_options(request: HttpRequest, club: Path[str]) -> ShelfOptionsOut:
    """What a product's form offers to pick from."""
    return queries.options()


@router.post("/phrase", response=PhraseOut, auth=VIEWER)
def read_phrase(request: HttpRequest, club: Path[str], data: PhraseIn) -> PhraseOut:
    """Read a rate as a label prints it; changes nothing."""
    return queries.phrase_out(data.phrase)


@router.post("", response={201: ProductOut}, auth=MANAGER)
def add_product(request: HttpRequest, club: Path[str], data: ProductIn) -> tuple[int, ProductOut]:
    """Add a product."""
    return 201, queries.product_out(actions.save_product(club_of(request), data))


@router.put("/{product_id}", response=ProductOut, auth=MANAGER)
def change_product(request: HttpRequest, club: Path[str], product_id: int, data: ProductIn) -> ProductOut:
    """Change a product."""
    found = club_of(request)
    return queries.product_out(actions.save_product(found, data, Product.objects.one(found, product_id)))


@router.delete("/{product_id}", response=ProductOut, auth=MANAGER)
def remove_product(request: HttpRequest, club: Path[str], product_id: int) -> ProductOut:
    """Put a product away; the book keeps it, and it can be put back."""
    product = Product.objects.one(club_of(request), product_id)
    product.archive()
    return queries.product_out(product)


@router.post("/{product_id}/put-back", response=ProductOut, auth=MANAGER)
def put_back_product(request: HttpRequest, club: Path[str], product_id: int) -> ProductOut:
    """Undo a removal."""
    return queries.product_out(put_back(Product.objects.one(club_of(request), product_id)))
