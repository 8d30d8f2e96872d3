"""How fast does fit sweep a header over all widths, and how does its cost grow?

python -m bench.fit [--draw]

The yardstick is Chromium, asked at the same widths in the same run: the page in each language, set to a width, its
boxes read. Then the cost against the number of items, languages and pieces; drawn into docs/fit-cost.svg with --draw.
"""

from __future__ import annotations

import functools
import gc
import itertools
import sys
import time
from collections.abc import Callable, Iterator
from dataclasses import replace
from pathlib import Path
from typing import Any

from tests.browser.conftest import load_faces, plain_chromium
from tests.fit_judge import served
from tests.fitted_sites import VOCABULARY, FittedMaker
from upper_rim.core.exchange.html.markdown import written_page
from upper_rim.core.exchange.imports.import_pages import digest
from upper_rim.core.fit.advice.remedies import failures, remedies
from upper_rim.core.fit.rows.fitter import Fitter
from upper_rim.core.fit.rows.sweep import FROM_PX, TO_PX
from upper_rim.core.kinds.entries import Entry
from upper_rim.core.kinds.items.button import ButtonItem
from upper_rim.core.kinds.items.icon import IconLink
from upper_rim.core.kinds.items.logo import Logo
from upper_rim.core.kinds.items.menu import MenuItem
from upper_rim.core.kinds.items.search import SearchBox
from upper_rim.core.kinds.items.text import TextItem
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.rows import Cell, Row, Track
from upper_rim.core.model.site import Band, Menu, Page, Site
from upper_rim.core.output.fitting import fitter_of
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.values.targets import ToAddress
from upper_rim.core.values.words import Translation, Words
from upper_rim.shipped import shelf

from .measured import Measured

LANGUAGES = ("en", "de", "el", "ru", "fr", "cy")
ASKED = 120
"""At so many of the widths Chromium is asked; its time for all of them follows."""


def words(number: int, languages: tuple[str, ...] = LANGUAGES) -> Words:
    first, *others = (VOCABULARY.get(tag, VOCABULARY["en"])[number % 8] for tag in languages)
    pairs = zip(languages[1:], others, strict=True)
    return Words(text=first, translations=tuple(Translation(language=tag, text=said) for tag, said in pairs))


def header_site(
    items: int = 12, languages: tuple[str, ...] = LANGUAGES, pieces: int = 1
) -> tuple[Site, dict[str, bytes]]:
    """Headers of two rows: above, texts, search and icons; below, logo, menu and buttons."""
    to = ToAddress(address="/x/")
    menu = Menu(
        id="mn-a", name="Main", entries=tuple(Entry(id=f"en-{at}", label=words(at, languages), target=to) for at in range(6))
    )  # fmt: skip
    contents: dict[str, bytes] = {}
    pages = []
    for tag in languages:
        content, splice = written_page("Page", tag, "Some text.")
        contents[digest(content)] = content
        pages.append(
            Page(id=f"pg-{tag}", path=f"/{tag}/", title="T", language=tag, content=digest(content), splice=splice)
        )
    site = Site(
        key="qfit",
        name="Ostrey Ferries",
        face="noto-sans",
        bands=(Band(id="bd-a", name="S", from_px=0), Band(id="bd-b", name="M", from_px=620), Band(id="bd-c", name="L", from_px=1000)),
        menus=(menu,),
        pieces=tuple(_header(at, items, to) for at in range(pieces)),
        pages=tuple(sorted(pages, key=lambda page: page.path)),
    )  # fmt: skip
    return site, contents


def _header(number: int, items: int, to: ToAddress) -> Header:
    def node(name: str) -> str:
        return f"{name}-{number}"

    icons = tuple(
        IconLink(
            id=node(f"it-icon{at}"), icon="phone", words=words(at), target=to, hidden_in=("bd-a",) if at % 2 else ()
        )
        for at in range(items - 8)
    )
    above = (
        Cell(id=node("cl-a"), items=(TextItem(id=node("it-tag"), words=words(3)), TextItem(id=node("it-more"), words=words(4)))),
        Cell(id=node("cl-b"), track=Track(kind="content"), align="end", items=(SearchBox(id=node("it-search"), hidden_in=("bd-a",)), *icons, TextItem(id=node("it-call"), words=words(6)))),
    )  # fmt: skip
    below = (
        Cell(id=node("cl-c"), track=Track(kind="content"), items=(Logo(id=node("it-logo")),)),
        Cell(id=node("cl-d"), items=(MenuItem(id=node("it-menu"), menu="mn-a", drawer_below="bd-b"),)),
        Cell(id=node("cl-e"), track=Track(kind="content"), align="end", items=(ButtonItem(id=node("it-book"), words=words(4), target=to), ButtonItem(id=node("it-also"), words=words(5), target=to, rank="second", hidden_in=("bd-a",)))),
    )  # fmt: skip
    return Header(
        id=node("pc-head"),
        name="Head",
        rows=(Row(id=node("rw-above"), cells=above), Row(id=node("rw-below"), cells=below)),
        reach=(ReachRule(id=node("rr-a")),),
    )


