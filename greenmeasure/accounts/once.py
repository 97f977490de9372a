"""A request that creates something counts once, however often it is sent.

The sender makes a key and sends it as `Idempotency-Key`, the same one again until an answer has come. Key, request and answer
are kept in the transaction that does the work: a repeat is answered as the first time, and the same key with another
request is refused.
"""

from collections.abc import Callable
from datetime import timedelta
from hashlib import sha256
from hmac import compare_digest
from uuid import UUID, uuid4, uuid5

from django.db import IntegrityError, transaction
from django.http import HttpRequest, HttpResponse, JsonResponse

from greenmeasure.accounts.models import Sent, User
from greenmeasure.common import clock

HEADER = "Idempotency-Key"
KEPT = timedelta(days=7)
"""How long an answer is kept for a sender who has not heard it."""
MOST = 80
"""Characters of a key."""
SPACE = UUID("0b7d3c52-5d0e-4a0f-9d43-5b5c3f1f5a7e")


def key_of(request: HttpRequest) -> UUID:
    """The request's key as the rows it makes carry it; a new one where none was sent."""
    sent = request.headers.get(HEADER)
    return uuid5(SPACE, f"{request.user.pk} {sent}") if sent else uuid4()


class OnceMiddleware:
    """Answers a POST that carries a key once, and repeats of it as the first time."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        key = request.headers.get(HEADER, "")
        if request.method != "POST" or not key or not request.path.startswith("/api/") or not request.user.is_authenticated:
            return self.get_response(request)
        if len(key) > MOST:
            return _refused(f"A key has {MOST} characters at the most.", 422)
        digest = _digest(request)
        Sent.objects.filter(at__lt=clock.now() - KEPT).delete()
        with transaction.atomic():
            try:
                with transaction.atomic():
                    sent = Sent.objects.create(user_id=request.user.pk, key=key, digest=digest, at=clock.now())
            except IntegrityError:
                return _again(Sent.objects.get(user_id=request.user.pk, key=key), digest)
            answer = self.get_response(request)
            if 200 <= answer.status_code < 300:
                sent.status, sent.answer = answer.status_code, answer.content.decode()
                sent.save(update_fields=["status", "answer"])
            else:
                transaction.set_rollback(True)
            return answer


def founded(request: HttpRequest, username: str) -> User | None:
    """Who opened an account by this same request before, its answer lost: nobody is signed in yet, so the key is looked up
    by the sign-in name. The digest holds the password, so nobody else is let in by it.
    """
    key = request.headers.get(HEADER, "")
    sent = Sent.objects.filter(user__username__iexact=username.strip(), key=key).select_related("user").first() if key else None
    return sent.user if sent and compare_digest(sent.digest, _digest(request)) else None


def remember(request: HttpRequest, user: User, answer: str) -> None:
    """Keep that this request opened an account for `user`, and what it was answered."""
    key = request.headers.get(HEADER, "")
    if key and len(key) <= MOST:
        Sent.objects.create(user=user, key=key, digest=_digest(request), status=201, answer=answer, at=clock.now())


def _digest(request: HttpRequest) -> str:
    """What tells one request from another: address and body, of a form its fields and files."""
    found = sha256(request.get_full_path().encode())
    if (request.content_type or "").startswith("multipart/"):
        for name, value in sorted(request.POST.items()):
            found.update(f"{name}={value}\n".encode())
        for name in sorted(request.FILES):
            for file in request.FILES.getlist(name):
                found.update(f"{name}:{file.name}\n".encode())
                for chunk in file.chunks():
                    found.update(chunk)
                file.seek(0)
    else:
        found.update(request.body)
    return found.hexdigest()


def _again(sent: Sent, digest: str) -> HttpResponse:
    if sent.digest != digest:
        return _refused("This key was sent with another request before. Look whether that went through, and begin anew.", 409)
    return HttpResponse(sent.answer, status=sent.status, content_type="application/json; charset=utf-8")


def _refused(said: str, status: int) -> HttpResponse:
    return JsonResponse({"code": "key", "message": said, "fields": []}, status=status)
