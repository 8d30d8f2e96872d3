"""Generated sites whose pieces wear random styles, looks and defaults, for comparing with the browser."""

from __future__ import annotations

from typing import Any

from pydantic import ValidationError

from tests.core.generated import VALUES, Maker
from tests.lengths import any_length, takes_lengths
from tests.nodes import redressed
from upper_rim.core.kinds.entries import Entry
from upper_rim.core.kinds.items import ITEM_KINDS
from upper_rim.core.kinds.items.button import ButtonItem
from upper_rim.core.kinds.items.contact import Contact
from upper_rim.core.kinds.items.form import Form, FormField
from upper_rim.core.kinds.items.icon import IconLink
from upper_rim.core.kinds.items.links import LinkList
from upper_rim.core.kinds.items.menu import MenuItem
from upper_rim.core.kinds.items.pictures import PictureLink, PictureList
from upper_rim.core.kinds.items.posts import Posts
from upper_rim.core.kinds.items.rich import RichText
from upper_rim.core.kinds.items.social import Profile, SocialRow
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.model.editing.check import broken_references, roles_of
from upper_rim.core.model.site import Band, Menu, Site
from upper_rim.core.values.rich import RichWords
from upper_rim.core.values.styling import (
    LIMITED,
    LOOK_PARTS,
    STATES_OF,
    Declaration,
    Look,
    Role,
    RoleDefault,
    Swatch,
    Tied,
)
from upper_rim.core.values.targets import ToAddress
from upper_rim.core.values.words import Words

ROLES: tuple[Role, ...] = (
    "piece",
    "row",
    "cell",
    "text",
    "title",
    "entry",
    "opener",
    "button",
    "second",
    "icon",
    "ring",
    "link",
    "field",
    "heading-2",
    "list-title",
    "second-line",
    "badge",
    "label",
)


RICH = '<p>Some <a href="/x/">words</a></p><ul><li>One</li></ul><h2>Two</h2><h3>Three</h3>'


def _entry(at: int, below: tuple[Entry, ...] = ()) -> Entry:
    """With all that an entry can say."""
    said = {"label": Words(text=f"Entry {at}"), "second": Words(text="More"), "mark": Words(text="New")}
    return Entry(id=f"en-{at}", target=ToAddress(address="/x/"), entries=below, **said)


