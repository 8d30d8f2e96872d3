"""What fit says of rows, without a browser: that it is the same for every width, whatever the way it was found."""

from __future__ import annotations

import itertools
import json
import sys
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from functools import cache
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from tests.fitted_sites import FittedMaker
from tests.styled_sites import StyledMaker
from upper_rim.cli.__main__ import main
from upper_rim.core.exchange.bundle import write_bundle
from upper_rim.core.fit.advice.bars import BAR_PX, LEAST_PX, beside_bars
from upper_rim.core.fit.advice.columns import measures
from upper_rim.core.fit.advice.opened import SCREENS, all_opened
from upper_rim.core.fit.advice.remedies import MOST_LAID, Failure, Remedy, _count, failures, remedies
from upper_rim.core.fit.advice.targets import pressed_in, too_close
from upper_rim.core.fit.css.amount import Viewport
from upper_rim.core.fit.css.linear import Linear, LinearSpan, larger
from upper_rim.core.fit.rows.estimates import Estimates
from upper_rim.core.fit.rows.fitter import Fitter
from upper_rim.core.fit.rows.states import FAILING
from upper_rim.core.fit.rows.styles import LAID_OUT
from upper_rim.core.fit.rows.sweep import FROM_PX, TO_PX, RowFit, _Looked, frame_at
from upper_rim.core.fit.text.breaking import opportunities, transformed
from upper_rim.core.fit.text.paragraph import Measurer, Paragraph, Run
from upper_rim.core.fit.text.typesetting import Type
from upper_rim.core.kinds.entries import Entry
from upper_rim.core.kinds.items.button import ButtonItem
from upper_rim.core.kinds.items.icon import IconLink
from upper_rim.core.kinds.items.links import LinkList
from upper_rim.core.kinds.items.menu import MenuItem
from upper_rim.core.kinds.items.rich import RichText
from upper_rim.core.kinds.items.text import TextItem
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.footer import Footer
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.rows import Cell, Row, Track
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Add, Set, SetEach, edit_adapter
from upper_rim.core.model.site import Band, Menu, Page, Site
from upper_rim.core.output.fitting import fitter_of
from upper_rim.core.style.resolve import Resolved, StyledElement, Styling
from upper_rim.core.values.rich import MARKS, RichWords, clean
from upper_rim.core.values.styling import Declaration, State
from upper_rim.core.values.targets import ToAddress, ToPage
from upper_rim.core.values.words import Translation, Words
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

ANYWHERE = (ReachRule(id="rr-a"),)


def fitter(read: Callable[[str], bytes] | None = None, *, foresees: bool = False) -> Fitter:
    return fitter_of(shelf(), read, 2026, foresees=foresees)


def words(text: str, **others: str) -> Words:
    return Words(text=text, translations=tuple(Translation(language=tag, text=said) for tag, said in others.items()))


def menu_site(*labels: Words, languages: tuple[str, ...] = ("en", "de")) -> Site:
    """A header with a title, a menu that is a drawer below 700 px, and a button."""
    entries = tuple(
        Entry(id=f"en-{at}", label=label, target=ToAddress(address="/x/")) for at, label in enumerate(labels)
    )
    cells = (
        Cell(id="cl-a", track=Track(kind="content"), items=(TextItem(id="it-name", words=words("Ostrey")),)),
        Cell(id="cl-b", items=(MenuItem(id="it-menu", menu="mn-a", drawer_below="bd-wide"),)),
        Cell(id="cl-c", track=Track(kind="content"), items=(ButtonItem(id="it-go", words=words("Book")),)),
    )
    return Site(
        key="qcore",
        name="Ostrey Ferries",
        bands=(Band(id="bd-slim", name="Slim", from_px=0), Band(id="bd-wide", name="Wide", from_px=700)),
        menus=(Menu(id="mn-a", name="Main", entries=entries),),
        pieces=(Header(id="pc-a", name="Head", rows=(Row(id="rw-a", cells=cells),), reach=ANYWHERE),),
        pages=tuple(Page(id=f"pg-{tag}", path=f"/{tag}/", title="T", language=tag) for tag in sorted(languages)),
    )


LABELS = (
    words("Timetable", de="Fahrplan"),
    words("Harbours", de="Hafenverzeichnis"),
    words("Fares", de="Beförderungsentgelte"),
    words("Island guide", de="Inselführer"),
)


