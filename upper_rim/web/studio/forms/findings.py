"""Which edit does a form about something that was found mean?"""

from __future__ import annotations

from collections.abc import Callable
from typing import get_args

from django.http import QueryDict
from django.utils import timezone
from pydantic import ValidationError

from ....core.findings.finding import FindingKind
from ....core.kinds.let_be import LetBe
from ....core.model.editing.edits import Add, Remove, Together
from ....core.model.site import Site
from ....core.model.tree import ROOT
from ...sites import ids
from .form_error import FormError, Posted


def let_be(site: Site, post: QueryDict) -> Posted:
    """For this place, or for all of its kind (`all`). What was said of the same before goes."""
    of_kind = bool(post.get("all"))
    about, other, stage = (
        ("", "", "") if of_kind else (post.get("node", ""), post.get("other", ""), post.get("stage", ""))
    )
    kind, reason, until = post["kind"], post.get("reason", "").strip(), post.get("until", "").strip()
    if kind not in get_args(FindingKind):
        raise FormError(ROOT, "let_be", "choose what is to be let be")
    if not reason:
        raise FormError(ROOT, "reason", "say why it is let be: whoever comes after you will ask")
    if until and until < timezone.localdate().isoformat():
        raise FormError(ROOT, "until", "that day has passed")
    try:
        made = LetBe(
            id=ids.new_id("lb"),
            kind=kind,
            about=about,
            other=other,
            stage=stage,
            as_it_was="" if of_kind else post.get("as_it_was", ""),
            reason=reason,
            until=until or None,
            by=post.get("by", ""),
            on=timezone.localdate().isoformat(),
        )
    except ValidationError:
        raise FormError(ROOT, "until", "write the day as 2027-03-31, and a reason of up to 400 letters") from None
    same = (one for one in site.let_be if (one.kind, one.about, one.other, one.stage) == (kind, about, other, stage))
    gone = tuple(one.id for one in same)
    edit = Add(parent=ROOT, slot="let_be", values=(made.model_dump(mode="json"),))
    return Posted(Together(edits=(Remove(nodes=gone), edit)) if gone else edit)


READERS: dict[str, Callable[[Site, QueryDict], Posted]] = {"let-be": let_be}
