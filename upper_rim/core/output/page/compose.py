"""What does a page look like with its pieces? The one composer: for the stage, the live site and the ZIP.

`Composer` prepares what all pages share; a page then costs a look-up of its pieces and a few joins of bytes.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import replace
from functools import cache, cached_property
from html import escape
from itertools import islice
from typing import Any, cast

from ...conditions.audience.audience import Audience
from ...conditions.visitor import VisitorCard
from ...exchange.html.encoding import insertion
from ...exchange.html.markdown import document
from ...exchange.html.markers import marked
from ...fit.rows.fitter import Fitter
from ...kinds.context import GateState
from ...kinds.items import Item
from ...kinds.items.base import DiffersByPage, ShowsMenu
from ...kinds.items.form import FORMS, Form
from ...kinds.items.languages import LanguageSwitch
from ...kinds.items.trail import Trail
from ...kinds.marks import MARK
from ...kinds.markup import Element, html
from ...kinds.pieces import GATE_SLOTS
from ...kinds.pieces.base import Piece
from ...kinds.pieces.consent import ConsentQuestion
from ...kinds.pieces.gate import Gate
from ...kinds.pieces.header import Header
from ...model.headings import title_in
from ...model.navigation.counterparts import offered
from ...model.navigation.current import Standings
from ...model.navigation.links import Links
from ...model.navigation.menus import Menus
from ...model.navigation.trail import Trails
from ...model.site import Page, Site, Snippet
from ...model.tree import items_of
from ...reach.coverage import coverage_of
from ...style.type.letters import letters_of
from ..css.sheet import inside_a_page, site_rules
from ..fitting import fitter_of
from ..naming import PARTS_PATH, VISITOR_PATH, named, short_hash
from ..search.search_html import MOST_LISTED, results_body, results_path
from ..search.search_index import Hit
from ..search.site_search import files_of_index, index_paths, index_state, site_index
from ..shelf import Shelf
from ..shown_files import ShownFiles
from .consent import ConsentOnPages
from .font_files import FontFiles
from .menu_entries import EncodedEntries, EntriesHtml, entries_html
from .page_sheets import PageSheets, shows
from .piece_markup import Shown, around
from .scripts import PARTS_IN_ORDER, late_script, late_scripts, parts_for, script
from .site_context import SiteContext
from .site_head import SiteHead
from .splicing import Chunk, spliced
from .who import Rivals, asks_the_server, decided, decision, for_some, out_for, rivals_on

Decides = tuple[Rivals, ...] | tuple[str, ...]
"""By what it is decided for whom a page's pieces are: those that are rivals; on the stage what is not for who looks."""
Parted = list[bytes | re.Match[str]]
"""Markup in a document's encoding, and the marks for what differs from page to page."""
Fragment = tuple[bytes, Parted, Parted]
"""What some pieces put into a page's head, before its content and behind it."""


