"""Where does a link lead that somebody typed: a page's path or title, a place in a page, an address, a mail address, a
telephone number?"""

from __future__ import annotations

import re
from collections.abc import Callable
from urllib.parse import unquote

from pydantic import ValidationError

from ...model.navigation.page_index import index_of
from ...model.site import Page, Site
from ...values.targets import Target, ToAddress, ToNothing, ToPage, ToPlace

_MAIL = re.compile(r"[^\s@/:]+@[^\s@/:]+\.[^\s@/:]+")
_TELEPHONE = re.compile(r"\+?[\d\s()/-]{5,24}")
_HOST = re.compile(r"[\w-]+(\.[\w-]+)+(/|$)")


def as_typed(target: Target, path_of: Callable[[str], str]) -> str:
    """Where something leads, as one types it. `path_of`: a page's path by its id, empty where it is gone."""
    match target:
        case ToPage(page=page):
            return path_of(page)
        case ToPlace(page=page, place=place):
            path = path_of(page)
            return f"{path}#{place.replace('%', '%25')}" if path else ""
        case ToAddress(address=address):
            return address.removeprefix("mailto:").removeprefix("tel:")
        case _:
            return ""


class TypedLinks:
    """Reads links for a site. Made once for many of them."""

    def __init__(self, site: Site) -> None:
        self._by_path = {page.path.rstrip("/"): page for page in site.pages}
        self._ids = index_of(site.pages).by_id
        self._by_title: dict[str, Page] = {}
        for page in site.pages:
            self._by_title.setdefault(page.title, page)

    def target(self, text: str) -> Target:
        """What was meant. Raises ValueError, with the reason in words, where it can be nothing."""
        text = text.strip()
        if not text:
            return ToNothing()
        path, hash_mark, place = text.partition("#")
        page = self._page(path) or (self._by_title.get(text) if text != "" else None)
        if page is not None and hash_mark and path:
            return self._checked(ToPlace, page=page.id, place=unquote(place)) if place else ToPage(page=page.id)
        if page is not None:
            return ToPage(page=page.id)
        if _MAIL.fullmatch(text):
            return self._checked(ToAddress, address=f"mailto:{text}")
        if _TELEPHONE.fullmatch(text):
            return self._checked(ToAddress, address="tel:" + re.sub(r"[^\d+]", "", text))
        if _HOST.match(text):
            return self._checked(ToAddress, address=f"https://{text}")
        return self._checked(ToAddress, address=text)

    def _page(self, path: str) -> Page | None:
        if path in self._ids:
            return self._ids[path]
        return self._by_path.get(path.rstrip("/")) if path.startswith("/") else None

    @staticmethod
    def _checked(kind: type[ToAddress] | type[ToPlace], **fields: str) -> Target:
        try:
            return kind(**fields)
        except ValidationError as error:
            raise ValueError(error.errors()[0]["msg"].removeprefix("Value error, ")) from None
