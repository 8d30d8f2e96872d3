"""A corpus of small faults: the demo with one thing planted each, of every kind that is looked for. Its mended twin is the
demo itself, in which nothing is found that is not let be."""

from __future__ import annotations

import hashlib
import io
from collections.abc import Callable, Iterator
from datetime import UTC, datetime
from functools import lru_cache, partial
from typing import Any, NamedTuple

from PIL import Image

from upper_rim.core.exchange.html.anatomy import anatomy
from upper_rim.core.exchange.html.outline import PageOutline, outline_of
from upper_rim.core.exchange.html.places import ids_in
from upper_rim.core.findings.whole import LookedAt
from upper_rim.core.kinds.items import ITEM_KINDS
from upper_rim.core.kinds.page_shapes import PageShape
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Add, Edit, Remove, Set, Together
from upper_rim.core.model.references import renamed
from upper_rim.core.model.site import Asset, Page, Site
from upper_rim.core.model.tree import holder_of, items_of
from upper_rim.core.movement.scene import Shape
from upper_rim.core.output.fitting import estimated_shape, fitter_of
from upper_rim.core.output.page.splicing import spliced
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

NOW = datetime(2026, 12, 2, 12, tzinfo=UTC)
_site, _contents = ostrey()
CONTENTS = dict(_contents)


class Planted(NamedTuple):
    """`kind` is found about `node` once `plant` has been at the demo. `laid`: it has to be laid out for that."""

    kind: str
    node: str
    plant: Callable[[Site], Site]
    laid: bool = False

    @property
    def name(self) -> str:
        return f"{self.kind}: {self.node}"


@lru_cache(maxsize=1)
def looked_at_demo() -> LookedAt:
    fitter = fitter_of(shelf(), _read, 2026)
    return LookedAt(fitter.resolved(_site), fitter, _read, _ids_of, _outline, _shape_of, NOW)


def _read(content: str) -> bytes:
    return CONTENTS[content]


@lru_cache(maxsize=4096)
def _outlined(content: str, cuts: Any, path: str, page: Page) -> PageOutline | None:
    return outline_of(spliced(_read(content), (), page), page.encoding, path)


def _outline(page: Page) -> PageOutline | None:
    return _outlined(page.content, page.cuts, page.path, page) if page.content else None


def _ids_of(page: Page) -> frozenset[str]:
    return ids_in(_read(page.content), page.encoding) if page.content else frozenset()


@lru_cache(maxsize=8192)
def _shape(page: Page, width: int) -> Shape:
    return estimated_shape(page, _read, width)


def _shape_of(page: Page, viewport_px: tuple[int, int]) -> Shape:
    return _shape(page, viewport_px[0])


def changed(edit: Edit) -> Callable[[Site], Site]:
    def plant(site: Site) -> Site:
        after = apply(site, edit)
        assert isinstance(after, Site), after
        return after

    return plant


def gone(*nodes: str) -> Callable[[Site], Site]:
    return changed(Together(edits=tuple(Remove(nodes=(node,)) for node in nodes)))


def put(node: str, field: str, value: Any) -> Callable[[Site], Site]:
    return changed(Set(node=node, field=field, value=value))


def added(parent: str, slot: str, *values: dict[str, Any], at: int | None = None) -> Callable[[Site], Site]:
    return changed(Add(parent=parent, slot=slot, values=values, at=at))


def styled(node: str, part: str = "box", state: str = "rest", **said: str) -> Callable[[Site], Site]:
    styles = [
        {"id": f"st-planted-{at}", "property": name.replace("_", "-"), "value": value, "part": part, "state": state}
        for at, (name, value) in enumerate(said.items())
    ]
    return added(node, "styles", *styles)


def within(field: str, value: Any, *nodes: str) -> Iterator[tuple[str, Callable[[Site], Site]]]:
    yield from ((node, put(node, field, value)) for node in nodes)


