"""What colour is it in the end? Swatches followed, tints computed, layers composed, contrast measured.

Colours are composed and compared in sRGB, as browsers paint them; lightness is changed in OKLCH, where equal steps look
equal.
"""

from __future__ import annotations

from collections.abc import Iterable
from functools import lru_cache
from typing import NamedTuple

from coloraide import Color

from ...model.site import Site
from ...values.colours import REFERENCE, ROLE_COLOURS, check_plain_colour, signed
from ...values.styling import Swatch


class Rgba(NamedTuple):
    """sRGB, each channel from 0 to 1."""

    red: float
    green: float
    blue: float
    alpha: float = 1.0

    @property
    def css(self) -> str:
        """`#rrggbb`, with two digits of opacity where it is not opaque."""
        channels = [round(channel * 255) for channel in self[:3]]
        opacity = "" if self.alpha >= 1 else f"{round(self.alpha * 255):02x}"
        return "#" + "".join(f"{channel:02x}" for channel in channels) + opacity


WHITE = Rgba(1, 1, 1)
BLACK = Rgba(0, 0, 0)
CLEAR = Rgba(0, 0, 0, 0)


@lru_cache(maxsize=4096)
def read_colour(text: str) -> Rgba:
    """A colour as CSS Color 4 writes it; out of the sRGB gamut it is clipped, as it is when painted."""
    colour = Color(text).convert("srgb")
    return _rgba(colour.coords(nans=False), colour.alpha(nans=False))


def _rgba(channels: Iterable[float], alpha: float) -> Rgba:
    red, green, blue = (min(1.0, max(0.0, channel)) for channel in channels)
    return Rgba(red, green, blue, min(1.0, max(0.0, alpha)))


class Palette:
    """A site's swatches by id and by role, with their colours worked out."""

    def __init__(self, site: Site) -> None:
        self._key = site.key
        self.swatches = {swatch.id: swatch for swatch in site.swatches}
        self.of_role: dict[str, str] = {}
        for swatch in site.swatches:
            if swatch.role is not None:
                self.of_role.setdefault(swatch.role, swatch.id)
        self._colours: dict[str, str] = {}

    def colour(self, swatch_id: str) -> str:
        """A swatch's colour as CSS. What it is tied to is followed first."""
        if swatch_id not in self._colours:
            swatch = self.swatches[swatch_id]
            self._colours[swatch_id] = self._tied(swatch) if swatch.tied else swatch.colour
        return self._colours[swatch_id]

    def _tied(self, swatch: Swatch) -> str:
        tied = swatch.tied
        assert tied is not None
        return shifted(self.colour(tied.parent), tied.lightness / 100, tied.chroma)

    def swatch_of(self, reference: str) -> str | None:
        """The id of the swatch that a reference means; None for a role that no swatch has."""
        return self.of_role.get(reference[1:]) if reference.startswith(":") else reference

    def resolved(self, text: str) -> str:
        """A value with its references replaced by colours."""
        return REFERENCE.sub(lambda found: self._written(found[1], found[2], literal=True), text)

    def is_clear(self, text: str) -> bool:
        """Whether nothing is seen of a colour."""
        colour = self.resolved(text).lower()
        return colour == "transparent" or (colour != "currentcolor" and read_colour(colour).alpha == 0)

    def published(self, text: str) -> str:
        """A value with its references replaced by custom properties; by a colour where an opacity is asked for."""
        return REFERENCE.sub(lambda found: self._written(found[1], found[2], literal=False), text)

    def _written(self, reference: str, opacity: str | None, *, literal: bool) -> str:
        swatch = self.swatch_of(reference)
        if opacity is not None:
            plain = read_colour(self.colour(swatch) if swatch else ROLE_COLOURS[reference[1:]])
            return plain._replace(alpha=plain.alpha * int(opacity) / 100).css
        if swatch is None:
            return ROLE_COLOURS[reference[1:]]
        return self.colour(swatch) if literal else f"var(--{self._key}-{swatch})"


@lru_cache(maxsize=4096)
def shifted(colour: str, lightness: float, chroma: float = 1.0) -> str:
    """The colour with its OKLCH lightness moved (0 to 1) and its chroma multiplied; mapped into the sRGB gamut."""
    oklch = Color(colour).convert("oklch")
    oklch["lightness"] = min(1.0, max(0.0, oklch.get("lightness", nans=False) + lightness))
    oklch["chroma"] = oklch.get("chroma", nans=False) * chroma
    fitted = oklch.convert("srgb").fit(method="oklch-chroma")
    return _rgba(fitted.coords(nans=False), fitted.alpha(nans=False)).css


