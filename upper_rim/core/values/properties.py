"""Which properties can a designer set, and what may be written as their value?

The properties are those of the CSS specifications, one by one and by logical side (CSS Logical Properties 1), so that a
right-to-left page mirrors them. A value is CSS, with one addition: `@sw-deep` means the colour of the swatch with that
id, `@sw-deep/40%` that colour at 40 % opacity, `@:accent` the swatch that has the role accent.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal, NamedTuple

from .colours import check_colour, signed

PropertyGroup = Literal[
    "Type", "Line", "Colour", "Background", "Border", "Corners", "Shadow", "Padding", "Margin", "Size", "Ring", "Change"
]

SIDES = ("block-start", "inline-end", "block-end", "inline-start")
CORNERS = ("start-start", "start-end", "end-end", "end-start")


class NotAValue(ValueError):
    """Why a text is no value of a property, as the end of a sentence."""


@dataclass(frozen=True)
class Property:
    """`kind` names how a value is written (a key of `CHECKS`); `initial` is the CSS initial value."""

    name: str
    label: str
    group: PropertyGroup
    kind: str
    initial: str
    inherits: bool = False
    choices: tuple[str, ...] = ()


_UNITS = "px|rem|em|%|vw|vh"
_NUMBER = r"[+-]?(?:\d+\.?\d*|\.\d+)"
_LENGTH = rf"(?:{_NUMBER}(?:{_UNITS})|0)"
_SUM = rf"{_LENGTH}(?: [+-] {_LENGTH})*"
_CLAMP = rf"clamp\( ?{_SUM} ?, ?{_SUM} ?, ?{_SUM} ?\)"
_LENGTHS = re.compile(rf"(?:{_LENGTH}|{_CLAMP})")
_AMOUNT = re.compile(rf"{_NUMBER}")
_TIME = re.compile(r"(?:\d+\.?\d*|\.\d+)(?:ms|s)|0s")
_BEZIER = re.compile(rf"cubic-bezier\( ?{_NUMBER} ?, ?{_NUMBER} ?, ?{_NUMBER} ?, ?{_NUMBER} ?\)")
_PICTURE = re.compile(r'url\("(/[^"\\\s]*)"\)')
_POSITION = rf"(?:left|center|right|{_LENGTH}) (?:top|center|bottom|{_LENGTH})"


def _length(text: str) -> None:
    if not _LENGTHS.fullmatch(text):
        raise NotAValue("a length is a number with px, rem, em, %, vw or vh, or clamp(least, wished, greatest)")


def _size(text: str) -> None:
    _length(text)
    if text.startswith("-"):
        raise NotAValue("this length cannot be less than 0")


def _size_or(*words: str) -> Callable[[str], None]:
    def check(text: str) -> None:
        if text not in words:
            _size(text)

    return check


def _margin(text: str) -> None:
    if text != "auto":
        _length(text)


def _plain_width(text: str) -> None:
    _size(text)
    if "%" in text:
        raise NotAValue("the width of a line cannot be a percentage")


def _share(text: str) -> None:
    if not _AMOUNT.fullmatch(text) or not 0 <= float(text) <= 1:
        raise NotAValue("a number from 0 to 1")


def _weight(text: str) -> None:
    if not re.fullmatch(r"\d+", text) or not 1 <= int(text) <= 1000:
        raise NotAValue("a weight is a whole number from 1 to 1000")


def _stretch(text: str) -> None:
    found = re.fullmatch(r"(\d+\.?\d*|\.\d+)%", text)
    if not found or not 50 <= float(found[1]) <= 200:
        raise NotAValue("a width of letters is a percentage from 50% to 200%")


def _line_height(text: str) -> None:
    if text == "normal" or (_AMOUNT.fullmatch(text) and float(text) >= 0):
        return
    _size(text)


def _spacing(text: str) -> None:
    if text != "normal":
        _length(text)
        if "%" in text:
            raise NotAValue("letter spacing cannot be a percentage")


def _time(text: str) -> None:
    if not _TIME.fullmatch(text):
        raise NotAValue("a time is written as 200ms or 0.2s")


def _easing(text: str) -> None:
    if text not in {"linear", "ease", "ease-in", "ease-out", "ease-in-out"} and not _BEZIER.fullmatch(text):
        raise NotAValue("linear, ease, ease-in, ease-out, ease-in-out or cubic-bezier(x1, y1, x2, y2)")


def _face(text: str) -> None:
    if not re.fullmatch(r"[a-z][a-z0-9-]{1,59}", text):
        raise NotAValue("choose one of the site's faces")


def arguments_of(text: str) -> list[str]:
    """The parts of a list between its outermost commas."""
    parts, depth, start = [], 0, 0
    for at, char in enumerate(text):
        depth += (char == "(") - (char == ")")
        if char == "," and depth == 0:
            parts.append(text[start:at].strip())
            start = at + 1
    return [*parts, text[start:].strip()]


def words_of(text: str) -> list[str]:
    """The parts of a value between its outermost spaces."""
    words, depth, word = [], 0, ""
    for char in text:
        depth += (char == "(") - (char == ")")
        if char == " " and depth == 0:
            words.append(word)
            word = ""
        else:
            word += char
    return [word for word in [*words, word] if word]


_DIRECTION = re.compile(rf"{_NUMBER}deg|to (?:top|bottom|left|right)|to (?:top|bottom) (?:left|right)")
_SHAPE = re.compile(rf"(?:circle|ellipse)(?: at {_POSITION})?")
_STOP_AT = re.compile(rf"{_NUMBER}(?:%|px)")


def gradient_of(text: str) -> tuple[str, str, list[tuple[str, str | None]]] | None:
    """A gradient's kind, its direction or shape (may be empty), and its stops as colour and place; None for anything
    else."""
    found = re.fullmatch(r"(linear|radial)-gradient\((.*)\)", text)
    if found is None:
        return None
    arguments = arguments_of(found[2])
    first = _DIRECTION if found[1] == "linear" else _SHAPE
    shape = arguments.pop(0) if first.fullmatch(arguments[0]) else ""
    stops: list[tuple[str, str | None]] = []
    for argument in arguments:
        words = words_of(argument)
        place = words.pop() if len(words) == 2 and _STOP_AT.fullmatch(words[1]) else None
        stops.append((" ".join(words), place))
    return found[1], shape, stops


def picture_of(text: str) -> str | None:
    """The path of a picture among the site's files."""
    found = _PICTURE.fullmatch(text)
    return found[1] if found else None


