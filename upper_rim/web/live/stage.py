"""What does the stage show? The newest state of a site, composed as it will be published, for one designer's eyes."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable, Mapping
from functools import lru_cache
from pathlib import Path
from typing import Any, cast

from django.http import HttpRequest, HttpResponse, HttpResponseNotAllowed, HttpResponseNotFound
from django.utils import timezone

from ...core.conditions.visitor import VisitorCard
from ...core.exchange.html.encoding import insertion
from ...core.exchange.html.markers import marked
from ...core.exchange.imports.import_pages import page_path
from ...core.kinds.context import GateState
from ...core.kinds.pieces.consent import ASKED
from ...core.kinds.pieces.gate import GATE_STATES, Gate
from ...core.model.editing.apply import apply
from ...core.model.editing.edits import edit_adapter
from ...core.model.memo import Memo
from ...core.model.site import Page, Site
from ...core.model.stages import in_stage, stages_of
from ...core.output.file_types import content_type
from ...core.output.naming import PARTS_PATH
from ...core.output.page.compose import Composer
from ...core.output.page.specimen import IN_PIECE, look_document, role_document, states_document
from ...core.output.search.search_html import results_path
from ...core.output.search.site_search import is_part
from ...core.reach.begun import PIECE, begun
from ...core.style.resolve import element_in, styling_of
from ...core.values.styling import STATES_OF, Part
from ...shipped import shelf
from ..sites import contents, store
from ..sites.fitters import site_fitter
from ..sites.models import StoredSite, Trial
from ..sites.rules import rules_of
from ..sites.walled import walled_shelf
from .addresses import StageKey, studio_address

SCRIPTS = ("idiomorph.min.js", "drawn.js", "handles.js", "dragging.js", "seams.js", "stage.js")
"""The stage's own, in the order in which they need each other; at `SCRIPTS_PATH` and their name."""
LATER = ("measuring.js", "shaping.js")
"""Those that are fetched when they are first used."""
SCRIPTS_PATH = "/_rim/stage/"


def respond(request: HttpRequest, key: StageKey) -> HttpResponse:
    if request.method not in {"GET", "HEAD"}:
        return HttpResponseNotAllowed(["GET", "HEAD"])
    name = request.path.removeprefix(SCRIPTS_PATH)
    if name in SCRIPTS + LATER:
        script = Path(__file__).with_name("stage_scripts") / name
        return _quiet(HttpResponse(script.read_bytes(), content_type="text/javascript; charset=utf-8"))
    if not StoredSite.objects.filter(pk=key.site_id, people=key.user_id, people__is_active=True).exists():
        return HttpResponseNotFound("This stage is closed.", content_type="text/plain")
    loaded = store.load(key.site_id)
    tried = _tried_on(key, loaded.site, request.GET) or loaded.site
    loaded = loaded._replace(site=_as_looked_at(tried, request.GET.get(CARD)))
    if request.path.startswith(SPECIMENS):
        return _quiet(_specimen(request, loaded.site))
    composer = stage_composer(key.site_id, loaded)
    index = _index_with(request.path, composer, loaded.site)
    if index is not None:
        return _quiet(HttpResponse(index.get(request.path, b""), content_type="text/plain; charset=utf-8"))
    if request.path.startswith(PARTS_PATH):
        part = composer.script_at(request.path) or _shipped_fonts().get(request.path)
        part = part or dict(composer.parts()).get(request.path)
        return (
            _quiet(HttpResponse(part, content_type=content_type(request.path)))
            if part is not None
            else HttpResponseNotFound()
        )
    return _quiet(_page_or_file(request, composer, loaded.revision))


@lru_cache(maxsize=1)
def _shipped_fonts() -> dict[str, bytes]:
    """All of them, by path: what is tried on, or shown in a specimen, may wear another face than the site."""
    return {PARTS_PATH + file.name: file.data for face in shelf().faces.values() for file in face.files}


_composers: Memo[Site, Composer] = Memo(16)
_all_on: Memo[Site, Site] = Memo(16)


def _as_looked_at(site: Site, card: str | None) -> Site:
    """Whoever looks as one of the site's cards sees languages that are held back from others."""
    if all(one.on for one in site.spoken) or not any(one.id == card for one in site.cards):
        return site
    return _all_on.of(site, Site.with_all_languages_on)


def stage_composer(site_id: int, loaded: store.Loaded) -> Composer:
    """Kept for the newest states that were asked for."""
    return _composers.of(loaded.site, lambda site: _composer(site_id, site))


