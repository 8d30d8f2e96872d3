"""What is done to translations besides typing them: drafted by a translator, looked at, left as the original is."""

from __future__ import annotations

from collections.abc import Callable, Iterable

from django.conf import settings
from django.http import QueryDict
from django.utils.module_loading import import_string
from pydantic import ValidationError

from ....core.kinds.phrases import phrase_id, sayable
from ....core.languages import phrase
from ....core.languages.translator import Translator
from ....core.model.editing.apply import reason_of
from ....core.model.editing.edits import Together
from ....core.model.site import Site
from ....core.model.texts import SaidText, said_phrase, says, texts_of
from ....core.values.words import Translatable
from .form_error import FormError, NotThere, Posted


def translator() -> Translator:
    made: Translator = import_string(settings.TRANSLATOR)()
    return made


def _asked(site: Site, post: QueryDict) -> tuple[list[SaidText], str]:
    """The texts that a form is about: one, or all; and the language."""
    language = post["language"]
    if language not in site.other_languages:
        raise FormError(post.get("node", "site"), "language", "the site is not in this language")
    if "node" not in post:
        return list(texts_of(site)), language
    key = f"{post['node']}.{post['field']}"
    found = [text for text in texts_of(site) if text.key == key]
    if not found:
        raise NotThere(post["node"], post["field"])
    return found, language


def _posted(
    site: Site, texts: Iterable[SaidText], change: Callable[[SaidText], Translatable], *, as_far_as_can_be: bool = False
) -> Posted:
    """`as_far_as_can_be`: what may not be is left as it was."""
    edits = []
    for text in texts:
        try:
            changed = change(text)
            edit = says(site, text, changed)
        except ValidationError as error:
            if as_far_as_can_be:
                continue
            raise FormError(text.node, text.field, reason_of(error)) from None
        if changed != text.words:
            edits.append(edit)
    return Posted(edits[0] if len(edits) == 1 else Together(edits=tuple(edits)))


def _translate(site: Site, post: QueryDict) -> Posted:
    """What is missing in a language is drafted."""
    asked, language = _asked(site, post)
    missing = [text for text in asked if text.words.standing(language) == "missing"]
    made = translator().translate([text.words.text for text in missing], site.language, language)
    drafts = {text.key: draft for text, draft in zip(missing, made, strict=True)}
    return _posted(
        site,
        missing,
        lambda text: text.words.saying(language, drafts[text.key], draft=True),
        as_far_as_can_be=len(asked) > 1,
    )


def _looked(site: Site, post: QueryDict) -> Posted:
    """Somebody has read it, and it stands as it is."""
    asked, language = _asked(site, post)
    return _posted(site, asked, lambda text: text.words.saying(language, text.words.in_language(language)))


def _same(site: Site, post: QueryDict) -> Posted:
    """A name, say, that is the same in the language."""
    asked, language = _asked(site, post)
    return _posted(site, asked, lambda text: text.words.saying(language, text.words.text))


def is_phrase(node: str) -> bool:
    """Whether it is one of our own phrases, which need not be among the site's nodes."""
    return any(phrase_id(name) == node for name in sayable())


def say_phrase(site: Site, post: QueryDict) -> Posted:
    """One of our own, typed in a language; nothing typed: as it ships."""
    name = next(name for name in sayable() if phrase_id(name) == post["node"])
    said, language, typed = said_phrase(site, name), post.get("language", ""), post.get("value", "")
    text = SaidText((said,), "words", said.words)
    try:
        if not typed.strip() and language in {"", site.language}:
            return Posted(says(site, text, said.words.saying("", phrase(name, site.language))))
        return Posted(says(site, text, said.words.saying(language, typed)))
    except ValidationError as error:
        raise FormError(post["node"], "words", reason_of(error)) from None


READERS: dict[str, Callable[[Site, QueryDict], Posted]] = {
    "translate": _translate,
    "looked": _looked,
    "same": _same,
}
