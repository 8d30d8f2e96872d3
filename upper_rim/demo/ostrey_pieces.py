"""*Ostrey Ferries*: what stands around the pages besides headers and footers."""

from __future__ import annotations

from ..core.conditions.below import Below
from ..core.conditions.everywhere import Everywhere
from ..core.conditions.on_page import OnPage
from ..core.kinds.entries import Entry
from ..core.kinds.items.button import ButtonItem
from ..core.kinds.items.contact import Contact
from ..core.kinds.items.icon import IconLink
from ..core.kinds.items.languages import LanguageSwitch
from ..core.kinds.items.posts import Posts
from ..core.kinds.items.search import SearchBox
from ..core.kinds.items.social import Profile, SocialRow
from ..core.kinds.items.text import TextItem
from ..core.kinds.pieces.base import ReachRule, ReachSet
from ..core.kinds.pieces.bottom import BottomBar
from ..core.kinds.pieces.drawer import Drawer
from ..core.kinds.pieces.float import Float
from ..core.kinds.pieces.notice import Notice
from ..core.kinds.pieces.sidebar import Sidebar
from ..core.kinds.rows import Cell, Row
from ..core.model.site import Menu
from ..core.style.built_in import corners
from ..core.values.targets import ToAddress, ToPage
from .making import declared, in_four


def _menu(name: str, title: str, *pages: str) -> Menu:
    entries = tuple(Entry(id=f"en-{name}-{page}", target=ToPage(page=f"pg-{page}")) for page in pages)
    return Menu(id=f"mn-{name}", name=title, entries=entries)


HARBOUR_MENU = _menu("harbours", "Harbours", "osterhaven", "skarrow", "lindwick", "port-merrin", "tolsey")
GUIDE_MENU = _menu("guide", "Island guide", "guide", "walks", "birds", "lights", "food", "stays")

BUT_THE_PRESS = ReachSet(
    id="rs-but-press",
    name="All but the press room",
    rules=(
        ReachRule(id="rr-all", where=Everywhere()),
        ReachRule(id="rr-not-press", shows=False, where=Below(path="/press/")),
    ),
)

WINTER_NOTICE = Notice(
    id="pc-winter",
    name="Winter timetable",
    closed_days=14,
    shows_from="2026-10-20T00:00",
    shows_until="2027-03-28T00:00",
    styles=declared("winter", {"background-color": "@sw-buoy", "color": "@sw-deep"}),
    reach_sets=(BUT_THE_PRESS.id,),
    rows=(
        Row(
            id="rw-winter",
            name="News",
            styles=declared("winter-row", {"padding-block-start": "8px", "padding-block-end": "8px"}),
            cells=(
                Cell(
                    id="cl-winter",
                    align="center",
                    items=(
                        TextItem(
                            id="it-winter",
                            words=in_four(
                                "Winter sailings from 2 November: two crossings a day",
                                "Winterfahrplan ab 2. November: zwei Überfahrten täglich",
                                "Hwyliadau’r gaeaf o 2 Tachwedd: dwy groesfan y dydd",
                                "رحلات الشتاء من ٢ نوفمبر: عبوران في اليوم",
                            ),
                            styles=declared("winter-text", {"font-weight": "600", "font-size": "15px"}),
                        ),
                    ),
                ),
            ),
        ),
    ),
)


def _target(name: str, icon: str, page: str, *words: str) -> Cell:
    target = ToAddress(address="tel:+441632960144") if page == "call" else ToPage(page=f"pg-{page}")
    link = IconLink(id=f"it-bar-{name}", icon=icon, words=in_four(*words), words_shown="below", target=target)  # type: ignore[arg-type]
    styled = link.replaced(styles=declared(f"bar-{name}", {"font-size": "13px", "min-inline-size": "56px"}))
    return Cell(id=f"cl-bar-{name}", align="center", items=(styled,))


PHONE_BAR = BottomBar(
    id="pc-bar",
    name="Quick ways",
    hidden_in=("bd-middle", "bd-wide"),
    reach_sets=(BUT_THE_PRESS.id,),
    styles=declared(
        "bar",
        {
            "border-block-start-width": "1px",
            "border-block-start-style": "solid",
            "border-block-start-color": "@sw-mist",
        },
    ),
    rows=(
        Row(
            id="rw-bar",
            name="Targets",
            gap_px=0,
            cells=(
                _target("times", "clock", "timetable", "Times", "Zeiten", "Amserau", "المواعيد"),
                _target("harbours", "anchor", "harbours", "Harbours", "Häfen", "Harbyrau", "الموانئ"),
                _target("guide", "map", "guide", "Guide", "Führer", "Canllaw", "الدليل"),
                _target("call", "phone", "call", "Call", "Anrufen", "Ffonio", "اتصال"),
            ),
        ),
    ),
)

