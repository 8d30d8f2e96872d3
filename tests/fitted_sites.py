"""Generated headers and footers of all scripts, faces, units and items, for comparing fit with the browser."""

from __future__ import annotations

import random
from typing import Any, Literal, get_args, get_origin

from upper_rim.core.exchange.imports.import_pages import digest
from upper_rim.core.kinds.entries import Entry
from upper_rim.core.kinds.items.answer import Answer
from upper_rim.core.kinds.items.base import BaseItem
from upper_rim.core.kinds.items.birth import BirthField
from upper_rim.core.kinds.items.button import ButtonItem
from upper_rim.core.kinds.items.choices import Choices
from upper_rim.core.kinds.items.contact import Contact, Hours
from upper_rim.core.kinds.items.copyright import Copyright
from upper_rim.core.kinds.items.credit import Credit
from upper_rim.core.kinds.items.divider import Divider
from upper_rim.core.kinds.items.embed import Embed
from upper_rim.core.kinds.items.form import Form, FormField
from upper_rim.core.kinds.items.icon import IconLink
from upper_rim.core.kinds.items.languages import LanguageSwitch
from upper_rim.core.kinds.items.links import LinkList
from upper_rim.core.kinds.items.logo import Logo
from upper_rim.core.kinds.items.map import MapItem
from upper_rim.core.kinds.items.menu import MenuItem
from upper_rim.core.kinds.items.picture import PictureItem
from upper_rim.core.kinds.items.pictures import PictureLink, PictureList
from upper_rim.core.kinds.items.posts import Posts
from upper_rim.core.kinds.items.privacy import PrivacyChoices
from upper_rim.core.kinds.items.rich import RichText
from upper_rim.core.kinds.items.search import SearchBox
from upper_rim.core.kinds.items.secret import PasswordField
from upper_rim.core.kinds.items.social import Profile, SocialRow
from upper_rim.core.kinds.items.spacer import Spacer
from upper_rim.core.kinds.items.text import TextItem
from upper_rim.core.kinds.items.top import BackToTop
from upper_rim.core.kinds.items.trail import Trail
from upper_rim.core.kinds.pieces.asking import Asking, GatePlace
from upper_rim.core.kinds.pieces.base import Piece, ReachRule
from upper_rim.core.kinds.pieces.consent import QUESTION_PLACES, ConsentQuestion
from upper_rim.core.kinds.pieces.footer import Footer
from upper_rim.core.kinds.pieces.gate import Gate
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.pieces.password import PasswordGate
from upper_rim.core.kinds.rows import Aligned, Cell, Columns, Row, Track
from upper_rim.core.kinds.spoken import SpokenLanguage
from upper_rim.core.model.editing.check import broken_references, roles_of
from upper_rim.core.model.site import Asset, Band, Menu, Page, Site
from upper_rim.core.values.rich import RichWords
from upper_rim.core.values.styling import LIMITED, Declaration, Role, RoleDefault
from upper_rim.core.values.targets import ToAddress, ToNothing
from upper_rim.core.values.words import Words

from .core.generated import CONTENT, CONTENTS, SPLICE
from .lengths import any_length, takes_lengths
from .nodes import redressed

