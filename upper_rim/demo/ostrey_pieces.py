"""*Ostrey Ferries*: what stands around the pages besides the headers."""

from __future__ import annotations

from typing import Any

from ..core.model.items import (
    BackToTop,
    ButtonItem,
    Contact,
    Copyright,
    Form,
    FormField,
    Hours,
    IconLink,
    LinkList,
    Logo,
    MapItem,
    Pager,
    PictureItem,
    PictureLink,
    PictureList,
    Posts,
    Profile,
    RichText,
    SearchBox,
    SocialRow,
    TextItem,
    ToAddress,
    ToPage,
    Viewer,
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
    Header,
    Menu,
    Notice,
    OnPage,
    ReachRule,
    Row,
    Sidebar,
    Track,
)
from ..core.model.styling import RoleDefault
from ..core.model.values import Words
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
    roles=(RoleDefault(id="rd-foot-link", role="link", styles=declared("foot-link", {"color": "@sw-paper"})),),
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
                        SearchBox(id="it-foot-search"),
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
                Cell(
                    id="cl-rights",
                    items=(
                        Copyright(id="it-rights", first_year=1987),
                        Pager(id="it-landings", list_on="pg-harbours", selector="main > ul", size=8),
                        Viewer(id="it-viewer"),
                    ),
                ),
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


def _wonder(name: str, title: str, second: str, picture: str) -> PictureLink:
    words, more = Words(text=title), Words(text=second)
    return PictureLink(id=f"pl-{name}", words=words, second=more, picture=picture, target=ToPage(page=f"pg-{name}"))


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
                                _wonder("walks", "Walks", "The ridge, the shore, and back for tea", "/coast-day.svg"),
                                _wonder("birds", "Birds", "Who nests where, and when to keep away", "/coast-fog.svg"),
                                _wonder("lights", "Lights", "Four towers and a lantern", "/coast-dusk.svg"),
                                _wonder("food", "Food", "Chowder, crab, and cheese from Lindwick", "/coast-day.svg"),
                            ),
                        ),
                    ),
                ),
            ),
        ),
    ),
)


def _field(name: str, label: str, **fields: Any) -> FormField:
    return FormField(id=f"fd-{name}", words=Words(text=label), **fields)


HELP_FOOTER = Footer(
    id="pc-help",
    name="Footer with a form",
    styles=declared("help", {"background-color": "@sw-deep", "color": "@sw-paper"}),
    roles=(RoleDefault(id="rd-help-link", role="link", styles=declared("help-link", {"color": "currentcolor"})),),
    reach=(ReachRule(id="rr-help", where=Below(path="/travelling/")),),
    rows=(
        Row(
            id="rw-help",
            name="Write to us",
            align="start",
            gap_px=48,
            columns=(Columns(band="bd-narrow", count=1),),
            styles=declared(
                "help-row",
                {
                    "background-color": "@sw-mist",
                    "color": "@sw-deep",
                    "padding-block-start": "36px",
                    "padding-block-end": "36px",
                },
            ),
            cells=(
                Cell(
                    id="cl-help",
                    items=(
                        RichText(
                            id="it-help-why",
                            rich=RichWords(
                                text="<h2>Something to carry?</h2><p>Tell us what it is and when. Someone on the quay answers within a day.</p>"
                            ),
                        ),
                        Form(
                            id="it-help-form",
                            name="Questions about luggage",
                            thanks=Words(text="Thank you. Somebody on the quay will write to you."),
                            fields=(
                                _field("name", "Your name", required=True),
                                _field(
                                    "mail",
                                    "Mail",
                                    kind="mail",
                                    required=True,
                                    placeholder=Words(text="you@there.example"),
                                ),
                                _field("ship", "Which ship", kind="choice", choices=("Marram", "Turnstone", "Eider")),
                                _field("what", "What do you bring?", kind="long", required=True),
                            ),
                        ),
                    ),
                ),
                Cell(
                    id="cl-help-map",
                    items=(
                        MapItem(
                            id="it-help-map",
                            words=Words(text="The Long Shed, Osterhaven"),
                            latitude=54.1236,
                            longitude=-4.5312,
                            width_px=440,
                            height_px=280,
                        ),
                    ),
                ),
            ),
        ),
        Row(id="rw-help-columns", name="Shared row", shares="rw-columns"),
        Row(id="rw-help-closing", name="Shared row", shares="rw-closing"),
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
                    items=(Posts(id="it-news", words=Words(text="News from the quay"), feed="/news.xml", count=4),),
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
