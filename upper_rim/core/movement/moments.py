"""At which scroll positions does something change?"""

from __future__ import annotations

from math import inf

from .scene import Scene


def moments_that_matter(laid: Scene) -> list[float]:
    """Positions around all at which something changes, down to the page's end; from there upwards as far as brings back
    what shows only then, and up to the page's beginning."""
    most = laid.scrolls_px
    marks = {0.0, most}
    for body in laid.bodies:
        edges = [*body.after_px, body.past_px, body.top_px - body.pin_px, body.until_px, body.yields_px]
        if body.up_px is not None:
            edges += [body.past_px + body.up_px]
        for edge in edges:
            if edge is not None and edge < inf:
                marks |= {min(most, max(0.0, edge + by)) for by in (-1.0, 0.0, 1.0)}
    down = sorted(marks)
    ups = {max(0.0, most - body.up_px) for body in laid.bodies if body.up_px is not None}
    return [*down, *sorted(ups, reverse=True), *(mark for mark in reversed(down) if mark < min(ups, default=most))]
