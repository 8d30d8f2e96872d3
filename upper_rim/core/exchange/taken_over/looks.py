"""Which values does an old part give the things that take its place? Its colours as swatches, its faces, sizes, lines and
edges."""

from __future__ import annotations

import re
from collections.abc import Mapping
from urllib.parse import unquote

from ...languages import direction
from ...model.arrangements.arranging import JsonNode, NewId
from ...model.beginning import steps_done
from ...model.editing.edits import Add, Edit, Set
from ...model.fonts import Font
from ...model.site import Site
from ...model.tree import ROOT
from ...style.paint.colour import read_colour
from ...style.type.faces import Face
from ...style.type.metrics import FALLBACKS, width_at
from ...values.properties import NotAValue, check_value
from .measured import Measured, Part, px_of
from .seen import is_painted, split_address

_SIDES = {"top": "block-start", "right": "inline-end", "bottom": "block-end", "left": "inline-start"}
_MIRRORED = {**_SIDES, "right": "inline-start", "left": "inline-end"}
_CORNERS = {
    "top-left": "start-start",
    "top-right": "start-end",
    "bottom-right": "end-end",
    "bottom-left": "end-start",
}
_SERIF = re.compile(r"\b(serif|georgia|times|garamond|palatino|cambria|slab)\b", re.I)
_MONO = re.compile(r"mono|courier|consolas|menlo", re.I)
_ENOUGH_EM = 400.0
"""So much text tells how wide a face is: about 25 letters of 16 px."""
NORMAL_LINE = 1.2
"""About what `line-height: normal` is, where a page says nothing else (CSS 2, 10.8.1)."""
Values = dict[str, str]


