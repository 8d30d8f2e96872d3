"""What do several values mean that were typed as one text: columns, opening hours, addresses?"""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any, cast, get_args

from django.http import QueryDict
from pydantic import JsonValue

from ....core.exchange.html.lifting import selector_fault
from ....core.kinds.consent import COOKIE_NAME
from ....core.kinds.items.contact import Day
from ....core.kinds.items.form import FieldKind
from ....core.kinds.moving import Stage
from ....core.kinds.pieces.header import Header
from ....core.model.editing.edits import Add, Edit, Remove, Set, Together
from ....core.model.navigation.menus import Menus
from ....core.model.site import Site
from ....core.model.tree import ROOT
from ....core.style.paint.colour import hex_colour
from ...sites import ids
from ..controls.items.menu import offered_entries
from ..controls.of_movement import parts_of
from .form_error import FormError, Posted
from .targets import target_of


def _columns(site: Site, row: Any, post: QueryDict) -> JsonValue:
    """How many columns a row has in one width band, the others as they are; nothing: side by side."""
    return _by_band(site, row.columns, post, "count")


def _aligned(site: Site, cell: Any, post: QueryDict) -> JsonValue:
    """Where a cell's items stand in one width band; nothing: as at all widths."""
    return _by_band(site, cell.aligned, post, "align")


def _moves_in(site: Site, piece: Any, post: QueryDict) -> JsonValue:
    """How a piece goes with the page in one width band; nothing: as at all widths."""
    return _by_band(site, piece.moves_in, post, "way")


def _distance(site: Site, holder: Any, post: QueryDict) -> JsonValue:
    """A number and what it counts, or a selector; nothing: no distance."""
    value, kind = post.get("value", "").strip(), post.get("unit", "px")
    field = {"px": "px", "viewport": "percent", "page": "percent", "element": "selector"}.get(kind)
    name = post.get("field", "")
    if field is None:
        raise FormError(holder.id, name, "choose what the distance counts")
    if not value and name == "hides_until":
        return None
    if field == "selector":
        fault = selector_fault(value) if value else "say which element, as a CSS selector such as #start"
        if fault:
            raise FormError(holder.id, name, f"{fault}")
    elif not value.isdecimal():
        raise FormError(holder.id, name, "a distance is a whole number, 0 or more")
    return {"kind": kind, field: value}


def _by_band(site: Site, values: Any, post: QueryDict, field: str) -> JsonValue:
    band, value = post.get("band", ""), post.get("value", "").strip()
    others = [one.model_dump(mode="json") for one in values if one.band != band]
    if value:
        others.append({"band": band, field: value})
    order = [known.id for known in site.bands]
    return cast(JsonValue, sorted(others, key=lambda one: order.index(one["band"]) if one["band"] in order else 0))


def _grows(site: Site, holder: Any, post: QueryDict) -> JsonValue:
    """Which pages grow in a branch; or that one of them is left out of it, or is not any more."""
    known = holder.grows.model_dump(mode="json") if holder.grows else {}
    if post.get("leave") or post.get("back"):
        if not known:
            raise FormError(holder.id, "grows", "nothing grows there any more")
        without = [page for page in known["without"] if page not in {post.get("leave"), post.get("back")}]
        return {**known, "without": [*without, post["leave"]] if post.get("leave") else without}
    path = post.get("path", "").strip()
    if not path:
        return None
    page = next((page for page in site.pages if page.path.rstrip("/") == path.rstrip("/")), None)
    return {
        **known,
        "path": page.path if page else path if path.startswith("/") else f"/{path}",
        "depth": post.get("depth") or known.get("depth", 2),
        "order": post.get("order") or known.get("order", "path"),
    }


def _without(site: Site, item: Any, post: QueryDict) -> JsonValue:
    """The entries that an item leaves out, or the parts that a stage does: those that were offered and are not
    ticked."""
    shown = set(post.getlist("values"))
    if isinstance(item, Stage):
        piece = next(one for one in site.pieces if isinstance(one, Header) and item in one.stages)
        return [part for part in parts_of(site, piece) if part not in shown]
    offered = [entry.id for entry in offered_entries(item, Menus(site))]
    kept = [entry for entry in item.without if entry not in offered]
    return cast(JsonValue, [*kept, *(entry for entry in offered if entry not in shown)])


_HOURS = re.compile(r"([A-Za-z ,–-]+?)\s+(\d{1,2}:\d\d)\s*[-–]\s*(\d{1,2}:\d\d)")


def _hours(site: Site, contact: Any, post: QueryDict) -> JsonValue:
    """Opening hours as they are typed, a line each: `Mo-Fr 09:00-17:30`."""
    found: list[JsonValue] = []
    for at, line in enumerate(post.get("value", "").splitlines(), 1):
        if not line.strip():
            continue
        read = _HOURS.fullmatch(line.strip())
        days = _days(read[1]) if read else []
        if read is None or not days:
            words = "it is not understood; write it as Mo-Fr 09:00-17:30, with Mo Tu We Th Fr Sa Su"
            raise FormError(contact.id, "hours", words, at)
        found.append({"days": cast(JsonValue, days), "opens": read[2].zfill(5), "closes": read[3].zfill(5)})
    return found


