"""With which controls are gates changed?"""

from __future__ import annotations

from dataclasses import replace

from .....core.exchange.imports.typed_items import is_film
from .....core.kinds.pieces.age import AgeGate
from .....core.kinds.pieces.asking import Asking
from .....core.kinds.pieces.gate import Gate
from .....core.kinds.pieces.password import PasswordGate
from .....core.model.site import Site
from ..control import Control, Group, choice, link_control, note, number, px, yes
from ..of_movement import MOTIONS

PLACES = tuple(
    (f"{block}-{inline}", f"{block}, {across}")
    for block in ("top", "middle", "bottom")
    for inline, across in (("start", "start"), ("center", "centre"), ("end", "end"))
)


def password(piece: PasswordGate, site: Site) -> list[Group]:
    patience = [
        number(piece, "tries", "Wrong tries", "", 1, 100),
        number(piece, "wait_s", "Then waits", "s", 1, 86_400),
    ]
    return [_asking(piece, patience, site), _place(piece), _film(piece, site)]


def age(piece: AgeGate, site: Site) -> list[Group]:
    regions = ", ".join(f"{one.region} {one.years}" for one in piece.by_region)
    asked = [
        number(piece, "years", "From the age of", "years", 1, 99),
        Control("text", "Elsewhere", piece.id, "by_region", regions, hint="a region and its age: IS 20, US 21"),
        Control("text", "Not asked", piece.id, "excused", ", ".join(piece.excused), hint="groups of members: crew"),
        yes(piece, "lets_crawlers_in", "Lets search engines in"),
    ]
    return [_asking(piece, asked, site), _place(piece), _film(piece, site)]


def _asking(piece: Gate, own: list[Control], site: Site) -> Group:
    return Group(
        "Gate",
        [
            *own,
            number(piece, "days", "Passed for", "days", 0, 3650),
            replace(link_control(piece, site), label="The refused go to"),
        ],
    )


def _place(piece: Gate) -> Group:
    return Group(
        "Place",
        [
            choice(piece, "place", "Its box stands", PLACES),
            px(piece, "width_px", "As wide as", 4000),
            px(piece, "inset_px", "From the edges", 200),
            *comes(piece),
        ],
    )


def _film(piece: Gate, site: Site) -> Group:
    listed = [("", "none"), *((asset.path, asset.path) for asset in site.assets if is_film(asset.path))]
    return Group(
        "Film behind it",
        [
            choice(piece, "film", "Film", listed),
            Control("upload", "Upload", piece.id, "film", ""),
            note(piece, "It has no sound, stands still where less motion is wanted, and can be stopped."),
        ],
    )


def comes(piece: Asking) -> list[Control]:
    return [choice(piece, "motion", "It comes", MOTIONS), number(piece, "in_ms", "Comes in", "ms", 0, 2000)]