class StyledMaker(Maker):
    def styled_site(self, pieces: int) -> Site:
        chance = self.chance
        self._bands = tuple(
            Band(id=f"bd-{at}", name=f"B{at}", from_px=at * 420) for at in range(chance.randrange(1, 4))
        )
        looks = tuple(
            Look(
                id=f"lk-{at}",
                name=f"Look {at}",
                styles=self._declared(dict.fromkeys(("box", "title", "content"), "entry"), 7),
            )
            for at in range(4)
        )
        site = Site(
            key="qstyle",
            name="Styled",
            face="figtree",
            heading_face=chance.choice(["", "bitter"]),
            swatches=(
                Swatch(id="sw-a", name="A", colour="#f3efe4", role="ground"),
                Swatch(id="sw-b", name="B", colour="oklch(0.4 0.1 200)", role="accent"),
                Swatch(id="sw-c", name="C", tied=Tied(parent="sw-b", lightness=20, chroma=0.8), role="line"),
            ),
            bands=self._bands,
            menus=(
                Menu(id="mn-a", name="Main", entries=(_entry(0), _entry(1, (_entry(2),)), _entry(3).replaced(apart=True))),
            ),
            looks=looks,
            roles=self._defaults(6),
            pieces=tuple(self._piece(at) for at in range(pieces)),
        )  # fmt: skip
        assert broken_references(site) is None, broken_references(site)
        return site

    def _declared(self, roles: dict[Any, str], most: int) -> tuple[Declaration, ...]:
        made: dict[tuple[Any, ...], Declaration] = {}
        for _ in range(self.chance.randrange(most + 1)):
            part = self.chance.choice(list(roles))
            states = STATES_OF[roles[part]]
            name = self.chance.choice([name for name in VALUES if name in LIMITED.get(roles[part], (name,))])
            said = self.chance.choice(VALUES[name])
            if takes_lengths(name) and roles[part] != "column-rule" and self.chance.random() < 0.2:
                said = any_length(self.chance, name)
            value = {
                "id": self.new_id("st"),
                "property": name,
                "value": said,
                "state": self.chance.choice(["rest", *states]) if "rest" in states else states[0],
                "band": self.chance.choice([None, *(band.id for band in self._bands)]),
                "part": part,
            }
            try:
                declaration = Declaration.model_validate(value)
            except ValidationError:
                continue
            made[part, name, declaration.state, declaration.band] = declaration
        return tuple(made.values())

    def _defaults(self, most: int, among: tuple[Role, ...] = ROLES) -> tuple[RoleDefault, ...]:
        roles = self.chance.sample(among, self.chance.randrange(1, most))
        return tuple(
            RoleDefault(id=self.new_id("rd"), role=role, styles=self._declared({"box": role}, 6)) for role in roles
        )

    def redressed(self, site: Site) -> Site:
        """With other styles on one node, or on all that wear a look, or have a role in the site or in one piece."""
        chance, piece = self.chance, self.chance.choice(site.pieces)
        match chance.randrange(5):
            case 0:
                look = chance.choice(site.looks)
                other = look.replaced(styles=self._declared(dict.fromkeys(LOOK_PARTS, "entry"), 7))
                return site.replaced(looks=tuple(other if one is look else one for one in site.looks))
            case 1:
                return site.replaced(roles=self._defaults(6))
            case 2:
                made = piece.replaced(roles=self._defaults(4, ROLES[1:]))
                return site.replaced(pieces=tuple(made if one is piece else one for one in site.pieces))
        return redressed(site, chance, lambda node: self._declared(roles_of(node), 5))

    def _dressed(self, node: Any, most: int) -> Any:
        wears = tuple(self.chance.sample([f"lk-{at}" for at in range(4)], self.chance.choice([0, 0, 1, 2])))
        return node.replaced(styles=self._declared(roles_of(node), most), wears=wears)

    def _piece(self, at: int) -> Header:
        chance = self.chance
        rows = tuple(
            self._dressed(
                Row(id=self.new_id("rw"), cells=tuple(self._cell() for _ in range(chance.randrange(1, 3)))), 5
            )
            for _ in range(chance.randrange(1, 3))
        )
        piece = Header(
            id=f"pc-{at}",
            name=f"P{at}",
            rows=rows,
            reach=(ReachRule(id=f"rr-{at}"),),
            roles=self._defaults(4, ROLES[1:]),
        )
        return self._dressed(piece, 5)

    def _cell(self) -> Cell:
        return self._dressed(Cell(id=self.new_id("cl"), items=(self._item(),)), 3)

    def _item(self) -> Any:
        chance = self.chance
        made: dict[str, Any] = {"id": self.new_id("it")}
        kind = chance.choice([*(one for one in ITEM_KINDS.values() if not one.ONLY_IN), MenuItem, ButtonItem])
        if kind is MenuItem:
            made |= {"menu": "mn-a", "drawer_below": chance.choice([None, *(band.id for band in self._bands)])}
            made |= {
                "drawer_side": chance.choice(["start", "end", "top", "bottom", "whole"]),
                "panels": chance.choice(["narrow", "wide"]),
            }
        elif kind is ButtonItem:
            made |= {"rank": chance.choice(["first", "second"])}
        elif kind is LinkList:
            made |= {"menu": "mn-a", "words": Words(text=chance.choice(["", "Title"]))}
        elif kind is SocialRow:
            made |= {"profiles": (Profile(id=self.new_id("pf"), address="mailto:a@b.example"),)}
        elif kind is PictureList:
            link = PictureLink(id=self.new_id("pl"), target=ToAddress(address="/x/"), second=Words(text="More"))
            made |= {"links": (link,)}
        elif kind is RichText:
            made |= {"rich": RichWords(text=RICH)}
        elif kind is Form:
            made |= {"fields": (FormField(id=self.new_id("ff")),)}
        elif kind is Posts:
            made |= {"words": Words(text=chance.choice(["", "Title"]))}
        elif kind is Contact:
            made |= {"name": "Ostrey Ferries", "telephone": "+44 1632 960144"}
        if chance.random() < 0.2:
            made["hint"] = Words(text="A hint")
        if kind in {ButtonItem, IconLink}:
            made["target"] = ToAddress(address="/x/")
        return self._dressed(kind(**made), 8)
