"""What stands around the pages: where, as which landmark, and what its items are published as."""

from __future__ import annotations

import json
import re
from itertools import pairwise

import pytest
from selectolax.lexbor import LexborHTMLParser

from upper_rim.core.exchange.html.markers import strip
from upper_rim.core.kinds.items.contact import Contact, Hours, days_in_words
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Set
from upper_rim.core.model.editing.refusal import Refusal
from upper_rim.core.model.site import Site
from upper_rim.core.output.css.sheet import sheet
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.values.rich import RichWords, clean
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

SITE, CONTENTS = ostrey()
LANDMARKS = {"section": "notice", "header": "header", "aside": "sidebar", "footer": "footer", "nav": "bottom"}


def page_at(path: str, site: Site = SITE, year: int | None = 2026) -> str:
    composer = Composer(site, shelf(), CONTENTS.__getitem__, year=year)
    page = next(page for page in site.pages if page.path == path)
    assert page.content is not None
    composed = composer.page(page, CONTENTS[page.content])
    assert strip(composed) == CONTENTS[page.content], "what lies outside the pieces stays byte for byte as it came"
    return composed.decode()


def test_pieces_are_landmarks_in_the_order_in_which_a_page_is_read() -> None:
    read = LexborHTMLParser(page_at("/guide/birds/"))
    order = ["section.q7xk-pc-winter", "header.q7xk", "main", "aside.q7xk", "footer.q7xk", "nav.q7xk-pc-bar"]
    html = read.html or ""
    found = [read.css_first(selector) for selector in order]
    assert all(found), order
    places = [html.index((one.html or "")[:60]) for one in found if one is not None]
    assert all(before < after for before, after in pairwise(places))
    assert found[2] is not None and found[3] is not None and found[2].parent and found[3].parent
    assert found[2].parent.parent.html == found[3].parent.html, "the content stands beside the sidebar"
    names = [one.attributes.get("aria-label") for one in (found[0], found[3], found[5]) if one is not None]
    assert names == ["Winter timetable", "The island guide", "Quick ways"]
    assert len(read.css(".q7xk-skip")) == 1 and len(read.css("#q7xk-content")) == 1
    assert not read.css("h1.q7xk, footer h1, footer h2"), "no heading of a piece disturbs the page's outline"


def test_a_sidebar_before_or_after_the_content_and_on_either_side() -> None:
    before = apply(SITE, Set(node="pc-guide", field="narrow", value="before"))
    assert isinstance(before, Site)
    html = page_at("/guide/birds/", before)
    assert html.index("<aside") < html.index("<main")
    assert page_at("/guide/birds/").index("<aside") > page_at("/guide/birds/").index("<main")
    css = sheet(SITE, shelf(), "")
    ended = apply(SITE, Set(node="pc-guide", field="side", value="end"))
    assert isinstance(ended, Site)
    width = 280
    assert f"grid-template-columns:minmax({width}px,auto) minmax(0,1fr)" in css, "as wide before it has arrived"
    assert f"grid-template-columns:minmax(0,1fr) minmax({width}px,auto)" in sheet(ended, shelf(), "")


def test_a_notice_tells_its_period_and_only_then_needs_a_script() -> None:
    assert 'data-rim-begins="2026-10-20T00:00" data-rim-ends="2027-03-28T00:00"' in page_at("/")
    assert "localStorage" in page_at("/")
    site = SITE
    for field, value in (("closable", False), ("shows_from", None), ("shows_until", None)):
        after = apply(site, Set(node="pc-winter", field=field, value=value))
        assert isinstance(after, Site)
        site = after
    assert "localStorage" not in page_at("/", site) and "data-rim-shut" not in page_at("/", site)
    refused = apply(SITE, Set(node="pc-winter", field="shows_from", value="next Tuesday"))
    assert isinstance(refused, Refusal) and refused.field == "shows_from"


def test_columns_fold_by_band_and_name_a_band_that_is_there() -> None:
    css = sheet(SITE, shelf(), "")
    assert re.search(r"width<560px\)\{[^}]*rw-columns[^}]*repeat\(1,minmax\(0,1fr\)\)", css.replace(" ", ""))
    assert re.search(r"width>=560px\)and\(width<980px\)\{[^}]*rw-columns[^}]*repeat\(2,", css.replace(" ", ""))
    refused = apply(SITE, Set(node="rw-columns", field="columns", value=[{"band": "bd-gone", "count": 2}]))
    assert isinstance(refused, Refusal) and "band" in refused.words
    assert isinstance(
        apply(SITE, Set(node="rw-columns", field="columns", value=[{"band": "bd-wide", "count": 7}])), Refusal
    )


