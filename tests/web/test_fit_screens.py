"""Fit as screens: what is told of a failure, remedies that are tried on, and addresses that nobody could mean."""

from __future__ import annotations

import html
import re
from itertools import pairwise
from xml.etree import ElementTree

import pytest
from django.contrib.auth.models import User
from django.http import QueryDict
from django.test import Client

from upper_rim.core.fit.rows.sweep import FROM_PX, TO_PX, RowFit
from upper_rim.core.kinds import markup
from upper_rim.core.model.site import Site
from upper_rim.core.output.fitting import fitter_of
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf
from upper_rim.web.sites import fitters, store
from upper_rim.web.sites.fitters import site_fitter
from upper_rim.web.sites.models import StoredSite, Trial
from upper_rim.web.studio.fit.picture import row_picture
from upper_rim.web.studio.forms.numbers import USUAL_PX, stage_width, whole_number
from upper_rim.web.studio.preview.fitting import SpanInWords, clusters, grouped, marks_of, snap_widths, spans_of

from .conftest import signed_in

BENCH = "/s/ostrey/pieces/pc-main/"
MENDING = BENCH + "mending/"
STUDY = BENCH + "fit/"


@pytest.fixture(autouse=True)
def no_fitters_kept() -> None:
    fitters.forget_all()


def offered(client: Client, **asked: str) -> dict[str, str]:
    """What is offered to be tried on: the key that is posted, and the words."""
    said = client.get(MENDING, asked).content.decode()
    items = re.findall(r'<li class="offer">.*?</li>', said, re.S)
    found = {}
    for item in items:
        key = re.search(r'name="trial" value="([^"]*)"', item)
        words = re.search(r'title="([^"]*)"', item)
        if key and words:
            found[html.unescape(key.group(1))] = html.unescape(words.group(1))
    return found


def main_fits(stored: StoredSite) -> tuple[Site, list[RowFit]]:
    site = store.load(stored.pk).site
    return site, site_fitter(stored.pk).rows(site, site.pieces[0])


def the_failure(stored: StoredSite) -> SpanInWords:
    site, fits = main_fits(stored)
    (span,) = [span for span in spans_of(site, site.pieces[0], fits) if span.fails]
    return span


def test_a_failure_is_told_in_words_and_named_by_a_key(ferries: StoredSite) -> None:
    span = the_failure(ferries)
    assert span.key == f"rw-top:de:{span.stretch.from_px}" or span.key.split(":")[1:] == [
        "de",
        str(span.stretch.from_px),
    ]
    assert span.said.startswith("German: ") and span.said.endswith(
        f"wraps from {span.stretch.from_px} to {span.stretch.to_px} px"
    )
    site, fits = main_fits(ferries)
    assert marks_of(fits)["it-menu"].words == "wraps" and span.row in marks_of(fits)
    assert span.stretch.to_px + 1 in snap_widths(fits)
    assert [[one.key for one in group.spans] for group in grouped(site, site.pieces[0], [span])] == [[span.key]]


def test_the_tray_lists_the_failure_and_the_ruler_shows_it(ferries: StoredSite, ada: User) -> None:
    span = the_failure(ferries)
    said = signed_in(ada).get(BENCH, {"tray": "fit", "page": "/de/"}).content.decode()
    (drawn,) = re.findall(r'<button[^>]*data-test="fit-span"[^>]*>', said)
    assert f'data-from="{span.stretch.from_px}"' in drawn and f'data-to="{span.stretch.to_px}"' in drawn
    assert span.said in html.unescape(drawn)
    assert "1 place where it does not fit" in said and 'data-test="failures"' in said