def swept(made: Fitter, site: Site, languages: tuple[str, ...] = LANGUAGES) -> None:
    for piece in site.pieces:
        made.rows(site, piece, languages)


def timed(act: Callable[[], Any], rounds: int = 15) -> float:
    """The best of many, in ms."""
    taken = []
    for _ in range(rounds):
        started = time.perf_counter()
        act()
        taken.append((time.perf_counter() - started) * 1000)
    return min(taken)


def again(made: Fitter) -> Fitter:
    """One that knows the texts, styles and boxes, and has looked at no width yet."""
    kept = {key: value for key, value in made._known.items() if key[0] not in {"row", "fit", "memory"}}
    return replace(made, _known=kept)


def forgetful(made: Fitter) -> Fitter:
    """One that knows the texts and styles alone: boxes are made anew too."""
    known = {"measurer", "faces", "links", "pictures", "posts", "reached"}
    kept = {key: value for key, value in made._known.items() if key in known or key[0] == "styles"}
    return replace(made, _known=kept)


def _minted(numbers: Iterator[int], prefix: str) -> str:
    return f"{prefix}-b{next(numbers)}"


HEAVY = {45: "pc-head", 10: "pc-head", 29: "pc-foot"}
"""Generated sites by seed, those of sixty that take longest: of these pieces the remedies are looked for."""


def measure(tiny: bool) -> Iterator[Measured]:
    site, contents = header_site()
    made = fitter_of(shelf(), contents.__getitem__, 2026, foresees=False)
    swept(made, site)
    rounds = 3 if tiny else 15
    yardstick = ("all boxes made anew", timed(lambda: swept(forgetful(made), site), rounds))
    yield Measured(
        "sweep of 12 items in 6 languages", timed(lambda: swept(again(made), site), rounds), 25.0, "ms", yardstick
    )
    yield Measured("after editing one label", timed(lambda: swept(made, _edited(site)), rounds), 5.0, "ms", yardstick)
    for seed, piece_id in list(HEAVY.items())[: 1 if tiny else None]:
        heavy, kept = FittedMaker(seed).site()
        fitter = fitter_of(shelf(), kept.__getitem__, 2026)
        piece = next(one for one in heavy.pieces if one.id == piece_id)
        began = time.perf_counter()
        fits = fitter.rows(heavy, piece)
        sweeping = (time.perf_counter() - began) * 1000
        minted = functools.partial(_minted, itertools.count())
        worst = 0.0
        for row in piece.rows:
            for failure in failures(fits, row.id)[:1]:
                began = time.perf_counter()
                remedies(fitter, heavy, piece, row, failure, minted)
                worst = max(worst, (time.perf_counter() - began) * 1000)
        yield Measured(
            f"remedies where sizes grow with the viewport, site {seed}", worst, 1000.0, "ms", ("its sweep", sweeping)
        )


