"""*Ostrey Ferries*: what is for some visitors only, and made-up visitors to look as."""

from __future__ import annotations

from ..core.conditions.audience.asks_for import AsksFor
from ..core.conditions.audience.audience import Audience
from ..core.conditions.audience.came_from import CameFrom
from ..core.conditions.audience.device import Device
from ..core.conditions.audience.in_period import InPeriod
from ..core.conditions.audience.member import Member
from ..core.conditions.audience.visits import Visits
from ..core.conditions.below import Below
from ..core.conditions.in_language import InLanguage
from ..core.conditions.on_page import OnPage
from ..core.conditions.place import Place
from ..core.conditions.visitor import Told, VisitorCard
from ..core.kinds.items.button import ButtonItem
from ..core.kinds.items.text import TextItem
from ..core.kinds.pieces.base import ReachRule
from ..core.kinds.pieces.float import Float
from ..core.kinds.pieces.notice import Notice
from ..core.kinds.rows import Cell, Row
from ..core.values.targets import ToAddress, ToPage
from .making import declared, in_four


def _notice(name: str, title: str, audience: Audience, where: Place, item: TextItem) -> Notice:
    row = Row(
        id=f"rw-{name}",
        name=title,
        cells=(Cell(id=f"cl-{name}", align="center", items=(item,)),),
    )
    return Notice(
        id=f"pc-{name}",
        name=title,
        closable=False,
        audience=audience,
        styles=declared(name, {"background-color": "@sw-mist", "color": "@sw-deep"}),
        reach=(ReachRule(id=f"rr-{name}", where=where),),  # type: ignore[arg-type]
        rows=(row,),
    )


WELCOME = _notice(
    "welcome",
    "First visit",
    Audience(every=(Visits(first=1, last=1),)),
    Below(path="/harbours/"),
    TextItem(
        id="it-welcome",
        words=in_four(
            "Here for the first time? Every quay has a waiting room and a kettle",
            "Zum ersten Mal hier? Jeder Anleger hat einen Warteraum und einen Wasserkessel",
            "Yma am y tro cyntaf? Mae ystafell aros a thegell ym mhob cei",
            "أول مرة هنا؟ في كل رصيف غرفة انتظار وإبريق شاي",
        ),
    ),
)
SPRING = _notice(
    "spring",
    "Spring campaign",
    Audience(every=(CameFrom(parameter="campaign", value="spring", days=14),)),
    OnPage(page="pg-fares"),
    TextItem(
        id="it-spring",
        words=in_four(
            "Your spring fare: a return for the price of a single until May",
            "Ihr Frühlingspreis: hin und zurück zum einfachen Preis, bis Mai",
            "Eich pris gwanwyn: dwy ffordd am bris un tan fis Mai",
            "سعر الربيع: ذهاب وإياب بسعر الذهاب حتى مايو",
        ),
    ),
)
WEEKEND = _notice(
    "weekend",
    "Winter weekends",
    Audience(
        every=(
            InPeriod(begins="2026-11-02T00:00", ends="2027-03-28T00:00", yearly=True),
            InPeriod(weekdays=("fri", "sat", "sun")),
        ),
        none=(InPeriod(weekdays=("fri",), from_hour="00:00", to_hour="18:00"),),
    ),
    Below(path="/travelling/"),
    TextItem(
        id="it-weekend",
        words=in_four(
            "This weekend the last ship leaves at four",
            "An diesem Wochenende fährt das letzte Schiff um vier",
            "Mae’r llong olaf yn gadael am bedwar y penwythnos hwn",
            "تغادر آخر سفينة في الرابعة في عطلة نهاية هذا الأسبوع",
        ),
    ),
)
WAY_BACK = _notice(
    "way-back",
    "Way back to English",
    Audience(every=(AsksFor(languages=("en",)),)),
    InLanguage(language="ar"),
    TextItem(
        id="it-way-back",
        words=in_four(
            "This page in English", "Diese Seite auf Englisch", "Y dudalen hon yn Saesneg", "هذه الصفحة بالإنجليزية"
        ),
        target=ToPage(page="pg-home"),
    ),
)
TOUCH_CALL = Float(
    id="pc-call",
    name="Call the quay",
    audience=Audience(every=(Device(pointer="touch"),)),
    reach=(ReachRule(id="rr-call", where=Below(path="/harbours/")),),
    rows=(
        Row(
            id="rw-call",
            name="Button",
            cells=(
                Cell(
                    id="cl-call",
                    items=(
                        ButtonItem(
                            id="it-call",
                            words=in_four("Call the quay", "Kai anrufen", "Ffonio’r cei", "اتصل بالرصيف"),
                            target=ToAddress(address="tel:+441632960144"),
                        ),
                    ),
                ),
            ),
        ),
    ),
)
MEMBERS_ROW = Row(
    id="rw-members",
    name="Your crossings",
    cells=(
        Cell(
            id="cl-members",
            items=(
                ButtonItem(
                    id="it-sign-in",
                    words=in_four("Sign in", "Anmelden", "Mewngofnodi", "تسجيل الدخول"),
                    target=ToAddress(address="https://crossings.example/sign-in"),
                    audience=Audience(none=(Member(),)),
                ),
                ButtonItem(
                    id="it-crossings",
                    words=in_four("My crossings", "Meine Fahrten", "Fy nheithiau", "رحلاتي"),
                    target=ToAddress(address="https://crossings.example/mine"),
                    audience=Audience(every=(Member(),)),
                ),
            ),
        ),
    ),
)
"""In the footer of those who travel."""

CARDS = (
    VisitorCard(
        id="vc-first",
        name="First visit, phone",
        width_px=390,
        height_px=844,
        pointer="touch",
        languages=("en-GB",),
        region="GB",
        clock="2026-11-27T19:30Z",
    ),
    VisitorCard(
        id="vc-regular",
        name="Regular, signed in",
        groups=("regulars",),
        visit=12,
        region="GB-WLS",
        languages=("cy", "en"),
        clock="2026-06-15T09:00Z",
    ),
    VisitorCard(
        id="vc-campaign",
        name="By the spring link, German",
        languages=("de-AT", "en"),
        region="AT",
        zone="Europe/Vienna",
        came_from="letters.example",
        came_with=(Told(name="campaign", value="spring"),),
        clock="2027-03-02T12:00Z",
    ),
)
