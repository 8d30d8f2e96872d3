"""With what can floats begin?"""

from __future__ import annotations

from .arranging import Arrangement, RowPlan, cells

_PLAIN_ROW = {"padding-block-start": "0px", "padding-block-end": "0px"}

ARRANGEMENTS = {
    "one-button": Arrangement(
        "float",
        "One button",
        "The one thing that a visitor should always be able to do.",
        (RowPlan("Button", cells(("content", "end", ("button",))), {}, _PLAIN_ROW),),
    ),
    "up": Arrangement(
        "float",
        "Back to top",
        "Comes after a while, and leads back up.",
        (RowPlan("Up", cells(("content", "end", ("top",))), {}, _PLAIN_ROW),),
    ),
}
