"""The way to the same page in another language."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from typing import Literal, NamedTuple

from pydantic import Field

from ...languages import direction, language_of
from ...languages.names import name_in
from ...values.brands import Brands
from ...values.styling import Part
from ...values.words import Words
from ..context import PageContext
from ..marks import switch_mark
from ..markup import Attributes, Element, Markup, element
from .base import DiffersByPage, named_by
from .parts import icon, listed

PICTURE_PX = 14
"""Height of what stands for a language."""


class Offered(NamedTuple):
    """A language, and where it leads. `href` is None where somebody stays on the page; `is_current`: it is the language
    of the page that is looked at."""

    language: str
    href: str | None
    is_current: bool = False


class LanguageSwitch(DiffersByPage):
    """Leads from each page to the same in each of the site's languages (`Counterparts`)."""

    NAME = "Language switch"
    ABOUT = "The same page in each language of the site"
    CALLED = ("translation", "locale", "flags", "international")
    ROLES = {"box": "menu", "content": "entry"}
    ALIKE = ("words", "names", "way")

    kind: Literal["languages"] = "languages"
    words: Words = Field(default=Words(), description="What stands before the languages; nothing where empty.")
    way: Literal["row", "list", "button"] = Field(
        default="row", description="Beside each other, below each other, or behind a button with the present one."
    )
    side: Literal["start", "end"] = Field(
        default="start", description="With which of its edges what a button offers stands at the button's."
    )
    names: Literal["own", "here", "code"] = Field(
        default="own", description="As each is called by its readers, as in the page's language, or its code."
    )
    pictures: Literal["none", "before", "alone"] = Field(
        default="none", description="Whether pictures stand before the names, or instead, of languages that have one."
    )
    hides_current: bool = Field(default=False, description="The language of the page itself is left out.")
    suggests: bool = Field(
        default=False,
        description="Tells those whose languages are others, once a visit, that the page is there in theirs; what somebody has chosen here counts before what their browser asks for.",
    )

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return named_by(self.NAME, self.words.text)

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        ways = {"row": (), "list": ("below-each-other",), "button": ("offering", f"at-{self.side}")}[self.way]
        # No landmark: a page may have several, and of landmarks each has a name of its own.
        attributes: Attributes = {
            **page.attributes(self, "menu", "languages", *ways, self.id),
            "role": "group",
            "aria-label": page.words(self.words, self.id) or page.phrase("languages"),
        }
        if self.suggests:
            attributes = {**attributes, "data-rim-suggests": page.name("language"), "data-rim-in": page.language}
        said = page.words(self.words, self.id)
        before = element("span", {"class": page.name("said")}, said) if said else None
        told = self._suggestion(page) if self.suggests else None
        return (element("div", attributes, before, switch_mark(self.id), told),)

    def _suggestion(self, page: PageContext) -> Element:
        """Filled by a script, in the language that is meant."""
        shut: Attributes = {"type": "button", "aria-label": page.phrase("close_notice")}
        way = element("a", {"dir": "auto"})
        close = element("button", shut, icon("x", page))
        return element("div", {"class": page.name("suggestion"), "role": "status", "hidden": True}, way, close)

    def ways_markup(self, offered: Sequence[Offered], page: PageContext) -> Element:
        """What stands for the mark: links, the present language marked (ARIA 1.2, `aria-current`). Where there is no other
        one, its name alone."""
        name = self._named(next((one.language for one in offered if one.is_current), page.language), page)
        lines = [self._line(one, page) for one in offered if not (one.is_current and self._leaves_current)]
        if not lines:
            return listed(page, element("li", {}, element("span", {"class": page.name("head")}, name)))
        if self.way != "button":
            return listed(page, *lines)
        arrow = icon("chevron-down", page)
        opener = element("summary", {"class": page.name("head")}, name, arrow)
        offers = element("ul", {"class": f"{page.name('list')} {page.name('offers')}", "role": "list"}, *lines)
        return element("details", {"class": page.name("list"), "data-rim-offers": True}, opener, offers)

    @property
    def _leaves_current(self) -> bool:
        """The button says it already."""
        return self.hides_current or self.way == "button"

    def _line(self, one: Offered, page: PageContext) -> Element:
        current = "true" if one.is_current else None
        if one.href is None:
            return element("li", {}, element("span", {"class": page.name("head")}, self._named(one.language, page)))
        leads: Attributes = {"href": one.href, "hreflang": one.language, "aria-current": current}
        if self.suggests and not one.is_current:
            leads = {
                **leads,
                "data-rim-said": language_of(one.language).phrases.get("suggest") or page.said_of(one.language).called,
            }
        return element("li", {}, element("a", leads, self._named(one.language, page)))

    def _named(self, language: str, page: PageContext) -> Element:
        """A name in its own language says which that is, and which way it runs (WCAG 2.2, 3.1.2)."""
        own: Attributes = {"lang": language, "dir": direction(language)}
        called = page.said_of(language).called if self.names == "own" else name_in(language, page.language)
        picture = page.said_of(language).picture if self.pictures != "none" else None
        if picture and self.pictures == "alone":
            return self._picture(picture, {"alt": called, **(own if self.names == "own" else {})}, page)
        if self.names == "code":
            named = element("span", {"aria-label": called, "role": "img"}, language.upper())
        else:
            named = element("span", own if self.names == "own" else {}, called)
        if not picture:
            return named
        return element("span", {"class": page.name("pictured")}, self._picture(picture, {"alt": ""}, page), named)

    def _picture(self, path: str, attributes: Attributes, page: PageContext) -> Element:
        return element("img", {"src": path, **attributes, **page.size(path, PICTURE_PX)})

    def sample(self, page: PageContext) -> Element:
        """With all of the site's languages."""
        return self.ways_markup([Offered(one, "/", one == page.language) for one in page.languages], page)

    def icons(self, brands: Brands) -> Iterable[str]:
        return (*(["chevron-down"] if self.way == "button" else []), *(["x"] if self.suggests else []))

    def texts_within(self) -> tuple[Part, ...]:
        return ("box",)
