"""What do a site's foundations say as design tokens, and what do tokens say to a site?

The format is that of the W3C Design Tokens Community Group (Format and Color modules, 2025.10); the plainer notation of
its earlier drafts (`"#ff0000"`, `"10px"`) is read too. Colours become swatches, composite tokens become looks. What
only Upper Rim knows of a swatch stands in `$extensions`, so that a file that comes back is the file that went.
"""

from __future__ import annotations

import json
import re
from collections.abc import Callable, Iterator
from typing import Any, NamedTuple

from coloraide import Color
from pydantic import JsonValue

from ..model.editing.edits import Add, Edit, Set, Together
from ..model.site import Site
from ..model.tree import ROOT
from ..style.paint.colour import Palette
from ..values.colours import check_plain_colour
from ..values.properties import NotAValue, check_value

OURS = "org.upper-rim"
_SPACES = {
    "srgb": "srgb",
    "oklch": "oklch",
    "oklab": "oklab",
    "hsl": "hsl",
    "hwb": "hwb",
    "lab": "lab",
    "lch": "lch",
    "srgb-linear": "srgb-linear",
    "display-p3": "display-p3",
    "a98-rgb": "a98-rgb",
    "prophoto-rgb": "prophoto-rgb",
    "rec2020": "rec2020",
    "xyz-d65": "xyz-d65",
    "xyz-d50": "xyz-d50",
}
_WEIGHTS = {
    "thin": 100,
    "hairline": 100,
    "extra-light": 200,
    "ultra-light": 200,
    "light": 300,
    "normal": 400,
    "regular": 400,
    "book": 400,
    "medium": 500,
    "semi-bold": 600,
    "demi-bold": 600,
    "bold": 700,
    "extra-bold": 800,
    "ultra-bold": 800,
    "black": 900,
    "heavy": 900,
    "extra-black": 950,
    "ultra-black": 950,
}
_NUMBERS: dict[str, tuple[str, str]] = {
    "text-size": ("text_px", "dimension"),
    "text-weight": ("text_weight", "fontWeight"),
    "ratio": ("ratio", "number"),
    "measure": ("measure", "number"),
    "least-measure": ("least_measure", "number"),
    "content": ("content_px", "dimension"),
    "gutter": ("gutter_px", "dimension"),
    "sidebar": ("sidebar_px", "dimension"),
}
"""Tokens of the group `scale`: the site's field, and the token's type."""


class TokenFault(NamedTuple):
    """A token that was not taken in: its path, and why, as a sentence's end."""

    path: str
    reason: str


class TokensRead(NamedTuple):
    """What a file of tokens means for a site: an edit, what was taken in, and what was not."""

    edit: Together
    taken: tuple[str, ...]
    faults: tuple[TokenFault, ...]


def tokens_of(site: Site) -> bytes:
    """The site's swatches, scale, faces and width bands as a file of tokens, JSON in UTF-8."""
    palette = Palette(site)
    swatches: dict[str, Any] = {"$type": "color"}
    for swatch in site.swatches:
        about: dict[str, Any] = {"id": swatch.id, "name": swatch.name, "css": swatch.colour}
        if swatch.role is not None:
            about["role"] = swatch.role
        if swatch.tied is not None:
            about["tied"] = swatch.tied.model_dump(mode="json")
        name = _free_name(swatch.name, swatches)
        swatches[name] = {"$value": _colour_value(palette.colour(swatch.id)), "$extensions": {OURS: about}}
    scale: dict[str, Any] = {}
    for name, (field, kind) in _NUMBERS.items():
        number = getattr(site, field)
        scale[name] = {"$type": kind, "$value": {"value": number, "unit": "px"} if kind == "dimension" else number}
    faces: dict[str, Any] = {"$type": "fontFamily", "text": {"$value": site.face}}
    if site.heading_face:
        faces["heading"] = {"$value": site.heading_face}
    bands: dict[str, Any] = {"$type": "dimension"}
    for band in site.bands:
        name = _free_name(band.name, bands)
        bands[name] = {
            "$value": {"value": band.from_px, "unit": "px"},
            "$extensions": {OURS: {"id": band.id, "name": band.name}},
        }
    document = {"swatches": swatches, "scale": scale, "faces": faces, "bands": bands}
    return (json.dumps(document, ensure_ascii=False, indent=2) + "\n").encode()


