"""Which mark belongs to an address? Found from its host, from the icon package's own data; a general icon where none is
known."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import NamedTuple
from urllib.parse import urlsplit


@dataclass(frozen=True)
class Brand:
    """A service's mark: `host` is that of its own site, `path` is drawn in a box of 24 by 24."""

    slug: str
    title: str
    colour: str
    host: str
    path: str


class Mark(NamedTuple):
    """An icon's class name within a site, and what the address is called. `brand` is None for general icons."""

    icon: str
    title: str
    brand: Brand | None


class Brands:
    """All marks, indexed by name and by host."""

    def __init__(self, listed: Mapping[str, Brand]) -> None:
        self.by_slug = listed
        hosts: dict[str, list[Brand]] = {}
        for brand in listed.values():
            hosts.setdefault(brand.host, []).append(brand)
        self._by_host = {host: found[0] for host, found in hosts.items() if len(found) == 1}

    def mark(self, address: str) -> Mark:
        """The mark of an address."""
        return _mark(self, address)

    def of_host(self, host: str) -> Brand | None:
        """By the host's whole name as a mark's name (`last.fm`), its main label, or the host of a mark's own site."""
        host = host.lower().removeprefix("www.").removeprefix("m.")
        labels = host.split(".")
        for wanted in (host.replace(".", "dot"), *(label for label in reversed(labels[:-1]) if len(label) > 2)):
            if wanted in self.by_slug:
                return self.by_slug[wanted]
        if len(labels) == 2 and labels[0] in self.by_slug:
            return self.by_slug[labels[0]]
        return self._by_host.get(host)


@lru_cache(maxsize=4096)
def _mark(brands: Brands, address: str) -> Mark:
    if address.startswith("mailto:"):
        return Mark("mail", address.removeprefix("mailto:"), None)
    if address.startswith("tel:"):
        return Mark("phone", address.removeprefix("tel:"), None)
    host = urlsplit(address).hostname or ""
    brand = brands.of_host(host)
    if brand is not None:
        return Mark(f"brand-{brand.slug}", brand.title, brand)
    return Mark("globe" if host else "link", host.removeprefix("www.") or address, None)
