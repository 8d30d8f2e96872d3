"""An old part of a page, as a browser tells of it, is read as what pieces have, divided as it was, and made a piece of."""

from __future__ import annotations

import random
from itertools import count
from typing import Any

import pytest
from pydantic import ValidationError

from upper_rim.core.exchange.imports.import_pages import digest
from upper_rim.core.exchange.taken_over.dividing import Columns, Heap, Lines, divided
from upper_rim.core.exchange.taken_over.making import SLOTS, slot_of
from upper_rim.core.exchange.taken_over.measured import DEEPEST, MOST_PARTS, Measured
from upper_rim.core.exchange.taken_over.reading import Read, read_part, rights_of
from upper_rim.core.exchange.taken_over.seen import Seen
from upper_rim.core.exchange.taken_over.taking import (
    Asked,
    Brought,
    Taken,
    drawings_in,
    family_read,
    font_files,
    take_over,
)
from upper_rim.core.kinds.items.menu import MenuItem
from upper_rim.core.model.beginning import blank_site
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.site import Asset, Page, Site
from upper_rim.core.output.fitting import fitter_of
from upper_rim.shipped import shelf

ORIGIN = "http://old.localhost:9"
TEXT = {"display": "inline", "color": "rgb(0, 0, 0)", "font-family": "Arial", "font-size": "16px", "font-weight": "400"}
BLOCK = {**TEXT, "display": "block"}


class Drawn:
    """Parts in the order of a document, each within the one that is named."""

    def __init__(self, width: int = 1280, high: float = 80) -> None:
        self.parts: list[dict[str, Any]] = []
        self.add(-1, "header", (0, 0, width, high))

    def add(self, parent: int, tag: str, rect: tuple[float, ...], **fields: Any) -> int:
        styles = {**(TEXT if tag in {"a", "span"} else BLOCK), **fields.pop("styles", {})}
        self.parts.append({"parent": parent, "tag": tag, "rect": rect, "styles": styles, **fields})
        return len(self.parts) - 1

    def text(self, parent: int, words: str, rect: tuple[float, ...], lines: int = 1) -> None:
        self.parts.append({"parent": parent, "tag": "#text", "rect": rect, "text": words, "lines": lines})

    def link(self, parent: int, words: str, href: str, rect: tuple[float, ...], **fields: Any) -> int:
        at = self.add(parent, "a", rect, attributes={"href": href, **fields.pop("attributes", {})}, **fields)
        self.text(at, words, rect)
        return at

    def measured(self, **fields: Any) -> Measured:
        return Measured.model_validate({"width": 1280, "parts": self.parts, **fields})

    def read(self) -> Read:
        return read_part(self.measured(), shelf().brands, f"{ORIGIN}/")


def kinds(read: Read) -> list[str]:
    return [one.kind for one in read.seen]


def test_links_of_a_list_are_a_menu_with_what_is_below_them_shown_or_not() -> None:
    drawn = Drawn()
    listed = drawn.add(0, "ul", (600, 20, 400, 20))
    for number, words in enumerate(("Boats", "Harbours", "Fares")):
        line = drawn.add(
            listed, "li", (600 + 120 * number, 20, 100, 20), attributes={"class": "active"} if number == 1 else {}
        )
        drawn.link(line, words, f"{ORIGIN}/{words.lower()}", (600 + 120 * number, 20, 60, 20))
        if words == "Boats":
            below = drawn.add(line, "ul", (0, 0, 0, 0), styles={})
            for inner in ("Small", "Large"):
                hidden = drawn.add(below, "li", (0, 0, 0, 0))
                at = drawn.add(hidden, "a", (0, 0, 0, 0), attributes={"href": f"{ORIGIN}/{inner.lower()}"})
                drawn.text(at, inner, (0, 0, 0, 0), 0)
    (menu,) = drawn.read().seen
    assert menu.kind == "menu" and menu.in_row
    assert [link.words for link in menu.links] == ["Boats", "Harbours", "Fares"]
    assert [link.words for link in menu.links[0].below] == ["Small", "Large"]
    assert [link.is_current for link in menu.links] == [False, True, False]


