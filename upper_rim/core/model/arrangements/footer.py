"""With what can footers begin?"""

from __future__ import annotations

from .arranging import ABOUT_THE_SITE, CLOSING, Arrangement, RowPlan, cells, words

_WIDE_ROW = {"padding-block-start": "36px", "padding-block-end": "28px"}

ARRANGEMENTS = {
    "columns": Arrangement(
        "footer",
        "Four columns",
        "Who you are, two lists of links, where to find you; a closing line below.",
        (
            RowPlan(
                "Columns",
                cells(
                    ("share", "start", ("logo", ABOUT_THE_SITE)),
                    ("share", "start", (("links", words("On this site")),)),
                    ("share", "start", (("links", words("More")),)),
                    ("share", "start", ("contact",)),
                ),
                {"folds": True, "align": "start"},
                _WIDE_ROW,
            ),
            RowPlan(
                "Closing line", cells(("share", "start", ("copyright",)), ("content", "end", ("top",))), {}, CLOSING
            ),
        ),
    ),
    "halves": Arrangement(
        "footer",
        "Two halves",
        "Address at the start, profiles at the end.",
        (
            RowPlan(
                "Halves",
                cells(("share", "start", ("contact",)), ("share", "end", ("social",))),
                {"folds": True, "align": "start"},
                _WIDE_ROW,
            ),
            RowPlan("Closing line", cells(("share", "start", ("copyright",))), {}, CLOSING),
        ),
    ),
    "colophon": Arrangement(
        "footer",
        "Colophon",
        "All in the middle: links, profiles, the copyright line.",
        (
            RowPlan("Links", cells(("share", "center", ("links",))), {}, _WIDE_ROW),
            RowPlan("Closing line", cells(("share", "center", ("copyright",)))),
        ),
    ),
}
