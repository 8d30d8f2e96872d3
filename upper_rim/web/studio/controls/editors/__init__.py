"""With which editor is a value set by eye, and what does the editor begin with?

An editor is a kind (a template in `editors/`, a module of the script) and what it may give. It writes its value into
the control's own field, where it can be typed as well, so that both go through the same door. What a value is made of
is read here; the script only puts the parts together again."""

from __future__ import annotations

import json
import re
from collections.abc import Callable, Sequence
from dataclasses import asdict, dataclass
from itertools import pairwise
from typing import Any, Literal

from .....core.exchange.imports.typed_items import is_picture
from .....core.model.site import Site
from .....core.output.css.part_selectors import selector_of
from .....core.output.css.style_rules import css_name
from .....core.style.paint.colour import Palette
from .....core.style.paint.contrast import Measured
from .....core.style.resolve import StyledElement, Styling
from .....core.values.colours import ROLE_COLOURS
from .....core.values.properties import PROPERTIES, arguments_of, gradient_of, picture_of, shadows_of, words_of
from .....core.values.styling import State

EditorKind = Literal["colour", "length", "image", "shadow", "position", "words"]


@dataclass(frozen=True)
class Editor:
    """`words`: what can be said instead of a number; `units`, the first for what has none yet; `least`, `most` and
    `step` in that unit. `is_inset`: whether a shadow can lie inside, and spread. `axes`: what the one value says a
    number each for, unless it is one of `whole`."""

    kind: EditorKind
    words: tuple[str, ...] = ()
    units: tuple[str, ...] = ()
    least: float = 0
    most: float = 100
    step: float = 1
    is_inset: bool = False
    axes: tuple[str, ...] = ()
    whole: tuple[str, ...] = ()


_ANY, _FONT = ("px", "rem", "em", "%", "vw", "vh"), ("px", "rem", "em")
_EASINGS = ("linear", "ease", "ease-in", "ease-out", "ease-in-out", "cubic-bezier(0.2, 0.9, 0.3, 1.2)")

EDITORS: dict[str, Editor] = {
    "colour": Editor("colour"),
    "image": Editor("image"),
    "shadow": Editor("shadow", is_inset=True),
    "letter shadow": Editor("shadow"),
    "position": Editor("position"),
    "easing": Editor("words", _EASINGS),
    "length": Editor("length", (), _ANY, -40, 120),
    "size": Editor("length", (), _ANY, 0, 120),
    "size or auto": Editor("length", ("auto",), _ANY, 0, 1200),
    "size or none": Editor("length", ("none",), _ANY, 0, 1600),
    "margin": Editor("length", ("auto",), _ANY, -80, 120),
    "line width": Editor("length", (), ("px", "rem", "em"), 0, 20),
    "thickness": Editor("length", ("auto", "from-font"), _FONT, 0, 12),
    "offset": Editor("length", ("auto",), _FONT, -10, 20),
    "spacing": Editor("length", ("normal",), ("em", "px", "rem"), -0.1, 0.5, 0.01),
    "line height": Editor("length", ("normal",), ("", "px", "em"), 0.8, 3, 0.05),
    "share": Editor("length", (), ("",), 0, 1, 0.01),
    "time": Editor("length", (), ("ms", "s"), 0, 1500, 10),
    "background size": Editor(
        "length",
        ("auto", "cover", "contain"),
        ("%", "px"),
        0,
        400,
        axes=("Across", "Down"),
        whole=("auto", "cover", "contain"),
    ),
}
"""By how a value is written (a key of `properties.CHECKS`); what is chosen from a list needs no editor."""

MOST_OF_UNIT = {
    "px": 1.0,
    "%": 1.0,
    "rem": 1 / 16,
    "em": 1 / 16,
    "vw": 1 / 12,
    "vh": 1 / 12,
    "s": 1 / 1000,
    "": 1.0,
    "ms": 1.0,
}
"""How far a slider reaches in a unit, beside what it reaches in px or ms."""


def parts_of(editor: Editor, value: str) -> Any:
    """What a value is made of, as JSON that the editor begins with."""
    return _READERS[editor.kind](value)


def _length_parts(value: str) -> dict[str, Any]:
    found = re.fullmatch(r"([+-]?(?:\d+\.?\d*|\.\d+))([a-z%]*)", value)
    return {"number": float(found[1]), "unit": found[2]} if found else {"word": value}


def _image_parts(value: str) -> list[dict[str, Any]]:
    layers: list[dict[str, Any]] = []
    for layer in arguments_of(value) if value not in {"", "none"} else ():
        gradient, picture = gradient_of(layer), picture_of(layer)
        if gradient is not None:
            kind, shape, stops = gradient
            layers.append({"kind": kind, "shape": shape, "stops": _placed(stops)})
        elif picture is not None:
            layers.append({"kind": "picture", "path": picture})
    return layers


