"""With which controls is the latest posts changed?"""

from __future__ import annotations

from .....core.kinds.items.posts import Posts
from .....core.model.site import Site
from ..control import Control, Group, choice, number, words, yes


def groups(node: Posts, site: Site) -> list[Group]:
    feeds = [("", "dated pages of this site")] + [
        (asset.path, asset.path) for asset in site.assets if asset.path.endswith((".xml", ".atom", ".rss"))
    ]
    return [
        Group("Content", words(node, "words", "Title", site)),
        Group(
            "Posts",
            [
                choice(node, "feed", "Are", feeds),
                Control("upload", "Upload a feed", node.id, "feed", ""),
                *([] if node.feed else [Control("text", "below", node.id, "below", node.below, suggestions="paths")]),
                number(node, "count", "At most", "", 1, 50),
                yes(node, "dates_shown", "With dates"),
            ],
        ),
    ]