def _days(text: str) -> list[str]:
    """Days of the week from `Mo-Fr, Su`; nothing where one of them is none."""
    order = list(get_args(Day))
    days: list[str] = []
    for part in re.split(r"\s*,\s*|\s+", re.sub(r"\s*[-–]\s*", "-", text.strip())):
        ends = [end[:2].title() for end in part.split("-")]
        if not all(end in order for end in ends) or len(ends) > 2:
            return []
        first, last = order.index(ends[0]), order.index(ends[-1])
        days += order[first : last + 1] if first <= last else [*order[first:], *order[: last + 1]]
    return list(dict.fromkeys(days))


def profiles(site: Site, row: Any, post: QueryDict) -> Posted:
    """Addresses as they are pasted, or a line each: address | name | colour. One that was there already keeps its id;
    its name too, where the line says none."""
    names = {profile.address: profile.name for profile in row.profiles}
    said: dict[str, dict[str, Any]] = {}
    for at, line in enumerate(post.get("value", "").splitlines(), 1):
        parts = [part.strip() for part in line.split("|")] if "|" in line else []
        for typed in [parts[0]] if parts else line.split():
            address = _profile_address(site, row.id, typed, at)
            name, colour = ([*parts[1:], "", ""])[:2] if parts else (names.get(address, ""), "")
            said.setdefault(address, {"address": address, "name": name, "colour": _hex(row.id, at, colour)})
    return _kept(row, "profiles", "pf", list(said.values()), "address")


def _hex(row: str, at: int, colour: str) -> str:
    """A colour in any spelling, as #rrggbb."""
    try:
        return hex_colour(colour) if colour else ""
    except ValueError:
        raise FormError(row, "profiles", f"“{colour}” is no colour; write it as #1f5c57, say", at) from None


def _profile_address(site: Site, row: str, line: str, at: int) -> str:
    target = cast(dict[str, JsonValue], target_of(site, line.rstrip(",;")))
    address = str(target.get("address", ""))
    if not address.lower().startswith(("https://", "http://", "mailto:", "tel:")):
        words = f"“{line}” is no address elsewhere; one begins with https://, or is a mail address or telephone number"
        raise FormError(row, "profiles", words, at)
    return address


_FIELD_KINDS = list(get_args(FieldKind))


def picture_links(site: Site, holder: Any, post: QueryDict) -> Posted:
    """Links of a picture list, a line each: title | second line | picture | where it leads."""
    pictures = {asset.path for asset in site.assets}

    def read(parts: list[str]) -> dict[str, Any]:
        picture = parts[2] and f"/{parts[2].lstrip('/')}"
        if picture and picture not in pictures:
            raise FormError(holder.id, "links", f"there is no picture at {picture} among the site’s files")
        return {"words": parts[0], "second": parts[1], "picture": picture or None, "target": target_of(site, parts[3])}

    return _nodes(holder, "links", "pl", post, read, ("words", "second"), "title | second line | picture | link")


def form_fields(site: Site, holder: Any, post: QueryDict) -> Posted:
    """Fields of a form, a line each: label* | kind | placeholder, or the choices | pattern. The star: it is needed."""

    def read(parts: list[str]) -> dict[str, Any]:
        label, kind = parts[0], parts[1].lower() or "text"
        if kind not in _FIELD_KINDS:
            words = f"there is no kind “{parts[1]}”; there are {', '.join(_FIELD_KINDS)}"
            raise FormError(holder.id, "fields", words)
        choices = [one.strip() for one in parts[2].split(",") if one.strip()] if kind == "choice" else []
        if kind == "choice" and not choices:
            raise FormError(holder.id, "fields", "name the choices, with commas between them")
        if not _is_pattern(parts[3]):
            raise FormError(holder.id, "fields", f"“{parts[3]}” is no regular expression")
        return {
            "words": label.rstrip("* "),
            "required": label.endswith("*"),
            "kind": kind,
            "placeholder": "" if choices else parts[2],
            "choices": choices,
            "pattern": parts[3],
        }

    return _nodes(holder, "fields", "fd", post, read, ("words", "placeholder"), "label* | kind | placeholder | pattern")


def _is_pattern(text: str) -> bool:
    try:
        re.compile(text)
    except re.error:
        return False
    return True


