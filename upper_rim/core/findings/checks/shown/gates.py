"""What is wrong or doubtful about gates: ways that end nowhere, that go in a circle, that take too long; what is locked and
seen all the same?"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from contextlib import suppress
from html import unescape
from typing import Any
from urllib.parse import unquote, urlsplit

from ....conditions.visitor import VisitorCard
from ....exchange.html.encoding import decode
from ....gates.guards import Guards, paths_in
from ....gates.visit import Way, ways
from ....kinds.items.answer import Answer
from ....kinds.items.birth import BirthField
from ....kinds.items.secret import PasswordField
from ....kinds.pieces.base import Piece
from ....kinds.pieces.gate import Gate
from ....kinds.pieces.password import PasswordGate
from ....model.memo import Memo
from ....model.site import Page, Site
from ....values.nodes import Node
from ....values.rich import without_marks
from ...finding import Finding, SeenAt
from ...keeping import Keeps, anew

MOST_PRESSES = 2
"""Before somebody who answers rightly has read a word."""
LEAST_TITLE = 12
"""Characters of a title that is not said by chance."""
_LETTERS = re.compile(r"\w+")
ANYBODY = VisitorCard(id="vc-anybody")


def in_gates(site: Site, guards: Guards | None, kept: Keeps = anew) -> list[Finding]:
    if guards is None:
        return []
    pieces = [piece for piece in site.pieces if isinstance(piece, Gate) and piece.id in guards.gates]
    met = kept("gates that are met", given_of_locked(site), lambda: list(_met(site, guards)))
    return [*(one for gate in pieces for one in _made(gate, site)), *met, *_seen(site, guards)]


def _made(gate: Gate, site: Site) -> Iterator[Finding]:
    """What it cannot be passed without."""
    items = site.shown_items(gate)
    says = {item.says for item in items if isinstance(item, Answer)}
    if "yes" not in says:
        yield Finding("no yes", gate.id)
    if isinstance(gate, PasswordGate) and not any(isinstance(item, PasswordField) for item in items):
        yield Finding("no field", gate.id)
    if not isinstance(gate, PasswordGate) and "no" not in says and not any(isinstance(i, BirthField) for i in items):
        yield Finding("no no", gate.id)


def _met(site: Site, guards: Guards) -> Iterator[Finding]:
    """Ways from one page behind each combination of gates."""
    told: set[tuple[str, str]] = set()
    for page in _one_of_each(site, guards):
        for way in ways(guards, ANYBODY, page.path):
            for finding in _of_way(way, page, guards):
                if (finding.kind, finding.node) not in told:
                    told.add((finding.kind, finding.node))
                    yield finding


def _one_of_each(site: Site, guards: Guards) -> Iterator[Page]:
    seen: set[tuple[tuple[str, ...], ...]] = set()
    for page in site.pages:
        candidates = guards.before_path(page.path)
        if candidates.any and candidates.by_slot not in seen:
            seen.add(candidates.by_slot)
            yield page


def _of_way(way: Way, page: Page, guards: Guards) -> Iterator[Finding]:
    place = SeenAt(page=page.id)
    if way.ends == "loop":
        yield Finding("goes round", way.answers[-1][0], about={"path": page.path}, place=place)
    for (gate, said), after in zip(way.answers, way.screens[1:], strict=True):
        door = guards.gates.get(after.gate)
        if said == "no" and after.gate != gate and isinstance(door, PasswordGate):
            yield Finding("refused to a door", gate, door.id, about={"path": after.path}, place=place)
    if way.ends == "page" and way.presses > MOST_PRESSES:
        yield Finding("many presses", way.answers[-1][0], about={"path": page.path, "count": way.presses}, place=place)


def _seen(site: Site, guards: Guards) -> Iterator[Finding]:
    """Pictures that are locked, and shown by pieces that are not: there they are missing."""
    locked = [asset.path for asset in site.assets if guards.is_locked(asset.path)]
    for piece in site.pieces if locked else ():
        if isinstance(piece, Gate) or _is_within(piece, site, guards):
            continue
        shown = {path for node in (piece, *site.shown_rows(piece)) for path in _paths_of(node)}
        for path in locked:
            if path in shown:
                yield Finding("locked picture", piece.id, about={"path": path})


def _paths_of(node: Node) -> frozenset[str]:
    return _paths.of(node, lambda one: frozenset(paths_in(one)))


_paths: Memo[Node, frozenset[str]] = Memo(2_000)
MOST_BYTES = 4_000_000
"""Of a file that is looked through."""
_TELLING = (".xml", ".txt", ".json", ".rss", ".atom", ".webmanifest")
_WORD = re.compile(r"""[^\s<>"'()\\]+""")


