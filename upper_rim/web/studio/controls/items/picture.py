"""With which controls is a picture changed?"""

from __future__ import annotations

from .....core.kinds.items.picture import PictureItem
from .....core.model.site import Site
from ..control import Control, Group, choice, link_control, note, number, pictures, px, words, yes

RATIOS = (
    ("", "its own"),
    ("1/1", "square"),
    ("4/3", "4 to 3"),
    ("3/2", "3 to 2"),
    ("16/9", "16 to 9"),
    ("3/4", "3 to 4, upright"),
)


FITS = (("cover", "fills it, cropped"), ("contain", "whole"))


def groups(node: PictureItem, site: Site) -> list[Group]:
    return [
        Group(
            "Content",
            [
                *_alternative(node),
                pictures(node, "picture", site, "none yet"),
                Control("upload", "Upload", node.id, "picture", ""),
                *words(node, "words", "It shows", site),
                yes(node, "ornament", "Ornament: says nothing"),
                link_control(node, site),
            ],
        ),
        Group(
            "Crop",
            [
                px(node, "width_px", "Width", 4000),
                choice(node, "ratio", "Shape", RATIOS),
                *([choice(node, "fits", "In it", FITS)] if node.ratio else []),
                number(node, "focus_x", "In view, across", "%", 0, 100),
                number(node, "focus_y", "In view, down", "%", 0, 100),
            ],
        ),
    ]


def _alternative(node: PictureItem) -> list[Control]:
    """What is missing where a picture says nothing to those who do not see it (WCAG 2.2 1.1.1)."""
    missing = node.picture and not node.ornament and not node.words.text
    sentence = "Say what it shows, or mark it as an ornament: without that, some visitors get nothing."
    return [note(node, sentence)] if missing else []