def written(path: str, old: str, new: str) -> Callable[[Site], Site]:
    """A page of the demo with other content."""

    def plant(site: Site) -> Site:
        page = next(page for page in site.pages if page.path == path)
        text = CONTENTS[page.content or ""].decode()
        assert old in text, (path, old)
        data = text.replace(old, new, 1).encode()
        name = hashlib.sha256(data).hexdigest()
        CONTENTS[name] = data
        return _with(site, page.replaced(content=name, splice=anatomy(data).splice))

    return plant


def _with(site: Site, page: Page) -> Site:
    return site.replaced(pages=tuple(page if one.id == page.id else one for one in site.pages))


def of_page(path: str, **fields: Any) -> Callable[[Site], Site]:
    return lambda site: _with(site, next(page for page in site.pages if page.path == path).replaced(**fields))


NOWHERE, TO_TOP = {"kind": "nothing"}, {"kind": "address", "address": "#"}
MADE_UP = {"kind": "address", "address": "https://www.example.com/"}
BUTTONS = ("it-book", "it-reading-book", "it-float-book", "it-call", "it-sign-in", "it-crossings")
ICONS = ("it-phone", "it-bar-times", "it-bar-harbours", "it-bar-guide")
ENTRIES = ("en-timetable", "en-fares", "en-osterhaven", "en-luggage", "en-guide", "en-releases", "en-harbours-tolsey")
FIELDS = tuple(
    field.id
    for piece in _site.pieces
    for item in items_of((piece,))
    if item.id == "it-help-form"
    for field in item.fields
)
TEXTS = ("it-tagline", "it-winter", "it-welcome", "it-spring", "it-weekend")


def _unfinished() -> Iterator[Planted]:
    for node, plant in within("target", NOWHERE, *BUTTONS, *ICONS):
        yield Planted("leads nowhere", node, plant)
    for node, plant in within("target", TO_TOP, "it-book", "it-phone", "it-tagline", *ENTRIES[:3]):
        yield Planted("leads to itself", node, plant)
    for node, plant in within("target", MADE_UP, "it-sign-in", "it-bar-times", *ENTRIES[3:6]):
        yield Planted("made-up address", node, plant)
    for node, plant in within("words", {"text": ""}, "it-book", "it-call", "it-phone"):
        yield Planted("first words", node, plant)
    yield Planted("empty list", "it-foot-harbours", put("it-foot-harbours", "menu", None))
    yield Planted("empty list", "it-menu", put("it-menu", "menu", None))
    yield Planted("empty list", "mn-planted", added("site", "menus", {"id": "mn-planted", "name": "None yet"}))
    yield Planted("empty piece", "pc-winter", changed(Remove(nodes=("it-winter",))))
    yield Planted("empty piece", "pc-book", changed(Remove(nodes=("rw-book",))))
    yield Planted("no fields", "it-help-form", changed(Remove(nodes=FIELDS)))
    yield Planted("no picture", "it-guide-picture", put("it-guide-picture", "picture", None))
    yield Planted("picture gone", "it-guide-picture", put("it-guide-picture", "picture", "/gone.png"))
    yield Planted("picture gone", "it-logo", put("it-logo", "picture", "/gone.svg"))
    yield Planted("no alternative", "it-guide-picture", put("it-guide-picture", "words", {"text": ""}))
    yield Planted("first place", "it-planted", _item("cl-help-map", "map", {}))
    yield Planted("says nothing", "it-planted", _item("cl-help-map", "embed", {}))


def _item(cell: str, kind: str, fields: dict[str, Any]) -> Callable[[Site], Site]:
    made = ITEM_KINDS[kind].model_validate({"id": "it-planted", **fields})
    return added(cell, "items", made.model_dump(mode="json"))


