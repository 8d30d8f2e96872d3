"""What becomes of a published site's files where no server of ours sends them?

What is behind a door is locked, for those who know a password, or left out where none was given; a question about age
stands before its pages as a script; forms post to an address of their own; what only our server reads is left out.
"""

from __future__ import annotations

import hashlib
import json
import posixpath
import re
from base64 import b64encode
from collections.abc import Callable, Container, Iterable, Iterator, Mapping, Sequence
from functools import cached_property, lru_cache, partial
from html import escape
from urllib.parse import quote

from ..exchange.html.encoding import insertion, sniff
from ..exchange.html.markers import marked
from ..exchange.imports.import_pages import described_page, file_name, page_path
from ..gates.age import OLDEST
from ..gates.locking import ROUNDS, Lock
from ..gates.unserved import Unserved
from ..kinds.context import GateState
from ..kinds.items.form import FORMS, Form
from ..kinds.pieces.age import AgeGate
from ..kinds.pieces.gate import Gate
from ..kinds.pieces.password import PasswordGate
from ..languages import phrase
from ..model.site import Page, Site
from ..model.tree import items_of
from .file_types import content_type
from .naming import PARTS_PATH
from .publication import GATES_PATH, PublishedFile, Publisher

WORKER = "rim-gates.js"
"""At the root, whence a service worker may keep any folder; another name where the site has a file of that."""
LOCKED = f"{PARTS_PATH}locked/"
NAME_DIGITS, LISTED_DIGITS = 32, 8
"""Of the SHA-256 of an address: the name of what is locked there; what a service worker lists, to look for nothing else."""

_CLOSE = (",", ":")

Make = Callable[[bytes], bytes]
"""A file's bytes, of those that our server sends."""


class UnservedFiles:
    """`locks`: of the doors that are to open, by gate; `gate_page`: what a gate shows, by gate, state and language;
    `taken`: names of files that the site has."""

    def __init__(
        self,
        guards: Unserved | None,
        forms: Iterable[Form],
        *,
        locks: Mapping[str, Lock],
        script: str,
        gate_page: Callable[[str, GateState, str], bytes],
        taken: Container[str],
    ) -> None:
        self._guards, self._locks, self._script, self._gate_page = guards, locks, script, lru_cache(gate_page)
        self._addresses = [
            (f'action="{FORMS}{form.id}/"', f'action="{escape(form.own_address, quote=True)}"')
            for form in forms
            if form.own_address
        ]
        self._worker = WORKER
        while self._worker in taken:
            self._worker = f"_{self._worker}"

    def of(self, name: str) -> Sequence[tuple[str, Make | None]]:
        """What a published file becomes: names, and what makes the bytes; None where they stay as they are."""
        if name.startswith(FORMS[1:]):
            return ()
        if name.startswith(GATES_PATH[1:]):
            gate, _, rest = name.removeprefix(GATES_PATH[1:]).partition("/")
            return ((name, partial(self._as_gate, gate, rest)),) if rest and self._stands(gate) else ()
        path = page_path(f"/{name}")
        gates = self._guards.at(path) if self._guards else ()
        is_page = name.lower().endswith((".html", ".htm"))
        asks = [gate for gate in gates if isinstance(gate, AgeGate)] if is_page else []
        make = partial(self._page, asks) if asks or (is_page and self._addresses) else None
        door = next((gate for gate in gates if isinstance(gate, PasswordGate)), None)
        if door is None:
            return ((name, make),)
        if door.id not in self._locks:
            return ()
        locked = (self._locked_name(path)[1:], partial(self._locked, self._locks[door.id], path, make))
        return ((name, partial(self._door, door)), locked) if is_page else (locked,)

    def made(self, files: Iterable[PublishedFile]) -> Iterator[PublishedFile]:
        for file in files:
            for name, make in self.of(file.name):
                yield file if make is None else PublishedFile(name, make(file.data))

    def besides(self) -> Iterator[PublishedFile]:
        """What no server of ours needs."""
        if any(map(self._stands, self._guards.gates if self._guards else ())):
            yield PublishedFile(
                self._worker, f"self.rimGates={json.dumps(self._table, separators=_CLOSE)};{self._script}".encode()
            )
        if self._locks:
            yield PublishedFile(self._list_path[1:], json.dumps(self._listed, separators=_CLOSE).encode())

    def _stands(self, gate: str) -> bool:
        """Doors for which no password was given stand nowhere, nor does what is behind them."""
        known = self._guards.gates.get(gate) if self._guards else None
        return isinstance(known, AgeGate) or (isinstance(known, PasswordGate) and gate in self._locks)

    def _as_gate(self, gate: str, rest: str, data: bytes) -> bytes:
        language = rest.rpartition(".")[0].partition("-")[2]
        told = {name: phrase(f"gate_{name}", language) for name in ("unsafe", "changed")} if gate in self._locks else {}
        unscripted = f'<noscript><p style="{_ROOM}">{escape(phrase("gate_unscripted", language))}</p></noscript>'
        page = _in_head(data, self._tag(at=gate, **told))
        return _MAIN.sub(lambda found: found[0] + unscripted.encode(), page, count=1)

    def _door(self, door: Gate, _data: bytes) -> bytes:
        """What stands at a locked page's address: nothing of the page."""
        assert self._guards is not None
        language = self._guards.kept.languages[0]
        return self._as_gate(door.id, f"asked-{language}.html", self._gate_page(door.id, "asked", language))

    def _page(self, asks: Sequence[Gate], data: bytes) -> bytes:
        label = sniff(data).label if self._addresses else ""
        for address, own in self._addresses:
            data = data.replace(insertion(address, label), insertion(own, label))
        for gate in asks:
            data = _in_head(data, self._tag(before=gate.id))
        return data

    def _locked(self, lock: Lock, path: str, make: Make | None, data: bytes) -> bytes:
        kind = content_type(quote(path))
        return lock.locked(kind.encode() + b"\n" + (data if make is None else make(data)), path)

    def _tag(self, **data: str) -> str:
        """Not deferred: whether somebody is asked is settled before anything of a page is drawn."""
        told = "".join(f' data-{name}="{escape(value, quote=True)}"' for name, value in data.items())
        return f'<script src="/{self._worker}" charset="utf-8"{told}></script>'

    def _locked_name(self, path: str) -> str:
        return f"{self._locked_path}{_hash(path)[:NAME_DIGITS]}"

    @cached_property
    def _locked_path(self) -> str:
        """Another one each time, so that nothing of an earlier time is taken for it."""
        return f"{LOCKED}{_hash(''.join(lock.salt.hex() for lock in self._locks.values()))[:LISTED_DIGITS]}/"

    @cached_property
    def _list_path(self) -> str:
        return f"{self._locked_path}list.json"

    @cached_property
    def _listed(self) -> dict[str, str]:
        listed: dict[str, list[str]] = {}
        for path in self._opening:
            door = next(gate for gate in self._gates_at(path) if isinstance(gate, PasswordGate))
            listed.setdefault(door.id, []).append(_hash(path)[:LISTED_DIGITS])
        return {gate: ",".join(sorted(names)) for gate, names in listed.items()}

    @cached_property
    def _opening(self) -> tuple[str, ...]:
        """Addresses of what opens to who knows a password."""
        listed = self._guards.kept.pages if self._guards else ()
        return tuple(path for path in listed if not self._locks.keys().isdisjoint(g.id for g in self._gates_at(path)))

    def _gates_at(self, path: str) -> tuple[Gate, ...]:
        return self._guards.at(path) if self._guards else ()

    @cached_property
    def _table(self) -> dict[str, object]:
        assert self._guards is not None
        kept = self._guards.kept
        return {
            "gates": {gate.id: self._asked(gate) for gate in self._guards.gates.values() if self._stands(gate.id)},
            "salts": {gate: b64encode(lock.salt).decode() for gate, lock in self._locks.items()},
            "languages": kept.languages,
            "oldest": OLDEST,
            "rounds": ROUNDS,
            "pages": GATES_PATH,
            "locked": self._locked_path,
            "list": self._list_path,
            "worker": f"/{self._worker}",
            "scope": quote(_folder_of(path for path in self._opening if not path.startswith(PARTS_PATH))),
        }

    def _asked(self, gate: Gate) -> dict[str, object]:
        assert self._guards is not None
        kept = self._guards.kept
        said = {"asked": kept.asked[gate.id], "days": gate.days, "out": kept.ways_out.get(gate.id, {})}
        if isinstance(gate, AgeGate):
            crawlers = {"crawlers": True} if gate.lets_crawlers_in else {}
            return {**said, "years": gate.years, "dated": gate.id in kept.dated, **crawlers}
        assert isinstance(gate, PasswordGate)
        wrapped = [b64encode(one).decode() for one in self._locks[gate.id].wrapped]
        return {**said, "tries": gate.tries, "wait_s": gate.wait_s, "wrapped": wrapped}


