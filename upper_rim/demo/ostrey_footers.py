"""*Ostrey Ferries*: the footer, and the one with a form for those who travel."""

from __future__ import annotations

from typing import Any

from ..core.conditions.below import Below
from ..core.conditions.everywhere import Everywhere
from ..core.kinds.items.contact import Contact, Hours
from ..core.kinds.items.copyright import Copyright
from ..core.kinds.items.credit import Credit
from ..core.kinds.items.form import Form, FormField
from ..core.kinds.items.languages import LanguageSwitch
from ..core.kinds.items.links import LinkList
from ..core.kinds.items.logo import Logo
from ..core.kinds.items.map import MapItem
from ..core.kinds.items.pager import Pager
from ..core.kinds.items.rich import RichText
from ..core.kinds.items.search import SearchBox
from ..core.kinds.items.social import Profile, SocialRow
from ..core.kinds.items.top import BackToTop
from ..core.kinds.items.viewer import Viewer
from ..core.kinds.pieces.base import ReachRule
from ..core.kinds.pieces.footer import Footer
from ..core.kinds.rows import Cell, Columns, Row, Track
from ..core.values.styling import RoleDefault
from ..core.values.words import Words
from .making import declared, in_four, marked_in_four
from .ostrey_consent import CHART, WAY_TO_CHOICES
from .ostrey_visitors import MEMBERS_ROW

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
                            rich=marked_in_four(
                                "<p>Three ships between <strong>five harbours</strong>. A small line, on time when the sea agrees.</p>",
                                "<p>Drei Schiffe, <strong>fünf Häfen</strong>. Eine kleine Reederei, pünktlich, wenn die See mag.</p>",
                                "<p>Tair llong rhwng <strong>pum harbwr</strong>. Cwmni bach, yn brydlon pan fydd y môr yn caniatáu.</p>",
                                "<p>ثلاث سفن بين <strong>خمسة موانئ</strong>. شركة صغيرة تصل في موعدها حين يسمح البحر.</p>",
                            ),
                        ),
                        SocialRow(
                            id="it-social",
                            profiles=(
                                Profile(
                                    id="pf-social",
                                    address="https://quayside.example/@ostrey",
                                    name="Notes from the bridge",
                                ),
                                Profile(id="pf-mail", address="mailto:quay@ostrey.example", name="Mail"),
                                Profile(id="pf-phone", address="tel:+441632960144", name="Telephone"),
                            ),
                        ),
                        SearchBox(id="it-foot-search"),
                        LanguageSwitch(id="it-foot-languages"),
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
                        Credit(
                            id="it-credit",
                            words=in_four("Drawings by", "Zeichnungen von", "Lluniau gan", "رسوم"),
                            who="Maren Skaill",
                        ),
                        WAY_TO_CHOICES,
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


def _field(name: str, label: Words, **fields: Any) -> FormField:
    return FormField(id=f"fd-{name}", words=label, **fields)


HELP_FOOTER = Footer(
    id="pc-help",
    name="Footer with a form",
    styles=declared("help", {"background-color": "@sw-deep", "color": "@sw-paper"}),
    roles=(RoleDefault(id="rd-help-link", role="link", styles=declared("help-link", {"color": "currentcolor"})),),
    reach=(ReachRule(id="rr-help", where=Below(path="/travelling/")),),
    rows=(
        MEMBERS_ROW,
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
                            rich=marked_in_four(
                                "<h2>Something to carry?</h2><p>Tell us what it is and when. Someone on the quay answers within a day.</p>",
                                "<h2>Etwas zu tragen?</h2><p>Sagen Sie uns, was und wann. Vom Kai kommt binnen eines Tages Antwort.</p>",
                                "<h2>Rhywbeth i’w gario?</h2><p>Dywedwch beth a phryd. Bydd rhywun ar y cei yn ateb o fewn diwrnod.</p>",
                                "<h2>هل لديك ما تحمله؟</h2><p>أخبرنا ما هو ومتى. يجيبك أحد العاملين على الرصيف خلال يوم.</p>",
                            ),
                        ),
                        Form(
                            id="it-help-form",
                            name="Questions about luggage",
                            button=in_four("Send", "Senden", "Anfon", "إرسال"),
                            thanks=in_four(
                                "Thank you. Somebody on the quay will write to you.",
                                "Danke. Vom Kai wird Ihnen geschrieben.",
                                "Diolch. Bydd rhywun ar y cei yn ysgrifennu atoch.",
                                "شكرًا لك. سيكتب إليك أحد العاملين على الرصيف.",
                            ),
                            fields=(
                                _field("name", in_four("Your name", "Ihr Name", "Eich enw", "اسمك"), required=True),
                                _field(
                                    "mail",
                                    in_four("Mail", "E-Mail", "E-bost", "البريد الإلكتروني"),
                                    kind="mail",
                                    required=True,
                                    placeholder=in_four(
                                        "you@there.example", "sie@dort.example", "chi@yno.example", "you@there.example"
                                    ),
                                ),
                                _field(
                                    "ship",
                                    in_four("Which ship", "Welches Schiff", "Pa long", "أي سفينة"),
                                    kind="choice",
                                    choices=("Marram", "Turnstone", "Eider"),
                                ),
                                _field(
                                    "what",
                                    in_four(
                                        "What do you bring?",
                                        "Was bringen Sie mit?",
                                        "Beth ydych chi’n ei gludo?",
                                        "ماذا تحمل معك؟",
                                    ),
                                    kind="long",
                                    required=True,
                                ),
                            ),
                        ),
                    ),
                ),
                Cell(
                    id="cl-help-map",
                    items=(
                        MapItem(
                            id="it-help-map",
                            words=in_four(
                                "The Long Shed, Osterhaven",
                                "Der Lange Schuppen, Osterhaven",
                                "Y Sied Hir, Osterhaven",
                                "المخزن الطويل، أوسترهافن",
                            ),
                            latitude=54.1236,
                            longitude=-4.5312,
                            width_px=440,
                            height_px=280,
                        ),
                        CHART,
                    ),
                ),
            ),
        ),
        Row(id="rw-help-columns", name="Shared row", shares="rw-columns"),
        Row(id="rw-help-closing", name="Shared row", shares="rw-closing"),
    ),
)
