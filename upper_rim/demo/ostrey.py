"""*Ostrey Ferries*: an invented line with three ships between invented islands."""

from __future__ import annotations

from ..core.conditions.below import Below
from ..core.conditions.everywhere import Everywhere
from ..core.kinds.entries import Entry
from ..core.kinds.items.button import ButtonItem
from ..core.kinds.items.icon import IconLink
from ..core.kinds.items.languages import LanguageSwitch
from ..core.kinds.items.logo import Logo
from ..core.kinds.items.menu import MenuItem
from ..core.kinds.items.search import SearchBox
from ..core.kinds.items.text import TextItem
from ..core.kinds.moving import ByPixels, Stage, WayIn
from ..core.kinds.pieces.base import ReachRule
from ..core.kinds.pieces.header import Header
from ..core.kinds.rows import Cell, Row, Track
from ..core.model.site import Band, Menu, Site
from ..core.style.built_in import corners
from ..core.values.styling import Look, RoleDefault, Swatch, Tied
from ..core.values.targets import ToAddress, ToPage
from ..core.values.words import Words
from .drawings import OSTREY_ICON, OSTREY_LOGO, coast
from .making import Demo, Pile, declared, in_four
from .ostrey_consent import ASKED, COUNTING, HOSTS, QUESTION
from .ostrey_findings import KNOWN
from .ostrey_footers import FOOTER, HELP_FOOTER
from .ostrey_gates import PRESS_DOOR, SHOP_GATE
from .ostrey_guide import GUIDE_HEADER, GUIDE_SIDEBAR
from .ostrey_pieces import (
    BOOK_FLOAT,
    BUT_THE_PRESS,
    GUIDE_MENU,
    HARBOUR_MENU,
    LANGUAGES_FLOAT,
    MENU_DRAWER,
    NEWS_FEED,
    PHONE_BAR,
    PRESS_SIDEBAR,
    WINTER_NOTICE,
)
from .ostrey_texts import ENGLISH, TRANSLATED
from .ostrey_visitors import CARDS, SPRING, TOUCH_CALL, WAY_BACK, WEEKEND, WELCOME

_STYLE = """*{box-sizing:border-box}body{margin:0;font:17px/1.6 system-ui,sans-serif;color:#22343f;background:#fff}
main{max-width:1120px;margin:0 auto;padding:28px 20px 72px}main>*{max-width:46em}h1{font-size:34px;line-height:1.15;color:#12344d;margin:.2em 0 .6em}
h2{color:#12344d;font-size:22px;margin-top:1.6em}a{color:#0a5f78}img.wide{display:block;width:100%;max-width:100%;height:auto;border-radius:10px;margin:0 0 1.4em}
table{border-collapse:collapse;width:100%}td,th{border-bottom:1px solid #dbe4e8;padding:8px 10px 8px 0;text-align:start}th{color:#12344d}
@media(width<480px){td,th{padding-inline-end:5px;font-size:13px}}
"""


_LABELS = {
    "sailings": in_four("Sailings", "Überfahrten", "Hwyliadau", "الرحلات"),
    "timetable": in_four("Timetable", "Fahrplan", "Amserlen", "المواعيد"),
    "fares": in_four("Fares", "Karten & Preise", "Prisiau", "الأسعار"),
    "harbours": in_four("Harbours", "Häfen", "Harbyrau", "الموانئ"),
    "travelling": in_four("Travelling with us", "Unterwegs mit uns", "Teithio", "السفر معنا"),
    "guide": in_four("Island guide", "Inselführer", "Canllaw’r ynysoedd", "دليل الجزر"),
    "shop": in_four("Shop", "Bordladen", "Siop", "المتجر"),
}


_SECOND = {
    "harbours": in_four(
        "Five quays, each with a waiting room and a kettle.",
        "Fünf Anleger, jeder mit Warteraum und Wasserkessel.",
        "Pum cei, pob un ag ystafell aros a thegell.",
        "خمسة أرصفة، في كل منها غرفة انتظار وإبريق شاي.",
    )
}
_PICTURES = {
    "osterhaven": "/coast-day.svg",
    "skarrow": "/coast-fog.svg",
    "lindwick": "/coast-dusk.svg",
    "port-merrin": "/coast-day.svg",
    "tolsey": "/coast-fog.svg",
}


