"""*Quillwort Press*: an invented publisher of books on plants, a small site to carry things over to."""

from __future__ import annotations

from ..core.kinds.entries import Entry
from ..core.kinds.items.button import ButtonItem
from ..core.kinds.items.logo import Logo
from ..core.kinds.items.menu import MenuItem
from ..core.kinds.pieces.base import ReachRule
from ..core.kinds.pieces.header import Header
from ..core.kinds.rows import Cell, Row, Track
from ..core.model.site import Band, Menu, Site
from ..core.style.built_in import corners
from ..core.values.styling import Swatch
from ..core.values.targets import ToPage
from ..core.values.words import Words
from .drawings import QUILLWORT_ICON, leaves
from .making import Demo, Pile, declared

_PAGES = (
    (
        "home",
        "/",
        "Books that look closely at plants",
        "We are a small press for field guides, garden books and the odd long essay on mosses.\n\nOur lists come out twice a year, when the sap rises and when it goes back.",
    ),
    (
        "books",
        "/books/",
        "Books",
        "| Title | By | Pages |\n|---|---|---|\n| Walls and What Grows in Them | Ines Farrow | 212 |\n| A Year of Sedges | Tam Oldacre | 340 |\n| The Patient Fern | Ruth Venn | 96 |",
    ),
    (
        "authors",
        "/authors/",
        "Authors",
        "**Ines Farrow** climbs ruins for a living.\n\n**Tam Oldacre** drained one bog in his youth and has been putting them back since.",
    ),
    (
        "visit",
        "/visit/",
        "Visit the print room",
        "Saturdays from ten to four, at 3 Tallow Yard, Merrowby. The press makes a noise; children like it.",
    ),
    ("contact", "/contact/", "Contact", "Write to post@quillwort.example. We answer letters about plants first."),
)

_STYLE = """body{margin:0;font:18px/1.65 Georgia,serif;color:#2b2a26;background:#fbf8f1}
main{max-width:40em;margin:0 auto;padding:2em 20px 4em}h1{font-size:2em;line-height:1.2;color:#3f5a36}
img.wide{max-width:100%;height:auto}table{border-collapse:collapse;width:100%}td,th{border-bottom:1px solid #d9d2c0;padding:.4em;text-align:start}
"""


def demo() -> Demo:
    """The site, and the bytes of its contents by hash."""
    pile = Pile()
    for name, path, title, text in _PAGES:
        pile.page(
            f"pg-{name}", path, title, text, site="Quillwort Press", picture="/leaves.svg" if name == "home" else ""
        )
    pile.asset("as-style", "/style.css", _STYLE)
    pile.asset("as-leaves", "/leaves.svg", leaves("#e7ecdb", "#4d6b3c"))
    entries = tuple(
        Entry(
            id=f"en-{name}", target=ToPage(page=f"pg-{name}"), label=Words(text="Print room" if name == "visit" else "")
        )
        for name, *_ in _PAGES[1:]
    )
    header = Header(
        id="pc-main",
        name="Header",
        styles=declared("main", {"background-color": "@sw-moss", "color": "@sw-cream"}),
        reach=(ReachRule(id="rr-all"),),
        rows=(
            Row(
                id="rw-main",
                name="Main row",
                styles=declared(
                    "row",
                    {
                        "border-block-end-width": "3px",
                        "border-block-end-style": "solid",
                        "border-block-end-color": "@sw-straw",
                    },
                ),
                cells=(
                    Cell(id="cl-start", track=Track(kind="content"), items=(Logo(id="it-logo"),)),
                    Cell(
                        id="cl-middle",
                        align="end",
                        items=(
                            MenuItem(
                                id="it-menu",
                                menu="mn-main",
                                drawer_below="bd-wide",
                                drawer_side="whole",
                                button_turns=True,
                            ),
                        ),
                    ),
                    Cell(
                        id="cl-end",
                        track=Track(kind="content"),
                        align="end",
                        items=(
                            ButtonItem(
                                id="it-letter",
                                words=Words(text="Write to us"),
                                target=ToPage(page="pg-contact"),
                                styles=declared(
                                    "letter", {"background-color": "@sw-cream", "color": "@sw-bark", **corners("2px")}
                                ),
                                hidden_in=("bd-narrow",),
                            ),
                        ),
                    ),
                ),
            ),
        ),
    )
    pile.asset("as-icon", "/icon.svg", QUILLWORT_ICON)
    site = Site(
        key="w4ltq",
        name="Quillwort Press",
        icon="/icon.svg",
        description=Words(text="Plant books from a small press by the lake: floras, field guides and garden notes."),
        face="source-serif-4",
        content_px=980,
        swatches=(
            Swatch(id="sw-moss", name="Moss", colour="#3f5a36", role="accent"),
            Swatch(id="sw-cream", name="Cream", colour="#fbf8f1", role="ground"),
            Swatch(id="sw-straw", name="Straw", colour="#e3c46f"),
            Swatch(id="sw-bark", name="Bark", colour="#2b2a26", role="ink"),
        ),
        bands=(Band(id="bd-narrow", name="Narrow", from_px=0), Band(id="bd-wide", name="Wide", from_px=720)),
        menus=(Menu(id="mn-main", name="Main", entries=entries),),
        pieces=(header,),
        **pile.sorted(),
    )
    return site, pile.contents
