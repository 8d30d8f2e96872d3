"""Where does one selector of a list end and the next begin (Selectors 4, 5.1)?"""

from __future__ import annotations


def selectors_in(listed: str) -> list[str]:
    """The selectors of a list, without what stands around them. Strings in them hold no commas and no brackets."""
    if "," not in listed:
        return [listed.strip()]
    found, begin, depth = [], 0, 0
    for at, char in enumerate(listed):
        if char in "([":
            depth += 1
        elif char in ")]":
            depth -= 1
        elif char == "," and depth == 0:
            found.append(listed[begin:at].strip())
            begin = at + 1
    return [*found, listed[begin:].strip()]
