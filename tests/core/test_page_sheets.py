"""What is left out of a page's sheet, and what is not."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

from tests.moving_sites import MovingMaker
from upper_rim.core.kinds.rule import Rule, rules_in
from upper_rim.core.output.css.sheet import SiteRules
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.output.page.page_sheets import PageSheets, shows
from upper_rim.core.output.page.scripts import NEEDED_BY, PARTS_IN_ORDER, parts_for, script
from upper_rim.core.style.selectors import selectors_in
from upper_rim.core.style.type.unicode_range import code_points, scripts_served
from upper_rim.shipped import shelf

ROOT = Path(__file__).resolve().parents[2]
ARABIC, LATIN = "U+600-6FF,U+200C-200E", "U+0000-00FF"
RULES = SiteRules(
    faces=tuple(
        Rule("@font-face", {"font-family": f'"k {name}"', "src": "url(a.woff2)", "unicode-range": served})
        for name, served in (("A", ARABIC), ("L", LATIN))
    ),
    own="@layer k-own{.mine{color:red}.k-gone .theirs{color:red}}",
    registered=(),
    key="k",
    layers=("a",),
    ours=rules_in(
        '@layer a{.k-here,.k-gone{font-family:"k A","k L";--k-used:1px;--k-idle:1px}.k-here p{inset:var(--k-used)}'
        ".k-here blockquote{margin:0}.k-here:lang(de){top:0}.k-here:lang(en){top:1px}.k-here:not(.k-gone){left:0}"
        "@media (width < 9px){.k-gone>.k-here{right:0}}.k-here li::marker{color:red}"
        ':root[data-rim-out~="k"] .k-here{bottom:1px}:root:not([data-rim-out]) .k-here{bottom:2px}'
        ':root:not([data-rim-out~="k"]) .k-here{bottom:3px}}'
    ),
)


def sheet_for(html: str, words: str = "", *, decides: bool = False) -> str:
    sheets = PageSheets(RULES)
    path = sheets.path(shows(html, frozenset(words), decides=decides))
    assert dict(sheets.files()).keys() == {path}
    assert path == sheets.path(shows(html, frozenset(words), decides=decides))
    return dict(sheets.files())[path].decode()


def test_what_cannot_match_is_left_out_and_all_else_stays() -> None:
    css = sheet_for('<div class="k-here x" lang="de-AT"><p>Text</p></div>')
    assert '"k A"' not in css and "k L" in css and ".mine" in css, "the designer's own CSS is for all of the page"
    assert ".k-here{" in css and ".k-gone" not in css.replace(":not(.k-gone)", "") and "--k-idle" not in css
    assert "blockquote" not in css and ":lang(de)" in css and ":lang(en)" not in css and "width<9px" not in css
    assert "left:0!important" in css and "color:red!important" in css, "all of ours is important"
    assert ".k-here p{" in css and ":not(.k-gone)" in css and "li::marker" in css, "scripts make lines of lists"


def test_where_all_is_for_everybody_nothing_is_asked_of_the_visitor() -> None:
    some, all_ = (sheet_for('<p class="k-here">a</p>', decides=decides) for decides in (True, False))
    assert some.count("data-rim-out") == 3 and all(f"bottom:{px}px" in some for px in (1, 2, 3))
    assert "data-rim-out" not in all_ and "bottom:3px" in all_ and "bottom:1px" not in all_ and "bottom:2px" not in all_


@pytest.mark.parametrize("seed", [0, 1, 2, 923, 946])
def test_what_is_left_of_a_generated_sites_sheet_is_whole(seed: int) -> None:
    """A condition in which nothing stands, too: a float that only comes and goes."""
    site, contents = MovingMaker(seed).site()
    composer = Composer(site, shelf(), contents.__getitem__, year=2026)
    composer.page(site.pages[0], contents[site.pages[0].content or ""])
    (css,) = (data.decode() for path, data in composer.loaded() if path.endswith(".css"))
    conditions = {
        name
        for rule in rules_in(re.sub("@(?:layer|charset) [^{;]*;", "", css))
        for name in (rule.selector, *rule.within)
    }
    known = {"@font-face", "@layer", "@media", "@property", "@starting-style", "@keyframes"}
    assert {name.split(" ")[0] for name in conditions if name.startswith("@")} <= known
    assert f"body:has(>.{site.key})" in conditions


@pytest.mark.parametrize(("words", "kept"), [("مرحبا", True), ("plain", False), ("\u200d", True), ("\u2026", False)])
def test_a_face_stays_where_something_can_be_written_in_it(words: str, kept: bool) -> None:
    assert ("k A" in sheet_for('<p class="k-here">a</p>', words)) is kept


def test_ranges_are_read_as_css_writes_them() -> None:
    assert code_points("U+26, u+0-7F,U+4??") == {*range(0x80), *range(0x400, 0x500)}
    assert code_points("U+zz, 7") == frozenset()
    assert scripts_served(ARABIC) == {"Arab"} and scripts_served("U+2026") == frozenset()


def test_a_list_is_parted_at_its_own_commas_only() -> None:
    assert selectors_in("a, b:is(c,d:not(e,f)) ,[g]") == ["a", "b:is(c,d:not(e,f))", "[g]"]


@pytest.mark.parametrize(
    ("html", "parts"),
    [
        ("<p>data-rim-hint</p>", ()),
        ("<a data-rim-hint>", ("hints",)),
        ('<header data-rim-stages="80\n500" data-rim-up="24">', ("moves",)),
        ('<header data-rim-stages="80\n50v">', ("distances", "moves")),
        ('<section data-rim-until="=#part">', ("distances", "moves")),
        ("<button data-rim-branch><button data-rim-back>", ("branches", "levels")),
    ],
)
def test_a_page_loads_the_parts_that_its_markup_asks_for(html: str, parts: tuple[str, ...]) -> None:
    assert parts_for(html) == (("begin", *parts, "end") if parts else ())


MARKUP = {
    "branches": "<button data-rim-branch>",
    "levels": "<button data-rim-branch><button data-rim-back>",
    "distances": '<header data-rim-stages="50v">',
    "moves": "<header data-rim-yields>",
}


@pytest.mark.parametrize("part", NEEDED_BY)
def test_a_part_comes_with_all_that_it_names(part: str) -> None:
    written = {name: (ROOT / f"upper_rim/runtime/parts/{name}.js").read_text() for name in PARTS_IN_ORDER}
    sources = {name: re.sub(r"//.*", "", text) for name, text in written.items()}
    owners = {found: name for name, text in sources.items() for found in re.findall(r"(?m)^(?:const|let) (\w+)", text)}
    assert owners["isOpen"] == "branches" and owners["far"] == "distances"
    came = parts_for(MARKUP.get(part, f"<p {NEEDED_BY[part]}>"))
    assert part in came
    for name in came:
        own = set(re.findall(r"(?:const|let|,)\s+(\w+)\s*=", sources[name]))
        missing = {
            owners[word] for word in set(re.findall(r"(?<![\w.])\w+", sources[name])) - own if word in owners
        } - set(came)
        assert not missing - ({"distances"} if name == "moves" else set()), name


def test_each_part_is_whole_and_every_one_ships() -> None:
    assert set(PARTS_IN_ORDER) == set(shelf().scripts)
    assert script(shelf(), ("begin", "end")).startswith("(()=>{") and all(
        shelf().scripts[part].endswith((";", "}")) for part in PARTS_IN_ORDER
    )
