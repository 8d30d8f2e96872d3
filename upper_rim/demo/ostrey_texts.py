"""The texts of *Ostrey Ferries*: name, path, title, Markdown, picture."""

from __future__ import annotations

from .ostrey_consent import PRIVACY
from .ostrey_reading import BIRDS, HOME, WALKS

_DAY, _DUSK, _FOG = "/coast-day.svg", "/coast-dusk.svg", "/coast-fog.svg"

_LANDINGS = "\n".join(
    f"- **{name}**: {about}"
    for name, about in (
        ("Anker Steps", "at half tide and above"),
        ("Bell Rock Stage", "calm days only"),
        ("Birch Hole", "for the walkers’ hut"),
        ("Cold Haven", "two bollards and a bench"),
        ("Corrie Slip", "the school boat’s stop"),
        ("Dun Point", "for the light"),
        ("Eider Ledge", "May to August"),
        ("Fell Quay", "next to the smokehouse"),
        ("Garth Pool", "mind the moorings"),
        ("Hallan Pier", "wood, and slippery"),
        ("Inner Tolsey", "when the bar is open"),
        ("Jetty of the Nuns", "on feast days"),
        ("Kelp Stage", "bring boots"),
        ("Lower Merrin", "at high water"),
        ("Marram Strand", "onto the sand"),
        ("Needle’s Eye", "by appointment"),
        ("Oar Cottage", "ring the bell"),
        ("Pilot’s Stair", "forty steps"),
        ("Quern Bay", "for the mill"),
        ("Rusk Landing", "post and parcels"),
        ("Saltpan Quay", "the old one"),
        ("Tern Steps", "not in June, for the birds"),
        ("Upper Skarrow", "by the lift"),
        ("Wether Slip", "sheep first"),
    )
)

ENGLISH: tuple[tuple[str, str, str, str, str], ...] = (
    (
        "home",
        "/",
        "Three ships, five harbours",
        HOME,
        _DAY,
    ),
    (
        "sailings",
        "/sailings/",
        "Sailings",
        "Pick a day, pick a ship, be at the quay twenty minutes before.\n\n- [Timetable](/sailings/timetable/)\n- [Fares](/sailings/fares/)\n- [Winter sailings](/sailings/winter/)",
        "",
    ),
    (
        "timetable",
        "/sailings/timetable/",
        "Timetable",
        "| From | To | Leaves | Arrives |\n|---|---|---|---|\n| Osterhaven | Skarrow | 07:10 | 08:05 |\n| Skarrow | Lindwick | 08:25 | 09:50 |\n| Lindwick | Osterhaven | 15:30 | 17:15 |\n| Osterhaven | Tolsey | 17:40 | 18:20 |\n\nTimes are local. In fog we wait, and say so on the quay.",
        "",
    ),
    (
        "fares",
        "/sailings/fares/",
        "Fares",
        "| Who | One way | Return |\n|---|---|---|\n| Adult | 14 | 24 |\n| Under 16 | 6 | 10 |\n| Bicycle | 3 | 5 |\n| Car up to 5 m | 41 | 72 |\n\nIslanders travel at half the fare.",
        "",
    ),
    (
        "winter",
        "/sailings/winter/",
        "Winter sailings",
        "Two crossings a day from 2 November until the end of March. This page stands alone, for the posters on the quay.",
        _FOG,
    ),
    (
        "ships",
        "/sailings/ships/",
        "Our ships",
        "**Marram**, 38 m, the old one. **Turnstone**, 44 m, the fast one. **Eider**, 61 m, the one with the cinema.\n\n![The Marram by day](/coast-day.svg)\n\n![The Turnstone in fog](/coast-fog.svg)",
        _DUSK,
    ),
    (
        "day-trips",
        "/sailings/day-trips/",
        "Day trips",
        "Out with the early boat, back with the late one: six hours on Skarrow, enough for the ridge and a bowl of chowder.",
        "",
    ),
    (
        "harbours",
        "/harbours/",
        "Harbours",
        "Five quays, each with a waiting room, a kettle and somebody who knows. Besides, our small boats call here when somebody waves:\n\n"
        + _LANDINGS,
        _DAY,
    ),
    (
        "osterhaven",
        "/harbours/osterhaven/",
        "Osterhaven",
        "Our home port. Tickets at the Long Shed, parking behind it, gulls above it.",
        "",
    ),
    (
        "skarrow",
        "/harbours/skarrow/",
        "Skarrow",
        "A steep quay: mind the third step. The bus to the ridge meets each boat.",
        "",
    ),
    (
        "lindwick",
        "/harbours/lindwick/",
        "Lindwick",
        "The shelter was painted by the school in 2019 and has not been allowed to fade.",
        "",
    ),
    (
        "port-merrin",
        "/harbours/port-merrin/",
        "Port Merrin",
        "Tidal. At low water we anchor off and a small boat brings you in.",
        "",
    ),
    ("tolsey", "/harbours/tolsey/", "Tolsey", "The smallest quay. Ring the bell and the ship will see you.", ""),
    ("travelling", "/travelling/", "Travelling with us", "What to bring, what to leave, and whom to ask.", ""),
    (
        "luggage",
        "/travelling/luggage/",
        "Luggage",
        "As much as you can carry in one go. Cellos travel free and inside.",
        "",
    ),
    (
        "vehicles",
        "/travelling/vehicles/",
        "Cars and vans",
        "Up to 5 m at the car fare; longer by the metre. Handbrake on, first gear, window ajar for the dog.",
        "",
    ),
    ("bicycles", "/travelling/bicycles/", "Bicycles", "Wheel them on last; there are hooks on the car deck.", ""),
    (
        "access",
        "/travelling/access/",
        "Getting aboard",
        "Level boarding on the *Eider*; ramps and steady hands on the others. Call us the day before and we bring the wide gangway.",
        "",
    ),
    ("pets", "/travelling/pets/", "Animals", "Dogs on leads, cats in baskets, sheep by arrangement.", ""),
    (
        "groups",
        "/travelling/groups/",
        "Groups and schools",
        "From ten people on, a tenth off, and a look at the bridge.",
        "",
    ),
    ("guide", "/guide/", "Island guide", "A slow look round, island by island.", _DUSK),
    (
        "walks",
        "/guide/walks/",
        "Walks",
        WALKS,
        "",
    ),
    ("birds", "/guide/birds/", "Birds", BIRDS, ""),
    ("lights", "/guide/lighthouses/", "Lighthouses", "Four of them, two still lit, one for rent.", ""),
    (
        "food",
        "/guide/food/",
        "Eating",
        "Chowder at the Long Shed, oatcakes at Tolsey, a proper dinner at the Merrin Arms.",
        "",
    ),
    ("stays", "/guide/stays/", "Staying the night", "Rooms, huts and one converted signal box.", ""),
    ("shop", "/shop/", "Duty-free shop", "On board the *Eider*, from the moment the rope is off.", ""),
    (
        "spirits",
        "/shop/spirits/",
        "Spirits",
        "Tolsey gin, Skarrow malt, and a liqueur of sea buckthorn that divides families.",
        "",
    ),
    ("knitwear", "/shop/knitwear/", "Knitwear", "Ganseys in the five harbour patterns.", ""),
    ("press", "/press/", "Press room", "For journalists: news, figures and pictures of the line.", ""),
    (
        "releases",
        "/press/releases/",
        "Releases",
        "**October** The *Eider* passes her survey.\n\n**August** A record week: 9,412 passengers and 31 goats.",
        "",
    ),
    ("pictures", "/press/pictures/", "Pictures", "Free to print with a credit.", "/press/the-quay-at-dusk.svg"),
    PRIVACY,
)

