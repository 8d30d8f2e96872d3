"""What do forms about the languages of a site mean: which there are, in which order, and what is said of each?"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence

from django.http import QueryDict
from pydantic import JsonValue

from ....core.exchange.imports.import_pages import digest
from ....core.kinds.spoken import SpokenLanguage
from ....core.languages.flags import countries, flag
from ....core.languages.names import name_in, tag_of
from ....core.model.editing.edits import Add, Edit, Set, Together
from ....core.model.navigation.page_index import index_of
from ....core.model.site import Page, Site
from ....core.model.tree import ROOT
from ...sites import ids
from ...sites.contents import keep_contents
from .form_error import FormError, Posted

FLAGS = "/flags/"


def _set(spoken: Sequence[JsonValue]) -> Set:
    return Set(node=ROOT, field="spoken", value=list(spoken))


def _as_json(spoken: Iterable[SpokenLanguage]) -> list[JsonValue]:
    return [one.model_dump(mode="json") for one in spoken]


def _listed(site: Site) -> list[SpokenLanguage]:
    """All that it is in, in their order, so that what is said of one does not move it."""
    return [site.said_of(tag) for tag in site.languages]


def _changed(site: Site, said: SpokenLanguage, field: str, value: JsonValue) -> Set:
    changed: JsonValue = {**said.model_dump(mode="json"), field: value}
    spoken = zip(_listed(site), _as_json(_listed(site)), strict=True)
    return _set([changed if one == said else as_json for one, as_json in spoken])


def _asked(site: Site, language: str) -> SpokenLanguage:
    if language not in site.languages:
        raise FormError(ROOT, "languages", "the site is not in this language any more")
    return site.said_of(language)


def _speak(site: Site, post: QueryDict) -> Posted:
    """One more; held back at first, for nothing is there in it yet."""
    typed = post.get("value", "").strip()
    language = tag_of(typed)
    if language is None:
        raise FormError(ROOT, "languages", f"“{typed}” is no language that is known here: German, de or pt-BR are")
    if language in site.languages:
        raise FormError(ROOT, "languages", f"{name_in(language, 'en')} is there already")
    return Posted(_set(_as_json([*_listed(site), SpokenLanguage(language=language, on=False)])))


def _unspeak(site: Site, post: QueryDict) -> Posted:
    """What is said of it goes; where pages are in it, it stays in the list."""
    return Posted(_set(_as_json(one for one in site.spoken if one.language != post["language"])))


def _say(site: Site, post: QueryDict) -> Posted:
    """One field of what is said of a language."""
    said, field, typed = _asked(site, post["language"]), post["field"], post.get("value", "").strip()
    value: JsonValue = typed or None
    if field == "name":
        value = typed
    elif field == "on":
        value = typed == "true"
    elif field not in {"picture", "prefix"}:
        raise FormError(ROOT, "languages", "there is nothing of this name")
    elif typed and not typed.startswith("/"):
        raise FormError(ROOT, "languages", f"“{typed}” is no path: it begins with a slash, /de/ say")
    if field == "picture" and typed and not any(asset.path == typed for asset in site.assets):
        raise FormError(ROOT, "languages", f"there is no file {typed}")
    return Posted(_changed(site, said, field, value))


def _place(site: Site, post: QueryDict) -> Posted:
    """A language goes to another place in the order; the site's own stays first."""
    node, others = post["node"], [tag for tag in site.other_languages if tag != post["node"]]
    if node not in site.other_languages:
        raise FormError(ROOT, "languages", "the site’s own language stands first")
    at = min(max(int(post["at"]) - 1, 0), len(others))
    return Posted(_set(_as_json(map(site.said_of, [site.language, *others[:at], node, *others[at:]]))))


def _flag(site: Site, post: QueryDict) -> Posted:
    """A flag is drawn among the site's files, and stands for a language."""
    said, country = _asked(site, post["language"]), post.get("value", "")
    if country not in countries():
        raise FormError(ROOT, "languages", "of this country there is no flag here")
    path, data = f"{FLAGS}{country}.svg", flag(country)
    edits: list[Edit] = [_changed(site, said, "picture", path)]
    if not any(asset.path == path for asset in site.assets):
        content = digest(data)
        keep_contents({content: data})
        asset: JsonValue = {"id": ids.new_id("as"), "path": path, "content": content, "size": len(data)}
        edits.insert(0, Add(parent=ROOT, slot="assets", values=(asset,)))
    return Posted(Together(edits=tuple(edits)))


def _begun(site: Site, original: Page, language: str) -> Posted:
    """A page that is still to come, where another one has no counterpart: below what the language's pages are below."""
    said = _asked(site, language)
    path = path_in(said, original, site)
    if any(page.path == path for page in site.pages):
        raise FormError(ROOT, "languages", f"there is a page {path} already: say on its own screen what it translates")
    new = {"id": ids.new_id("pg"), "path": path, "title": original.title, "language": said.language}
    value: JsonValue = {**new, "translates": original.id, "of": original.content}
    return Posted(Add(parent=ROOT, slot="pages", values=(value,)), (str(new["id"]),))


def path_in(said: SpokenLanguage, original: Page, site: Site) -> str:
    """Where a page would be in a language: as the original's is below its own language's prefix."""
    own = site.said_of(original.language).below
    bare = original.path[len(own) - 1 :] if original.path.startswith(own) else original.path
    return said.below.rstrip("/") + bare


def _translation(site: Site, post: QueryDict) -> Posted:
    """What is to be with a page: `begin` its translation, in a language; or it is one that is `still` right, though its
    original has changed: somebody has looked."""
    what, node, language, *_ = f"{post.get('value', '')}   ".split(" ")
    pages = index_of(site.pages).by_id
    page = pages.get(node)
    original = pages.get((page and page.translates) or "")
    if page is not None and what == "begin":
        return _begun(site, page, language)
    if page is None or original is None or what != "still":
        raise FormError(ROOT, "languages", "the page is not there any more")
    return Posted(Set(node=page.id, field="of", value=original.content))


READERS: dict[str, Callable[[Site, QueryDict], Posted]] = {
    "speak": _speak,
    "unspeak": _unspeak,
    "say-of": _say,
    "place": _place,
    "flag": _flag,
    "translation": _translation,
}
