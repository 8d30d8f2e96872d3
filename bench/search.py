"""How large is the search index of 5,000 pages, how soon is it made, and how soon does a browser find in it?

python -m bench.search

The yardstick for size: the pages' own text. For time: reading all pages of the corpus once for their words alone. The
search itself is the published script's, run in headless Chromium from the index as it would be fetched.
"""

from __future__ import annotations

import gzip
import itertools
import random
import statistics
import tempfile
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path

import brotli

from tests.browser.conftest import plain_chromium
from upper_rim.core.output.search_index import PageText, made_index, read_index, search, text_of, words_of
from upper_rim.shipped import shelf

PAGES, SEED = 5000, 11
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


def main() -> None:
    pages = corpus()
    raw = sum(len(page.text.encode()) for page in pages)
    begun = time.perf_counter()
    for page in pages:
        words_of(page.text)
    reading = time.perf_counter() - begun
    begun = time.perf_counter()
    index = made_index(pages)
    making = time.perf_counter() - begun
    sizes = {"gzip": len(gzip.compress(index.encode(), 6)), "brotli": len(brotli.compress(index.encode(), quality=5))}
    told = ", ".join(f"{name} {size / raw:.1%} of the pages' text" for name, size in sizes.items())
    print(
        f"{PAGES} pages, {raw / 1e6:.1f} MB of text: index {told}; made in {making / reading:.1f} times reading the words"
    )
    begun = time.perf_counter()
    text_of("<p>" + "</p><p>".join(page.text for page in pages[:200]) + "</p>")
    print(f"text of 200 pages' HTML: {(time.perf_counter() - begun) * 1000:.0f} ms")
    read = read_index(index)
    here = [timed(partial(search, read, query)) for query in QUERIES]
    print(f"on the server, median {statistics.median(here):.1f} ms, slowest {max(here):.1f} ms")
    in_browser(index)


def timed(act: Callable[[], object]) -> float:
    begun = time.perf_counter()
    act()
    return (time.perf_counter() - begun) * 1000


def corpus() -> list[PageText]:
    """Words as often as words are (Zipf's law), 200 to 800 a page."""
    chance = random.Random(SEED)
    made = ("".join(chance.choice(SYLLABLES) for _ in range(chance.randint(1, 4))) for _ in range(40_000))
    words = list(dict.fromkeys(made))
    weights = list(itertools.accumulate(1 / (at + 2) for at in range(len(words))))

    def text(count: int) -> str:
        return " ".join(chance.choices(words, cum_weights=weights, k=count))

    return [PageText(f"/part-{at // 100}/page-{at}/", text(4), text(chance.randint(200, 800))) for at in range(PAGES)]


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


def in_browser(index: str) -> None:
    driver = plain_chromium()
    try:
        with tempfile.TemporaryDirectory() as name:
            folder = Path(name)
            script = shelf().scripts["search"].decode()
            (folder / "search.js").write_text(f"const fetch = async () => new Response(window.INDEX);{script}")
            (folder / "index.js").write_text(f"window.INDEX = {index!r};".replace("\\t", "\\t"))
            (folder / "page.html").write_text(
                _PAGE.replace('<script src="search.js">', '<script src="index.js"></script><script src="search.js">')
            )
            driver.get((folder / "page.html").as_uri())
            first, _ = driver.execute_async_script(_FIND, "ostr")
            took = {query: driver.execute_async_script(_FIND, query) for query in QUERIES for _ in range(3)}
    finally:
        driver.quit()
    times = [float(one[0]) for one in took.values()]
    slowest = max(took, key=lambda query: took[query][0])
    print(
        f"in Chromium, read for the first time {first:.0f} ms; then median {statistics.median(times):.1f} ms, slowest {max(times):.1f} ms (“{slowest}”, found {took[slowest][1]})"
    )


if __name__ == "__main__":
    main()
