"""Findings: what is wrong, doubtful or unfinished about the whole site, the worst first; each mended, shown or let be."""

from __future__ import annotations

from collections import Counter
from typing import Any, NamedTuple

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils import timezone
from django.utils.safestring import SafeString

from ....core.findings.let_be import as_it_is
from ....core.findings.pictures import Pictured, Picturing
from ....core.findings.remedies import Offer, offers_of
from ....core.findings.report import SEVERITY_WORDS, Head, report_html
from ....core.findings.subjects import SUBJECTS
from ....core.findings.whole import Cause, LookedAt
from ....core.model.editing.apply import apply
from ....core.model.editing.edits import Edit, Together, edit_adapter
from ....core.model.site import Site
from ....shipped import shelf
from ...sites import ids, store
from ...sites.access import site_of
from ...sites.looking import Looking, begun, how_far, known_of, looked_at, sorted_today, whole
from ..cycle.announcements import announcement
from ..cycle.notices import StudioNotice, notice_of
from ..cycle.screen import Opened, screen, stage_address
from ..preview.svg import file_address, for_template
from ..words.languages import language_name
from .lines import Filters, Line, Lister

MOST_SHOWN, MOST_OFFERED = 200, 4
MOST_AT_ONCE = 12
"""So many of one kind are mended by one press: each is tried on a copy first."""