def _composer(site_id: int, site: Site) -> Composer:
    fitter = site_fitter(site_id)
    year = timezone.localdate().year
    return Composer(fitter.resolved(site), walled_shelf(), contents.read_content, marks=True, year=year, fitter=fitter)


def forget_all() -> None:
    """Drops what this process keeps; for tests, where databases come and go."""
    _composers.forget()
    _all_on.forget()
    _tried.forget()


TRIAL, ARRANGEMENT, MENU, CARD, GATE, ALONE = "rim-try", "rim-begun", "rim-menu", "rim-as", "rim-gate", "rim-alone"
"""In a stage's address: what the designer tries on; the key of the arrangement that a new piece would begin with, and
the menu in it; the visitor card as whom one looks; the gate that stands before the page, and what it shows; that the page
is there as it came, without pieces."""


def shows_gate(gate: str, state: str) -> dict[str, str]:
    """For a stage's address. Somebody who has passed sees the page."""
    return {GATE: f"{gate}.{state}"} if state in GATE_STATES else {}


MOST_TRIED = 16
_tried: Memo[Site, dict[tuple[str, ...], Site | None]] = Memo(8)
"""By the site as it is: the same one for all that the stage asks for of it."""


def _tried_on(key: StageKey, site: Site, asked: Mapping[str, str]) -> Site | None:
    if ARRANGEMENT in asked:
        arrangement, menu = asked[ARRANGEMENT], asked.get(MENU, "")
        return _known(site, (arrangement, menu), lambda: _with_arrangement(key, site, arrangement, menu))
    trial = Trial.objects.filter(site_id=key.site_id, person_id=key.user_id).first() if TRIAL in asked else None
    if trial is None:
        return None
    edit = json.dumps(trial.edit, sort_keys=True)
    return _known(site, (edit,), lambda: _with_edit(key, site, trial.edit))


def _known(site: Site, what: tuple[str, ...], make: Callable[[], Site | None]) -> Site | None:
    known = _tried.of(site, lambda _: {})
    if what in known:
        return known[what]
    if len(known) >= MOST_TRIED:
        known.clear()
    known[what] = made = make()
    return made


def _with_arrangement(key: StageKey, site: Site, arrangement: str, menu: str) -> Site | None:
    new = begun(site, arrangement, rules_of(key.site_id), menu)
    return new.site if new else None


def _with_edit(key: StageKey, site: Site, edit: Any) -> Site | None:
    tried = apply(site, edit_adapter.validate_python(edit), rules_of(key.site_id))
    return tried if isinstance(tried, Site) else None


SPECIMENS = "/_rim/specimens/"
"""Below it: `states/NODE/PART/BAND/` and `roles/ROLE/`, what something looks like in each of its states, with `in-ROLE` as the
part: all in that role in a piece; `looks/LOOK/`, who could wear it wearing it."""


_indexes: Memo[Site, dict[str, dict[str, bytes]]] = Memo(2)


def _index_with(path: str, composer: Composer, site: Site) -> dict[str, bytes] | None:
    """The search index that a path is a part of."""
    language = next((one for one, head in composer.index_paths.items() if is_part(path, head)), None)
    if language is None:
        return None
    known = _indexes.of(site, lambda _: {})
    if language not in known:
        known[language] = composer.index(language)
    return known[language]


def _specimen(request: HttpRequest, site: Site) -> HttpResponse:
    parts = request.path.removeprefix(SPECIMENS).strip("/").split("/")
    try:
        if parts[0] == "roles":
            return HttpResponse(role_document(site, shelf(), parts[1], PARTS_PATH))
        if parts[0] == "looks":
            return HttpResponse(look_document(site, shelf(), parts[1], PARTS_PATH))
        _, node, part, band = parts
        site, node = _in_its_stage(site, node)
        styling, role = styling_of(site), part.removeprefix(IN_PIECE)
        if role == part:
            element = styling.elements[node, cast(Part, part)]
        else:
            piece = next(piece for piece in site.pieces if piece.id == node)
            element = element_in(styling, piece.id, next(known for known in STATES_OF if known == role))
    except (ValueError, KeyError, StopIteration, IndexError):
        return HttpResponseNotFound()
    return HttpResponse(states_document(site, shelf(), element, None if band == "all" else band, PARTS_PATH))


