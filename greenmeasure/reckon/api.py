"""Reckoning, which changes nothing, and the mixes that are kept by name."""

from django.http import HttpRequest, HttpResponse
from ninja import Path, Router

from greenmeasure.accounts.auth import APPLICATOR, VIEWER, account_of
from greenmeasure.common.answers import ready
from greenmeasure.common.bounds import Id
from greenmeasure.common.names import put_back
from greenmeasure.kit.schemas import CupIn
from greenmeasure.reckon import mixes, queries
from greenmeasure.reckon.again import again
from greenmeasure.reckon.comparing import compared
from greenmeasure.reckon.line import answer_line, examples
from greenmeasure.reckon.models import KeptMix
from greenmeasure.reckon.outs import job_out
from greenmeasure.reckon.schemas import (
    AgainOut,
    BackIn,
    BackOut,
    CompareIn,
    CompareOut,
    CupOut,
    DoseMeasureIn,
    ExampleOut,
    JobIn,
    JobOut,
    KeptMixIn,
    KeptMixOut,
    LineIn,
    LineOut,
    MeasuringOut,
    Nothing,
    RowFitOut,
    RowsIn,
)

router = Router(tags=["reckon"])
mixes_router = Router(tags=["reckon"])


@router.post("/job", response=JobOut, auth=VIEWER)
def reckon_job(request: HttpRequest, account: Path[str], data: JobIn) -> HttpResponse:
    """Reckon one job: amount, loads, vessels, cost, verdict, rules, budget, working."""
    return ready(job_out(queries.reckoned(account_of(request), data)))


@router.post("/empty", response=Nothing, auth=VIEWER)
def reckon_nothing(request: HttpRequest, account: Path[str], data: JobIn) -> HttpResponse:
    """Through the same door with the same question, answering nothing: what `make bench` measures against."""
    return ready(Nothing())


@router.get("/again/{application_id}", response=AgainOut, auth=VIEWER)
def reckon_again(request: HttpRequest, account: Path[str], application_id: Id) -> AgainOut:
    """An application of the book as it would be planned now."""
    return again(account_of(request), application_id)


@router.post("/rows", response=list[RowFitOut], auth=VIEWER)
def fitting_rows(request: HttpRequest, account: Path[str], data: RowsIn) -> list[RowFitOut]:
    """How the rows of a label fit an area, the one to open with first."""
    return queries.row_fits(account_of(request), data)


@router.post("/backwards", response=BackOut, auth=VIEWER)
def reckon_backwards(request: HttpRequest, account: Path[str], data: BackIn) -> HttpResponse:
    """From an amount to the rate it makes."""
    return ready(queries.backwards(account_of(request), data))


@router.post("/compare", response=CompareOut, auth=VIEWER)
def compare_products(request: HttpRequest, account: Path[str], data: CompareIn) -> HttpResponse:
    """Products for one purpose side by side."""
    return ready(compared(account_of(request), data))


@router.post("/measure", response=MeasuringOut, auth=VIEWER)
def measure_dose(request: HttpRequest, account: Path[str], data: DoseMeasureIn) -> HttpResponse:
    """How to measure a dose."""
    return ready(queries.measuring(account_of(request), data))


@router.post("/cup", response=CupOut, auth=VIEWER)
def check_cup(request: HttpRequest, account: Path[str], data: CupIn) -> HttpResponse:
    """Whether a cup's mark is true, by the water it holds."""
    return ready(queries.cup(data))


@router.post("/line", response=LineOut, auth=VIEWER)
def reckon_line(request: HttpRequest, account: Path[str], data: LineIn) -> HttpResponse:
    """Answer the reckon line."""
    return ready(answer_line(account_of(request), data.line))


@router.get("/line", response=list[ExampleOut], auth=VIEWER)
def line_examples(request: HttpRequest, account: Path[str]) -> list[ExampleOut]:
    """Lines that can be asked, in the account's own names."""
    return examples(account_of(request))


@mixes_router.get("", response=list[KeptMixOut], auth=VIEWER)
def list_mixes(request: HttpRequest, account: Path[str]) -> list[KeptMixOut]:
    """The mixes that the account keeps."""
    return mixes.kept_mixes(account_of(request))


@mixes_router.post("", response={201: KeptMixOut}, auth=APPLICATOR)
def keep_mix(request: HttpRequest, account: Path[str], data: KeptMixIn) -> tuple[int, KeptMixOut]:
    """Keep a job under a name."""
    found = account_of(request)
    return 201, mixes.mix_out(found, mixes.keep_mix(found, data))


@mixes_router.get("/{mix_id}", response=AgainOut, auth=VIEWER)
def open_mix(request: HttpRequest, account: Path[str], mix_id: Id) -> AgainOut:
    """A kept mix as it would be planned now."""
    found = account_of(request)
    return mixes.opened(found, KeptMix.objects.one(found, mix_id))


@mixes_router.delete("/{mix_id}", response=KeptMixOut, auth=APPLICATOR)
def remove_mix(request: HttpRequest, account: Path[str], mix_id: Id) -> KeptMixOut:
    """Put a mix away; it can be put back."""
    found = account_of(request)
    kept = KeptMix.objects.one(found, mix_id)
    kept.archive()
    return mixes.mix_out(found, kept)


@mixes_router.post("/{mix_id}/put-back", response=KeptMixOut, auth=APPLICATOR)
def put_back_mix(request: HttpRequest, account: Path[str], mix_id: Id) -> KeptMixOut:
    """Undo a removal."""
    found = account_of(request)
    return mixes.mix_out(found, put_back(KeptMix.objects.one(found, mix_id)))
