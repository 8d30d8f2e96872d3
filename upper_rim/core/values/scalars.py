"""Numbers and names within the bounds that they have everywhere."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

IconName = Annotated[str, StringConstraints(pattern=r"^[a-z0-9]+(-[a-z0-9]+)*$", max_length=60)]
Weight = Annotated[int, Field(ge=100, le=1000)]
TextSize = Annotated[int, Field(ge=8, le=160)]
IconSize = Annotated[int, Field(ge=12, le=96)]
Percent = Annotated[int, Field(ge=0, le=100)]
WordsShown = Literal["none", "beside", "below"]