def test_one_thing_is_the_logo_by_where_it_leads_by_its_name_or_by_being_the_first_picture() -> None:
    drawn = Drawn()
    drawn.link(0, "Old Line", f"{ORIGIN}/index.html", (20, 20, 120, 30))
    drawn.link(drawn.add(0, "p", (900, 20, 100, 20)), "Contact", f"{ORIGIN}/contact", (900, 20, 60, 20))
    assert kinds(drawn.read()) == ["logo", "text"]
    drawn = Drawn()
    drawn.text(
        drawn.add(0, "div", (20, 20, 200, 30), attributes={"class": "site-title"}), "Old Line", (20, 20, 120, 30)
    )
    assert kinds(drawn.read()) == ["logo"]
    drawn = Drawn()
    drawn.add(0, "img", (20, 20, 120, 30), attributes={"src": f"{ORIGIN}/a.png"})
    drawn.add(0, "img", (220, 20, 120, 30), attributes={"src": f"{ORIGIN}/b.png"})
    assert kinds(drawn.read()) == ["logo", "picture"]


def test_buttons_profiles_searches_and_rights_are_known_and_what_is_not_is_told() -> None:
    drawn = Drawn()
    room = {
        "padding-left": "20px",
        "padding-right": "20px",
        "background-color": "rgb(200, 0, 0)",
        "display": "inline-block",
    }
    drawn.link(0, "Book", f"{ORIGIN}/book", (1100, 20, 100, 40), styles=room)
    for number, host in enumerate(("github.com/x", "mastodon.social/@x")):
        at = drawn.add(0, "a", (700 + 40 * number, 20, 24, 24), attributes={"href": f"https://{host}"})
        drawn.add(at, "svg", (700 + 40 * number, 20, 24, 24), drawing="<svg xmlns='http://www.w3.org/2000/svg'/>")
    form = drawn.add(0, "form", (300, 20, 200, 40))
    drawn.add(form, "input", (300, 20, 200, 40), attributes={"type": "search", "placeholder": "Find a boat"})
    drawn.text(drawn.add(0, "div", (20, 20, 200, 20)), "© 2008–2021 Old Line", (20, 20, 160, 20))
    letters = drawn.add(0, "form", (20, 60, 200, 20))
    drawn.add(letters, "input", (20, 60, 200, 20), attributes={"type": "email", "name": "address"})
    drawn.add(0, "video", (20, 90, 200, 20))
    read = drawn.read()
    assert kinds(read) == ["button", "social", "search", "copyright"]
    assert len(read.seen[1].links) == 2 and read.seen[2].words == "Find a boat"
    assert any("form" in told for told in read.unread) and any("film" in told for told in read.unread)
    assert rights_of("© 2008–2021 Old Line") == (2008, "Old Line") and rights_of("© 2021 Old Line") == (
        None,
        "Old Line",
    )


def test_what_is_moved_out_of_sight_for_a_picture_is_its_name() -> None:
    drawn = Drawn()
    shown = {"background-image": f'url("{ORIGIN}/logo.svg")', "display": "block"}
    at = drawn.add(0, "a", (60, 20, 160, 48), attributes={"href": f"{ORIGIN}/", "id": "logo"}, styles=shown)
    drawn.text(at, "Saltings", (-9939, 20, 60, 20))
    (logo,) = drawn.read().seen
    assert (logo.kind, logo.source, logo.words) == ("logo", f"{ORIGIN}/logo.svg", "Saltings")


def boxes(
    *rects: tuple[float, float, float, float], bars: dict[int, tuple[float, ...]] | None = None
) -> tuple[list[Seen], Measured]:
    """Texts, some of them in bars with a ground of their own."""
    drawn = Drawn(high=400)
    for number, rect in enumerate(rects):
        bar = (bars or {}).get(number)
        holder = drawn.add(0, "div", bar, styles={"background-color": "rgb(1, 2, 3)"}) if bar else 0
        drawn.text(drawn.add(holder, "div", rect), f"Text {number}", rect)
    read = drawn.read()
    return read.seen, drawn.measured()


