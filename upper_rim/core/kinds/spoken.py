"""What is said of a language of a site besides which it is?"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

from pydantic import AfterValidator, Field

from ..languages.names import own_name
from ..values.addresses import PagePath
from ..values.nodes import Value
from ..values.words import Label, LanguageTag


class SpokenLanguage(Value):
    language: LanguageTag
    name: Label = Field(default="", description="As its readers call it; as the CLDR has it, where empty.")
    picture: PagePath | None = Field(
        default=None, description="Path of a picture among the site's files, for switches that show pictures."
    )
    prefix: PagePath | None = Field(
        default=None, description="Path below which its pages are; a folder named by its tag, where nothing is said."
    )
    on: bool = Field(
        default=True,
        description="Switches and search engines lead into it; else only switches that one of the site's cards sees.",
    )

    @property
    def called(self) -> str:
        return self.name or own_name(self.language)

    @property
    def below(self) -> str:
        """The path below which its pages are, with a slash at its end."""
        return f"{(self.prefix or f'/{self.language.lower()}').rstrip('/')}/"


def _each_once(spoken: Sequence[SpokenLanguage]) -> Sequence[SpokenLanguage]:
    if len({one.language for one in spoken}) < len(spoken):
        raise ValueError("a language is there twice")
    return spoken


SpokenLanguages = Annotated[tuple[SpokenLanguage, ...], AfterValidator(_each_once)]
"""In the order in which they stand in switches; a site's own stands before them."""
