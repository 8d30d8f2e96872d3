"""Where does a link lead?"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from .addresses import Address
from .nodes import Value
from .refs import PageRef


class ToPage(Value):
    """A link to one of the site's pages; it follows the page when its path changes."""

    kind: Literal["page"] = "page"
    page: PageRef


class ToAddress(Value):
    kind: Literal["address"] = "address"
    address: Address


class ToNothing(Value):
    """No link: an entry that only heads its branch."""

    kind: Literal["nothing"] = "nothing"


class ToPlace(Value):
    """A link to a place in one of the site's pages: the element with that id (HTML, 7.4.2.3)."""

    kind: Literal["place"] = "place"
    page: PageRef
    place: Annotated[str, StringConstraints(pattern=r"^[^\s\x00-\x1f]+$", max_length=200)]


Target = Annotated[ToPage | ToPlace | ToAddress | ToNothing, Field(discriminator="kind")]
