"""Every measurement: `python ops/with_test_database.py python -m bench [--tiny] [NAME…]`

Prints got, asked, the ratio to a yardstick of the same run, and "short" where it falls short; ends with 1 where
anything does. `--tiny`: at a size that takes seconds, to see that nothing has rotted; the figures mean nothing then.
"""

from __future__ import annotations

import sys
from collections.abc import Callable, Iterator

from . import (
    board,
    coverage,
    edition,
    edits,
    findings,
    fit,
    fit_on_screen,
    many_pages,
    menus,
    movement,
    publish,
    search,
    slow_processor,
    small_pictures,
    stage_handle,
    swatch_on_stage,
    taken_away,
    weight,
    wording,
)
from .measured import Measured, table

BENCHES: dict[str, Callable[[bool], Iterator[Measured]]] = {
    "fit": fit.measure,
    "movement": movement.measure,
    "weight": weight.measure,
    "edits": edits.measure,
    "findings": findings.measure,
    "menus": menus.measure,
    "wording": wording.measure,
    "many_pages": many_pages.measure,
    "small_pictures": small_pictures.measure,
    "publish": publish.measure,
    "edition": edition.measure,
    "search": search.measure,
    "coverage": coverage.measure,
    "taken_away": taken_away.measure,
    "board": board.measure,
    "fit_on_screen": fit_on_screen.measure,
    "swatch_on_stage": swatch_on_stage.measure,
    "stage_handle": stage_handle.measure,
    "slow_processor": slow_processor.measure,
}


def main() -> None:
    tiny = "--tiny" in sys.argv
    chosen = [name for name in sys.argv[1:] if not name.startswith("-")] or list(BENCHES)
    short = False
    for name in chosen:
        found = list(BENCHES[name](tiny))
        print(table(found, headed=name == chosen[0]), flush=True)
        short = short or any(one.is_short for one in found)
    sys.exit(short and not tiny)


if __name__ == "__main__":
    main()