def over(upper: Rgba, lower: Rgba, blend: str = "normal") -> Rgba:
    """One layer painted over another (Compositing and Blending 1, 5.8 and 10)."""
    if upper.alpha == 0:
        return lower
    if lower.alpha == 0 or (upper.alpha == 1 and blend == "normal"):
        return upper
    alpha = upper.alpha + lower.alpha * (1 - upper.alpha)
    blended = upper[:3] if blend == "normal" else _blended(upper, lower, blend)
    mixed = [(1 - lower.alpha) * above + lower.alpha * mix for above, mix in zip(upper[:3], blended, strict=True)]
    painted = [
        (upper.alpha * above + lower.alpha * below * (1 - upper.alpha)) / alpha
        for above, below in zip(mixed, lower[:3], strict=True)
    ]
    return _rgba(painted, alpha)


def _blended(upper: Rgba, lower: Rgba, blend: str) -> tuple[float, ...]:
    if blend == "luminosity":
        return _with_luminosity(lower[:3], _luminosity(upper[:3]))
    return tuple(_blend_channel(above, below, blend) for above, below in zip(upper[:3], lower[:3], strict=True))


def _blend_channel(above: float, below: float, blend: str) -> float:
    match blend:
        case "multiply":
            return above * below
        case "screen":
            return above + below - above * below
        case "overlay":
            return _blend_channel(below, above, "hard-light")
        case "darken":
            return min(above, below)
        case "lighten":
            return max(above, below)
        case "color-dodge":
            return 0.0 if below == 0 else 1.0 if above >= 1 else min(1.0, below / (1 - above))
        case "color-burn":
            return 1.0 if below >= 1 else 0.0 if above <= 0 else 1 - min(1.0, (1 - below) / above)
        case "hard-light":
            return 2 * above * below if above <= 0.5 else _blend_channel(2 * above - 1, below, "screen")
        case "soft-light":
            if above <= 0.5:
                return below - (1 - 2 * above) * below * (1 - below)
            curve = ((16 * below - 12) * below + 4) * below if below <= 0.25 else below**0.5
            return below + (2 * above - 1) * (curve - below)
        case "difference":
            return abs(above - below)
        case "exclusion":
            return above + below - 2 * above * below
        case _:
            return above


def _luminosity(channels: tuple[float, ...]) -> float:
    return 0.3 * channels[0] + 0.59 * channels[1] + 0.11 * channels[2]


def _with_luminosity(channels: tuple[float, ...], wanted: float) -> tuple[float, ...]:
    """`SetLum` of Compositing and Blending 1, 10.2."""
    difference = wanted - _luminosity(channels)
    moved = [channel + difference for channel in channels]
    light, least, most = _luminosity(tuple(moved)), min(moved), max(moved)
    if least < 0:
        moved = [light + (channel - light) * light / (light - least) for channel in moved]
    if most > 1:
        moved = [light + (channel - light) * (1 - light) / (most - light) for channel in moved]
    return tuple(moved)


def luminance(colour: Rgba) -> float:
    """Relative luminance (WCAG 2.2, definitions)."""

    def linear(channel: float) -> float:
        return channel / 12.92 if channel <= 0.04045 else ((channel + 0.055) / 1.055) ** 2.4

    return 0.2126 * linear(colour.red) + 0.7152 * linear(colour.green) + 0.0722 * linear(colour.blue)


def contrast_ratio(one: Rgba, other: Rgba) -> float:
    """From 1 to 21 (WCAG 2.2, definitions). Both are opaque."""
    return ratio_of(luminance(one), luminance(other))


def ratio_of(one: float, other: float) -> float:
    """The contrast of two relative luminances."""
    return (one + 0.05) / (other + 0.05) if one > other else (other + 0.05) / (one + 0.05)


def hex_colour(text: str) -> str:
    """A colour in any spelling of CSS Color 4, or without its sign, as #rrggbb; `ValueError` where it is none."""
    return read_colour(check_plain_colour(signed(text)))._replace(alpha=1.0).css