def _entry(name: str, *below: str) -> Entry:
    return Entry(
        id=f"en-{name}",
        label=_LABELS.get(name, Words()),
        target=ToPage(page=f"pg-{name}"),
        second=_SECOND.get(name, Words()),
        entries=tuple(
            Entry(id=f"en-{child}", target=ToPage(page=f"pg-{child}"), picture=_PICTURES.get(child)) for child in below
        ),
    )


_MAIN_MENU = Menu(
    id="mn-main",
    name="Main",
    entries=(
        _entry("timetable"),
        _entry("fares"),
        _entry("harbours", "osterhaven", "skarrow", "lindwick", "port-merrin", "tolsey"),
        _entry("travelling", "luggage", "vehicles", "bicycles", "access", "pets", "groups"),
        _entry("guide"),
        _entry("shop"),
    ),
)

_PRESS_MENU = Menu(
    id="mn-press",
    name="Press room",
    entries=(
        Entry(id="en-press", target=ToPage(page="pg-press")),
        Entry(id="en-releases", target=ToPage(page="pg-releases")),
        Entry(id="en-pictures", target=ToPage(page="pg-pictures")),
        Entry(
            id="en-press-desk",
            label=in_four("Press desk", "Pressestelle", "Desg y wasg", "مكتب الصحافة"),
            target=ToAddress(address="mailto:press@ostrey.example"),
        ),
    ),
)


def _main_menu(item_id: str) -> MenuItem:
    return MenuItem(
        id=item_id,
        menu="mn-main",
        panels="wide",
        panel_columns=6,
        on_hover=True,
        drawer_below="bd-wide",
        drawer="pc-drawer",
        drawer_ms=180,
        submenus="current",
        gap_px=24,
        button_words=in_four("Menu", "Menü", "Dewislen", "القائمة"),
    )


def _book(item_id: str) -> ButtonItem:
    return ButtonItem(
        id=item_id,
        hidden_in=("bd-narrow",),
        words=in_four("Book", "Buchen", "Archebu", "احجز"),
        target=ToPage(page="pg-timetable"),
    )


