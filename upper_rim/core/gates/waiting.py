"""What of a page fetches from others, and for a yes to what does it wait?"""

from __future__ import annotations

from collections.abc import Collection, Iterable, Iterator
from typing import Any, NamedTuple

from ..exchange.html.foreign import foreign_in_code, hosts_in
from ..kinds.consent import OtherHost, host_said
from ..kinds.items import Item
from ..kinds.items.embed import Embed
from ..kinds.pieces.base import Piece
from ..kinds.pieces.consent import ConsentQuestion
from ..model.site import Page, Site
from ..reach.coverage import coverage_of, reach_shape


def asks(site: Site) -> bool:
    """Whether anything waits on a site: nobody could say yes where there is no question."""
    return any(isinstance(piece, ConsentQuestion) and piece.on for piece in site.pieces)


def needed_for(site: Site, hosts: Iterable[str], category: str | None = None) -> str:
    """The categories (ids, between spaces) to which a yes is needed before something of these hosts is fetched; `category`:
    what it is said to be itself, which then counts alone."""
    said = {category} if category else {one.category for host in hosts if (one := host_said(host, site.hosts))}
    return " ".join(one.id for one in site.categories if one.id in said and not one.is_necessary)


class Part(NamedTuple):
    """Something of a page that fetches from others. `kind`: of whom it is; `waits`: the categories that it waits for;
    `node`: the id of what it is, where it is the designer's."""

    kind: str
    hosts: tuple[str, ...]
    waits: tuple[str, ...]
    node: str = ""


def parts_of(site: Site, page: Page, shown: Iterable[Piece], *, has_script: bool = True) -> list[Part]:
    """All that fetches from others on a page with these pieces, for somebody whose browser runs scripts, or does not. What
    is cut out does not."""
    found: list[Part] = []

    def put(kind: str, hosts: Iterable[str], category: str | None = None, node: str = "") -> None:
        listed = tuple(sorted(hosts))
        needed = needed_for(site, listed, category) if asks(site) else ""
        found.append(Part(kind, listed, tuple(needed.split()), node))

    for fetch in page.splice.fetches if page.splice else ():
        if fetch.is_for(has_script=has_script) and any(not is_cut(at, page) for at in fetch.at):
            put(fetch.kind, fetch.hosts)

    def put_code(kind: str, code: str, category: str | None, node: str, host: str = "") -> None:
        named = {host for fetch in foreign_in_code(code) if fetch.is_for(has_script=has_script) for host in fetch.hosts}
        needed = needed_for(site, {host} | hosts_in(code), category) if asks(site) else ""
        if named:
            found.append(Part(kind, tuple(sorted(named)), tuple(needed.split()), node))

    for snippet in site.snippets if page.splice else ():
        if snippet.on and snippet.where.covers(page):
            put_code("snippet", snippet.code, snippet.waits, snippet.id)
    for piece in shown:
        for item in site.shown_items(piece):
            if isinstance(item, Embed) and item.code:
                put_code("embed", item.code, item.category, item.id, item.host)
            elif isinstance(item, Embed) and item.host:
                put("embed", [item.host], item.category, item.id)
    return found


def is_cut(places: tuple[int, ...], page: Page) -> bool:
    """Whether something that stands there is left out of a page."""
    return any(cut.start <= place < cut.end for cut in page.cuts for place in places)


def fetched(parts: Iterable[Part], agreed: Collection[str]) -> frozenset[str]:
    """The hosts that are asked for something, where these categories may run."""
    return frozenset(host for part in parts if set(part.waits) <= set(agreed) for host in part.hosts)


class HostFound(NamedTuple):
    """Another host that pages fetch from. `kinds`: what, in the order of the alphabet; `pages`: on how many; `said`: what
    the site says of it, None where nobody has said anything."""

    host: str
    kinds: tuple[str, ...]
    pages: int
    said: OtherHost | None


def given_of_hosts(site: Site) -> tuple[Any, ...]:
    """All that the hosts hang on from which pages fetch."""
    embeds = [(piece.id, _embedded(site, piece)) for piece in site.pieces]
    return (site.pages, site.snippets, site.hosts, embeds, reach_shape(site))


def hosts_found(site: Site) -> list[HostFound]:
    """By all pages, snippets and embeds, whoever they are for; and those that something is said of though nothing is
    fetched from them any more."""
    kinds: dict[str, set[str]] = {one.host: set() for one in site.hosts}
    pages: dict[str, set[str]] = {one.host: set() for one in site.hosts}
    coverage = coverage_of(site)
    embeds = {piece.id: hosts for piece in site.pieces if (hosts := _embedded(site, piece))}
    snippets = [(one.where, named) for one in site.snippets if one.on and (named := hosts_in(one.code))]
    for page, alike in zip(site.pages, coverage.in_order, strict=True):
        found: set[tuple[str, str]] = set()
        if page.splice:
            found.update((host, fetch.kind) for fetch in page.splice.fetches for host in fetch.hosts)
            found.update((host, "snippet") for where, named in snippets if where.covers(page) for host in named)
        if embeds:
            found |= {(host, "embed") for piece in alike.shown & embeds.keys() for host in embeds[piece]}
        for host, kind in found:
            kinds.setdefault(host, set()).add(kind)
            pages.setdefault(host, set()).add(page.id)
    listed = [
        HostFound(host, tuple(sorted(kinds[host])), len(pages[host]), host_said(host, site.hosts))
        for host in sorted(kinds)
    ]
    above = {one.said.host for one in listed if one.pages and one.said is not None}
    return [one for one in listed if one.pages or one.host not in above]


def _embedded(site: Site, piece: Piece) -> frozenset[str]:
    embeds = [item for item in items_with(site, piece) if isinstance(item, Embed)]
    return frozenset(host for item in embeds for host in (hosts_in(item.code) if item.code else {item.host}) if host)


def items_with(site: Site, piece: Piece) -> Iterator[Item]:
    """The items that a piece shows, and those of the drawers in its menus."""
    yield from site.shown_items(piece)
    drawers = (site.drawer(held) for _, held in site.drawers_in(piece))
    yield from (item for drawer in drawers if drawer is not None for item in site.shown_items(drawer))
