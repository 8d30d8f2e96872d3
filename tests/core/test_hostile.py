"""What is made to do harm costs no more than its length, and ends with a reason."""

from __future__ import annotations

import io
import itertools
import zipfile

import pytest

from upper_rim.core.exchange.html.anatomy import DEEPEST, anatomy, without_noscripts
from upper_rim.core.exchange.html.cursor import Cursor
from upper_rim.core.exchange.html.markers import without_marked
from upper_rim.core.exchange.html.source_tags import nests_deeper, tokens
from upper_rim.core.exchange.imports.feed import FeedFault, read_feed
from upper_rim.core.exchange.imports.import_pages import (
    ArchiveEntry,
    Problem,
    files_of_zip,
    read_files,
    read_sitemap,
    site_path,
)
from upper_rim.core.exchange.imports.import_picture import PictureFault, clean_svg
from upper_rim.core.exchange.imports.language_folders import MOST, language_folders
from upper_rim.core.style.own_css import css_faults, own_css
from upper_rim.core.style.paint.pictures import read_picture

OPENINGS = ("<", "</", "<!", "<!--", "<!--rim:a-->", "<!--/rim-->", "<noscript", "<noscript>", "</noscript", "<script>", "<script><!--", "<script><!--</script>",
    "<script><!--<script>", "</script", "<style>", "<title>", "<textarea", "<meta name=date ", "<time ", "<div>", "<b a=1>", "<p", "<x y", "<x y=", "<x y='", '<x y="', "<x/", "-->",
    "--", "=", "'", '"', ">", " ", "\t", "&lt;", "&", "\x00", "é", "<plaintext")  # fmt: skip
ENDINGS = ("", " ", "a", ">", "<p>")
FRAGMENTS = [opening + ending for opening, ending in itertools.product(OPENINGS, ENDINGS)]
"""Two hundred."""
SCANNERS = {
    "tokens": lambda text: list(tokens(text)),
    "depth": lambda text: nests_deeper(text, 5),
    "noscript": without_noscripts,
}


@pytest.mark.parametrize("name", SCANNERS)
def test_twice_the_text_is_at_most_twice_the_work_whatever_it_repeats(name: str) -> None:
    assert len(FRAGMENTS) == 200
    for fragment in FRAGMENTS:
        once, twice = (Cursor(fragment * number) for number in (1500, 3000))
        SCANNERS[name](once)
        SCANNERS[name](twice)
        assert twice.looked_at <= 2.2 * once.looked_at + 200, fragment
        assert twice.looked_at <= 20 * len(twice.text) + 200, fragment


def test_marks_of_a_former_publication_are_taken_out_in_one_go() -> None:
    for fragment in FRAGMENTS:
        once, twice = (Cursor((fragment * number).encode()) for number in (1500, 3000))
        without_marked(once, "utf-8")
        without_marked(twice, "utf-8")
        assert twice.looked_at <= 2.2 * once.looked_at + 200, fragment
    whole = b"a<!--rim:x-->b<!--/rim-->c<!--rim:y--><!--rim:z--><!--/rim-->d<!--rim:w-->"
    assert without_marked(Cursor(whole), "utf-8") == b"acd<!--rim:w-->"


@pytest.mark.parametrize(
    "levels", ["<div>", "<b>", "<div></x></x>", "<div><table><td></div>", "<svg></div><g>", "<ul><li>"]
)
def test_a_page_whose_elements_lie_too_deep_is_carried_as_it_is_and_says_why(levels: str) -> None:
    told = anatomy(f"<!DOCTYPE html><title>T</title><body>{levels * 4000}".encode())
    assert told.splice is None and f"more than {DEEPEST:,} deep" in told.remark


def test_many_elements_beside_each_other_are_not_taken_for_deep_ones() -> None:
    beside = "<p>a<li>b<td>c<br><img><a name=x><span>d</span><x-y></x-y></div>"
    told = anatomy(f"<!DOCTYPE html><title>T</title><body><main>{beside * 3000}</main>".encode())
    assert told.splice is not None


def test_what_an_archive_should_not_hold_is_left_out_with_its_reason_and_the_rest_comes_in() -> None:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("index.html", "<!DOCTYPE html><title>Home</title><p>Quay.")
        archive.writestr("島" * 300 + ".html", "<p>long")
        archive.writestr("broken.html", "<p>" + "broken" * 500)
    data = bytearray(out.getvalue())
    at = data.index(b"broken.html") + len("broken.html")
    data[at : at + 12] = b"\xff" * 12
    problems: list[Problem] = []
    ids = itertools.count()
    entries = files_of_zip(io.BytesIO(bytes(data)), problems)
    came = list(read_files(entries, lambda prefix: f"{prefix}-{next(ids)}", "en", (), problems))
    assert [one.value.path for one in came] == ["/"]
    assert {problem.name[:6] for problem in problems} == {"島" * 6, "broken"}
    assert site_path("a/" + "島" * 300) is None


