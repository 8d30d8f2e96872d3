"""What is the HTML of pictures: one, a list of links with theirs, and the overlay in which a page's own open?"""

from __future__ import annotations

from html import escape
from typing import TYPE_CHECKING

from ..languages import phrase
from ..model.items import PictureItem, PictureLink, PictureList, Viewer

if TYPE_CHECKING:
    from .item_html import Scene


def picture_html(item: PictureItem, scene: Scene) -> str:
    if item.picture is None:
        return f"<div {scene.attributes(item, 'block', 'picture', item.id)}></div>"
    words = "" if item.ornament else escape(item.words.in_language(scene.language), quote=True)
    sizes = scene.sizes(item)
    listed = ", ".join(f"{escape(path, quote=True)} {width}w" for path, width in sizes)
    smaller = f' srcset="{listed}" sizes="(width < {item.width_px}px) 100vw, {item.width_px}px"' if sizes else ""
    size = scene.size(item.picture)
    image = (
        f'<img src="{escape(item.picture, quote=True)}"{smaller} alt="{words}"{size}{_loading(scene)} decoding="async">'
    )
    href, _ = scene.links.resolve(item.target, scene.language)
    if href is None:
        return f"<div {scene.attributes(item, 'block', 'picture', item.id)}>{image}</div>"
    return f'<a {scene.attributes(item, "block", "picture", item.id)} href="{escape(href, quote=True)}">{image}</a>'


def _loading(scene: Scene) -> str:
    """What is not in view at first waits until it nearly is (HTML Standard, 2.5.7)."""
    return "" if scene.early else ' loading="lazy"'


def picture_list_html(item: PictureList, scene: Scene) -> str:
    listed = "".join(_picture_link(link, scene) for link in item.links)
    return (
        f"<div {scene.attributes(item, 'menu', 'pictures', item.id)}>"
        f'<ul class="{scene.name("list")}" role="list">{listed}</ul></div>'
    )


def _picture_link(link: PictureLink, scene: Scene) -> str:
    """The picture says nothing that the link does not say: it has no alternative."""
    href, page = scene.links.resolve(link.target, scene.language)
    title = escape(link.words.in_language(scene.language) or (page.title if page else ""))
    second = escape(link.second.in_language(scene.language))
    words = f"<span>{title}</span>" + (f'<small class="{scene.name("second-line")}">{second}</small>' if second else "")
    image = (
        f'<img src="{escape(link.picture, quote=True)}" alt=""{scene.size(link.picture)}{_loading(scene)} decoding="async">'
        if link.picture
        else ""
    )
    current = ' aria-current="page"' if page is not None and page.id == scene.current else ""
    lead = f'href="{escape(href, quote=True)}"{current}' if href is not None else 'role="link" aria-disabled="true"'
    return f"<li><a {lead}{scene.mark(link.id)}>{words}</a>{image}</li>"


NO_PICTURE = "data:image/gif;base64,R0lGODlhAQABAAAAACH5BAEKAAEALAAAAAABAAEAAAICTAEAOw=="
"""One clear pixel, until there is a picture to show (HTML, 4.8.3: an `img` has a source)."""


def viewer_html(item: Viewer, scene: Scene) -> str:
    def button(icon: str, words: str) -> str:
        drawn = f'<span class="{scene.name("icon")} {scene.name(f"icon-{icon}")}"></span>'
        return f'<button type="button" class="{scene.name("link")}" aria-label="{escape(words, quote=True)}">{drawn}</button>'

    language = scene.language
    said = {
        "viewer": item.selector,
        "late": scene.late.get("viewing", ""),
        "pieces": f".{scene.name()}",
        "enlarge": phrase("enlarge", language),
        "picture": phrase("picture", language),
        **({"captions": ""} if item.captions else {}),
    }
    told = "".join(f' data-rim-{name}="{escape(value, quote=True)}"' for name, value in said.items())
    return (
        f'<dialog {scene.attributes(item, "block", "viewer", item.id)} aria-label="{escape(phrase("picture", language), quote=True)}"{told}>'
        f"{button('x', phrase('close_notice', language))}{button('chevron-left', phrase('before', language))}"
        f'<figure class="{scene.name("figure")}"><img alt="" src="{NO_PICTURE}"><figcaption></figcaption></figure>'
        f"{button('chevron-right', phrase('after', language))}</dialog>"
    )
