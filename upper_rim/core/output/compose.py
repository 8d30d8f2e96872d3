"""What does a page look like with its pieces? The one composer: for the stage, the live site and the ZIP.

`Composer` prepares what all pages share; a page then costs a look-up of its pieces and a few joins of bytes.
"""

from __future__ import annotations

import hashlib
import re
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import replace
from functools import cache
from html import escape

from ..exchange.encoding import decode, insertion
from ..exchange.feed import FeedFault, Post, read_feed
from ..exchange.markdown import document
from ..exchange.markers import marked
from ..model.items import (
    BackToTop,
    Copyright,
    Form,
    Item,
    Logo,
    MenuItem,
    Pager,
    PictureItem,
    PictureList,
    Posts,
    SearchBox,
    ToPage,
    Viewer,
)
from ..model.site import Below, Float, Header, OnPage, Page, Piece, Site, Snippet
from ..model.tree import walk
from ..model.values import Node
from ..reach.coverage import Coverage, Outcome
from ..style.fonts import subset_font
from ..style.pictures import Picture, read_picture
from ..style.resolve import Styling, styled_in
from .font_rules import faces_in_use
from .form_html import FORMS
from .item_html import Scene
from .links import Links
from .phrases import phrase
from .picture_sizes import resized, widths
from .piece_html import Shown, around
from .search_html import MOST_LISTED, results_body, results_path
from .search_index import Hit, PageText, made_index, text_of
from .sheet import inside_a_page, sheet
from .shelf import Shelf

PARTS = "/_rim/"
"""Where the published CSS, script and fonts stand within a site."""