def _free_name(name: str, taken: dict[str, Any]) -> str:
    plain = re.sub(r"[{}.]", " ", name).lstrip("$").strip() or "token"
    free, number = plain, 2
    while free in taken:
        free, number = f"{plain} {number}", number + 1
    return free


def _colour_value(css: str) -> dict[str, Any]:
    colour = Color(css)
    space = colour.space() if colour.space() in _SPACES else "srgb"
    colour = colour.convert(space)
    value: dict[str, Any] = {"colorSpace": space, "components": [round(part, 5) for part in colour.coords(nans=False)]}
    if colour.alpha(nans=False) < 1:
        value["alpha"] = round(colour.alpha(nans=False), 4)
    if space == "srgb":
        value["hex"] = colour.convert("srgb").to_string(hex=True, alpha=False)[:7]
    return value


def read_tokens(data: bytes, site: Site, new_id: Callable[[str], str]) -> TokensRead:
    """What a file means for the site. `new_id` makes an id from a prefix. What cannot be taken in is told, the rest
    is."""
    try:
        document = json.loads(data)
    except (ValueError, RecursionError) as error:
        return TokensRead(Together(edits=()), (), (TokenFault("", f"the file is not JSON: {error}"),))
    if not isinstance(document, dict):
        return TokensRead(Together(edits=()), (), (TokenFault("", "the file holds no group of tokens"),))
    reader = _Reader(document, site, new_id)
    edits = tuple(reader.edits())
    return TokensRead(Together(edits=edits), tuple(reader.taken), tuple(reader.faults))


class _Broken(Exception):
    pass


