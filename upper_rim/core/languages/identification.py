"""In which language is a text likely written? By its words and letters, where it is long enough to tell (py3langid)."""

from __future__ import annotations

import io
import lzma
from array import array
from functools import lru_cache
from typing import TYPE_CHECKING

from .scripts import is_written_in

if TYPE_CHECKING:
    from py3langid.langid import LanguageIdentifier

LEAST_LETTERS = 60
"""A text of fewer may be a list of names."""
LEAST_SURE = 0.95
_NO_PROPOSAL = frozenset({"la", "zxx"})
"""Latin is what stands in for texts that are still to come; code is in no language."""
_MOSTLY_SPOKEN = frozenset({"ary", "arz", "gcf", "gcr", "grc", "hbo", "pcm", "uzs", "wuu"})
"""Too near to what a site is written in to be told from it, and hardly ever what one is written in."""


UNDETERMINED = "und"
"""BCP 47, 4.1."""


def likely_language(text: str) -> str:
    """A language's subtag; undetermined where the text is too short, or could be in one language as well as another."""
    if sum(map(str.isalpha, text)) < LEAST_LETTERS:
        return UNDETERMINED
    language, sure = _identifier().classify(text)
    is_told = sure >= LEAST_SURE and language not in _NO_PROPOSAL and is_written_in(text, language)
    return language if is_told else UNDETERMINED


@lru_cache(maxsize=1)
def _identifier() -> LanguageIdentifier:
    """Loaded when it is first asked. The library itself unpacks its model into a file on the disk, and who reads what
    strangers sent may write none; so it is unpacked here, in memory."""
    import numpy
    from py3langid.langid import MODEL_DIR, MODEL_FILE, LanguageIdentifier

    with lzma.open(MODEL_DIR / MODEL_FILE) as packed:
        model = numpy.load(io.BytesIO(packed.read()), allow_pickle=False)
    moves, rows = (array(model[name].dtype.char, model[name].tobytes()) for name in ("nextmove", "nextmove_row"))
    classes, output = model["classes"].tolist(), model["out_feat"].tolist()
    identifier = LanguageIdentifier(model["ptc"], model["pc"], classes, moves, output, norm_probs=True, tk_row=rows)
    identifier.set_languages(set(classes) - _MOSTLY_SPOKEN)
    return identifier
