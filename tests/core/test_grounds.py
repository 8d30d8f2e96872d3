"""Gradients, tiles and values by themselves, where a screenshot would not say which part is wrong."""

from __future__ import annotations

import pytest

from tests.core.generated import VALUES
from tests.styled_sites import StyledMaker
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Add
from upper_rim.core.model.site import Site
from upper_rim.core.style.paint.grounds import GroundBox, gradient_at, places_in_tiles, tile_of
from upper_rim.core.style.paint.painting import INITIAL_BACKGROUND
from upper_rim.core.style.resolve import Styling
from upper_rim.core.values.properties import NotAValue, arguments_of, check_value, gradient_of, picture_of, words_of


@pytest.mark.parametrize(
    ("gradient", "place", "wanted"),
    [
        ("linear-gradient(#000000, #ffffff)", (50, 0), "#000000"),
        ("linear-gradient(#000000, #ffffff)", (50, 100), "#ffffff"),
        ("linear-gradient(90deg, #000000, #ffffff)", (100, 50), "#808080"),
        ("linear-gradient(to left, #000000, #ffffff)", (200, 50), "#000000"),
        ("linear-gradient(90deg, #ff0000 25%, #0000ff 75%)", (20, 0), "#ff0000"),
        ("linear-gradient(90deg, #ff0000 25%, #0000ff 75%)", (190, 0), "#0000ff"),
        ("linear-gradient(90deg, #ff0000, #00ff00 50px, #0000ff)", (50, 0), "#00ff00"),
        ("linear-gradient(90deg, #000000, #ff0000, #ffffff)", (100, 0), "#ff0000"),
        ("linear-gradient(90deg, #ff0000 60%, #0000ff 30%)", (119, 0), "#ff0000"),
        ("linear-gradient(90deg, #ff0000 60%, #0000ff 30%)", (121, 0), "#0000ff"),
        ("linear-gradient(to bottom right, #000000, #ffffff)", (200, 0), "#808080"),
        ("linear-gradient(to bottom right, #000000, #ffffff)", (0, 100), "#808080"),
        ("linear-gradient(to top right, #000000, #ffffff)", (200, 0), "#ffffff"),
        ("linear-gradient(to top left, #000000, #ffffff)", (0, 0), "#ffffff"),
        ("radial-gradient(circle, #000000, #ffffff)", (100, 50), "#000000"),
        ("radial-gradient(circle at left top, #000000, #ffffff)", (200, 100), "#ffffff"),
        ("radial-gradient(#000000, #ffffff)", (200, 100), "#ffffff"),
        ("linear-gradient(90deg, transparent, rgb(0 0 255 / 50%))", (200, 0), "#0000ff80"),
    ],
)
def test_a_gradients_colour_at_a_place(gradient: str, place: tuple[float, float], wanted: str) -> None:
    found = gradient_at(gradient, 200, 100, place).css
    channels = (int(found[at : at + 2], 16) - int(wanted[at : at + 2], 16) for at in range(1, len(wanted), 2))
    assert len(found) == len(wanted) and all(abs(channel) <= 1 for channel in channels), found


@pytest.mark.parametrize(
    ("size", "position", "natural", "wanted"),
    [
        ("auto", "0% 0%", (50.0, 20.0), GroundBox(0, 0, 50, 20)),
        ("auto", "right bottom", (50.0, 20.0), GroundBox(150, 80, 50, 20)),
        ("cover", "center center", (50.0, 20.0), GroundBox(-25, 0, 250, 100)),
        ("contain", "center center", (50.0, 20.0), GroundBox(0, 10, 200, 80)),
        ("100px", "0% 0%", (50.0, 20.0), GroundBox(0, 0, 100, 40)),
        ("auto 50%", "10px 100%", (50.0, 20.0), GroundBox(10, 50, 125, 50)),
        ("cover", "50% 50%", None, GroundBox(0, 0, 200, 100)),
        ("50% 10px", "0% 0%", None, GroundBox(0, 0, 100, 10)),
    ],
)
def test_a_pictures_tile_has_the_size_and_place_that_css_gives_it(
    size: str, position: str, natural: tuple[float, float] | None, wanted: GroundBox
) -> None:
    values = {**INITIAL_BACKGROUND, "background-size": size, "background-position": position}
    assert tile_of(values, GroundBox(0, 0, 200, 100), natural, 1000) == pytest.approx(wanted)


def test_a_tile_is_painted_where_it_repeats_and_nowhere_else() -> None:
    box, tile = GroundBox(0, 0, 200, 100), GroundBox(10, 20, 50, 30)
    for repeat, across, down, columns, rows in (
        ("no-repeat", (15, 65), (25, 55), [5, None], [5, None]),
        ("repeat-x", (15, 65), (25, 55), [5, 5], [5, None]),
        ("repeat-y", (15, 65), (25, 55), [5, None], [5, 5]),
        ("repeat", (5, 205, -1), (5, 101), [45, None, None], [15, None]),
    ):
        assert places_in_tiles(tile, repeat, box, across, down) == (columns, rows)


def test_every_generated_value_is_kept_as_it_is_or_refused_and_reads_the_same_again() -> None:
    kept = 0
    for name, values in VALUES.items():
        for value in values:
            try:
                once = check_value(name, f"  {value.replace(' ', '   ')} ")
            except (NotAValue, ValueError):
                continue
            kept += 1
            assert check_value(name, once) == once == value
    assert kept > 90
    assert arguments_of("a(b, c), d") == ["a(b, c)", "d"] and words_of("a(b c) d") == ["a(b c)", "d"]
    assert (
        gradient_of("url(/x)") is None and picture_of('url("/a b")') is None and picture_of('url("/a.png")') == "/a.png"
    )


def test_what_is_declared_is_what_resolves_and_giving_it_back_restores_the_rest() -> None:
    for seed in range(12):
        maker = StyledMaker(seed)
        site = maker.styled_site(2)
        styling = Styling(site)
        element = maker.chance.choice(
            [one for one in styling.elements.values() if one.role in {"button", "text", "icon", "title"}]
            or list(styling.elements.values())
        )
        value = {"id": "st-mine", "property": "opacity", "value": "0.25", "part": element.part}
        after = apply(site, Add(parent=element.node, slot="styles", values=(value,)))
        if not isinstance(after, Site):
            continue
        for band in (*(band.id for band in site.bands), None):
            found = Styling(after).resolve(element, "opacity", "rest", band)
            exact = any(
                s.property == "opacity" and s.band == band and band for s in styling.holders[element.node].styles
            )
            assert exact or (found.value, found.source.layer, found.source.holder) == ("0.25", "own", element.node)