def test_contact_details_are_an_address_and_structured_data() -> None:
    html = page_at("/")
    assert html.count("<address") == 3, (
        "the footer’s, and in both menus the drawer’s: without a name it tells nothing more"
    )
    assert html.count("application/ld+json") == 1
    found = re.search(r'<script type="application/ld\+json">(.*?)</script>', html)
    assert found is not None
    data = json.loads(found[1])
    assert data["@context"] == "https://schema.org" and data["@type"] == "TravelAgency" and data["name"]
    assert data["address"]["@type"] == "PostalAddress" and data["address"]["addressLocality"] == "Osterhaven"
    assert data["openingHoursSpecification"][0]["dayOfWeek"] == ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday"]
    assert 'href="tel:+441632960144"' in html and 'href="mailto:quay@ostrey.example"' in html
    hostile = Contact(id="it-c", name="</script><script>alert(1)</script>", street="<b>")
    assert hostile.structured()["name"] == hostile.name
    after = apply(SITE, Set(node="it-contact", field="name", value=hostile.name))
    assert isinstance(after, Site)
    assert "<script>alert" not in page_at("/", after)
    assert Contact(id="it-c").structured() == {}, "without a name there is nothing to tell"


@pytest.mark.parametrize(
    ("days", "said"),
    [("Mo Tu We Th Fr", "Mon–Fri"), ("Sa Su", "Sat, Sun"), ("Mo We Th Fr Su", "Mon, Wed–Fri, Sun"), ("Tu", "Tue")],
)
def test_days_are_joined(days: str, said: str) -> None:
    hours = Hours.model_validate({"days": days.split(), "opens": "09:00", "closes": "17:00"})
    assert days_in_words(hours, "en") == said


@pytest.mark.parametrize(
    ("address", "icon"),
    [
        ("https://www.youtube.com/@ostrey", "brand-youtube"),
        ("https://instagram.com/ostrey", "brand-instagram"),
        ("https://mastodon.social/@ostrey", "brand-mastodon"),
        ("https://github.com/ostrey", "brand-github"),
        ("https://last.fm/user/ostrey", "brand-lastdotfm"),
        ("https://x.com/ostrey", "brand-x"),
        ("https://ostrey.example/", "globe"),
        ("https://xn--strey-jua.example/a", "globe"),
        ("mailto:quay@ostrey.example", "mail"),
        ("tel:+441632960144", "phone"),
        ("/fares/", "link"),
    ],
)
def test_the_icon_of_an_address_is_found_from_its_host(address: str, icon: str) -> None:
    mark = shelf().brands.mark(address)
    assert mark.icon == icon and mark.title
    assert (mark.brand is not None) == icon.startswith("brand-")


def test_the_copyright_line_runs_up_to_the_present_year() -> None:
    assert ">1987–2026</span> Ostrey Ferries" in page_at("/")
    assert ">1987</span> Ostrey Ferries" in page_at("/", year=None)
    assert ">1987</span>" in page_at("/", year=1987)


HOSTILE = [
    "<script>x()</script>",
    "<p onclick=x()>a</p>",
    "<img src=x onerror=x()>",
    "<a href='javascript:x()'>a</a>",
    "<a href=' java\nscript:x()'>a</a>",
    "<a href='data:text/html,<script>x()</script>'>a</a>",
    "<svg onload=x()><script>x()</script></svg>",
    "<math><mi xlink:href='javascript:x()'>a</mi></math>",
    "<iframe src='javascript:x()'></iframe>",
    "<style>*{display:none}</style>",
    "<p style='position:fixed;inset:0'>a</p>",
    "<form action=/x><input name=password></form>",
    "<template><script>x()</script></template>",
    "<noscript><p title='</noscript><img src=x onerror=x()>'>",
    "<p><b><i>unclosed",
    "<!--><img src=x onerror=x()>-->",
    "<a href='vbscript:x()'>a</a>",
    "<a href='//evil.example' target=_blank>a</a>",
    "<object data='javascript:x()'></object>",
    "<base href='https://evil.example/'>",
    "<meta http-equiv=refresh content='0;url=javascript:x()'>",
    "<p id=q7xk-content class=q7xk>a</p>",
    "<table><td background='javascript:x()'>a</table>",
    "<textarea></textarea><script>x()</script>",
    "<plaintext><script>x()</script>",
    "<p>\x00<scr\x00ipt>x()</script>",
]


@pytest.mark.parametrize("html", HOSTILE)
def test_a_text_with_marks_keeps_nothing_that_could_run(html: str) -> None:
    kept = RichWords(text=html).text
    assert clean(kept) == kept, "what was cleaned stays as it is"
    read = LexborHTMLParser(f"<body><div id=all>{kept}</div></body>")
    allowed = {"p", "br", "strong", "em", "a", "ul", "ol", "li", "h2", "h3", "blockquote", "s", "sub", "sup"}
    for element in read.css("#all *"):
        assert element.tag in allowed, kept
        assert set(element.attributes) <= {"href"}, kept
        href = (element.attributes.get("href") or "").strip().lower()
        assert not href.startswith(("javascript", "data", "vbscript")), kept
    after = apply(SITE, Set(node="it-about", field="rich", value={"text": html}))
    assert isinstance(after, Site)
    footer = LexborHTMLParser(page_at("/", after)).css_first("footer.q7xk")
    assert footer is not None and footer.css_first(".q7xk-it-contact") is not None, (
        "the rest of the footer is still there"
    )