class Composer:
    def __init__(
        self,
        site: Site,
        shelf: Shelf,
        read: Callable[[str], bytes] | None = None,
        *,
        marks: bool = False,
        year: int | None = None,
    ) -> None:
        """`read` gives the bytes of a content by its hash: uploaded fonts are read so. `marks`: with node ids in the
        markup and the CSS in the page, as the stage needs them: one request shows an edit. `year` is the present
        one, for lines that tell it."""
        self.site = site
        self.coverage = Coverage(site)
        self._links = Links(site)
        self._shelf = shelf
        self._read = read
        self._marks = marks
        self._year = year
        self._linked = _linked_pages(site)
        css = sheet(site, shelf, PARTS if marks else "", self._picture) if site.pieces else ""
        self.css = inside_a_page(css) if marks else css
        self.css_path = PARTS + f"{_short_hash(css.encode())}.css"
        self.script_paths = {name: PARTS + f"{_short_hash(script)}.js" for name, script in shelf.scripts.items()}
        self._looks = (
            f"<style data-rim-sheet>{self.css}</style>" if marks else f'<link rel="stylesheet" href="{self.css_path}">'
        )
        self.index_paths = self._search_paths()
        self._fragments: dict[
            tuple[tuple[tuple[str, ...], ...], str, str | None, str, str, bool], tuple[bytes, bytes, bytes]
        ] = {}

    def _search_paths(self) -> dict[str, str]:
        """By language, where the index of its pages is, named by what is in it; none where nothing searches."""
        if not any(isinstance(item, SearchBox) for item in items_of(self.site.pieces)):
            return {}
        told: dict[str, list[str]] = {}
        for page in self.site.pages:
            told.setdefault(page.language, []).append(f"{page.path} {page.title} {page.content} {page.cuts}")
        return {
            language: PARTS + f"search-{language}-{_short_hash(repr(said).encode())}.txt"
            for language, said in told.items()
        }

    def index(self, language: str) -> str:
        """The search index of the pages in a language, as their own contents have it: pieces are on every page."""
        assert self._read is not None
        return made_index(
            PageText(page.path, page.title, _own_text(self._read(page.content), page) if page.content else "")
            for page in self.site.pages
            if page.language == language
        )

    def page(self, page: Page, content: bytes) -> bytes:
        """The published page. Taking every insertion out gives `content` less its cuts."""
        outcomes = self.coverage.on(page)
        pieces = shown_pieces(outcomes, self.coverage.bands)
        splice = page.splice
        if splice is None or not (pieces or self.site.snippets):
            return _spliced(content, (), page)
        head, before, behind = (b"", b"", b"")
        if pieces:
            heads = page.path == self._links.front(page.language) and not _HEADING.search(content)
            head, before, behind = self._insertions(pieces, page, splice.encoding, heads=heads)
        code = {place: self._code(place, page, splice.encoding) for place in ("head", "start", "end")}
        places = (
            (splice.head_at, head + code["head"]),
            (splice.body_at, code["start"] + before),
            (len(content) if splice.end_at is None else splice.end_at, behind),
            (len(content), code["end"]),
        )
        return _spliced(content, places, page)

    def _code(self, place: str, page: Page, encoding: str) -> bytes:
        """The designer's snippets for a place of this page."""
        return b"".join(
            insertion(marked("snippet", snippet.code), encoding)
            for snippet in self.site.snippets
            if snippet.place == place and snippet.on and snippet.code and _is_for(snippet, page)
        )

    def parts(self) -> Iterator[tuple[str, bytes]]:
        """The files that pages refer to: CSS, script, fonts. Path and content."""
        if not self.site.pieces:
            return
        yield self.css_path, self.css.encode()
        kinds = {item.kind for item in items_of(self.site.pieces)} | {"rim"}
        for name, script in self._shelf.scripts.items():
            if name in kinds:
                yield self.script_paths[name], script
        for face in faces_in_use(self.site, self._shelf, Styling(self.site)):
            for file in face.files:
                if file.data is not None:
                    yield PARTS + file.name, file.data
                elif self._read is not None and file.content is not None:
                    yield PARTS + file.name, subset_font(self._read(file.content), self._languages())
        yield from self._sized()

    def _picture(self, path: str) -> Picture | None:
        asset = next((asset for asset in self.site.assets if asset.path == path), None)
        return read_picture(self._read(asset.content)) if asset is not None and self._read is not None else None

    def _content_of(self, path: str) -> tuple[str, bytes] | None:
        """Hash and bytes of a file carried along."""
        asset = next((asset for asset in self.site.assets if asset.path == path), None)
        return (asset.content, self._read(asset.content)) if asset is not None and self._read is not None else None

    def _posts(self, item: Posts, language: str) -> Sequence[Post]:
        if item.feed is not None:
            found = self._content_of(item.feed)
            posts = read_feed(found[1]) if found else ()
            return () if isinstance(posts, FeedFault) else posts
        dated = [page for page in self.site.pages if page.dated and page.language == language]
        below = [page for page in dated if page.path.startswith(item.below)]
        newest = sorted(below, key=lambda page: page.dated or "", reverse=True)
        return [Post(page.title or page.path, page.path, page.dated or "") for page in newest]

    def _sizes(self, item: PictureItem) -> Sequence[tuple[str, int]]:
        """Where the smaller sizes of a picture are published. The stage shows pictures as they came."""
        found = self._content_of(item.picture) if item.picture and not self._marks else None
        if found is None:
            return ()
        content, data = found
        return [(f"{PARTS}{content[:12]}-{width}.webp", width) for width in widths(data, item.width_px)]

    def _sized(self) -> Iterator[tuple[str, bytes]]:
        made: set[str] = set()
        for item in items_of(self.site.pieces):
            for path, width in self._sizes(item) if isinstance(item, PictureItem) else ():
                found = self._content_of(item.picture or "") if isinstance(item, PictureItem) else None
                if path not in made and found is not None:
                    made.add(path)
                    yield path, resized(found[1], width)

    def _languages(self) -> frozenset[str]:
        return frozenset(page.language.split("-")[0] for page in self.site.pages) | {self.site.language.split("-")[0]}

    def not_found_page(self) -> bytes:
        """What is shown where nothing is; with the pieces that show everywhere."""
        language = self.site.language
        title = phrase("not_found", language)
        return self._virtual(title, language, phrase("not_found_text", language), "/404.html")

    def results_page(self, language: str) -> bytes:
        """Where a search leads without script: at first all pages in that language."""
        pages = [Hit(page.path, page.title) for page in self.site.pages if page.language == language]
        body = results_body(language, self.index_paths[language], pages[:MOST_LISTED])
        made = self._made(phrase("search", language), language, body, results_path(language, self.site.language))
        script = f'<script src="{self.script_paths["search"]}" defer></script>'.encode()
        return made if script in made else made.replace(b"</body>", script + b"</body>", 1)

    def answer_page(self, form: Form, language: str, *, sent: bool) -> bytes:
        """What is said after a form was sent; the faults of one that was not take the place of what is marked."""
        title = phrase("sent" if sent else "not_sent", language)
        told = f"<p>{escape(form.thanks.in_language(language))}</p>" if sent else marked("told", "")
        back = f'<p><a href="/" data-rim-back>{escape(phrase("go_back", language))}</a></p>'
        return self._made(
            title, language, f"<h1>{escape(title)}</h1>\n{told}\n{marked('back', back)}\n", FORMS + form.id
        )

    def page_to_come(self, page: Page) -> bytes:
        """A page that is known by its path only."""
        return self._virtual(page.title or page.path, page.language, phrase("to_come", page.language), page.path, page)

    def _virtual(self, title: str, language: str, text: str, path: str, page: Page | None = None) -> bytes:
        return self._made(title, language, f"<h1>{escape(title)}</h1>\n<p>{escape(text)}</p>\n", path, page)

    def _made(self, title: str, language: str, body: str, path: str, page: Page | None = None) -> bytes:
        """A page of our own making with its pieces."""
        content, splice = document(title, language, body)
        shape = page or Page(id="not-found", path=path, title=title, language=language)
        return self.page(shape.replaced(splice=splice), content)

    def _insertions(
        self, pieces: tuple[Shown, ...], page: Page, encoding: str, *, heads: bool
    ) -> tuple[bytes, bytes, bytes]:
        """For the head, before the content and behind it. `heads`: the site's title is the page's heading."""
        current = page.id if page.id in self._linked else None
        close = page.splice.close if page.splice else ""
        key = (
            tuple((shown.piece.id, *shown.out_in) for shown in pieces),
            page.language,
            current,
            encoding,
            close,
            heads,
        )
        if key not in self._fragments:
            index = self.index_paths.get(page.language, "")
            scene = Scene(self.site, self._links, self._shelf, page.language, current, self._marks, self._year, index)
            scene = replace(scene, posts=self._posts, sizes=self._sizes)
            if heads:
                scene = replace(scene, heading=_title_of(pieces, self.site))
            before, behind = around(pieces, scene)
            closing = marked("close", close) if close and behind else ""
            self._fragments[key] = (
                insertion(
                    marked("head", self._looks + self._script_tags((one.piece for one in pieces), current)), encoding
                ),
                insertion(before, encoding),
                insertion(closing + behind, encoding),
            )
        return self._fragments[key]

    def _script_tags(self, pieces: Iterable[Piece], current: str | None) -> str:
        used = scripts_of(self.site, pieces, current) - ({"pager"} if self._marks else set())
        paths = (path for name, path in self.script_paths.items() if name in used)
        return "".join(f'<script src="{path}" defer></script>' for path in paths)


