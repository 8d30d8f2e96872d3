"""Where pieces are put into pages, judged by the browser's own reading of the result."""

from __future__ import annotations

import random

from tests.broken_pages import BROKEN, WITHOUT_PLACE
from upper_rim.core.exchange.html.anatomy import anatomy
from upper_rim.core.exchange.html.encoding import decode, sniff
from upper_rim.core.exchange.html.lifting import cuts, find_in_page, without_cuts
from upper_rim.core.kinds.pieces.footer import Footer
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.pieces.sidebar import Sidebar
from upper_rim.core.model.site import Page, Site
from upper_rim.core.output.page.compose import Composer
from upper_rim.shipped import shelf

from .conftest import Browser, wait_for

TEXT = {"cells": [{"id": "cl-x", "items": [{"id": "it-x", "kind": "text", "words": {"text": "Words"}}]}]}
SITE = Site(
    key="qtest",
    name="T",
    pieces=tuple(
        kind.model_validate(
            {"id": f"pc-{at}", "name": "P", "rows": [TEXT | {"id": f"rw-{at}"}], "reach": [{"id": f"rr-{at}"}]}
        )
        for at, kind in enumerate((Header, Sidebar, Footer))
    ),
)
SCRAPS = (
    "<!doctype html>",
    "<html>",
    "<html lang=de>",
    "<head>",
    "</head>",
    "<body>",
    "<body class=a>",
    "</body>",
    "</html>",
    "<title>t</title>",
    "<meta charset=utf-8>",
    "<link rel=x>",
    "<style>a{}</style>",
    "<script>'<body>'</script>",
    "<script><!-- <script> </script> --></script>",
    "<template><p>x</template>",
    "<!-- <body> -->",
    "<!-->",
    "<?pi?>",
    "<p>",
    "</p>",
    "<div>",
    "</div>",
    "<b>",
    "</b>",
    "<i>",
    "<a href='>'>",
    "</a>",
    "<table>",
    "<tr><td>",
    "</table>",
    "<ul><li>",
    "<select><option>",
    "<svg><title>s</title></svg>",
    "<svg><p>",
    "<math><mi>",
    "<textarea></p></textarea>",
    "<form>",
    "<button>",
    "<h1 id=old>",
    "</h1>",
    "<br/>",
    "</br>",
    "<img alt='<p>'>",
    "text ",
    " ",
    "\n",
    "&lt;",
    "<",
    "a < b",
    "<!doctype>",
    "<frameset>",
    "<iframe></body></iframe>",
)

_COMPARE = """
const [published, came] = arguments, read = (text) => new DOMParser().parseFromString(text, 'text/html');
const page = read(published), plain = read(came), header = page.querySelector('header.qtest');
const footer = page.querySelector('footer.qtest'), aside = page.querySelector('aside.qtest'), beside = page.querySelector('.qtest-beside');
const skip = page.querySelector('.qtest-skip'), first = skip && skip === page.body.firstElementChild && header === skip.nextElementSibling;
const ends = !footer || (footer.parentElement === page.body && footer.firstElementChild.className.startsWith('qtest-row') && !/^(P|H1|B)$/.test(footer.parentElement.tagName));
const wraps = !beside || (beside.parentElement === page.body && aside.parentElement === beside && beside.nextElementSibling === footer);
const walker = page.createTreeWalker(page, NodeFilter.SHOW_COMMENT), marks = [];
while (walker.nextNode()) if (/^\\/?rim/.test(walker.currentNode.data)) marks.push(walker.currentNode);
[...marks, skip, header, footer, aside, page.getElementById('qtest-content'), page.querySelector('link[href^="/_rim/"]'), page.querySelector('script[src^="/_rim/"]')].forEach((part) => part && part.remove());
for (const wrapper of page.querySelectorAll('.qtest-beside, .qtest-beside-content')) wrapper.replaceWith(...wrapper.childNodes);
const flat = (document) => { document.normalize(); return document.documentElement.outerHTML.replace(/>[\\t\\n\\f\\r ]+(?=<)/g, '>'); };
return [Boolean(first && ends && wraps), page.compatMode === plain.compatMode, flat(page) === flat(plain), flat(page), flat(plain)];
"""


def soups(count: int) -> list[bytes]:
    chance = random.Random(20261125)
    return ["".join(chance.choices(SCRAPS, k=chance.randrange(1, 14))).encode() for _ in range(count)]


def test_the_browser_reads_the_page_as_before_within_its_pieces(measurer: Browser) -> None:
    measurer.go("/account/sign-in/")
    composer = Composer(SITE, shelf())
    placed = carried = ended = wrapped = 0
    for came in [*(content for name, content in BROKEN.items() if name not in WITHOUT_PLACE), *soups(400)]:
        found = anatomy(came)
        if found.splice is None:
            carried += 1
            continue
        placed += 1
        ended += found.splice.end_at is not None
        wrapped += found.splice.wraps
        published = composer.page(Page(id="pg-1", path="/x", content="0" * 64, splice=found.splice), came)
        label = sniff(came).label
        first, same_mode, same, now, before = measurer.js(_COMPARE, decode(published, label), decode(came, label))
        if b"noscript" in came:
            continue
        assert first, came
        assert same_mode, came
        assert same, (came, now, before)
    assert placed > 350 and carried < 100 and ended > 300 and wrapped > 200, (placed, carried, ended, wrapped)


_LIFTED = """
const [cut, came, selector] = arguments, read = (text) => new DOMParser().parseFromString(text, 'text/html');
const flat = (document) => { document.normalize(); return document.documentElement.outerHTML.replace(/>[\\t\\n\\f\\r ]+(?=<)/g, '>'); };
const plain = read(came);
plain.querySelectorAll(selector).forEach((part) => part.remove());
return [flat(read(cut)), flat(plain)];
"""


def test_the_browser_agrees_on_what_is_left_when_something_is_lifted_out(measurer: Browser) -> None:
    measurer.go("/account/sign-in/")
    selector = "h1, ul, table"
    lifted = 0
    for came in soups(900):
        lifting = find_in_page(came, selector)
        if lifting.faults or not lifting.found:
            continue
        lifted += 1
        left = without_cuts(came, cuts(came, {"lf-1": selector}))
        cut, plain = measurer.js(_LIFTED, left.decode(), came.decode(), selector)
        assert cut == plain, came
    assert lifted > 100


def test_what_is_old_is_pointed_at_on_the_page_and_looked_at_before_it_goes(browser: Browser) -> None:
    browser.sign_in()
    browser.go("/s/ostrey/pages/lifting/")
    wait_for(lambda: browser.on_stage_js("return document.documentElement.style.cursor") == "crosshair")
    x, y = browser.on_screen("document.querySelector('h1')")
    browser.mouse("mouseMoved", x, y)
    wait_for(lambda: browser.on_stage_js("return document.querySelector('[data-rim-lift]')?.localName") == "h1")
    with browser.held(x, y):
        pass
    wait_for(lambda: browser.all("lift-preview"))
    assert browser.one("selector").get_attribute("value") == "body > main > h1"
    assert "42 parts on 42 pages" in browser.one("lift-preview").text
    # Pieces of ours are not the page's.
    x, y = browser.on_screen("document.querySelector('[data-rim-node=it-logo]')")
    browser.mouse("mouseMoved", x, y)
    wait_for(lambda: browser.on_stage_js("return document.querySelector('[data-rim-lift]')") is None)
    with browser.held(x, y):
        pass
    browser.settled()
    assert browser.one("selector").get_attribute("value") == "body > main > h1"