def _image(text: str) -> None:
    if text == "none":
        return
    for layer in arguments_of(text):
        gradient = gradient_of(layer)
        if gradient is None:
            if picture_of(layer) is None:
                raise NotAValue(
                    'a gradient such as linear-gradient(90deg, @sw-a, #fff 60%), or url("/picture.png") of the site'
                )
            continue
        if len(gradient[2]) < 2:
            raise NotAValue("a gradient needs two stops at least")
        for colour, _ in gradient[2]:
            check_colour(colour)


class Shadow(NamedTuple):
    """One shadow of a box or of letters: lengths as they are written, empty where none is; without a `colour` it has
    the text's own."""

    right: str
    down: str
    blur: str = ""
    spread: str = ""
    colour: str = ""
    is_inset: bool = False


def shadows_of(text: str) -> list[Shadow] | None:
    """The shadows of a value, the uppermost first; None where it is none (CSS Backgrounds 3, 6.1)."""
    return [] if text == "none" else _all_read([_shadow_of(layer) for layer in arguments_of(text)])


def _all_read(shadows: list[Shadow | None]) -> list[Shadow] | None:
    read = [shadow for shadow in shadows if shadow is not None]
    return read if len(read) == len(shadows) else None


def _shadow_of(layer: str) -> Shadow | None:
    words = words_of(layer)
    lengths = [word for word in words if re.fullmatch(_LENGTH, word)]
    colours = [word for word in words if word not in lengths and word != "inset"]
    if not 2 <= len(lengths) <= 4 or len(colours) > 1:
        return None
    right, down, blur, spread = (*lengths, "", "")[:4]
    return Shadow(right, down, blur, spread, colours[0] if colours else "", "inset" in words)


