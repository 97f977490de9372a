"""What changes accounts: opening an account, signing in, members and their roles."""

from django.conf import settings
from django.contrib.auth import authenticate, login
from django.db import IntegrityError, transaction
from django.http import HttpRequest
from django.utils.text import slugify

from core.errors import InputError
from core.zones import zone
from greenmeasure.accounts import throttle
from greenmeasure.accounts.models import VISITOR, Account, Membership, Role, Site, User
from greenmeasure.accounts.people import let_go, strong
from greenmeasure.accounts.schemas import MemberIn, OpenAccountIn, RoleIn
from greenmeasure.accounts.sites import site_of
from greenmeasure.common.errors import Conflict, Faults, Missing
from greenmeasure.common.versions import claim


def sign_in(request: HttpRequest, username: str, password: str) -> User:
    """Sign a person in.

    Raises:
        InputError: name and password do not go together; which of the two is not said.
    """
    user = authenticate(request, username=username.strip(), password=password)
    if user is None:
        throttle.note(request, throttle.SIGN_IN)
        raise InputError("password", None, "Sign-in name and password do not go together.", "Check both; mind capitals.")
    assert isinstance(user, User)
    login(request, user)
    return user


def sample() -> Account | None:
    """The account to look round in, where this server has one."""
    return Account.objects.filter(slug=settings.SAMPLE).first() if settings.SAMPLE else None


def look_round(request: HttpRequest) -> None:
    """Sign in as the visitor of the sample account, who may look at all of it and change nothing.

    Raises:
        Missing: there is none here.
    """
    account = sample()
    if account is None:
        raise Missing("sample account")
    with transaction.atomic():
        user, made = User.objects.get_or_create(username=VISITOR, defaults={"full_name": "Visitor"})
        if made:
            user.set_unusable_password()
            user.save(update_fields=["password"])
        Membership.objects.update_or_create(account=account, user=user, defaults={"role": Role.VIEWER})
    admit(request, user)


def new_person(faults: Faults, username: str, full_name: str, password: str) -> User | None:
    """An unsaved person, or None with the faults noted."""
    username = username.strip()
    if not username or not all(c.isalnum() or c in "@.+-_" for c in username):
        faults.add("username", username, "A sign-in name is letters, digits and @ . + - _.", "Pick one, such as a first name.")
    elif username.casefold() == VISITOR or User.objects.filter(username__iexact=username).exists():
        faults.add("username", username, f"“{username}” is taken.", "Pick another sign-in name.")
    if not full_name.strip():
        faults.add("full_name", full_name, "The name is empty.", "Enter the name that records will carry.")
    user = User(username=username, full_name=full_name.strip())
    faults.of(strong, "password", password, user)
    user.set_password(password)
    return None if faults.found else user


def open_account(request: HttpRequest, data: OpenAccountIn) -> Account:
    """Open an empty account with its first site and its first manager, and sign them in.

    Raises:
        Faulty: every field at fault, at once; nothing is saved.
    """
    faults = Faults()
    name = " ".join(data.name.split())
    if not name:
        faults.add("name", data.name, "The name is empty.", "Enter the name that sheets and records will carry.")
    faults.of(zone, data.time_zone)
    user = new_person(faults, data.username, data.full_name, data.password)
    faults.raise_any()
    assert user
    with transaction.atomic():
        user.save()
        currency = "USD" if data.units == "us" else "EUR"
        account = Account.objects.create(name=name, slug=free_slug(name), keeps=data.keeps, units=data.units, currency=currency)
        Site.objects.create(account=account, name=name, time_zone=data.time_zone)
        Membership.objects.create(account=account, user=user, role=Role.MANAGER)
    admit(request, user)
    return account


def admit(request: HttpRequest, user: User) -> None:
    """Sign in somebody who has just proved who they are."""
    login(request, user, backend="django.contrib.auth.backends.ModelBackend")


def free_slug(name: str) -> str:
    """An address for an account that no other account has."""
    base = slugify(name)[:50] or "account"
    taken = set(Account.objects.filter(slug__startswith=base).values_list("slug", flat=True))
    return next(s for s in (base, *(f"{base}-{n}" for n in range(2, len(taken) + 3))) if s not in taken)


def add_member(account: Account, data: MemberIn) -> Membership:
    """Add a new person to the account.

    Raises:
        Faulty: every field at fault, at once.
    """
    faults = Faults()
    user = new_person(faults, data.username, data.full_name, data.password)
    sites = faults.of(_sites, account, data.site_ids)
    faults.raise_any()
    assert user
    try:
        with transaction.atomic():
            user.save()
            made = Membership.objects.create(account=account, user=user, role=data.role, licence=data.licence.strip())
            made.sites.set(sites or ())
            return made
    except IntegrityError:
        raise InputError("username", data.username, f"“{data.username}” is taken.", "Pick another sign-in name.") from None


def _sites(account: Account, site_ids: list[int]) -> list[Site]:
    try:
        return [site_of(account, pk) for pk in site_ids]
    except Missing:
        raise InputError("site_ids", site_ids, "One of the sites is not there.", "Pick from the list.") from None


def member(account: Account, pk: int) -> Membership:
    """A member of the account. Raises Missing."""
    found = Membership.objects.select_related("user").filter(account=account, pk=pk).first()
    if found is None:
        raise Missing("member")
    return found


def change_member(found: Membership, data: RoleIn) -> Membership:
    """Change what a member may do, on which sites, and under which licence.

    Raises:
        Conflict: the account would be left without a manager of all its sites.
        InputError: a site that is not there.
        Stale: it was changed since `data.version`.
    """
    sites = _sites(found.account, data.site_ids)
    with claim(found, data.version):
        if _oversees(found) and (data.role != "manager" or sites):
            _not_the_last_manager(found)
        found.role = data.role
        if data.licence is not None:
            found.licence = data.licence.strip()
        found.save(update_fields=["role", "licence"])
        found.sites.set(sites)
    return found


def _oversees(found: Membership) -> bool:
    return found.role == Role.MANAGER and not found.sites.exists()


def remove_member(found: Membership) -> None:
    """Take a person out of the account; their entries in the book stay. Who belongs to no other account is let go whole.

    Raises:
        Conflict: the account would be left without a manager of all its sites.
    """
    with transaction.atomic():
        if _oversees(found):
            _not_the_last_manager(found)
        user = found.user
        found.delete()
        let_go(user)


def _not_the_last_manager(found: Membership) -> None:
    Account.objects.select_for_update().get(pk=found.account_id)  # two who step down at once go one after the other
    others = Membership.objects.filter(account=found.account, role=Role.MANAGER, sites=None).exclude(pk=found.pk)
    if not others.exists():
        raise Conflict(f"{found.user} is the only manager of all of it. Make somebody else one first.")