def test_boxes_are_cut_into_lines_and_columns_by_turns() -> None:
    whole = divided(*boxes((0, 0, 200, 60), (600, 0, 300, 20), (600, 30, 300, 20)))
    assert isinstance(whole, Columns) and isinstance(whole.within[1], Lines)
    # Columns are nearer to each other than their lines: titles belong to what is below them.
    whole = divided(*boxes((0, 0, 200, 20), (300, 0, 200, 20), (0, 24, 200, 20), (300, 24, 200, 20)))
    assert isinstance(whole, Columns) and all(isinstance(one, Lines) for one in whole.within)
    # A bar across the window is not beside anything.
    whole = divided(*boxes((0, 0, 200, 20), (900, 0, 100, 20), (0, 30, 200, 20), bars={2: (0, 24, 1280, 32)}))
    assert isinstance(whole, Lines) and isinstance(whole.within[0], Columns)
    assert isinstance(divided(*boxes((0, 0, 200, 60), (100, 30, 200, 60))), Heap)


def site_with(*files: str) -> Site:
    numbers = count(1)
    site = blank_site("Old Line", "oldsite", lambda letters: f"{letters}-{next(numbers)}")
    pages = tuple(
        Page(id=f"pg-{name or 'front'}", path=f"/{name}", title=name.title()) for name in ("", "boats", "fares")
    )
    assets = (Asset(id=f"as-{at}", path=path, content=digest(path.encode()), size=9) for at, path in enumerate(files))
    return site.replaced(pages=pages, assets=tuple(sorted(assets, key=lambda one: one.path)))


def taken(site: Site, measured: Measured, slot: Any = "header", language: str = "en") -> Taken:
    numbers = count(1)
    made = take_over(
        site,
        measured,
        Asked(slot, slot.title(), {"kind": "below", "path": "/"}, ORIGIN, language),
        lambda letters: f"{letters}-t{next(numbers)}",
        fitter_of(shelf(), lambda content: b"<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'/>", 2026),
        None,
        Brought(),
    )
    assert isinstance(made, Taken), made
    return made


def applied(site: Site, made: Taken) -> Site:
    after = apply(site, made.edit)
    assert isinstance(after, Site), after
    return after


def plain_header() -> Drawn:
    drawn = Drawn(high=72)
    drawn.add(0, "img", (40, 12, 160, 48), attributes={"src": f"{ORIGIN}/logo.svg", "alt": "Old Line"})
    nav = drawn.add(0, "nav", (900, 26, 300, 20))
    for number, name in enumerate(("boats", "fares")):
        ink = {"color": "rgb(20, 80, 107)"}
        drawn.link(nav, name.title(), f"{ORIGIN}/{name}", (900 + 160 * number, 26, 44, 20), styles=ink)
    return drawn


def test_a_piece_is_made_with_its_menu_its_file_and_its_colours_and_stands_where_the_old_one_did() -> None:
    site = site_with("/logo.svg")
    page = {
        "color": "rgb(20, 80, 107)",
        "background-color": "rgb(250, 250, 245)",
        "font-size": "17px",
        "font-family": "Arial",
    }
    made = taken(site, plain_header().measured(page=page, ground="rgb(250, 250, 245)"))
    after = applied(site, made)
    (piece,) = after.pieces
    logo, menu = after.shown_items(piece)
    assert logo.kind == "logo" and logo.picture == "/logo.svg" and isinstance(menu, MenuItem)
    entries = after.menus[0].entries
    assert [(entry.label.text, entry.target.page) for entry in entries] == [
        ("Boats", "pg-boats"),
        ("Fares", "pg-fares"),
    ]
    colours = {swatch.role: swatch.colour for swatch in after.swatches}
    assert colours["ink"] == "#14506b" and colours["ground"] == "#fafaf5" and after.text_px == 17
    ink = next(swatch.id for swatch in after.swatches if swatch.role == "ink")
    assert f"@{ink}" in {style.value for style in menu.styles if style.property == "color"}
    assert len(after.swatches) == len(site.swatches), "colours that are the site's already are not made twice"
    assert max(max(abs(one.right_px), abs(one.down_px)) for one in made.differences) <= 2
    assert any("Arial" in note for note in made.notes)


def test_a_site_that_has_decided_its_ground_keeps_it() -> None:
    site = site_with("/logo.svg").replaced(text_px=19)
    after = applied(site, taken(site, plain_header().measured(page={"color": "rgb(9, 9, 9)", "font-size": "12px"})))
    assert after.text_px == 19 and after.swatches[: len(site.swatches)] == site.swatches