def only_row(site: Site, language: str, made: Fitter | None = None) -> RowFit:
    piece = site.pieces[0]
    return (made or fitter()).row(site, piece, piece.rows[0], language)


@given(st.integers(0, 400), st.integers(FROM_PX, TO_PX))
@settings(max_examples=36, deadline=None)
def test_a_sweep_says_of_each_width_what_a_layout_at_that_width_says(seed: int, width: int) -> None:
    site, contents = FittedMaker(seed).site()
    made = fitter(contents.__getitem__)
    for piece in site.pieces:
        for fit in made.rows(site, piece):
            laid = fit.at(width)
            if laid is None:
                continue
            frame = frame_at(laid, width, 800.0)
            assert laid.height_px(width) == pytest.approx(frame.height, abs=1.0), (fit.row, laid)


@given(st.integers(0, 400))
@settings(max_examples=20, deadline=None)
def test_stretches_cover_each_width_that_shows_once(seed: int) -> None:
    site, contents = FittedMaker(seed).site()
    made = fitter(contents.__getitem__)
    for piece in site.pieces:
        for fit in made.rows(site, piece):
            edges = [(stretch.from_px, stretch.to_px) for stretch in fit.stretches]
            assert edges[0][0] == FROM_PX and edges[-1][1] == TO_PX
            assert all(after[0] == before[1] + 1 for before, after in itertools.pairwise(edges))


def test_a_longer_label_fails_where_the_shorter_one_fits_and_the_menu_is_the_cause() -> None:
    site = menu_site(*LABELS)
    english, german = only_row(site, "en"), only_row(site, "de")
    assert english.fits_from_px == FROM_PX
    (failing,) = german.failing
    assert (failing.state, failing.cause, failing.band, failing.from_px) == ("wraps", "it-menu", "bd-wide", 700)
    assert german.fits_from_px == failing.to_px + 1
    there = german.at(failing.to_px)
    assert there is not None
    assert 0 < there.need_px(failing.to_px) - there.room_px(failing.to_px) <= 1, "it fails to the px"
    tight = german.stretches[german.stretches.index(failing) + 1]
    assert tight.state == "tight" and tight.to_px - tight.from_px == 15


def test_only_what_an_edit_reaches_is_worked_out_anew() -> None:
    site, made = menu_site(*LABELS), fitter()
    before = {language: only_row(site, language, made) for language in ("en", "de")}
    menu = site.menus[0]
    label = words("Harbours", de="Häfen")
    entries = tuple(entry.replaced(label=label) if entry.id == "en-1" else entry for entry in menu.entries)
    shorter = site.replaced(menus=(menu.replaced(entries=entries),))
    assert only_row(shorter, "en", made) is before["en"]
    assert only_row(shorter, "de", made) is not before["de"]
    assert only_row(shorter, "de", made).stretches == only_row(shorter, "de").stretches


def test_no_change_of_what_a_row_is_made_of_is_overlooked() -> None:
    site, made = menu_site(*LABELS), fitter()

    def need(site: Site) -> float:
        return only_row(site, "de", made).laid[-1].need_px(TO_PX)

    before = need(site)
    kind = {"kind": "fixed", "amount": 400}
    style = {"id": "st-a", "property": "font-size", "value": "30px"}
    for edit, more in (
        (Set(node="rw-a", field="gap_px", value=34), 20),
        (Set(node="cl-a", field="track", value=kind), 400 - 50),
        (Set(node="it-menu", field="gap_px", value=30), 18),
        (Set(node="pc-a", field="name", value="Other"), 0),
        (Add(parent="it-name", slot="styles", values=(style,)), 40),
    ):
        after = apply(site, edit)
        assert isinstance(after, Site)
        assert need(after) - before == pytest.approx(more, abs=14), edit
        assert need(after) == only_row(after, "de").laid[-1].need_px(TO_PX), (
            "as if it were looked at for the first time"
        )
        assert need(site) == before
    cell = site.pieces[0].rows[0].cells[0]
    two = cell.replaced(items=(*cell.items, ButtonItem(id="it-two", words=words("Two"))), gap_px=0)
    row = site.pieces[0].rows[0]

    def with_cell(one: Cell) -> Site:
        return site.replaced(pieces=(site.pieces[0].replaced(rows=(row.replaced(cells=(one, *row.cells[1:])),)),))

    assert need(with_cell(two.replaced(gap_px=50))) == pytest.approx(need(with_cell(two)) + 50)


