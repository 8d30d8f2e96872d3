"""What would change nothing is told before it is set: why, and only where all that is set together would not."""

from __future__ import annotations

from typing import Any

from upper_rim.core.model.site import Site
from upper_rim.core.style.idle import Idle, idle
from upper_rim.core.style.resolve import Styling
from upper_rim.core.values.properties import SIDES
from upper_rim.core.values.styling import Declaration
from upper_rim.demo import ostrey

DEMO = ostrey()[0]
COLOURS = [f"border-{side}-color" for side in SIDES]


def told(site: Site, names: list[str], said: tuple[Declaration, ...] = (), band: str | None = None) -> Idle | None:
    styling = Styling(site)
    return idle(styling, styling.elements["it-book", "box"], names, (said, "box"), ("rest", "bd-wide"), band)


def with_style(site: Site, name: str, value: str, band: str | None = None) -> tuple[Site, Declaration]:
    style = Declaration.model_validate({"id": "st-here", "property": name, "value": value, "band": band})

    def changed(item: Any) -> Any:
        return item.replaced(styles=(*item.styles, style)) if item.id == "it-book" else item

    pieces = tuple(
        piece.replaced(
            rows=tuple(
                row.replaced(
                    cells=tuple(cell.replaced(items=tuple(changed(item) for item in cell.items)) for cell in row.cells)
                )
                for row in piece.rows
            )
        )
        for piece in site.pieces
    )
    return site.replaced(pieces=pieces), style


def test_a_colour_of_an_edge_needs_a_line_on_one_side_at_least() -> None:
    assert told(DEMO, COLOURS) == Idle("border-block-start-style", "none")
    on_one_side, _ = with_style(DEMO, "border-inline-end-style", "solid")
    assert told(on_one_side, COLOURS) is None
    assert told(on_one_side, COLOURS[:1]) is not None


def test_what_is_said_at_rest_and_at_all_widths_counts_wherever_it_shows() -> None:
    assert told(DEMO, ["outline-width"]) is None, "the ring is there when it has the focus"
    in_one_band, _ = with_style(DEMO, "border-inline-end-style", "solid", "bd-narrow")
    assert told(in_one_band, COLOURS) is None
    assert told(in_one_band, COLOURS, band="bd-wide") == Idle("border-block-start-style", "none")


def test_what_a_width_band_says_for_itself_counts_there() -> None:
    site, style = with_style(DEMO, "padding-block-start", "3px", "bd-wide")
    assert told(site, ["padding-block-start"], (style,)) == Idle("", "", "bd-wide")
    assert told(site, ["padding-block-start"], (style,), "bd-wide") is None, "set for that band it counts"
    assert told(site, ["padding-block-start", "padding-block-end"], (style,)) is None
    assert told(DEMO, ["color"]) is None