@screen("studio/findings/findings.html", "findings")
def findings(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    opened, notice = _mended_at_once(request, opened)
    looking = _looking(request, opened)
    found = sorted_today(looking, opened.site)
    lister = Lister(opened.site, opened.slug)
    lines = [lister.line(cause, before=found.returned.get(cause.key)) for cause in found.open]
    let_be = [lister.line(cause, let_be=said) for cause, said in found.let_be]
    wished = Filters(*(_asked(request, name) for name in Filters._fields))
    is_let_be = _asked(request, "state") == "let-be"
    shown = [line for line in (let_be if is_let_be else lines) if lister.passes(line, wished)]
    is_true = looking.is_true_of(opened.revision)
    if is_true:
        opened.stored.found = {"revision": opened.revision, **Counter(line.severity for line in lines)}
    at = _chosen(_asked(request, "at"), _asked(request, "from"), shown)
    context = {
        "found": opened.stored.found,
        "lines": shown[:MOST_SHOWN],
        "hidden": max(0, len(shown) - MOST_SHOWN),
        "any": bool(lines or let_be),
        "at": at,
        "number": shown.index(at) + 1 if at else 0,
        "of": len(shown),
        "is_true": is_true,
        "true_of": looking.revision if looking.is_whole else None,
        "let_be_count": len(let_be),
        "is_let_be": is_let_be,
        "wished": wished,
        "state": "let-be" if is_let_be else "",
        "place": wished.place(),
        "severities": _facets(lines, "severity", {one: words for one, (words, _) in SEVERITY_WORDS.items()}, wished),
        "subjects": _facets(lines, "subject", {one: one.capitalize() for one in SUBJECTS}, wished),
        "pieces": [(piece.id, piece.name) for piece in opened.site.pieces],
        "languages": [(tag, language_name(tag)) for tag in opened.site.languages],
        "as_it_was": as_it_is(at.cause) if at else "",
        "kind_count": sum(at is not None and line.cause.kind == at.cause.kind for line in lines),
        "opened": opened,
        "site": opened.site,
        "revision": opened.revision,
    }
    return {**context, "notice": notice} if notice else context


def _asked(request: HttpRequest, name: str) -> str:
    return (request.POST.get(name) or request.GET.get(name) or "").strip()[:200]


def _looking(request: HttpRequest, opened: Opened) -> Looking:
    """As it is where that is known, or asked for; else as it was when somebody looked last; at first what takes no time."""
    known = known_of(opened.stored.pk)
    if known is not None and known.is_true_of(opened.revision):
        return known
    if _asked(request, "whole"):
        return whole(opened.stored.pk, opened.revision, opened.site)
    known = known or begun(opened.stored.pk, opened.revision, opened.site)
    # What was just mended was proved to be so: it goes at once.
    gone = request.POST.get("gone", "")
    return known._replace(found=tuple(one for one in known.found if one.key != gone))


def _chosen(key: str, gone: str, shown: list[Line]) -> Line | None:
    """The one asked for; where that has been mended, what stands in its place now (`gone`: its number)."""
    found = next((line for line in shown if line.key == key), None)
    if found is None and gone.isdecimal() and shown:
        return shown[min(max(int(gone), 1), len(shown)) - 1]
    return found or (shown[0] if shown else None)


class Facet(NamedTuple):
    key: str
    words: str
    many: int
    there: str
    is_chosen: bool


def _facets(lines: list[Line], field: str, words: dict[Any, str], wished: Filters) -> list[Facet]:
    name = "about" if field == "subject" else field
    counts = Counter(getattr(line, field) for line in lines)
    chosen = getattr(wished, name)
    return [
        Facet(key, said, counts[key], wished.place(**{name: "" if key == chosen else key}), key == chosen)
        for key, said in words.items()
        if counts[key] or key == chosen
    ]


class OfferShown(NamedTuple):
    """`edit`: as JSON, which is what is posted; `drawn`: what one sees then."""

    offer: Offer
    edit: str
    drawn: SafeString | None


def how_far_looked(request: HttpRequest, slug: str) -> HttpResponse:
    """How many pages have been looked through so far; nothing where that takes no time."""
    going = how_far(site_of(request.user, slug).pk)
    return (
        render(request, "studio/cycle/how_far.html", {"going": going, "slug": slug})
        if going
        else HttpResponse(status=204)
    )


def mending(request: HttpRequest, slug: str) -> HttpResponse:
    """What one sees of a finding, and what would mend it in one press; asked for by itself, since that is tried."""
    stored = site_of(request.user, slug)
    site, revision = store.load(stored.pk)
    looking = known_of(stored.pk) or whole(stored.pk, revision, site)
    found = sorted_today(looking, site)
    looked = looked_at(stored.pk, site, timezone.now())
    key = _asked(request, "at")
    cause = next((one for one in found.open if one.key == key), None)
    if cause is None:
        return HttpResponse(status=204)
    opened = Opened(stored, site, revision, request.user)
    drawn = _drawn(request, opened, looked, cause, "is")
    thought_of = offers_of(cause, looked, ids.new_id, MOST_OFFERED)
    offers = [_offer(request, opened, looked, cause, offer, at) for at, offer in enumerate(thought_of)]
    line = Lister(site, slug).line(cause)
    alike = [one for one in found.open if one.kind == cause.kind]
    context = {
        "slug": slug,
        "drawn": for_template(drawn.svg) if drawn else None,
        "drawn_said": drawn.said if drawn else "",
        "offers": offers,
        "alike": min(len(alike), MOST_AT_ONCE) if len(alike) > 1 and offers else 0,
        "line": line,
        "revision": revision,
        "place": Filters(*(_asked(request, name) for name in Filters._fields)).place(),
        "number": _asked(request, "number"),
    }
    return render(request, "studio/findings/mending.html", context)


def _offer(request: HttpRequest, opened: Opened, looked: LookedAt, cause: Cause, offer: Offer, at: int) -> OfferShown:
    after = apply(looked.site, offer.edit)
    drawn = None
    if isinstance(after, Site):
        pictured = _drawn(request, opened, looked.at(after), cause, f"as{at}")
        drawn = for_template(pictured.svg) if pictured else None
    return OfferShown(offer, edit_adapter.dump_json(offer.edit).decode(), drawn)


def _drawn(request: HttpRequest, opened: Opened, looked: LookedAt, cause: Cause, name: str) -> Pictured | None:
    return Picturing(looked, shelf(), file_address(stage_address(request, opened))).of(cause, f"found-{name}")


def _mended_at_once(request: HttpRequest, opened: Opened) -> tuple[Opened, StudioNotice | None]:
    """`all`: the first remedy of each finding of a kind, one after the other on a copy, and then all as one edit."""
    kind = request.POST.get("mend-all", "")
    if not kind:
        return opened, None
    looking = whole(opened.stored.pk, opened.revision, opened.site)
    edits: list[Edit] = []
    looked = looked_at(opened.stored.pk, opened.site, timezone.now())
    still_open = sorted_today(looking, opened.site).open
    for cause in [one for one in still_open if one.kind == kind][:MOST_AT_ONCE]:
        for offer in offers_of(cause, looked, ids.new_id, 1):
            after = apply(looked.site, offer.edit)
            if isinstance(after, Site):
                edits.append(offer.edit)
                looked = looked.at(after)
    if not edits:
        return opened, StudioNotice("None of them can be mended in one press any more.")
    edit = edits[0] if len(edits) == 1 else Together(edits=tuple(edits))
    answer = store.submit(opened.stored.pk, opened.user, edit, opened.revision, announcement)
    notice = notice_of(answer, edit, opened.site)
    if notice is None:
        notice = StudioNotice(f"{len(edits)} mended. Undo takes all of it back.")
    return Opened(opened.stored, *store.load(opened.stored.pk), opened.user), notice


def report(request: HttpRequest, slug: str) -> HttpResponse:
    """To hand over, or to print: one file that fetches nothing."""
    stored = site_of(request.user, slug)
    site, revision = store.load(stored.pk)
    found = sorted_today(whole(stored.pk, revision, site), site)
    head = Head(f"Revision {revision}", timezone.localdate().isoformat())
    picturing = Picturing(looked_at(stored.pk, site, timezone.now()), shelf(), lambda _: "data:,")
    made = report_html(site, found, head, picturing)
    response = HttpResponse(made, content_type="text/html; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="{slug}-findings-{revision}.html"'
    return response
