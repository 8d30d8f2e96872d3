"""How long will a label be in a language into which it is not translated yet?

As long as the longest one that is known, times how much longer texts in that language usually are than in the language
of that one. The factors are for short labels, where languages differ most; they are rough, and what rests on them is
marked as an estimate.
"""

from __future__ import annotations

from ...languages import language_of, primary
from ...values.words import Words


def factor(into: str, out_of: str) -> float:
    return language_of(into).expansion / language_of(out_of).expansion


class Estimates:
    """Foresees labels."""

    def foreseen(self, words: Words, language: str, own: str) -> str | None:
        """A stand-in of the length foreseen; None where the label is there in that language.

        Its letters are those of the longest label known, so that it is set in the same script and breaks at like
        places.
        """
        known = {primary(own): words.text}
        known.update((primary(one.language), one.text) for one in words.translations if one.text)
        if primary(language) in known or not any(known.values()):
            return None
        source, longest = max(known.items(), key=lambda one: len(one[1]) / language_of(one[0]).expansion)
        wished = round(len(longest) * factor(language, source))
        return _stretched(longest, wished)


def _stretched(text: str, length: int) -> str:
    """The text with its last word made longer or shorter."""
    if length <= len(text):
        return text[: max(length, 1)].rstrip() or text[:1]
    tail = next((char for char in reversed(text) if char.isalpha()), "n")
    fill = {"l": "n", "i": "n", "f": "n", "t": "n", "r": "n"}.get(tail.lower(), tail)
    return text + fill * (length - len(text))