class Looks:
    """Reads values of one old part for a site. `edits`: what the site needs for them; `notes`: what is not the same;
    `is_rtl`: whether pieces run from right to left on pages in the language;
    `widest_band`: the site's, where that is the one that was looked at; `shows_from`: that one, if there are narrower ones."""

    def __init__(
        self,
        site: Site,
        measured: Measured,
        origin: str,
        language: str,
        new_id: NewId,
        faces: Mapping[str, Face],
        fonts: Mapping[str, Font],
    ) -> None:
        self.site, self.measured, self.new_id, self._origin = site, measured, new_id, origin
        self._paths = {asset.path for asset in site.assets}
        self._faces, self._fonts = faces, fonts
        self.edits: list[Edit] = []
        self.notes: list[str] = []
        self._known = {_canonical(one.colour): one.id for one in site.swatches if one.tied is None}
        self._names = {one.name for one in site.swatches}
        self._by_family: dict[str, str] = {}
        self.is_rtl = direction(language) == "rtl"
        bands = site.bands
        self.widest_band = bands[-1].id if len(bands) > 1 and bands[-1].from_px <= measured.width else None
        above = [band.id for band in bands if 0 < band.from_px <= measured.width]
        self.shows_from = above[-1] if above else None
        self.begins_site = not steps_done(site).ground and not site.pieces
        if self.begins_site:
            self._begin()

    def _begin(self) -> None:
        """What a site begins with becomes what its pages have."""
        page = self.measured.page
        ground = page.get("background-color", "")
        colours = {"ground": ground if is_painted(ground) else "rgb(255, 255, 255)", "ink": page.get("color", "")}
        for swatch in self.site.swatches:
            colour = _canonical(colours.get(swatch.role or "", ""))
            if colour and colour != _canonical(swatch.colour):
                self.edits.append(Set(node=swatch.id, field="colour", value=colour))
                self._known.pop(_canonical(swatch.colour), None)
                self._known[colour] = swatch.id
        size = px_of(page.get("font-size", ""))
        if 10 <= size <= 40 and round(size, 2) != self.site.text_px:
            self.edits.append(Set(node=ROOT, field="text_px", value=round(size)))
        face = self.face(page.get("font-family", ""))
        if face != self.site.face:
            self.edits.append(Set(node=ROOT, field="face", value=face))

    # Colours

    def colour(self, css: str, name: str) -> str:
        """A swatch's, made where there is none of that colour; empty for one that is not seen."""
        colour = _canonical(css)
        if not colour or not is_painted(css):
            return ""
        if colour not in self._known:
            made = {"id": self.new_id("sw"), "name": self._free_name(name), "colour": colour}
            self.edits.append(Add(parent=ROOT, slot="swatches", values=(made,)))
            self._known[colour] = str(made["id"])
        return f"@{self._known[colour]}"

    def _free_name(self, name: str) -> str:
        number, free = 1, name
        while free in self._names:
            number += 1
            free = f"{name} {number}"
        self._names.add(free)
        return free

    # Faces

    def face(self, families: str) -> str:
        """Of those that a list names the first that is to be had; else the shipped one that is about as wide as letters
        of its kind are."""
        if families not in self._by_family:
            self._by_family[families] = self._face(families)
        return self._by_family[families]

    def _face(self, families: str) -> str:
        named = [one.strip().strip("\"'").lower() for one in families.split(",")]
        own = {font.name.lower(): font.id for font in (*self.site.fonts, *self._fonts.values())}
        shipped = {face.family.lower(): face.id for face in self._faces.values()}
        for name in named:
            if name in self._fonts:
                return self._added(self._fonts[name])
            found = own.get(name) or shipped.get(name) or shipped.get(name.removesuffix(" variable"))
            if found:
                return found
        generic = "monospace" if _MONO.search(families) else "serif" if self._is_serif(named) else "sans-serif"
        alike = [face for face in self._faces.values() if face.generic == generic and face.script == "latin"]
        wide = self._letter_em(families) or FALLBACKS[generic][0].advances["latin"][0]
        nearest = min(alike, key=lambda face: abs(width_at(face.measures, 400) - wide), default=None)
        face = nearest.id if nearest else self.site.face
        if named and named[0]:
            family = nearest.family if nearest else face
            self._note(
                f"“{named[0].title()}” is on visitors’ machines, not among the site’s files: {family} stands for it, "
                "its letters set so that lines are as long."
            )
        return face

    def _letter_em(self, families: str) -> float:
        """How wide letters are, in the mean, where a text is set in these; 0 where none is long enough to tell."""
        wide, em = 0.0, 0.0
        for part in self.measured.parts:
            around = self.measured.parts[part.parent] if part.is_text and part.lines == 1 else None
            if around is None or around.styles.get("font-family") != families or "text-transform" in around.styles:
                continue
            size, spacing = px_of(around.styles.get("font-size", "")), px_of(around.styles.get("letter-spacing", ""))
            letters = len(part.text.strip())
            wide += part.rect[2] - spacing * letters
            em += size * letters
        return wide / em if em > _ENOUGH_EM else 0.0

    def _is_serif(self, named: list[str]) -> bool:
        return any(_SERIF.search(name) and name != "sans-serif" for name in named)

    def _added(self, font: Font) -> str:
        if all(one.id != font.id for one in self.site.fonts) and not any(
            isinstance(edit, Add) and edit.slot == "fonts" and font.model_dump(mode="json") in edit.values
            for edit in self.edits
        ):
            self.edits.insert(0, Add(parent=ROOT, slot="fonts", values=(font.model_dump(mode="json"),)))
        return font.id

    def _note(self, sentence: str) -> None:
        if sentence not in self.notes:
            self.notes.append(sentence)

    # Values

    def type_of(self, at: int, name: str, around: Values | None = None) -> Values:
        """How its text is set. `around`: values of what it stands in, which need not be said again."""
        styles = self.measured.parts[at].styles
        size = px_of(styles.get("font-size", "")) or 16.0
        line = styles.get("line-height", "")
        values = {
            "font-family": self.face(styles.get("font-family", "")),
            "font-size": px(size),
            "font-weight": styles.get("font-weight", "400"),
            "font-style": "italic" if styles.get("font-style", "").startswith(("italic", "oblique")) else "normal",
            "line-height": f"{(px_of(line) / size) if line.endswith('px') else NORMAL_LINE:.4g}",
            "text-transform": styles.get("text-transform", "none"),
            "letter-spacing": styles.get("letter-spacing", "normal"),
            "color": self.colour(styles.get("color", ""), name),
            "text-shadow": _shadow(styles.get("text-shadow", "none")) or "none",
        }
        return {name: value for name, value in values.items() if (around or _USUAL).get(name) != value}

    def line_under(self, at: int, until: int) -> str:
        """Whether a text has a line under it, which is told by what it stands in (CSS Text Decoration 3, 2)."""
        for around in (at, *self.measured.around(at)):
            found = self.measured.parts[around].styles.get("text-decoration-line", "none")
            if found != "none":
                return found
            if around == until:
                break
        return "none"

    def box_of(self, part: Part, name: str, *, with_padding: bool = True) -> Values:
        """Its ground, edges, corners, shadow, and the room within it."""
        sides = _MIRRORED if self.is_rtl else _SIDES
        values: Values = {}
        ground = self.colour(part.styles.get("background-color", ""), f"{name} ground")
        if ground:
            values["background-color"] = ground
        image = part.styles.get("background-image", "none")
        if "gradient" in image and _holds("background-image", image):
            values["background-image"] = image
        elif (path := self.path_of(image.removeprefix('url("').removesuffix('")'))) and image.startswith("url("):
            values |= self._picture_behind(part, path)
        elif image != "none":
            self._note(f"The picture behind it ({name.lower()}) was left out.")
        for physical, logical in sides.items():
            width, style = part.px(f"border-{physical}-width"), part.styles.get(f"border-{physical}-style", "none")
            if width and _holds(f"border-{logical}-style", style):
                values[f"border-{logical}-width"] = px(width)
                values[f"border-{logical}-style"] = style
                colour = self.colour(part.styles.get(f"border-{physical}-color", ""), f"{name} line")
                values[f"border-{logical}-color"] = colour or "transparent"
            padding = part.px(f"padding-{physical}")
            if with_padding and padding:
                values[f"padding-{logical}"] = px(padding)
        for physical, logical in _CORNERS.items():
            radius = part.styles.get(f"border-{physical}-radius", "0px").split(" ")[0]
            if radius not in {"0px", ""}:
                values[f"border-{logical}-radius"] = radius
        shadow = _shadow(part.styles.get("box-shadow", "none"))
        if shadow:
            values["box-shadow"] = shadow
        return values

    def _picture_behind(self, part: Part, path: str) -> Values:
        values = {"background-image": f'url("{path}")'}
        for name in ("background-position", "background-size", "background-repeat"):
            if name in part.styles:
                values[name] = part.styles[name]
        return values

    def path_of(self, address: str) -> str | None:
        """Of a file of the site's, by an address on the page."""
        path = unquote(split_address(address).path) if address.startswith(f"{self._origin}/") else ""
        return path if path in self._paths else None

    def closer(self, at: int) -> float:
        """By how much letters are set closer or wider for its lines to be about as long as they were, in px."""
        styles = self.measured.parts[at].styles
        families, size = styles.get("font-family", ""), px_of(styles.get("font-size", ""))
        face, wide = self._faces.get(self.face(families)), self._letter_em(families)
        spacing = px_of(styles.get("letter-spacing", ""))
        return spacing + (wide - width_at(face.measures, 400)) * size if face and wide else spacing

    def pointed(self, part: Part, name: str) -> Values:
        """What changes under a pointer. What the page leaves as it is stays as it is."""
        said = part.pointed
        values = {"text-decoration-line": said.get("text-decoration-line", "none")}
        for css, of in (("color", name), ("background-color", f"{name} ground")):
            colour = self.colour(said.get(css, ""), f"{of}, pointed at")
            if colour:
                values[css] = colour
        return values


