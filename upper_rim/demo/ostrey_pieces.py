"""*Ostrey Ferries*: what stands around the pages besides the headers."""

from __future__ import annotations

from ..core.model.items import (
    BackToTop,
    ButtonItem,
    Contact,
    Copyright,
    Hours,
    IconLink,
    LinkList,
    Logo,
    PictureItem,
    Profile,
    RichText,
    SocialRow,
    TextItem,
    ToAddress,
    ToPage,
)
from ..core.model.rich import RichTranslation, RichWords
from ..core.model.site import (
    Below,
    BottomBar,
    Cell,
    Columns,
    Entry,
    Everywhere,
    Float,
    Footer,
    Menu,
    Notice,
    ReachRule,
    Row,
    Sidebar,
    Track,
)
from ..core.style.built_in import corners
from .making import declared, in_four


def _menu(name: str, title: str, *pages: str) -> Menu:
    entries = tuple(Entry(id=f"en-{name}-{page}", target=ToPage(page=f"pg-{page}")) for page in pages)
    return Menu(id=f"mn-{name}", name=title, entries=entries)


HARBOUR_MENU = _menu("harbours", "Harbours", "osterhaven", "skarrow", "lindwick", "port-merrin", "tolsey")
GUIDE_MENU = _menu("guide", "Island guide", "guide", "walks", "birds", "lights", "food", "stays")

_NOTHING_ELSE = (ReachRule(id="rr-not-press", shows=False, where=Below(path="/press/")),)

WINTER_NOTICE = Notice(
    id="pc-winter",
    name="Winter timetable",
    closed_days=14,
    shows_from="2026-10-20T00:00",
    shows_until="2027-03-28T00:00",
    styles=declared("winter", {"background-color": "@sw-buoy", "color": "@sw-deep"}),
    reach=(ReachRule(id="rr-winter", where=Everywhere()), *_NOTHING_ELSE),
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

FOOTER = Footer(
    id="pc-footer",
    name="Footer",
    styles=declared("footer", {"background-color": "@sw-deep", "color": "@sw-paper"}),
    reach=(ReachRule(id="rr-footer", where=Everywhere()),),
    rows=(
        Row(
            id="rw-columns",
            name="Columns",
            gap_px=32,
            align="start",
            columns=(Columns(band="bd-narrow", count=1), Columns(band="bd-middle", count=2)),
            styles=(
                *declared("columns", {"padding-block-start": "40px", "padding-block-end": "32px"}),
                *declared(
                    "columns",
                    {
                        "border-inline-start-width": "1px",
                        "border-inline-start-style": "solid",
                        "border-inline-start-color": "@sw-pier",
                    },
                    "content",
                ),
            ),
            cells=(
                Cell(
                    id="cl-about",
                    items=(
                        Logo(id="it-foot-logo"),
                        RichText(
                            id="it-about",
                            rich=RichWords(
                                text="<p>Three ships between <strong>five harbours</strong>. A small line, on time when the sea agrees.</p>",
                                translations=(
                                    RichTranslation(
                                        language="de",
                                        text="<p>Drei Schiffe zwischen <strong>fünf Häfen</strong>. Eine kleine Reederei, pünktlich, wenn die See es will.</p>",
                                    ),
                                ),
                            ),
                        ),
                        SocialRow(
                            id="it-social",
                            profiles=(
                                Profile(
                                    id="pf-social",
                                    address="https://mastodon.example/@ostrey",
                                    name="Notes from the bridge",
                                ),
                                Profile(id="pf-mail", address="mailto:quay@ostrey.example", name="Mail"),
                                Profile(id="pf-phone", address="tel:+441632960144", name="Telephone"),
                            ),
                        ),
                    ),
                ),
                Cell(
                    id="cl-foot-harbours",
                    items=(
                        LinkList(
                            id="it-foot-harbours",
                            menu="mn-harbours",
                            words=in_four("Harbours", "Häfen", "Harbyrau", "الموانئ"),
                        ),
                    ),
                ),
                Cell(
                    id="cl-foot-guide",
                    items=(
                        LinkList(
                            id="it-foot-guide",
                            menu="mn-guide",
                            words=in_four("Island guide", "Inselführer", "Canllaw’r ynysoedd", "دليل الجزر"),
                        ),
                    ),
                ),
                Cell(
                    id="cl-contact-us",
                    items=(
                        Contact(
                            id="it-contact",
                            business="TravelAgency",
                            name="Ostrey Ferries",
                            street="The Long Shed, Quay Road",
                            postcode="OS1 2FY",
                            town="Osterhaven",
                            country="GB",
                            telephone="+44 1632 960144",
                            mail="quay@ostrey.example",
                            hours=(
                                Hours(days=("Mo", "Tu", "We", "Th", "Fr"), opens="07:30", closes="18:00"),
                                Hours(days=("Sa", "Su"), opens="09:00", closes="16:00"),
                            ),
                        ),
                    ),
                ),
            ),
        ),
        Row(
            id="rw-closing",
            name="Closing line",
            styles=declared(
                "closing",
                {
                    "border-block-start-width": "1px",
                    "border-block-start-style": "solid",
                    "border-block-start-color": "@sw-pier",
                    "font-size": "14px",
                },
            ),
            cells=(
                Cell(id="cl-rights", items=(Copyright(id="it-rights", first_year=1987),)),
                Cell(
                    id="cl-up",
                    align="end",
                    track=Track(kind="content"),
                    items=(
                        BackToTop(
                            id="it-up",
                            after_px=0,
                            words=in_four("Back to top", "Nach oben", "Yn ôl i’r brig", "إلى الأعلى"),
                        ),
                    ),
                ),
            ),
        ),
    ),
)

GUIDE_SIDEBAR = Sidebar(
    id="pc-guide",
    name="The island guide",
    reach=(ReachRule(id="rr-guide", where=Below(path="/guide/")),),
    styles=declared("guide", {"background-color": "transparent"}),
    rows=(
        Row(
            id="rw-guide",
            name="Contents",
            styles=declared("guide-row", {"padding-block-start": "32px"}),
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


def _target(name: str, icon: str, page: str, *words: str) -> Cell:
    target = ToAddress(address="tel:+441632960144") if page == "call" else ToPage(page=f"pg-{page}")
    link = IconLink(id=f"it-bar-{name}", icon=icon, words=in_four(*words), words_shown="below", target=target)  # type: ignore[arg-type]
    styled = link.replaced(styles=declared(f"bar-{name}", {"font-size": "13px", "min-inline-size": "64px"}))
    return Cell(id=f"cl-bar-{name}", align="center", items=(styled,))


PHONE_BAR = BottomBar(
    id="pc-bar",
    name="Quick ways",
    hidden_in=("bd-middle", "bd-wide"),
    reach=(
        ReachRule(id="rr-bar", where=Everywhere()),
        ReachRule(id="rr-bar-press", shows=False, where=Below(path="/press/")),
    ),
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
            gap_px=4,
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
    reach=(
        ReachRule(id="rr-book", where=Everywhere()),
        ReachRule(id="rr-book-press", shows=False, where=Below(path="/press/")),
    ),
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
