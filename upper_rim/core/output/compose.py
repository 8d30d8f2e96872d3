"""What does a page look like with its pieces? The one composer: for the stage, the live site and the ZIP.

`Composer` prepares what all pages share; a page then costs a look-up of its pieces and a few joins of bytes.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator
from dataclasses import replace
from functools import cache
from html import escape

from ..exchange.encoding import insertion
from ..exchange.markdown import document
from ..exchange.markers import marked
from ..fit.fitter import Fitter
from ..model.current import Standings
from ..model.items import Form, LinkList, Logo, MenuItem, Pager, PictureList, ToPage, Trail
from ..model.links import Links
from ..model.menus import Menus
from ..model.phrases import phrase
from ..model.site import Below, Header, OnPage, Page, Piece, Site, Snippet
from ..model.trail import Trails
from ..model.tree import items_of
from ..reach.coverage import Coverage, Outcome
from ..style.faces import faces_in_use
from ..style.fonts import subset_font
from .fitting import fitter_of
from .form_html import FORMS
from .item_html import MARK, Scene, trail_html
from .menu_html import Written, written
from .naming import PARTS, short_hash
from .piece_html import Shown, around
from .scripts import scripts_of
from .search_html import MOST_LISTED, results_body, results_path
from .search_index import Hit
from .sheet import inside_a_page, sheet
from .shelf import Shelf
from .shown_files import ShownFiles
from .site_head import SiteHead
from .site_search import index_paths, site_index
from .splicing import spliced


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
        markup and the CSS in the page, as the stage needs them: one request shows an edit. `year` is the present
        one, for lines that tell it. `fitter`: one that has looked at the site before; it is asked how high pieces are."""
        self.site = site
        self.coverage = Coverage(site)
        self._links = Links(site)
        self._menus = Menus(site)
        self._standings = Standings(self._links)
        self._trails = Trails(site, self._links, self._menus, self._standings)
        self._items = {item.id: item for item in items_of(site.pieces)}
        self._written: dict[tuple[str, str, str], Written] = {}
        self._shelf = shelf
        self._read = read
        self._marks = marks
        self._year = year
        self._linked = _linked_pages(site)
        self._files = ShownFiles(site, read)
        known = cache(lambda: (fitter or fitter_of(shelf, read, year)).as_published())
        css = sheet(site, shelf, PARTS if marks else "", self._files.picture, fitter=known) if site.pieces else ""
        self.css = inside_a_page(css) if marks else css
        self.css_path = PARTS + f"{short_hash(css.encode())}.css"
        self.script_paths = {name: PARTS + f"{short_hash(script)}.js" for name, script in shelf.scripts.items()}
        self._looks = (
            f"<style data-rim-sheet>{self.css}</style>" if marks else f'<link rel="stylesheet" href="{self.css_path}">'
        )
        self.index_paths = index_paths(site)
        self._site_head = SiteHead(site, self._files.data)
        self._fragments: dict[tuple[tuple[tuple[str, ...], ...], str, str | None, bool], tuple[str, str, str]] = {}

    def index(self, language: str) -> str:
        """The search index of the pages in a language."""
        assert self._read is not None
        return site_index(self.site, language, self._read)

    def page(self, page: Page, content: bytes) -> bytes:
        """The published page. Taking every insertion out gives `content` less its cuts."""
        outcomes = self.coverage.on(page)
        pieces = shown_pieces(outcomes, self.coverage.bands)
        splice = page.splice
        told = self._site_head.of_page(page, content) if splice is not None and not page.bare else ""
        if splice is None or not (pieces or self.site.snippets or told):
            return spliced(content, (), page)
        head, before, behind = (b"", b"", b"")
        if pieces:
            heads = page.path == self._links.front(page.language) and not _HEADING.search(content)
            head, before, behind = self._insertions(pieces, page, splice.encoding, heads=heads)
        if told:
            head += insertion(marked("site", told), splice.encoding)
        code = {place: self._code(place, page, splice.encoding) for place in ("head", "start", "end")}
        places = (
            (splice.head_at, head + code["head"]),
            (splice.body_at, code["start"] + before),
            (len(content) if splice.end_at is None else splice.end_at, behind),
            (len(content), code["end"]),
        )
        return spliced(content, places, page)

    def _code(self, place: str, page: Page, encoding: str) -> bytes:
        """The designer's snippets for a place of this page."""
        return b"".join(
            insertion(marked("snippet", snippet.code), encoding)
            for snippet in self.site.snippets
            if snippet.place == place and snippet.on and snippet.code and _is_for(snippet, page)
        )

    def parts(self) -> Iterator[tuple[str, bytes]]:
        """The files that pages refer to: CSS, script, fonts, icons. Path and content."""
        yield from ((path, made()) for path, made in self._site_head.files())
        if not self.site.pieces:
            return
        yield self.css_path, self.css.encode()
        kinds = {item.kind for item in items_of(self.site.pieces)} | {"rim"}
        for name, script in self._shelf.scripts.items():
            if name in kinds:
                yield self.script_paths[name], script
        for face in faces_in_use(self.site, self._shelf.faces):
            for file in face.files:
                if file.data is not None:
                    yield PARTS + file.name, file.data
                elif self._read is not None and file.content is not None:
                    yield PARTS + file.name, subset_font(self._read(file.content), self._languages())
        for path, made in self._files.smaller_pictures() if not self._marks else ():
            yield path, made()

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
        head, before, behind = self._fragment(pieces, page, heads=heads)
        close = page.splice.close if page.splice else ""
        closing = marked("close", close) if close and behind else ""
        return (
            insertion(head, encoding),
            insertion(self._filled(before, page), encoding),
            insertion(closing + self._filled(behind, page), encoding),
        )

    def _fragment(self, pieces: tuple[Shown, ...], page: Page, *, heads: bool) -> tuple[str, str, str]:
        """The same for all pages with these pieces, in a language, to which no item leads; marks stand for what differs
        between them."""
        current = page.id if page.id in self._linked else None
        key = (tuple((shown.piece.id, *shown.out_in) for shown in pieces), page.language, current, heads)
        if key not in self._fragments:
            scene = self._scene(page, current)
            if not self._marks:
                scene = replace(scene, sizes=self._files.sizes)
            if heads:
                scene = replace(scene, heading=_title_of(pieces, self.site))
            before, behind = around(pieces, scene)
            scripts = self._script_tags((one.piece for one in pieces), current)
            self._fragments[key] = (marked("head", self._looks + scripts), before, behind)
        return self._fragments[key]

    def _filled(self, html: str, page: Page) -> str:
        """A piece with what its marks stand for on a page: menus in which that is the current one, its trail."""

        def put(mark: re.Match[str]) -> str:
            if mark[1]:
                trail = self._items[mark[1]]
                assert isinstance(trail, Trail)
                return trail_html(trail, self._trails.steps(trail, page), self._scene(page, None))
            item = self._items[mark[2]]
            assert isinstance(item, MenuItem | LinkList)
            key = (item.id, mark[3], page.language)
            if key not in self._written:
                self._written[key] = written(item, self._scene(page, None).within(mark[3]))
            standing = self._standings.of(self._menus.shown(item), page.language, page.id, page.path)
            return self._written[key].on_page(standing)

        return MARK.sub(put, html)

    def _scene(self, page: Page, current: str | None) -> Scene:
        index = self.index_paths.get(page.language, "")
        return Scene(
            self.site, self._links, self._menus, self._shelf, page.language, current,
            marks=self._marks, year=self._year, index_path=index, posts=self._files.posts, picture=self._files.picture,
        )  # fmt: skip

    def _script_tags(self, pieces: Iterable[Piece], current: str | None) -> str:
        used = scripts_of(self.site, pieces, current)
        paths = (path for name, path in self.script_paths.items() if name in used)
        return "".join(f'<script src="{path}" defer></script>' for path in paths)


_HEADING = re.compile(rb"<h1[\s>]", re.IGNORECASE)


def _title_of(pieces: Iterable[Shown], site: Site) -> str:
    """Id of the first title in a header."""
    headers = (one.piece for one in pieces if isinstance(one.piece, Header))
    return next((item.id for header in headers for item in site.shown_items(header) if isinstance(item, Logo)), "")


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


def _linked_pages(site: Site) -> set[str]:
    """Ids of the pages that items lead to by themselves, or are about, in any language: pieces are others on these.
    Where a page stands in a menu is put in later."""
    items = list(items_of(site.pieces))
    links = (link for item in items if isinstance(item, PictureList) for link in item.links)
    targets = (getattr(node, "target", None) for node in (*items, *links))
    linked = {target.page for target in targets if isinstance(target, ToPage)}
    linked |= {item.list_on for item in items if isinstance(item, Pager) and item.list_on}
    translated = {page.id for page in site.pages if page.translates in linked}
    originals = {page.translates for page in site.pages if page.id in linked and page.translates}
    return linked | translated | originals
