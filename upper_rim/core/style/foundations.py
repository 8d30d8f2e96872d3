"""What do the foundations themselves (faces, scale) say of a role?"""

from __future__ import annotations

from ..model.site import Site
from .type.scale import SCALE_STEPS


def foundation_values(site: Site, role: str) -> dict[str, str]:
    """Values by property. Sizes in px; the face by its id."""
    if role in {"piece", "float"}:
        return {
            "font-family": site.face,
            "font-size": f"{site.text_px}px",
            "font-weight": str(site.text_weight),
            "line-height": "1.35",
        }
    if role == "title" or role.startswith("heading-"):
        values = {"font-family": site.heading_face} if site.heading_face else {}
        if role in SCALE_STEPS:
            values["font-size"] = f"{round(site.text_px * site.ratio ** SCALE_STEPS[role], 2):g}px"
        return values
    return {}