def test_a_picture_that_is_not_among_the_files_is_asked_for() -> None:
    made = taken(site_with(), plain_header().measured())
    assert any("upload it" in note for note in made.notes)


def test_pinned_parts_stay_and_lie_over_the_page_if_they_did() -> None:
    site = site_with("/logo.svg")
    drawn = plain_header()
    drawn.parts[0]["styles"] = {**BLOCK, "position": "fixed"}
    (piece,) = applied(site, taken(site, drawn.measured())).pieces
    assert piece.moves == "stays" and piece.over
    drawn.parts[0]["styles"] = {**BLOCK, "position": "sticky"}
    (piece,) = applied(site, taken(site, drawn.measured())).pieces
    assert piece.moves == "stays" and not piece.over


def test_what_an_old_part_is_called_tells_what_it_begins() -> None:
    assert slot_of("Footer #x") == slot_of("div.colophon") == "footer" and slot_of("Menu ul.nav") == "header"


@pytest.mark.parametrize("seed", range(150))
def test_whatever_is_told_becomes_a_piece_that_the_site_can_take_or_a_reason(seed: int) -> None:
    chance = random.Random(seed)
    measured = Measured.model_validate(anything(chance))
    site = site_with("/logo.svg")
    try:
        made = taken(site, measured, chance.choice(SLOTS), chance.choice(("en", "ar")))
    except ValueError as why:
        assert str(why).startswith("nothing in it")
        return
    (piece,) = applied(site, made).pieces
    assert made.differences and len(piece.rows) >= 1


def anything(chance: random.Random) -> dict[str, Any]:
    """Parts of chance, with what pages can say and what nobody says."""
    lengths = ("0px", "7px", "-4px", "1e9px", "auto", "12.5px", "nonsense", "300px")
    colours = ("rgb(1, 2, 3)", "rgba(0, 0, 0, 0)", "rgba(9, 9, 9, 0.5)", "red", "color(display-p3 1 0 0)", "}", "")
    words = ("Boats", "©", "© 2020 Ferry", "|", "<b>&amp;", "a" * 300, "مرحبا", "\x00", "{}", "@x")

    def styles() -> dict[str, str]:
        some = {
            "display": chance.choice(("block", "inline", "flex", "inline-block", "table-cell", "contents")),
            "color": chance.choice(colours),
            "background-color": chance.choice(colours),
            "background-image": chance.choice(
                ("none", f'url("{ORIGIN}/logo.svg")', 'url("javascript:1")', "linear-gradient(red, blue)", "x")
            ),
            "font-family": chance.choice(("Arial", "", "a, b, serif", '"', "x" * 600)),
            "font-size": chance.choice(("16px", "0px", "900px", "1e9px", "x")),
            "font-weight": chance.choice(("400", "700", "bold", "x")),
            "line-height": chance.choice(("normal", "20px", "0px", "x")),
            "letter-spacing": chance.choice(("normal", "2px", "x")),
            "box-shadow": chance.choice(("none", "rgb(0, 0, 0) 0px 1px 2px 0px", "x")),
            "position": chance.choice(("static", "fixed", "absolute")),
            "border-bottom-style": chance.choice(("solid", "none", "groove")),
            "text-align": chance.choice(("start", "center", "-webkit-center")),
            "text-transform": chance.choice(("none", "uppercase", "full-width")),
        }
        some |= {
            name: chance.choice(lengths)
            for name in (
                "padding-left",
                "padding-right",
                "padding-top",
                "border-bottom-width",
                "border-top-left-radius",
            )
        }
        return some if chance.random() < 0.9 else {}

    parts: list[dict[str, Any]] = []
    for number in range(chance.randrange(1, 40)):
        elements = [at for at, part in enumerate(parts) if part["tag"] != "#text"]
        parent = chance.choice(elements[-4:]) if parts else -1
        text = bool(parts) and chance.random() < 0.4
        rect = [
            chance.choice((0, -9000, 5, 100, 640, 1270, 50_000)) + chance.random(),
            chance.random() * 300,
            chance.choice((0, 20, 80, 1280)),
            chance.choice((0, 16, 40)),
        ]
        tag = (
            "#text"
            if text
            else chance.choice(
                (
                    "div",
                    "a",
                    "ul",
                    "li",
                    "img",
                    "svg",
                    "form",
                    "input",
                    "button",
                    "p",
                    "h1",
                    "nav",
                    "br",
                    "iframe",
                    "span",
                )
            )
        )
        attributes = {
            "href": chance.choice(
                (
                    f"{ORIGIN}/boats",
                    "javascript:alert(1)",
                    "#",
                    "",
                    "https://github.com/x",
                    "mailto:x",
                    "http://[",
                    f"{ORIGIN}/%zz#a b",
                )
            ),
            "src": chance.choice((f"{ORIGIN}/logo.svg", "data:x", "//")),
            "class": chance.choice(("logo", "active", "x")),
            "alt": chance.choice(("", "a" * 900)),
            "type": chance.choice(("search", "email", "checkbox")),
        }
        told = (
            {"text": chance.choice(words), "lines": chance.randrange(0, 3)}
            if text
            else {"attributes": attributes, "styles": styles()}
        )
        parts.append(
            {"parent": parent if number else -1, "tag": tag, "rect": rect, "adorned": chance.random() < 0.1, **told}
        )
    return {
        "width": chance.choice((320, 1280, 1265)),
        "parts": parts,
        "ground": chance.choice(colours),
        "page": {"direction": "ltr", "color": chance.choice(colours), "font-size": chance.choice(lengths)},
    }


