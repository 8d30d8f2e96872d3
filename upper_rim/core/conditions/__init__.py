"""The kinds of conditions there are. Each is one module: its value, what it goes by, how strong it is, its words."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from .below import Below
from .everywhere import Everywhere
from .in_language import InLanguage
from .matching import Matching
from .of_kind import OfKind
from .on_page import OnPage
from .place import Place
from .tagged import Tagged

PLACES: tuple[type[Place], ...] = (Everywhere, InLanguage, Below, Matching, Tagged, OfKind, OnPage)
"""From the weakest to the strongest."""

Where = Annotated[Everywhere | InLanguage | Below | Matching | Tagged | OfKind | OnPage, Field(discriminator="kind")]
