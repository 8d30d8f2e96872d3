"""*Ostrey Ferries*: what visitors are asked to agree to, and what waits for that."""

from __future__ import annotations

from ..core.conditions.everywhere import Everywhere
from ..core.kinds.consent import CATEGORIES, OtherHost
from ..core.kinds.items.answer import Answer
from ..core.kinds.items.choices import Choices
from ..core.kinds.items.embed import Embed
from ..core.kinds.items.privacy import PrivacyChoices
from ..core.kinds.items.rich import RichText
from ..core.kinds.pieces.base import ReachRule
from ..core.kinds.pieces.consent import ConsentQuestion
from ..core.kinds.rows import Cell, Row
from ..core.model.site import Snippet
from .making import declared, in_four, marked_in_four

_TEXTS = {
    "en": "May we count which pages are read, with tidemark.example, and show sea charts of saltmarsh.example? Both learn then "
    'that you were here. More on our <a href="/privacy/">page about privacy</a>.',
    "de": "Dürfen wir mit tidemark.example zählen, welche Seiten gelesen werden, und Seekarten von saltmarsh.example zeigen? "
    'Beide erfahren dann, dass Sie hier waren. Mehr auf der <a href="/privacy/">Seite zum Datenschutz</a>.',
    "cy": "A gawn ni gyfrif pa dudalennau sy’n cael eu darllen, gyda tidemark.example, a dangos siartiau môr saltmarsh.example? "
    'Bydd y ddau’n gwybod wedyn i chi fod yma. Mwy ar ein <a href="/privacy/">tudalen am breifatrwydd</a>.',
    "ar": "هل يمكننا عدّ الصفحات المقروءة مع tidemark.example وعرض خرائط بحرية من saltmarsh.example؟ سيعلم كلاهما عندئذ أنك "
    'كنت هنا. المزيد في <a href="/privacy/">صفحة الخصوصية</a>.',
}

QUESTION = ConsentQuestion(
    id="pc-consent",
    name="May we?",
    place="middle-end",
    motion="slide",
    in_ms=300,
    width_px=380,
    reach=(ReachRule(id="rr-consent", where=Everywhere()),),
    styles=declared("consent", {"background-color": "@sw-paper", "box-shadow": "0px 12px 40px 0px #0006"}),
    rows=(
        Row(
            id="rw-consent",
            name="Question",
            styles=declared(
                "consent-row",
                {
                    "padding-block-start": "20px",
                    "padding-block-end": "20px",
                    "padding-inline-start": "20px",
                    "padding-inline-end": "20px",
                },
            ),
            cells=(
                Cell(
                    id="cl-consent",
                    gap_px=12,
                    items=(
                        RichText(
                            id="it-consent-words",
                            rich=marked_in_four(
                                *(f"<p>{_TEXTS[language]}</p>" for language in ("en", "de", "cy", "ar"))
                            ),
                            styles=declared("consent-words", {"inline-size": "100%"}),
                        ),
                        Choices(id="it-consent-choices", styles=declared("consent-choices", {"inline-size": "100%"})),
                        Answer(
                            id="it-consent-yes", words=in_four("Yes to all", "Ja zu allem", "Ie i bopeth", "نعم للكل")
                        ),
                        Answer(
                            id="it-consent-no",
                            says="no",
                            words=in_four("No to all", "Nein zu allem", "Na i bopeth", "لا للكل"),
                        ),
                        Answer(
                            id="it-consent-ticked",
                            says="ticked",
                            look="second",
                            words=in_four(
                                "Yes to what is ticked", "Ja zum Angekreuzten", "Ie i’r hyn a diciwyd", "نعم لما حُدد"
                            ),
                        ),
                    ),
                ),
            ),
        ),
    ),
)

ASKED = tuple(
    one.replaced(cookies=("tm_*",)) if one.id == "statistics" else one for one in CATEGORIES if one.id != "marketing"
)
HOSTS = (
    OtherHost(id="ho-charts", host="saltmarsh.example", category="preferences"),
    OtherHost(id="ho-count", host="tidemark.example", category="statistics"),
)
COUNTING = Snippet(
    id="sn-counting",
    name="Counting readers",
    code='<script src="https://count.tidemark.example/count.js"></script>\n<script>document.cookie = "tm_seen=1;path=/"</script>',
    waits="statistics",
)
CHART = Embed(
    id="it-help-chart",
    address="https://charts.saltmarsh.example/skarrow-sound",
    words=in_four("Sea chart of Skarrow Sound", "Seekarte des Skarrow-Sunds", "Siart Swnt Skarrow", "خريطة مضيق سكارو"),
    width_px=440,
    height_px=260,
)
WAY_TO_CHOICES = PrivacyChoices(
    id="it-privacy",
    words=in_four("Privacy choices", "Auswahl zum Datenschutz", "Dewisiadau preifatrwydd", "خيارات الخصوصية"),
)
PRIVACY = (
    "privacy",
    "/privacy/",
    "Privacy",
    "We keep as little as a ferry line can.\n\n## What others learn\nIf you agree, [tidemark.example](https://tidemark.example/) counts which "
    "pages are read, and [saltmarsh.example](https://saltmarsh.example/) sends you its sea charts. Neither is asked for anything before "
    "you say yes. You can change your answer at the foot of every page.\n\n## What we learn\nThat somebody answered, when, what, and from "
    "which country: no name, no address. After three years we forget it.",
    "",
)
