"""With what can drawers begin?"""

from __future__ import annotations

from .arranging import CLOSING, Arrangement, RowPlan, cells

ARRANGEMENTS = {
    "reach-us": Arrangement(
        "drawer",
        "How to reach you",
        "Below the entries: address and profiles.",
        (
            RowPlan("Contact", cells(("share", "start", ("contact",))), {}, CLOSING),
            RowPlan("Profiles", cells(("share", "start", ("social",)))),
        ),
    ),
    "search-first": Arrangement(
        "drawer",
        "Search first",
        "Above the entries a search, below them a button.",
        (
            RowPlan("Search", cells(("share", "start", ("search",)))),
            RowPlan("Button", cells(("share", "center", ("button",))), {}, CLOSING),
        ),
        {"above": 1},
    ),
}