def items_of(pieces: Iterable[Piece]) -> Iterator[Item]:
    return (item for piece in pieces for row in piece.rows for cell in row.cells for item in cell.items)


def scripts_of(site: Site, pieces: Iterable[Piece], current: str | None) -> set[str]:
    """Names of the scripts that pieces need on a page: it loads no other."""
    used: set[str] = set()
    for piece in pieces:
        if isinstance(piece, Float) and piece.yields:
            used.add("rim")
        for item in items_of([piece.replaced(rows=site.shown_rows(piece))]):
            if item.hint.text or isinstance(item, MenuItem | Copyright | BackToTop):
                used.add("rim")
            if isinstance(item, SearchBox | Viewer) or (isinstance(item, Pager) and item.list_on == current):
                used.add(item.kind)
    return used


def _own_text(content: bytes, page: Page) -> str:
    encoding = page.splice.encoding if page.splice else "utf-8"
    return text_of(decode(_spliced(content, (), page), encoding))


_HEADING = re.compile(rb"<h1[\s>]", re.IGNORECASE)


def _title_of(pieces: Iterable[Shown], site: Site) -> str:
    """Id of the first title in a header."""
    headers = (one.piece for one in pieces if isinstance(one.piece, Header))
    shown = (header.replaced(rows=site.shown_rows(header)) for header in headers)
    return next((item.id for item in items_of(shown) if isinstance(item, Logo)), "")


