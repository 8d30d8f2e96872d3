"""Is a file well-formed XML that cannot grow by entities of its own?"""

from __future__ import annotations

import re
from xml.etree import ElementTree

_DOCUMENT_TYPE = re.compile(r"<!\s*(?:DOCTYPE|ENTITY)", re.IGNORECASE)


class XmlFault(ValueError):
    """Why not, as the end of a sentence."""


def read_xml(data: bytes) -> ElementTree.Element:
    """The outermost element. Raises `XmlFault`."""
    try:
        # As text, so that no declared encoding can hide a document type.
        text = data.decode("utf-8-sig")
    except ValueError:
        raise XmlFault("it is not in UTF-8") from None
    if _DOCUMENT_TYPE.search(text):
        raise XmlFault("it declares a document type, which it does not need; save it without one")
    try:
        return ElementTree.fromstring(text)  # noqa: S314 - without a document type no entities
    except (ElementTree.ParseError, ValueError):
        raise XmlFault("it is no well-formed XML") from None
