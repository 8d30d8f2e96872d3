"""What is said on the screen is said in the words of docs/words.md."""

from __future__ import annotations

import re
from collections.abc import Iterator
from pathlib import Path
from typing import NamedTuple

from upper_rim.core.kinds.items import ITEM_KINDS
from upper_rim.core.kinds.pieces import PIECE_KINDS
from upper_rim.core.model.tree import items_of
from upper_rim.demo import ostrey
from upper_rim.web.studio.controls.of_movement import movement_groups
from upper_rim.web.studio.controls.of_nodes import groups_for

ROOT = Path(__file__).resolve().parents[2]
TEMPLATES = ROOT / "upper_rim/web/studio"
_TAGS = re.compile(r"\{%.*?%\}|\{#.*?#\}|<[^>]+>", re.S)
_SAID = re.compile(r"<(button|h1|h2|h3|summary|a|label|legend|option)\b[^>]*>(.*?)</\1>", re.S)


class Word(NamedTuple):
    said: list[str]
    meaning: str
    instead_of: list[str]


def words() -> list[Word]:
    listed = []
    for line in (ROOT / "docs/words.md").read_text().splitlines():
        cells = [cell.strip() for cell in line.strip("|").split("|")]
        if line.startswith("| ") and len(cells) == 3 and cells[0] not in {"Word", "---"}:
            said, meaning, instead_of = cells
            listed.append(Word(said.split(", "), meaning, [one for one in instead_of.split(", ") if one]))
    return listed


def labels() -> Iterator[tuple[str, str]]:
    """Where, and what is said there: of every template, and of the controls of what the demo has."""
    for path in sorted(TEMPLATES.rglob("*.html")):
        for found in _SAID.finditer(path.read_text()):
            yield path.name, " ".join(_TAGS.sub(" ", found[2]).split())
    site = ostrey()[0]
    for node in (*site.pieces, *items_of(site.pieces), *(row for piece in site.pieces for row in piece.rows)):
        for group in groups_for(node, site):
            yield node.id, group.name
            yield from ((node.id, control.label) for control in group.controls)
    for piece in site.pieces:
        yield from ((piece.id, control.label) for group in movement_groups(piece, site) for control in group.controls)
    for kind in (*ITEM_KINDS.values(), *PIECE_KINDS.values()):
        yield kind.__name__, kind.NAME


def test_no_label_says_what_has_a_better_word() -> None:
    unsaid = [one for word in words() for one in word.instead_of]
    pattern = re.compile(rf"\b({'|'.join(map(re.escape, unsaid))})\b", re.I)
    wrong = [(where, said) for where, said in labels() if pattern.search(said)]
    assert len(unsaid) > 20
    assert wrong == []


def test_each_word_is_said_somewhere_and_has_a_meaning() -> None:
    said = " | ".join(label.casefold() for _, label in labels())
    assert [word.said for word in words() if not all(one.casefold() in said for one in word.said)] == []
    assert all(word.meaning for word in words())