def _is_for(snippet: Snippet, page: Page) -> bool:
    match snippet.where:
        case Below(path=path):
            return page.path.startswith(path)
        case OnPage(page=page_id):
            return page.id == page_id
        case _:
            return True


def shown_pieces(outcomes: dict[str, tuple[Outcome, ...]], bands: tuple[str | None, ...]) -> tuple[Shown, ...]:
    """The pieces that show in some band, each once, in the order of slots and bands."""
    shown: list[Shown] = []
    for in_slot in outcomes.values():
        pieces = {outcome.piece.id: outcome.piece for outcome in in_slot if outcome.piece}
        for piece in pieces.values():
            out_in = tuple(
                band for band, outcome in zip(bands, in_slot, strict=True) if band and outcome.piece is not piece
            )
            shown.append(Shown(piece, out_in))
    return tuple(shown)


def _spliced(content: bytes, insertions: tuple[tuple[int, bytes], ...], page: Page) -> bytes:
    """Content with bytes put in at places and cuts left out. A place within a cut is taken as the cut's start."""
    if not page.cuts:
        parts: list[bytes] = []
        at = 0
        for place, inserted in insertions:
            parts += (content[at:place], inserted)
            at = place
        parts.append(content[at:])
        return b"".join(parts)
    parts, at = [], 0
    pending = list(insertions)
    for cut in page.cuts:
        while pending and pending[0][0] < cut.end:
            place, inserted = pending.pop(0)
            place = min(place, cut.start)
            parts += (content[at:place], inserted)
            at = place
        parts.append(content[at : cut.start])
        at = cut.end
    for place, inserted in pending:
        parts += (content[at:place], inserted)
        at = place
    parts.append(content[at:])
    return b"".join(parts)


def _short_hash(data: bytes) -> str:
    return hashlib.sha256(data).hexdigest()[:12]


@cache
def _leads(kind: type[Node]) -> bool:
    """Whether nodes of this kind lead somewhere."""
    return "target" in kind.model_fields


def _linked_pages(site: Site) -> set[str]:
    """Ids of the pages that menus or items lead to, in any language: only on these can a link be the current one."""
    entries = (entry for menu in site.menus for entry in walk(menu))
    nodes: tuple[Node, ...] = (*entries, *(node for piece in site.pieces for node in styled_in(piece)))
    targets = (getattr(node, "target") for node in nodes if _leads(type(node)))  # noqa: B009 - only some nodes have it
    linked = {target.page for target in targets if isinstance(target, ToPage)}
    linked |= {item.list_on for item in items_of(site.pieces) if isinstance(item, Pager) and item.list_on}
    linked |= {
        link.target.page
        for item in items_of(site.pieces)
        if isinstance(item, PictureList)
        for link in item.links
        if isinstance(link.target, ToPage)
    }
    translated = {page.id for page in site.pages if page.translates in linked}
    originals = {page.translates for page in site.pages if page.id in linked and page.translates}
    return linked | translated | originals
