"""With what can sidebars begin?"""

from __future__ import annotations

from .arranging import Arrangement, RowPlan, cells, words

ARRANGEMENTS = {
    "contents": Arrangement(
        "sidebar",
        "Contents",
        "A title and the pages of a menu.",
        (RowPlan("Contents", cells(("share", "start", (("links", words("In this part")),)))),),
    ),
    "aside": Arrangement(
        "sidebar",
        "Aside",
        "A text, a button, and how to reach you.",
        (
            RowPlan("Text", cells(("share", "start", ("rich", "button")))),
            RowPlan("Contact", cells(("share", "start", ("contact",)))),
        ),
        {"side": "end"},
    ),
}