_MAIN_HEADER = Header(
    id="pc-main",
    name="Main header",
    reach=(ReachRule(id="rr-everywhere", where=Everywhere()),),
    moves="stays",
    moves_in=(WayIn(band="bd-narrow", way="up"),),
    stages=(
        Stage(
            id="sg-slim",
            name="Slim",
            after=ByPixels(px=80),
            padding_px=4,
            logo_percent=80,
            without=("rw-above",),
            hidden_in=("bd-narrow",),
            styles=declared("slim", {"box-shadow": "0px 2px 8px 0px #0003"}),
        ),
        Stage(
            id="sg-reading",
            name="While reading",
            after=ByPixels(px=500),
            hidden_in=("bd-narrow",),
            styles=declared("reading", {"background-color": "@sw-deep", "color": "@sw-paper"}),
        ),
    ),
    rows=(
        Row(
            id="rw-above",
            name="Tagline row",
            hidden_in=("bd-narrow",),
            styles=declared(
                "notice",
                {
                    "background-color": "@sw-deep",
                    "color": "@sw-paper",
                    "padding-block-start": "6px",
                    "padding-block-end": "6px",
                },
            ),
            cells=(
                Cell(
                    id="cl-tagline",
                    items=(
                        TextItem(
                            id="it-tagline",
                            styles=declared("notice-text", {"font-size": "14px"}),
                            words=in_four(
                                "Three ships, five harbours, every day of the year",
                                "Drei Schiffe, fünf Häfen, jeden Tag im Jahr",
                                "Tair llong, pum harbwr, bob dydd o’r flwyddyn",
                                "ثلاث سفن وخمسة موانئ كل يوم من أيام السنة",
                            ),
                        ),
                    ),
                ),
                Cell(
                    id="cl-contact",
                    align="end",
                    track=Track(kind="content"),
                    items=(
                        IconLink(
                            id="it-phone",
                            icon="phone",
                            icon_px=18,
                            words=in_four("Call us", "Anrufen", "Ffoniwch ni", "اتصل بنا"),
                            target=ToAddress(address="tel:+441632960144"),
                            hint=in_four(
                                "Every day from half past seven",
                                "Täglich ab halb acht",
                                "Bob dydd o hanner awr wedi saith",
                                "كل يوم من السابعة والنصف",
                            ),
                        ),
                        SearchBox(id="it-search", hidden_in=("bd-middle",)),
                    ),
                ),
                Cell(
                    id="cl-languages-above",
                    align="end",
                    track=Track(kind="content"),
                    items=(
                        LanguageSwitch(
                            id="it-languages",
                            way="button",
                            side="end",
                            styles=declared("languages", {"font-size": "14px"}),
                        ),
                    ),
                ),
            ),
        ),
        Row(
            id="rw-main",
            name="Main row",
            styles=declared(
                "main",
                {
                    "border-block-end-width": "1px",
                    "border-block-end-style": "solid",
                    "border-block-end-color": "@sw-mist",
                },
            ),
            cells=(
                Cell(
                    id="cl-start",
                    track=Track(kind="content"),
                    items=(Logo(id="it-logo", picture="/logo.svg", height_px=40),),
                ),
                Cell(
                    id="cl-middle",
                    items=(_main_menu("it-menu"),),
                ),
                Cell(
                    id="cl-end",
                    track=Track(kind="content"),
                    align="end",
                    items=(_book("it-book"),),
                ),
            ),
        ),
        Row(
            id="rw-reading",
            name="Row while reading",
            stage="sg-reading",
            styles=declared("reading-row", {"padding-block-start": "4px", "padding-block-end": "4px"}),
            cells=(
                Cell(
                    id="cl-reading",
                    gap_px=32,
                    items=(
                        Logo(id="it-reading-name", words=in_four("Ostrey", "Ostrey", "Ostrey", "أوستري")),
                        _main_menu("it-reading-menu"),
                    ),
                ),
                Cell(id="cl-reading-end", track=Track(kind="content"), align="end", items=(_book("it-reading-book"),)),
            ),
        ),
    ),
)

_PRESS_HEADER = Header(
    id="pc-press",
    name="Press header",
    styles=declared("press", {"background-color": "@sw-deep", "color": "@sw-paper"}),
    reach=(ReachRule(id="rr-press", where=Below(path="/press/")),),
    rows=(
        Row(
            id="rw-press",
            name="Press row",
            cells=(
                Cell(
                    id="cl-press-start",
                    track=Track(kind="content"),
                    items=(
                        Logo(
                            id="it-press-logo",
                            styles=declared("press-logo", {"font-size": "16px"}),
                            words=in_four(
                                "Ostrey Ferries press room",
                                "Presse bei Ostrey Ferries",
                                "Ystafell wasg Ostrey Ferries",
                                "غرفة صحافة عبّارات أوستري",
                            ),
                        ),
                    ),
                ),
                Cell(
                    id="cl-press-end",
                    align="end",
                    items=(
                        MenuItem(
                            id="it-press-menu",
                            menu="mn-press",
                            drawer_below="bd-wide",
                            wears=("lk-quiet",),
                            button_words=in_four("Menu", "Menü", "Dewislen", "القائمة"),
                        ),
                    ),
                ),
            ),
        ),
    ),
)


