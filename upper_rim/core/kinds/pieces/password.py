"""A locked door."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .gate import Gate


class PasswordGate(Gate):
    """Opened by a password, of which there may be several. They are no part of the site: who takes a site along takes
    no password along."""

    NAME = "Locked door"

    kind: Literal["password"] = "password"
    tries: Annotated[int, Field(ge=1, le=100)] = Field(default=5, description="So many, then one has to wait.")
    wait_s: Annotated[int, Field(ge=1, le=86_400)] = Field(
        default=60, description="Seconds, the first time; twice as long each further time, up to an hour."
    )