def _of_menus() -> Iterator[Planted]:
    for entry, page in (
        ("en-fares", "/sailings/fares/"),
        ("en-osterhaven", "/harbours/osterhaven/"),
        ("en-luggage", "/travelling/luggage/"),
    ):
        yield Planted("page gone", entry, partial(_without_page, page))
        yield Planted("to come", entry, of_page(page, content=None, splice=None))
    for node, plant in within(
        "target", {"kind": "address", "address": "/nowhere/"}, "en-fares", "en-skarrow", "en-guide-food"
    ):
        yield Planted("no page", node, plant)
    for node, plant in within("target", NOWHERE, "en-timetable", "en-guide", "en-pictures"):
        yield Planted("nothing", node, plant)
    yield Planted(
        "no place",
        "en-planted",
        added("mn-main", "entries", _entry("Rates", {"kind": "place", "page": "pg-timetable", "place": "gone"})),
    )
    yield Planted(
        "double",
        "en-planted",
        added("mn-main", "entries", _entry("Times again", {"kind": "page", "page": "pg-timetable"})),
    )
    yield Planted(
        "same label",
        "en-planted",
        added("mn-main", "entries", _entry("Fares", {"kind": "address", "address": "https://tide.example/"})),
    )
    yield Planted("nothing grows", "mn-guide", put("mn-guide", "grows", {"path": "/nowhere/"}))
    deep = _entry("One", {"kind": "address", "address": "https://tide.example/"})
    below = {
        **_entry("Two", {"kind": "address", "address": "https://tide.example/2"}),
        "id": "en-planted-2",
        "entries": [deep],
    }
    yield Planted("deep", "en-planted", added("en-osterhaven", "entries", below))
    yield Planted("two buttons in one", "it-menu", added("cl-end", "items", {**_json("it-menu"), "id": "it-menu-2"}))
    for node, plant in within("label", {"text": "Click here"}, "en-timetable", "en-luggage", "en-harbours-skarrow"):
        yield Planted("vague name", node, plant)


def _json(node: str) -> dict[str, Any]:
    made = renamed(holder_of(_site, node), lambda _, old: old, lambda old: f"{old}-2")
    assert isinstance(made, dict)
    return made


def _entry(label: str, target: dict[str, Any]) -> dict[str, Any]:
    return {"id": "en-planted", "label": {"text": label}, "target": target}


def _without_page(path: str, site: Site) -> Site:
    return site.replaced(pages=tuple(page for page in site.pages if page.path != path))


def _of_pages() -> Iterator[Planted]:
    fares, body = "/sailings/fares/", "</main>"
    yield Planted("no title", "site", written(fares, "Fares · Ostrey Ferries", " "))
    yield Planted("same title", "site", written(fares, "<title>Fares", "<title>Timetable"))
    yield Planted("two first headings", "site", written(fares, body, "<h1>Again</h1></main>"))
    yield Planted("skips a level", "site", written(fares, body, "<h2>Two</h2><h5>Five</h5></main>"))
    yield Planted("two mains", "site", written(fares, body, "</main><div role=main>x</div>"))
    yield Planted("id twice", "site", written(fares, body, "<p id=twice>x<p id=twice>y</main>"))
    yield Planted("broken link", "site", written(fares, body, '<a href="/nowhere/">x</a></main>'))
    yield Planted("broken link", "site", written("/", body, '<a href="sailings/nowhere.pdf">x</a></main>'))
    yield Planted("nameless link", "site", written(fares, body, '<a href="/"><img src="/logo.svg" alt=""></a></main>'))
    yield Planted("nameless link", "site", written(fares, body, "<button><svg></svg></button></main>"))
    yield Planted("own order", "site", written(fares, body, '<a href="/" tabindex="3">x</a></main>'))
    yield Planted("two banners", "site", written(fares, "<main", "<header>Old</header><main"))
    yield Planted("no first heading", "site", lambda site: of_page(fares, bare=True)(written(fares, "<h1", "<p")(site)))
    yield Planted("turned by CSS", _site.pages[0].id, _spliced(turned=True))
    yield Planted("two footers", "site", written(fares, "<main", "<footer>Old</footer><main"))
    yield Planted("unseen picture", "site", written(fares, body, '<img src="/logo.svg"></main>'))
    yield Planted("nameless frame", "site", written(fares, body, '<iframe src="/"></iframe></main>'))
    yield Planted("nameless field", "site", written(fares, body, '<label></label><input name="port"></main>'))
    yield Planted("empty heading", "site", written(fares, body, "<h2> </h2></main>"))
    yield Planted("dead link", "site", written(fares, body, "<a>To the harbours</a></main>"))
    yield Planted("lost file", "site", written(fares, body, '<img src="/gone.png" alt="A quay"></main>'))
    yield Planted("lost file", "site", written("/", 'href="/style.css"', 'href="/styles.css"'))
    yield Planted("no encoding", "site", written(fares, '<meta charset="utf-8">', ""))
    yield Planted("no language", "site", written(fares, '<html lang="en"', "<html"))
    yield Planted("not turned", "site", written("/ar/", ' dir="rtl"', ""))
    yield Planted("cannot grow", "site", written(fares, "initial-scale=1", "initial-scale=1, maximum-scale=1.5"))
    yield Planted(
        "no main", "site", lambda site: written("/", "</main>", "</div>")(written("/", "<main", "<div")(site))
    )
    yield Planted("no icon", "site", put("site", "icon", None))
    yield Planted("no description", "site", put("site", "description", {"text": ""}))
    yield Planted("no viewport", "site", _spliced(unscaled=True))
    yield Planted("no language", "site", of_page(fares, likely="cy"))
    yield Planted("takes no pieces", "site", of_page(fares, splice=None, remark="It is a frameset."))
    yield Planted("left as it is", "site", _left)