def unserved_of(site: Site, publisher: Publisher, script: str, locks: Mapping[str, Lock], clock: str) -> UnservedFiles:
    """Of a site that is published just now."""
    pieces = {piece.id: piece for piece in publisher.opened.site.pieces}

    def gate_page(gate: str, state: GateState, language: str) -> bytes:
        shown = pieces[gate]
        assert isinstance(shown, Gate)
        return publisher.opened.gate_page(shown, language, state)

    guards = Unserved(publisher.guards.kept, clock) if publisher.guards else None
    forms = (item for item in items_of(site.pieces) if isinstance(item, Form))
    taken = {file_name(asset.path) for asset in site.assets}
    return UnservedFiles(guards, forms, locks=locks, script=script, gate_page=gate_page, taken=taken)


def _hash(text: str) -> str:
    return hashlib.sha256(text.encode()).hexdigest()


def _folder_of(paths: Iterable[str]) -> str:
    """The deepest one in which all of them lie."""
    folders = [path.rpartition("/")[0] or "/" for path in paths] or ["/"]
    return f"{posixpath.commonpath(folders).rstrip('/')}/"


_HEADS = tuple(f"<!--rim:{name}-->" for name in ("head", "site", "consent"))
"""What is put into the head of a published page begins so."""


_ROOM = "padding:1em!important"
_MAIN = re.compile(rb"<main\b[^>]*>")
"""Of a page of a gate, which is ours."""


def _in_head(page: bytes, markup: str) -> bytes:
    """With something put into the head, before what is ours there. As it was, where nothing can be put in."""
    label = sniff(page).label
    found = [at for at in (page.find(insertion(one, label)) for one in _HEADS) if at >= 0]
    if found:
        at = min(found)
    else:
        splice = described_page(Page(id="page", path="/"), page).splice
        if splice is None:
            return page
        at = splice.head_at
    return page[:at] + insertion(marked("gate", markup), label) + page[at:]
