"""Something of others, shown in a frame."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Set
from typing import Annotated, Literal
from urllib.parse import urlsplit

from pydantic import AfterValidator, Field, StringConstraints

from ...values.refs import CategoryRef
from ...values.styling import Part
from ...values.words import Code, Words
from ..context import PageContext, SheetContext
from ..markup import Attributes, Element, Markup, element
from ..rule import Rule
from .base import BaseItem, Lack, named_by


def _of_a_host(address: str) -> str:
    if address and not urlsplit(address).hostname:
        raise ValueError("it begins with https:// and the name of a host")
    return address


FrameAddress = Annotated[
    str,
    StringConstraints(strip_whitespace=True, pattern=r"^(https?://[^\s\"<>\\]+)?$", max_length=2000),
    AfterValidator(_of_a_host),
]


class Embed(BaseItem):
    """A frame for another host's page, or for code of another host's. Where that waits for a yes, it is said in
    its place, with a yes of its own for this one and a link that leads there."""

    NAME = "Embed"
    ABOUT = "A map, a film or the like of another host"
    CALLED = ("frame", "iframe", "video", "map", "widget")
    ROLES = {"box": "block", "button": "button", "link": "link"}

    kind: Literal["embed"] = "embed"
    address: FrameAddress = Field(default="", description="Of the page in the frame; with code, where the link leads.")
    code: Code = Field(default="", description="HTML of others, in the frame instead of a page of theirs.")
    words: Words = Field(default=Words(text="Something of others"), description="The frame's title.")
    category: CategoryRef | None = Field(
        default=None, description="It waits for a yes to it; else as its host is said to."
    )
    width_px: Annotated[int, Field(ge=80, le=2000)] = 480
    height_px: Annotated[int, Field(ge=80, le=2000)] = 280

    @property
    def host(self) -> str:
        return urlsplit(self.address).hostname or ""

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return named_by(self.NAME, self.words.text)

    def lacks(self) -> Iterator[Lack]:
        if not self.address and not self.code.strip():
            yield Lack("says nothing", "address")

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        if not self.address and not self.code:
            return (element("div", page.attributes(self, "block", "embed", self.id)),) if page.marks else ()
        waits = page.waits_for(self.host, self.code, self.category)
        told: Attributes = {"data-rim-embed": True} if waits else {}
        # Nothing of others is there on the stage.
        there = None if page.marks else self._frame(waits, page)
        attributes = {**page.attributes(self, "block", "embed", self.id), **told}
        return (element("div", attributes, there, self._placeholder(page) if waits or page.marks else None),)

    def _frame(self, waits: str, page: PageContext) -> Element:
        """Code has a document of its own in it, which our style sheets do not reach."""
        name, value = ("srcdoc", self.code) if self.code else ("src", self.address)
        source: Attributes = {name: value}
        if waits:
            source = {"data-rim-waits": waits, "data-rim-held": True, f"data-rim-then-{name}": value}
        title = page.words(self.words, self.id)
        return element("iframe", {"class": page.name("frame"), "title": title, "loading": "lazy", **source})

    def _placeholder(self, page: PageContext) -> Element:
        said = page.name("said")
        button: Attributes = {"type": "button", "class": page.name("button"), "data-rim-once": True}
        of_whom: tuple[Markup, ...] = ()
        way_out: tuple[Markup, ...] = ()
        if self.host:
            leads = {"class": page.name("anchor"), "href": self.address}
            of_whom = (element("div", {"class": said}, page.phrase("embed_waits", self.host)),)
            way_out = (element("a", leads, page.phrase("embed_open", self.host)),)
        return element(
            "div",
            {"class": page.name("waits"), "data-rim-placeholder": True},
            element("div", {"class": said}, page.words(self.words, self.id)),
            *of_whom,
            element("button", button, page.phrase("embed_show")),
            *way_out,
        )

    @property
    def unseen_parts(self) -> Set[Part]:
        if not self.address and not self.code:
            return {"button", "link"}
        return set() if self.host else {"link"}

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        yield Rule(own, {"inline-size": f"{self.width_px}px", "block-size": f"{self.height_px}px"})

    def texts_within(self) -> tuple[Part, ...]:
        return ("link",)