def _spliced(**fields: Any) -> Callable[[Site], Site]:
    def plant(site: Site) -> Site:
        page = site.pages[0]
        assert page.splice is not None
        return _with(site, page.replaced(splice=page.splice.replaced(**fields)))

    return plant


def _left(site: Site) -> Site:
    shape = PageShape(id="sh-planted", on=False, is_shell=True)
    site = site.replaced(shapes=(shape,))
    return _with(site, site.pages[0].replaced(shape=shape.id))


def _of_looks() -> Iterator[Planted]:
    yield Planted("unseen focus", "it-book", styled("it-book", state="focus", outline_style="none"))
    yield Planted("unseen focus", "it-phone", styled("it-phone", state="focus", outline_style="none"))
    yield Planted("hidden link", "it-about", styled("it-about", part="link", text_decoration_line="none"))
    yield Planted("no such weight", "it-tagline", styled("it-tagline", font_weight="1000"))
    yield Planted("same name", "it-crossings", put("it-crossings", "words", _json("it-sign-in")["words"]))
    for node, plant in within("words", {"text": "Read more"}, "it-book", "it-sign-in", "it-float-book"):
        yield Planted("vague name", node, plant)
    yield Planted("same on hover", "it-book", styled("it-book", state="hover", background_color="@:accent"))
    yield Planted("same on hover", "it-phone", styled("it-phone", state="hover", opacity="1"))
    yield Planted("current unmarked", "it-guide", styled("it-guide", "content", "current", text_decoration_line="none"))
    yield Planted(
        "colour alone",
        "it-foot-harbours",
        styled("it-foot-harbours", "content", "current", color="#eef1f4", text_decoration_line="none"),
    )
    yield Planted(
        "colour alone",
        "it-guide",
        styled("it-guide", "content", "current", color="#333333", text_decoration_line="none"),
    )
    yield Planted("small picture", "it-guide-picture", _smaller)
    yield Planted("heavy picture", "", partial(_heavier, 900_000))
    yield Planted("heavy pieces", "", partial(_heavier, 2_000_000))
    gone_item = f".{_site.key}-pc-main .{_site.key}-it-gone:hover{{color:red}}"
    listed = (
        ".planted{color:red}",
        "@media print{#planted a{color:red}}",
        "main .gone>p, .planted{margin:0}",
        gone_item,
    )
    for css in listed:
        yield Planted("reaches nothing", "site", put("site", "css", css))
    yield Planted("same landmark", "it-foot-guide", put("it-foot-guide", "words", _json("it-foot-harbours")["words"]))
    yield Planted("unused files", "site", _left_over)
    yield Planted("no business name", "it-contact", _unnamed)
    for slot, value in (
        ("swatches", {"id": "sw-planted", "name": "Planted", "colour": "#123456"}),
        ("looks", {"id": "lk-planted", "name": "Planted"}),
    ):
        yield Planted("unused", str(value["id"]), added("site", slot, value))


