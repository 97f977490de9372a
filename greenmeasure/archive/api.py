"""An account taken along whole, brought in again, and closed."""

from tempfile import TemporaryFile

from django.contrib.auth import logout
from django.http import FileResponse, HttpRequest
from ninja import File, Path, Router
from ninja.files import UploadedFile

from greenmeasure.accounts import throttle
from greenmeasure.accounts.api import session_out
from greenmeasure.accounts.auth import OVERSEER, OWN, VIEWER, account_of, user_of
from greenmeasure.accounts.schemas import CloseIn, SessionOut
from greenmeasure.archive import closing, reading, writing
from greenmeasure.archive.away import away
from greenmeasure.archive.schemas import AwayOut
from greenmeasure.common import clock
from greenmeasure.common.answers import sends

router = Router(tags=["archive"])
account_router = Router(tags=["archive"])


@account_router.get("/archive.zip", auth=OVERSEER, openapi_extra=sends("application/zip"))
def export_archive(request: HttpRequest, account: Path[str]) -> FileResponse:
    """The account whole, in one file."""
    found, file = account_of(request), TemporaryFile()  # noqa: SIM115 - the answer closes it
    writing.write(found, file)
    file.seek(0)
    name = f"{found.slug}-{clock.now():%Y-%m-%d}.zip"
    answer = FileResponse(file, as_attachment=True, filename=name, content_type="application/zip")
    answer["Content-Encoding"] = "identity"  # it is packed already
    return answer


@account_router.get("/away", response=list[AwayOut], auth=VIEWER)
def list_away(request: HttpRequest, account: Path[str]) -> list[AwayOut]:
    """What was put away, the last first."""
    return away(account_of(request))


@account_router.post("/close", response={204: None}, auth=OVERSEER)
def close_account(request: HttpRequest, account: Path[str], data: CloseIn) -> tuple[int, None]:
    """Close the account for good; whoever belongs to no other one is signed out."""
    user = user_of(request)
    closing.close(account_of(request), user, data.name, data.password)
    if not user.memberships.exists():
        logout(request)
    return 204, None


@router.post("/accounts/archive", response={201: SessionOut}, auth=OWN)
def import_archive(request: HttpRequest, file: File[UploadedFile]) -> tuple[int, SessionOut]:
    """Bring an archive in, as a new account of one's own."""
    throttle.knock_to_found(request)
    reading.read(file, user_of(request))
    return 201, session_out(request)
