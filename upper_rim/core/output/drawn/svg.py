"""A drawing as SVG, to stand in a page: shapes alone, no script, no style sheet, nothing that is fetched but
pictures."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from ...kinds.markup import Element, Markup, Raw, element
from ...style.paint.colour import Rgba
from ...style.paint.grounds import gradient_drawn
from ...values.properties import picture_of
from ..shelf import Shelf
from .shapes import Clipped, Drawing, Edge, Ground, IconShown, PictureShown, Rect, Shape, TextLine


def drawn_svg(
    drawing: Drawing, shelf: Shelf, address: Callable[[str], str], name: str, label: str, seen: Rect | None = None
) -> Element:
    """`seen`: the part of it that is seen, where not all is. `address`: where a picture among the site's files is
    fetched from. `name`: what its gradients' ids begin with, unlike in any other drawing of the page; `label`: what it
    is a picture of, empty where it only adorns."""
    writer = _Writer(shelf, address, name)
    within = [part for shape, opacity in drawing.shapes for part in writer.parts(shape, opacity)]
    about = {"role": "img", "aria-label": label} if label else {"aria-hidden": "true"}
    size = {"viewBox": " ".join(map(_near, seen or (0.0, 0.0, drawing.width, drawing.height)))}
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


def _faded(opacity: float) -> dict[str, str]:
    return {"opacity": _near(opacity)} if opacity < 1 else {}


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
            case PictureShown():
                # One without a size of its own, in a place without any, is not seen.
                if all(shape.natural):
                    yield self._picture(shape, opacity)
            case IconShown():
                yield from self._icon(shape, opacity)
            case Clipped(rect, shapes):
                # What an inner drawing holds shows in it alone (SVG 2, 8.5).
                parts = (part for inner, seen in shapes for part in self.parts(inner, seen * opacity))
                yield element("svg", {**_box(rect), "viewBox": " ".join(map(_near, rect))}, *parts)

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
                # As if it covered: its own size and place say more than is seen from afar.
                whole = {**_box(rect), "href": self._address(picture), "preserveAspectRatio": "xMidYMid slice"}
                yield element("image", {**whole, **_faded(opacity)})
            else:
                yield from self._gradient(image, rect, corner, opacity)
        yield from self._borders(ground, opacity)

    def _picture(self, shown: PictureShown, opacity: float) -> Markup:
        """At its own ratio, since browsers let a drawing (SVG) say by itself how it fills its place."""
        rect, (wide, high) = shown.rect, shown.natural
        image = {"href": self._address(shown.path), "preserveAspectRatio": "none", **_faded(opacity)}
        if shown.fits == "fill":
            scale = f"translate({_near(rect.left)} {_near(rect.top)}) scale({rect.width / wide:.5g} {rect.height / high:.5g})"
            return element("image", {"width": _near(wide), "height": _near(high), "transform": scale, **image})
        scale_by = (max if shown.fits == "cover" else min)(rect.width / wide, rect.height / high)
        width, height = wide * scale_by, high * scale_by
        place = _box(Rect((rect.width - width) / 2, (rect.height - height) / 2, width, height))
        return element("svg", _box(rect), element("image", {**place, **image}))

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
            {**_box(rect), **corner, "fill": f"url(#{name})", **_faded(opacity)},
        )

    def _borders(self, ground: Ground, opacity: float) -> Iterator[Markup]:
        """Around round corners where all sides are alike; else side by side."""
        rect, first = ground.rect, ground.borders[0]
        if first.width and ground.radius and all(one == first for one in ground.borders):
            half = first.width / 2
            inner = Rect(rect.left + half, rect.top + half, rect.width - first.width, rect.height - first.width)
            corner = {"rx": _near(max(0.0, ground.radius - half))}
            yield element("rect", {**_box(inner), **corner, "fill": "none", **_drawn(first, opacity)})
            return
        for side, edge in enumerate(ground.borders):
            if edge.width:
                x1, y1, x2, y2 = _middle(rect, side, edge.width / 2)
                ends = {"x1": _near(x1), "y1": _near(y1), "x2": _near(x2), "y2": _near(y2)}
                yield element("line", {**ends, **_drawn(edge, opacity)})

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


def _drawn(edge: Edge, opacity: float) -> dict[str, str]:
    """A border as a line: about as a browser breaks it into dashes or dots."""
    alpha = edge.colour.alpha * opacity * (2 / 3 if edge.style == "double" and edge.width >= 3 else 1)
    line = {"stroke": edge.colour._replace(alpha=1.0).css, "stroke-width": _near(edge.width)}
    dashes = {"dashed": (2, 1), "dotted": (1, 1)}.get(edge.style)
    broken = {"stroke-dasharray": " ".join(_near(part * edge.width) for part in dashes)} if dashes else {}
    return {**line, **broken} | ({"stroke-opacity": f"{alpha:.3g}"} if alpha < 1 else {})


def _middle(rect: Rect, side: int, half: float) -> tuple[float, float, float, float]:
    """Along the middle of a border, half of whose width is `half`; sides from the top clockwise."""
    left, top, right, bottom = rect.left, rect.top, rect.left + rect.width, rect.top + rect.height
    match side:
        case 0:
            return left, top + half, right, top + half
        case 1:
            return right - half, top, right - half, bottom
        case 2:
            return left, bottom - half, right, bottom - half
        case _:
            return left + half, top, left + half, bottom
