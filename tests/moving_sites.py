"""Generated sites whose pieces stay, come and go, slim and hand over, for comparing movement with the browser."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any, get_args

from upper_rim.core.exchange.imports.import_pages import digest
from upper_rim.core.kinds.items.button import ButtonItem
from upper_rim.core.kinds.items.icon import IconLink
from upper_rim.core.kinds.items.links import LinkList
from upper_rim.core.kinds.items.logo import Logo
from upper_rim.core.kinds.items.text import TextItem
from upper_rim.core.kinds.moving import ByElement, ByPage, ByPixels, ByViewport, Stage, WayIn
from upper_rim.core.kinds.pieces.base import Moving, Piece, ReachRule
from upper_rim.core.kinds.pieces.bottom import BottomBar
from upper_rim.core.kinds.pieces.float import Float
from upper_rim.core.kinds.pieces.footer import Footer
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.pieces.notice import Notice
from upper_rim.core.kinds.pieces.sidebar import Sidebar
from upper_rim.core.kinds.rows import Cell, Row, Track
from upper_rim.core.languages import direction
from upper_rim.core.model.editing.check import broken_references
from upper_rim.core.model.site import Asset, Band, Menu, Page, Site, Splice
from upper_rim.core.movement.scene import Shape
from upper_rim.core.values.styling import Declaration
from upper_rim.core.values.targets import ToAddress
from upper_rim.core.values.words import Words

from .fitted_sites import FACES, PICTURE, VOCABULARY, FittedMaker

VIEWPORTS = ((1280, 800), (1024, 640), (768, 1024), (390, 844), (360, 640), (844, 390), (320, 568), (1600, 900))
SIDES = ("block-start", "block-end", "inline-start", "inline-end")
PAINTED = {
    "background-color": ["#12344d", "#eef2f0"],
    "color": ["#ffffff", "#101010"],
    "opacity": ["0.9"],
    **{f"border-{side}-style": ["solid"] for side in SIDES},
}


def page_of(language: str, content_px: int, mark_px: int) -> tuple[bytes, Splice]:
    """A page that holds nothing but a block of known height, with an element at a known place in it."""
    head = f'<!DOCTYPE html><html lang="{language}" dir="{direction(language)}"><head><meta charset="utf-8"><title>T</title>'
    before = head + "</head><body>"
    main = (
        f'<div style="height:{content_px}px;position:relative"><a id="mark" href="#mark" style="position:absolute;'
        f'top:{mark_px}px;width:9px;height:9px"></a></div>'
    )
    head_at, body_at = len(head.encode()), len(before.encode())
    splice = Splice(head_at=head_at, body_at=body_at, end_at=body_at + len(main.encode()), wraps=True)
    return (before + main + "</body></html>").encode(), splice


class MovingMaker(FittedMaker):
    """After `site()`: `viewports` to look through, and `shape_at` for what stands in the page. In a face whose letters
    are all of one width, lines fit to a hair, which is fit's matter and not ours."""

    def site(self) -> tuple[Site, dict[str, bytes]]:
        chance = self.chance
        edges = sorted(chance.sample(range(420, 1300, 20), chance.randrange(0, 3)))
        self._bands = tuple(Band(id=f"bd-{at}", name=f"B{at}", from_px=px) for at, px in enumerate([0, *edges]))
        self._styled = chance.random() < 0.5
        self.viewports = chance.sample(VIEWPORTS, 3)
        self.content_px = chance.choice([300, 1200, 2500, 6000])
        self.mark_px = chance.randrange(0, self.content_px)
        content, splice = page_of(self.language, self.content_px, self.mark_px)
        pieces: list[Piece] = [self._header()]
        if chance.random() < 0.6:
            pieces.append(self._notice())
        if chance.random() < 0.4:
            pieces.append(self._sidebar())
        if chance.random() < 0.8:
            pieces.append(self._plain(Footer, "pc-foot", chance.randrange(1, 3)))
        if chance.random() < 0.4:
            pieces.append(self._bar())
        if chance.random() < 0.5:
            pieces.append(self._float())
        site = Site(
            key="qfit",
            name=chance.choice(self._words),
            language=self.language,
            face=chance.choice([face for face in FACES[self.language] if face != "jetbrains-mono"]),
            gutter_px=chance.choice([0, 16, 20]),
            content_px=chance.choice([960, 1120]),
            sidebar_px=chance.choice([200, 280]),
            bands=self._bands,
            menus=(Menu(id="mn-a", name="Main", entries=tuple(self._entry(0) for _ in range(chance.randrange(2, 6)))),),
            pieces=tuple(pieces),
            pages=(Page(id="pg-a", path="/", title="T", language=self.language, content=digest(content), splice=splice),),
            assets=(Asset(id="as-a", path="/logo.svg", content=digest(PICTURE), size=len(PICTURE)),),
        )  # fmt: skip
        fault = broken_references(site)
        assert fault is None, fault
        return site, {digest(content): content, digest(PICTURE): PICTURE}

    def _declared(self, roles: dict[Any, str], most: int) -> tuple[Declaration, ...]:
        """Without what follows the viewport's height: what is published is worked out for one of 800 px."""
        made = super()._declared(roles, most)
        return tuple(style.replaced(value="9px") if style.value.endswith("vh") else style for style in made)

    def shape_at(self, content_top: float) -> Shape:
        return Shape(float(self.content_px), {"#mark": content_top + self.mark_px, "#nowhere": float("inf")})

    def _plain(self, kind: type[Piece], node: str, rows: int, **fields: Any) -> Any:
        made = kind(
            id=node, name="P", rows=tuple(self._row(Header) for _ in range(rows)), reach=(ReachRule(id=f"rr-{node}"),), **fields
        )  # fmt: skip
        return self._dressed(made, 1)

    def _distance(self) -> Any:
        chance = self.chance
        return chance.choice(
            [
                ByPixels(px=chance.choice([0, 20, 80, 300, 900])),
                ByPixels(px=chance.randrange(0, 1500)),
                ByViewport(percent=chance.choice([10, 50, 100])),
                ByPage(percent=chance.choice([5, 30, 80])),
                ByElement(selector=chance.choice(["#mark", "#mark", "#nowhere"])),
            ]
        )

    def _ways(self, kind: type[Moving]) -> dict[str, Any]:
        """All that the model lets any piece that moves do. What it says of words is drawn from its own types."""
        chance = self.chance
        some = [band.id for band in self._bands if chance.random() < 0.3]
        return {
            "moves": chance.choice([kind.model_fields["moves"].default, *kind.WAYS]),
            "moves_in": tuple(WayIn(band=band, way=chance.choice(kind.WAYS)) for band in some),
            "pin_px": chance.choice([0, 0, 0, 10]),
            "up_px": chance.choice([4, 24, 120]),
            "hides_until": self._distance() if chance.random() < 0.2 else None,
            "yields": chance.random() < 0.3,
            "in_ms": chance.choice([0, 200]),
            "out_ms": chance.choice([0, 200]),
            **{field: chance.choice(self._said(kind, field)) for field in ("motion", "easing", "calm")},
        }

    def _said(self, kind: type[Piece], field: str) -> tuple[Any, ...]:
        """The values that a field of the model can have."""
        found = get_args(kind.model_fields[field].annotation)
        assert found, field
        return found

    def _header(self) -> Header:
        chance = self.chance
        made = self._plain(Header, "pc-head", chance.randrange(1, 3), **self._ways(Header))
        assert isinstance(made, Header)
        rows, stages = list(made.rows), []
        for _ in range(chance.randrange(0, 4)):
            stage = self._stage(made)
            stages.append(stage)
            if chance.random() < 0.4:
                rows += [self._row(Header).replaced(stage=stage.id) for _ in range(chance.randrange(1, 3))]
        over = chance.random() < 0.25
        return made.replaced(
            rows=tuple(rows), stages=tuple(stages), over=over, styles=(*made.styles, *self._lines(made))
        )

    def _lines(self, header: Header) -> Iterator[Declaration]:
        """Lines of its own, at any of its sides, some of them in a band alone."""
        said = {style.property.rpartition("-")[0] for style in header.styles}
        for side in SIDES:
            if f"border-{side}" not in said and self.chance.random() < 0.15:
                band = self.chance.choice([None, *(band.id for band in self._bands)])
                for what, value in (
                    ("style", "solid"),
                    ("width", self.chance.choice(["1px", "6px", "2.5px", "0.5rem"])),
                ):
                    yield Declaration(id=self.new_id("st"), property=f"border-{side}-{what}", value=value, band=band)

    def _stage(self, header: Header) -> Stage:
        chance = self.chance
        parts = [row.id for row in header.rows] + [
            item.id for row in header.rows for cell in row.cells for item in cell.items
        ]
        painted = chance.sample(sorted(PAINTED), chance.randrange(0, 3))
        return Stage(
            id=self.new_id("sg"),
            after=self._distance(),
            height_px=chance.choice([None, 30, 48, 64]),
            padding_px=chance.choice([None, None, 0, 6]),
            logo_percent=chance.choice([100, 75, 50]),
            without=tuple(part for part in parts if chance.random() < 0.15),
            hidden_in=tuple(band.id for band in self._bands if chance.random() < 0.15),
            styles=tuple(
                Declaration(id=self.new_id("st"), property=name, value=chance.choice(PAINTED[name])) for name in painted
            ),
        )

    def _notice(self) -> Piece:
        chance = self.chance
        edge = chance.choice(self._said(Notice, "edge"))
        return self._small(Notice, "pc-note", edge=edge, closable=chance.random() < 0.5, **self._ways(Notice))

    def _small(self, kind: type[Piece], node: str, **fields: Any) -> Any:
        item = TextItem(id=self.new_id("it"), words=Words(text=self.words()))
        padding = f"{self.chance.choice([0, 6, 13])}px"
        styles = (Declaration(id=self.new_id("st"), property="padding-block-start", value=padding),)
        row = Row(
            id=self.new_id("rw"), cells=(Cell(id=self.new_id("cl"), align="center", items=(item,)),), styles=styles
        )
        return kind(id=node, name="N", rows=(row,), reach=(ReachRule(id=f"rr-{node}"),), **fields)

    def _sidebar(self) -> Piece:
        chance = self.chance
        lists = tuple(LinkList(id=self.new_id("it"), menu="mn-a") for _ in range(chance.choice([1, 3, 7])))
        row = Row(id=self.new_id("rw"), cells=(Cell(id=self.new_id("cl"), items=lists),))
        reach = (ReachRule(id="rr-side"),)
        return Sidebar(
            id="pc-side", name="S", rows=(row,), reach=reach, **self._ways(Sidebar),
            **{field: chance.choice(self._said(Sidebar, field)) for field in ("side", "narrow")},
        )  # fmt: skip

    def _bar(self) -> Piece:
        cells = tuple(
            Cell(
                id=self.new_id("cl"),
                track=Track(),
                items=(IconLink(id=self.new_id("it"), icon="phone", target=ToAddress(address="/x/")),),
            )
            for _ in range(3)
        )
        row = Row(id=self.new_id("rw"), cells=cells)
        hidden = tuple(band.id for band in self._bands[1:])
        return BottomBar(
            id="pc-bar", name="B", rows=(row,), reach=(ReachRule(id="rr-bar"),), hidden_in=hidden,
            **self._ways(BottomBar),
        )  # fmt: skip

    def _float(self) -> Piece:
        chance = self.chance
        item = ButtonItem(id=self.new_id("it"), words=Words(text=self.words(1)), target=ToAddress(address="/x/"))
        row = Row(id=self.new_id("rw"), cells=(Cell(id=self.new_id("cl"), items=(item,)),))
        return Float(
            id="pc-float", name="F", rows=(row,), reach=(ReachRule(id="rr-float"),),
            place=chance.choice(self._said(Float, "place")), inset_px=chance.choice([0, 16, 40]), **self._ways(Float),
        )  # fmt: skip


__all__ = ["VIEWPORTS", "VOCABULARY", "Logo", "MovingMaker"]