TRANSLATED: dict[str, tuple[tuple[str, str, str, str], ...]] = {
    "de": (
        (
            "home",
            "/de/",
            "Drei Schiffe, fünf Häfen",
            "Wir bringen Menschen, Post und Schafe zwischen Ostrey, Skarrow und Lindwick hin und her, an jedem Tag, an dem die See es zulässt.",
        ),
        (
            "timetable",
            "/de/fahrplan/",
            "Fahrplan",
            "| Von | Nach | Ab | An |\n|---|---|---|---|\n| Osterhaven | Skarrow | 07:10 | 08:05 |\n| Skarrow | Lindwick | 08:25 | 09:50 |",
        ),
        (
            "fares",
            "/de/fahrpreise/",
            "Fahrpreise",
            "| Wer | Einfach | Hin und zurück |\n|---|---|---|\n| Erwachsene | 14 | 24 |\n| Unter 16 | 6 | 10 |",
        ),
    ),
    "cy": (
        (
            "home",
            "/cy/",
            "Tair llong, pum harbwr",
            "Rydym yn cludo pobl, post a defaid rhwng Ostrey, Skarrow a Lindwick bob dydd y mae’r môr yn caniatáu.",
        ),
        (
            "timetable",
            "/cy/amserlen/",
            "Amserlen",
            "| O | I | Gadael | Cyrraedd |\n|---|---|---|---|\n| Osterhaven | Skarrow | 07:10 | 08:05 |",
        ),
        ("fares", "/cy/prisiau/", "Prisiau", "| Pwy | Un ffordd | Dwy ffordd |\n|---|---|---|\n| Oedolyn | 14 | 24 |"),
    ),
    "ar": (
        (
            "home",
            "/ar/",
            "ثلاث سفن وخمسة موانئ",
            "ننقل الناس والبريد والأغنام بين أوستري وسكارو وليندويك في كل يوم يسمح به البحر.",
        ),
        (
            "timetable",
            "/ar/timetable/",
            "المواعيد",
            "| من | إلى | المغادرة | الوصول |\n|---|---|---|---|\n| أوسترهافن | سكارو | 07:10 | 08:05 |",
        ),
        ("fares", "/ar/fares/", "الأسعار", "| المسافر | ذهاب | ذهاب وإياب |\n|---|---|---|\n| بالغ | 14 | 24 |"),
    ),
}
