"""Which boxes is an item made of? As `core.output` writes it, with what the base CSS says of its parts."""

from __future__ import annotations

from typing import Any

from ...kinds.items.button import ButtonItem
from ...kinds.items.contact import Contact, days_in_words
from ...kinds.items.copyright import Copyright
from ...kinds.items.divider import Divider
from ...kinds.items.form import Form, FormField
from ...kinds.items.icon import IconLink
from ...kinds.items.links import LinkList
from ...kinds.items.logo import Logo
from ...kinds.items.map import MapItem
from ...kinds.items.menu import MenuItem
from ...kinds.items.pager import Pager
from ...kinds.items.picture import PictureItem
from ...kinds.items.pictures import PictureList
from ...kinds.items.posts import Posts
from ...kinds.items.rich import RichText
from ...kinds.items.search import SearchBox
from ...kinds.items.social import SocialRow
from ...kinds.items.spacer import Spacer
from ...kinds.items.text import TextItem
from ...kinds.items.top import BackToTop
from ...kinds.items.trail import Trail
from ...kinds.items.viewer import Viewer
from ...languages import phrase
from ...model.check import roles_of, roles_within
from ..css.amount import Amount, amount
from ..css.block import Block, Void
from ..css.boxes import Box, Sides
from ..css.flex import Flex
from ..css.replaced import Field, Replaced
from ..rows.setting import Setting
from ..rows.styles import BoxStyle
from ..text.paragraph import Run
from .menus import is_drawer, link_list, menu_box, trail_box
from .parts import icon_link, labelled, titled
from .rich import rich_box

WHOLE = amount("100%", 16.0)


def item_box(item: Any, setting: Setting) -> Box | None:
    """None: it takes no room there."""
    if setting.band is not None and setting.band in item.hidden_in:
        return None
    box = _bare(item, setting)
    if box is not None and item.hint.text:
        # A hint's wrapper is a flex box around the item (its own text stands outside the flow).
        box = Flex(node=item.id, part="hinted", within=[box]).settle()
    return box


def variant_of(item: Any, setting: Setting) -> tuple[Any, ...]:
    """What may make an item's box another one in another width band: its styles, and what it is there."""
    styles = [setting.part(item.id, part) for part in roles_of(item)]
    styles += [setting.within(item.id, role) for role in roles_within(item)]
    drawn = is_drawer(item, setting) if isinstance(item, MenuItem) else None
    pictures = _shows_pictures(item, setting) if isinstance(item, PictureList) else None
    return (*styles, drawn, pictures)


def _bare(item: Any, setting: Setting) -> Box | None:
    match item:
        case Logo():
            return _logo(item, setting)
        case MenuItem():
            return menu_box(item, setting)
        case TextItem():
            own = setting.part(item.id)
            return _text(setting.words(item.words, item.id), own, item.id, setting)
        case Copyright():
            return _rights(item, setting)
        case ButtonItem():
            return _button(setting.words(item.words, item.id), setting.part(item.id), item.id, setting)
        case BackToTop():
            words = setting.words(item.words, item.id) or phrase("top", setting.language)
            return _button(words, setting.part(item.id), item.id, setting)
        case IconLink():
            words = setting.words(item.words, item.id) if item.words_shown != "none" else ""
            return icon_link(words, item.words_shown, float(item.icon_px), setting.part(item.id), item.id, setting)
        case RichText():
            return rich_box(item, setting)
        case PictureItem():
            return _picture(item, setting)
        case LinkList():
            return link_list(item, setting)
        case Trail():
            return trail_box(item, setting)
        case Contact():
            return _contact(item, setting)
        case SocialRow():
            return _social(item, setting)
        case Divider():
            own = setting.part(item.id)
            return Void(node=item.id, align_self="stretch", **own.over()).settle()
        case Spacer():
            own = setting.part(item.id)
            if item.grows:
                return Void(node=item.id, is_seen=False, grow=1.0, shrink=0.0, basis=0.0, **own.over()).settle()
            size = float(item.size_px)
            return Void(node=item.id, is_seen=False, inner_width=size, inner_height=size, **own.over()).settle()
        case SearchBox():
            return _search(item, setting)
        case PictureList():
            return _picture_list(item, setting)
        case Form():
            return _form(item, setting)
        case MapItem():
            return _map(item, setting)
        case Posts():
            return _posts(item, setting)
        case Pager() | Viewer():
            return None
    raise AssertionError(item.kind)


def _text(words: str, own: BoxStyle, node: str, setting: Setting, **base: Any) -> Box:
    if not words:
        return Void(node=node, **own.over(**base)).settle()
    return setting.lines([Run(words, own.type)], own.type, node=node, part="", **own.over(**base))


def _rights(item: Copyright, setting: Setting) -> Box:
    """The years stand in an element of their own."""
    own = setting.part(item.id)
    holder = item.words.in_language(setting.language) or setting.site.name
    years = item.years(setting.year)
    parts = ["© ", years, f" {holder}"] if years else [f"© {holder}"]
    runs = [Run(part, own.type) for part in parts]
    return setting.lines(runs, own.type, node=item.id, part="", **own.over())