def _placed(stops: list[tuple[str, str | None]]) -> list[dict[str, Any]]:
    """Stops with a place each: those that say none stand evenly between their neighbours that do (CSS Images 3,
    3.4.3)."""
    places = [float(re.sub(r"[^\d.+-]", "", place)) if place else None for _, place in stops]
    places[0] = places[0] if places[0] is not None else 0.0
    places[-1] = places[-1] if places[-1] is not None else 100.0
    known = [at for at, place in enumerate(places) if place is not None]
    for before, after in pairwise(known):
        from_, to = places[before], places[after]
        assert from_ is not None and to is not None
        for at in range(before + 1, after):
            places[at] = from_ + (to - from_) * (at - before) / (after - before)
    return [
        {"colour": colour, "at": place, "unit": "px" if said and said.endswith("px") else "%"}
        for (colour, said), place in zip(stops, places, strict=True)
    ]


def _shadow_parts(value: str) -> list[dict[str, Any]]:
    return [shadow._asdict() for shadow in shadows_of(value) or ()]


_PLACES = {"left": "0%", "top": "0%", "center": "50%", "right": "100%", "bottom": "100%"}


def _position_parts(value: str) -> list[dict[str, Any]]:
    return [_length_parts(_PLACES.get(word, word)) for word in words_of(value)][:2]


_READERS: dict[EditorKind, Callable[[str], Any]] = {
    "colour": str,
    "words": str,
    "length": _length_parts,
    "image": _image_parts,
    "shadow": _shadow_parts,
    "position": _position_parts,
}


def editing_of(
    styling: Styling, element: StyledElement, state: State, contrast: Measured | None, stage_address: str
) -> dict[str, Any]:
    """What every editor on a screen knows. `selector`: what follows on the stage while a value is turned, empty where
    nothing there can. `ink` and `ground`: between what the contrast of the text is counted."""
    site = styling.site
    colours = colours_of(site)
    is_there = element.piece and (not element.node or (element.node, element.part) in styling.elements)
    selector = selector_of(styling, element) if is_there else ""
    measured = (
        {"ink": contrast.colour.css, "ground": contrast.ground.css, "needed": contrast.needed} if contrast else {}
    )
    return {
        "selector": f"{selector}::placeholder" if selector and state == "placeholder" else selector,
        "colours": colours,
        "swatches": [(swatch.id, swatch.name, colours[swatch.id]) for swatch in site.swatches],
        "pictures": [(asset.path, stage_address + asset.path) for asset in site.assets if is_picture(asset.path)],
        **measured,
    }


def colours_of(site: Site) -> dict[str, str]:
    """What each reference to a swatch, or to a role, is painted as."""
    palette = Palette(site)
    roles = {f":{role}": palette.resolved(f"@:{role}") for role in ROLE_COLOURS}
    return {**{swatch: palette.colour(swatch) for swatch in palette.swatches}, **roles}


def _sides(names: Sequence[str]) -> list[str]:
    corners = names[0].endswith("-radius")
    return ["Top start", "Top end", "Bottom end", "Bottom start"] if corners else ["Top", "End", "Bottom", "Start"]


def editor_of(names: Sequence[str], values: Sequence[str]) -> str:
    """What the editor of a control begins with, as JSON, besides what `editor_kinds` tells of all: `names` of the
    properties that it sets together and their values; empty where it is chosen from a list."""
    listed = [PROPERTIES[one] for one in names]
    editor = EDITORS.get(listed[0].kind)
    if editor is None:
        return ""
    values = list(values)
    if editor.axes and values[0] not in editor.whole:
        # What is not said of the other axis is automatic (CSS Backgrounds 3, 2.9).
        values = [*words_of(values[0]), "auto"][: len(editor.axes)]
    elif editor.axes:
        values *= len(editor.axes)
    begun = {
        "kind": editor.kind,
        "of": listed[0].kind,
        "properties": [css_name(one.name) for one in listed],
        "parts": [parts_of(editor, value) for value in values],
        **({"sides": _sides(names)} if len(names) > 1 else {}),
    }
    return json.dumps(begun, ensure_ascii=False, separators=(",", ":"))


def editor_kinds() -> dict[str, Any]:
    """What all editors may give, by how a value is written, and how far a slider reaches in each unit."""
    return {"editors": {kind: asdict(editor) for kind, editor in EDITORS.items()}, "reach": MOST_OF_UNIT}
