"""In which encoding would a browser read these bytes of HTML?

BOM first, then the `<meta>` prescan, then windows-1252 (HTML Standard, 13.2.3.2); one departure: bytes without
any label that are valid UTF-8 beyond ASCII are read as such.
"""

from __future__ import annotations

from typing import NamedTuple

import webencodings

PRESCAN_BYTES = 1024


class Encoding(NamedTuple):
    """The encoding's label in the WHATWG Encoding Standard, and how many bytes its BOM takes."""

    label: str
    bom_bytes: int


def sniff(content: bytes) -> Encoding:
    for bom, label in ((b"\xef\xbb\xbf", "utf-8"), (b"\xff\xfe", "utf-16le"), (b"\xfe\xff", "utf-16be")):
        if content.startswith(bom):
            return Encoding(label, len(bom))
    from html5lib._inputstream import EncodingParser  # only where bytes come in: publishing needs none of it

    declared = EncodingParser(content[:PRESCAN_BYTES]).getEncoding()
    if declared is not None:
        label = declared.name
        return Encoding(
            "utf-8" if label.startswith("utf-16") else "windows-1252" if label == "x-user-defined" else label, 0
        )
    try:
        content.decode("utf-8")
    except UnicodeDecodeError:
        return Encoding("windows-1252", 0)
    return Encoding("utf-8", 0)


def decode(content: bytes, label: str) -> str:
    """The text as a browser reads it; what cannot be read becomes U+FFFD."""
    return str(webencodings.decode(content, label)[0])


def insertion(text: str, label: str) -> bytes:
    """Text to be put into a document of that encoding: characters beyond it as character references."""
    if label == "utf-8":
        return text.encode()
    if label in {"utf-16le", "utf-16be"}:
        return text.encode(label)
    return text.encode("ascii", "xmlcharrefreplace")


def byte_view(content: bytes, encoding: Encoding) -> str:
    """The bytes as text with one character for each unit of the encoding, so that places in it are places in the bytes.

    ASCII stands for itself; other characters are only placeholders. See `unit_bytes` for a unit's size.
    """
    if encoding.label == "utf-16le":
        return content[0::2].decode("latin-1") if _all_ascii(content[1::2]) else _units(content, "little")
    if encoding.label == "utf-16be":
        return content[1::2].decode("latin-1") if _all_ascii(content[0::2]) else _units(content, "big")
    return content.decode("latin-1")


def unit_bytes(encoding: Encoding) -> int:
    return 2 if encoding.label.startswith("utf-16") else 1


def _all_ascii(high_bytes: bytes) -> bool:
    return not any(high_bytes)


def _units(content: bytes, order: str) -> str:
    low, high = (0, 1) if order == "little" else (1, 0)
    return "".join(
        chr(unit) if not other and unit < 128 else "\ufffd"
        for unit, other in zip(content[low::2], content[high::2], strict=False)
    )