def test_a_remedy_that_is_tried_on_is_seen_and_taken_off_without_a_trace(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    before = store.load(ferries.pk)
    key, words = next(iter(offered(client).items()))
    answer = client.post(BENCH, {"trial": key, "tray": "fit", "page": "/de/"})
    assert answer.status_code == 303 and "tray=fit" in answer["Location"]
    worn = client.get(answer["Location"]).content.decode()
    assert words in html.unescape(worn) and 'data-test="fit-span"' not in worn
    assert store.load(ferries.pk) == before, "nothing is kept yet"
    client.post(BENCH, {"trial": "off", "tray": "fit"})
    assert not Trial.objects.exists()
    assert 'data-test="fit-span"' in client.get(BENCH).content.decode()


def test_a_remedy_that_is_kept_is_one_edit_and_can_be_undone(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    before = store.load(ferries.pk)
    client.post(BENCH, {"trial": next(iter(offered(client)))})
    client.post(BENCH, {"trial": "keep"})
    kept = store.load(ferries.pk)
    assert kept.revision == before.revision + 1 and not Trial.objects.exists()
    site, fits = main_fits(ferries)
    assert not [span for span in spans_of(site, site.pieces[0], fits) if span.fails]
    assert offered(client) == {}, "there is nothing left to mend"
    client.post(BENCH, {"do": "undo", "base": str(kept.revision)})
    assert store.load(ferries.pk).site == before.site


def test_a_remedy_that_is_offered_no_more_changes_nothing(
    ferries: StoredSite, ada: User, subtests: pytest.Subtests
) -> None:
    client, before = signed_in(ada), store.load(ferries.pk)
    for key in ("band|bd-gone|1022", "gap|it-menu|-999", "nonsense", "||", "look:lk-a:it-menu"):
        with subtests.test(key=key):
            said = client.post(BENCH, {"trial": key}).content.decode()
            assert "the piece has changed meanwhile" in said
            assert store.load(ferries.pk) == before and not Trial.objects.exists()


def test_a_remedy_that_was_mended_otherwise_meanwhile_is_refused(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    key = next(iter(offered(client)))
    client.post(BENCH, {"trial": key})
    client.post(BENCH, {"trial": "keep"})
    assert "the piece has changed meanwhile" in client.post(BENCH, {"trial": key}).content.decode()


def test_nobody_sees_how_anothers_site_fits(ferries: StoredSite, ada: User, ben: User) -> None:
    other = signed_in(ben)
    key = next(iter(offered(signed_in(ada))))
    for address in (BENCH, MENDING, STUDY):
        assert other.get(address).status_code == 404
    assert other.post(BENCH, {"trial": key}).status_code == 404
    assert not Trial.objects.exists()
    assert Client(HTTP_HOST="localhost").get(MENDING).status_code == 302, "who is not signed in is asked to"


def test_a_piece_that_is_not_there_leads_back_to_the_pieces(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    for address in (BENCH, STUDY):
        answer = client.get(address.replace("pc-main", "pc-gone"))
        assert answer.status_code == 303 and answer["Location"].endswith("/s/ostrey/pieces/")
    assert client.get(MENDING.replace("pc-main", "pc-gone")).status_code == 404


def test_a_failure_that_is_not_there_gives_way_to_the_first(
    ferries: StoredSite, ada: User, subtests: pytest.Subtests
) -> None:
    client, span = signed_in(ada), the_failure(ferries)
    for named in ("", "rw-main", "rw-gone:de:980", "rw-main:xx:1", "::::", "<script>"):
        with subtests.test(named=named):
            said = client.get(MENDING, {"failure": named}).content.decode()
            assert f"{span.stretch.from_px} to {span.stretch.to_px} px" in said and "<script>" not in said


def test_widths_that_nobody_could_mean_are_answered_all_the_same(
    ferries: StoredSite, ada: User, subtests: pytest.Subtests
) -> None:
    client = signed_in(ada)
    for width in ("9" * 5000, "-3", "abc", "", "1e3", "٣٠٠", "²", "0", "99999"):
        with subtests.test(width=width[:9]):
            for address in (BENCH, STUDY):
                said = client.get(address, {"width": width})
                assert said.status_code == 200
                assert re.search(r'value="\d{3,4}"[^>]*data-stage-width', said.content.decode())
            posted = client.post(
                BENCH, {"do": "style", "node": "it-book", "property": "color", "value": "Tide", "width": width}
            )
            assert posted.status_code == 200


def test_what_a_width_is_taken_for() -> None:
    def of(*asked: str) -> int:
        return stage_width(*(QueryDict(one) for one in asked))

    assert of() == of("", "") == of("width=abc") == USUAL_PX
    assert of("width=700", "width=900") == 700 and of("width=", "width=900") == 900
    assert (of("width=1"), of("width=9000")) == (FROM_PX, TO_PX)
    assert whole_number("12") == 12 and whole_number("-1") is whole_number("9" * 5000) is whole_number("½") is None


def test_a_piece_without_rows_says_what_to_do(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    piece = next(piece for piece in store.load(ferries.pk).site.pieces if piece.name == "Winter timetable")
    bench = f"/s/ostrey/pieces/{piece.id}/"
    for row in piece.rows:
        client.post(bench, {"do": "remove", "node": row.id})
    assert "This piece has no rows yet." in client.get(bench + "fit/").content.decode()
    assert "No single change of ours" in client.get(bench + "mending/").content.decode()
    assert 'data-test="fits"' in client.get(bench).content.decode()


def test_languages_whose_failures_lie_over_each_other_are_named_together() -> None:
    def span(language: str, first: int, last: int) -> SpanInWords:
        made = the_spans[0]
        return made._replace(language=language, stretch=made.stretch._replace(from_px=first, to_px=last, state="wraps"))

    site, contents = ostrey()
    piece = site.pieces[0]
    fitter = fitter_of(shelf(), contents.__getitem__, 2026)
    the_spans = [one for one in spans_of(site, piece, fitter.rows(site, piece)) if one.fails]
    found = clusters([span("de", 900, 1000), span("cy", 700, 750), span("en", 980, 990), span("ar", 751, 760)])
    assert found == [("ar cy", 760), ("de en", 1000)]
    assert (
        clusters([]) == []
        and clusters([the_spans[0]._replace(stretch=the_spans[0].stretch._replace(state="tight"))]) == []
    )


def test_the_study_draws_every_language_within_its_picture(ferries: StoredSite, ada: User) -> None:
    site, fits = main_fits(ferries)
    for row in site.shown_rows(site.pieces[0]):
        own = [fit for fit in fits if fit.row == row.id]
        drawn = ElementTree.fromstring(markup.html([row_picture(own, site.bands)]))
        paths = drawn.findall(".//path")
        assert len(paths) == len(own) + 1, "one for each language, and the room"
        wide, high = (float(part) for part in drawn.get("viewBox", "").split()[2:])
        for path in paths:
            numbers = [float(number) for number in re.findall(r"-?[\d.]+", path.get("d", ""))]
            assert all(0 <= x <= wide for x in numbers[::2]) and all(0 <= y <= high for y in numbers[1::2])
            assert all(after >= before for before, after in pairwise(numbers[::2])), "from narrow to wide"
    said = signed_in(ada).get(STUDY).content.decode()
    assert said.count("data-study=") == len(site.shown_rows(site.pieces[0]))


def test_names_from_a_site_are_written_as_text(ferries: StoredSite) -> None:
    site = store.load(ferries.pk).site
    loud = site.replaced(bands=tuple(band.replaced(name="<b onload=x>&") for band in site.bands))
    piece = loud.pieces[0]
    drawn = markup.html([row_picture(site_fitter(ferries.pk).rows(loud, piece), loud.bands)])
    assert "<b " not in drawn and "&lt;b onload=x&gt;&amp;" in drawn
