"""Which rules does what stands in a cell have, by its kind and what is set for it?"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from urllib.parse import quote

from ..model.items import IconLink, Logo, MenuItem, PictureItem, PictureList, SocialRow, Spacer, Viewer
from ..model.site import Cell, Site
from ..style.pictures import Pictures
from .shelf import Shelf
from .style_rules import band_queries

_SIDES = {"start": "flex-start", "center": "center", "end": "flex-end"}


def cell_rules(site: Site, cell: Cell, pictures: Pictures, shelf: Shelf) -> Iterator[str]:
    name = site.key
    for aligned in cell.aligned:
        for query in band_queries(site, {aligned.band}):
            yield f"@media {query}{{.{name}-cell.{name}-{cell.id}{{justify-content:{_SIDES[aligned.align]}}}}}"
    for item in cell.items:
        own = f".{name}-{item.id}"
        match item:
            case Logo(picture=str(path)):
                picture = pictures(path)
                # Its width is kept free until it is there, so that what stands beside it does not move.
                width = f";inline-size:{item.height_px * picture.width / picture.height:.4g}px" if picture else ""
                yield f"{own}>img{{block-size:{item.height_px}px{width}}}"
            case MenuItem():
                yield f"{own} .{name}-list{{column-gap:{item.gap_px}px}}"
                if item.button_picture:
                    drawn = f".{name}-icon-own-{item.id}"
                    yield f"{own} {drawn}{{{_own_icon(item.button_picture)};inline-size:24px;block-size:24px}}"
            case IconLink():
                if item.picture:
                    yield f"{own}>.{name}-icon-own-{item.id}{{{_own_icon(item.picture)}}}"
                yield f"{own}>.{name}-icon{{inline-size:{item.icon_px}px;block-size:{item.icon_px}px}}"
            case SocialRow():
                yield f"{own} .{name}-list{{gap:{item.gap_px}px}}{own} .{name}-icon{{inline-size:{item.icon_px}px;block-size:{item.icon_px}px}}"
                for one in item.profiles:
                    if one.colour:
                        yield f"{own} .{name}-{one.id} .{name}-icon{{background:{one.colour}}}"
                if item.own_colours:
                    marks = (mark for one in item.profiles if (mark := shelf.brands.mark(one.address).brand))
                    for brand in {mark.slug: mark for mark in marks}.values():
                        yield f"{own} .{name}-icon-brand-{brand.slug}{{background:#{brand.colour}}}"
            case PictureItem():
                ratio = (
                    f";aspect-ratio:{item.ratio};object-fit:cover;object-position:{item.focus_x}% {item.focus_y}%"
                    if item.ratio
                    else ""
                )
                found = pictures(item.picture) if item.picture else None
                shape = ratio or (f";aspect-ratio:{found.width}/{found.height}" if found else "")
                yield f"{own}>img{{display:block;inline-size:{item.width_px}px;max-inline-size:100%;block-size:auto{shape}}}"
            case PictureList():
                yield from _picture_list(site, own, item)
            case Viewer():
                yield f"{own}{{--{name}-veil:{item.opacity_percent}%}}"
            case Spacer(grows=True):
                yield f"{own}{{flex:1 0 0}}"
            case Spacer():
                yield f"{own}>span{{display:block;inline-size:{item.size_px}px;block-size:{item.size_px}px}}"
        yield from hidden_rules(site, item.hidden_in, f"{name}-{item.id}")


def _picture_list(site: Site, own: str, item: PictureList) -> Iterator[str]:
    """The list's share of the room, and where the pictures stand in the bands that show them."""
    name, start = site.key, item.list_side == "start"
    gap = f"calc({item.gap_px}px + {item.gap_grows}vw)" if item.gap_grows else f"{item.gap_px}px"
    yield f"{own} .{name}-list{{row-gap:{gap};padding:{item.list_padding_px}px}}"
    from_px = next((band.from_px for band in site.bands if band.id == item.pictures_from), 0)
    rest = 100 - item.list_percent
    place = {
        "beside": f"inset-inline:{f'{item.list_percent}% 0' if start else f'0 {item.list_percent}%'};inline-size:{rest}%",
        "behind": "inset-inline:0;inline-size:100%",
        "edges": "inset-inline:calc(50% - 50vw);inline-size:100vw",
    }[item.place]
    aside = f"margin-inline:{f'0 {rest}%' if start else f'{rest}% 0'};inline-size:{item.list_percent}%"
    shown = f"{own} .{name}-list{{min-block-size:{item.least_height_px}px;{aside}}}{own} img{{{place}}}"
    if item.place != "beside":
        # What can be read over the piece's ground can be read here.
        shown += f"{own} .{name}-list{{background:var(--{name}-ground)}}"
    if item.place == "edges":
        # As wide as the window with its scroll bar, and no wider than the piece.
        shown += f"{own}{{overflow:visible}}.{name}:has({own}){{overflow-x:clip}}"
    yield f"@media (width >= {from_px}px){{{shown}}}" if from_px else shown
    if from_px:
        yield f"@media (width < {from_px}px){{{own} img{{display:none}}}}"


def _own_icon(path: str) -> str:
    """A drawing in the colour of its text."""
    return f'mask:url("{quote(path, safe="/%.-_~")}") center/contain no-repeat;background:currentColor'


def hidden_rules(site: Site, hidden_in: Iterable[str], css_class: str) -> Iterator[str]:
    hidden = set(hidden_in)
    for query in band_queries(site, hidden):
        yield f"@media {query}{{.{css_class}.{css_class}{{display:none}}}}"
