"""Addresses of services: which can be one, and which may be asked. Asking them is `providers`, in a process of its own."""

from ipaddress import ip_address
from urllib.parse import ParseResult, urlparse

from django.conf import settings


def outside(host: str) -> bool:
    """Whether a host may be asked: any by its name, and an address that lies outside this house's own network."""
    try:
        return settings.PRIVATE_STATIONS or ip_address(host.strip("[]")).is_global
    except ValueError:
        return host.rstrip(".").lower() != "localhost"


def address_of(url: str) -> ParseResult | None:
    """A service's address taken apart; None where it is none, or has brackets or a port that cannot be."""
    try:
        found = urlparse(url)
        whole = found.scheme in ("http", "https") and bool(found.hostname) and (found.port is None or found.port > 0)
    except ValueError:
        return None
    return found if whole else None