_USUAL = {"font-style": "normal", "text-transform": "none", "letter-spacing": "normal", "text-shadow": "none"}


def _holds(name: str, value: str) -> bool:
    try:
        check_value(name, value)
    except (NotAValue, ValueError):
        return False
    return True


def _canonical(css: str) -> str:
    """As a swatch has it; empty for what is no colour by itself."""
    try:
        return read_colour(css).css if css else ""
    except ValueError:
        return ""


def _shadow(computed: str) -> str:
    """Browsers write the colour first."""
    if computed == "none":
        return ""
    found = re.fullmatch(r"(rgba?\([^()]*\)) (-?[\d.]+px -?[\d.]+px [\d.]+px(?: -?[\d.]+px)?)( inset)?", computed)
    return f"{found[2]} {_canonical(found[1])}{' inset' if found[3] else ''}" if found else ""


def px(length: float) -> str:
    """A length as CSS writes it, to the hundredth."""
    return f"{round(length, 2) + 0:.12g}px"


def styles_json(
    values: Values, new_id: NewId, part: str = "box", state: str = "rest", band: str | None = None
) -> list[JsonNode]:
    """Declarations; what a page may say and a piece cannot is left out."""
    return [
        {"id": new_id("st"), "property": name, "value": value, "part": part, "state": state, "band": band}
        for name, value in values.items()
        if _holds(name, value)
    ]
