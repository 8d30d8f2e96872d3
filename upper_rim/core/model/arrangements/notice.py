"""With what can notice bars begin?"""

from __future__ import annotations

from .arranging import Arrangement, RowPlan, cells

ARRANGEMENTS = {
    "news": Arrangement(
        "notice",
        "A line of news",
        "One sentence across the page, closed by the visitor.",
        (
            RowPlan(
                "News",
                cells(("share", "center", ("text",))),
                {},
                {"padding-block-start": "8px", "padding-block-end": "8px"},
            ),
        ),
        {},
        {"background-color": "@:ink", "color": "@:ground"},
    ),
    "invitation": Arrangement(
        "notice",
        "An invitation",
        "A sentence and a button, pinned to the bottom.",
        (
            RowPlan(
                "Invitation",
                cells(("share", "start", ("text",)), ("content", "end", ("button",))),
                {},
                {"padding-block-start": "8px", "padding-block-end": "8px"},
            ),
        ),
        {"edge": "bottom", "moves": "stays"},
        {"background-color": "@:ink", "color": "@:ground"},
    ),
}