def main() -> None:
    site, contents = header_site()
    made = fitter_of(shelf(), contents.__getitem__, 2026, foresees=False)
    started = time.perf_counter()
    swept(made, site)
    cold = (time.perf_counter() - started) * 1000
    gc.collect()
    gc.freeze()
    warm = timed(lambda: swept(again(made), site))
    boxes = timed(lambda: swept(forgetful(made), site))
    edit = timed(lambda: swept(made, _edited(site)), 31)
    layouts = sum(len(fit.laid) for piece in site.pieces for fit in made.rows(site, piece, LANGUAGES))
    print(
        f"sweep of 12 items in 6 languages: {warm:.1f} ms warm ({boxes:.1f} with all boxes made anew, {cold:.0f} cold)"
    )
    print(f"  {layouts} layouts for {12 * (TO_PX - FROM_PX + 1)} widths of a row in a language")
    print(f"after editing one label: {edit:.1f} ms")
    browser = in_browser(site, contents)
    print(
        f"Chromium at the same widths: {browser / 1000:.1f} s, {browser / warm:.0f} times as long ({browser / boxes:.0f} with all boxes anew)"
    )
    lines = {}
    for name, sizes in {
        "items": [(items, header_site(items)[0]) for items in (12, 18, 24, 36, 48)],
        "languages": [(count, header_site(languages=LANGUAGES[:count])[0]) for count in range(1, 7)],
        "pieces": [(count, header_site(pieces=count)[0]) for count in (1, 2, 3, 4, 6)],
    }.items():
        lines[name] = [
            (count, _cost(one, LANGUAGES[:count] if name == "languages" else LANGUAGES)) for count, one in sizes
        ]
        told = ", ".join(f"{count}: {cost:.1f} ms ({cost / count:.2f} each)" for count, cost in lines[name])
        print(f"by {name}: {told}")
    if "--draw" in sys.argv:
        Path("docs/fit-cost.svg").write_text(drawn(lines))


def drawn(lines: dict[str, list[tuple[int, float]]]) -> str:
    """Cost in ms over the number, a panel for each."""
    panels = []
    for at, (name, points) in enumerate(lines.items()):
        left, most, high = 50 + at * 260, points[-1][0], max(cost for _, cost in points) * 1.1
        spots = [(left + 200 * count / most, 170 - 140 * cost / high) for count, cost in points]
        path = "M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in spots)
        dots = "".join(
            f'<circle cx="{x:.1f}" cy="{y:.1f}" r="3" fill="#1f5c57"/><text x="{x:.1f}" y="{y - 8:.1f}" text-anchor="middle">{cost:.0f}</text><text x="{x:.1f}" y="186" text-anchor="middle">{count}</text>'
            for (x, y), (count, cost) in zip(spots, points, strict=True)
        )
        panels.append(
            f'<path d="M{left} 30V170H{left + 205}" fill="none" stroke="#8a7d68"/><path d="{path}" fill="none" stroke="#1f5c57" stroke-width="2"/>{dots}'
            f'<text x="{left}" y="20" font-weight="700">ms by {name}</text>'
        )
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" width="830" height="200" viewBox="0 0 830 200" font-family="sans-serif" font-size="11" fill="#2b2620">'
        f'<rect width="830" height="200" fill="#fffdf7"/>{"".join(panels)}</svg>\n'
    )


def _cost(site: Site, languages: tuple[str, ...]) -> float:
    made = fitter_of(shelf(), None, 2026, foresees=False)
    swept(made, site, languages)
    gc.collect()
    return timed(lambda: swept(again(made), site, languages), 9)


_EDITS = iter(range(10_000_000))


def _edited(site: Site) -> Site:
    """With another German label."""
    menu = site.menus[0]
    entry = menu.entries[2]
    longer = "Inselführer" + "x" * (next(_EDITS) % 3)
    others = tuple(one.replaced(text=longer) if one.language == "de" else one for one in entry.label.translations)
    label = entry.label.replaced(translations=others)
    entries = (*menu.entries[:2], entry.replaced(label=label), *menu.entries[3:])
    return site.replaced(menus=(menu.replaced(entries=entries),))


def in_browser(site: Site, contents: dict[str, bytes]) -> float:
    """What asking Chromium takes for all widths and languages, in ms, from every so many-th of them."""
    composer = Composer(site, shelf(), contents.__getitem__, year=2026)
    step = (TO_PX - FROM_PX) // ASKED
    taken = 0.0
    asked = 0
    driver = plain_chromium()
    try:
        with served() as (files, port):
            for page in site.pages:
                files[page.path] = composer.page(page, contents[page.content or ""])
            files.update(dict(composer.parts()))
            for page in site.pages:
                driver.get(f"http://127.0.0.1:{port}{page.path}")
                load_faces(driver)
                for width in range(FROM_PX, TO_PX, step):
                    started = time.perf_counter()
                    metrics = {"width": width, "height": 800, "deviceScaleFactor": 1, "mobile": False}
                    driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
                    driver.execute_script(
                        "return [...document.querySelectorAll('header *')].map((part) => part.getBoundingClientRect().toJSON())"
                    )
                    taken += (time.perf_counter() - started) * 1000
                    asked += 1
    finally:
        driver.quit()
    return taken / asked * len(site.pages) * (TO_PX - FROM_PX + 1)


if __name__ == "__main__":
    main()
