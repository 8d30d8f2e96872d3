"""How large is the search index of 5,000 pages, how soon is it made, and how soon does a browser find in it?

python -m bench search

The yardstick for size: the pages' own text. For time: reading all pages of the corpus once for their words alone. The
search itself is the published script's, run in headless Chromium from the index as it would be fetched.
"""

from __future__ import annotations

import gzip
import itertools
import json
import random
import sys
import tempfile
import time
from collections.abc import Callable, Iterator, Mapping
from functools import partial
from pathlib import Path

from tests.browser.conftest import plain_chromium
from upper_rim.core.output.search.search_index import PageText, Searched, index_files, made_index, text_of, words_of
from upper_rim.shipped import shelf

from .measured import Measured, table

PAGES, SEED = 5000, 11
SHARE, FOUND_MS, LOADED_KB = 0.12, 50.0, 200.0
"""Asked: the index of the pages' text, both counted as they are sent and as they stand; a search's time; what it loads."""
SYLLABLES = [
    "ka",
    "lo",
    "mi",
    "ter",
    "sen",
    "wick",
    "ha",
    "ven",
    "ost",
    "rey",
    "bo",
    "li",
    "na",
    "cra",
    "dun",
    "ple",
    "sho",
    "re",
    "ing",
    "ed",
    "ön",
    "ïs",
    "él",
    "ffe",
]
QUERIES = ("o", "os", "ost", "ostrey", "ha ven", "plesho", "on", "is el", "crater re", "zzz")


def measure(tiny: bool) -> Iterator[Measured]:
    pages = corpus(100 if tiny else PAGES)
    raw = sum(len(page.text.encode()) for page in pages) / 1000
    reading = timed(lambda: [words_of(page.text) for page in pages])
    begun = time.perf_counter()
    index = index_files(made_index(pages))
    making = (time.perf_counter() - begun) * 1000
    words = ("reading the words", reading)
    yield Measured(f"the search index of {len(pages)} pages made", making, None, "ms", words)
    packed = {part: len(gzip.compress(said.encode(), 6)) / 1000 for part, said in index.items()}
    yield Measured("the search index, gzipped", sum(packed.values()), SHARE * raw, "kB", ("the pages' text", raw))
    loaded = [_loaded(index, packed, query) for query in QUERIES]
    yield Measured(
        "the most that a search loads of it, gzipped", max(loaded), LOADED_KB, "kB", ("the pages' text", raw)
    )
    html = "<p>" + "</p><p>".join(page.text for page in pages[:200]) + "</p>"
    yield Measured("the text of 200 pages' HTML", timed(partial(text_of, html)), None, "ms", words)
    searched = Searched(index.__getitem__)
    here = [min(timed(partial(searched.find, query)) for _ in range(5)) for query in QUERIES]
    yield Measured("the slowest search on the server", max(here), FOUND_MS, "ms", words)
    first, slowest = in_browser(index)
    yield Measured("the slowest search in Chromium", slowest, FOUND_MS, "ms", ("with the index read for it", first))


def _loaded(index: Mapping[str, str], packed: Mapping[str, float], query: str) -> float:
    """In kB: the head, the parts of words, and the titles of eight pages."""
    asked = set[str]()

    def load(part: str) -> str:
        asked.add(part)
        return index[part]

    searched = Searched(load)
    searched.pages(searched.find(query)[:8])
    return sum(map(packed.__getitem__, asked))


def timed(act: Callable[[], object]) -> float:
    begun = time.perf_counter()
    act()
    return (time.perf_counter() - begun) * 1000


def corpus(count: int) -> list[PageText]:
    """Words as often as words are (Zipf's law), 200 to 800 a page."""
    chance = random.Random(SEED)
    made = ("".join(chance.choice(SYLLABLES) for _ in range(chance.randint(1, 4))) for _ in range(40_000))
    words = list(dict.fromkeys(made))
    weights = list(itertools.accumulate(1 / (at + 2) for at in range(len(words))))

    def text(length: int) -> str:
        return " ".join(chance.choices(words, cum_weights=weights, k=length))

    return [PageText(f"/part-{at // 100}/page-{at}/", text(4), text(chance.randint(200, 800))) for at in range(count)]


_PAGE = """<!doctype html><meta charset="utf-8"><div><form data-rim-search="index.txt"><input name="q"></form>
<div hidden><p data-rim-words="{0}"></p><ul></ul></div></div><script src="search.js"></script>"""
_FIND = """
const [query, done] = arguments, form = document.forms[0], told = document.querySelector("p");
const begun = performance.now();
told.textContent = "";
new MutationObserver((_, seen) => { seen.disconnect(); done([performance.now() - begun, told.textContent]); }).observe(told, { childList: true });
form.elements.q.value = query;
form.elements.q.dispatchEvent(new Event("input"));
"""


def in_browser(index: Mapping[str, str]) -> tuple[float, float]:
    """Milliseconds until the index has been read and something found, and of the slowest search after that."""
    driver = plain_chromium()
    try:
        with tempfile.TemporaryDirectory() as name:
            folder = Path(name)
            script = shelf().late_scripts["search"]
            (folder / "search.js").write_text(
                f"const fetch = async (part) => new Response(INDEX[part.slice(5, -4)]);{script}"
            )
            (folder / "index.js").write_text(f"window.INDEX = {json.dumps(index)};")
            (folder / "page.html").write_text(
                _PAGE.replace('<script src="search.js">', '<script src="index.js"></script><script src="search.js">')
            )
            driver.get((folder / "page.html").as_uri())
            first, _ = driver.execute_async_script(_FIND, "ostr")
            took = {
                query: min(float(driver.execute_async_script(_FIND, query)[0]) for _ in range(3)) for query in QUERIES
            }
    finally:
        driver.quit()
    return float(first), max(took.values())


if __name__ == "__main__":
    print(table(measure("--tiny" in sys.argv)))
