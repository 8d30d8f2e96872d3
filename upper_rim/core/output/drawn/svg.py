"""A drawing as SVG, to stand in a page: shapes alone, no script, no style sheet, nothing that is fetched but pictures."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from ...kinds.markup import Element, Markup, Raw, element
from ...style.paint.colour import Rgba
from ...style.paint.grounds import gradient_drawn
from ...values.properties import picture_of
from ..shelf import Shelf
from .shapes import Drawing, Ground, IconShown, PictureShown, Rect, Shape, TextLine


def drawn_svg(drawing: Drawing, shelf: Shelf, address: Callable[[str], str], name: str, label: str) -> Element:
    """`address`: where a picture among the site's files is fetched from. `name`: what its gradients' ids begin with,
    unlike in any other drawing of the page; `label`: what it is a picture of, empty where it only adorns."""
    writer = _Writer(shelf, address, name)
    within = [part for shape, opacity in drawing.shapes for part in writer.parts(shape, opacity)]
    about = {"role": "img", "aria-label": label} if label else {"aria-hidden": "true"}
    size = {"viewBox": f"0 0 {_near(drawing.width)} {_near(drawing.height)}"}
    return element("svg", {"xmlns": "http://www.w3.org/2000/svg", **size, **about}, *within)


def _near(px: float) -> str:
    return f"{px:.2f}".rstrip("0").rstrip(".")


def _box(rect: Rect) -> dict[str, str]:
    return {
        "x": _near(rect.left),
        "y": _near(rect.top),
        "width": _near(max(0.0, rect.width)),
        "height": _near(max(0.0, rect.height)),
    }


def _filled(colour: Rgba, opacity: float) -> dict[str, str]:
    alpha = colour.alpha * opacity
    return {"fill": colour._replace(alpha=1.0).css} | ({"fill-opacity": f"{alpha:.3g}"} if alpha < 1 else {})


class _Writer:
    def __init__(self, shelf: Shelf, address: Callable[[str], str], name: str) -> None:
        self._shelf, self._address, self._name = shelf, address, name
        self._gradients = 0

    def parts(self, shape: Shape, opacity: float) -> Iterator[Markup]:
        match shape:
            case Ground():
                yield from self._ground(shape, opacity)
            case TextLine(rect, colour, darkness):
                yield element(
                    "rect", {**_box(rect), "rx": _near(rect.height / 3), **_filled(colour, opacity * darkness)}
                )
            case PictureShown(rect, path):
                yield element(
                    "image",
                    {**_box(rect), "href": self._address(path), "opacity": _near(opacity) if opacity < 1 else None},
                )
            case IconShown():
                yield from self._icon(shape, opacity)

    def _ground(self, ground: Ground, opacity: float) -> Iterator[Markup]:
        rect = ground.rect
        if rect.width <= 0 or rect.height <= 0:
            return
        corner = {"rx": _near(ground.radius)} if ground.radius else {}
        if ground.colour.alpha:
            yield element("rect", {**_box(rect), **corner, **_filled(ground.colour, opacity)})
        for image in reversed(ground.images):
            picture = picture_of(image)
            if picture is not None:
                whole = {"preserveAspectRatio": "xMidYMid slice", "opacity": _near(opacity)}
                yield element("image", {**_box(rect), "href": self._address(picture), **whole})
            else:
                yield from self._gradient(image, rect, corner, opacity)
        yield from self._borders(ground, opacity)

    def _gradient(self, image: str, rect: Rect, corner: dict[str, str], opacity: float) -> Iterator[Markup]:
        drawn = gradient_drawn(image, rect.width, rect.height)
        self._gradients += 1
        name = f"{self._name}-{self._gradients}"
        stops = (
            element(
                "stop",
                {
                    "offset": _near(share),
                    "stop-color": colour._replace(alpha=1.0).css,
                    "stop-opacity": _near(colour.alpha),
                },
            )
            for share, colour in drawn.stops
        )
        x, y = rect.left + drawn.start[0], rect.top + drawn.start[1]
        common = {"id": name, "gradientUnits": "userSpaceOnUse"}
        if drawn.radii is None:
            line = {
                "x1": _near(x),
                "y1": _near(y),
                "x2": _near(rect.left + drawn.end[0]),
                "y2": _near(rect.top + drawn.end[1]),
            }
            yield element("linearGradient", {**common, **line}, *stops)
        else:
            across, down = drawn.radii
            flat = f"translate({_near(x)} {_near(y)}) scale(1 {down / (across or 1.0):.4g})"
            yield element(
                "radialGradient",
                {**common, "cx": "0", "cy": "0", "r": _near(across), "gradientTransform": flat},
                *stops,
            )
        yield element(
            "rect",
            {**_box(rect), **corner, "fill": f"url(#{name})", "opacity": _near(opacity) if opacity < 1 else None},
        )

    def _borders(self, ground: Ground, opacity: float) -> Iterator[Markup]:
        rect, borders = ground.rect, ground.borders
        first, colour = borders[0]
        if first and ground.radius and all(one == borders[0] for one in borders):
            inner = Rect(rect.left + first / 2, rect.top + first / 2, rect.width - first, rect.height - first)
            stroke = {
                "fill": "none",
                "stroke": colour._replace(alpha=1.0).css,
                "stroke-width": _near(first),
                "stroke-opacity": _near(colour.alpha * opacity),
            }
            yield element("rect", {**_box(inner), "rx": _near(max(0.0, ground.radius - first / 2)), **stroke})
            return
        for side, (width, colour) in enumerate(borders):
            if width:
                yield element("rect", {**_box(_edge(rect, side, width)), **_filled(colour, opacity)})

    def _icon(self, icon: IconShown, opacity: float) -> Iterator[Markup]:
        rect, scale = icon.rect, min(icon.rect.width, icon.rect.height) / 24
        place = {"transform": f"translate({_near(rect.left)} {_near(rect.top)}) scale({scale:.4g})"}
        brand = (
            self._shelf.brands.by_slug.get(icon.name.removeprefix("brand-")) if icon.name.startswith("brand-") else None
        )
        if brand is not None:
            yield element("path", {**place, "d": brand.path, **_filled(icon.colour, opacity)})
        elif icon.name in self._shelf.icons:
            alpha = icon.colour.alpha * opacity
            line = {
                "fill": "none",
                "stroke": icon.colour._replace(alpha=1.0).css,
                "stroke-width": "2",
                "stroke-opacity": f"{alpha:.3g}",
            }
            round_ = {"stroke-linecap": "round", "stroke-linejoin": "round"}
            yield element("g", {**place, **line, **round_}, Raw(self._shelf.icons[icon.name]))


def _edge(rect: Rect, side: int, width: float) -> Rect:
    """The border at one side, from the top clockwise."""
    match side:
        case 0:
            return rect._replace(height=width)
        case 1:
            return rect._replace(left=rect.left + rect.width - width, width=width)
        case 2:
            return rect._replace(top=rect.top + rect.height - width, height=width)
        case _:
            return rect._replace(width=width)
