"""Why can an edit not be? As data: what kind of reason it is, and which names and numbers it is about; and in words."""

from __future__ import annotations

import dataclasses
from collections.abc import Mapping
from typing import Literal

RefusalKind = Literal[
    # of the edit itself
    "gone", "elsewhere", "into itself", "another type", "no such field", "no such slot", "no such value",
    "ids alike", "id taken", "path taken",
    # of what it would leave behind
    "swatch gone", "band gone", "menu gone", "look gone", "drawer gone", "category gone", "tie gone", "stage gone", "shared row gone",
    "tied to itself", "look worn twice", "declared twice", "role twice", "row shown twice", "shared row with its own",
    "role of pieces", "part without styles", "state not here", "more than a divider", "more than a ring", "not of the part",
    "stage changes size", "way of another kind", "button within a drawer", "means nothing there", "known too late", "band begins there",
    "first band begins later", "too deep",
    # of what the shell knows
    "no such icon", "selector not read", "would flicker",
]  # fmt: skip


@dataclasses.dataclass(frozen=True)
class Refusal:
    """The node and field at fault, the kind of reason, and what its words name."""

    node: str
    field: str
    kind: RefusalKind
    about: Mapping[str, object] = dataclasses.field(default_factory=dict)

    @property
    def words(self) -> str:
        """As the end of a sentence."""
        return WORDS[self.kind].format_map(self.about)


WORDS: Mapping[RefusalKind, str] = {
    "gone": "it is not there any more",
    "elsewhere": "it is not there any more, or stands somewhere else",
    "into itself": "it cannot be moved into itself",
    "another type": "it would become something else there",
    "no such field": "there is no field “{field_name}” to be set here",
    "no such slot": "nothing can be put into “{slot}” here",
    "no such value": "{fault}",
    "ids alike": "two of the new parts carry the same id",
    "id taken": "this id is already taken in the site",
    "path taken": "there is already something at {path}",
    "swatch gone": "“{piece}” uses a swatch that is not there; choose another one there first",
    "band gone": "“{piece}” uses a width band that is not there; choose another one there first",
    "menu gone": "“{piece}” shows a menu that is not there; choose another one there first",
    "look gone": "something in “{piece}” wears a look that is not there; take it off there first",
    "drawer gone": "a menu in “{piece}” holds a drawer that is not there; take it off there first",
    "category gone": "“{who}” waits for a yes to something that is not asked for; let it wait for something else first",
    "tie gone": "the swatch that it is tied to is not there",
    "stage gone": "“{row}” shows in a stage that “{piece}” has not; remove the row, or let it show at rest",
    "shared row gone": "“{piece}” shares a row that would be gone; make it its own there, or remove it there, first",
    "tied to itself": "it cannot be tied to itself, not even by way of others",
    "look worn twice": "it wears this look already",
    "declared twice": "this is set already, for that state and width",
    "role twice": "there are defaults for {role} already",
    "row shown twice": "a piece shows another's row once",
    "shared row with its own": "a row that is shared has nothing of its own",
    "role of pieces": "within a piece there are no defaults for pieces; style the piece itself",
    "part without styles": "it has no {part} that could be styled by itself",
    "state not here": "there is no state “{state}” here",
    "more than a divider": "a divider has thickness, kind and colour only",
    "more than a ring": "a focus ring has width, kind, colour and distance only",
    "not of the part": "{part} cannot be styled by this",
    "stage changes size": "a stage changes what is painted; for other sizes set its height, or hand over to other rows",
    "way of another kind": "a piece of this kind cannot go this way",
    "known too late": "“{piece}” stands before a page is sent: it can go by place, membership and time, which a server knows, and by nothing that only a browser does",
    "means nothing there": "“{item}” means nothing in “{piece}”: it belongs to a gate",
    "button within a drawer": "“{piece}” is a drawer itself: a menu in it cannot have a button that opens another",
    "band begins there": "“{band}” already begins at {from_px} px",
    "first band begins later": "the narrowest band begins at 0",
    "too deep": "an entry would stand more than {most} levels deep",
    "no such icon": "there is no icon called “{icon}”; its name comes from the list that opens while you type",
    "selector not read": "{fault}",
    "would flicker": (
        "at {after_px} px it gives up {given_up_px:g} px of room that are still in view (from a width of {at_px} px, "
        "in {language}). Given up, the page would move back under its own distance, and flicker between {from_px} and "
        "{to_px} px; kept, {gap_px:g} px of the page’s ground would show beneath it. "
        "From {least_px:g} px on neither happens"
    ),
}
