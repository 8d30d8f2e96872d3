"""Pages of the demo as someone would have written them: plain HTML files beside one style sheet."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from html import escape
from typing import Any, TypeVar

from ..core.exchange.html.markdown import rendered
from ..core.exchange.imports.import_pages import described_page, digest
from ..core.languages import direction
from ..core.model.site import Asset, Page, Site
from ..core.values.rich import RichWords
from ..core.values.styling import Declaration
from ..core.values.words import Words

Demo = tuple[Site, dict[str, bytes]]
"""A site, and the bytes of its contents by hash."""


@dataclass
class Pile:
    """Pages and files as they are made, and the bytes of their contents by hash."""

    contents: dict[str, bytes] = field(default_factory=dict)
    pages: list[Page] = field(default_factory=list)
    assets: list[Asset] = field(default_factory=list)

    def sorted(self) -> dict[str, Any]:
        """`pages` and `assets` in the order that a site keeps them in."""
        return {
            "pages": tuple(sorted(self.pages, key=lambda page: page.path)),
            "assets": tuple(sorted(self.assets, key=lambda asset: asset.path)),
        }

    def page(
        self,
        page_id: str,
        path: str,
        title: str,
        text: str,
        *,
        site: str,
        language: str = "en",
        picture: str = "",
        tags: tuple[str, ...] = (),
        bare: bool = False,
        translates: str | None = None,
    ) -> None:
        body = rendered(text)
        figure = f'<img class="wide" src="{picture}" alt="" width="960" height="320">\n' if picture else ""
        content = (
            f'<!DOCTYPE html>\n<html lang="{language}" dir="{direction(language)}">\n<head>\n<meta charset="utf-8">\n'
            f'<meta name="viewport" content="width=device-width, initial-scale=1">\n<title>{escape(title)} · {site}</title>\n'
            f'<link rel="stylesheet" href="/style.css">\n</head>\n<body>\n<main>\n<h1>{escape(title)}</h1>\n{figure}{body}</main>\n</body>\n</html>\n'
        ).encode()
        page = described_page(
            Page(id=page_id, path=path, language=language, tags=tags, bare=bare, translates=translates), content
        )
        original = next((one for one in self.pages if one.id == translates), None)
        self.pages.append(page.replaced(title=title, of=original.content if original else None))
        self.contents[digest(content)] = content

    def asset(self, asset_id: str, path: str, text: str) -> None:
        content = text.encode()
        self.assets.append(Asset(id=asset_id, path=path, content=digest(content), size=len(content)))
        self.contents[digest(content)] = content


def declared(owner: str, values: Mapping[Any, str], part: str = "box") -> tuple[Declaration, ...]:
    """Declarations from values by property, or by (property, state). `owner` begins their ids."""
    made = []
    for at, (key, value) in enumerate(values.items(), 1):
        name, state = (key, "rest") if isinstance(key, str) else key
        made.append(
            Declaration.model_validate(
                {"id": f"st-{owner}-{part[0]}{at}", "property": name, "state": state, "value": value, "part": part}
            )
        )
    return tuple(made)


_Words = TypeVar("_Words", Words, RichWords)


def in_four(english: str, german: str, welsh: str, arabic: str) -> Words:
    """Words in the demo's four languages."""
    return _said(Words(text=english), german, welsh, arabic)


def marked_in_four(english: str, german: str, welsh: str, arabic: str) -> RichWords:
    return _said(RichWords(text=english), german, welsh, arabic)


def _said(words: _Words, *others: str) -> _Words:
    for language, text in zip(("de", "cy", "ar"), others, strict=True):
        words = words.saying(language, text)
    return words
