"""Generated sites and edits, for properties that must hold whatever a designer does."""

from __future__ import annotations

import random
from collections.abc import Sequence
from typing import Any, get_args

from upper_rim.core.conditions.of_kind import PageKind
from upper_rim.core.exchange.html.markdown import written_page
from upper_rim.core.exchange.imports.import_pages import digest
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.rows import Row
from upper_rim.core.model.editing.edits import Add, Edit, Move, Remove, Set, SetEach, Together
from upper_rim.core.model.site import Band, Menu, Page, Site
from upper_rim.core.model.tree import ROOT, SLOTS, walk
from upper_rim.core.values.styling import Look, Swatch

WORDS = [
    "Fares",
    "Harbours & quays",
    "<b>Ships</b>",
    "المواعيد",
    "Überfahrten",
    "",
    "A very long label " * 6,
    '"',
    "🚢",
]
LANGUAGES = ["en", "de", "ar", "cy-GB"]
PATHS = ["/", "/a/", "/a/b/", "/a/b.html", "/press/", "/press/x/", "/ünï/", "/a%20b/"]

VALUES: dict[str, list[str]] = {
    "font-family": ["figtree", "bitter", "jetbrains-mono"],
    "font-weight": ["300", "450", "800"],
    "font-style": ["normal", "italic"],
    "font-size": ["14px", "1.2em", "1.1rem", "clamp(13px, 0.6rem + 1vw, 30px)", "2vw"],
    "line-height": ["1.2", "24px", "normal"],
    "letter-spacing": ["0.05em", "1px", "normal"],
    "word-spacing": ["0.1em", "3px", "normal"],
    "font-stretch": ["80%", "110%", "40%"],
    "text-transform": ["uppercase", "none"],
    "text-align": ["center", "end", "justify"],
    "text-decoration-line": ["underline", "line-through", "overline", "none"],
    "text-decoration-style": ["wavy", "solid"],
    "text-decoration-color": ["@:accent", "currentcolor", "tomato"],
    "text-decoration-thickness": ["3px", "auto", "0.1em"],
    "text-underline-offset": ["4px", "auto"],
    "text-shadow": ["1px 2px 3px @:accent", "0 0 2px red, 1px 1px #0003", "none", "1px 1px 0 2px red"],
    "color": ["@:ink", "@:accent/60%", "#123456", "oklch(0.6 0.1 200)", "blurple"],
    "opacity": ["0.5", "1", "3"],
    "mix-blend-mode": ["multiply", "normal"],
    "background-color": ["@:ground", "@:accent", "rgb(1 2 3 / 40%)", "transparent"],
    "background-image": ["linear-gradient(90deg, @:accent, #fff 60%)", "radial-gradient(circle at center center, red, blue, @:ink)", "none", "linear-gradient(red)"],
    "background-size": ["cover", "20px 30px", "auto"],
    "background-repeat": ["repeat-x", "no-repeat"],
    "background-position": ["center top", "20% 3px"],
    "background-attachment": ["fixed", "scroll"],
    "background-drift": ["0.4", "0", "2"],
    "background-blend-mode": ["multiply"],
    "border-block-start-width": ["3px", "0.2em"],
    "border-block-start-style": ["solid", "dashed", "none"],
    "border-block-start-color": ["@:line", "currentcolor"],
    "border-inline-end-width": ["2px"],
    "border-inline-end-style": ["dotted"],
    "border-inline-start-width": ["1px", "4px"],
    "border-inline-start-style": ["double", "dashed"],
    "border-inline-start-color": ["@:line", "tomato"],
    "border-start-start-radius": ["9px", "50%"],
    "border-end-end-radius": ["1em"],
    "box-shadow": ["0 2px 8px 0 #0003", "inset 1px 1px @:accent, 0 0 4px red", "none"],
    "padding-block-start": ["7px", "1em", "5%"],
    "padding-inline-end": ["1rem", "clamp(2px, 2vw, 20px)"],
    "margin-inline-start": ["-3px", "auto", "1vw"],
    "inline-size": ["80px", "auto", "50%"],
    "min-inline-size": ["60px"],
    "max-inline-size": ["90px", "none"],
    "block-size": ["50px", "auto"],
    "min-block-size": ["50px", "2vh"],
    "max-block-size": ["20vh"],
    "outline-width": ["4px"],
    "outline-style": ["dashed", "solid"],
    "outline-color": ["@:accent"],
    "outline-offset": ["-2px", "5px"],
    "transition-duration": ["200ms", "0.1s"],
    "transition-timing-function": ["ease-in", "cubic-bezier(0.1, 0.2, 0.3, 1)"],
}  # fmt: skip
"""Values for properties, a few of them wrong."""

CONTENT, SPLICE = written_page("Page", "en", "Some *text*.")
CONTENTS = {digest(CONTENT): CONTENT}