class _Reader:
    def __init__(self, document: dict[str, Any], site: Site, new_id: Callable[[str], str]) -> None:
        self._site = site
        self._new_id = new_id
        self.taken: list[str] = []
        self.faults: list[TokenFault] = []
        self._tokens = {path: (token, kind) for path, token, kind in _walk(document, "", None, 0)}
        self._known = {swatch.id: swatch for swatch in site.swatches}
        self._by_name = {swatch.name.lower(): swatch.id for swatch in site.swatches}
        self._bands = {band.id: band for band in site.bands}

    def edits(self) -> Iterator[Edit]:
        added: list[JsonValue] = []
        for path, (token, _) in self._tokens.items():
            try:
                value, kind = self._followed(path, ())
                if kind is None:
                    raise _Broken("it says no type, and no group around it does")
                yield from self._meant(path, token, kind, value, added)
                self.taken.append(path)
            except _Broken as broken:
                self.faults.append(TokenFault(path, str(broken)))
        if added:
            yield Add(parent=ROOT, slot="swatches", values=tuple(added))

    def _followed(self, path: str, seen: tuple[str, ...]) -> tuple[Any, str | None]:
        """A token's value with aliases followed, and its type."""
        if path in seen:
            raise _Broken(f"it refers to itself, by way of {' → '.join((*seen[seen.index(path) :], path))}")
        token, kind = self._tokens[path]
        value = token["$value"]
        if (target := _alias(value)) is not None:
            if target not in self._tokens:
                raise _Broken(f"it refers to {{{target}}}, and there is no such token")
            found, found_kind = self._followed(target, (*seen, path))
            return found, kind or found_kind
        return self._inner(value, (*seen, path)), kind

    def _inner(self, value: Any, seen: tuple[str, ...]) -> Any:
        if isinstance(value, dict):
            return {key: self._inner(part, seen) for key, part in value.items()}
        if isinstance(value, list):
            return [self._inner(part, seen) for part in value]
        if (target := _alias(value)) is not None:
            if target not in self._tokens:
                raise _Broken(f"it refers to {{{target}}}, and there is no such token")
            return self._followed(target, seen)[0]
        return value

    def _meant(self, path: str, token: Any, kind: str, value: Any, added: list[JsonValue]) -> Iterator[Edit]:
        about = token.get("$extensions", {})
        about = about.get(OURS, {}) if isinstance(about, dict) else {}
        about = about if isinstance(about, dict) else {}
        group, _, name = path.rpartition(".")
        if kind == "color":
            yield from self._swatch(path, about, value, added)
        elif group == "scale" and name in _NUMBERS:
            yield Set(node=ROOT, field=_NUMBERS[name][0], value=self._number(kind, value, name))
        elif group == "faces" and name in {"text", "heading"} and kind == "fontFamily":
            face = value[0] if isinstance(value, list) and value else value
            if not isinstance(face, str):
                raise _Broken("a family is a name, or a list of names")
            yield Set(node=ROOT, field="face" if name == "text" else "heading_face", value=face)
        elif group == "bands" and kind == "dimension":
            yield from self._band(about, value, name)
        elif kind in _COMPOSITES:
            yield self._look(name, _COMPOSITES[kind](value))
        elif kind in {"dimension", "number", "fontFamily", "fontWeight", "duration", "cubicBezier", "strokeStyle"}:
            raise _Broken(f"a {kind} by itself has no place among a site's foundations")
        else:
            raise _Broken(f"the type {kind} is not known")

    def _swatch(self, path: str, about: dict[str, Any], value: Any, added: list[JsonValue]) -> Iterator[Edit]:
        css = _css_colour(value)
        name = about.get("name") if isinstance(about.get("name"), str) else path.rpartition(".")[2]
        known = about.get("id") if about.get("id") in self._known else self._by_name.get(str(name).lower())
        tied = about.get("tied") if isinstance(about.get("tied"), dict) else None
        role = about.get("role") if isinstance(about.get("role"), str) else None
        css = about["css"] if _says_the_same(about.get("css"), css) else css
        if known is not None:
            if tied is None:
                yield Set(node=known, field="colour", value=css)
            yield Set(node=known, field="tied", value=tied)
            if role is not None:
                yield Set(node=known, field="role", value=role)
            return
        wanted = about.get("id")
        made = wanted if isinstance(wanted, str) and re.fullmatch(r"sw-[a-z0-9-]{1,30}", wanted) else self._new_id("sw")
        if tied is not None and about.get("css"):
            css = about["css"]
        added.append({"id": made, "name": str(name)[:120] or "Swatch", "colour": css, "role": role, "tied": tied})
        self._by_name[str(name).lower()] = made
        self._known[made] = None  # type: ignore[assignment]

    def _number(self, kind: str, value: Any, name: str) -> JsonValue:
        if _NUMBERS[name][1] != kind:
            raise _Broken(f"a {_NUMBERS[name][1]} belongs here")
        number = _pixels(value) if kind == "dimension" else _weight(value) if kind == "fontWeight" else value
        if isinstance(number, bool) or not isinstance(number, int | float):
            raise _Broken("it is no number")
        field = Site.model_fields[_NUMBERS[name][0]]
        for limit in field.metadata:
            least, greatest = getattr(limit, "ge", None), getattr(limit, "le", None)
            if (least is not None and number < least) or (greatest is not None and number > greatest):
                raise _Broken(f"{number} is out of bounds")
        return int(number) if float(number).is_integer() else number

    def _band(self, about: dict[str, Any], value: Any, name: str) -> Iterator[Edit]:
        pixels = _pixels(value)
        shown = about.get("name") if isinstance(about.get("name"), str) else name
        known = about.get("id") if about.get("id") in self._bands else None
        known = known or next(
            (band.id for band in self._bands.values() if band.name.lower() == str(shown).lower()), None
        )
        if known is not None:
            yield Set(node=known, field="from_px", value=int(pixels))
            return
        same = next((band.name for band in self._bands.values() if band.from_px == int(pixels)), None)
        if same is not None:
            raise _Broken(f"the band “{same}” begins there already")
        wanted = about.get("id")
        made = wanted if isinstance(wanted, str) and re.fullmatch(r"bd-[a-z0-9-]{1,30}", wanted) else self._new_id("bd")
        yield Add(parent=ROOT, slot="bands", values=({"id": made, "name": str(shown)[:120], "from_px": int(pixels)},))

    def _look(self, name: str, values: dict[str, str]) -> Edit:
        styles: list[JsonValue] = []
        for listed, value in values.items():
            try:
                check_value(listed, value)
            except NotAValue as fault:
                raise _Broken(f"{listed}: {fault}") from None
            styles.append({"id": self._new_id("st"), "property": listed, "value": value})
        known = next((look for look in self._site.looks if look.name == name), None)
        if known is not None:
            raise _Broken(f"there is a look “{name}” already")
        return Add(
            parent=ROOT,
            slot="looks",
            values=({"id": self._new_id("lk"), "name": name[:120] or "Look", "styles": styles},),
        )