def _left_over(site: Site) -> Site:
    left = site.assets[0].replaced(id="as-planted", path="/old/left%20over.svg")
    return site.replaced(assets=tuple(sorted((*site.assets, left), key=lambda one: one.path)))


def _heavier(size: int, site: Site) -> Site:
    path = next(item["picture"] for item in [_json("it-guide-picture")])
    return site.replaced(assets=tuple(one.replaced(size=size) if one.path == path else one for one in site.assets))


def _smaller(site: Site) -> Site:
    file = io.BytesIO()
    Image.new("RGB", (20, 12)).save(file, "PNG")
    name = hashlib.sha256(file.getvalue()).hexdigest()
    CONTENTS[name] = file.getvalue()
    site = site.replaced(assets=(Asset(id="as-a", path="/a.png", content=name, size=80), *site.assets))
    return put("it-guide-picture", "picture", "/a.png")(site)


def _unnamed(site: Site) -> Site:
    for node in ("it-contact", "it-drawer-contact"):
        site = put(node, "name", "")(site)
    return site


def _of_reach() -> Iterator[Planted]:
    for node in ("pc-footer", "pc-help", "pc-guide", "pc-news", "pc-languages"):
        rule = next(piece for piece in _site.pieces if piece.id == node).reach[0].id
        yield Planted("never shown", node, changed(Remove(nodes=(rule,))))
    yield Planted(
        "no effect",
        "pc-main",
        added("pc-main", "reach", {"id": "rr-planted", "where": {"kind": "below", "path": "/nowhere/"}}),
    )
    past = {"every": [{"kind": "period", "ends": "2020-01-01T00:00"}]}
    for node in ("pc-spring", "it-tagline", "pc-call"):
        yield Planted("past", node, put(node, "audience", past))
    never = [{"kind": "period", "begins": "2030-01-02T00:00"}, {"kind": "period", "ends": "2030-01-01T00:00"}]
    for node in ("it-tagline", "pc-news"):
        yield Planted("nobody", node, put(node, "audience", {"every": never}))
    yield Planted("without header", "site", gone("rr-press", "rr-guide-front", "rr-everywhere"))
    yield Planted("without footer", "site", changed(Remove(nodes=("rr-footer",))))


def _said(text: str, of: str = "", *, draft: bool = False) -> dict[str, Any]:
    """The tagline, with another German."""
    words = _json("it-tagline")["words"]
    kept = [one for one in words["translations"] if one["language"] != "de"]
    german = {"language": "de", "text": text, "draft": draft, **({"of": of} if of else {})}
    return {**words, "translations": [*kept, german]}


