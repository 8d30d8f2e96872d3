"""What a page's own CSS says of its root and body, as far as pieces have to know."""

from __future__ import annotations

import lightningcss
import pytest

from upper_rim.core.kinds.page_shapes import PageShape
from upper_rim.core.kinds.rule import css as written
from upper_rim.core.output.css.shape_rules import rules_of_children, rules_of_parts, shape_rules
from upper_rim.core.output.css.sheet import inside_a_page
from upper_rim.core.page_shape.cascade import MOST_CSS, Attributes, Sheet
from upper_rim.core.page_shape.shape import shaped

NONE = Attributes({}, {})


def shape_of(css: str, attributes: Attributes = NONE, **files: str) -> PageShape | None:
    return shaped(attributes, [Sheet(css, "/look/site.css")], files.get, lambda selector: False).shape


@pytest.mark.parametrize(
    "css",
    [
        "body{margin:0}",
        "*{margin:0;padding:0}",
        "html,body{margin:0;border:none;max-width:none}",
        "body{margin:0;display:flex;flex-direction:column;min-height:100vh}",
        "body{margin:40px} body{margin:0!important}",
        "body{margin:0;font:16px/1.5 serif;color:#333;background:#fff}",
        "body{margin:0} .box{margin:5px} .away{display:flex} main{position:static;height:50vw}",
        "body{margin:0} .modal{position:fixed;inset:0;overflow:auto} .old{position:absolute;top:0}",
    ],
)
def test_pieces_stand_in_a_plain_body_as_it_is(css: str) -> None:
    assert shape_of(css) is None


@pytest.mark.parametrize(
    ("css", "declared"),
    [
        ("", [("margin", "8px")]),
        ("body{margin:0;padding:1em}", [("margin", "0"), ("padding", "1em")]),
        ("body{padding:2px} #top{padding:1px} .home{padding:3px}", [("padding", "1px")]),
        ("body{padding:2px!important} #top{padding:1px}", [("padding", "2px")]),
        ("@layer a,b;@layer b{body{padding:2px}}@layer a{#top{padding:1px}}", [("padding", "2px")]),
        ("@layer a{body{padding:2px!important}}body{padding:1px!important}", [("padding", "2px")]),
        ("@layer a{body{padding:2px}}.home{padding:1px}", [("padding", "1px")]),
        ("@layer a{body{padding:2px}@layer b{#top{padding:1px}}}", [("padding", "2px")]),
        ("@layer a{body{padding:2px!important}@layer b{body{padding:1px!important}}}", [("padding", "1px")]),
        ("@layer{#top{padding:1px}} @layer{body{padding:2px}}", [("padding", "2px")]),
        ("@layer a.b,a.c;@layer a.c{body{padding:2px}}@layer a{@layer b{#top{padding:1px}}}", [("padding", "2px")]),
        (".other{padding:9px} body{float:left}", [("float", "left")]),
        ("body{padding:url(} p{", [("margin", "8px")]),
    ],
)
def test_what_has_the_last_word_comes_last(css: str, declared: list[tuple[str, str]]) -> None:
    shape = shape_of(css, Attributes({"lang": "en"}, {"class": "home wide", "id": "top"}))
    assert shape is not None and shape.is_boxed
    said = dict(pair for rule in shape.box for pair in rule.declared)
    assert said == {"margin": "8px", **dict(declared)}


def test_sheets_are_brought_in_from_beside_the_one_that_names_them_and_not_without_end() -> None:
    files = {"/look/more.css": '@import "/look/more.css"; body{padding:3px}'}
    shape = shape_of('@import url("more.css") print; body{margin:0}', **files)
    assert shape is not None
    assert ("@media print",) in {rule.within[:1] for rule in shape.box}
    ground = shape_of("html{background:#eee} body{background:url(../a.png) 0 0}")
    assert ground is not None and ground.has_ground
    assert dict(pair for rule in ground.box for pair in rule.declared)["background"] == 'url("/a.png") 0 0'


@pytest.mark.parametrize(
    "css",
    [
        "(" * 200_000,
        "a{" * 100_000,
        "@media all{" * 50_000,
        "body{padding:" + "(" * 100_000 + "}",
        ":is(" * 50_000 + "body{padding:2px}",
        "body " * 200_000 + "{padding:1px}",
        "\0\ud7ff/*" * 10_000,
        "body{padding:1px}" * 60_000,
        "x" * (MOST_CSS + 1),
        "".join(f"@layer l{at}{{body{{margin:{at}px}}}}" for at in range(20_000)),
        "".join(f".c{at}>.d{at}{{height:{at}vh}}" for at in range(20_000)),
    ],
)
def test_css_that_is_made_to_do_harm_gives_a_shape_of_bounded_size_or_none(css: str) -> None:
    shape = shape_of(css)
    assert shape is None or len(shape.model_dump_json()) < 300_000


@pytest.mark.parametrize(
    "css",
    [
        ".x:nonsense({position:fixed;top:0}",
        ".a) b, [ {position:fixed;top:0} .bar{position:fixed;top:0}",
        "body> :::p{margin:0} body>main{padding:1px}",
        "@media ){body{padding:1px}} @media (min-width:{body{padding:2px}}",
        "body{padding:1px;width:};margin:{};max-width:calc(1px +);border:url(} .z{position:sticky;top:calc(}",
        "@supports (x{body{padding:1px}}",
        ".bar{position:fixed;top:0;bottom:\\0} .a\\{b{position:fixed;top:1px}",
        "</style><script>x</script> .bar{position:fixed;top:0}",
        'body{background:url("</style>");padding:3px} html{background:red}',
    ],
)
def test_whatever_comes_in_what_goes_out_can_be_read(css: str) -> None:
    shape = shape_of("body{padding:4px}" + css)
    shapes = [shape] if shape is not None else []
    ours = "".join(written(rules(shapes, "qtest")) for rules in (shape_rules, rules_of_parts, rules_of_children))
    read = str(lightningcss.process_stylesheet(f"@layer l{{{ours}}}.last{{color:red}}", minify=True))
    assert read.endswith(".last{color:red}"), "nothing before it is left open"
    assert "</" not in inside_a_page(read)


@pytest.mark.parametrize(
    ("css", "dark"),
    [
        ("", ""),
        ("body{background:#fff}", ""),
        ("body{background:#14171a url(/x.png)}", "always"),
        ("html{background-color:rgb(10 10 20)}body{background:white}", "always"),
        (":root{--ground:#111}body{background:var(--ground)}", "always"),
        (":root{--a:var(--b);--b:#000}body{background:var(--a)}", "always"),
        (":root{--a:var(--a)}body{background:var(--a)}", ""),
        ("body{background:#111}body{background:#eee}", ""),
        ("@media (prefers-color-scheme:dark){body{background:#111}}", "asked"),
        (":root{--g:#fff}@media (prefers-color-scheme: dark){:root{--g:#000}}body{background:var(--g)}", "asked"),
        ("@media (width<600px){body{background:#111}}", ""),
        ("@media print{body{background:#000}}", ""),
        (":root{color-scheme:dark}", "always"),
        (":root{color-scheme:light dark}", "asked"),
        ("body{background:rgb(0 0 0/10%)}", ""),
    ],
)
def test_a_page_is_dark_by_what_is_painted_behind_all_of_it(css: str, dark: str) -> None:
    found = shaped(Attributes({}, {}), [Sheet(css, "/look/site.css")], {}.get, lambda selector: False)
    assert found.dark == dark