def _walk(group: dict[str, Any], path: str, kind: str | None, depth: int) -> Iterator[tuple[str, Any, str | None]]:
    """All tokens of a group, with the type that they have or inherit."""
    kind = group.get("$type") if isinstance(group.get("$type"), str) else kind
    for name, member in group.items():
        if name.startswith("$") or not isinstance(member, dict) or depth > 40:
            continue
        below = f"{path}.{name}" if path else name
        if "$value" in member:
            own = member.get("$type")
            yield below, member, own if isinstance(own, str) else kind
        else:
            yield from _walk(member, below, kind, depth + 1)


def _alias(value: Any) -> str | None:
    found = re.fullmatch(r"\{([^{}]+)\}", value) if isinstance(value, str) else None
    return found[1] if found else None


def _css_colour(value: Any) -> str:
    """A colour as CSS writes it, from a token's value."""
    if isinstance(value, str):
        try:
            return check_plain_colour(value)
        except ValueError:
            raise _Broken(f"“{value}” is no colour") from None
    if not isinstance(value, dict) or not isinstance(value.get("components"), list):
        raise _Broken("a colour has a colorSpace and components")
    space, parts = value.get("colorSpace"), value["components"]
    if space not in _SPACES or len(parts) != 3:
        raise _Broken(f"the colour space {space} is not known, or has not three components")
    try:
        numbers = [0.0 if part == "none" else float(part) for part in parts]
        alpha = float(value.get("alpha", 1))
        colour = Color(space, numbers, alpha)
    except (TypeError, ValueError):
        raise _Broken("a component of the colour is no number") from None
    if space == "srgb":
        return str(colour.to_string(hex=True)) if _is_eight_bit(numbers) else str(colour.to_string(precision=5))
    return str(colour.to_string(precision=6))


def _is_eight_bit(numbers: list[float]) -> bool:
    return all(abs(number * 255 - round(number * 255)) < 0.01 and 0 <= number <= 1 for number in numbers)


def _says_the_same(css: Any, other: str) -> bool:
    try:
        return isinstance(css, str) and _colour_value(check_plain_colour(css)) == _colour_value(other)
    except ValueError:
        return False


def _pixels(value: Any) -> float:
    if isinstance(value, dict) and value.get("unit") in {"px", "rem"} and isinstance(value.get("value"), int | float):
        return float(value["value"]) * (16 if value["unit"] == "rem" else 1)
    found = re.fullmatch(r"([\d.]+)(px|rem)", value) if isinstance(value, str) else None
    if found is None:
        raise _Broken("a dimension has a value and a unit, px or rem")
    return float(found[1]) * (16 if found[2] == "rem" else 1)