def _in_its_stage(site: Site, node: str) -> tuple[Site, str]:
    """For a stage: the site with the piece as it is styled in that stage, and the piece; otherwise as they are."""
    piece = next((piece for piece in site.pieces if any(stage.id == node for stage in stages_of(piece))), None)
    if piece is None:
        return site, node
    pieces = tuple(in_stage(one, node) if one is piece else one for one in site.pieces)
    return site.replaced(pieces=pieces), piece.id


def _page_or_file(request: HttpRequest, composer: Composer, revision: int) -> HttpResponse:
    site = composer.site
    path = page_path(request.path)
    page = next((page for page in site.pages if page.path in {path, path + "/"}), None)
    if page is not None:
        card = next((card for card in site.cards if card.id == request.GET.get(CARD)), None)
        if ALONE in request.GET and page.content:
            script = _stage_script(studio_address(request.get_host()), site.key, "", revision)
            alone = contents.read_content(page.content) + insertion(script, page.encoding)
            return HttpResponse(alone, content_type="text/html")
        gate = _gate_before(request, composer, page)
        composed = gate or _composed(composer, page, card, _question(request))
        encoding = "utf-8" if gate else page.encoding
        staged, shown = _staged(composer, composed, encoding, studio_address(request.get_host()), revision)
        if request.headers.get(SHOWN) == shown:
            return HttpResponse(composer.css, content_type="text/css; charset=utf-8")
        return HttpResponse(staged, content_type="text/html")
    asset = next((asset for asset in site.assets if asset.path == path), None)
    if asset is not None:
        return HttpResponse(contents.read_content(asset.content), content_type=content_type(path))
    script = _stage_script(studio_address(request.get_host()), site.key, "", revision)
    results = next((one for one in composer.index_paths if results_path(one, site.language) == path), None)
    if results is not None:
        return HttpResponse(composer.results_page(results) + script.encode(), content_type="text/html")
    return HttpResponse(composer.not_found_page() + script.encode(), content_type="text/html", status=404)


SHOWN = "X-Rim-Shown"
"""With it a stage says what markup it shows; where that is still the newest, it is answered with the CSS alone."""


def staged_page(
    composer: Composer, page: Page, studio: str, revision: int, card: VisitorCard | None = None
) -> tuple[bytes, str]:
    """The page as published, and behind its last byte the script that reports to the studio; and what names its markup,
    whatever the CSS. `card`: as whom it is looked at."""
    return _staged(composer, _composed(composer, page, card), page.encoding, studio, revision)


def _composed(composer: Composer, page: Page, card: VisitorCard | None, asking: str = "") -> bytes:
    """`asking`: the question about consent that shows, by its id."""
    if page.content:
        return composer.page(page, contents.read_content(page.content), card, asking)
    return composer.page_to_come(page, card, asking)


def _question(request: HttpRequest) -> str:
    """The one that is asked for, or that would be begun."""
    if ARRANGEMENT in request.GET:
        return PIECE
    node, _, state = request.GET.get(GATE, "").partition(".")
    return node if state == ASKED else ""


def _gate_before(request: HttpRequest, composer: Composer, page: Page) -> bytes | None:
    """The gate that is asked for in a state, in the page's language; the one that would be begun."""
    node, _, state = request.GET.get(GATE, "").partition(".")
    if ARRANGEMENT in request.GET:
        node, state = PIECE, "asked"
    gate = next((piece for piece in composer.site.pieces if piece.id == node), None)
    if not isinstance(gate, Gate) or state not in GATE_STATES:
        return None
    return composer.gate_page(gate, page.language, cast(GateState, state))


def _staged(composer: Composer, composed: bytes, encoding: str, studio: str, revision: int) -> tuple[bytes, str]:
    shown = hashlib.sha256(composed.replace(insertion(composer.css, encoding), b"")).hexdigest()
    return composed + insertion(_stage_script(studio, composer.site.key, shown, revision), encoding), shown


def _stage_script(studio: str, key: str, shown: str, revision: int) -> str:
    *parts, last = (f'<script src="{SCRIPTS_PATH}{name}"' for name in SCRIPTS)
    told = f' data-studio="{studio}" data-key="{key}" data-shown="{shown}" data-revision="{revision}"'
    return marked("stage", "".join(f"{part}></script>" for part in parts) + f"{last}{told}></script>")


def _quiet(response: HttpResponse) -> HttpResponse:
    response["Cache-Control"] = "no-store"
    response["X-Robots-Tag"] = "noindex"
    response["X-Content-Type-Options"] = "nosniff"
    response["Referrer-Policy"] = "no-referrer"
    return response
