"""`upper-rim texts`: a bundle's texts for translators, and what came back from them into a bundle."""

from __future__ import annotations

import argparse
from collections.abc import Callable
from pathlib import Path

from ..core.exchange.translations.merging import Merged, UnreadableFile
from ..core.exchange.translations.texts_csv import read_texts, write_texts
from ..core.exchange.translations.xliff import read_xliff, write_xliff
from ..core.model.editing.apply import apply
from ..core.model.site import Site


class NotTaken(Exception):
    """Why a file or a language cannot be, in a sentence."""


def written(site: Site, chosen: argparse.Namespace) -> str:
    """XLIFF of one language, or CSV of all."""
    others = site.other_languages
    if not chosen.language:
        return write_texts(site, others)
    if chosen.language not in others:
        listed = ", ".join(others) or "none"
        raise NotTaken(f"the site is not translated into “{chosen.language}”; its other languages: {listed}")
    return write_xliff(site, chosen.language)


def read(site: Site, source: Path, data: bytes) -> tuple[Site, list[str]]:
    """The site with what is in the file, and a sentence for each text of which not all is well."""
    reader: Callable[[Site, bytes], Merged] = read_texts if source.suffix.lower() in {".csv", ".tsv"} else read_xliff
    try:
        found = reader(site, data)
    except UnreadableFile as fault:
        raise NotTaken(f"{source}: {fault}") from None
    after = apply(site, found.edit) if found.edit else site
    if not isinstance(after, Site):
        raise NotTaken(f"{source}: {after.words}")
    return after, [f"{one.place}, {one.language}: {one.words}" for one in found.remarks if one.kind != "not said"]