BOOK_FLOAT = Float(
    id="pc-book",
    name="Book a crossing",
    hidden_in=("bd-middle", "bd-wide"),
    reach_sets=(BUT_THE_PRESS.id,),
    rows=(
        Row(
            id="rw-book",
            name="Button",
            styles=declared("book-row", {"padding-block-start": "0px", "padding-block-end": "0px"}),
            cells=(
                Cell(
                    id="cl-book",
                    items=(
                        ButtonItem(
                            id="it-float-book",
                            words=in_four("Book", "Buchen", "Archebu", "احجز"),
                            target=ToPage(page="pg-timetable"),
                            styles=declared("float-book", {**corners("24px"), "box-shadow": "0px 4px 14px 0px #0006"}),
                        ),
                    ),
                ),
            ),
        ),
    ),
)


LANGUAGES_FLOAT = Float(
    id="pc-languages",
    name="Languages",
    place="bottom-start",
    hidden_in=("bd-narrow",),
    reach=(ReachRule(id="rr-languages", where=OnPage(page="pg-home")),),
    styles=declared(
        "languages-float",
        {
            "background-color": "@sw-paper",
            **corners("8px"),
            "box-shadow": "0px 4px 14px 0px #0003",
            "padding-inline-start": "12px",
            "padding-inline-end": "12px",
        },
    ),
    rows=(
        Row(
            id="rw-languages",
            name="Switch",
            styles=declared("languages-row", {f"padding-{side}": "4px" for side in ("block-start", "block-end")}),
            cells=(
                Cell(id="cl-languages", items=(LanguageSwitch(id="it-float-languages", way="button", names="code"),)),
            ),
        ),
    ),
)


MENU_DRAWER = Drawer(
    id="pc-drawer",
    name="In the menu",
    above=1,
    rows=(
        Row(
            id="rw-drawer-search",
            name="Search",
            cells=(Cell(id="cl-drawer-search", items=(SearchBox(id="it-drawer-search"),)),),
        ),
        Row(
            id="rw-drawer-reach",
            name="Ways to reach us",
            gap_px=12,
            styles=declared("drawer-reach", {"background-color": "@sw-mist"}),
            cells=(
                Cell(
                    id="cl-drawer-reach",
                    gap_px=10,
                    items=(
                        TextItem(
                            id="it-drawer-text",
                            words=in_four("Quay office", "Büro am Kai", "Swyddfa’r cei", "مكتب الرصيف"),
                            styles=declared("drawer-text", {"font-weight": "700", "inline-size": "100%"}),
                        ),
                        Contact(
                            id="it-drawer-contact",
                            business="TravelAgency",
                            name="",
                            telephone="+44 1632 960144",
                            mail="quay@ostrey.example",
                        ),
                        SocialRow(
                            id="it-drawer-social",
                            profiles=(
                                Profile(
                                    id="pf-drawer-notes",
                                    address="https://quayside.example/@ostrey",
                                    name="Notes from the bridge",
                                ),
                                Profile(id="pf-drawer-mail", address="mailto:quay@ostrey.example", name="Mail"),
                            ),
                        ),
                        LanguageSwitch(
                            id="it-drawer-languages", styles=declared("drawer-languages", {"inline-size": "100%"})
                        ),
                    ),
                ),
            ),
        ),
    ),
)


PRESS_SIDEBAR = Sidebar(
    id="pc-news",
    name="News for the press",
    side="end",
    reach=(ReachRule(id="rr-news", where=Below(path="/press/")),),
    styles=declared("news", {"background-color": "transparent"}),
    rows=(
        Row(
            id="rw-news",
            name="News",
            styles=declared("news-row", {"padding-block-start": "32px"}),
            cells=(
                Cell(
                    id="cl-news",
                    items=(
                        Posts(
                            id="it-news",
                            words=in_four("News from the quay", "Neues vom Kai", "Newyddion o’r cei", "أخبار الرصيف"),
                            feed="/news.xml",
                            count=4,
                        ),
                    ),
                ),
            ),
        ),
    ),
)

NEWS_FEED = (
    '<?xml version="1.0" encoding="utf-8"?>\n<feed xmlns="http://www.w3.org/2005/Atom"><title>Ostrey Ferries</title>'
    "<id>urn:uuid:6d1f6a52-2d0f-4c2a-9a51-0f4d6f2a7e11</id><updated>2026-11-02T08:00:00Z</updated>"
    + "".join(
        f'<entry><title>{title}</title><id>urn:ostrey:{at}</id><link href="{path}"/><updated>{day}T08:00:00Z</updated></entry>'
        for at, (day, title, path) in enumerate(
            (
                ("2026-11-02", "Winter timetable begins", "/sailings/winter/"),
                ("2026-09-14", "The Eider has a cinema", "/sailings/ships/"),
                ("2026-06-01", "Six hours on Skarrow", "/sailings/day-trips/"),
                ("2026-03-28", "Cellos travel free", "/travelling/luggage/"),
            )
        )
    )
    + "</feed>\n"
)
