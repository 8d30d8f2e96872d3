"""With what can headers begin?"""

from __future__ import annotations

from .arranging import Arrangement, RowPlan, cells

ARRANGEMENTS = {
    "line": Arrangement(
        "header",
        "One line",
        "Title at the start, menu beside it, a button at the end.",
        (
            RowPlan(
                "Main row",
                cells(("content", "start", ("logo",)), ("share", "start", ("menu",)), ("content", "end", ("button",))),
            ),
        ),
    ),
    "crown": Arrangement(
        "header",
        "Crown",
        "The title in the middle, the menu centred in a row below.",
        (
            RowPlan(
                "Title row",
                cells(("share", "start", ("text",)), ("content", "center", ("logo",)), ("share", "end", ("icon",))),
            ),
            RowPlan("Menu row", cells(("share", "center", ("menu",)))),
        ),
    ),
    "band": Arrangement(
        "header",
        "With a band above",
        "A narrow row for news and contact over title and menu.",
        (
            RowPlan("Band", cells(("share", "start", ("text",)), ("content", "end", ("icon",)))),
            RowPlan("Main row", cells(("content", "start", ("logo",)), ("share", "end", ("menu",)))),
        ),
    ),
}