class Maker:
    """Makes sites and edits by a seeded chance. Edits are mostly sensible; some point at nothing or hold rubbish."""

    def __init__(self, seed: int) -> None:
        self.chance = random.Random(seed)
        self._count = 0

    def new_id(self, prefix: str) -> str:
        self._count += 1
        return f"{prefix}-{self._count}"

    def site(self) -> Site:
        chance = self.chance
        return Site(
            key="qtest",
            name=chance.choice(["Ostrey", "X & <Y>"]),
            face=chance.choice(["figtree", "bitter", "none-such"]),
            swatches=tuple(
                Swatch(id=self.new_id("sw"), name="S", colour=chance.choice(["#fff", "teal", "oklch(0.6 0.1 200)"]))
                for _ in range(chance.randrange(3))
            ),
            bands=tuple(
                Band(id=self.new_id("bd"), name=f"B{at}", from_px=at * 400) for at in range(chance.randrange(1, 4))
            ),
            looks=tuple(Look(id=self.new_id("lk"), name="L") for _ in range(chance.randrange(3))),
            menus=tuple(Menu(id=self.new_id("mn"), name="Main") for _ in range(chance.randrange(3))),
            pieces=tuple(
                Header(id=self.new_id("pc"), name="Header", rows=(Row(id=self.new_id("rw")),))
                for _ in range(chance.randrange(3))
            ),
            pages=tuple(
                Page(id=self.new_id("pg"), path=path, title="T", language=chance.choice(LANGUAGES), **self._content())
                for path in sorted(chance.sample(PATHS, chance.randrange(6)))
            ),
        )

    def edit(self, site: Site, depth: int = 0) -> Edit:
        chance = self.chance
        kinds = [self._set, self._set, self._set, self._add, self._add, self._add, self._move, self._remove]
        if depth < 2 and chance.random() < 0.1:
            return Together(edits=tuple(self.edit(site, depth + 1) for _ in range(chance.randrange(1, 4))))
        if site.pages and chance.random() < 0.06:
            pages = chance.sample(site.pages, min(2, len(site.pages)))
            return SetEach(field="bare", values=tuple((page.id, chance.random() < 0.5) for page in pages))
        return chance.choice(kinds)(site)

    def _content(self) -> dict[str, Any]:
        if self.chance.random() < 0.2:
            return {}
        return {"content": digest(CONTENT), "splice": SPLICE}

    def _any_node(self, site: Site) -> Any:
        nodes = list(walk(site))
        return self.chance.choice(nodes) if nodes else site

    def _set(self, site: Site) -> Edit:
        node = self._any_node(site) if self.chance.random() < 0.9 else site
        field = self.chance.choice(list(type(node).model_fields))
        return Set(node=getattr(node, "id", ROOT), field=field, value=self._value(site, field))

    def _value(self, site: Site, field: str) -> Any:
        chance = self.chance
        if chance.random() < 0.05:
            return chance.choice([None, -5, {"x": 1}, [1], "javascript:alert(1)"])
        ids = {
            "menu": [menu.id for menu in site.menus],
            "drawer_below": [band.id for band in site.bands],
            "drawer": [*(piece.id for piece in site.pieces if piece.kind == "drawer"), "pc-gone"],
        }
        match field:
            case "words" | "label" | "button_words":
                others = [{"language": "ar", "text": chance.choice(WORDS)}] if chance.random() < 0.4 else []
                return {"text": chance.choice(WORDS), "translations": others}
            case "target":
                return self._target(site)
            case "menu" | "drawer_below" | "drawer":
                return chance.choice([*ids[field], None])
            case "wears":
                return [look.id for look in site.looks if chance.random() < 0.6]
            case "band":
                return chance.choice([*(band.id for band in site.bands), None])
            case "state":
                return chance.choice(["rest", "hover", "current", "none-such"])
            case "property":
                return chance.choice(list(VALUES))
            case "value":
                return chance.choice([value for values in VALUES.values() for value in values])
            case "tied":
                parents = [{"parent": swatch.id, "lightness": chance.randrange(-50, 50)} for swatch in site.swatches]
                return chance.choice([*parents, None])
            case "hidden_in":
                return [band.id for band in site.bands if chance.random() < 0.4]
            case "where":
                return chance.choice(
                    [
                        {"kind": "everywhere"},
                        {"kind": "below", "path": chance.choice(PATHS)},
                        {"kind": "matching", "path": chance.choice(["/*/", "/a/*/", "/*/b/", "/a/", "/*/*/"])},
                        {"kind": "tag", "tag": "t"},
                        {"kind": "language", "language": chance.choice([*LANGUAGES, "no tag"])},
                        {"kind": "page-kind", "which": chance.choice([*get_args(PageKind), "none"])},
                    ]
                )
            case "path":
                return chance.choice(PATHS)
            case "colour":
                return chance.choice(
                    ["#123456", "rgb(1 2 3 / 40%)", "blurple", "red/*", "red}", "red;x:y", "<!--/rim-->"]
                )
            case "icon":
                return chance.choice(["phone", "no-such-icon", 'x"><!--/rim--><script>', "a b", ""])
            case "tags":
                return ["t"] if chance.random() < 0.5 else []
            case "track":
                return {"kind": chance.choice(["content", "share", "fixed"]), "amount": chance.randrange(1, 300)}
            case "language":
                return chance.choice(LANGUAGES)
            case "name" | "title":
                return chance.choice(WORDS)
        return chance.choice([chance.randrange(0, 1200), True, chance.choice(WORDS)])

    def _target(self, site: Site) -> Any:
        pages = [{"kind": "page", "page": page.id} for page in site.pages]
        return self.chance.choice(
            [
                *pages,
                {"kind": "nothing"},
                {"kind": "address", "address": 'https://x.example/?a=1&b="2'},
                {"kind": "page", "page": "pg-gone"},
            ]
        )

    def _add(self, site: Site) -> Edit:
        chance = self.chance
        holders = [site, *(node for node in walk(site) if type(node) in SLOTS)]
        holder = chance.choice(holders)
        slot = chance.choice(SLOTS[type(holder)])
        value = self._new(site, slot)
        at = None if chance.random() < 0.5 else chance.randrange(4)
        return Add(parent=getattr(holder, "id", ROOT), slot=slot, values=(value,), at=at)

    def _new(self, site: Site, slot: str) -> Any:
        chance = self.chance
        made: dict[str, Any] = {"id": self.new_id("nn")}
        match slot:
            case "swatches":
                return {**made, "name": "New", "colour": chance.choice(["#0a0a0a", "no colour"])}
            case "bands":
                return {**made, "name": "New", "from_px": chance.choice([0, 500, 700, 1500])}
            case "menus":
                return {**made, "name": "New"}
            case "pieces":
                kind = chance.choice(["header", "header", "drawer"])
                return {**made, "kind": kind, "name": "New", "reach": [{"id": self.new_id("rr")}]}
            case "reach_sets":
                return {**made, "name": "New", "rules": [{"id": self.new_id("rr")}]}
            case "reach" | "rules":
                return {**made, "shows": chance.random() < 0.7, "where": self._value(site, "where")}
            case "rows":
                return {**made, "cells": [{"id": self.new_id("cl")}]}
            case "lifts":
                return {**made, "selector": "header"}
            case "pages":
                content = {
                    key: value.model_dump(mode="json") if hasattr(value, "model_dump") else value
                    for key, value in self._content().items()
                }
                return {**made, "path": chance.choice(PATHS), **content}
            case "assets":
                return {**made, "path": "/logo.svg", "content": next(iter(CONTENTS)), "size": 1}
            case "looks":
                return {**made, "name": "New"}
            case "roles":
                return {**made, "role": chance.choice(["button", "entry", "ring", "heading-1"])}
            case "snippets":
                return {**made, "name": "New", "code": chance.choice(["<i>x</i>", "<!--/rim-->", ""])}
            case "styles":
                return self.declaration(site)
            case "entries":
                return {**made, "label": self._value(site, "label"), "target": self._target(site)}
            case "items":
                kind = chance.choice(["logo", "menu", "text", "button", "icon", "none-such"])
                item = {**made, "kind": kind}
                if kind == "menu" and site.menus:
                    item |= {
                        "menu": chance.choice(site.menus).id,
                        "drawer_below": chance.choice([band.id for band in site.bands] or [None]),
                    }
                return item
        return made

    def declaration(self, site: Site, states: Sequence[str] = ("rest", "rest", "hover", "current")) -> Any:
        chance = self.chance
        name = chance.choice(list(VALUES))
        return {
            "id": self.new_id("st"),
            "property": name,
            "value": chance.choice(VALUES[name]),
            "state": chance.choice(states),
            "band": chance.choice([None, None, *(band.id for band in site.bands)]),
            "part": chance.choice(["box", "box", "content"]),
        }

    def _move(self, site: Site) -> Edit:
        node = self._any_node(site)
        holders = [holder for holder in (site, *walk(site)) if type(holder) in SLOTS]
        holder = self.chance.choice(holders)
        slot = self.chance.choice(SLOTS[type(holder)])
        return Move(
            node=getattr(node, "id", "nothing"),
            parent=getattr(holder, "id", ROOT),
            slot=slot,
            at=self.chance.randrange(4),
        )

    def _remove(self, site: Site) -> Edit:
        node = self._any_node(site)
        return Remove(nodes=(getattr(node, "id", "nothing"),))