def _weight(value: Any) -> int:
    if isinstance(value, str) and value.lower() in _WEIGHTS:
        return _WEIGHTS[value.lower()]
    if isinstance(value, int) and 1 <= value <= 1000:
        return value
    raise _Broken(f"“{value}” is no weight")


def _length(value: Any) -> str:
    return f"{_pixels(value):g}px"


def _time(value: Any) -> str:
    if isinstance(value, dict) and value.get("unit") in {"ms", "s"} and isinstance(value.get("value"), int | float):
        return f"{value['value']:g}{value['unit']}"
    if isinstance(value, str) and re.fullmatch(r"[\d.]+m?s", value):
        return value
    raise _Broken("a duration has a value and a unit, ms or s")


def _object(value: Any, *wanted: str) -> dict[str, Any]:
    if not isinstance(value, dict) or not set(wanted) <= value.keys():
        raise _Broken(f"it needs {', '.join(wanted)}")
    return value


def _shadow(value: Any) -> dict[str, str]:
    layers = value if isinstance(value, list) else [value]
    written = []
    for layer in layers:
        parts = _object(layer, "color", "offsetX", "offsetY", "blur")
        lengths = [_length(parts.get(name, "0px")) for name in ("offsetX", "offsetY", "blur", "spread")]
        written.append(f"{'inset ' if parts.get('inset') else ''}{' '.join(lengths)} {_css_colour(parts['color'])}")
    return {"box-shadow": ", ".join(written)}


def _border(value: Any) -> dict[str, str]:
    parts = _object(value, "color", "width", "style")
    style = parts["style"] if isinstance(parts["style"], str) else "dashed"
    made: dict[str, str] = {}
    for side in ("block-start", "inline-end", "block-end", "inline-start"):
        made[f"border-{side}-width"] = _length(parts["width"])
        made[f"border-{side}-style"] = style
        made[f"border-{side}-color"] = _css_colour(parts["color"])
    return made


def _gradient(value: Any) -> dict[str, str]:
    if not isinstance(value, list) or len(value) < 2:
        raise _Broken("a gradient needs two stops at least")
    stops = []
    for stop in value:
        parts = _object(stop, "color", "position")
        if not isinstance(parts["position"], int | float):
            raise _Broken("a stop's position is a number from 0 to 1")
        stops.append(f"{_css_colour(parts['color'])} {min(1, max(0, parts['position'])) * 100:g}%")
    return {"background-image": f"linear-gradient(90deg, {', '.join(stops)})"}


def _transition(value: Any) -> dict[str, str]:
    parts = _object(value, "duration", "timingFunction")
    curve = parts["timingFunction"]
    if not isinstance(curve, list) or len(curve) != 4 or not all(isinstance(number, int | float) for number in curve):
        raise _Broken("a timing function is four numbers")
    numbers = ", ".join(f"{number:g}" for number in curve)
    return {"transition-duration": _time(parts["duration"]), "transition-timing-function": f"cubic-bezier({numbers})"}


def _typography(value: Any) -> dict[str, str]:
    parts = _object(value, "fontSize")
    made = {"font-size": _length(parts["fontSize"])}
    if "fontWeight" in parts:
        made["font-weight"] = str(_weight(parts["fontWeight"]))
    if "letterSpacing" in parts:
        made["letter-spacing"] = _length(parts["letterSpacing"])
    if isinstance(parts.get("lineHeight"), int | float):
        made["line-height"] = f"{parts['lineHeight']:g}"
    return made


_COMPOSITES: dict[str, Callable[[Any], dict[str, str]]] = {
    "shadow": _shadow,
    "border": _border,
    "gradient": _gradient,
    "transition": _transition,
    "typography": _typography,
}
