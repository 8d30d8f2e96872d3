"""*Ostrey Ferries*: what its designers know of, and let be."""

from __future__ import annotations

from ..core.kinds.let_be import LetBe

# As they were looked at: `findings.let_be.as_it_is` of each.
KNOWN = (
    LetBe(
        id="lb-german-row",
        kind="wraps",
        about="rw-main",
        other="it-menu",
        reason="Two lines of the German menu on small tablets: shorter labels come with the spring timetable.",
        as_it_was="4bf14117ff90f2ae",
        until="2031-03-31",
        by="designer",
        on="2026-11-02",
    ),
    LetBe(
        id="lb-short-screens",
        kind="covered",
        about="pc-main",
        reason="Phones on their side: few book a crossing so, and the header goes with the first turn of a thumb.",
        as_it_was="cc70bb112054bf98",
        by="designer",
        on="2026-11-02",
    ),
    LetBe(
        id="lb-button",
        kind="overlap",
        about="pc-book",
        other="pc-guide",
        reason="The guide’s last lines can be scrolled from beneath the button.",
        as_it_was="75950f0dc5056c7c",
        by="colleague",
        on="2026-11-09",
    ),
)
