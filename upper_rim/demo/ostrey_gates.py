"""*Ostrey Ferries*: what stands before the shop and the press room."""

from __future__ import annotations

from ..core.conditions.below import Below
from ..core.kinds.items.answer import Answer
from ..core.kinds.items.birth import BirthField
from ..core.kinds.items.logo import Logo
from ..core.kinds.items.secret import PasswordField
from ..core.kinds.items.text import TextItem
from ..core.kinds.items.told import Told
from ..core.kinds.pieces.age import AgeByRegion, AgeGate
from ..core.kinds.pieces.base import ReachRule
from ..core.kinds.pieces.password import PasswordGate
from ..core.kinds.rows import Cell, Row
from ..core.values.targets import ToPage
from .making import declared, in_four

_BOX = {
    "background-color": "@sw-paper",
    "padding-block-start": "32px",
    "padding-block-end": "32px",
    "padding-inline-start": "28px",
    "padding-inline-end": "28px",
    "box-shadow": "0px 12px 40px 0px #0006",
}

SHOP_GATE = AgeGate(
    id="pc-shop-age",
    name="Before the duty-free shop",
    motion="fade",
    days=30,
    by_region=(AgeByRegion(region="IS", years=20),),
    excused=("crew",),
    target=ToPage(page="pg-home"),
    reach=(ReachRule(id="rr-shop-age", where=Below(path="/shop/")),),
    styles=declared("shop-age", {"background-color": "@sw-deep"}),
    rows=(
        Row(
            id="rw-shop-age",
            name="Date of birth",
            styles=declared("shop-age-row", _BOX),
            cells=(
                Cell(
                    id="cl-shop-age",
                    gap_px=16,
                    items=(
                        Logo(
                            id="it-shop-logo",
                            words=in_four("Ostrey Ferries", "Ostrey Ferries", "Ostrey Ferries", "عبّارات أوستري"),
                        ),
                        TextItem(
                            id="it-shop-words",
                            words=in_four(
                                "The shop sells spirits. When were you born?",
                                "Im Laden gibt es Spirituosen. Wann sind Sie geboren?",
                                "Mae’r siop yn gwerthu gwirodydd. Pryd cawsoch eich geni?",
                                "يبيع المتجر مشروبات روحية. متى وُلدت؟",
                            ),
                            styles=declared("shop-words", {"inline-size": "100%"}),
                        ),
                        Told(
                            id="it-shop-told", styles=declared("shop-told", {"inline-size": "100%", "color": "#97291f"})
                        ),
                        BirthField(id="it-shop-birth", styles=declared("shop-birth", {"inline-size": "100%"})),
                        Answer(id="it-shop-yes", words=in_four("To the shop", "Zum Laden", "I’r siop", "إلى المتجر")),
                        Answer(
                            id="it-shop-no",
                            says="no",
                            look="link",
                            words=in_four(
                                "Back to the ferries",
                                "Zurück zu den Fähren",
                                "Yn ôl i’r fferïau",
                                "العودة إلى العبّارات",
                            ),
                        ),
                    ),
                ),
            ),
        ),
    ),
)

PRESS_DOOR = PasswordGate(
    id="pc-press-door",
    name="Door of the press room",
    days=14,
    reach=(ReachRule(id="rr-press-door", where=Below(path="/press/")),),
    styles=declared("press-door", {"background-color": "@sw-mist"}),
    rows=(
        Row(
            id="rw-press-door",
            name="Password",
            styles=declared("press-door-row", _BOX),
            cells=(
                Cell(
                    id="cl-press-door",
                    gap_px=16,
                    items=(
                        TextItem(
                            id="it-press-title",
                            words=in_four("Press room", "Presseraum", "Ystafell wasg", "غرفة الصحافة"),
                            styles=declared(
                                "press-title", {"font-size": "24px", "font-weight": "700", "inline-size": "100%"}
                            ),
                        ),
                        TextItem(
                            id="it-press-words",
                            words=in_four(
                                "The press desk sends the password with each invitation: press@ostrey.example",
                                "Das Passwort steht in jeder Einladung der Pressestelle: press@ostrey.example",
                                "Mae’r ddesg wasg yn anfon y cyfrinair gyda phob gwahoddiad: press@ostrey.example",
                                "يرسل مكتب الصحافة كلمة المرور مع كل دعوة: press@ostrey.example",
                            ),
                            styles=declared("press-words", {"inline-size": "100%"}),
                        ),
                        Told(
                            id="it-press-told",
                            styles=declared("press-told", {"inline-size": "100%", "color": "#97291f"}),
                        ),
                        PasswordField(id="it-press-secret", styles=declared("press-secret", {"inline-size": "100%"})),
                        Answer(
                            id="it-press-open",
                            words=in_four(
                                "Open the press room", "Presseraum öffnen", "Agor yr ystafell wasg", "افتح غرفة الصحافة"
                            ),
                        ),
                    ),
                ),
            ),
        ),
    ),
)
