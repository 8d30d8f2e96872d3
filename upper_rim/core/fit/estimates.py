"""How long will a label be in a language into which it is not translated yet?

As long as the longest one that is known, times how much longer texts in that language usually are than in the language
of that one. The factors are for short labels, where languages differ most; they are rough, and what rests on them is
marked as an estimate.
"""

from __future__ import annotations

from ..model.values import Words

EXPANSION: dict[str, float] = {
    "ar": 1.0, "cs": 1.2, "cy": 1.25, "da": 1.2, "de": 1.35, "el": 1.3, "en": 1.0, "es": 1.3, "et": 1.15, "fa": 1.1,
    "fi": 1.35, "fr": 1.3, "ga": 1.25, "gd": 1.3, "he": 0.9, "hi": 1.15, "hu": 1.3, "it": 1.3, "ja": 0.7, "ko": 0.75,
    "lt": 1.2, "lv": 1.2, "nb": 1.15, "nl": 1.3, "nn": 1.15, "no": 1.15, "pl": 1.3, "pt": 1.3, "ro": 1.3, "ru": 1.3,
    "sk": 1.2, "sl": 1.2, "sv": 1.15, "th": 1.1, "tr": 1.2, "uk": 1.3, "ur": 1.1, "vi": 1.2, "zh": 0.6,
}  # fmt: skip
"""Length of a label of up to twenty characters, against English."""
OTHERWISE = 1.3


def factor(into: str, out_of: str) -> float:
    return EXPANSION.get(_primary(into), OTHERWISE) / EXPANSION.get(_primary(out_of), OTHERWISE)


def _primary(language: str) -> str:
    return language.split("-")[0].lower()


class Estimates:
    """Foresees labels."""

    def foreseen(self, words: Words, language: str, own: str) -> str | None:
        """A stand-in of the length foreseen; None where the label is there in that language.

        Its letters are those of the longest label known, so that it is set in the same script and breaks at like
        places.
        """
        known = {_primary(own): words.text}
        known.update((_primary(one.language), one.text) for one in words.translations if one.text)
        if _primary(language) in known or not any(known.values()):
            return None
        source, longest = max(known.items(), key=lambda one: len(one[1]) / EXPANSION.get(one[0], OTHERWISE))
        wished = round(len(longest) * factor(language, source))
        return _stretched(longest, wished)


def _stretched(text: str, length: int) -> str:
    """The text with its last word made longer or shorter."""
    if length <= len(text):
        return text[: max(length, 1)].rstrip() or text[:1]
    tail = next((char for char in reversed(text) if char.isalpha()), "n")
    fill = {"l": "n", "i": "n", "f": "n", "t": "n", "r": "n"}.get(tail.lower(), tail)
    return text + fill * (length - len(text))
