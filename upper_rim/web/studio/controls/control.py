"""What is a control of the tray? Data: what it is called, which field it sets, how it is typed. The template only draws
it."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace
from functools import cache
from itertools import accumulate
from typing import Any

from ....core.exchange.imports.typed_items import is_picture
from ....core.exchange.imports.typed_links import as_typed
from ....core.kinds.rows import Track
from ....core.model.site import Site
from ....core.model.tree import ROOT
from ....core.style.shapes import SHAPES, shape_of
from ....core.values.nodes import Value
from ....core.values.targets import Target
from ....core.values.words import Translatable
from ..words.languages import language_name

Choice = tuple[str, str]


@dataclass(frozen=True)
class Control:
    """`kind`: text, lines, rich, moment, number, choice, swatch, yes, bands, icon, upload, order, make: a button that
    adds what is missing and takes it (`value`: what is made), or note: a sentence that sets nothing. `value` is what it
    shows; `language` is set for translations, `lang` is the language of its words; `others`: of a text, those of the other
    languages. `is_set`: it says something else than what its kind begins with."""

    kind: str
    label: str
    node: str
    field: str
    value: Any
    choices: Sequence[Choice] = ()
    unit: str = ""
    hint: str = ""
    language: str = ""
    band: str = ""
    least: int | None = None
    greatest: int | None = None
    suggestions: str = ""
    is_set: bool = False
    lang: str = ""
    others: Sequence[Control] = ()

    @property
    def said(self) -> int:
        """In how many other languages it says something."""
        return sum(bool(other.value) for other in self.others)


FEW, FOLDED_FROM = 4, 6
"""So many controls of a group show first, where it has at least as many as the second says."""


@dataclass(frozen=True)
class Group:
    name: str
    controls: list[Control] = field(default_factory=list)
    shown_first: int = FEW

    @property
    def few(self) -> list[Control]:
        """What most need; all, where no more than one is left. A text with other languages takes a line more for these."""
        lines = list(accumulate(1 + bool(control.others) for control in self.controls))
        if not lines or lines[-1] < self.shown_first + FOLDED_FROM - FEW:
            return self.controls
        return self.controls[: max(1, sum(end <= self.shown_first for end in lines))]

    @property
    def more(self) -> list[Control]:
        return self.controls[len(self.few) :]

    @property
    def set_in_more(self) -> int:
        return sum(control.is_set for control in self.more)

    @property
    def is_wide(self) -> bool:
        """Whether it needs room for lines of several parts."""
        return any(control.kind == "lines" and "|" in control.hint for control in self.controls)


def told_whether_set(groups: Iterable[Group], node: Any) -> list[Group]:
    """The same groups, in which the node's own controls know whether they are set."""
    return [
        replace(group, controls=[replace(one, is_set=_is_set(one, node)) for one in group.controls]) for group in groups
    ]


def _is_set(control: Control, node: Any) -> bool:
    listed = type(node).model_fields.get(control.field)
    if listed is None or control.language or control.band:
        return bool(control.value)
    return bool(getattr(node, control.field) != listed.get_default(call_default_factory=True))


def words(node: Any, name: str, label: str, site: Site) -> list[Control]:
    """A text, with one field for the site's own language and the others behind their number."""
    return [_in_languages("text", node, name, label, site)]


def _in_languages(kind: str, node: Any, name: str, label: str, site: Site) -> Control:
    said: Translatable = getattr(node, name)
    own = Control(kind, label, getattr(node, "id", ROOT), name, said.text, lang=site.language)
    texts = {one.language: one.text for one in said.translations}
    others = [
        replace(
            own,
            label=f"in {language_name(language)}",
            value=texts.get(language, ""),
            language=language,
            hint=said.text if kind == "text" else "",
            lang=language,
        )
        for language in languages_of(site)
    ]
    return replace(own, others=others)


def languages_of(site: Site) -> list[str]:
    """The languages of the site's pages other than its own."""
    return sorted({page.language for page in site.pages} - {site.language})


