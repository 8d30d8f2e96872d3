"""A site's texts in one language as XLIFF 2.1 (OASIS, 2018), and such a file read back.

A text is a `unit` whose id is the text's key, with one `segment`; units of one piece or menu are a `group`. A translation
that nobody has looked at is `translated` with the sub-state `rim:draft`, one of what the text was before with `rim:of-` and
that text's digest, one that is both with `rim:draft-of-`; one that stands is `final`. Tools may split units into segments:
they are joined.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from html import unescape
from itertools import groupby
from operator import itemgetter
from xml.etree import ElementTree
from xml.sax.saxutils import escape, quoteattr

from ...model.site import Site
from ...model.texts import SaidText, texts_of
from ...values.rich import RichWords
from ...values.words import Translatable, Translated, digest_of
from ..xml_reading import XmlFault, read_xml
from .marked_text import XLIFF, Coder, Decoded, decoded, joined
from .merging import LARGEST_FILE, Brought, Merged, UnreadableFile, merged

_SUB_STATE = re.compile(r"rim:(?P<draft>draft)?-?(?:of-(?P<of>[0-9a-f]{8}))?")


def write_xliff(site: Site, language: str) -> str:
    """Equal sites give equal files."""
    lines = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<xliff xmlns="{XLIFF[1:-1]}" version="2.1" srcLang={quoteattr(site.language)} trgLang={quoteattr(language)}>',
        f'<file id="site" original={quoteattr(site.name)} xml:space="preserve">',
    ]
    for name, texts in groupby(texts_of(site), lambda text: (text.path[0].id if text.path else "", text.group)):
        lines.append(f"<group id={quoteattr(f'in-{name[0]}' if name[0] else 'in-site')} name={quoteattr(name[1])}>")
        for text in texts:
            lines += _unit(text, language)
        lines.append("</group>")
    return "\n".join([*lines, "</file>", "</xliff>", ""])


def _unit(text: SaidText, language: str) -> Iterator[str]:
    words, coder = text.words, Coder()
    said = words.said_in(language)
    is_rich = isinstance(words, RichWords)
    source = coder.written(words.text) if is_rich else escape(words.text)
    target = (coder.written(said.text) if is_rich else escape(said.text)) if said else None
    yield f"<unit id={quoteattr(text.key)} name={quoteattr(text.place)}>"
    notes = [("source", words.note), ("target", said.note if said else "")]
    if any(note for _, note in notes):
        yield "<notes>"
        yield from (f'<note appliesTo="{of}">{escape(note)}</note>' for of, note in notes if note)
        yield "</notes>"
    if coder.data:
        yield "<originalData>"
        yield from coder.original_data()
        yield "</originalData>"
    yield f"<segment {_state(said, words)}>"
    yield f"<source>{source}</source>"
    if target is not None:
        yield f"<target>{target}</target>"
    yield "</segment>"
    yield "</unit>"


def _state(said: Translated | None, words: Translatable) -> str:
    if said is None:
        return 'state="initial"'
    parts = [*(["draft"] if said.draft else []), *([] if said.of == digest_of(words.text) else [f"of-{said.of}"])]
    return f'state="translated" subState="rim:{"-".join(parts)}"' if parts else 'state="final"'


def read_xliff(site: Site, data: bytes) -> Merged:
    """What a file means for the site. Raises `UnreadableFile`."""
    if len(data) > LARGEST_FILE:
        raise UnreadableFile(f"It is larger than {LARGEST_FILE // 1_000_000} MB.")
    try:
        root = read_xml(data)
    except XmlFault as fault:
        raise UnreadableFile(f"It was not taken: {fault}.") from None
    if root.tag != f"{XLIFF}xliff":
        raise UnreadableFile("It is no XLIFF 2: its outermost element is another.")
    source, language = root.get("srcLang", ""), root.get("trgLang", "")
    if source.lower() != site.language.lower():
        raise UnreadableFile(f"It translates from “{source[:40]}”; this site’s own language is “{site.language}”.")
    spoken = {tag.lower(): tag for tag in site.other_languages}
    if language.lower() not in spoken:
        listed = ", ".join(spoken.values())
        others = f"the site’s other languages are {listed}" if listed else "the site has no other language"
        raise UnreadableFile(f"It translates into “{language[:40]}”; {others}.")
    into = spoken[language.lower()]
    rich = {text.key for text in texts_of(site) if isinstance(text.words, RichWords)}
    units = (_brought(unit, into, is_rich=unit.get("id", "") in rich) for unit in root.iter(f"{XLIFF}unit"))
    return merged(site, {into: units})


def _brought(unit: ElementTree.Element, language: str, *, is_rich: bool) -> Brought:
    data = {one.get("id", ""): "".join(one.itertext()) for one in unit.iterfind(f"{XLIFF}originalData/{XLIFF}data")}
    source, target = _source(unit, data), _target(unit, data)
    spoken = {one.get(_LANG, language) for one in unit.iter(f"{XLIFF}target")}
    strange = sorted(tag for tag in spoken if tag.lower() != language.lower())
    states = (_SUB_STATE.fullmatch(segment.get("subState", "")) for segment in unit.iterfind(f"{XLIFF}segment"))
    said = [state for state in states if state]
    return Brought(
        key=unit.get("id", ""),
        place=unit.get("id", ""),
        language=strange[0] if strange else language,
        source=source.html if is_rich else unescape(source.html),
        text=None if target is None else (target.html if is_rich else unescape(target.html)),
        draft=any(state["draft"] for state in said),
        of=next((state["of"] for state in said if state["of"]), ""),
        notes=(_note(unit, "source"), _note(unit, "target")),
        marks=_unlike(source, target) if target else "",
    )


_LANG = "{http://www.w3.org/XML/1998/namespace}lang"


def _note(unit: ElementTree.Element, of: str) -> str:
    """What is noted for a unit as a whole is its translator's."""
    notes = unit.iterfind(f"{XLIFF}notes/{XLIFF}note")
    said = [
        "".join(note.itertext()).strip() for note in notes if (note.get("appliesTo") == "source") == (of == "source")
    ]
    return " ".join(filter(None, said))


