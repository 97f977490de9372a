"""What changes accounts: founding a club, signing in, members and their roles."""

from zoneinfo import available_timezones

from django.contrib.auth import authenticate, login
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import IntegrityError, transaction
from django.http import HttpRequest
from django.utils.text import slugify

from core.errors import InputError
from greenmeasure.accounts.models import Club, Membership, Role, User
from greenmeasure.common.errors import Conflict, Faults, Missing


def sign_in(request: HttpRequest, username: str, password: str) -> User:
    """Sign a person in.

    Raises:
        InputError: name and password do not go together; which of the two is not said.
    """
    user = authenticate(request, username=username.strip(), password=password)
    if user is None:
        raise InputError("password", None, "Sign-in name and password do not go together.", "Check both; mind capitals.")
    assert isinstance(user, User)
    login(request, user)
    return user


def new_person(faults: Faults, username: str, full_name: str, password: str) -> User | None:
    """An unsaved person, or None with the faults noted."""
    username = username.strip()
    if not username or not all(c.isalnum() or c in "@.+-_" for c in username):
        faults.add("username", username, "A sign-in name is letters, digits and @ . + - _.", "Pick one, such as a first name.")
    elif User.objects.filter(username__iexact=username).exists():
        faults.add("username", username, f"“{username}” is taken.", "Pick another sign-in name.")
    if not full_name.strip():
        faults.add("full_name", full_name, "The name is empty.", "Enter the name that records will carry.")
    user = User(username=username, full_name=full_name.strip())
    try:
        validate_password(password, user)
    except ValidationError as weak:
        faults.add("password", None, " ".join(weak.messages), "Three unrelated words make a good one.")
    user.set_password(password)
    return None if faults.found else user


def found_club(
    request: HttpRequest, *, name: str, units: str, time_zone: str, username: str, full_name: str, password: str
) -> Club:
    """Found an empty club with its first manager, and sign them in.

    Raises:
        Faulty: every field at fault, at once; nothing is saved.
    """
    faults = Faults()
    clean = " ".join(name.split())
    if not clean:
        faults.add("name", name, "The club has no name.", "Enter the name that sheets and records will carry.")
    if time_zone not in available_timezones():
        faults.add("time_zone", time_zone, f"“{time_zone}” is not a time zone.", "Use a name such as Europe/Oslo.")
    user = new_person(faults, username, full_name, password)
    faults.raise_any()
    assert user
    with transaction.atomic():
        user.save()
        club = Club.objects.create(
            name=clean,
            slug=free_slug(clean),
            units=units,
            time_zone=time_zone,
            currency="USD" if units == Club.Units.US else "EUR",
        )
        Membership.objects.create(club=club, user=user, role=Role.MANAGER)
    login(request, user, backend="django.contrib.auth.backends.ModelBackend")
    return club


def free_slug(name: str) -> str:
    """An address for a club that no other club has."""
    base = slugify(name)[:50] or "club"
    taken = set(Club.objects.filter(slug__startswith=base).values_list("slug", flat=True))
    return next(s for s in (base, *(f"{base}-{n}" for n in range(2, len(taken) + 3))) if s not in taken)


def add_member(club: Club, *, username: str, full_name: str, password: str, role: str) -> Membership:
    """Add a new person to the club.

    Raises:
        Faulty: every field at fault, at once.
    """
    faults = Faults()
    user = new_person(faults, username, full_name, password)
    faults.raise_any()
    assert user
    try:
        with transaction.atomic():
            user.save()
            return Membership.objects.create(club=club, user=user, role=role)
    except IntegrityError:
        raise InputError("username", username, f"“{username}” is taken.", "Pick another sign-in name.") from None


def member(club: Club, pk: int) -> Membership:
    found = Membership.objects.select_related("user").filter(club=club, pk=pk).first()
    if found is None:
        raise Missing("member")
    return found


def change_role(found: Membership, role: str) -> Membership:
    """Change a member's role.

    Raises:
        Conflict: the club would be left without a manager.
    """
    if found.role == Role.MANAGER and role != Role.MANAGER:
        _not_the_last_manager(found)
    found.role = role
    found.save()
    return found


def remove_member(found: Membership) -> None:
    """Take a person out of the club; their entries in the book stay.

    Raises:
        Conflict: the club would be left without a manager.
    """
    if found.role == Role.MANAGER:
        _not_the_last_manager(found)
    found.delete()


def _not_the_last_manager(found: Membership) -> None:
    others = Membership.objects.filter(club=found.club, role=Role.MANAGER).exclude(pk=found.pk)
    if not others.exists():
        raise Conflict(f"{found.user} is the only manager. Make somebody else a manager first.")
