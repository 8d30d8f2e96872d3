"""Which page is meant: by its path, or by the name of its file?"""

from __future__ import annotations

from difflib import get_close_matches

from ..core.exchange.imports.import_pages import file_name
from ..core.model.site import Page, Site


def page_meant(site: Site, said: str) -> Page | None:
    """`/guide/`, `/guide`, `guide/index.html` and `./guide/index.html` mean the same page."""
    plain = said.removeprefix("./").strip("/")
    names = {plain, plain.removesuffix("index.html").rstrip("/")}
    return next((page for page in site.pages if page.path.strip("/") in names or file_name(page.path) == plain), None)


def none_at(site: Site, said: str) -> str:
    """That there is none, with the path that is most like it."""
    sought = "/" + said.removeprefix("./").strip("/")
    near = get_close_matches(sought, [page.path for page in site.pages], n=1, cutoff=0.5)
    return f"there is no page at {said}" + (f"; did you mean {near[0]}?" if near else "")
