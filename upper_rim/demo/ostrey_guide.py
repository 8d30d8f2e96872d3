"""*Ostrey Ferries*: what stands around the island guide."""

from __future__ import annotations

from ..core.conditions.below import Below
from ..core.conditions.on_page import OnPage
from ..core.kinds.items.links import LinkList
from ..core.kinds.items.picture import PictureItem
from ..core.kinds.items.pictures import PictureLink, PictureList
from ..core.kinds.items.trail import Trail
from ..core.kinds.pieces.base import ReachRule
from ..core.kinds.pieces.header import Header
from ..core.kinds.pieces.sidebar import Sidebar
from ..core.kinds.rows import Cell, Row
from ..core.style.built_in import corners
from ..core.values.targets import ToPage
from ..core.values.words import Words
from .making import declared, in_four

GUIDE_SIDEBAR = Sidebar(
    id="pc-guide",
    name="The island guide",
    reach=(ReachRule(id="rr-guide", where=Below(path="/guide/")),),
    moves="stays",
    pin_px=16,
    styles=declared("guide", {"background-color": "transparent"}),
    rows=(
        Row(
            id="rw-guide-trail",
            name="Way here",
            styles=declared("guide-trail-row", {"padding-block-start": "16px", "padding-block-end": "0px"}),
            cells=(
                Cell(
                    id="cl-guide-trail",
                    items=(
                        Trail(
                            id="it-guide-trail",
                            words=in_four("Home", "Start", "Hafan", "الرئيسية"),
                            styles=declared("guide-trail", {"font-size": "14px"}),
                        ),
                    ),
                ),
            ),
        ),
        Row(
            id="rw-guide",
            name="Contents",
            styles=declared("guide-row", {"padding-block-start": "12px"}),
            cells=(
                Cell(
                    id="cl-guide",
                    items=(
                        LinkList(
                            id="it-guide",
                            menu="mn-guide",
                            words=in_four("In this guide", "In diesem Führer", "Yn y canllaw hwn", "في هذا الدليل"),
                        ),
                    ),
                ),
            ),
        ),
        Row(
            id="rw-guide-picture",
            name="Picture",
            hidden_in=("bd-narrow",),
            cells=(
                Cell(
                    id="cl-guide-picture",
                    items=(
                        PictureItem(
                            id="it-guide-picture",
                            picture="/coast-fog.svg",
                            words=in_four(
                                "The ridge in fog", "Der Kamm im Nebel", "Y grib mewn niwl", "القمة في الضباب"
                            ),
                            ratio="4/3",
                            width_px=240,
                            styles=declared("guide-picture", corners("6px")),
                        ),
                    ),
                ),
            ),
        ),
    ),
)


def _wonder(name: str, title: Words, second: Words, picture: str) -> PictureLink:
    return PictureLink(id=f"pl-{name}", words=title, second=second, picture=picture, target=ToPage(page=f"pg-{name}"))


GUIDE_HEADER = Header(
    id="pc-guide-front",
    name="Header of the guide",
    reach=(ReachRule(id="rr-guide-front", where=OnPage(page="pg-guide")),),
    rows=(
        Row(id="rw-guide-above", name="Shared row", shares="rw-above"),
        Row(id="rw-guide-main", name="Shared row", shares="rw-main"),
        Row(
            id="rw-wonders",
            name="What to see",
            styles=declared("wonders", {"background-color": "@sw-mist"}),
            cells=(
                Cell(
                    id="cl-wonders",
                    items=(
                        PictureList(
                            id="it-wonders",
                            pictures_from="bd-middle",
                            styles=declared("wonders-list", {"inline-size": "100%"}),
                            links=(
                                _wonder(
                                    "walks",
                                    in_four("Walks", "Wanderungen", "Teithiau cerdded", "مسارات المشي"),
                                    in_four(
                                        "The ridge, the shore, and back for tea",
                                        "Über den Kamm, am Ufer, zum Tee zurück",
                                        "Y grib, y lan, ac yn ôl am de",
                                        "القمة والشاطئ ثم العودة للشاي",
                                    ),
                                    "/coast-day.svg",
                                ),
                                _wonder(
                                    "birds",
                                    in_four("Birds", "Vögel", "Adar", "الطيور"),
                                    in_four(
                                        "Who nests where, and when to keep away",
                                        "Wer wo brütet und wann man fernbleibt",
                                        "Pwy sy’n nythu ble, a phryd i gadw draw",
                                        "من يعشش وأين، ومتى نبتعد",
                                    ),
                                    "/coast-fog.svg",
                                ),
                                _wonder(
                                    "lights",
                                    in_four("Lights", "Leuchtfeuer", "Goleudai", "المنارات"),
                                    in_four(
                                        "Four towers and a lantern",
                                        "Vier Türme und eine Laterne",
                                        "Pedwar tŵr a llusern",
                                        "أربعة أبراج وفانوس",
                                    ),
                                    "/coast-dusk.svg",
                                ),
                                _wonder(
                                    "food",
                                    in_four("Food", "Essen", "Bwyd", "الطعام"),
                                    in_four(
                                        "Chowder, crab, and cheese from Lindwick",
                                        "Fischsuppe, Krebs und Käse aus Lindwick",
                                        "Cawl môr, cranc, a chaws o Lindwick",
                                        "حساء بحري وسلطعون وجبن من ليندويك",
                                    ),
                                    "/coast-day.svg",
                                ),
                            ),
                        ),
                    ),
                ),
            ),
        ),
    ),
)
