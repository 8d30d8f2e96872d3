"""What pieces do while a page is scrolled: played, found fault with, and kept from flickering."""

from __future__ import annotations

import json
import subprocess
import sys
from itertools import pairwise
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.moving_sites import MovingMaker
from upper_rim.core.exchange.carrying import carried
from upper_rim.core.findings.checks.laid_out.movement import in_movement, in_movement_of_all
from upper_rim.core.fit.css.amount import Viewport
from upper_rim.core.fit.css.linear import value
from upper_rim.core.fit.rows.fitter import VIEWPORT_HEIGHT_PX
from upper_rim.core.kinds.moving import ByElement, ByPage, ByPixels, ByViewport, Distance, Stage, WayIn
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.pieces.notice import Notice
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Add, Remove, Set
from upper_rim.core.model.editing.refusal import Refusal
from upper_rim.core.model.site import Site
from upper_rim.core.model.stages import in_stage
from upper_rim.core.movement.bends import bends
from upper_rim.core.movement.content import estimated_content_px
from upper_rim.core.movement.flicker import TURNS, flicker, least, too_early, turns
from upper_rim.core.movement.heights import heights
from upper_rim.core.movement.moments import moments_that_matter
from upper_rim.core.movement.over_widths import HEIGHTS_PX, reserved, widths_of
from upper_rim.core.movement.play import path, play
from upper_rim.core.movement.scene import Scene, Scenes, Shape
from upper_rim.core.output.css.width_rules import length_css
from upper_rim.core.output.fitting import fitter_of
from upper_rim.core.output.page.compose import Composer
from upper_rim.demo import ostrey, quillwort
from upper_rim.demo.making import declared
from upper_rim.shipped import shelf

SITE, CONTENTS = ostrey()
FITTER = fitter_of(shelf(), CONTENTS.__getitem__, 2026, foresees=False)
PAGE = next(page for page in SITE.pages if page.path == "/guide/walks/")
PHONE, DESK = (390, 844), (1280, 800)
HEADER = SITE.pieces[0]
assert isinstance(HEADER, Header)


def with_header(**fields: object) -> Site:
    return SITE.replaced(pieces=(HEADER.replaced(**fields), *SITE.pieces[1:]))


def scene_of(site: Site, viewport: tuple[int, int], content_px: float = 2500.0, **elements: float) -> Scene:
    places = {f"#{name}": px for name, px in elements.items()}
    return Scenes(FITTER, site).of(PAGE, viewport, Shape(content_px, places))


def stage_at(laid: Scene, *scrolls: float) -> list[str | None]:
    played = play(laid, scrolls)
    return [next(seen.stage for seen in played.moment(at) if seen.piece == "pc-main") for at in range(len(scrolls))]


