"""With what can questions about consent begin?"""

from __future__ import annotations

from .arranging import BOX, Arrangement, PlannedItem, RowPlan, cells, words

_MAY_WE: PlannedItem = (
    "rich",
    {
        "rich": {
            "text": "<p>Some of what this site shows comes from others, who learn of your visit then. May it be fetched? "
            "You can change your answer at any time.</p>"
        }
    },
)
_YES_TO_ALL: PlannedItem = ("answer", {"says": "yes", **words("Yes to all")})
_NO_TO_ALL: PlannedItem = ("answer", {"says": "no", **words("No to all")})
_YES_TO_TICKED: PlannedItem = ("answer", {"says": "ticked", "look": "second", **words("Yes to what is ticked")})
_OVER_A_PAGE = {"background-color": "@:ground", "box-shadow": "0px 2px 24px 0px #0006"}
_ASKING_BAR = {"padding-block-start": "16px", "padding-block-end": "16px"}
_ASKING_FIRST = {**BOX, "background-color": "@:ground"}

ARRANGEMENTS = {
    "ask-bar": Arrangement(
        "consent",
        "A bar",
        "Along the lower edge: a sentence and two answers.",
        (
            RowPlan(
                "Question",
                cells(("share", "start", (_MAY_WE,)), ("content", "end", (_YES_TO_ALL, _NO_TO_ALL))),
                {"folds": True},
                _ASKING_BAR,
            ),
        ),
        {"place": "bar-bottom"},
        _OVER_A_PAGE,
    ),
    "ask-box": Arrangement(
        "consent",
        "A box",
        "In a corner: what may be agreed to, one by one.",
        (
            RowPlan(
                "Question",
                cells(("share", "start", (_MAY_WE, "choices", _YES_TO_ALL, _NO_TO_ALL, _YES_TO_TICKED))),
                {},
                BOX,
            ),
        ),
        {"place": "bottom-end"},
        _OVER_A_PAGE,
    ),
    "ask-first": Arrangement(
        "consent",
        "Before anything else",
        "Over all of the window, until there is an answer.",
        (
            RowPlan(
                "Question", cells(("share", "start", ("logo", _MAY_WE, _YES_TO_ALL, _NO_TO_ALL))), {}, _ASKING_FIRST
            ),
        ),
        {"place": "whole"},
        {"background-color": "#000000b3"},
    ),
}