def _box_shadow(text: str) -> None:
    shadows = shadows_of(text)
    if shadows is None:
        raise NotAValue("a shadow is written as: right down blur spread colour, such as 0 2px 8px 0 #0003")
    for shadow in shadows:
        if any("%" in length for length in shadow[:4]) or shadow.blur.startswith("-"):
            raise NotAValue("a shadow's lengths are no percentages, and its blur is not less than 0")
        if shadow.colour:
            check_colour(shadow.colour)


def _letter_shadow(text: str) -> None:
    _box_shadow(text)
    if any(shadow.is_inset or shadow.spread for shadow in shadows_of(text) or ()):
        raise NotAValue("letters’ shadows have no spread and are not inset: right down blur colour")


def _position(text: str) -> None:
    if not re.fullmatch(_POSITION, text):
        raise NotAValue("two places, such as center top or 20% 0")


def _background_size(text: str) -> None:
    if text in {"auto", "cover", "contain"}:
        return
    words = text.split(" ")
    if len(words) > 2:
        raise NotAValue("auto, cover, contain, or one or two lengths")
    for word in words:
        if word != "auto":
            _size(word)


CHECKS: dict[str, Callable[[str], None]] = {
    "length": _length,
    "size": _size,
    "size or auto": _size_or("auto"),
    "size or none": _size_or("none"),
    "margin": _margin,
    "line width": _plain_width,
    "thickness": _size_or("auto", "from-font"),
    "offset": _margin,
    "spacing": _spacing,
    "line height": _line_height,
    "share": _share,
    "weight": _weight,
    "stretch": _stretch,
    "face": _face,
    "colour": check_colour,
    "image": _image,
    "shadow": _box_shadow,
    "letter shadow": _letter_shadow,
    "position": _position,
    "background size": _background_size,
    "time": _time,
    "easing": _easing,
    "choice": lambda text: None,
}

_LINES = ("none", "solid", "dashed", "dotted", "double")
_BLENDS = (
    "normal",
    "multiply",
    "screen",
    "overlay",
    "darken",
    "lighten",
    "color-dodge",
    "color-burn",
    "hard-light",
    "soft-light",
    "difference",
    "exclusion",
    "luminosity",
)