class Composer:
    def __init__(
        self,
        site: Site,
        shelf: Shelf,
        read: Callable[[str], bytes] | None = None,
        *,
        marks: bool = False,
        year: int | None = None,
        fitter: Fitter | None = None,
    ) -> None:
        """`read` gives the bytes of a content by its hash: uploaded fonts are read so. `marks`: with node ids in the
        markup and the CSS in the page, as the stage needs them: one request shows an edit. `year` is the present one,
        for lines that tell it. `fitter`: one that has looked at the site before; it is asked how high pieces are."""
        self.site = site = _gates_for_all(site)
        self.coverage = coverage_of(site)
        self._links = Links(site)
        self.counterparts = self._links.counterparts
        self._menus = Menus(site)
        self._standings = Standings(self._links)
        self._trails = Trails(site, self._links, self._menus, self._standings)
        self._items = {item.id: item for item in items_of(site.pieces)}
        self._written: dict[tuple[str, str, str], EntriesHtml] = {}
        self._encoded: dict[tuple[str, str, str, str], EncodedEntries] = {}
        self._shapes = {shape.id: shape for shape in site.shapes if shape.on}
        self._shelf = shelf
        self._read = read
        self._marks = marks
        self._year = year
        self._linked = _linked_pages(site)
        self._files = ShownFiles(site, read, shelf.readers)
        known = cache(lambda: (fitter or fitter_of(shelf, read, year)).as_published())
        self._rules = site_rules(site, shelf, PARTS_PATH if marks else "", self._files.picture, fitter=known)
        self.css = inside_a_page(self._rules.minified()) if site.pieces and marks else ""
        self._scripts: dict[str, bytes] = {}
        late = {name: made.encode() for name, made in late_scripts(site, shelf).items()}
        # What is only tried on asks for its modules of the site as it is: there they are known by their names.
        self._late = {
            name: (f"{PARTS_PATH}{f'{name}-' * marks}{short_hash(made)}.js", made) for name, made in late.items()
        }
        self.index_paths = index_paths(site)
        self._site_head = SiteHead(site, self._files.data, shelf.readers.icon, self.counterparts)
        self._consent = ConsentOnPages(site, shelf)
        self._fonts = FontFiles(site, shelf, read)
        self._fragments: dict[tuple[Any, ...], Fragment] = {}

    def index(self, language: str) -> dict[str, bytes]:
        """The search index of the pages in a language: its files by their paths."""
        assert self._read is not None
        return files_of_index(
            self.index_paths[language], site_index(self.site, language, self._read), index_state(self.site, language)
        )

    def page(self, page: Page, content: bytes, card: VisitorCard | None = None, asking: str = "") -> bytes:
        """The published page. Taking every insertion out gives `content` less its cuts. `card`: who looks at marked
        pieces; where nobody is named, somebody for whom everything is. `asking`: the question about consent that marked
        pieces show; what they show else is seen by somebody who has agreed to all."""
        pieces = shown_pieces(self._may_show(page, card, asking), self.coverage.bands)
        splice = page.splice
        told = self._site_head.of_page(page, content) if splice is not None and not page.bare else ""
        held = [] if self._marks else [(at, (put,)) for at, put in self._consent.held_back(page)]
        if splice is None or not (pieces or self.site.snippets or told or held):
            return spliced(content, (), page)
        head: bytes = b""
        before: list[Chunk] = []
        behind: list[Chunk] = []
        if pieces:
            heads = page.path == self._links.front(page.language) and not _HEADING.search(content)
            decides = self._decides(page, [one.piece.id for one in pieces], card)
            head, before, behind = self._insertions(pieces, decides, page, splice.encoding, heads=heads)
        if told:
            head += insertion(marked("site", told), splice.encoding)
        code = {place: self._code(place, page, splice.encoding) for place in ("head", "start", "end")}
        is_about_consent = held or self._consent.is_needed((one.piece.id for one in pieces), self._snippets(page))
        if is_about_consent and not self._marks:
            head += insertion(self._consent.head(), splice.encoding)
        places: list[tuple[int, Sequence[Chunk]]] = [
            (splice.head_at, (head, code["head"])),
            (splice.body_at, (code["start"], *before)),
            (len(content) if splice.end_at is None else splice.end_at, behind),
            (len(content), (code["end"],)),
        ]
        # What is held back stands within tags: at the same place, what comes before a tag is before it.
        return spliced(content, sorted([*places, *held], key=lambda put: put[0]) if held else places, page)

    def gate_page(self, gate: Gate, language: str, state: GateState = "asked") -> bytes:
        """What is sent in place of a page that a gate guards: the gate alone, without anything of the page."""
        content, splice = document(self.site.name, language, "", in_main=False)
        page = Page(id="gate", path="/", language=language, splice=splice)
        title = title_in(self.site, gate)
        heading = title.item if title is not None and title.always else ""
        context = replace(self._context(page, None), gate_state=state, heading=heading)
        markup = around([Shown(gate, ())], context).before
        deciding = self._script_of((Shown(gate, ()),), ())
        head = marked("head", _NOT_LISTED + deciding + self._head(markup, page, decides=bool(deciding)))
        if self._consent.is_needed((gate.id,), ()) and not self._marks:
            head += self._consent.head()
        filled = self._filled(_parted(markup, splice.encoding), page, splice.encoding)
        places = ((splice.head_at, (insertion(head, splice.encoding),)), (splice.body_at, filled))
        return spliced(content, places, page)

    def _may_show(
        self, page: Page, card: VisitorCard | None, asking: str = ""
    ) -> dict[str, tuple[tuple[Piece, ...], ...]]:
        """On the stage what one visitor gets; the first of rivals, where nobody is named. Gates stand instead of a page,
        not around it; a question that is looked at shows wherever that is."""
        shown = self._all_that_may_show(page, card)
        around = {slot: there for slot, there in shown.items() if slot not in GATE_SLOTS}
        if self._marks:
            around.pop("consent", None)
            for piece in self.site.pieces if asking else ():
                if piece.id == asking and isinstance(piece, ConsentQuestion):
                    around["consent"] = tuple((piece,) for _ in self.coverage.bands)
        return around

    def _all_that_may_show(self, page: Page, card: VisitorCard | None) -> dict[str, tuple[tuple[Piece, ...], ...]]:
        if not self._marks:
            return self.coverage.may_show(page)
        if card is None:
            may = self.coverage.may_show(page)
            return {slot: tuple(there[:1] for there in in_slot) for slot, in_slot in may.items()}
        got = self.coverage.on(page, self.coverage.gets(card))
        return {
            slot: tuple((one.piece,) if one.piece else () for one in outcomes)
            for slot, outcomes in got.items()
            if any(one.piece for one in outcomes)
        }

    def _decides(self, page: Page, pieces: list[str], card: VisitorCard | None) -> Decides:
        """For whom is what? Of marked pieces the ids of what is not for who looks."""
        if not self._marks:
            return rivals_on(self.coverage, page)
        return out_for(self.site, pieces, card) if card else ()

    def _script_of(self, pieces: tuple[Shown, ...], decides: Decides) -> str:
        shown = [one.piece.id for one in pieces]
        if not self._marks:
            return decision(self.site, self._shelf, shown, cast(tuple[Rivals, ...], decides))
        return decided(cast(tuple[str, ...], decides)) if for_some(self.site, shown) else ""

    def _snippets(self, page: Page) -> list[Snippet]:
        """The designer's code for this page."""
        return [one for one in self.site.snippets if one.on and one.code and one.where.covers(page)]

    def _code(self, place: str, page: Page, encoding: str) -> bytes:
        """The same for a place of the page."""
        codes = (self._consent.code(one) for one in self._snippets(page) if one.place == place)
        return b"".join(insertion(marked("snippet", code), encoding) for code in codes)

    def parts(self) -> Iterator[tuple[str, bytes]]:
        """The files that pages refer to: modules, fonts, icons, and what the pages composed so far load. Path and
        content."""
        yield from ((path, made()) for path, made in self._site_head.files())
        if not self.site.pieces:
            return
        yield from self._late.values()
        yield from self._consent.files()
        if asks_the_server(self.site) or self._consent.asks:
            yield VISITOR_PATH, b"window.rimVisitor=window.rimVisitor||{}"
        yield from self._fonts.whole(in_slices=self._marks)
        for path, made in self._files.smaller_pictures() if not self._marks else ():
            yield path, made()
        yield from self.loaded()

    def loaded(self) -> Iterator[tuple[str, bytes]]:
        """The CSS and the scripts that the pages composed so far load. Path and content."""
        if not self._marks:
            yield from self._sheets.files()
            yield from self._fonts.cut(self._sheets.cut_fonts)
        yield from list(self._scripts.items())

    @cached_property
    def _sheets(self) -> PageSheets:
        late = (rule for rules in self._shelf.late_rules.values() for rule in rules)
        return PageSheets(self._rules, named(late, self.site.key), lambda: letters_of(self.site))

    def not_found_page(self) -> bytes:
        """What is shown where nothing is; with the pieces that show everywhere."""
        language = self.site.language
        title = self.site.phrase("not_found", language)
        return self._made(
            title, language, _body(title, self.site.phrase("not_found_text", language)), "/404.html", "not-found"
        )

    def results_page(self, language: str) -> bytes:
        """Where a search leads without script: at first all pages in that language."""
        pages = islice((page for page in self.site.pages if page.language == language), MOST_LISTED)
        hits = [Hit(page.path, page.title) for page in pages]
        body = results_body(self.site, language, self.index_paths[language], hits)
        path = results_path(language, self.site.language)
        made = self._made(self.site.phrase("search", language), language, body, path, made="results")
        module = f'<script type="module" src="{self._late["search"][0]}"></script>'.encode()
        return made.replace(b"</body>", module + b"</body>", 1)

    def answer_page(self, form: Form, language: str, *, sent: bool) -> bytes:
        """What is said after a form was sent; the faults of one that was not take the place of what is marked."""
        title = self.site.phrase("sent" if sent else "not_sent", language)
        told = f"<p>{escape(form.thanks.in_language(language))}</p>" if sent else marked("told", "")
        back = f'<p><a href="/" data-rim-back>{escape(self.site.phrase("go_back", language))}</a></p>'
        return self._made(
            title, language, f"<h1>{escape(title)}</h1>\n{told}\n{marked('back', back)}\n", FORMS + form.id
        )

    def page_to_come(self, page: Page, card: VisitorCard | None = None, asking: str = "") -> bytes:
        """A page that is known by its path only."""
        title, text = page.title or page.path, self.site.phrase("to_come", page.language)
        content, splice = document(title, page.language, _body(title, text))
        return self.page(page.replaced(splice=splice), content, card, asking)

    def _made(self, title: str, language: str, body: str, path: str, made: str = "answer") -> bytes:
        """A page of our own making with its pieces."""
        content, splice = document(title, language, body)
        return self.page(Page(id=made, path=path, title=title, language=language, splice=splice), content)

    def _insertions(
        self, pieces: tuple[Shown, ...], decides: Decides, page: Page, encoding: str, *, heads: bool
    ) -> tuple[bytes, list[Chunk], list[Chunk]]:
        """For the head, before the content and behind it. `heads`: the site's title is the page's heading."""
        head, before, behind = self._fragment(pieces, decides, page, encoding, heads=heads)
        close = page.splice.close if page.splice else ""
        closing = [insertion(marked("close", close), encoding)] if close and any(behind) else []
        return head, self._filled(before, page, encoding), [*closing, *self._filled(behind, page, encoding)]

    def _fragment(
        self, pieces: tuple[Shown, ...], decides: Decides, page: Page, encoding: str, *, heads: bool
    ) -> Fragment:
        """The same for all pages with these pieces, in a language, to which no item leads."""
        current = page.id if page.id in self._linked else None
        shown_as = tuple((shown.piece.id, *shown.out_in) for shown in pieces)
        shape = self._shapes.get(page.shape or "")
        if shape is not None and shape.is_boxed and not (page.splice and page.splice.wraps):
            shape = None
        key = (shown_as, decides, page.language, encoding, current, heads, shape and shape.id)
        if key not in self._fragments:
            context = self._context(page, current)
            if not self._marks:
                context = replace(context, smaller=self._files.sizes)
            if heads:
                context = replace(context, heading=_title_of(pieces, self.site))
            before, behind = around(pieces, context, shape)
            deciding = self._script_of(pieces, decides)
            head = marked("head", deciding + self._head(before + behind, page, decides=bool(deciding)))
            self._fragments[key] = (
                insertion(head, encoding),
                _parted(before, encoding),
                _parted(behind, encoding),
            )
        return self._fragments[key]

    def _head(self, pieces: str, page: Page, *, decides: bool) -> str:
        """The CSS for a page's pieces (all of the site's, and within the page, where they are marked), and their
        script."""

        def put(mark: re.Match[str]) -> str:
            item = self._items[mark[1]] if mark[1] else None
            if isinstance(item, DiffersByPage):
                return html([item.sample(self._context(page, None))])
            return self._written[self._entries_of(mark, page)[1]].html

        whole = MARK.sub(put, pieces)
        if self._marks:
            looks = f"<style data-rim-sheet>{self.css}</style>"
        else:
            shown = shows(whole, self._titles.get(page.language, frozenset()), decides=decides)
            looks = f'<link rel="stylesheet" href="{self._sheets.path(shown)}">'
        parts = parts_for(whole)
        # A page in another encoding would have its scripts read in that, where a server does not say theirs.
        return looks + (f'<script src="{self._script_path(parts)}" charset="utf-8" defer></script>' if parts else "")

    def _script_path(self, parts: tuple[str, ...]) -> str:
        """Marked pieces may be asked for their script where no page was composed: its name says what is in it."""
        made = script(self._shelf, parts).encode()
        path = f"{PARTS_PATH}{'-'.join(parts) if self._marks else short_hash(made)}.js"
        self._scripts[path] = made
        return path

    def script_at(self, path: str) -> bytes | None:
        """A script of marked pieces, or a module."""
        module = dict(self._late.values()).get(path)
        if module is not None:
            return module
        parts = path.removeprefix(PARTS_PATH).removesuffix(".js").split("-")
        if parts[0] in self._shelf.late_scripts:
            return late_script(self.site, self._shelf, parts[0]).encode()
        return script(self._shelf, parts).encode() if set(parts) <= set(PARTS_IN_ORDER) else None

    @cached_property
    def _titles(self) -> dict[str, frozenset[str]]:
        """The characters of the pages' titles, which trails and searches show, by language."""
        letters: dict[str, set[str]] = {}
        for page in self.site.pages:
            letters.setdefault(page.language, set()).update(page.title)
        return {language: frozenset(found) for language, found in letters.items()}

    def _filled(self, parted: Parted, page: Page, encoding: str) -> list[Chunk]:
        """A piece with what its marks stand for on a page: menus in which that is the current one, its trail, the ways to it
        in other languages."""
        chunks: list[Chunk] = []
        for part in parted:
            if isinstance(part, bytes):
                chunks.append(part)
            elif part[1]:
                chunks.append(insertion(html([self._of_page(self._items[part[1]], page)]), encoding))
            else:
                item, key = self._entries_of(part, page)
                if (*key, encoding) not in self._encoded:
                    self._encoded[*key, encoding] = EncodedEntries(self._written[key], encoding)
                standing = self._standings.of(self._menus.shown(item), page.language, page.id, page.path)
                chunks += self._encoded[*key, encoding].on_page(standing)
        return chunks

    def _of_page(self, item: Item, page: Page) -> Element:
        context = self._context(page, None)
        if isinstance(item, Trail):
            return item.steps_markup(self._trails.steps(item, page), context)
        assert isinstance(item, LanguageSwitch)
        return item.ways_markup(offered(self.site, self.counterparts.of(page)), context)

    def _entries_of(self, mark: re.Match[str], page: Page) -> tuple[ShowsMenu, tuple[str, str, str]]:
        """The item that a mark stands for, and under which key the entries are kept that it shows in the page's
        language."""
        item = self._items[mark[2]]
        assert isinstance(item, ShowsMenu)
        key = (item.id, mark[3], page.language)
        if key not in self._written:
            self._written[key] = entries_html(item, self._context(page, None).within(mark[3]))
        return item, key

    def _context(self, page: Page, current: str | None) -> SiteContext:
        index = self.index_paths.get(page.language, "")
        return SiteContext(
            self.site, self._links, self._menus, self._shelf, page.language, current,
            marks=self._marks, year=self._year, index_path=index, posts_of=self._files.posts, picture=self._files.picture,
            modules={name: path for name, (path, _) in self._late.items()},
        )  # fmt: skip


