"""Whatever a designer makes can be drawn small, and what is written of it is well-formed and harms no page."""

from __future__ import annotations

import itertools
import math
from typing import Any
from xml.etree import ElementTree

import pytest

from tests.fitted_sites import FittedMaker
from tests.styled_sites import StyledMaker
from upper_rim.core.fit.text.ink import ink_em2
from upper_rim.core.kinds.markup import html
from upper_rim.core.model.site import Site
from upper_rim.core.output.drawn.draw_piece import PieceDrawer
from upper_rim.core.output.drawn.svg import drawn_svg
from upper_rim.core.output.fitting import fitter_of
from upper_rim.core.style.paint.grounds import gradient_at, gradient_drawn
from upper_rim.demo import ostrey, quillwort
from upper_rim.shipped import shelf

ALLOWED = {"svg", "rect", "line", "image", "path", "g", "linearGradient", "radialGradient", "stop", "circle", "polyline", "ellipse", "polygon"}  # fmt: skip


def drawn(site: Site, contents: dict[str, bytes], widths: tuple[int, ...]) -> list[str]:
    drawer = PieceDrawer(site, fitter_of(shelf(), contents.__getitem__, 2026))
    found = []
    for piece in drawer.site.pieces:
        for language in {page.language for page in site.pages} | {site.language}:
            for width in widths:
                drawing = drawer.draw(piece, language, width)
                if drawing is not None:
                    assert all(math.isfinite(part) for shape, _ in drawing.shapes for part in shape.rect)
                    found.append(html([drawn_svg(drawing, shelf(), str, f"p-{width}", "A piece")]))
    return found


@pytest.mark.parametrize("seed", range(12))
def test_generated_pieces_are_drawn_as_well_formed_shapes(seed: int) -> None:
    fitted, contents = FittedMaker(seed).site()
    for site, files in ((fitted, contents), (StyledMaker(seed).styled_site(4), {})):
        for text in drawn(site, files, (280, 1111)):
            tags = {part.tag.rpartition("}")[2] for part in ElementTree.fromstring(text).iter()}
            assert tags <= ALLOWED
            assert "nan" not in text and "inf" not in text


def test_the_demos_are_drawn_in_every_language() -> None:
    for site, contents in (ostrey(), quillwort()):
        assert len(drawn(site, contents, (390, 1120))) >= len(site.pieces)


@pytest.mark.parametrize(
    "text",
    [
        "linear-gradient(red, blue)",
        "linear-gradient(37deg, #123456 10%, #fedcba 80%)",
        "linear-gradient(to top left, red, #00ff00 40%, blue)",
        "radial-gradient(circle at 20% 30%, red, blue 70%)",
        "radial-gradient(#102030, #aabbcc)",
    ],
)
def test_a_gradient_is_drawn_with_the_colours_that_it_has_everywhere(text: str) -> None:
    width, height = 300.0, 120.0
    found = gradient_drawn(text, width, height)
    for x, y in ((0.5, 0.5), (299.0, 1.0), (150.0, 60.0), (20.0, 110.0), (280.0, 90.0)):
        if found.radii is None:
            way = (found.end[0] - found.start[0], found.end[1] - found.start[1])
            length = math.hypot(*way)
            at = ((x - found.start[0]) * way[0] + (y - found.start[1]) * way[1]) / length**2
        else:
            at = math.hypot((x - found.start[0]) / found.radii[0], (y - found.start[1]) / found.radii[1])
        wanted: Any = gradient_at(text, width, height, (x, y))
        assert _between(found.stops, at) == pytest.approx(wanted, abs=0.02)


def _between(stops: tuple[tuple[float, Any], ...], at: float) -> tuple[float, ...]:
    """As SVG mixes them: not premultiplied."""
    if at <= stops[0][0]:
        return tuple(stops[0][1])
    for (start, before), (end, after) in itertools.pairwise(stops):
        if at <= end:
            share = (at - start) / (end - start)
            return tuple(one + (other - one) * share for one, other in zip(before, after, strict=True))
    return tuple(stops[-1][1])


def test_bolder_letters_have_more_ink_and_a_space_none() -> None:
    site, contents = ostrey()
    faces = fitter_of(shelf(), contents.__getitem__, 2026).measurer(site).faces
    font = faces.primary("figtree", 400, False, 100.0)
    bold = faces.primary("figtree", 800, False, 100.0)
    assert ink_em2("Ostrey", [font] * 6) < 0.8 * ink_em2("Ostrey", [bold] * 6)
    assert ink_em2("    ", [font] * 4) == 0
    assert ink_em2("l", [font]) == pytest.approx(0.7 * 0.08, rel=0.4), "a stem, as high and wide as it is"
