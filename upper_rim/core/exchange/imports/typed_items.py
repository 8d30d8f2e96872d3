"""What can it become, where something is to be inserted, that somebody types: a telephone number, a page's title, the
name of a kind, words? The likeliest first; where nothing is typed, every kind."""

from __future__ import annotations

import re
from collections.abc import Iterator
from html import escape
from itertools import islice
from typing import Any, NamedTuple

from ...kinds.items import ITEM_KINDS
from ...model.site import Page, Site
from ...values.brands import Brands
from ...values.targets import Target, ToAddress, ToPage, ToPlace
from .typed_links import TypedLinks

MOST_OFFERS = 9
_LEAST_LETTERS = 2
"""Of a word by which something of the site's is looked for."""

ORDER = (
    "text", "button", "icon", "menu", "logo", "search", "rich", "links", "social", "contact", "picture", "copyright",
    "credit", "top", "form", "map", "posts", "pictures", "trail", "languages", "divider", "spacer", "pager", "viewer",
    "embed", "privacy", "answer", "secret", "birth", "told", "choices",
)  # fmt: skip
"""Every kind, those first that most pieces have."""


class TypedItem(NamedTuple):
    """A kind, and the fields that it would begin with; `about`: what that is, in a few words."""

    kind: str
    fields: dict[str, Any]
    about: str


def typed_items(site: Site, typed: str, brands: Brands, first_id: str) -> list[TypedItem]:
    """`first_id`: for the one node that an item may hold from the beginning (a profile), an id that nothing has."""
    text = typed.strip()
    if not text:
        return [TypedItem(kind, {}, ITEM_KINDS[kind].ABOUT) for kind in ORDER]
    words = [*_words(text)]
    found: dict[tuple[str, str], TypedItem] = {}
    for one in (*islice(_meant(site, text, brands, first_id), MOST_OFFERS - len(words)), *words):
        found.setdefault((one.kind, str(one.fields)), one)
    return list(found.values())


def _words(text: str) -> Iterator[TypedItem]:
    """Whatever it may mean besides."""
    yield TypedItem("text", {"words": {"text": text}}, "These words")
    yield TypedItem("button", {"words": {"text": text}}, "A button that says so")
    yield TypedItem("rich", {"rich": {"text": f"<p>{escape(text, quote=False)}</p>"}}, "A paragraph to go on with")


def _meant(site: Site, text: str, brands: Brands, first_id: str) -> Iterator[TypedItem]:
    yield from _led_to(site, text, brands, first_id)
    yield from _credited(text)
    yield from _named_kinds(text, exactly=True)
    yield from _of_the_site(site, text)
    yield from _named_kinds(text, exactly=False)


def _led_to(site: Site, text: str, brands: Brands, first_id: str) -> Iterator[TypedItem]:
    """What leads where the text says, if it says where."""
    try:
        target: Target = TypedLinks(site).target(text)
    except ValueError:
        return
    if isinstance(target, ToPage | ToPlace):
        yield from _leading(next(page for page in site.pages if page.id == target.page), target)
    elif isinstance(target, ToAddress) and _is_whole(target.address):
        yield from _to_address(target, text, brands, first_id)


def _is_whole(address: str) -> bool:
    """Whether it is an address by itself, and not words that could also be taken for a path of the site."""
    return address.startswith(("mailto:", "tel:")) or re.match(r"https?://[^\s/]+\.", address) is not None


def _leading(page: Page, target: Target) -> Iterator[TypedItem]:
    said = {"words": {"text": page.title or page.path}, "target": target.model_dump(mode="json")}
    yield TypedItem("button", said, f"A button to {page.path}")
    yield TypedItem("icon", {**said, "words_shown": "beside"}, f"An icon with words, to {page.path}")