def demo() -> Demo:
    """The site, and the bytes of its contents by hash."""
    pile = Pile()
    for name, path, title, text, picture in ENGLISH:
        tags = ("winter",) if name in {"winter", "timetable"} else ()
        pile.page(
            f"pg-{name}", path, title, text, site="Ostrey Ferries", picture=picture, tags=tags, bare=name == "winter"
        )
    for language, pages in TRANSLATED.items():
        for name, path, title, text in pages:
            pile.page(
                f"pg-{name}-{language}",
                path,
                title,
                text,
                site="Ostrey Ferries",
                language=language,
                picture="/coast-day.svg" if name == "home" else "",
                translates=f"pg-{name}",
            )
    pile.asset("as-style", "/style.css", _STYLE)
    pile.asset("as-logo", "/logo.svg", OSTREY_LOGO)
    pile.asset("as-icon", "/icon.svg", OSTREY_ICON)
    pile.asset("as-news", "/news.xml", NEWS_FEED)
    pile.asset("as-day", "/coast-day.svg", coast("#d9ecf2", "#2f7f9a", "#7f9a76", 610))
    pile.asset("as-dusk", "/coast-dusk.svg", coast("#f3dcc4", "#35566b", "#5d5a66", 180))
    pile.asset("as-quay", "/press/the-quay-at-dusk.svg", coast("#efd2b8", "#2c4a5e", "#54525e", 230))
    pile.asset("as-fog", "/coast-fog.svg", coast("#e8eaea", "#7d929b", "#a9b3ae", 380))
    site = Site(
        key="q7xk",
        name="Ostrey Ferries",
        zone="Europe/London",
        icon="/icon.svg",
        description=in_four(
            "Three ships between the islands, every day of the year: sailings, fares, harbours and a guide.",
            "Drei Schiffe zwischen den Inseln, an jedem Tag des Jahres: Fahrten, Preise, Häfen und ein Führer.",
            "Tair llong rhwng yr ynysoedd, bob dydd o’r flwyddyn: hwylio, prisiau, harbyrau ac arweinlyfr.",
            "ثلاث سفن بين الجزر، كل يوم من أيام السنة: الرحلات والأسعار والموانئ ودليل.",
        ),
        swatches=(
            Swatch(id="sw-paper", name="Paper", colour="#ffffff", role="ground"),
            Swatch(id="sw-deep", name="Deep", colour="#12344d", role="ink"),
            Swatch(id="sw-tide", name="Tide", colour="#0b6e8a", role="link"),
            Swatch(id="sw-buoy", name="Buoy", colour="#e9b44c", role="accent"),
            Swatch(id="sw-lamp", name="Buoy, lit", tied=Tied(parent="sw-buoy", lightness=8)),
            Swatch(id="sw-mist", name="Mist", colour="#e3e8ec"),
            Swatch(id="sw-pier", name="Pier", colour="#5f7380", role="line"),
        ),
        roles=(
            RoleDefault(
                id="rd-button",
                role="button",
                styles=declared(
                    "button",
                    {
                        "color": "@sw-deep",
                        **corners("4px"),
                        ("background-color", "hover"): "@sw-lamp",
                        ("background-color", "pressed"): "@sw-deep",
                        ("color", "pressed"): "@sw-paper",
                        ("text-decoration-line", "hover"): "none",
                        "transition-duration": "150ms",
                    },
                ),
            ),
        ),
        looks=(
            Look(
                id="lk-quiet",
                name="Quiet link",
                styles=(
                    *declared("quiet", {("opacity", "hover"): "1"}),
                    *declared(
                        "quiet",
                        {
                            ("text-decoration-line", "hover"): "underline",
                            ("text-decoration-style", "hover"): "dotted",
                            ("text-decoration-line", "current"): "none",
                            ("font-weight", "current"): "700",
                        },
                        "content",
                    ),
                ),
            ),
        ),
        bands=(
            Band(id="bd-narrow", name="Narrow", from_px=0),
            Band(id="bd-middle", name="Middle", from_px=560),
            Band(id="bd-wide", name="Wide", from_px=980),
        ),
        menus=(_MAIN_MENU, _PRESS_MENU, HARBOUR_MENU, GUIDE_MENU),
        reach_sets=(BUT_THE_PRESS,),
        pieces=(
            _MAIN_HEADER,
            _PRESS_HEADER,
            GUIDE_HEADER,
            WINTER_NOTICE,
            FOOTER,
            HELP_FOOTER,
            GUIDE_SIDEBAR,
            PRESS_SIDEBAR,
            PHONE_BAR,
            BOOK_FLOAT,
            LANGUAGES_FLOAT,
            MENU_DRAWER,
            WELCOME,
            SPRING,
            WEEKEND,
            WAY_BACK,
            TOUCH_CALL,
            SHOP_GATE,
            PRESS_DOOR,
            QUESTION,
        ),
        snippets=(COUNTING,),
        categories=ASKED,
        hosts=HOSTS,
        cards=CARDS,
        let_be=KNOWN,
        **pile.sorted(),
    )
    return site, pile.contents
