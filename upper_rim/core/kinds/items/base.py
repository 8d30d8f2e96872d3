"""What does every kind of item have, and what is each asked for?"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Set
from typing import Any, ClassVar, Literal, NamedTuple

from pydantic import Field

from ...conditions.audience.audience import Audience
from ...values.brands import Brand, Brands
from ...values.refs import BandRef, EntryRef, MenuRef, PageRef
from ...values.styling import Part, Role, State, Styled
from ...values.targets import Target, ToNothing, ToPage
from ...values.words import Words
from ..context import PageContext, SheetContext, SiteOffer, Speaks
from ..markup import Element, Markup
from ..rule import Rule


class Fact(NamedTuple):
    """Something said of the site: by which field of which node, and its value as JSON. `of`: of what it is said, where
    there may be several, an office say; empty where that is not told."""

    node: str
    field: str
    value: Any
    of: str = ""


LackKind = Literal[
    "first words", "leads nowhere", "empty list", "no fields", "no picture", "no alternative", "first place", "says nothing"
]  # fmt: skip


class Lack(NamedTuple):
    """What is not done yet about an item, by itself: in which field it would be, of it or of the `node` in it."""

    what: LackKind
    field: str
    node: str = ""


class Landmark(NamedTuple):
    """What it is for those who go from landmark to landmark, and its name (ARIA Authoring Practices, landmark regions).
    `early`: only in a piece that comes first."""

    role: str
    name: str
    early: bool = False


class BaseItem(Styled):
    NAME: ClassVar[str]
    """What the kind is called."""
    ABOUT: ClassVar[str]
    """What it is for, in a few words."""
    CALLED: ClassVar[tuple[str, ...]] = ()
    """What somebody may call it who looks for it, in lower case."""
    ROLES: ClassVar[Mapping[Part, Role]] = {"box": "block"}
    WITHIN: ClassVar[Mapping[Part, Part]] = {"second-line": "content", "badge": "content", "close": "opened"}
    """In which other part some stand; all others in the box."""
    CHILDREN: ClassVar[tuple[str, ...]] = ()
    """Fields that hold nodes of its own."""
    FILLS: ClassVar[bool] = False
    """Nothing in it asks for width: it begins as wide as its cell."""
    ALIKE: ClassVar[tuple[str, ...]] = ()
    """Fields in which those of one site are alike: in a new piece they begin with what the first of them says."""
    ONLY_IN: ClassVar[frozenset[str]] = frozenset()
    """The kinds of pieces that it means something in; in all of them where none is named."""
    TAKES_BRANDS: ClassVar[bool] = False
    """Its icon may be the mark of a service."""

    hidden_in: tuple[BandRef, ...] = Field(default=(), description="Width bands in which the item does not show.")
    audience: Audience = Field(default=Audience(), description="For whom it shows.")
    hint: Words = Field(default=Words(), description="Told while one points at it, or it has the focus.")

    def facts(self) -> Mapping[str, Fact]:
        """What it says of the site itself, wherever it stands: by a name that is the same in all places."""
        return {}

    @classmethod
    def beginning(cls, offer: SiteOffer) -> dict[str, Any]:
        """Fields that a new one has besides what they are by default."""
        return {}

    @property
    def roles(self) -> Mapping[Part, Role]:
        """The parts of it that can be styled each by itself, and the role of each."""
        return self.ROLES

    @property
    def unseen_parts(self) -> Set[Part]:
        """Those that it does not show, as it is."""
        return set()

    def built_in(self, part: Part) -> Mapping[State, Mapping[str, str]]:
        """Values that a part has before anybody has decided anything, unlike others in its role, in each state."""
        return {}

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return self.NAME

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        """What it is made of on a page; nothing where it does not show there."""
        raise NotImplementedError

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        """What its fields say that no property does. `own`: its selector."""
        return iter(())

    def icons(self, brands: Brands) -> Iterable[str]:
        """Names of the icons of the general set that it shows."""
        return ()

    def brand_marks(self, brands: Brands) -> Iterable[Brand]:
        """The marks of services that it shows."""
        return ()

    def named_icons(self) -> Mapping[str, str]:
        """Its fields that name an icon."""
        return {}

    def named_selectors(self) -> Mapping[str, str]:
        """Its fields that hold a CSS selector, where they do."""
        return {}

    def modules(self, band_from_px: Mapping[str, int]) -> Iterable[str]:
        """The modules that are fetched when it is first used."""
        return ()

    def changes_at(self, band_from_px: Mapping[str, int]) -> tuple[int, ...]:
        """The viewport widths in px from which on it shows itself in another way, besides its styles."""
        return ()

    def texts_within(self) -> tuple[Part, ...]:
        """The parts in which it shows texts, besides those that a look has."""
        return ()

    def lacks(self) -> Iterator[Lack]:
        """What its kind asks for and it does not have, or has as it begins with."""
        return iter(())

    @property
    def has_placeholder(self) -> bool:
        return False

    def landmark(self, speaks: Speaks) -> Landmark | None:
        """None where it is none."""
        return None

    def pages_led_to(self) -> Iterable[PageRef]:
        """Pages of the site that it leads to by itself, or is about: it is written anew for each of them."""
        target = getattr(self, "target", None)
        return (target.page,) if isinstance(target, ToPage) else ()


class Leads(BaseItem):
    """Something that may lead somewhere."""

    target: Target = ToNothing()
    new_window: bool = Field(default=False, description="It opens a window of its own, and says so.")


def is_first(item: BaseItem, field: str = "words") -> bool:
    """Whether a text is what its kind begins with, or none."""
    said = getattr(item, field).text
    return not said.strip() or said == type(item).model_fields[field].default.text


def lacks_of_a_link(item: Leads) -> Iterator[Lack]:
    """Of something that is there to lead somewhere."""
    if is_first(item):
        yield Lack("first words", "words")
    if isinstance(item.target, ToNothing):
        yield Lack("leads nowhere", "target")


class DiffersByPage(BaseItem):
    """Something whose markup holds a mark (`kinds.marks`), since pages have something else there."""

    def sample(self, page: PageContext) -> Element:
        """What stands for the mark where no page is: all that can stand there."""
        raise NotImplementedError


class ShowsMenu(BaseItem):
    """Something that shows a menu, or a part of it."""

    menu: MenuRef | None = None
    branch: EntryRef | None = Field(default=None, description="Only what lies below this entry.")
    without: tuple[EntryRef, ...] = Field(default=(), description="Entries left out, with all below them.")

    @property
    def levels(self) -> int | None:
        """How many levels of the menu it shows; all where None."""
        return 1

    def lacks(self) -> Iterator[Lack]:
        if self.menu is None:
            yield Lack("empty list", "menu")

    @classmethod
    def beginning(cls, offer: SiteOffer) -> dict[str, Any]:
        return {"menu": offer.menu} if offer.menu else {}


def named_by(kind_name: str, words: str) -> str:
    """`Button: Book`: the kind, and the beginning of what is said."""
    shown = words[:28] + "…" if len(words) > 29 else words
    return f"{kind_name}: {shown}" if words else kind_name