def _to_address(target: ToAddress, text: str, brands: Brands, first_id: str) -> Iterator[TypedItem]:
    address, to = target.address, {"target": target.model_dump(mode="json")}
    if address.startswith("tel:"):
        yield from _reached(to, "phone", text, "Call us", "telephone")
        return
    if address.startswith("mailto:"):
        yield from _reached(to, "mail", text, "Write to us", "mail")
        return
    host = re.sub(r"^https?://(www\.)?|/.*$", "", address)
    brand = brands.mark(address).brand
    if brand is not None:
        profiles = {"profiles": [{"id": first_id, "address": address}]}
        yield TypedItem("social", profiles, f"A row of profiles, with {brand.title}")
        mark = {"icon": f"brand-{brand.slug}", "words": {"text": brand.title}}
        yield TypedItem("icon", {**to, **mark}, f"The mark of {brand.title}")
    yield TypedItem("button", {**to, "words": {"text": host}}, f"A button to {host}")
    yield TypedItem("icon", {**to, **_beside("link", host)}, f"An icon with words, to {host}")


def _reached(to: dict[str, Any], icon: str, text: str, words: str, field: str) -> Iterator[TypedItem]:
    """By telephone or mail. `field`: where contact details have it."""
    yield TypedItem("icon", {**to, **_beside(icon, text)}, "A link that says it")
    yield TypedItem("button", {**to, "words": {"text": words}}, f"A button “{words}”")
    yield TypedItem("icon", {**to, "icon": icon, "words": {"text": words}}, f"An icon, named “{words}”")
    yield TypedItem("contact", {field: text}, "Contact details with it")


def _beside(icon: str, words: str) -> dict[str, Any]:
    return {"icon": icon, "words": {"text": words}, "words_shown": "beside"}


_WORKS = (
    r"site|website|web|design|designed|built|made|pictures?|photos?|photography|illustrations?|drawings?|words|texts?"
    r"|maps?"
)
_CREDITED = re.compile(
    rf"((?:(?:{_WORKS})\b[\w ,&-]*?)(?::| by))\s+(\S.*)",
    re.IGNORECASE,
)


def _credited(text: str) -> Iterator[TypedItem]:
    """“Photos: A. Dawe”, “Designed by Fern & Co”."""
    found = _CREDITED.fullmatch(text)
    if found is not None:
        yield TypedItem("credit", {"words": {"text": found[1]}, "who": found[2]}, ITEM_KINDS["credit"].ABOUT)


def _named_kinds(text: str, *, exactly: bool) -> Iterator[TypedItem]:
    """Kinds that are called so, or whose name begins so."""
    asked = text.lower()
    for kind in ORDER:
        names = (ITEM_KINDS[kind].NAME.lower(), *ITEM_KINDS[kind].CALLED)
        begins = len(asked) >= _LEAST_LETTERS and any(name.startswith(asked) for name in names)
        if asked in names or (begins and not exactly):
            yield TypedItem(kind, {}, ITEM_KINDS[kind].ABOUT)
    if exactly and asked.startswith("©"):
        yield TypedItem("copyright", {}, ITEM_KINDS["copyright"].ABOUT)


def _of_the_site(site: Site, text: str) -> Iterator[TypedItem]:
    """Menus, pictures and pages whose names have the text in them, those that begin with it first."""
    asked = text.lower()
    if len(asked) < _LEAST_LETTERS:
        return
    for menu in site.menus:
        if asked in menu.name.lower():
            yield TypedItem("menu", {"menu": menu.id}, f"The menu {menu.name}")
    pages = [page for page in site.pages if asked in page.title.lower()]
    for page in sorted(
        pages,
        key=lambda page: (page.language != site.language, not page.title.lower().startswith(asked), len(page.title)),
    )[:2]:
        yield from _leading(page, ToPage(page=page.id))
    pictures = [
        asset.path for asset in site.assets if is_picture(asset.path) and asked in asset.path.rpartition("/")[2].lower()
    ]
    for path in pictures[:3]:
        yield TypedItem("picture", {"picture": path}, f"The picture {path.rpartition('/')[2]}")
        yield TypedItem("logo", {"picture": path}, "The same as the site’s logo")


def is_film(path: str) -> bool:
    return path.lower().endswith((".mp4", ".webm"))


def is_picture(path: str) -> bool:
    return path.lower().endswith((".svg", ".png", ".jpg", ".jpeg", ".webp", ".gif", ".avif"))