def category_choices(site: Site, nothing: str) -> list[Choice]:
    """What something may wait for; `nothing`: what it is where none is chosen."""
    return [("", nothing), *((one.id, one.called(site.language)) for one in site.categories)]


def text(node: Any, name: str, label: str) -> Control:
    return Control("text", label, node.id, name, getattr(node, name))


def order(node: Any, slot: str, names: Sequence[str]) -> list[Control]:
    """The nodes of a slot, to be dragged into another order."""
    nodes = getattr(node, slot)
    listed = [(below.id, name) for below, name in zip(nodes, names, strict=True)]
    return [Control("order", "Order", node.id, slot, "", listed)] if len(nodes) > 1 else []


def note(node: Any, sentence: str) -> Control:
    return Control("note", sentence, node.id, "", "")


def yes(node: Any, name: str, label: str) -> Control:
    return Control("yes", label, node.id, name, getattr(node, name))


def px(node: Any, name: str, label: str, greatest: int) -> Control:
    return number(node, name, label, "px", 0, greatest)


def number(node: Any, name: str, label: str, unit: str, least: int, greatest: int) -> Control:
    value = getattr(node, name)
    shown = "" if value is None else value
    lowest, highest = control_limits(node.__class__, name)
    least, greatest = max(least, lowest or least), min(greatest, highest or greatest)
    return Control("number", label, node.id, name, shown, unit=unit, least=least, greatest=greatest)


@cache
def control_limits(kind: type[Value], name: str) -> tuple[int | None, int | None]:
    """The least and the greatest number that the model allows for a field."""
    schema = kind.model_json_schema()["properties"][name]
    parts = [schema, *schema.get("anyOf", ())]
    least, most = (next((int(part[key]) for part in parts if key in part), None) for key in ("minimum", "maximum"))
    return least, most


def shape(node: Any) -> Control:
    """Of icons that lead somewhere; one that is no shape of these is said to be its own."""
    now = shape_of(node)
    own = [(OWN_SHAPE, "its own")] if now is None else []
    listed = [*own, *((name, name or "plain") for name in SHAPES)]
    return Control("choice", "Shape", node.id, "shape", OWN_SHAPE if now is None else now, listed)


OWN_SHAPE = "own"


def leads_to(node: Any, site: Site) -> list[Control]:
    """Where an item leads, and in which window; that only where it leads somewhere."""
    window = [yes(node, "new_window", "Opens a new window")] if node.target.kind != "nothing" else []
    return [link_control(node, site), *window]


def link_control(node: Any, site: Site) -> Control:
    return Control(
        "text",
        "Leads to",
        node.id,
        "target",
        target_in_words(node.target, site),
        suggestions="paths",
        hint="/path, address, mail or telephone",
    )


def target_in_words(target: Target, site: Site) -> str:
    return as_typed(target, lambda asked: next((page.path for page in site.pages if page.id == asked), ""))


def track_in_words(track: Track) -> str:
    return {"content": "content", "share": f"share {track.amount}", "fixed": f"{track.amount} px"}[track.kind]


def rich(node: Any, name: str, label: str, site: Site) -> Control:
    """As `words`, of a text with marks."""
    return _in_languages("rich", node, name, label, site)


def pictures(node: Any, name: str, site: Site, none: str) -> Control:
    """One of the pictures among the site's files."""
    listed = [("", none)] + [(asset.path, asset.path) for asset in site.assets if is_picture(asset.path)]
    return Control("choice", "Picture", node.id, name, getattr(node, name) or "", listed)


def choice(node: Any, name: str, label: str, choices: Sequence[Choice]) -> Control:
    return Control("choice", label, node.id, name, getattr(node, name) or "", choices)


def words_shown(node: Any) -> Control:
    return choice(node, "words_shown", "Word", (("none", "not shown"), ("beside", "beside it"), ("below", "below it")))