VOCABULARY: dict[str, list[str]] = {
    "en": ["Fares", "Harbours", "Island guide", "Timetable", "Book", "Travelling with us", "Lost & found", "News", "A–Z", "Half-price days", "Waffle", "AVATAR To Yo"],
    "de": ["Fahrpläne", "Überfahrten", "Häfen", "Inselführer", "Gruppenermäßigungen", "Reisebedingungen", "Buchen", "Straße", "Zoll-Laden", "Öffnungszeiten"],
    "el": ["Δρομολόγια", "Λιμάνια", "Ναύλοι", "Οδηγός νησιών", "Κράτηση", "Ταξιδέψτε μαζί μας", "Νέα", "Επικοινωνία"],
    "ru": ["Расписание", "Гавани", "Тарифы", "Путеводитель", "Бронь", "Путешествуйте с нами", "Новости", "Магазин"],
    "he": ["לוח זמנים", "נמלים", "מחירים", "מדריך האיים", "הזמנה", "נוסעים איתנו", "חדשות", "צרו קשר", "3 ספינות", "שָׁלוֹם"],
    "hi": ["समय सारिणी", "बंदरगाह", "किराया", "द्वीपों की गाइड", "बुक करें", "हमारे साथ यात्रा", "समाचार", "संपर्क", "क्षत्रिय", "त्र्यंबक"],
    "th": ["ตารางเวลา", "ท่าเรือ", "ค่าโดยสาร", "คู่มือเกาะ", "จอง", "เดินทางกับเรา", "ข่าว", "ติดต่อเรา", "น้ำผึ้ง", "เรือสามลำทุกวัน"],
    "ja": ["時刻表", "港", "運賃", "島の案内", "予約", "私たちと旅を", "お知らせ", "お問い合わせ", "船は三隻", "第3埠頭", "カフェ", "「島」（案内）、港。", "ポート・メリン"],
    "ko": ["시간표", "항구", "요금", "섬 안내", "예약", "함께 떠나는 여행", "소식", "문의하기", "배 3척", "찾아오는 길", "「섬」, 항구."],
    "zh": ["时刻表", "港口", "票价", "海岛指南", "预订", "与我们同行", "新闻", "联系我们", "三艘船", "第3码头", "常见问题", "（海岛）、“港口”。", "《指南》：全部"],
    "ar": ["المواعيد", "الموانئ", "الأجرة", "دليل الجزر", "احجز", "سافر معنا", "الأخبار", "اتصل بنا", "لا إله", "3 سفن"],
}  # fmt: skip
SPACES = (
    "\u2002",
    "\u2003",
    "\u2009",
    "\u202f",
    "\u205f",
    "\u00a0",
    "\u00ad",
    "\u200b",
    "\u200e",
    "\u2060",
    "\ufeff",
    "-",
    "/",
    "–",
    "!",
    ".(",
    " (",
    "?",
)
"""What stands between words now and then: all that makes room or none, and lets a line break or not."""
FACES = {
    "en": ["figtree", "bitter", "fraunces", "jetbrains-mono", "noto-sans", "source-serif-4", "atkinson-hyperlegible-next"],
    "de": ["figtree", "bitter", "fraunces", "source-serif-4", "atkinson-hyperlegible-next"],
    "el": ["noto-sans", "source-serif-4", "jetbrains-mono", "figtree", "fraunces"],
    "ru": ["noto-sans", "source-serif-4", "jetbrains-mono", "bitter", "figtree"],
    "he": ["noto-sans-hebrew", "figtree", "bitter", "noto-sans"],
    "hi": ["figtree", "noto-sans", "source-serif-4"],
    "th": ["noto-sans-thai", "figtree", "jetbrains-mono"],
    "ja": ["figtree", "source-serif-4", "jetbrains-mono"],
    "ko": ["figtree", "noto-sans", "bitter"],
    "zh": ["figtree", "atkinson-hyperlegible-next", "fraunces"],
    "ar": ["figtree", "noto-sans-arabic", "noto-sans"],
}  # fmt: skip
PICTURE = b'<svg xmlns="http://www.w3.org/2000/svg" width="120" height="48" viewBox="0 0 120 48"><path d="M0 0h120v48H0z"/></svg>'

SIZES: dict[str, list[str]] = {
    "font-size": ["13px", "18px", "1.2em", "1.1rem", "clamp(13px, 0.5rem + 1vw, 26px)", "1.6vw"],
    "font-weight": ["300", "500", "650", "800"],
    "letter-spacing": ["0.04em", "1px", "-0.01em"],
    "word-spacing": ["0.3em", "4px"],
    "text-transform": ["uppercase", "capitalize", "lowercase"],
    "text-align": ["center", "end"],
    "line-height": ["1.1", "1.6", "28px", "normal"],
    "padding-inline-start": ["9px", "1em", "clamp(2px, 1.5vw, 24px)", "2%"],
    "padding-inline-end": ["6px", "0.5rem", "1vw"],
    "padding-block-start": ["3px", "0.4em"],
    "padding-block-end": ["7px", "1vh"],
    "border-inline-start-width": ["2px", "5px"],
    "border-inline-start-style": ["solid"],
    "border-block-end-width": ["1px", "3px"],
    "border-block-end-style": ["solid", "dashed"],
    "inline-size": ["120px", "40%"],
    "min-inline-size": ["70px", "4em"],
    "max-inline-size": ["180px", "20vw", "12em"],
    "block-size": ["60px"],
    "min-block-size": ["30px", "3.2em"],
    "max-block-size": ["90px", "5em"],
    "margin-inline-start": ["8px", "auto", "-4px"],
    "margin-inline-end": ["5px", "1vw"],
    "margin-block-start": ["4px"],
    "margin-block-end": ["6px", "-3px"],
}  # fmt: skip