def _logo(item: Logo, setting: Setting) -> Box:
    own = setting.part(item.id)
    words = item.words.in_language(setting.language) or setting.site.name
    if item.picture is None:
        within = labelled(words, own.type, setting)
    else:
        picture = setting.pictures(item.picture)
        height = float(item.height_px)
        width = float(f"{height * picture.width / picture.height:.4g}") if picture else 0.0
        limit = setting.sheets.of("a.rim-logo > img").sizes()
        image = Replaced(
            part="picture", width=width, height=height, ratio=width / height, natural=(width, height), **limit
        )
        within = [image.settle()]
    return Flex(node=item.id, align="center", within=within, **own.over()).settle()


def _button(words: str, own: BoxStyle, node: str, setting: Setting) -> Flex:
    within = labelled(words, own.type, setting, breaks=False)
    return Flex(node=node, align="center", justify="center", within=within, **own.over()).settle()


def _posts(item: Posts, setting: Setting) -> Box:
    own, entry = setting.part(item.id), setting.part(item.id, "content")
    lines: list[Box] = []
    for title, date in setting.posts(item, setting.language)[: item.count]:
        link = Flex(part="entry", align="center", within=labelled(title, entry.type, setting), **entry.over()).settle()
        within: list[Box] = [link]
        if item.dates_shown and date:
            base = setting.sheets.of("div.rim-menu.rim-links.rim-posts > ul.rim-list > li > time")
            small = base.type(own.type)
            sizes = base.sizes(small.size, 0.0)
            within.append(setting.lines([Run(date, small)], small, part="date", breaks=base.breaks, **sizes))
        lines.append(Flex(part="line", align="center", within=within).settle())
    return titled(item.id, setting.words(item.words, item.id), own, lines, setting)


def _contact(item: Contact, setting: Setting) -> Box:
    own, link = setting.part(item.id), setting.within(item.id, "link")
    lines: list[Box] = [setting.lines([Run(text, own.type)], own.type, part="line") for text in item.address_lines]
    for text in (item.telephone, item.mail):
        if text:
            lines.append(_linked_line(text, own, link, setting))
    for hours in item.hours:
        text = f"{days_in_words(hours, setting.language)} {hours.opens}–{hours.closes}"
        lines.append(setting.lines([Run(text, own.type)], own.type, part="line"))
    return Block(node=item.id, within=lines, **own.over()).settle()


def _linked_line(text: str, own: BoxStyle, link: BoxStyle, setting: Setting) -> Box:
    """A line with a link, as a box of its own in it."""
    base = setting.sheets.of("address.rim-contact > span > a.rim-anchor").sizes()
    atom = setting.lines([Run(text, link.type)], link.type, part="link", **link.over(**base))
    return setting.around(atom, own.type)


def _social(item: SocialRow, setting: Setting) -> Box:
    own, icon = setting.part(item.id), setting.part(item.id, "content")
    shown: list[Box] = []
    for profile in item.profiles:
        words = (profile.name or setting.brands.mark(profile.address).title) if item.words_shown != "none" else ""
        link = icon_link(words, item.words_shown, float(item.icon_px), icon, profile.id, setting)
        link.part = "profile"
        shown.append(Flex(part="line", align="center", within=[link]).settle())
    gap = float(item.gap_px)
    row = Flex(part="list", wraps=True, align="center", row_gap=gap, column_gap=gap, within=shown).settle()
    return Block(node=item.id, within=[row], **own.over()).settle()


def _picture(item: PictureItem, setting: Setting) -> Box:
    own = setting.part(item.id)
    if item.picture is None:
        return Void(node=item.id, **own.over()).settle()
    found = setting.pictures(item.picture)
    if item.ratio:
        wide, high = item.ratio.split("/")
        ratio = int(wide) / int(high)
    else:
        ratio = found.width / found.height if found and found.height else 0.0
    width = float(item.width_px)
    image = Replaced(
        part="picture", width=width, max_width=WHOLE, ratio=ratio, natural=(width, width / ratio if ratio else 0.0)
    )
    return Block(node=item.id, within=[image.settle()], **own.over()).settle()


def _map(item: MapItem, setting: Setting) -> Box:
    own, link = setting.part(item.id), setting.within(item.id, "link")
    wide, high = float(item.width_px), float(item.height_px)
    limit = setting.sheets.of("div.rim-map > img").sizes()
    image = Replaced(part="picture", ratio=wide / high, natural=(wide, high), **limit).settle()
    words = item.words.in_language(setting.language)
    parts: list[Box] = [setting.line(text, link.type) for text in (words, item.place) if text]
    base = setting.sheets.of("div.rim-map > a")
    atom = Flex(
        part="link", wraps=True, align="center", within=parts, **base.gaps(), **link.over(**base.sizes())
    ).settle()  # fmt: skip
    return Block(node=item.id, within=[image, setting.around(atom, own.type)], **own.over()).settle()