def given_of_locked(site: Site) -> tuple[Any, ...]:
    """All that hangs together with what is locked, and with what is said about it elsewhere."""
    gates = tuple((piece, *site.shown_rows(piece)) for piece in site.pieces if isinstance(piece, Gate))
    return (
        site.pages,
        site.assets,
        site.reach_sets,
        site.spoken,
        site.language,
        site.zone,
        site.phrases,
        site.name,
        gates,
    )


def in_files(site: Site, guards: Guards | None, read: Callable[[str], bytes]) -> Iterator[Finding]:
    """Sitemaps, feeds and the like among the site's own files, which nobody makes anew, and which anybody may read. `read`
    gives a content's bytes by its hash."""
    if guards is None:
        return
    locked = guards.locked
    for asset in site.assets if locked else ():
        if asset.path in locked or asset.size > MOST_BYTES or not asset.path.lower().endswith(_TELLING):
            continue
        named = sorted(locked.intersection(_paths_told(read(asset.content))))
        by_door: dict[str, list[str]] = {}
        for path in named:
            by_door.setdefault(guards.before(path).by_slot[0][0], []).append(path)
        for door, told in by_door.items():
            yield Finding("told by a file", door, about={"file": asset.path, "count": len(told), "path": told[0]})


def in_pages(
    site: Site, guards: Guards | None, read: Callable[[str], bytes], most: int | None = None
) -> Iterator[Finding]:
    """Open pages of which the own text says what a locked one is called. `most`: so many are read; all where it is not
    said. Short titles are said anywhere, and count for nothing."""
    if guards is None or not guards.locked:
        return
    titles = {" ".join(page.title.split()): page for page in site.pages if unquote(page.path) in guards.locked}
    if not titles:
        return
    open_ones = [page for page in site.pages if page.content is not None and unquote(page.path) not in guards.locked]
    for title in {page.title for page in open_ones} | {one for one in titles if len(one) < LEAST_TITLE}:
        titles.pop(title, None)
    by_word: dict[str, list[str]] = {}
    for title in titles:
        by_word.setdefault(max(_LETTERS.findall(title), key=len, default=title), []).append(title)
    found: dict[str, list[tuple[str, Page]]] = {}
    for page in open_ones[:most] if titles else ():
        text = decode(read(page.content or ""), page.encoding)
        words = by_word.keys() & set(_LETTERS.findall(unescape(text)))
        plain = without_marks(text) if words else ""
        for title in (title for word in words for title in by_word[word] if title in plain):
            found.setdefault(guards.before_path(titles[title].path).by_slot[0][0], []).append((title, page))
    for door, told in found.items():
        title, page = told[0]
        about: dict[str, float | str] = {"first": title, "path": page.path, "count": len({one.id for _, one in told})}
        yield Finding("quotes a title", door, about=about, place=SeenAt(page=page.id))


def _paths_told(content: bytes) -> Iterator[str]:
    for found in _WORD.finditer(content.decode("utf-8", "replace").replace("\\/", "/")):
        with suppress(ValueError):  # an address that is none
            if "/" in found[0]:
                yield unquote(urlsplit(unescape(found[0])).path)


def _is_within(piece: Piece, site: Site, guards: Guards) -> bool:
    """Whether all its rules are about locked folders: who sees the piece may see the picture."""
    paths = [getattr(rule.where, "path", "/") for rule in site.rules_of(piece) if rule.shows]
    return bool(paths) and all(guards.before(path).is_locked for path in paths)