def _nodes(
    holder: Any,
    slot: str,
    prefix: str,
    post: QueryDict,
    read: Callable[[list[str]], dict[str, Any]],
    worded: tuple[str, ...],
    form: str,
) -> Posted:
    """What a list of nodes becomes that is typed as lines of four parts. A node whose words are still there keeps its
    id, and its translations."""
    rows = []
    for at, line in enumerate(post.get("value", "").splitlines(), 1):
        if not line.strip():
            continue
        parts = [part.strip() for part in line.split("|")]
        if len(parts) > 4 or not parts[0].rstrip("* "):
            raise FormError(holder.id, slot, f"it is not understood; write {form}", at)
        try:
            rows.append(read(parts + [""] * (4 - len(parts))))
        except FormError as unclear:
            raise FormError(holder.id, slot, unclear.fault.words, at) from None
    return _kept(holder, slot, prefix, rows, "words", worded)


def _kept(
    holder: Any, slot: str, prefix: str, rows: list[dict[str, Any]], key: str, worded: tuple[str, ...] = ()
) -> Posted:
    """The edit that makes a slot hold these rows. A node that is the same by `key` keeps its id, and the translations
    of what is `worded`."""
    before = [node.model_dump(mode="json") for node in getattr(holder, slot)]
    known = {node[key]["text"] if key in worded else node[key]: node for node in before}
    made: list[JsonValue] = []
    for said in rows:
        node = known.pop(said[key], None) or {"id": ids.new_id(prefix)}
        made.append({**node, **said, **{name: {**node.get(name, {}), "text": said[name]} for name in worded}})
    if made == before:
        return Posted(Set(node=holder.id, field="wears", value=list(holder.wears)))
    gone = tuple(str(node["id"]) for node in before)
    removal: list[Edit] = [Remove(nodes=gone)] if gone else []
    addition: list[Edit] = [Add(parent=holder.id, slot=slot, values=tuple(made))] if made else []
    return Posted(Together(edits=(*removal, *addition)))


NODES: dict[str, Callable[[Site, Any, QueryDict], Posted]] = {
    "profiles": profiles,
    "links": picture_links,
    "fields": form_fields,
}
"""Slots whose nodes are typed as one text."""


def _years_by_region(site: Site, gate: Any, post: QueryDict) -> JsonValue:
    """`IS 20, US 21`: a region, and the age that is asked for there."""
    found: list[JsonValue] = []
    for part in filter(None, (part.strip() for part in post.get("value", "").split(","))):
        said = re.fullmatch(r"([A-Za-z]{2}(?:-[A-Za-z0-9]{1,3})?)[\s:]+(\d{1,2})", part)
        if said is None or not int(said[2]):
            raise FormError(gate.id, "by_region", f"“{part}” is no region with an age: IS 20, say, or US-CA 21")
        found.append({"region": said[1].upper(), "years": int(said[2])})
    return found


def _groups(site: Site, gate: Any, post: QueryDict) -> JsonValue:
    """Names of groups of members, with commas between."""
    names = [name.strip().lower() for name in post.get("value", "").split(",") if name.strip()]
    wrong = next((name for name in names if not re.fullmatch(r"[a-z][a-z0-9-]{0,39}", name)), None)
    if wrong is not None:
        raise FormError(gate.id, "excused", f"a group is called by letters, digits and hyphens, not “{wrong}”")
    return list(dict.fromkeys(names))


def _modes(site: Site, rules: Any, post: QueryDict) -> JsonValue:
    """`US opt-in, CH notice`: a region, and how it is there."""
    found: list[JsonValue] = []
    for part in filter(None, (part.strip() for part in post.get("value", "").split(","))):
        said = re.fullmatch(r"([A-Za-z]{2}(?:-[A-Za-z0-9]{1,3})?)[\s:]+(opt-in|opt-out|notice)", part)
        if said is None:
            words = f"“{part}” is no region with opt-in, opt-out or notice: US opt-in, say"
            raise FormError(ROOT, "consent.modes", words)
        found.append({"region": said[1].upper(), "mode": said[2]})
    return found


def _cookies(site: Site, category: Any, post: QueryDict) -> JsonValue:
    """Names with commas or spaces between; a star at the end stands for whatever follows."""
    names = list(dict.fromkeys(re.findall(r"[^,\s]+", post.get("value", ""))))
    wrong = next((name for name in names if not re.fullmatch(COOKIE_NAME, name)), None)
    if wrong is not None:
        raise FormError(category.id, "cookies", f"no cookie is called “{wrong}”")
    return cast(JsonValue, names)


def _tags(site: Site, page: Any, post: QueryDict) -> JsonValue:
    """Language tags with commas or spaces between."""
    return cast(JsonValue, list(dict.fromkeys(re.findall(r"[^,\s]+", post.get("value", "")))))


LISTED: dict[str, Callable[[Site, Any, QueryDict], JsonValue]] = {
    "columns": _columns,
    "aligned": _aligned,
    "hours": _hours,
    "grows": _grows,
    "moves_in": _moves_in,
    "after": _distance,
    "hides_until": _distance,
    "without": _without,
    "by_region": _years_by_region,
    "modes": _modes,
    "cookies": _cookies,
    "excused": _groups,
    "also": _tags,
}
"""Fields that hold several values, typed as one text."""