def _gates_for_all(site: Site) -> Site:
    """Whom a gate stands before is decided by who sends it, not in the page."""
    if all(piece.audience.is_everybody for piece in site.pieces if isinstance(piece, Gate)):
        return site
    pieces = (one.replaced(audience=Audience()) if isinstance(one, Gate) else one for one in site.pieces)
    return site.replaced(pieces=tuple(pieces))


def _body(title: str, text: str) -> str:
    return f"<h1>{escape(title)}</h1>\n<p>{escape(text)}</p>\n"


def _parted(html: str, encoding: str) -> Parted:
    parts: Parted = []
    last = 0
    for mark in MARK.finditer(html):
        parts += (insertion(html[last : mark.start()], encoding), mark)
        last = mark.end()
    return [*parts, insertion(html[last:], encoding)]


_NOT_LISTED = '<meta name="robots" content="noindex">'
"""No search engine keeps a gate in place of what it guards."""
_HEADING = re.compile(rb"<h1[\s>]", re.IGNORECASE)


def _title_of(pieces: Iterable[Shown], site: Site) -> str:
    """Id of the title in a header that is the page's first heading."""
    titles = (title_in(site, one.piece) for one in pieces if isinstance(one.piece, Header))
    return next((title.item for title in titles if title is not None), "")


def shown_pieces(
    may_show: dict[str, tuple[tuple[Piece, ...], ...]], bands: tuple[str | None, ...]
) -> tuple[Shown, ...]:
    """The pieces that somebody is shown in some band, each once, in the order of slots and bands."""
    shown: list[Shown] = []
    for in_slot in may_show.values():
        pieces = {piece.id: piece for there in in_slot for piece in there}
        for piece in pieces.values():
            out_in = tuple(
                band
                for band, there in zip(bands, in_slot, strict=True)
                if band and not any(other is piece for other in there)
            )
            shown.append(Shown(piece, out_in))
    return tuple(shown)


def _linked_pages(site: Site) -> set[str]:
    """Ids of the pages that items lead to by themselves, or are about, in any language: pieces are others on these.
    Where a page stands in a menu is put in later."""
    linked = {page for item in items_of(site.pieces) for page in item.pages_led_to()}
    translated = {page.id for page in site.pages if page.translates in linked}
    originals = {page.translates for page in site.pages if page.id in linked and page.translates}
    return linked | translated | originals
