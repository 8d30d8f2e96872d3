"""Which controls does an item have for what it says? One module a kind."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from .....core.model.site import Site
from ..control import Group
from . import (
    answer,
    birth,
    button,
    choices,
    contact,
    copyright,
    credit,
    divider,
    embed,
    form,
    icon,
    languages,
    links,
    logo,
    map,
    menu,
    pager,
    picture,
    pictures,
    posts,
    privacy,
    rich,
    search,
    secret,
    social,
    spacer,
    text,
    told,
    top,
    trail,
    viewer,
)

GROUPS: dict[str, Callable[[Any, Site], list[Group]]] = {
    "logo": logo.groups,
    "menu": menu.groups,
    "text": text.groups,
    "rich": rich.groups,
    "picture": picture.groups,
    "button": button.groups,
    "icon": icon.groups,
    "links": links.groups,
    "trail": trail.groups,
    "languages": languages.groups,
    "contact": contact.groups,
    "social": social.groups,
    "copyright": copyright.groups,
    "credit": credit.groups,
    "divider": divider.groups,
    "spacer": spacer.groups,
    "top": top.groups,
    "search": search.groups,
    "pictures": pictures.groups,
    "pager": pager.groups,
    "viewer": viewer.groups,
    "form": form.groups,
    "map": map.groups,
    "posts": posts.groups,
    "answer": answer.groups,
    "secret": secret.groups,
    "birth": birth.groups,
    "told": told.groups,
    "choices": choices.groups,
    "privacy": privacy.groups,
    "embed": embed.groups,
}
"""By the kind's name in documents."""
