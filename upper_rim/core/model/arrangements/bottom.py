"""With what can bottom bars begin?"""

from __future__ import annotations

from .arranging import CLOSING, Arrangement, PlannedItem, RowPlan, cells, words

_TO_SEE: PlannedItem = ("icon", {"icon": "menu", "words": {"text": "Contents"}, "words_shown": "below"})

ARRANGEMENTS = {
    "targets": Arrangement(
        "bottom",
        "Four targets",
        "Icons with a word below, for phones.",
        (
            RowPlan(
                "Targets",
                cells(
                    ("share", "center", (("icon", {"icon": "house", **words("Home"), "words_shown": "below"}),)),
                    ("share", "center", (("icon", {"icon": "search", **words("Find"), "words_shown": "below"}),)),
                    ("share", "center", (("icon", {"icon": "phone", **words("Call"), "words_shown": "below"}),)),
                    ("share", "center", (_TO_SEE,)),
                ),
            ),
        ),
        {"narrowest_only": True},
        CLOSING,
    ),
    "pair": Arrangement(
        "bottom",
        "Two buttons",
        "What most visitors come for, and how to call.",
        (
            RowPlan(
                "Buttons",
                cells(("share", "center", ("button",)), ("share", "center", (("button", {"rank": "second"}),))),
            ),
        ),
        {"narrowest_only": True},
        CLOSING,
    ),
}