def check_that_all_is_as_if_made_anew(
    maker: FittedMaker | StyledMaker, site: Site, contents: dict[str, bytes], edits: int
) -> None:
    made = fitter(contents.__getitem__)
    for _ in range(edits):
        site = maker.redressed(site)
        for piece in site.pieces:
            anew = fitter(contents.__getitem__).rows(site, piece)
            assert [fit.stretches for fit in made.rows(site, piece)] == [fit.stretches for fit in anew]


@pytest.mark.parametrize("seed", range(8))
def test_what_is_kept_over_edits_of_styles_is_what_would_be_made_anew(seed: int) -> None:
    maker = FittedMaker(seed)
    check_that_all_is_as_if_made_anew(maker, *maker.site(), edits=5)


@pytest.mark.parametrize("seed", range(4))
def test_so_it_is_where_what_is_painted_looks_and_defaults_change(seed: int) -> None:
    maker = StyledMaker(seed)
    check_that_all_is_as_if_made_anew(maker, maker.styled_site(2), {}, edits=8)


def test_boxes_are_made_from_the_properties_that_are_told_to_lay_out_and_no_others(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    asked: set[tuple[str, str]] = set()
    resolve = Styling.resolve

    def told(styling: Styling, element: StyledElement, name: str, state: State = "rest", band: Any = None) -> Resolved:
        asked.add((name, state))
        return resolve(styling, element, name, state, band)

    monkeypatch.setattr(Styling, "resolve", told)
    for seed in range(3):
        site = StyledMaker(seed).styled_site(2)
        for piece in site.pieces:
            fitter().rows(site, piece)
    assert asked == {(name, "rest") for name in LAID_OUT}


def test_a_colour_sweeps_no_row_again() -> None:
    site, made = menu_site(*LABELS), fitter()
    before = only_row(site, "de", made)
    style = {"id": "st-a", "property": "background-color", "value": "#204a46"}
    hover = {"id": "st-b", "property": "font-size", "value": "30px", "part": "content", "state": "hover"}
    painted = apply(site, Add(parent="it-menu", slot="styles", values=(style, hover)))
    assert isinstance(painted, Site)
    assert only_row(painted, "de", made) is before


def test_threads_that_share_a_fitter_are_told_what_each_would_be_alone() -> None:
    maker = FittedMaker(14)
    site, contents = maker.site()
    sites = [site, *(maker.redressed(site) for _ in range(3))]

    def told(made: Fitter, one: Site) -> list[object]:
        return [fit.stretches for piece in one.pieces for fit in made.rows(one, piece)]

    alone = [told(fitter(contents.__getitem__), one) for one in sites]
    shared, before = fitter(contents.__getitem__), sys.getswitchinterval()
    sys.setswitchinterval(1e-5)
    try:
        with ThreadPoolExecutor(4) as pool:
            together = list(pool.map(lambda at: told(shared, sites[at % 4]), range(40)))
    finally:
        sys.setswitchinterval(before)
    assert together == alone * 10


def test_a_missing_translation_is_foreseen_and_marked() -> None:
    site = menu_site(words("Timetable"), words("Harbours"), words("Island guide"), words("Fares and discounts"))
    plain, foreseen = only_row(site, "de"), only_row(site, "de", fitter(foresees=True))
    assert not plain.is_estimate and foreseen.is_estimate and "en-0" in foreseen.estimated
    assert not only_row(site, "en", fitter(foresees=True)).is_estimate
    assert foreseen.laid[-1].need_px(TO_PX) > plain.laid[-1].need_px(TO_PX) * 1.1
    assert Estimates().foreseen(words("Fares", de="Preise"), "de", "en") is None
    assert len(Estimates().foreseen(words("Fares and discounts"), "de", "en") or "") == round(19 * 1.35)


def test_a_character_that_no_face_draws_is_said() -> None:
    fit = only_row(menu_site(words("航路")), "en")
    assert fit.is_estimate and set(fit.missing) == {"航", "路"}


def mending(site: Site, language: str = "de") -> list[Remedy]:
    made, piece = fitter(), site.pieces[0]
    fit = only_row(site, language, made)
    count = itertools.count()
    return remedies(
        made, site, piece, piece.rows[0], Failure(language, fit.failing[0]), lambda prefix: f"{prefix}-n{next(count)}"
    )


def test_each_remedy_gains_what_it_says_when_it_is_carried_out() -> None:
    site = menu_site(*LABELS)
    (failing,) = only_row(site, "de").failing
    found = mending(site)
    assert found[0].kind == "band" and found[0].mends and found[0].value == str(failing.to_px + 1)
    assert {"gap", "size", "weight", "label", "icon", "hide"} <= {remedy.kind for remedy in found}
    before = only_row(site, "de").at(failing.from_px)
    assert before is not None
    for remedy in found:
        if remedy.edit is None:
            assert remedy.kind == "label" and remedy.node == "en-2", "the longest label is the one to be shortened"
            continue
        after = apply(site, remedy.edit)
        assert isinstance(after, Site)
        fit = only_row(after, "de")
        if remedy.mends:
            assert not any(one.from_px <= failing.to_px and one.to_px >= failing.from_px for one in fit.failing), remedy
        there = fit.at(failing.from_px)
        assert there is not None
        gained = before.need_px(failing.from_px) - there.need_px(failing.from_px)
        assert gained == pytest.approx(remedy.gain_px, abs=0.06), remedy
    order = [remedy.mends for remedy in found]
    assert order == sorted(order, reverse=True), "what mends comes first"


def test_text_flows_in_a_footer_until_a_word_reaches_out_of_its_column() -> None:
    text = RichText(
        id="it-text", rich=RichWords(text="<p>Three ships between five harbours, every day of the year.</p>")
    )
    cells = tuple(
        Cell(id=f"cl-{at}", items=(item,))
        for at, item in enumerate((text, TextItem(id="it-long", words=words("Donaudampfschifffahrtsgesellschaft")), TextItem(id="it-b", words=words("Quay"))))
    )  # fmt: skip
    piece = Footer(id="pc-a", name="Foot", rows=(Row(id="rw-a", cells=cells),), reach=ANYWHERE)
    fit = only_row(Site(key="qcore", name="O", pieces=(piece,)), "en")
    (failing,) = fit.failing
    assert (failing.state, failing.cause) == ("collides", "it-long") and failing.from_px == FROM_PX
    assert not any(stretch.state == "wraps" for stretch in fit.stretches)
    counted = measures(Site(key="qcore", name="O", pieces=(piece,)), fit)
    assert {one.node for one in counted} == set(), "a text of less than sixty characters is a label"


def test_a_link_list_leaves_out_an_entry_that_leads_nowhere_though_something_is_below_it() -> None:
    below = Entry(id="en-below", label=words("Piers"), target=ToAddress(address="/piers/"))
    gone = Entry(id="en-gone", label=words("Harbours"), target=ToPage(page="pg-gone"), entries=(below,))
    kept = Entry(id="en-kept", label=words("Fares"), target=ToAddress(address="/fares/"))
    listed = LinkList(id="it-links", menu="mn-a")
    rows = (Row(id="rw-a", cells=(Cell(id="cl-a", items=(listed,)),)),)
    site = menu_site(languages=("en",)).replaced(pieces=(Header(id="pc-a", name="Head", rows=rows, reach=ANYWHERE),))

    def height(*entries: Entry) -> float:
        laid = only_row(site.replaced(menus=(Menu(id="mn-a", name="Main", entries=entries),)), "en").at(800)
        assert laid is not None
        return laid.height_px(800)

    assert height(gone, kept) == height(kept) < height(below, kept)


def test_too_few_characters_on_a_line_are_counted() -> None:
    long = "<p>Three ships between five harbours, every day of the year, and twice on Sundays in summer.</p>"
    cell = Cell(
        id="cl-a", track=Track(kind="fixed", amount=180), items=(RichText(id="it-text", rich=RichWords(text=long)),)
    )
    piece = Footer(id="pc-a", name="Foot", rows=(Row(id="rw-a", cells=(cell,)),), reach=ANYWHERE)
    site = Site(key="qcore", name="O", pieces=(piece,))
    (counted,) = measures(site, only_row(site, "en"))
    assert (counted.state, counted.from_px, counted.to_px) == (
        "narrow",
        FROM_PX,
        TO_PX,
    ) and 18 < counted.characters < 30


@pytest.mark.parametrize("mark", sorted(MARKS - {"br"}))
def test_a_text_with_marks_far_within_each_other_is_laid_out(mark: str) -> None:
    deep = RichWords(text=f"<{mark}>" * 700 + "Fares" + f"</{mark}>" * 700)
    cell = Cell(id="cl-a", items=(RichText(id="it-text", rich=deep),))
    piece = Footer(id="pc-a", name="Foot", rows=(Row(id="rw-a", cells=(cell,)),), reach=ANYWHERE)
    laid = only_row(Site(key="qcore", name="O", pieces=(piece,)), "en").at(800)
    assert laid is not None and laid.height_px(800) > 20
    assert "Fares" in deep.text and clean(deep.text) == deep.text


def test_small_targets_pass_where_they_are_far_enough_apart() -> None:
    def icons(gap_px: int) -> RowFit:
        small = tuple(
            Declaration(id=f"st-{name}{at}", property=f"min-{name}-size", value="16px")
            for at, name in enumerate(("inline", "block"))
        )
        items = tuple(
            IconLink(
                id=f"it-{at}",
                icon="phone",
                icon_px=16,
                styles=tuple(one.replaced(id=f"{one.id}x{at}") for one in small),
            )
            for at in range(2)
        )
        row = Row(id="rw-a", cells=(Cell(id="cl-a", gap_px=gap_px, items=items),))
        return only_row(
            Site(key="qcore", name="O", pieces=(Header(id="pc-a", name="H", rows=(row,), reach=ANYWHERE),)), "en"
        )

    close = too_close(icons(2), frozenset({"it-0", "it-1"}))
    assert [(one.node, one.beside, one.width_px) for one in close] == [("it-0", "it-1", 16.0), ("it-1", "it-0", 16.0)]
    assert too_close(icons(10), frozenset({"it-0", "it-1"})) == []
    assert pressed_in(Row(id="rw-b", cells=(Cell(id="cl-b", items=(ButtonItem(id="it-go"),)),))) == {"it-go"}


def test_a_drawer_is_as_high_as_its_entries_on_every_small_screen() -> None:
    site = menu_site(*LABELS)
    piece = site.pieces[0]
    found = all_opened(fitter(), site, piece, piece.rows[0], "en")
    assert [one.screen for one in found] == [screen for screen in SCREENS if screen[0] < 700]
    assert {one.whole_px for one in found} == {12 + 44 + 4 * 44 + 24.0} and found[0].screens == round(256 / 568, 2)


def test_lengths_tell_how_far_their_comparisons_hold() -> None:
    span = LinearSpan(300)
    window = Linear(300.0, 1.0, span)
    content = larger(window - 40, 200.0)
    assert isinstance(content, Linear) and content.slope == 1 and span.until == float("inf")
    assert not content > 280.0 and span.until == 20
    assert content * 0.5 < 150.0 and span.until == 20
    assert window / 4 < 80.0 and span.until == 20
    assert isinstance(content - window, float), "what does not move is a plain number again"


@pytest.mark.parametrize(
    ("text", "transform", "language", "shown"),
    [
        ("Straße", "uppercase", "de", "STRASSE"),
        ("Νέα Λιμάνια", "uppercase", "el", "ΝΕΑ ΛΙΜΑΝΙΑ"),
        ("istanbul", "uppercase", "tr", "İSTANBUL"),
        ("island’s guide", "capitalize", "en", "Island’s Guide"),
        ("QUAY", "lowercase", "en", "quay"),
    ],
)
def test_case_follows_the_language(text: str, transform: str, language: str, shown: str) -> None:
    assert transformed(text, transform, language) == shown


def test_lines_end_at_spaces_and_behind_hyphens_and_never_before_a_stop() -> None:
    assert [("Half-price days."[:end]) for end in opportunities("Half-price days.", "en")] == [
        "Half-",
        "Half-price ",
        "Half-price days.",
    ]


def test_the_command_line_tells_failures_and_ends_with_one(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    bundle = str(tmp_path / "demo.rim")
    assert main(["demo", bundle]) == 0
    assert main(["fit", bundle, "--piece", "Main header", "--json"]) == 1
    told = capsys.readouterr()
    rows = {(one["row_id"], one["language"]): one for one in json.loads(told.out)}
    german = rows["rw-main", "de"]
    (failing,) = [one for one in german["stretches"] if one["state"] == "wraps"]
    assert failing["from_px"] == 980 and german["fits_from_px"] == failing["to_px"] + 1
    assert failing["cause"] == "it-menu" and failing["remedies"][0]["kind"] == "band"
    assert rows["rw-main", "en"]["fits_from_px"] == 280 and german["opened"][0]["screens"] > 1
    assert main(["fit", bundle, "--piece", "Main header", "--json"]) == 1
    assert capsys.readouterr().out == told.out, "what would mend it has the same ids each time"
    assert "de: Main row" in told.err and f"wraps from 980 to {failing['to_px']} px" in told.err
    assert main(["fit", bundle, "--piece", "Winter timetable"]) == 0
    assert main(["fit", bundle, "--piece", "No such piece"]) == 3
    assert main(["fit", bundle, "--piece", "Main header", "--scroll-bar", "15", "--json"]) == 1
    assert "Main header" in capsys.readouterr().err
    assert main(["fit", bundle, "--piece", "In the menu", "--json"]) == 0
    (widest,) = {one["stretches"][-1]["to_px"] for one in json.loads(capsys.readouterr().out)}
    assert widest == 979, "from there on the menu has no button, and nothing holds the drawer"


def test_the_command_line_tells_of_a_button_that_follows_the_content(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    site, contents = ostrey()
    following = apply(site, Set(node="it-menu", field="drawer_when_full", value=True))
    assert isinstance(following, Site)
    path = tmp_path / "following.rim"
    with path.open("wb") as file:
        write_bundle(file, following, contents.__getitem__)
    assert main(["fit", str(path), "--piece", "Main header", "--json"]) == 0, (
        "where the row would wrap, there is the button"
    )
    rows = json.loads(capsys.readouterr().out)
    assert {one["fits_from_px"] for one in rows} == {280}


def test_a_sweep_takes_few_layouts_and_more_items_take_proportionally_more() -> None:
    layouts = [len(only_row(menu_site(*LABELS[:1] * count), "en").laid) for count in (2, 4, 8)]
    assert layouts[0] < 20 and layouts[2] < 60, layouts


def test_a_smaller_gap_is_needed_less_by_each_gap() -> None:
    site = menu_site(*LABELS)
    after = apply(site, SetEach(field="gap_px", values=(("it-menu", 8), ("rw-a", 24))))
    assert isinstance(after, Site)
    assert only_row(after, "de").laid[-1].need_px(TO_PX) == only_row(site, "de").laid[-1].need_px(TO_PX) - 3 * 16


def test_a_menu_is_a_button_wherever_its_row_would_be_full() -> None:
    site = menu_site(*LABELS)
    made = fitter()
    assert made.resolved(site) is site, "nothing waits for it"
    waiting = apply(site, Set(node="it-menu", field="drawer_when_full", value=True))
    assert isinstance(waiting, Site)
    resolved = made.resolved(waiting)
    always = apply(site, Set(node="it-menu", field="drawer_below", value=None))
    assert isinstance(always, Site)
    needed = [only_row(always, language).fits_from_px for language in ("en", "de")]
    (item,) = [item for cell in resolved.pieces[0].rows[0].cells for item in cell.items if isinstance(item, MenuItem)]
    assert item.drawer_below_px == max(px or 0 for px in needed) == needed[1]
    for language in ("en", "de"):
        fit = only_row(resolved, language, made)
        assert not fit.failing
        assert {laid.to_px for laid in fit.laid} & {item.drawer_below_px - 1}, (
            "something else stands there from then on"
        )
    longer = apply(waiting, Set(node="en-0", field="label", value={"text": "The whole timetable", "translations": []}))
    assert isinstance(longer, Site)
    again = made.resolved(longer)
    (other,) = [item for cell in again.pieces[0].rows[0].cells for item in cell.items if isinstance(item, MenuItem)]
    assert (other.drawer_below_px or 0) > (item.drawer_below_px or 0), "it follows the words"


ANY_PLANE = st.text(st.characters(exclude_categories=("Cs",)), max_size=24) | st.text(
    st.sampled_from("😀👨\u200d👩🇬🇧é\u0301\u0323\u00ad\u200b\u200f\u2011\u202f\u2003\u3000日한กनश्𝒜𐌰-/ n"), max_size=24
)


@cache
def measurer_of(face: str) -> Measurer:
    return fitter().measurer(menu_site(words("x")).replaced(face=face))


@given(ANY_PLANE, st.sampled_from(["figtree", "noto-sans", "noto-sans-arabic", "jetbrains-mono"]), st.integers(1, 400))
@settings(max_examples=300, deadline=None)
def test_every_text_of_unicode_can_be_measured(text: str, face: str, room: int) -> None:
    measurer = measurer_of(face)
    kind = Type(face, 400, False, 16.0, 0.0, None)
    viewport = Viewport(1000.0, 800.0)
    paragraph = Paragraph([Run(text, kind)], "en", measurer)
    least, most = paragraph.widths(viewport)
    assert 0 <= least <= most + 20 and most < 200 * (len(text) + 1), "a soft hyphen may show at a line's end only"
    assert all((width * 64).is_integer() for width in (least, most)), "it asks for whole 64ths of a px"
    number = paragraph.lines(float(room), viewport).number
    assert (number > 0) == bool(text) and number <= len(text)
    ends = opportunities(text, "en")
    assert list(ends) == sorted(set(ends)) and (not text or ends[-1] == len(text))
    assert not {at for at, char in enumerate(text) if char == "\u0301" and text[at - 1] == "n"} & set(ends)
    found = measurer.advances(text, kind)
    assert len(found.em) == len(found.fonts) == len(text)
    unknown = "".join(char for char, font in zip(text, found.fonts, strict=True) if font is None)
    assert sorted(unknown) == sorted(found.missing), "what no face has is said to be an estimate"


def test_a_text_keeps_no_control_characters_and_is_refused_with_half_a_surrogate_pair() -> None:
    site = menu_site(words("A"))
    after = apply(site, Set(node="it-name", field="words", value={"text": "O\x00st\x07rey\x85"}))
    assert isinstance(after, Site) and "Ostrey" in after.model_dump_json()
    with pytest.raises(ValidationError):
        edit_adapter.validate_json('{"kind":"set","node":"it-name","field":"words","value":{"text":"\\ud800"}}')


@pytest.mark.parametrize("seed", [4, 7, 118, 121, 136])
def test_remedies_take_a_bounded_amount_of_work_where_text_grows_with_the_viewport(
    seed: int, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Two dozen remedies, each laid out at each width: they took up to 165 s."""
    site, contents = FittedMaker(seed).site()
    made = fitter(contents.__getitem__)
    looks = 0
    at = _Looked.at

    def counted(looked: _Looked, width: int) -> object:
        nonlocal looks
        looks += 1
        return at(looked, width)

    for piece in site.pieces:
        fits = made.rows(site, piece)
        for row in piece.rows:
            for failure in failures(fits, row.id)[:1]:
                boxes = _count(
                    frame_at(next(laid for fit in fits if fit.row == row.id for laid in fit.laid), 900, 800.0)
                )
                looks, ids = 0, itertools.count()
                monkeypatch.setattr(_Looked, "at", counted)
                found = remedies(made, site, piece, row, failure, lambda prefix, ids=ids: f"{prefix}-x{next(ids)}")
                monkeypatch.setattr(_Looked, "at", at)
                assert looks * boxes <= 2 * MOST_LAID, (seed, row.id)
                assert all(one.edit is None or isinstance(apply(site, one.edit), Site) for one in found)


@pytest.mark.parametrize("seed", range(12))
def test_what_fails_only_beside_a_scroll_bar_is_told_width_by_width(seed: int) -> None:
    made, contents = FittedMaker(seed).site()
    fitter = fitter_of(shelf(), contents.__getitem__, 2026, foresees=False)
    site, beside = fitter.resolved(made), fitter.beside_bar(BAR_PX)
    assert beside.resolved(made) == site and fitter.beside_bar(BAR_PX) is beside and beside.beside_bar(BAR_PX) is beside
    for piece in site.pieces:
        fits = fitter.rows(site, piece)
        told = beside_bars(fitter, site, piece, fits)
        for fit, narrowed in zip(fits, beside.rows(site, piece), strict=True):
            rows = [one for one in told if (one.row, one.language) == (fit.row, fit.language)]
            for width in range(FROM_PX, TO_PX + 1, 3):
                states = [
                    next((s.state for s in one.stretches if s.from_px <= width <= s.to_px), "fits")
                    for one in (fit, narrowed)
                ]
                only = states[1] in FAILING and states[0] not in FAILING and width >= LEAST_PX
                said = [one.state for one in rows if one.from_px <= width <= one.to_px]
                assert said == ([states[1]] if only else []), (piece.id, width)