def test_what_no_browser_tells_is_refused() -> None:
    one = {"parent": -1, "tag": "div", "rect": [0, 0, 1, 1]}
    inner = {"parent": 0, "tag": "div", "rect": [0, 0, 1, 1]}
    for parts in (
        [],
        [inner],
        [one, {**inner, "parent": 1}],
        [one, one],
        [one, *[inner] * MOST_PARTS],
        [one, {"parent": 0, "tag": "#text", "rect": [0, 0, 1, 1]}, {**inner, "parent": 1}],
        [one, *({**inner, "parent": at} for at in range(DEEPEST + 1))],
        [{**one, "rect": [0, 0, 1, float("inf")]}],
        [{**one, "attributes": {"href": "x" * 3000}}],
    ):
        with pytest.raises(ValidationError):
            Measured.model_validate({"width": 1280, "parts": parts})


def test_drawings_come_along_without_what_runs_and_fonts_that_are_the_sites_own() -> None:
    drawn = Drawn()
    drawn.add(
        0,
        "svg",
        (0, 0, 9, 9),
        drawing="<svg xmlns='http://www.w3.org/2000/svg'><script>x</script><path d='M0 0'/></svg>",
    )
    drawn.add(0, "svg", (0, 0, 9, 9), drawing="<svg")
    ((asset, data),) = drawings_in(drawn.measured()).values()
    assert b"script" not in data and b"path" in data and asset.content == digest(data)
    face = {"family": "Quayside", "sources": [f"{ORIGIN}/q.woff2?v=1", "https://elsewhere.example/q.woff"]}
    drawn.parts[0]["styles"]["font-family"] = '"Quayside", serif'
    site = site_with("/q.woff2")
    assert [one.path for one in font_files(site, drawn.measured(faces=[face]), ORIGIN)["quayside"]] == ["/q.woff2"]
    assert not font_files(site, drawn.measured(faces=[{**face, "family": "Other"}]), ORIGIN)
    real = shelf().faces["bitter"].files[0].data
    read = family_read("quayside", "ft-1", [real, b"no font"])
    assert read is not None and read[0].name == "Quayside" and len(read[0].files) == len(read[1]) == 1
    assert family_read("quayside", "ft-1", [b"no font"]) is None


def test_texts_that_are_longer_than_a_piece_can_say_are_cut() -> None:
    drawn, long = plain_header(), "a" * 900
    drawn.add(0, "img", (300, 12, 48, 48), attributes={"src": f"{ORIGIN}/logo.svg", "alt": long})
    drawn.link(drawn.add(0, "p", (400, 26, 60, 20)), long, f"{ORIGIN}/boats", (400, 26, 60, 20))
    after = applied(site_with("/logo.svg"), taken(site_with("/logo.svg"), drawn.measured()))
    said = [item.words.text for item in after.shown_items(after.pieces[0]) if item.kind in {"picture", "text"}]
    assert said == [long[:400], long[:400]]