_LISTED = [
    Property("font-family", "Face", "Type", "face", "", True),
    Property("font-weight", "Weight", "Type", "weight", "400", True),
    Property("font-style", "Style", "Type", "choice", "normal", True, ("normal", "italic")),
    Property("font-size", "Size", "Type", "size", "16px", True),
    Property("line-height", "Line height", "Type", "line height", "normal", True),
    Property("letter-spacing", "Spacing", "Type", "spacing", "normal", True),
    Property("word-spacing", "Word gap", "Type", "spacing", "normal", True),
    Property("font-stretch", "Stretch", "Type", "stretch", "100%", True),
    Property("text-transform", "Case", "Type", "choice", "none", True, ("none", "uppercase", "lowercase", "capitalize")),
    Property("text-align", "Alignment", "Type", "choice", "start", True, ("start", "center", "end", "justify")),
    Property("text-shadow", "Shadow", "Type", "letter shadow", "none", True),
    Property("list-style-type", "Mark", "Type", "choice", "disc", True, ("disc", "circle", "square", "decimal", "none")),
    Property("text-decoration-line", "Line", "Line", "choice", "none", False, ("none", "underline", "line-through", "overline")),
    Property("text-decoration-style", "Kind", "Line", "choice", "solid", False, ("solid", "double", "dotted", "dashed", "wavy")),
    Property("text-decoration-color", "Colour", "Line", "colour", "currentcolor"),
    Property("text-decoration-thickness", "Thickness", "Line", "thickness", "auto"),
    Property("text-underline-offset", "Distance", "Line", "offset", "auto", True),
    Property("color", "Text", "Colour", "colour", "canvastext", True),
    Property("opacity", "Opacity", "Colour", "share", "1"),
    Property("mix-blend-mode", "Blends", "Colour", "choice", "normal", False, _BLENDS),
    Property("background-color", "Colour", "Background", "colour", "transparent"),
    Property("background-image", "Gradient, picture", "Background", "image", "none"),
    Property("background-size", "Size", "Background", "background size", "auto"),
    Property("background-repeat", "Tiles", "Background", "choice", "repeat", False, ("repeat", "no-repeat", "repeat-x", "repeat-y", "round", "space")),
    Property("background-position", "Position", "Background", "position", "0% 0%"),
    Property("background-attachment", "On scroll", "Background", "choice", "scroll", False, ("scroll", "fixed")),
    Property("background-drift", "Slower by", "Background", "share", "0"),
    Property("background-blend-mode", "Layers blend", "Background", "choice", "normal", False, _BLENDS),
    *(Property(f"border-{side}-width", "Width", "Border", "line width", "medium") for side in SIDES),
    *(Property(f"border-{side}-style", "Kind", "Border", "choice", "none", False, _LINES) for side in SIDES),
    *(Property(f"border-{side}-color", "Colour", "Border", "colour", "currentcolor") for side in SIDES),
    *(Property(f"border-{corner}-radius", "Radius", "Corners", "size", "0") for corner in CORNERS),
    Property("box-shadow", "Shadow", "Shadow", "shadow", "none"),
    *(Property(f"padding-{side}", "Padding", "Padding", "size", "0") for side in SIDES),
    *(Property(f"margin-{side}", "Margin", "Margin", "margin", "0") for side in SIDES),
    Property("inline-size", "Width", "Size", "size or auto", "auto"),
    Property("min-inline-size", "Least width", "Size", "size or auto", "auto"),
    Property("max-inline-size", "Greatest width", "Size", "size or none", "none"),
    Property("block-size", "Height", "Size", "size or auto", "auto"),
    Property("min-block-size", "Least height", "Size", "size or auto", "auto"),
    Property("max-block-size", "Greatest height", "Size", "size or none", "none"),
    Property("outline-width", "Width", "Ring", "line width", "medium"),
    Property("outline-style", "Kind", "Ring", "choice", "none", False, _LINES),
    Property("outline-color", "Colour", "Ring", "colour", "currentcolor"),
    Property("outline-offset", "Distance", "Ring", "length", "0"),
    Property("transition-duration", "Time", "Change", "time", "0s"),
    Property("transition-timing-function", "Pace", "Change", "easing", "ease"),
]  # fmt: skip

PROPERTIES: dict[str, Property] = {listed.name: listed for listed in _LISTED}
OWN_PROPERTIES = frozenset({"background-drift"})
"""Properties that CSS does not have; they are published as custom properties. `background-drift`: by which share of the
scrolled way a background stays behind."""
PROPERTY_GROUPS: tuple[PropertyGroup, ...] = (
    "Type",
    "Line",
    "Colour",
    "Background",
    "Border",
    "Corners",
    "Shadow",
    "Padding",
    "Margin",
    "Size",
    "Ring",
    "Change",
)

_FORBIDDEN = re.compile(r"[{};<>\\!]|/\*|javascript:", re.IGNORECASE)


def check_value(name: str, text: str) -> str:
    """The value in its kept form. Raises `NotAValue` with what was wrong."""
    listed = PROPERTIES.get(name)
    if listed is None:
        raise NotAValue(f"there is no property “{name}”")
    value = re.sub(r"\s+", " ", text.strip())
    if _FORBIDDEN.search(value):
        raise NotAValue("a value holds no braces, semicolons or comments")
    if listed.choices and value not in listed.choices:
        raise NotAValue(f"one of {', '.join(listed.choices)}")
    CHECKS[listed.kind](value)
    return value


def completed(name: str, text: str) -> str:
    """A value as it may be typed, in the form in which it can be kept: a length without a unit is px, a colour may lack
    its sign. What cannot be helped stays as it is."""
    kind = PROPERTIES[name].kind if name in PROPERTIES else ""
    if kind == "colour":
        return signed(text)
    try:
        check_value(name, text)
    except NotAValue:
        with_px = _BARE_NUMBER.sub(r"\1px", text)
        try:
            check_value(name, with_px)
        except NotAValue:
            return text
        return with_px
    return text


_BARE_NUMBER = re.compile(r"(?<![\w.#-])([+-]?(?:\d+\.?\d*|\.\d+))(?![\w.%])")
