"""Which CSS rules make the browser find the values that `core.style.resolve` finds?

Each layer that an element asks is a cascade layer. All declarations are important, so that the layer declared first
wins (CSS Cascade 5, 6.4.4): one's own, the looks worn, the piece's defaults, the site's, the ring, what is built in.
Within a layer a state outweighs rest by its specificity, and a band outweighs all widths by coming later.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from functools import cached_property

from ...kinds.items.menu import MenuItem
from ...kinds.pieces.asking import Asking
from ...kinds.pieces.base import Piece
from ...kinds.pieces.float import Float
from ...kinds.pieces.sidebar import Sidebar
from ...kinds.rule import Rule, inside
from ...model.editing.check import roles_of, unseen_of
from ...model.site import Site, drawer_width
from ...style.built_in import BUILT_IN
from ...style.foundations import foundation_values
from ...style.lengths import whatever_the_root
from ...style.paint.colour import Palette, read_colour
from ...style.resolve import SOME_OF, StyledElement, Styling, built_in, relative_to, said_of, wearers
from ...values.properties import OWN_PROPERTIES, PROPERTIES
from ...values.styling import STATES, STATES_OF, Declaration, Part, State
from ..naming import look_class
from .part_selectors import PART_SELECTORS, ROLE_SELECTORS, outside_drawers, own_selector
from .width_rules import media

_Said = Mapping[str, Mapping[tuple[State, str | None], str]]

_OPENED: tuple[Part, ...] = ("panel", "opened")
CALM, LIVELY = "(prefers-reduced-motion:reduce)", "(prefers-reduced-motion:no-preference)"
STILL = ":where(:not(.rim,.rim-row,.rim-cell,.rim-block,.rim-divider,.rim-upright,.rim-menu))"
"""Behind a selector: but not what has no other state than rest."""
STATE_SELECTORS: dict[State, str] = {
    "rest": "",
    "current": "[aria-current]",
    "hover": ":hover",
    "focus": ":focus-visible",
    "pressed": ":active",
    "placeholder": "::placeholder",
    "invalid": ':is(:user-invalid,[aria-invalid="true"])',
    "disabled": ":disabled",
}
FORCED: tuple[State, ...] = ("hover", "focus", "pressed")
"""States that a specimen cannot have by its markup; there a class stands for them."""


_NO_BLEED = {"border-image-source": "none"}
DRIFT_PX = 2000
"""Over which scrolled way a background that moves slower does so; then it stands."""


def css_name(name: str) -> str:
    """A property's name in the published CSS."""
    return f"--rim-{name}" if name in OWN_PROPERTIES else name


def registered(property_: str, syntax: str, initial: str) -> Rule:
    """A custom property that can be animated (CSS Properties and Values 1, 2)."""
    declared = {"syntax": f'"<{syntax}>"', "inherits": "false", "initial-value": initial}
    return Rule(f"@property {property_}", declared)


def drift_rules(key: str) -> Iterator[Rule]:
    """What the drift of backgrounds needs besides: registered custom properties, and their animation."""
    yield registered(f"--{key}-background-drift", "number", "0")
    yield registered(f"--{key}-drift", "length", "0px")
    drifted = {f"--{key}-drift": f"calc(var(--{key}-background-drift) * {DRIFT_PX}px)"}
    yield Rule("to", drifted, (f"@keyframes {key}-drift",))


