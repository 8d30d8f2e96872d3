"""What may a visitor agree to, and what of others waits for it? Values of a site's, which the law is applied to in
`core.gates`."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from ..conditions.visitor import Host, Region
from ..languages import phrase
from ..values.nodes import Node, Value
from ..values.refs import CategoryRef
from ..values.words import Words

Mode = Literal["opt-in", "opt-out", "notice"]
"""Nothing runs before a yes; all runs until a no; all runs, and it is said."""
COOKIE_NAME = r"^[!#$%&'+.^_`|~0-9A-Za-z-]{1,80}\*?$"
CookieName = Annotated[str, StringConstraints(pattern=COOKIE_NAME)]
"""A token (RFC 6265, 4.1.1); a star at its end stands for whatever follows."""


class Category(Node):
    """Something that one may agree to, known to scripts by its id. `is_sold`: a browser's signal speaks of it: its data
    go to others, or are used to follow somebody from one site to the next (Global Privacy Control, 2)."""

    words: Words = Field(default=Words(), description="In the words that ship, where empty; so with `about`.")
    about: Words = Words()
    is_necessary: bool = Field(default=False, description="Nobody is asked for it: the site cannot be used without.")
    is_sold: bool = False
    cookies: tuple[CookieName, ...] = Field(
        default=(), description="Names of the cookies of the site's own host that are taken away after a no."
    )

    def called(self, language: str) -> str:
        """In the words that ship, where the site has none for one of those that it began with."""
        return self.words.in_language(language) or self._shipped("", language) or self.id

    def told(self, language: str) -> str:
        """What is said of it; empty where nothing is."""
        return self.about.in_language(language) or self._shipped("_about", language)

    def _shipped(self, what: str, language: str) -> str:
        return phrase(f"category_{self.id}{what}", language) if self.id in _BEGUN_WITH else ""


CATEGORIES = (
    Category(id="necessary", is_necessary=True),
    Category(id="preferences"),
    Category(id="statistics"),
    Category(id="marketing", is_sold=True),
)
"""What a site begins with."""
_BEGUN_WITH = frozenset(category.id for category in CATEGORIES)


class OtherHost(Node):
    """Somebody else's host, from which pages fetch something; so with all hosts below it."""

    host: Host
    category: CategoryRef | None = Field(
        default=None, description="What is fetched waits for a yes to it; None: it is left."
    )


class ConsentByRegion(Value):
    """A site's own word for a region, before that of the table."""

    region: Region
    mode: Mode


class ConsentRules(Value):
    """`heeds_signal`: a browser's signal, also where no law asks for it."""

    modes: tuple[ConsentByRegion, ...] = ()
    heeds_signal: bool = True
    days: Annotated[int, Field(ge=0, le=3650)] = Field(
        default=180, description="An answer counts so long; 0: the visit."
    )
    kept_days: Annotated[int, Field(ge=1, le=3650)] = Field(
        default=1095, description="So long it stays on record what was answered."
    )


FetchKind = Literal["script", "frame", "picture", "style", "media", "link", "object", "code"]
"""`code`: a script within the page that names a host."""


How = Literal["attributes", "code", "style"]


class Fetch(Value):
    """Something that a page fetches from others, alike in several places. `at`: of each tag, where in the page's bytes
    something is put to hold it back: before the names of attributes (`attributes`), behind the name of a script's tag and
    before the name of its type (`code`), before a style element and behind it (`style`)."""

    without_script: bool = Field(default=False, description="Only who runs no scripts fetches it.")
    kind: FetchKind
    hosts: tuple[Host, ...]
    how: How = "attributes"
    at: tuple[tuple[Annotated[int, Field(ge=0)], ...], ...]

    def is_for(self, *, has_script: bool) -> bool:
        """Whether it is fetched by somebody whose browser runs scripts, or does not."""
        return not self.without_script if has_script else self.kind not in {"script", "code"}


def host_said(host: str, hosts: tuple[OtherHost, ...]) -> OtherHost | None:
    """What a site says of a host: of itself, else of the nearest above it."""
    said = {one.host: one for one in hosts}
    labels = host.split(".")
    return next((said[above] for at in range(len(labels)) if (above := ".".join(labels[at:])) in said), None)
