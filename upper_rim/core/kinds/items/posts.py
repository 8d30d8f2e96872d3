"""The newest posts."""

from __future__ import annotations

from collections.abc import Mapping, Set
from typing import Annotated, Literal

from pydantic import Field

from ...languages.written import date_in_words
from ...values.addresses import PagePath
from ...values.styling import Part
from ...values.words import Words
from ..context import PageContext, Post
from ..markup import Element, Markup, element
from .base import BaseItem, named_by
from .parts import listed, title_over


class Posts(BaseItem):
    """The newest of the site's dated pages, or of an Atom or RSS file among its files."""

    NAME = "Latest posts"
    ABOUT = "The newest dated pages, or those of a feed"
    CALLED = ("news", "feed", "blog")
    ROLES = {"box": "menu", "content": "entry", "heading": "list-title", "second-line": "second-line"}
    WITHIN = {}

    kind: Literal["posts"] = "posts"
    words: Words = Field(default=Words(), description="A title over them.")
    below: PagePath = "/"
    feed: PagePath | None = Field(default=None, description="Path of the file; the site's own pages where None.")
    count: Annotated[int, Field(ge=1, le=50)] = 5
    dates_shown: bool = True

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return named_by(self.NAME, self.words.text)

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        head = title_over(page.words(self.words, self.id), self.id, page)
        lines = (self._line(post, page) for post in page.posts(self.feed, self.below)[: self.count])
        attributes = page.attributes(self, "menu", "links", "posts", self.id)
        return (element("div", attributes, head, listed(page, *lines)),)

    def _line(self, post: Post, page: PageContext) -> Element:
        shows_date = self.dates_shown and post.date
        dated = {"class": page.name("more"), "datetime": post.date}
        date = element("time", dated, date_in_words(post.date, page.language)) if shows_date else None
        return element("li", {}, element("a", {"href": post.address}, post.title), date)

    @property
    def unseen_parts(self) -> Set[Part]:
        own: set[Part] = {"heading", "second-line"}
        return own - set(self.texts_within())

    def texts_within(self) -> tuple[Part, ...]:
        shown: dict[Part, bool] = {"heading": bool(self.words.text), "second-line": self.dates_shown}
        return tuple(part for part, is_shown in shown.items() if is_shown)
