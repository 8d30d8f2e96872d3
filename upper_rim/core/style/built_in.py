"""How does everything look before anybody has decided anything? The last layer that a value can come from.

Colours are named by role, so that a site that only gives its swatches roles already looks like itself.
"""

from __future__ import annotations

BuiltIn = dict[str, dict[str, dict[str, str]]]


def _sides(name: str, *values: str, end: str = "") -> dict[str, str]:
    """A property for the four sides: all, or block and inline."""
    block, inline = (values * 2)[:2]
    suffix = f"-{end}" if end else ""
    return {
        f"{name}-block-start{suffix}": block,
        f"{name}-inline-end{suffix}": inline,
        f"{name}-block-end{suffix}": block,
        f"{name}-inline-start{suffix}": inline,
    }


def corners(value: str) -> dict[str, str]:
    return {f"border-{corner}-radius": value for corner in ("start-start", "start-end", "end-end", "end-start")}


def border(width: str, style: str, colour: str) -> dict[str, str]:
    return {
        **_sides("border", width, end="width"),
        **_sides("border", style, end="style"),
        **_sides("border", colour, end="color"),
    }


_BUTTON = {
    **_sides("padding", "6px", "18px"),
    **corners("6px"),
    "min-block-size": "44px",
    "font-weight": "600",
}
_SHADOW = "0 8px 24px rgb(0 0 0 / 18%)"
_OPENED = {
    "padding-block-start": "12px",
    "padding-inline-end": "20px",
    "padding-block-end": "24px",
    "padding-inline-start": "20px",
}
_HEADING = {"font-weight": "700", "line-height": "1.2"}

BUILT_IN: BuiltIn = {
    "piece": {"rest": {"background-color": "@:ground", "color": "@:ink", "inline-size": "100%"}},
    "float": {"rest": {"color": "@:ink"}},
    "cell": {"rest": {"min-inline-size": "0"}},
    "row": {"rest": {"padding-block-start": "14px", "padding-block-end": "14px"}},
    "block": {"rest": {"max-inline-size": "100%"}},
    "divider": {
        "rest": {
            "inline-size": "100%",
            "border-block-start-width": "1px",
            "border-block-start-style": "solid",
            "border-block-start-color": "currentcolor",
        }
    },
    "upright": {
        "rest": {
            "border-inline-start-width": "1px",
            "border-inline-start-style": "solid",
            "border-inline-start-color": "currentcolor",
        }
    },
    "title": {"rest": {"font-weight": "700", "font-size": "1.15em"}},
    "entry": {
        "rest": {
            "min-block-size": "44px",
            "padding-block-start": "4px",
            "padding-block-end": "4px",
            "text-decoration-thickness": "2px",
            "text-underline-offset": "0.3em",
        },
        "hover": {"text-decoration-line": "underline"},
        "current": {"text-decoration-line": "underline"},
    },
    "opener": {"rest": {"min-inline-size": "44px", "min-block-size": "44px"}},
    "button": {
        "rest": {**_BUTTON, "background-color": "@:accent", "color": "@:on-accent"},
        "hover": {"text-decoration-line": "underline"},
    },
    "second": {
        "rest": {**_BUTTON, **border("2px", "solid", "currentcolor")},
        "hover": {"text-decoration-line": "underline"},
    },
    "icon": {"rest": {"min-inline-size": "44px", "min-block-size": "44px"}, "hover": {"opacity": "0.75"}},
    "link": {
        "rest": {"color": "@:link", "text-decoration-line": "underline"},
        "hover": {"text-decoration-thickness": "2px"},
    },
    "heading-1": {"rest": _HEADING},
    "heading-2": {"rest": _HEADING},
    "heading-3": {"rest": _HEADING},
    "list": {"rest": {"padding-inline-start": "1.2em"}},
    "mark": {"rest": {}},
    "field": {
        "rest": {
            **_sides("padding", "8px", "10px"),
            **border("1px", "solid", "@:line"),
            **corners("4px"),
            "min-block-size": "44px",
            "background-color": "@:ground",
            "color": "@:ink",
        },
        "placeholder": {"color": "@:ink/70%"},
        "invalid": border("2px", "solid", "@:fault"),
        "disabled": {"opacity": "0.6"},
    },
    "list-title": {"rest": {"font-weight": "700", "margin-block-end": "4px"}},
    "second-line": {"rest": {"font-size": "0.85em", "opacity": "0.85"}},
    "badge": {
        "rest": {
            "font-size": "0.75em",
            "padding-inline-start": "6px",
            "padding-inline-end": "6px",
            **border("1px", "solid", "currentcolor"),
            **corners("1em"),
        }
    },
    "panel": {"rest": {**_sides("padding", "8px", "14px"), **corners("6px"), "box-shadow": _SHADOW}},
    "drawer": {"rest": {**_OPENED, "box-shadow": _SHADOW}},
    "veil": {"rest": {"background-color": "rgb(0 0 0 / 45%)"}},
    "close": {"rest": {"min-inline-size": "44px", "min-block-size": "44px"}},
    "hint": {
        "rest": {
            **_sides("padding", "6px", "10px"),
            **corners("6px"),
            "background-color": "@:ink",
            "color": "@:ground",
            "font-size": "14px",
            "max-inline-size": "min(240px, 80vw)",
        }
    },
    "ring": {
        "focus": {
            "outline-width": "2px",
            "outline-style": "solid",
            "outline-color": "currentcolor",
            "outline-offset": "3px",
        }
    },
}
