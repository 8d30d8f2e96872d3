"""`upper-rim import`: a bundle of pages of other people's making, in a frame that another bundle brings."""

from __future__ import annotations

import argparse
import hashlib
import sys
from collections.abc import Iterable, Iterator
from itertools import repeat
from pathlib import Path
from typing import NamedTuple

from ..core.exchange.bundle import fonts_of, write_bundle
from ..core.exchange.imports.import_pages import (
    Problem,
    read_files,
    read_sitemap,
)
from ..core.kinds.entries import Entry
from ..core.kinds.page_shapes import PageShape
from ..core.languages.names import name_in
from ..core.model.editing.check import broken_references
from ..core.model.navigation.renewed import renewed
from ..core.model.navigation.unsaid import likely_languages
from ..core.model.references import references
from ..core.model.site import Asset, Band, Page, Site
from ..core.model.tree import walk
from .files import STANDARD, CannotDo, Remarks, bytes_of, entries_in, new_file, opened_bundle
from .progress import Progress, progress


def bring_in(chosen: argparse.Namespace) -> Remarks:
    with progress(quiet=chosen.quiet) as told:
        return _brought_in(chosen, told)


def _brought_in(chosen: argparse.Namespace, told: Progress) -> Remarks:
    source = Path(chosen.source)
    like, known, named, contents = _like(
        chosen.like, chosen.name, "A site" if chosen.source == STANDARD else source.stem
    )
    problems: list[Problem] = []
    pages: list[Page] = []
    assets: list[Asset] = []
    shapes: dict[str, PageShape] = {}
    if source.suffix.lower() == ".xml":
        paths, problems = read_sitemap(bytes_of(source))
        pages = [Page(id=_id_of("pg", path), path=path, language=like.language) for path in paths]
    else:
        with entries_in(source, problems) as entries:
            coming = read_files(entries, "{}-new".format, like.language, like.lifts, problems)
            for incoming in told.counted("Pages and files read:", coming):
                if incoming.shape is not None:
                    shapes[incoming.shape.id] = incoming.shape
                value = incoming.value
                if isinstance(value, Page):
                    pages.append(value.replaced(id=_id_of("pg", value.path)))
                else:
                    assets.append(value.replaced(id=_id_of("as", value.path)))
                contents[value.content or ""] = incoming.content
        # Links and rules that mean a page of the other site mean the one that stands where it does.
        pages = renewed(pages, known, like.shapes)
    if not pages:
        raise CannotDo(
            f"no page could be read from {source}" + "".join(f"\n  {name}: {reason}" for name, reason in problems[:20])
        )
    brought = {asset.path for asset in assets}
    assets += [asset for asset in named if asset.path not in brought]
    used = sorted({page.shape for page in pages if page.shape})
    site = like.replaced(
        pages=tuple(sorted(pages, key=lambda page: page.path)),
        assets=tuple(sorted(assets, key=lambda asset: asset.path)),
        shapes=tuple({**{one.id: one for one in like.shapes if one.is_measured}, **shapes}[one] for one in used),
    )
    fault = broken_references(site)
    if fault is not None:
        raise CannotDo(f"{source}: {fault.words}")
    with new_file(chosen.out) as out:
        written = iter(told.counted("Contents written:", repeat(None), len(contents)))
        write_bundle(out, site, lambda content: (next(written), contents[content])[1])
    for line in () if chosen.quiet else _unsaid(site):
        print(line, file=sys.stderr)
    return [*(f"{name}: {reason}" for name, reason in problems), *_led_nowhere(site, known)]


def _unsaid(site: Site) -> Iterator[str]:
    for tag, likely in likely_languages(site.pages).items():
        paths = ", ".join(page.path for page in likely[:3])
        more = " …" if len(likely) > 3 else ""
        says = "pages say no language, and read" if len(likely) > 1 else "page says no language, and reads"
        yield f"{len(likely)} {says} like {name_in(tag, 'en')} ({tag}): {paths}{more}"


def _led_nowhere(site: Site, known: Iterable[Page]) -> Iterator[str]:
    """Entries of menus that lead to pages of the other site, where none stands now."""
    there = {page.id for page in site.pages}
    missing = {page.id: page.path for page in known if page.id not in there}
    for menu in site.menus:
        for entry in walk(menu):
            for one in references(entry):
                if one.slot == "pages" and one.id in missing:
                    label = entry.label.text if isinstance(entry, Entry) else ""
                    yield f"menu “{menu.name}”: “{label}” leads to {missing[one.id]}, and no page is there"


class _Like(NamedTuple):
    """A site without pages to put some into; the pages that its menus and pieces know; the files that they name, and the
    contents of these and of its fonts."""

    site: Site
    known: tuple[Page, ...]
    named: list[Asset]
    contents: dict[str, bytes]


def _like(bundle: str | None, name: str | None, usual: str) -> _Like:
    """`usual`: the name of a site that is like no other, where none is chosen."""
    if bundle is None:
        bands = (Band(id="bd-narrow", name="Narrow", from_px=0), Band(id="bd-wide", name="Wide", from_px=900))
        key = f"q{hashlib.sha256((name or usual).encode()).hexdigest()[:6]}"
        return _Like(Site(key=key, name=name or usual, bands=bands), (), [], {})
    with opened_bundle(bundle) as opened:
        like = opened.site
        said = like.model_dump_json(exclude={"pages", "assets"})
        named = [asset for asset in like.assets if asset.path in said]
        kept = {content: opened.read_checked(content) for content in fonts_of(like) | {one.content for one in named}}
    return _Like(like.replaced(name=name or like.name, pages=(), assets=()), like.pages, named, kept)


def _id_of(prefix: str, path: str) -> str:
    """The same each time, so that the same pages make the same bundle."""
    return f"{prefix}-{hashlib.sha256(path.encode()).hexdigest()[:10]}"
