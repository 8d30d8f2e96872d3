"""The kinds of conditions there are. Each is one module: its value, what it goes by, how strong it is, its words."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from .below import Below
from .everywhere import Everywhere
from .on_page import OnPage
from .place import Place
from .tagged import Tagged

PLACES: tuple[type[Place], ...] = (Everywhere, Below, Tagged, OnPage)
"""From the weakest to the strongest."""

Where = Annotated[Everywhere | Below | OnPage | Tagged, Field(discriminator="kind")]
