"""Which controls change how something looks, what do they show, and where does each value come from?

As in `controls`, a control is data. What it shows is the resolver's answer for the state, part and width that are
chosen; the word behind it names the layer that the answer comes from.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

from ....core.kinds.items.posts import Posts
from ....core.model.site import Site
from ....core.model.tree import find
from ....core.style.idle import Idle, idle
from ....core.style.paint.colour import Palette
from ....core.style.resolve import SOME_OF, Resolved, Source, StyledElement, Styling
from ....core.values.colours import REFERENCE
from ....core.values.properties import CORNERS, PROPERTIES, SIDES
from ....core.values.styling import LIMITED, Declaration, Part, State
from ....shipped import shelf
from .control import Choice
from .editors import editor_of

SIDED = {
    "padding": tuple(f"padding-{side}" for side in SIDES),
    "margin": tuple(f"margin-{side}" for side in SIDES),
    "border-width": tuple(f"border-{side}-width" for side in SIDES),
    "border-style": tuple(f"border-{side}-style" for side in SIDES),
    "border-color": tuple(f"border-{side}-color" for side in SIDES),
    "border-radius": tuple(f"border-{corner}-radius" for corner in CORNERS),
}
"""Properties that are typed together: one value for all sides, two for block and inline, or four, clockwise from the
top."""

FACETS: dict[str, tuple[tuple[str, tuple[str, ...]], ...]] = {
    "text": (
        ("Type", ("font-family", "font-size", "font-weight", "font-style", "line-height", "text-align")),
        ("Letters", ("color", "text-shadow", "letter-spacing", "word-spacing", "font-stretch", "text-transform")),
        ("Line", ("text-decoration-line", "text-decoration-style", "text-decoration-color", "text-decoration-thickness", "text-underline-offset")),
    ),
    "ground": (
        ("Ground", ("background-color", "background-image", "background-blend-mode")),
        ("Picture", ("background-size", "background-repeat", "background-position", "background-attachment", "background-drift")),
        ("Over it all", ("opacity", "mix-blend-mode", "box-shadow")),
    ),
    "edge": (
        ("Border", ("border-width", "border-style", "border-color", "border-radius")),
        ("Focus ring", ("outline-width", "outline-style", "outline-color", "outline-offset")),
    ),
    "room": (
        ("Room", ("padding", "margin")),
        ("Width", ("inline-size", "min-inline-size", "max-inline-size")),
        ("Height", ("block-size", "min-block-size", "max-block-size")),
        ("Change", ("transition-duration", "transition-timing-function")),
    ),
}  # fmt: skip
FACET_NAMES = {
    "content": "Content",
    "text": "Text",
    "ground": "Ground",
    "edge": "Edge",
    "room": "Room",
    "looks": "Looks",
}
STATE_NAMES: dict[str, str] = {
    "rest": "Rest",
    "current": "Current",
    "hover": "Hover",
    "focus": "Focus",
    "pressed": "Pressed",
    "placeholder": "Placeholder",
    "invalid": "Invalid",
    "disabled": "Disabled",
}
PART_NAMES: dict[Part, str] = {
    "box": "Box", "title": "Menu button", "content": "Entries", "lower": "Lower entries", "apart": "Entries set apart", "heading": "Title", "second-line": "Second lines",
    "badge": "Marks", "panel": "Panel", "opened": "Drawer", "veil": "Veil", "close": "Close button", "link": "Links", "list": "Lists",
    "bullet": "Bullets", "heading-2": "Headings", "heading-3": "Small headings", "label": "Labels", "field": "Fields",
    "button": "Button", "icon": "Icons", "arrow": "Arrows", "entry": "Numbers", "caption": "Captions", "hint": "Hint",
}  # fmt: skip


ROLE_NAMES: dict[str, str] = {
    "text": "Texts", "link": "Links", "heading-2": "Headings", "heading-3": "Small headings", "list": "Lists", "mark": "Bullets",
    "title": "Site titles", "list-title": "Titles of lists", "entry": "Entries", "second-line": "Second lines", "badge": "Marks",
    "opener": "Menu buttons", "button": "Buttons", "second": "Second buttons", "icon": "Icons", "label": "Labels", "field": "Fields",
    "hint": "Hints",
}  # fmt: skip
"""What a piece can have defaults of its own for, most wanted first."""


def part_name(part: Part, role: str, holder: object = None) -> str:
    """What a part of a node is called where it can be styled by itself."""
    if isinstance(holder, Posts) and part == "second-line":
        return "Dates"
    of_role = {"row": "Row", "column-rule": "Dividers", "icon": "Icons"}.get(role)
    return of_role if of_role and part not in SOME_OF else PART_NAMES[part]


_BULLETS = ("Bullets", ("list-style-type",))
_COLUMN_RULE = (
    ("Between columns", ("border-inline-start-width", "border-inline-start-style", "border-inline-start-color")),
)


FaceChoice = tuple[str, str, str]
"""Id, name and real weights in words."""


@dataclass(frozen=True)
class StyleControl:
    """`value`: what is set right here (empty where nothing is); `shown`: what holds; `source`: where that comes from.
    `editor`: what its editor begins with (`editors.editor_of`); `chip`: the CSS of a small picture of the value;
    `idle`: why it changes nothing here, whatever is set."""

    name: str
    label: str
    kind: str
    value: str
    shown: str
    source: str
    chip: str = ""
    idle: str = ""
    choices: Sequence[Choice] | Sequence[FaceChoice] = ()
    editor: str = ""

    @property
    def is_listed(self) -> bool:
        return self.kind in {"choice", "face"}


@dataclass(frozen=True)
class StyleGroup:
    name: str
    controls: list[StyleControl] = field(default_factory=list)


@dataclass(frozen=True)
class Chosen:
    """What a style control speaks of. `styles`: the declarations that it changes; `element`: where they are looked
    at."""

    styles: tuple[Declaration, ...]
    element: StyledElement
    part: Part
    state: State
    band: str | None


def style_groups(site: Site, styling: Styling, facet: str, chosen: Chosen, seen_band: str | None) -> list[StyleGroup]:
    """The groups of one facet of the tray. What is shown is what holds in `seen_band`."""
    palette = Palette(site)
    return [
        StyleGroup(name, [_control(site, styling, palette, listed, chosen, seen_band) for listed in names])
        for name, names in listed_groups(facet, chosen.element.role)
    ]


def listed_groups(facet: str, role: str) -> tuple[tuple[str, tuple[str, ...]], ...]:
    """The groups of a facet, and the properties in each, for what has that role."""
    if role == "column-rule":
        return _COLUMN_RULE
    if role in LIMITED:
        known = (
            (name, tuple(one for one in names if SIDED.get(one, (one,))[0] in LIMITED[role]))
            for name, names in FACETS[facet]
        )
        return tuple((name, names) for name, names in known if names)
    return (*FACETS[facet], _BULLETS) if facet == "text" and role == "list" else FACETS[facet]


def _control(
    site: Site, styling: Styling, palette: Palette, name: str, chosen: Chosen, seen_band: str | None
) -> StyleControl:
    names = SIDED.get(name, (name,))
    resolved = [styling.resolve(chosen.element, one, chosen.state, seen_band) for one in names]
    here = [_said_here(one, chosen) for one in names]
    values = [said if said is not None else found.value for said, found in zip(here, resolved, strict=True)]
    shown = shorthand([found.value for found in resolved])
    listed = PROPERTIES[names[0]]
    kind = _kind(listed.kind)
    asked, said = (styling, chosen.element, names), (chosen.styles, chosen.part)
    return StyleControl(
        name,
        LABELS.get(name, listed.label),
        kind,
        in_words(shorthand(values), site) if any(said is not None for said in here) else "",
        in_words(shown, site),
        source_in_words(_strongest(resolved), site, chosen),
        _chip(listed.kind, palette.resolved(values[0])),
        idle_in_words(idle(*asked, said, (chosen.state, seen_band), chosen.band), site),
        tuple(faces_in_themselves(site)) if kind == "face" else tuple(_choices(names[0], site, styling, chosen)),
        editor_of(names, values) if kind not in {"choice", "face"} else "",
    )


_WITHOUT = {
    "border": "no line",
    "outline": "no line",
    "text-decoration": "no line",
    "background": "no picture",
    "transition": "no time",
}
"""What there is none of, by how the property begins that says so."""


def idle_in_words(found: Idle | None, site: Site) -> str:
    if found is None:
        return ""
    if found.needs:
        return next(words for begins, words in _WITHOUT.items() if found.needs.startswith(begins))
    band = next(one.name for one in site.bands if one.id == found.band)
    return f"{band} has its own"


def _chip(kind: str, value: str) -> str:
    """The CSS of a small picture of a value; empty where the kind has its sign."""
    match kind:
        case "colour":
            return f"background:{value}"
        case "image":
            return f"background:{value}" if "gradient" in value and "url(" not in value else ""
        case "shadow":
            return f"box-shadow:{value}" if value != "none" else ""
        case _:
            return ""


LABELS = {"border-width": "Width", "border-style": "Kind", "border-color": "Colour", "border-radius": "Radius"}


def _kind(kind: str) -> str:
    if kind in {"choice", "weight", "stretch"}:
        return "choice"
    return kind if kind in {"face", "colour"} else "text"


def _said_here(name: str, chosen: Chosen) -> str | None:
    """What the holder itself says for exactly this part, state and width."""
    for style in chosen.styles:
        if (style.property, style.part, style.state, style.band) == (name, chosen.part, chosen.state, chosen.band):
            return style.value
    return None


def _strongest(resolved: list[Resolved]) -> Source:
    order = ("own", "look", "piece", "site", "ring", "inherited", "built-in", "initial")
    return min((found.source for found in resolved), key=lambda source: order.index(source.layer))


def source_in_words(source: Source, site: Site, chosen: Chosen) -> str:
    """Where a value comes from, in a word or two."""
    band = next((band.name.lower() for band in site.bands if band.id == source.band), "")
    only = f" {band} only" if band else ""
    rest = ", rest" if chosen.state != "rest" and source.state == "rest" and source.layer != "inherited" else ""
    name = _holder_name(site, source.holder)
    match source.layer:
        case "own":
            return (f"{band} only" if band else "here") + rest
        case "look":
            return f"look: {name}{only}{rest}"
        case "piece":
            return f"piece{only}{rest}"
        case "site" | "ring":
            return f"site{only}{rest}"
        case "inherited":
            return f"from {name}" if name else "site"
        case _:
            return "built in"


def _holder_name(site: Site, holder: str | None) -> str:
    if holder is None:
        return ""
    spot = find(site, holder)
    return str(getattr(spot.node, "name", None) or "its place") if spot else ""


def shorthand(values: list[str]) -> str:
    """Four values as few, where sides agree."""
    if len(values) == 1:
        return values[0]
    top, end, bottom, start = values
    if top == end == bottom == start:
        return top
    if top == bottom and end == start:
        return f"{top} {end}"
    return " ".join(values)


def in_words(value: str, site: Site) -> str:
    """A value as it is typed: swatches by name."""
    palette = Palette(site)

    if value in dict(faces_to_choose(site)):
        return dict(faces_to_choose(site))[value]

    def named(reference: str, opacity: str | None) -> str:
        swatch = palette.swatch_of(reference)
        name = palette.swatches[swatch].name if swatch else reference[1:]
        return f"{name} {opacity}%" if opacity else name

    return REFERENCE.sub(lambda found: named(found[1], found[2]), value)


def _choices(listed: str, site: Site, styling: Styling, chosen: Chosen) -> Iterator[Choice]:
    face = styling.resolve(chosen.element, "font-family", chosen.state, chosen.band).value
    if listed == "font-weight":
        yield from ((str(weight), str(weight)) for weight in real_weights(site, face))
    elif listed == "font-stretch":
        yield from ((f"{width:g}%", f"{width:g} %") for width in real_stretches(site, face))
    elif listed == "font-style":
        yield from ((style, style) for style in real_styles(site, face))
    else:
        yield from ((choice, choice) for choice in PROPERTIES[listed].choices)


def faces_in_themselves(site: Site) -> list[FaceChoice]:
    found = []
    for face, name in faces_to_choose(site):
        weights = real_weights(site, face)
        found.append((face, name, f"{weights[0]} to {weights[-1]}" if len(weights) > 1 else f"{weights[0]} only"))
    return found


def faces_to_choose(site: Site) -> list[Choice]:
    return [(font.id, font.name) for font in site.fonts] + [(face.id, face.family) for face in shelf().offered_faces]


def real_weights(site: Site, face: str) -> list[int]:
    """The weights that a face really has, in steps of 50 where it is variable."""
    font = next((font for font in site.fonts if font.id == face), None)
    if font is not None:
        weights = {weight for file in font.files for weight in _steps(file.lightest, file.boldest)}
        return sorted(weights)
    shipped = shelf().faces.get(face)
    return _steps(shipped.lightest, shipped.boldest) if shipped else [400, 700]


def real_styles(site: Site, face: str) -> list[str]:
    """The styles that a face really has: the shipped ones are upright."""
    font = next((font for font in site.fonts if font.id == face), None)
    if font is None:
        return ["normal"]
    return [
        style
        for style, italic in (("normal", False), ("italic", True))
        if any(file.italic is italic for file in font.files)
    ]


def real_stretches(site: Site, face: str) -> list[float]:
    """The widths of letters that a face really has, in steps of 5 %: the shipped ones have one."""
    font = next((font for font in site.fonts if font.id == face), None)
    spans = [(file.narrowest, file.widest) for file in font.files] if font else []
    return sorted(
        {
            100.0,
            *(width for least, most in spans for width in (least, most, *range(-(-int(least) // 5) * 5, int(most), 5))),
        }
    )


def _steps(lightest: int, boldest: int) -> list[int]:
    return sorted({lightest, boldest, *range(-(-lightest // 50) * 50, boldest + 1, 50)})


def swatch_names(site: Site) -> list[str]:
    return [swatch.name for swatch in site.swatches]
