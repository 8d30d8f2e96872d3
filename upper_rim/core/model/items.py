"""What can stand in a cell? One class an item; `Item` is their union, told apart by `kind`."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from .styling import Styled
from .values import Address, NodeId, PagePath, Pixels, Value, Words


class ToPage(Value):
    """A link to one of the site's pages; it follows the page when its path changes."""

    kind: Literal["page"] = "page"
    page: NodeId


class ToAddress(Value):
    kind: Literal["address"] = "address"
    address: Address


class ToNothing(Value):
    """No link: an entry that only heads its branch."""

    kind: Literal["nothing"] = "nothing"


Target = Annotated[ToPage | ToAddress | ToNothing, Field(discriminator="kind")]

Weight = Annotated[int, Field(ge=100, le=1000)]
TextSize = Annotated[int, Field(ge=8, le=160)]


class _Item(Styled):
    hidden_in: tuple[NodeId, ...] = Field(default=(), description="Width bands in which the item does not show.")


class Logo(_Item):
    """The site's title, or a picture carried with the site; leads to the front page."""

    kind: Literal["logo"] = "logo"
    words: Words = Field(
        default=Words(), description="Shown as text, or as the picture's name; the site's name where empty."
    )
    picture: PagePath | None = Field(default=None, description="Path of a picture among the site's files.")
    height_px: Annotated[int, Field(ge=8, le=400)] = 40


class MenuItem(_Item):
    """A menu as a row; below a band of choice, a button that opens a drawer."""

    kind: Literal["menu"] = "menu"
    menu: NodeId | None = None
    drawer_below: NodeId | None = Field(
        default=None, description="The first width band, from narrow to wide, that shows the row; below it, the drawer."
    )
    gap_px: Pixels = 24
    button_words: Words = Words(text="Menu")
    button_words_shown: bool = False
    drawer_side: Literal["start", "end"] = "end"


class TextItem(_Item):
    kind: Literal["text"] = "text"
    words: Words = Words(text="Text")


class ButtonItem(_Item):
    kind: Literal["button"] = "button"
    words: Words = Words(text="Button")
    target: Target = ToNothing()
    rank: Literal["first", "second"] = Field(
        default="first", description="Whose defaults it takes: those of the button, or of the second button."
    )


class IconLink(_Item):
    """An icon with a link; its words are its accessible name."""

    kind: Literal["icon"] = "icon"
    icon: Annotated[str, StringConstraints(pattern=r"^[a-z0-9]+(-[a-z0-9]+)*$", max_length=60)] = "link"
    words: Words = Words(text="Link")
    target: Target = ToNothing()
    icon_px: Annotated[int, Field(ge=12, le=96)] = 22


Item = Annotated[Logo | MenuItem | TextItem | ButtonItem | IconLink, Field(discriminator="kind")]
ITEM_KINDS: dict[str, type[_Item]] = {
    "logo": Logo,
    "menu": MenuItem,
    "text": TextItem,
    "button": ButtonItem,
    "icon": IconLink,
}