def _of_gates() -> Iterator[Planted]:
    yield Planted("no yes", "pc-shop-age", changed(Remove(nodes=("it-shop-yes",))))
    yield Planted("no no", "pc-shop-age", changed(Remove(nodes=("it-shop-no", "it-shop-birth"))))
    yield Planted("no field", "pc-press-door", changed(Remove(nodes=("it-press-secret",))))
    yield Planted("locked picture", "pc-guide", put("it-guide-picture", "picture", "/press/the-quay-at-dusk.svg"))
    yield Planted(
        "refused to a door",
        "pc-shop-age",
        put("pc-shop-age", "target", {"kind": "address", "address": "/press/releases/"}),
    )
    inside = {"kind": "address", "address": "/shop/knitwear/?refused"}
    yield Planted("goes round", "pc-shop-age", put("pc-shop-age", "target", inside))
    yield Planted("told by a file", "pc-press-door", _told_by_a_file)
    yield Planted("quotes a title", "pc-press-door", _quoted)
    yield Planted("over a bar", "pc-consent", put("pc-consent", "place", "bar-bottom"))
    for kind in ("two at once", "over a button"):
        yield Planted(kind, "pc-consent", put("pc-consent", "place", "bar-top"))
    shown = '<img src="https://tide.example/a.png" alt="Tides"></main>'
    yield Planted("unknown hosts", "pc-consent", written("/sailings/fares/", "</main>", shown))
    yield Planted("no yes to all", "pc-consent", changed(Remove(nodes=("it-consent-yes",))))
    yield Planted("no no to all", "pc-consent", changed(Remove(nodes=("it-consent-no",))))
    yield Planted("unequal answers", "pc-consent", styled("it-consent-yes", font_size="30px", font_weight="800"))
    yield Planted("no policy", "pc-consent", _policies_gone)
    yield Planted("no way back", "pc-consent", changed(Remove(nodes=("it-privacy",))))
    yield Planted("waits for nobody", "", changed(Remove(nodes=("pc-consent",))))


def _told_by_a_file(site: Site) -> Site:
    data = b"https://ostrey.example/\nhttps://ostrey.example/press/releases/\n"
    name = hashlib.sha256(data).hexdigest()
    CONTENTS[name] = data
    told = Asset(id="as-planted", path="/all-pages.txt", content=name, size=len(data))
    return site.replaced(assets=(*site.assets, told))


def _quoted(site: Site) -> Site:
    """An open page says what a locked one is called."""
    title = "A pier that nobody knew of"
    locked = of_page("/press/releases/", title=title)(site)
    return written("/sailings/fares/", "</main>", f"<p>{title}</p></main>")(locked)


def _of_languages() -> Iterator[Planted]:
    switches = ("it-languages", "it-foot-languages", "pc-languages", "rw-drawer-reach")
    yield Planted("no switch", "site", gone(*switches))
    yield Planted("one language", "it-languages", _english_alone)
    yield Planted("in English", "site", of_page("/sailings/fares/", language="is"))
    yield Planted("speaks alone", "pg-planted", _alone)
    yield Planted("twice in a language", "pg-home-de", of_page("/cy/", language="de"))
    named = '<link rel="alternate" hreflang="de" href="/de/"></head>'
    yield Planted("not mutual", "pg-fares", written("/sailings/fares/", "</head>", named))
    yield Planted("older texts", "it-tagline", put("it-tagline", "words", _said("Drei Schiffe", "00000000")))
    yield Planted("drafts", "it-tagline", put("it-tagline", "words", _said("Drei Schiffe", draft=True)))
    yield Planted("other letters", "it-tagline", put("it-tagline", "words", _said("Три корабля, пять гаваней")))
    yield Planted("older pages", "pg-fares-ar", written("/sailings/fares/", "half the fare", "a third of the fare"))
    yield Planted(
        "not translated",
        "",
        put("it-tagline", "words", {"text": "Three ships, five harbours, and a kettle in each of them"}),
    )
    yield Planted("not translated", "", put("en-fares", "label", {"text": "What it costs"}))


def _alone(site: Site) -> Site:
    """A page in a language into which no switch leads."""
    fares = next(page for page in site.pages if page.path == "/sailings/fares/")
    return site.replaced(pages=(*site.pages, fares.replaced(id="pg-planted", path="/is/", language="is")))


def _english_alone(site: Site) -> Site:
    return site.replaced(pages=tuple(page for page in site.pages if page.language == "en"), spoken=())


def _of_texts() -> Iterator[Planted]:
    for node, part in (
        ("it-tagline", "box"),
        ("it-book", "box"),
        ("it-winter", "box"),
        ("it-logo", "box"),
        ("it-rights", "box"),
    ):
        yield Planted(
            "weak text", node, styled(node, part=part, color="#8fa0a8", background_color="#8a9aa4"), laid=True
        )

    yield Planted(
        "over a picture", "it-about", styled("pc-footer", background_image='url("/coast-fog.svg")'), laid=True
    )