class StyleRules:
    """The rules of one site. `families` for each face in use. `forced`: a class such as `rim-as-hover` puts an element
    into that state, for specimens."""

    def __init__(
        self, styling: Styling, families: Mapping[str, str], *, forced: bool = False, only_band: str | None = None
    ) -> None:
        self.site = site = styling.site
        self.styling = styling
        self.palette = Palette(site)
        self._families = families
        self._forced = forced
        self._only_band = only_band
        self._bands = {band.id: query for band in site.bands for query in band_queries(site, {band.id})}
        self._bands = self._bands if len(site.bands) > 1 else dict.fromkeys(self._bands, "")

    def layers(self) -> Iterator[tuple[str, Iterator[Rule]]]:
        """Names of the layers in the order in which they are declared, and the rules in each."""
        yield "w", self._drifts()
        yield "p", self._opened()
        yield "l", self._written(self._own(lambda part: part in SOME_OF))
        yield "a", self._written(self._own(lambda part: part not in {*SOME_OF, *_OPENED}))
        depth = max((len(element.wears) for element in self.styling.holders.values()), default=0)
        for position in reversed(range(depth)):
            for part in ("content", "title", "box"):
                yield f"b{position}{part[0]}", self._written(self._looks(position, part))
        yield "c", self._written(self._piece_defaults())
        yield "d", self._written(self._site_defaults())
        yield "e", self._written(self._rings_of_pieces())
        yield "f", self._written(self._ring())

    def declared(self, selector: str, styles: Iterable[Declaration]) -> Iterator[Rule]:
        """Rules for declarations of a box at rest."""
        return self._written([(selector, said_of(styles, "box"))])

    def grounded(self, selectors: str, node: str) -> Iterator[Rule]:
        """That what is painted of a piece, as it is in one of its stages, goes on to both edges of the viewport."""
        element = self.styling.elements[node, "box"]
        written = {band: self._bleed(element, band) or _NO_BLEED for band in self._all_bands()}
        first = next(iter(written.values()))
        if all(declared == first for declared in written.values()):
            yield Rule(selectors, first)
            return
        for band, declared in written.items():
            yield from self._in_band(band, [Rule(selectors, declared)])

    def base(self) -> Iterator[Rule]:
        """What is built in for the roles in use; and the grounds that reach both edges of the viewport."""
        used = [(role, selector) for role, selector in self._roles_in_use() if role in BUILT_IN]
        yield from self._written([(selector, built_in(role)) for role, selector in used if role != "drawer"])
        menus = (holder for holder in self.styling.holders.values() if isinstance(holder, MenuItem))
        for below in sorted({width for menu in menus if (width := drawer_width(menu, self.site))}):
            drawer = f".rim-below-{below} {ROLE_SELECTORS['drawer']}"
            yield from inside(self._where_opened("opened", below), self._written([(drawer, built_in("drawer"))]))
        yield from self._bleeds()
        yield from self._drawer_grounds()

    def _own(self, counts: Callable[[Part], bool]) -> Iterator[tuple[str, _Said]]:
        for holder in self.styling.holders.values():
            for part in filter(counts, dict.fromkeys(style.part for style in holder.styles)):
                said = said_of(holder.styles, part)
                yield own_selector(holder, part), _of_the_root(said) if isinstance(holder, Piece) else said

    def _opened(self) -> Iterator[Rule]:
        """What opens below entries of a row, and what a menu's button opens: where the menu is a row, and where not."""
        for holder in self.styling.holders.values():
            for part in _OPENED:
                said = said_of(holder.styles, part)
                if said and part not in unseen_of(holder):
                    where = self._where_opened(part, drawer_width(holder, self.site))
                    yield from inside(where, self._written([(own_selector(holder, part), said)]))

    def _where_opened(self, part: Part, below: int | None) -> tuple[str, ...]:
        if self._only_band is not None or (below is None and part == "panel"):
            return ()
        return media(f"(width < {below or 0}px)" if part == "opened" else f"(width >= {below}px)")

    def _looks(self, position: int, part: Part) -> Iterator[tuple[str, _Said]]:
        for look in self.site.looks:
            said = said_of(look.styles, part)
            worn = [
                node
                for node in wearers(self.site, look.id)
                if len(node.wears) > position and node.wears[position] == look.id
            ]
            menus = [node for node in worn if roles_of(node)["box"] == "menu"]
            still = [node for node in worn if node not in menus and len(STATES_OF[roles_of(node)["box"]]) == 1]
            pressed = len(worn) > len(menus) + len(still)
            own = f".rim-{look_class(look.id, position)}"
            resting, moving = _by_rest(said)
            if part != "title":
                plain = f"{own}:not(.rim-menu)" if part == "content" and menus else own
                yield plain, resting
                if pressed:
                    yield f"{plain}{STILL}" if menus or still else plain, moving
            if part != "box" and menus:
                inner = PART_SELECTORS[part]
                if any(isinstance(node, MenuItem) and node.drawer for node in menus):
                    inner = outside_drawers(inner)
                yield f"{own}.rim-menu{inner}", said

    def _piece_defaults(self) -> Iterator[tuple[str, _Said]]:
        for piece in self.site.pieces:
            for default in piece.roles:
                selector = ROLE_SELECTORS.get(default.role)
                if selector is not None and default.role not in {"piece", "float", "ring"}:
                    inner = outside_drawers(selector) if self.site.drawers_in(piece) else selector
                    yield f".rim-{piece.id} {inner}", said_of(default.styles, "box")

    def _rings_of_pieces(self) -> Iterator[tuple[str, _Said]]:
        for piece in self.site.pieces:
            for default in piece.roles:
                if default.role == "ring":
                    inner = outside_drawers("") if self.site.drawers_in(piece) else ""
                    yield f".rim-{piece.id} {inner}:focus-visible", said_of(default.styles, "box")

    def _site_defaults(self) -> Iterator[tuple[str, _Said]]:
        defaults: dict[str, _Said] = {default.role: said_of(default.styles, "box") for default in self.site.roles}
        for role, selector in self._roles_in_use():
            if role == "ring":
                continue
            said: dict[str, dict[tuple[State, str | None], str]] = {
                name: {("rest", None): value} for name, value in foundation_values(self.site, role).items()
            }
            for name, values in defaults.get(role, {}).items():
                said[name] = {**said.get(name, {}), **values}
            yield selector, _of_the_root(said) if role in {"piece", "float"} else said

    def _ring(self) -> Iterator[tuple[str, _Said]]:
        for default in self.site.roles:
            if default.role == "ring":
                # The selector is the state itself.
                yield ROLE_SELECTORS["ring"], said_of(default.styles, "box")

    def _roles_in_use(self) -> Iterator[tuple[str, str]]:
        unseen = {node: unseen_of(holder) for node, holder in self.styling.holders.items()}
        shown = (one for one in self.styling.elements.values() if one.part not in unseen.get(one.node, ()))
        used = {element.role for element in shown} | {"ring"}
        if self._forced:
            used = set(ROLE_SELECTORS)
        for role, selector in ROLE_SELECTORS.items():
            if role in used:
                yield role, selector

    def _written(self, listed: Iterable[tuple[str, _Said]]) -> Iterator[Rule]:
        """Rules by state and band, weak to strong; what says the same is written once."""
        selectors: dict[tuple[int, int], dict[tuple[tuple[str, str], ...], list[str]]] = {}
        order: dict[str | None, int] = {None: -1, **{band.id: at for at, band in enumerate(self.site.bands)}}
        for selector, said in listed:
            declared: dict[tuple[State, str | None], dict[str, str]] = {}
            for name in sorted(said, key=_ORDER.__getitem__):
                for key, value in said[name].items():
                    declared.setdefault(key, {})[css_name(name)] = self.published(name, value)
            for (state, band), declarations in declared.items():
                alike = selectors.setdefault((STATES.index(state), order[band]), {})
                said_once = tuple(_shortened(declarations).items())
                alike.setdefault(said_once, []).append(self._in_state(selector, state))
        bands = {at: band for band, at in order.items()}
        for (_, at), by_body in sorted(selectors.items()):
            rules = (Rule(",".join(dict.fromkeys(of_it)), dict(body)) for body, of_it in by_body.items())
            yield from self._in_band(bands[at], rules)

    def _in_state(self, selector: str, state: State) -> str:
        if selector.endswith(":focus-visible"):
            return (
                f"{selector[: -len(':focus-visible')]}:is(:focus-visible,.rim-as-focus)" if self._forced else selector
            )
        suffix = STATE_SELECTORS[state]
        if self._forced and state in FORCED:
            suffix = f":is({suffix},.rim-as-{state})"
        return selector + suffix

    def _in_band(self, band: str | None, rules: Iterable[Rule]) -> Iterator[Rule]:
        if self._only_band is not None and band is not None:
            return iter(rules if band == self._only_band else ())
        return inside(media(self._bands.get(band or "", "")), rules)

    def published(self, name: str, value: str) -> str:
        """A value as the browser is told it."""
        if name == "font-family":
            return self._families.get(value, "system-ui,sans-serif")
        return whatever_the_root(self.palette.published(value))

    def _bleeds(self) -> Iterator[Rule]:
        """What opens in a piece or row has its ground. A plain one goes on to both edges of the viewport, however narrow
        the body, but for pieces that are narrower themselves: a border image's outset takes no room and cannot be scrolled
        to (CSS Backgrounds 3, 5.4)."""
        for element in self.styling.elements.values():
            if element.role not in {"piece", "row", "float"} or element.node in self.styling.stages:
                continue
            ground = self._named_ground if element.piece in self._narrow else self._bleed
            written = {band: ground(element, band) for band in self._all_bands()}
            usual = max(written.values(), key=list(written.values()).count)
            selector = f".rim-{element.node}"
            if usual:
                yield Rule(selector, usual)
            for band, declared in written.items():
                if declared != usual:
                    # What is said of most bands is taken back in this one.
                    gone = [name for name in usual if name not in declared]
                    back = {name: "inherit" for name in gone if name.startswith("--")}
                    bare = _NO_BLEED if "border-image" in gone else {}
                    yield from self._in_band(band, [Rule(selector, {**declared, **back, **bare})])

    @cached_property
    def _narrow(self) -> frozenset[str]:
        kinds = (Sidebar, Float, Asking)
        return frozenset(piece.id for piece in self.site.pieces if isinstance(piece, kinds))

    def _named_ground(self, element: StyledElement, band: str | None) -> dict[str, str]:
        ground = self.styling.resolve(element, "background-color", "rest", band).value
        if element.role != "row" and element.piece in self._narrow and self.palette.is_clear(ground):
            ground = "@:ground"
        is_seen = element.role != "row" or not self.palette.is_clear(ground)
        return {"--rim-ground": self.palette.published(ground)} if is_seen else {}

    def _bleed(self, element: StyledElement, band: str | None) -> dict[str, str]:
        def value(name: str) -> str:
            return self.styling.resolve(element, name, "rest", band).value

        named, ground = self._named_ground(element, band), value("background-color")
        lines = {
            side: value(f"border-{side}-style") for side in ("block-start", "block-end", "inline-start", "inline-end")
        }
        corners = {value(f"border-{corner}-radius") for corner in ("start-start", "start-end", "end-end", "end-start")}
        plain = value("background-image") == "none" and corners == {"0"} and value("box-shadow") == "none"
        plain = plain and lines["inline-start"] == lines["inline-end"] == "none"
        plain = plain and {lines["block-start"], lines["block-end"]} <= {"none", "solid"}
        resolved = self.palette.resolved(ground)
        opaque = resolved.lower() != "currentcolor" and read_colour(resolved).alpha == 1
        drawn = lines["block-start"] == "solid" or lines["block-end"] == "solid"
        if not plain or not (opaque or (drawn and self.palette.is_clear(ground))):
            return named
        painted = f"linear-gradient(to top,{self._stops(value, lines)})"
        return {**named, "border-image": f"{painted} 0 fill/0/0 100vmax"}

    def _drawer_grounds(self) -> Iterator[Rule]:
        """A drawer's own ground is the one of what stands in it and has none."""
        for element in self.styling.elements.values():
            below = drawer_width(self.styling.holders[element.node], self.site) if element.role == "drawer" else None
            for band in self._all_bands() if below else ():
                ground, source = self.styling.resolve(element, "background-color", "rest", band)
                if source.layer != "inherited":
                    declared = {"--rim-ground": self.palette.published(ground)}
                    rule = Rule(own_selector(self.styling.holders[element.node], "opened"), declared)
                    yield from inside(self._where_opened("opened", below), self._in_band(band, [rule]))

    def _all_bands(self) -> list[str | None]:
        return [band.id for band in self.site.bands] or [None]

    def _drifts(self) -> Iterator[Rule]:
        """Backgrounds that move slower than what they lie behind: their place follows the scrolled way, by an animation
        of a custom property, since an important declaration outweighs animations (Scroll-driven Animations 1)."""
        if not any(style.property == "background-drift" for style in self._declarations()):
            return
        for element in self.styling.elements.values():
            for band in self._all_bands():

                def value(name: str, element: StyledElement = element, band: str | None = band) -> str:
                    return self.styling.resolve(element, name, "rest", band).value

                if float(value("background-drift")) == 0 or value("background-image") == "none":
                    continue
                down = {"top": "0%", "center": "50%", "bottom": "100%"}
                place = value("background-position").split(" ")[1]
                declared = {
                    "background-position-y": f"calc({down.get(place, place)} + var(--rim-drift))",
                    "animation-name": f"{self.site.key}-drift",
                    "animation-timing-function": "linear",
                    "animation-fill-mode": "both",
                    "animation-timeline": "scroll(root)",
                    "animation-range": f"0 {DRIFT_PX}px",
                }
                holder = self.styling.holders.get(element.node)
                own = f".rim-{element.node}" if holder is None else own_selector(holder, element.part)
                yield from self._in_band(band, [Rule(own, declared, media(LIVELY))])

    def _declarations(self) -> Iterator[Declaration]:
        for holder in (*self.styling.holders.values(), *self.site.looks, *self.site.roles):
            yield from holder.styles
        for piece in self.site.pieces:
            for default in piece.roles:
                yield from default.styles

    def _stops(self, value: Callable[[str], str], lines: Mapping[str, str]) -> str:
        ground = self.palette.published(value("background-color"))
        stops = []
        if lines["block-end"] == "solid":
            colour = self.palette.published(value("border-block-end-color"))
            stops += [f"{colour} {line_width(value('border-block-end-width'))}", f"{ground} 0"]
        else:
            stops.append(ground)
        if lines["block-start"] == "solid":
            colour = self.palette.published(value("border-block-start-color"))
            stops += [f"{ground} calc(100% - {line_width(value('border-block-start-width'))})", f"{colour} 0"]
        else:
            stops.append(ground)
        return ",".join(stops)


