"""Which ready-made grounds can be tried on, and what would a site be in one of them?

A scheme gives colours by role, faces, a scale, and how the cells of headers share their rows. Whatever pieces and items
say themselves stays as it is: only the ground under them changes.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal, NamedTuple

from pydantic import JsonValue

from ..model.editing.edits import Add, Edit, Set, Together
from ..model.site import Site
from ..model.tree import ROOT
from ..values.colours import SwatchRole
from .built_in import corners


class Scheme(NamedTuple):
    """`colours` by role, as (name, colour); `arrangement`: where a header's cells stand."""

    id: str
    name: str
    about: str
    colours: dict[SwatchRole, tuple[str, str]]
    face: str
    heading_face: str
    text_px: int
    ratio: float
    radius: str
    arrangement: Literal["spread", "centred", "gathered"]


COLOUR_SCHEMES: tuple[Scheme, ...] = (
    Scheme(
        "slate-and-sail",
        "Slate and sail",
        "Cool and quiet; a wide menu beside the title.",
        {
            "ground": ("Sailcloth", "#f7f6f2"),
            "ink": ("Slate", "#22303a"),
            "accent": ("Signal", "#a63d2f"),
            "on-accent": ("Sail white", "#ffffff"),
            "line": ("Rope", "#7d7a6c"),
            "link": ("Deep slate", "#1f5673"),
        },
        "figtree",
        "",
        16,
        1.25,
        "3px",
        "spread",
    ),
    Scheme(
        "night-harbour",
        "Night harbour",
        "Light text on a dark ground, with lamplight for what is pressed.",
        {
            "ground": ("Night water", "#12202b"),
            "ink": ("Moonlit", "#e8edf0"),
            "accent": ("Lamplight", "#f0b95b"),
            "on-accent": ("Dark quay", "#1d1608"),
            "line": ("Far shore", "#74899a"),
            "link": ("Beacon", "#8fc9e8"),
        },
        "atkinson-hyperlegible-next",
        "bitter",
        17,
        1.2,
        "999px",
        "gathered",
    ),
    Scheme(
        "herbarium",
        "Herbarium",
        "Paper, leaf and a bookish serif; the title in the middle.",
        {
            "ground": ("Pressed paper", "#fbf7ea"),
            "ink": ("Bark", "#2f2a22"),
            "accent": ("Leaf", "#3f6b3a"),
            "on-accent": ("Paper white", "#fffdf5"),
            "line": ("Stem", "#86806a"),
            "link": ("Fern", "#2f5f35"),
        },
        "source-serif-4",
        "fraunces",
        18,
        1.3,
        "0",
        "centred",
    ),
    Scheme(
        "workshop",
        "Workshop",
        "Plain grey, one strong colour, and a monospaced title.",
        {
            "ground": ("Bench", "#eceff1"),
            "ink": ("Graphite", "#1a1d20"),
            "accent": ("Cobalt", "#2747b8"),
            "on-accent": ("Chalk", "#ffffff"),
            "line": ("Steel", "#6f7982"),
            "link": ("Blueprint", "#2747b8"),
        },
        "noto-sans",
        "jetbrains-mono",
        15,
        1.2,
        "6px",
        "spread",
    ),
)

_CELLS: dict[str, dict[int, tuple[tuple[str, str], ...]]] = {
    "spread": {
        2: (("content", "start"), ("share", "end")),
        3: (("content", "start"), ("share", "start"), ("content", "end")),
    },
    "centred": {
        2: (("share", "start"), ("content", "end")),
        3: (("share", "start"), ("content", "center"), ("share", "end")),
    },
    "gathered": {
        2: (("content", "start"), ("share", "end")),
        3: (("content", "start"), ("share", "end"), ("content", "end")),
    },
}
"""Track and alignment of a row's cells, by their number."""


def scheme_of(scheme_id: str) -> Scheme | None:
    return next((scheme for scheme in COLOUR_SCHEMES if scheme.id == scheme_id), None)


def worn(site: Site, scheme: Scheme, new_id: Callable[[str], str]) -> Together:
    """The edit that puts a site into a scheme. Swatches keep their ids where they have the role already."""
    edits: list[Edit] = []
    added: list[JsonValue] = []
    for role, (name, colour) in scheme.colours.items():
        known = next((swatch for swatch in site.swatches if swatch.role == role), None)
        if known is None:
            added.append({"id": new_id("sw"), "name": name, "colour": colour, "role": role})
            continue
        edits += [
            Set(node=known.id, field="name", value=name),
            Set(node=known.id, field="colour", value=colour),
            Set(node=known.id, field="tied", value=None),
        ]
    if added:
        edits.append(Add(parent=ROOT, slot="swatches", values=tuple(added)))
    fields: dict[str, JsonValue] = {
        "face": scheme.face,
        "heading_face": scheme.heading_face,
        "text_px": scheme.text_px,
        "ratio": scheme.ratio,
    }
    edits += [Set(node=ROOT, field=field, value=value) for field, value in fields.items()]
    edits += _rounded(site, scheme, new_id)
    edits += _arranged(site, scheme)
    return Together(edits=tuple(edits))


def _rounded(site: Site, scheme: Scheme, new_id: Callable[[str], str]) -> list[Edit]:
    wanted = corners(scheme.radius)
    default = next((default for default in site.roles if default.role == "button"), None)
    known = {
        style.property: style
        for style in (default.styles if default else ())
        if style.state == "rest" and style.band is None
    }
    edits: list[Edit] = [
        Set(node=known[name].id, field="value", value=value) for name, value in wanted.items() if name in known
    ]
    left: list[JsonValue] = [
        {"id": new_id("st"), "property": name, "value": value} for name, value in wanted.items() if name not in known
    ]
    if left and default is not None:
        edits.append(Add(parent=default.id, slot="styles", values=tuple(left)))
    elif left:
        edits.append(Add(parent=ROOT, slot="roles", values=({"id": new_id("rd"), "role": "button", "styles": left},)))
    return edits


def _arranged(site: Site, scheme: Scheme) -> list[Edit]:
    edits: list[Edit] = []
    for piece in site.pieces:
        for row in piece.rows[-1:]:
            places = _CELLS[scheme.arrangement].get(len(row.cells), ())
            for cell, (track, align) in zip(row.cells, places, strict=False):
                edits.append(Set(node=cell.id, field="track", value={"kind": track}))
                edits.append(Set(node=cell.id, field="align", value=align))
    return edits