def test_the_demos_header_slims_then_hands_over_and_comes_back_on_phones_only_upwards() -> None:
    desk = scene_of(SITE, DESK)
    header = desk.body("pc-main")
    assert header is not None and header.place == "pinned"
    begins = header.top_px + 80
    assert stage_at(desk, 0, begins, begins + 1, header.top_px + 501, begins) == [
        None,
        None,
        "sg-slim",
        "sg-reading",
        None,
    ]
    assert [round(standing.height_px) for standing in header.standings] == [129, 52, 52]

    phone = scene_of(SITE, PHONE)
    played = play(phone, path([0, 1200, 600]))
    told = [(event.what, event.why, event.scroll_px) for event in played.events() if event.piece == "pc-main"]
    above = phone.body("pc-main")
    assert above is not None
    past = -(-above.past_px // 1)
    assert told == [("goes", "down", past), ("comes", "up", 1176.0)]
    book = [(event.what, event.why) for event in play(phone, path([0, 9000])).events() if event.piece == "pc-book"]
    assert book == [("goes", "footer")]
    assert play(phone, [0.0, 50.0]).moment(1)[0].top_px == -50.0, "the notice bar goes with the page"


def test_a_header_moves_up_into_the_place_of_a_notice_that_goes_or_stands_below_one_that_stays() -> None:
    tops = {}
    for way in ("away", "stays"):
        notice = next(piece for piece in SITE.pieces if isinstance(piece, Notice)).replaced(moves=way)
        pieces = tuple(notice if isinstance(piece, Notice) else piece for piece in SITE.pieces)
        laid = scene_of(SITE.replaced(pieces=pieces), DESK)
        moment = play(laid, [0.0, 400.0]).moment(1)
        tops[way] = next(seen.top_px for seen in moment if seen.piece == "pc-main")
    assert tops == {"away": 0.0, "stays": 36.25}


def test_a_sidebar_stays_in_its_column_below_the_stack_and_is_no_longer_than_the_window() -> None:
    laid = scene_of(SITE, DESK)
    side = laid.body("pc-guide")
    assert side is not None and side.place == "beside" and side.pin_px == 52 + 16
    tops = [
        seen.top_px for at in range(3) for seen in play(laid, [0, 700, 9000]).moment(at) if seen.piece == "pc-guide"
    ]
    assert tops[0] == side.top_px and tops[1] == side.pin_px and tops[2] < side.pin_px, (
        "the column's end takes it along"
    )
    low = scene_of(SITE, (1280, 400)).body("pc-guide")
    assert low is not None and low.standings[0].height_px == 400 - 52 - 16


def test_distances_count_px_shares_of_the_window_or_the_page_and_elements() -> None:
    def begins(after: Distance) -> float:
        made = with_header(stages=(Stage(id="sg-a", after=after),), rows=HEADER.rows[:2])
        laid = scene_of(made, DESK, mark=1234.0)
        header = laid.body("pc-main")
        assert header is not None
        return header.after_px[0]

    laid = scene_of(SITE, DESK)
    assert begins(ByPixels(px=300)) == 336.25
    assert begins(ByViewport(percent=50)) == 36.25 + 400
    assert begins(ByPage(percent=25)) == pytest.approx(laid.scrolls_px / 4)
    assert begins(ByElement(selector="#mark")) == pytest.approx(1234, abs=0.01)
    assert begins(ByElement(selector="#nowhere")) > 1e9


@settings(max_examples=60, deadline=None)
@given(
    scrolls=st.lists(st.integers(0, 3000), min_size=2, max_size=40),
    up_px=st.integers(4, 200),
    after=st.lists(st.integers(0, 2500), max_size=3),
)
def test_a_moment_depends_on_the_way_only_where_something_shows_upwards(
    scrolls: list[int], up_px: int, after: list[int]
) -> None:
    stages = tuple(Stage(id=f"sg-{at}", after=ByPixels(px=px), height_px=60) for at, px in enumerate(after))
    made = with_header(stages=stages, rows=HEADER.rows[:2], up_px=up_px)
    desk = play(scene_of(made, DESK), [float(y) for y in scrolls])
    alone = [play(desk.scene, [y]).moment(0) for y in desk.scrolls]
    assert [desk.moment(at) for at in range(len(scrolls))] == alone
    shares = desk.covered()
    assert all(0 <= share <= 1 for share in shares)

    up = made.replaced(pieces=(made.pieces[0].replaced(moves="up", moves_in=()), *made.pieces[1:]))
    played = play(scene_of(up, DESK), [float(y) for y in scrolls])
    track = next(track for track in played.tracks if track.body.piece == "pc-main")
    lowest = highest = played.scrolls[0]
    for y, shown in zip(played.scrolls, track.shown, strict=True):
        lowest, highest = min(lowest, y), max(highest, y)
        if y <= track.body.past_px or highest - lowest < up_px:
            assert shown, "nothing goes before one has scrolled so far"


@settings(max_examples=200, deadline=None)
@given(after=st.integers(0, 800), less=st.integers(1, 300), y=st.integers(0, 1200))
def test_giving_room_up_flickers_just_beyond_a_distance_and_keeping_it_never(after: int, less: int, y: int) -> None:
    released = turns(after, less, y, keeps_room=False) == TURNS
    assert released == (after < y <= after + less)
    assert turns(after, less, y, keeps_room=True) <= 1
    found = flicker(after, less, keeps_room=False)
    assert found is not None and (found.from_px, found.to_px) == (after + 1, after + less)
    assert flicker(after, less, keeps_room=True) is None


def test_the_least_distance_is_the_room_that_is_given_up_and_less_is_told() -> None:
    stage = HEADER.stages[0]
    found = least(FITTER, SITE, HEADER, stage)
    assert found is not None and found.px == 77
    assert list(too_early(FITTER, SITE, SITE.pieces)) == []
    early = with_header(stages=(stage.replaced(after=ByPixels(px=20)), HEADER.stages[1]))
    (one,) = too_early(FITTER, early, early.pieces)
    assert (one.stage, one.gap_px, one.would) == ("sg-slim", 57, (21, 97))
    gap = next(one for one in in_movement(Scenes(FITTER, early), PAGE, DESK, Shape(2500)) if one.kind == "gap")
    assert round(gap.amount) == 57 and gap.remedy is not None
    mended = apply(early, gap.remedy)
    assert isinstance(mended, Site) and list(too_early(FITTER, mended, mended.pieces)) == []
    assert least(FITTER, early, HEADER.replaced(over=True), stage) is None, "it took no room"


def test_a_stage_is_never_lower_than_its_tallest_item_which_is_named() -> None:
    def row(height_px: int | None = None, padding_px: int | None = None) -> tuple[float, str]:
        stage = Stage(id="sg-a", without=("rw-above",), height_px=height_px, padding_px=padding_px)
        made = with_header(stages=(stage,), rows=HEADER.rows[:2])
        found = heights(FITTER, made, made.pieces[0], "en", Viewport(1280.0, 800.0))
        assert found is not None
        slim = next(row for row in found.standings[1].rows if row.row == "rw-main")
        return slim.drawn_px, slim.limit.node if slim.limit else ""

    assert row(height_px=40, padding_px=12) == (68, "it-menu"), "44 px, and 12 above and below"
    assert row(height_px=60, padding_px=4) == (60, "")
    assert row(padding_px=4) == (52, "")
    assert row(height_px=300) == (73, ""), "nor higher than at rest"


@pytest.mark.parametrize(("lines", "seen"), [({}, 0), ({"block-end": 3}, 3), ({"block-start": 2, "block-end": 5}, 7)])
def test_what_is_painted_behind_a_header_is_as_high_as_its_own_lines_where_no_row_is_left(
    lines: dict[str, int], seen: int
) -> None:
    drawn = {f"border-{side}-style": "solid" for side in lines}
    styles = declared("sg-a", drawn | {f"border-{side}-width": f"{px}px" for side, px in lines.items()})
    stage = Stage(id="sg-a", without=("rw-above", "rw-main"), styles=styles)
    made = with_header(stages=(stage,), rows=HEADER.rows[:2], styles=())
    found = heights(FITTER, made, made.pieces[0], "en", Viewport(1280.0, 800.0))
    assert found is not None and found.standings[1].height_px == seen


def test_findings_tell_what_is_covered_reached_jumped_over_or_lies_over_another() -> None:
    def kinds(site: Site, viewport: tuple[int, int], content_px: float = 2500.0) -> set[str]:
        return {one.kind for one in in_movement(Scenes(FITTER, site), PAGE, viewport, Shape(content_px))}

    assert kinds(SITE, DESK) == set()
    assert "covered" in kinds(SITE, (844, 390))
    assert "never" in kinds(SITE, DESK, 500.0)
    close = with_header(stages=(HEADER.stages[0], HEADER.stages[1].replaced(after=ByPixels(px=120))))
    assert "brief" in kinds(close, DESK)
    pieces = tuple(
        piece.replaced(place="top-end", hidden_in=(), yields=False) if piece.id == "pc-book" else piece
        for piece in SITE.pieces
    )
    assert "overlap" in kinds(SITE.replaced(pieces=pieces), DESK)
    assert "hidden focus" in kinds(with_header(stages=(), rows=HEADER.rows[:2], moves_in=()), (1280, 160))


def test_a_report_names_each_finding_once_where_it_is_greatest() -> None:
    found = in_movement_of_all(Scenes(FITTER, SITE), lambda page, viewport: Shape(2000.0))
    assert [(one.kind, one.node, one.place.viewport_px) for one in found] == [("covered", "pc-main", (844, 390))]
    marks = moments_that_matter(scene_of(SITE, PHONE))
    assert marks[0] == 0.0 and max(marks) == scene_of(SITE, PHONE).scrolls_px and marks[-1] == 0.0


def test_stages_are_checked_where_all_edits_are() -> None:
    assert isinstance(apply(SITE, Set(node="rw-above", field="stage", value="sg-none")), Refusal)
    assert isinstance(apply(SITE, Remove(nodes=("sg-reading",))), Refusal), "its rows would be left"
    sized = {"id": "st-x", "property": "padding-block-start", "value": "3px"}
    refused = apply(SITE, Add(parent="sg-slim", slot="styles", values=(sized,)))
    assert isinstance(refused, Refusal) and refused.kind == "stage changes size"
    gone = apply(SITE, Set(node="pc-main", field="moves_in", value=[{"band": "bd-none", "way": "up"}]))
    assert isinstance(gone, Refusal)
    ground = {"id": "st-x", "property": "background-color", "value": "@sw-tide"}
    assert isinstance(apply(SITE, Add(parent="sg-slim", slot="styles", values=(ground,))), Site)


def test_a_stages_styles_count_over_the_pieces_own() -> None:
    own = declared("own", {"background-color": "@sw-paper", "color": "@sw-deep"})
    dressed = HEADER.replaced(styles=own)
    said = {style.property: style.value for style in in_stage(dressed, "sg-reading").styles}
    assert said == {"background-color": "@sw-deep", "color": "@sw-paper"}
    assert in_stage(dressed, None) is dressed


def test_a_page_carries_what_the_script_watches_and_both_arrangements() -> None:
    composer = Composer(FITTER.resolved(SITE), shelf(), CONTENTS.__getitem__, year=2026, fitter=FITTER)
    html = composer.page(PAGE, CONTENTS[PAGE.content or ""]).decode()
    assert 'data-rim-stages="80\n500"' in html and 'data-rim-up="24"' in html and "data-rim-mark" in html
    assert html.count('aria-hidden="true"') >= 2 and "q7xk-over" in html
    css = b"".join(data for path, data in composer.loaded() if path.endswith(".css")).decode()
    assert "scroll-padding-block-start" in css and "position:sticky" in css
    still = with_header(moves="away", moves_in=(WayIn(band="bd-narrow", way="away"),))
    plain = Composer(still, shelf(), CONTENTS.__getitem__, year=2026, fitter=FITTER)
    assert "data-rim-stages" not in plain.page(PAGE, CONTENTS[PAGE.content or ""]).decode()


def test_a_contents_height_is_estimated_from_its_markup() -> None:
    line = "<p>" + "word " * 40 + "</p>"
    one, two = (estimated_content_px(line * times, 1200.0) for times in (1, 2))
    assert two == pytest.approx(2 * one) and estimated_content_px(line, 320.0) > one
    assert estimated_content_px("<script>" + "x" * 900 + "</script>", 900.0) == 0.0
    assert estimated_content_px('<img width="600" height="300" alt="">', 1200.0) == pytest.approx(316)


def test_the_command_line_tells_moments_events_and_findings(tmp_path: Path) -> None:
    def run(*arguments: str) -> subprocess.CompletedProcess[str]:
        return subprocess.run(
            [sys.executable, "-m", "upper_rim.cli", *arguments], capture_output=True, text=True, check=False
        )

    bundle = str(tmp_path / "ostrey.zip")
    assert run("demo", bundle).returncode == 0
    asked = ("movement", bundle, "--page", "/guide/walks/", "--viewport", "390x844", "--scroll", "0,1200,600")
    told = run(*asked, "--content", "2500", "--json")
    found = json.loads(told.stdout)
    assert told.returncode == 0 and not found["estimate"] and found["content_px"] == 2500
    assert [moment["scroll_px"] for moment in found["moments"]] == [0, 1200, 600]
    assert {(event["piece"], event["what"], event["why"]) for event in found["events"]} >= {
        ("pc-main", "goes", "down"),
        ("pc-main", "comes", "up"),
    }
    plain = run(*asked)
    assert "Main header goes: down" in plain.stdout and "an estimate" in plain.stdout
    wide = run(*asked[:4], "--viewport", "844x390", "--scroll", "0")
    assert wide.returncode == 1 and "33 % of the window is covered" in wide.stderr
    for wrong in (("--viewport", "wide"), ("--scroll", "down"), ("--page", "/nowhere/")):
        refused = run(*asked, *wrong)
        assert refused.returncode == 3 and "upper-rim: " in refused.stderr and not refused.stdout


def test_stages_are_carried_to_another_site_with_their_rows() -> None:
    target, _ = quillwort()
    numbers = iter(range(10_000))
    edit = carried(SITE, target, ["pc-main"], {}, lambda prefix: f"{prefix}-c{next(numbers)}")
    after = apply(target, edit)
    assert isinstance(after, Site)
    header = next(piece for piece in after.pieces if piece.name == "Main header")
    assert isinstance(header, Header)
    slim, reading = header.stages
    assert slim.id != "sg-slim" and slim.without == (header.rows[0].id,)
    assert [row.stage for row in header.rows] == [None, None, reading.id]


@pytest.mark.parametrize("seed", [3, 11, 70])
def test_the_height_that_is_reserved_is_that_of_the_piece_at_that_width(seed: int) -> None:
    """Also where a piece is as high as it says itself, whatever its rows come to."""
    site, contents = MovingMaker(seed).site()
    made = fitter_of(shelf(), contents.__getitem__, 2026, foresees=False)
    site = made.resolved(site)
    for piece in site.pieces:
        widths = widths_of(made, site, piece, site.language)
        for start, end in widths.stretches(piece.rows):
            for px in (start, end):
                whole = made.whole(site, piece, site.language, Viewport(float(px), VIEWPORT_HEIGHT_PX))
                if whole is not None:
                    assert widths.rest(px) == pytest.approx(value(whole.frame.height), abs=0.05), (
                        piece.id,
                        px,
                    )


def test_what_is_reserved_follows_the_viewports_height_as_the_piece_does() -> None:
    rows = tuple(row.replaced(styles=declared("row", {"padding-block-start": "3vh"})) for row in HEADER.rows[:1])
    site = with_header(
        stages=(Stage(id="sg-a", after=ByPixels(px=80), padding_px=None),),
        rows=rows,
        styles=declared("head", {"min-block-size": "clamp(96px, 20vh, 160px)"}),
    )
    header = next(piece for piece in site.pieces if piece.id == "pc-main")
    found = reserved(widths_of(FITTER, site, header, "en"), lambda band: True)
    assert found
    for span in found:
        for high in (300.0, 480.0, 600.0, 799.0, 1000.0, 1500.0):
            seen = FITTER.whole(site, header, "en", Viewport(float(span.from_px), high))
            assert seen is not None
            by_height = pairwise(span.lines[0].by_height)
            (low, before), (top, after) = next(two for two in by_height if two[0][0] <= high <= two[1][0])
            between = before + (after - before) * (high - low) / (top - low)
            assert between == pytest.approx(value(seen.frame.height), abs=0.1), (span.from_px, high)
    told = {length_css(span.lines[0], span.from_px, span.to_px) for span in found}
    assert told == {"calc(0px + 0.2*clamp(480px,100vh,800px))"}


@given(st.lists(st.tuples(st.floats(-0.5, 0.5), st.floats(0, 300), st.floats(0, 200)), min_size=1, max_size=3))
def test_between_two_bends_every_number_moves_along_a_line(clamps: list[tuple[float, float, float]]) -> None:
    def numbers(high: float) -> list[float]:
        return [min(max(high * rise, least), least + more) for rise, least, more in clamps]

    low, high = HEIGHTS_PX
    knots = [low, *bends(numbers, low, high), high]
    assert knots == sorted(knots)
    for before, after in pairwise(knots):
        for share in (0.1, 0.5, 0.8):
            wanted = [a + (b - a) * share for a, b in zip(numbers(before), numbers(after), strict=True)]
            assert numbers(before + (after - before) * share) == pytest.approx(wanted, abs=1.0), (before, after)


def test_a_header_over_the_page_takes_no_room_whatever_its_margins_and_is_scrolled_to_where_the_page_is_short() -> None:
    alone = frozenset(piece.id for piece in SITE.pieces if piece.id != "pc-main")
    for margin in ("-20px", "30px"):
        site = with_header(
            over=True,
            moves="away",
            moves_in=(),
            stages=(),
            rows=HEADER.rows[:2],
            styles=declared("head", {"margin-block-end": margin}),
        )
        laid = Scenes(FITTER, site).of(PAGE, (1280, 100), Shape(40.0), alone)
        header = laid.body("pc-main")
        assert header is not None and laid.content_top_px == 0.0
        assert laid.page_px == header.standings[0].height_px > 100


def test_what_a_row_cannot_hold_is_scrolled_to() -> None:
    footer = next(piece for piece in SITE.pieces if piece.id == "pc-footer")
    low = footer.replaced(styles=declared("foot", {"block-size": "40px"}))
    site = SITE.replaced(pieces=(low,))
    laid, at_rest = (Scenes(FITTER, one).of(PAGE, DESK, Shape(2000.0)) for one in (site, SITE))
    before = at_rest.body("pc-footer")
    assert before is not None and laid.page_px == pytest.approx(2000.0 + before.flow_px, abs=80.0)
    assert laid.page_px > 2200.0