def line_width(value: str) -> str:
    """As a length that can be reckoned with (CSS Backgrounds 3, 3.3)."""
    return {"thin": "1px", "medium": "3px", "thick": "5px"}.get(value, whatever_the_root(value))


def _of_the_root(said: _Said) -> _Said:
    """A piece's own size, where it is relative: to 16 px, as it was resolved, and not to whatever size a page's text
    has."""
    sizes = said.get("font-size")
    if sizes is None:
        return said
    return {**said, "font-size": {key: relative_to(value, "16px", ("em", "%")) for key, value in sizes.items()}}


_ORDER = {name: at for at, name in enumerate(PROPERTIES)}


_SIDES = ("block-start", "inline-end", "block-end", "inline-start")
_CORNERS = ("start-start", "start-end", "end-end", "end-start")
_SHORT = {
    "border-radius": [f"border-{corner}-radius" for corner in _CORNERS],
    "border-color": [f"border-{side}-color" for side in _SIDES],
}


def _shortened(said: dict[str, str]) -> dict[str, str]:
    """The same with one for all sides, where all are alike (CSS Backgrounds 3, 3.1 and 4.1)."""
    for short, parts in _SHORT.items():
        values = {said.get(part) for part in parts}
        if len(values) == 1 and (value := values.pop()) is not None:
            said = {name: each for name, each in said.items() if name not in parts} | {short: value}
    return said


def _by_rest(said: _Said) -> tuple[_Said, _Said]:
    """What is said of rest, and what of other states."""
    resting: dict[str, dict[tuple[State, str | None], str]] = {}
    moving: dict[str, dict[tuple[State, str | None], str]] = {}
    for name, values in said.items():
        for key, value in values.items():
            (resting if key[0] == "rest" else moving).setdefault(name, {})[key] = value
    return resting, moving


def band_queries(site: Site, bands: set[str]) -> Iterator[str]:
    """Media queries that together match exactly the given bands; neighbours are joined."""
    start: int | None = None
    for at, band in enumerate(site.bands):
        if band.id in bands and start is None:
            start = band.from_px
        ends = at + 1 == len(site.bands) or site.bands[at + 1].id not in bands
        if band.id in bands and ends and start is not None:
            upper = [f"(width < {site.bands[at + 1].from_px}px)"] if at + 1 < len(site.bands) else []
            lower = [f"(width >= {start}px)"] if start or not upper else []
            yield " and ".join(lower + upper)
            start = None