def _search(item: SearchBox, setting: Setting) -> Box:
    own, field, icon = setting.part(item.id), setting.within(item.id, "field"), setting.within(item.id, "icon")
    asked = "div.rim-search > form.rim-asking"
    entry = _field(field, setting, **setting.sheets.of(f"{asked} > input.rim-field").sizes(field.type.size))
    icon_px = setting.sheets.of(f"{asked} > button.rim-link > span.rim-icon").px("inline-size")
    press = icon_link("", "none", icon_px, icon, "", setting)
    asking = Flex(part="asking", align="center", within=[entry, press]).settle()
    return Block(node=item.id, within=[asking], **own.over()).settle()


def _field(style: BoxStyle, setting: Setting, *, lines: int = 1, **base: Any) -> Box:
    made = Field(part="field", type=style.type, faces=setting.measurer.faces, lines=lines, **style.over(**base))
    return made.settle()


def _form(item: Form, setting: Setting) -> Box:
    own = setting.part(item.id)
    within: list[Box] = [_form_line(field, item.id, own, setting) for field in item.fields]
    button = setting.within(item.id, "button")
    send = _button(item.button.in_language(setting.language), button, "", setting)
    send.part = "send"
    within.append(send)
    base = setting.sheets.of("form.rim-form")
    return Flex(
        node=item.id, direction="column", align="start", within=within, **base.gaps(),
        **own.over(**base.sizes(own.type.size)),
    ).settle()  # fmt: skip


def _form_line(field: FormField, node: str, own: BoxStyle, setting: Setting) -> Box:
    control = setting.within(node, "field")
    words = setting.words(field.words, field.id)
    if field.required:
        words += f" ({phrase('needed', setting.language)})"
    label = setting.line(words, own.type, part="label")
    if field.kind == "tick":
        line = setting.sheets.of(tick := "form.rim-form > div.rim-line.rim-tick")
        base = setting.sheets.of(f"{tick} > input.rim-field").sizes(control.type.size)
        box = Void(part="field", **control.over(**base)).settle()
        return Flex(
            node=field.id, part="field-line", align="center", within=[box, label], **line.gaps(), **line.sizes()
        ).settle()  # fmt: skip
    long = field.kind == "long"
    line = setting.sheets.of(below := "form.rim-form > div.rim-line")
    base = setting.sheets.of(f"{below} > {'textarea' if long else 'input'}.rim-field").sizes(control.type.size)
    entry = _field(control, setting, lines=5 if long else 1, **base)
    return Flex(
        node=field.id, part="field-line", direction="column", within=[label, entry], **line.gaps(), **line.sizes()
    ).settle()  # fmt: skip


def _picture_list(item: PictureList, setting: Setting) -> Box:
    own, entry = setting.part(item.id), setting.part(item.id, "content")
    shows = _shows_pictures(item, setting)
    lines: list[Box] = []
    link_path = "div.rim-menu.rim-pictures > ul.rim-list > li > a"
    flexible = setting.sheets.of(link_path).sizes()
    small = setting.sheets.of(f"{link_path} > small.rim-second-line").type(entry.type)
    for link in item.links:
        _, page = setting.links.resolve(link.target, setting.language)
        title = setting.words(link.words, link.id) or (page.title if page else "")
        second = setting.words(link.second, link.id)
        within: list[Box] = [
            setting.line(words, kind, part="flowing") for words, kind in ((title, entry.type), (second, small)) if words
        ]
        lead = Flex(
            node=link.id, part="entry", direction="column", align="start", justify="center", within=within, **entry.over(**flexible)
        ).settle()  # fmt: skip
        lines.append(Flex(part="line", align="center", within=[lead]).settle())
    gap: Amount = float(item.gap_px)
    if item.gap_grows:
        gap = amount(f"calc({item.gap_px}px + {item.gap_grows}vw)", 16.0)
    pad = float(item.list_padding_px)
    sizes: dict[str, Any] = {}
    if shows:
        rest = amount(f"{100 - item.list_percent}%", 16.0)
        margin = Sides(inline_end=rest) if item.list_side == "start" else Sides(inline_start=rest)
        sizes = {
            "min_height": float(item.least_height_px),
            "margin": margin,
            "width": amount(f"{item.list_percent}%", 16.0),
        }
    listed = Flex(
        part="list", direction="column", align="stretch", justify="center", row_gap=gap,
        padding=Sides(pad, pad, pad, pad), within=lines, **sizes,
    ).settle()  # fmt: skip
    return Block(node=item.id, within=[listed], **own.over()).settle()


def _shows_pictures(item: PictureList, setting: Setting) -> bool:
    bands = {band.id: band.from_px for band in setting.site.bands}
    from_px = bands.get(item.pictures_from or "", 0)
    return from_px == 0 or bands.get(setting.band or "", 0) >= from_px