DEFAULTED = [role for role in get_args(Role) if role not in {"panel", "drawer", "veil", "page"}]
"""The roles that have defaults for a whole site; a page's own are its width and its gutter."""
IN_LINE = [name for name in SIZES if "inline-" in name and not name.endswith("inline-size")]
"""Edges that take room in a line."""


class FittedMaker:
    """`gate`: a kind of gate, or a question about consent, that is the site's only piece."""

    def __init__(self, seed: int, gate: type[Gate | ConsentQuestion] | None = None) -> None:
        self.seed, self.chance, self.gate = seed, random.Random(seed), gate
        self.language = self.chance.choice(list(VOCABULARY))
        self._words = VOCABULARY[self.language]
        self._count = 0

    def new_id(self, prefix: str) -> str:
        self._count += 1
        return f"{prefix}-{self._count}"

    def site(self) -> tuple[Site, dict[str, bytes]]:
        chance = self.chance
        edges = sorted(chance.sample(range(420, 1400, 20), chance.randrange(0, 4)))
        self._bands = tuple(Band(id=f"bd-{at}", name=f"B{at}", from_px=px) for at, px in enumerate([0, *edges]))
        menus = (Menu(id="mn-a", name="Main", entries=tuple(self._entry(0) for _ in range(chance.randrange(2, 8)))),)
        self._styled = chance.random() < 0.7
        if self.gate is not None:
            made = self._piece(self.gate, "pc-gate", chance.randrange(1, 3))
            places = QUESTION_PLACES if self.gate is ConsentQuestion else get_args(GatePlace)
            sizes = {"width_px": chance.choice([240, 440, 900, 4000]), "inset_px": chance.choice([0, 20, 90])}
            motion = chance.choice(get_args(Asking.model_fields["motion"].annotation))
            film = {"film": "/film.webm"} if self.gate is not ConsentQuestion and chance.random() < 0.3 else {}
            moved = {"motion": motion, **film}
            pieces: tuple[Piece, ...] = (made.replaced(place=chance.choice(places), **moved, **sizes),)
        else:
            pieces = (self._piece(Header, "pc-head", chance.randrange(1, 3)),)
        if self.gate is None and chance.random() < 0.6:
            pieces += (self._piece(Footer, "pc-foot", chance.randrange(1, 3)),)
        assets = (Asset(id="as-a", path="/logo.svg", content=digest(PICTURE), size=len(PICTURE)),)
        site = Site(
            key="qfit",
            name=chance.choice(self._words),
            language=self.language,
            face=chance.choice(FACES[self.language]),
            text_px=chance.choice([14, 16, 16, 17, 19]),
            text_weight=chance.choice([400, 450, 500]),
            content_px=chance.choice([960, 1120, 1280]),
            gutter_px=chance.choice([0, 12, 20, 32]),
            bands=self._bands,
            menus=menus,
            roles=self._defaults(),
            pieces=pieces,
            pages=(Page(id="pg-a", path="/", title="T", language=self.language, also=("cy", "fr", "pt-BR"), content=digest(CONTENT), splice=SPLICE),),
            assets=assets,
            spoken=self._spoken(),
        )  # fmt: skip
        fault = broken_references(site)
        assert fault is None, fault
        return site, {**CONTENTS, digest(PICTURE): PICTURE}

    def _spoken(self) -> tuple[SpokenLanguage, ...]:
        chance = self.chance
        said = chance.sample([self.language, "cy", "fr", "pt-BR"], chance.randrange(3))
        return tuple(
            SpokenLanguage(
                language=language,
                name=chance.choice(["", self.words()]),
                picture=chance.choice([None, "/logo.svg", "/logo.svg"]),
                on=chance.random() < 0.8,
            )
            for language in said
        )

    def words(self, most: int = 2) -> str:
        chosen = self.chance.sample(self._words, self.chance.randrange(1, most + 1))
        return (self.chance.choice(SPACES) if self.chance.random() < 0.1 else " ").join(chosen)

    def _entry(self, depth: int) -> Entry:
        chance = self.chance
        below = tuple(self._entry(1) for _ in range(2)) if depth == 0 and chance.random() < 0.3 else ()
        words = Words(text=self.words(1 if chance.random() < 0.8 else 2))
        beside: dict[str, Any] = {}
        if chance.random() < 0.3:
            beside["icon"] = chance.choice([None, "anchor"])
            beside["mark"] = Words(text=chance.choice(["", self.words(1)]))
            beside["second"] = Words(text=chance.choice(["", self.words()]))
            beside["new_window"] = chance.random() < 0.3
        if depth == 0:
            beside["apart"] = chance.random() < 0.3
        return Entry(id=self.new_id("en"), label=words, target=ToAddress(address="/x/"), entries=below, **beside)

    def _defaults(self) -> tuple[RoleDefault, ...]:
        chosen = self.chance.sample(DEFAULTED, self.chance.randrange(0, 4))
        return tuple(
            RoleDefault(id=self.new_id("rd"), role=role, styles=self._declared({"box": role}, 4)) for role in chosen
        )

    def _declared(self, roles: dict[Any, str], most: int) -> tuple[Declaration, ...]:
        made: dict[tuple[Any, ...], Declaration] = {}
        usable = [part for part, role in roles.items() if role != "column-rule"]
        for _ in range(self.chance.randrange(most + 1) if self._styled and usable else 0):
            name = self.chance.choice(list(SIZES))
            part = self.chance.choice(usable)
            band = self.chance.choice([None, None, None, *(band.id for band in self._bands)])
            value = self.chance.choice(SIZES[name])
            if takes_lengths(name) and self.chance.random() < 0.3:
                value = any_length(self.chance, name)
            if name not in LIMITED.get(roles[part], (name,)):
                continue
            declaration = Declaration(id=self.new_id("st"), property=name, value=value, part=part, band=band)
            made[part, name, band] = declaration
        return tuple(made.values())

    def _dressed(self, node: Any, most: int) -> Any:
        made = self._declared(roles_of(node), most)
        if isinstance(node, RichText) and self._styled and self.chance.random() < 0.5:
            made += tuple(one for one in self._edged_links() if all(one.property != other.property for other in made))
        return node.replaced(styles=made)

    def _edged_links(self) -> tuple[Declaration, ...]:
        """What links in a text have at their ends: they stand in its lines."""
        return tuple(
            Declaration(id=self.new_id("st"), property=name, value=self.chance.choice(SIZES[name]), part="link")
            for name in self.chance.sample(IN_LINE, self.chance.randrange(1, 4))
        )

    def redressed(self, site: Site) -> Site:
        return redressed(site, self.chance, lambda node: self._declared(roles_of(node), 3))

    def _piece(self, kind: type[Piece], node: str, rows: int) -> Piece:
        made = kind(
            id=node, name="P", rows=tuple(self._row(kind) for _ in range(rows)), reach=(ReachRule(id=f"rr-{node}"),)
        )
        return self._dressed(made, 2)

    def _row(self, kind: type[Piece]) -> Row:
        chance = self.chance
        cells = tuple(self._cell(kind) for _ in range(chance.randrange(1, 5 if kind is Footer else 4)))
        columns: tuple[Columns, ...] = ()
        if kind is Footer:
            columns = tuple(
                Columns(band=band.id, count=chance.randrange(1, 4))
                for band in self._bands[:-1]
                if chance.random() < 0.6
            )
        row = Row(
            id=self.new_id("rw"),
            cells=cells,
            gap_px=chance.choice([0, 8, 24, 40]),
            full_width=chance.random() < 0.2,
            align=chance.choice(["start", "center", "center", "end", "stretch"]),
            columns=columns,
        )
        return self._dressed(row, 2)

    def _cell(self, kind: type[Piece]) -> Cell:
        chance = self.chance
        track = chance.choice(
            [Track(), Track(kind="content"), Track(kind="content"), Track(amount=2), Track(kind="fixed", amount=150)]
        )
        aligned = tuple(Aligned(band=band.id, align="center") for band in self._bands if chance.random() < 0.15)
        cell = Cell(
            id=self.new_id("cl"),
            track=track,
            align=chance.choice(["start", "center", "end"]),
            aligned=aligned,
            gap_px=chance.choice([0, 8, 16, 30]),
            items=tuple(self._dressed(self._varied(self._item(kind)), 3) for _ in range(chance.randrange(1, 4))),
        )
        return self._dressed(cell, 1)

    def _item(self, kind: type[Piece]) -> Any:
        chance = self.chance
        node = self.new_id("it")
        hidden = tuple(band.id for band in self._bands if chance.random() < 0.08)
        common: dict[str, Any] = {"id": node, "hidden_in": hidden}
        words = Words(text=self.words())
        to = ToAddress(address="/x/")
        plain: list[Any] = [
            lambda: Logo(**common, words=words, picture=chance.choice([None, "/logo.svg"]), height_px=chance.choice([24, 40])),
            lambda: MenuItem(**common, menu="mn-a", gap_px=chance.choice([0, 12, 24]), drawer_below=chance.choice([None, *(band.id for band in self._bands)]), button_words=Words(text=self.words(1)), button_words_shown=chance.random() < 0.5),
            lambda: MenuItem(**common, menu="mn-a", gap_px=chance.choice([8, 24])),
            lambda: TextItem(**common, words=words, target=chance.choice([ToNothing(), to]), new_window=chance.random() < 0.3),
            lambda: ButtonItem(**common, words=words, target=to, new_window=chance.random() < 0.3, rank=chance.choice(["first", "second"])),
            lambda: IconLink(**common, icon="phone", words=words, target=to, words_shown=chance.choice(["none", "beside", "below"]), icon_px=chance.choice([18, 26])),
            lambda: SocialRow(**common, profiles=tuple(Profile(id=self.new_id("pf"), address=f"mailto:a{at}@b.example", name=self.words(1)) for at in range(3)), words_shown=chance.choice(["none", "none", "beside"]), gap_px=chance.choice([0, 6]), icon_px=chance.choice([16, 20, 34])),
            lambda: Copyright(**common, first_year=2001),
            lambda: Credit(**common, words=words, who=chance.choice(["", self.words()]), target=chance.choice([ToNothing(), to]), new_window=chance.random() < 0.3),
            lambda: SearchBox(**common),
            lambda: Spacer(**common, grows=chance.random() < 0.6),
            lambda: Divider(**common, upright=True),
        ]  # fmt: skip
        flowing: list[Any] = [
            lambda: RichText(**common, rich=RichWords(text=self._rich()), column_count=chance.choice([1, 1, 2, 3]), column_px=chance.choice([80, 140, 240]), column_gap_px=chance.choice([0, 24])),
            lambda: LinkList(**common, menu="mn-a", words=Words(text=chance.choice(["", self.words(1)]))),
            lambda: MenuItem(**common, menu="mn-a", way="column", submenus=chance.choice(["open", "shut"])),
            lambda: MenuItem(**common, menu="mn-a", way="columns", drawer_below=chance.choice([None, *(band.id for band in self._bands)])),
            lambda: LanguageSwitch(**common, words=words, way=chance.choice(["row", "list", "button"]), names=chance.choice(["own", "here", "code"]), pictures=chance.choice(["none", "before", "alone"]), hides_current=chance.random() < 0.3, suggests=chance.random() < 0.3),
            lambda: Trail(**common, words=words, separator=chance.choice(["chevron", "slash", "dot"])),
            lambda: Contact(**common, name=self.words(), street=self.words(), postcode="OS1 4QX", town=self.words(1), country=chance.choice(["", "", "US", "CA", "IN"]), telephone="+44 1632 960144", mail="hello@ostrey.example", hours=(Hours(days=("Mo", "Tu", "We"), opens="09:00", closes="17:30"),)),
            lambda: PictureItem(**common, picture="/logo.svg", width_px=chance.choice([90, 260]), ratio=chance.choice(["", "4/3"]), fits=chance.choice(["cover", "contain"])),
            lambda: BackToTop(**common, words=words),
            lambda: Divider(**common),
            lambda: MapItem(**common, words=words, width_px=200, height_px=120),
            lambda: Embed(**common, address="https://charts.example/", words=words, width_px=chance.choice([90, 200, 900]), height_px=120),
            lambda: PrivacyChoices(**common, words=words, look=chance.choice(["first", "second", "link"])),
            lambda: Posts(**common, words=words),
            lambda: PictureList(**common, links=tuple(PictureLink(id=self.new_id("pl"), words=Words(text=self.words()), second=Words(text=self.words(1)), target=to) for _ in range(3)), place="beside", list_percent=60),
            lambda: Form(**common, fields=(FormField(id=self.new_id("ff"), words=words, required=True), FormField(id=self.new_id("ff"), kind="tick", words=words)), button=Words(text=self.words(1))),
        ]  # fmt: skip
        asked: list[Any] = [
            lambda: Answer(**common, words=words, says=chance.choice(["yes", "no"]), look=chance.choice(["first", "second", "link"])),
            lambda: PasswordField(**common, words=Words(text=chance.choice(["", self.words(1)]))),
            lambda: BirthField(**common, words=Words(text=chance.choice(["", self.words()]))),
        ]  # fmt: skip
        if kind is ConsentQuestion:
            allowed = [asked[0], asked[0], lambda: Choices(**common)]
            return chance.choice([*allowed * 3, plain[0], plain[3], plain[4], flowing[0], flowing[6]])()
        if issubclass(kind, Gate):
            allowed = [asked[0], asked[1 if kind is PasswordGate else 2]]
            return chance.choice([*allowed * 4, plain[0], plain[3], plain[4], flowing[0], flowing[6]])()
        return chance.choice(plain + flowing if kind is Footer else plain)()

    def _varied(self, node: Any) -> Any:
        """With other values of its fields, of all that their types allow where these are few; what it holds, too."""
        chance = random.Random(f"{self.seed} {node.id}")
        made: dict[str, Any] = {}
        for name, field in type(node).model_fields.items():
            values = (True, False) if field.annotation is bool else get_args(field.annotation)
            is_choice = field.annotation is bool or get_origin(field.annotation) is Literal
            # What an answer is takes no room, and not every gate knows every one.
            if is_choice and name not in {"kind", "says"} and chance.random() < 0.3:
                made[name] = chance.choice(values)
        for slot in getattr(node, "CHILDREN", ()):
            made[slot] = tuple(map(self._varied, getattr(node, slot)))
        if isinstance(node, FormField):
            made["kind"] = chance.choice(get_args(FormField.model_fields["kind"].annotation))
        if isinstance(node, BaseItem) and chance.random() < 0.1:
            made["hint"] = Words(text=self._words[0])
        return node.replaced(**made)

    def _rich(self) -> str:
        blocks = {
            "marked": lambda: (
                f"<p>{self.words()} <strong>{self.words()}</strong>; <a href='/x/'>{self.words()}</a>.</p>"
            ),
            "long": lambda: f"<p>{' '.join(self.words() for _ in range(self.chance.randrange(3, 12)))}</p>",
            "list": lambda: f"<ul><li>{self.words()}</li><li><em>{self.words()}</em></li><li>{self.words(1)}</li></ul>",
            "heading": lambda: f"<h2>{self.words()}</h2>",
            "quoted": lambda: f"<blockquote>{self.words()}</blockquote>",
        }
        return "".join(blocks[name]() for name in self.chance.choices(list(blocks), k=self.chance.randrange(1, 6)))