def _parts(unit: ElementTree.Element) -> list[ElementTree.Element]:
    return [part for part in unit if part.tag in {f"{XLIFF}segment", f"{XLIFF}ignorable"}]


def _source(unit: ElementTree.Element, data: dict[str, str]) -> Decoded:
    found = (part.find(f"{XLIFF}source") for part in _parts(unit))
    return joined(decoded(one, data) for one in found if one is not None)


def _target(unit: ElementTree.Element, data: dict[str, str]) -> Decoded | None:
    """Its segments in the order that they say (XLIFF 2.1, 4.3.1.22); what stands between them is as in the source, where it
    says nothing else. None where a segment is not translated."""
    ordered: list[tuple[int, Decoded]] = []
    for at, part in enumerate(_parts(unit), 1):
        target, source = part.find(f"{XLIFF}target"), part.find(f"{XLIFF}source")
        said = source if target is None and part.tag == f"{XLIFF}ignorable" else target
        if said is None:
            return None
        order = said.get("order", "")
        ordered.append((int(order) if re.fullmatch(r"[0-9]{1,6}", order) else at, decoded(said, data)))
    return joined(said for _, said in sorted(ordered, key=itemgetter(0))) if ordered else None


def _unlike(source: Decoded, target: Decoded) -> str:
    """Which marks the translation has too many or too few, in words; empty where none."""
    missing, more = source.codes - target.codes, target.codes - source.codes
    said = [f"{sum(missing.values())} missing" if missing else "", f"{sum(more.values())} more" if more else ""]
    said.append(f"“{target.unknown[0][:20]}” is none" if target.unknown else "")
    return ", ".join(filter(None, said))