def _policies_gone(site: Site) -> Site:
    """The question leads nowhere."""
    return put("it-consent-words", "rich", {"text": "<p>May we count?</p>"})(site)


def _small(number: int) -> dict[str, Any]:
    sizes = ("inline-size", "block-size", "min-inline-size", "min-block-size")
    styles = [{"id": f"st-small-{number}-{name}", "property": name, "value": "12px"} for name in sizes]
    said = {"words": {"text": f"Call {number}"}, "icon": "phone", "styles": styles}
    return {"id": f"it-small-{number}", "kind": "icon", "target": {"kind": "address", "address": f"/#{number}"}, **said}


def _second_button() -> dict[str, Any]:
    return {"id": "it-planted", "kind": "menu", "menu": "mn-guide", "drawer_always": True}


def _of_fit() -> Iterator[Planted]:
    long = {"text": "Donaudampfschifffahrtsgesellschaftskapitän " * 3}
    for node, row in (("it-book", "rw-main"), ("it-press-logo", "rw-press"), ("it-reading-book", "rw-reading")):
        yield Planted("*", row, put(node, "words", long), laid=True)
    for node, row in (("en-timetable", "rw-main"), ("en-pictures", "rw-press")):
        yield Planted("*", row, put(node, "label", long), laid=True)
    for node, row in (
        ("it-reading-menu", "rw-reading"),
        ("it-reading-name", "rw-reading"),
        ("it-press-menu", "rw-press"),
    ):
        yield Planted("*", row, styled(node, part="content" if "menu" in node else "box", font_size="60px"), laid=True)
    yield Planted("short lines", "it-about", styled("cl-about", max_inline_size="110px"), laid=True)
    yield Planted(
        "long lines", "it-winter", put("it-winter", "words", {"text": "Ferries sail in winter, too. " * 12}), laid=True
    )
    yield Planted("small target", "it-small-0", added("cl-end", "items", _small(0), _small(1)), laid=True)
    yield Planted("two buttons in one", "", added("cl-end", "items", _second_button()))
    yield Planted("two buttons", "", added("cl-bar-call", "items", _second_button()))
    yield Planted("squeezed", "it-guide-picture", styled("it-guide-picture", max_inline_size="40px"), laid=True)
    for node in ("it-phone",):
        yield Planted("*", "rw-above", styled(node, inline_size="1400px"), laid=True)


def _of_movement() -> Iterator[Planted]:
    yield Planted("never", "pc-main", put("sg-slim", "after", {"kind": "px", "px": 99_000}), laid=True)
    yield Planted("never", "pc-main", put("sg-reading", "after", {"kind": "px", "px": 98_000}), laid=True)
    yield Planted("brief", "pc-main", put("sg-reading", "after", {"kind": "px", "px": 150}), laid=True)
    yield Planted("flicker", "pc-main", put("sg-slim", "after", {"kind": "px", "px": 8}), laid=True)
    yield Planted("gap", "pc-main", put("sg-slim", "after", {"kind": "px", "px": 8}), laid=True)
    yield Planted("limited", "pc-main", put("sg-slim", "height_px", 40), laid=True)
    yield Planted("overlap", "pc-book", put("pc-book", "place", "top-start"), laid=True)
    yield Planted("covered", "pc-bar", styled("pc-bar", padding_block_start="220px"), laid=True)
    yield Planted("hidden focus", "pc-bar", styled("pc-bar", padding_block_start="560px"), laid=True)


def planted() -> list[Planted]:
    parts = (
        _unfinished, _of_menus, _of_pages, _of_looks, _of_reach, _of_gates, _of_languages, _of_texts, _of_fit, _of_movement,
    )  # fmt: skip
    return [one for part in parts for one in part()]