def test_addresses_of_a_sitemap_that_can_be_no_path_are_told_one_by_one() -> None:
    listed = ["https://a.example/good", "https://a.example/a\\b", "https://a.example/" + "x" * 2000, "https://[bad/"]
    sitemap = "<urlset>" + "".join(f"<url><loc>{one}</loc></url>" for one in listed) + "</urlset>"
    paths, problems = read_sitemap(sitemap.encode())
    assert paths == ["/good/"] and len(problems) == 3


def test_a_feed_of_signs_gives_its_posts() -> None:
    rss = '<?xml version="1.0"?><rss version="2.0"><channel><title>t</title><item><link>https://a.example/</link><title>{}</title></item></channel></rss>'
    for signs in ("&lt;", "&lt;a ", "&lt;!--", "&amp;", "&#60;"):
        posts = read_feed(rss.format(signs * 16_000).encode())
        assert not isinstance(posts, FeedFault) and len(posts) == 1, signs


SVG = '<svg xmlns="http://www.w3.org/2000/svg" {}>{}</svg>'
TILE = '<pattern id="p" patternUnits="userSpaceOnUse" {}width="{}" height="{}"><rect width="9" height="9"/></pattern><rect width="100" height="100" fill="url(#p)"/>'


def test_a_drawing_is_drawn_no_larger_than_it_is_looked_at_whatever_it_says() -> None:
    huge = SVG.format('width="150000" height="150000"', '<rect width="150000" height="150000" fill="#f00"/>')
    seen = read_picture(huge.encode())
    assert seen is not None and (seen.width, seen.height) == (150_000, 150_000) and seen.at([0.5], [0.5])[0].red == 1
    for drawing in (
        SVG.format('viewBox="0 0 150000 150000"', "<rect/>"),
        SVG.format('width="100" height="100"', TILE.format("", 150_000, 150_000)),
        SVG.format('width="100" height="100"', TILE.format('patternTransform="scale(90000)" ', 15, 15)),
        SVG.format('width="1e40in" height="9"', "<rect/>"),
        SVG.format('width="-1" height="nan"', "<rect/>"),
    ):
        read_picture(drawing.encode())  # This process is still there.
    refused = clean_svg(huge.encode())
    assert isinstance(refused, PictureFault) and "150000 by 150000" in refused.reason


@pytest.mark.parametrize(
    "address", ["http://[", "//[x]:y/", "http://a:b", "\\\\[", "\ud800".encode("utf-8", "replace").decode()]
)
def test_addresses_that_can_be_none_stop_no_page_from_coming_in(address: str) -> None:
    css = f'@import "{address}"; html{{background:red}} body{{background:url({address}) 0 0;padding:3px}}'
    page = (
        f'<!doctype html><base href="{address}"><link rel="stylesheet" href="{address}"><style>{css}</style>'
        f'<img src="{address}"><p>Quay.'
    )
    entries = [ArchiveEntry("index.html", page.encode), ArchiveEntry("a.css", css.encode)]
    came = list(read_files(entries, "{}-x".format, "en", (), []))
    assert [one.value.path for one in came] == ["/", "/a.css"] and came[0].shape is not None


@pytest.mark.parametrize(
    "page",
    [
        "<!---->" * 280 + "<p>x",
        "<!--" * 480 + "<p>x",
        "<?" * 900 + "<!doctype html><p>x",
        "<!doctype html public '" + "-" * 1900,
        "<!doctype html><style>body{width:" + "0" * 400_000 + "}</style><p>x",
        "<!doctype html><style>.a{height:1vh " + "1" * 400_000 + "}</style><p>x",
        "<!doctype html><style>body{background:url(//x.example/a) "
        + "7" * 6000
        + "px}</style><p style='top:"
        + "7" * 6000,
        "<!doctype html><style>" + "[a" * 100_000 + "]" * 100_000 + "{top:0}</style><p>x",
    ],
    ids=range(8),
)
def test_what_is_asked_of_a_pages_styles_takes_no_longer_than_reading_it(page: str) -> None:
    """Each of these took longer than anybody waits, where an expression goes back over what it has seen."""
    came = list(read_files([ArchiveEntry("index.html", page.encode)], "{}-x".format, "en", (), []))
    assert [one.value.path for one in came] == ["/"]


def test_many_folders_that_could_be_languages_are_no_work() -> None:
    found = language_folders(f"/de-{at:05}/{at % 7}.html" for at in range(60_000))
    assert len(found) <= MOST


def test_css_with_numbers_of_thousands_of_digits_is_read_as_any() -> None:
    assert css_faults(f"a{{width:{'7' * 6000}px}}") == [] and own_css(f"a{{width:{'7' * 6000}px}}")
