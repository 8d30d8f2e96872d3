"""How is a part lifted out of many pages? Page by page in the background, then as one edit."""

from __future__ import annotations

from pydantic import JsonValue

from ...core.exchange.html.lifting import lifted
from ...core.exchange.imports.import_pages import Problem, lifts_on
from ...core.model.editing.edits import Add, SetEach, Together, edit_adapter
from ...core.model.editing.refusal import Refusal
from ...core.model.site import Lift, Page, Site
from .. import wall
from ..sites import contents, store
from ..sites.models import Work
from ..sites.progress import Progress
from .ending import end_work


def lift_out(work_id: int) -> None:
    """Adds the lift in `details` to the site, with its cuts on every page it applies to; and what takes its place."""
    work = Work.objects.select_related("author").get(pk=work_id)
    if work.state in {Work.State.DONE, Work.State.FAILED}:
        return
    lift = Lift.model_validate(work.details.get("lift", work.details))
    instead = edit_adapter.validate_python(work.details["instead"]) if work.details.get("instead") else None
    site, base = store.load(work.site_id)
    pages = [page for page in site.pages if page.content and lift.where.covers(page)]
    work.total = len(pages)
    Work.objects.filter(pk=work_id).update(state=Work.State.WORKING, total=work.total)
    problems: list[Problem] = []
    changed = _cuts(site, lift, pages, Progress(Work.objects.filter(pk=work_id)), problems)
    if not changed:
        end_work(work, Work.State.FAILED, "It matches nothing that could be taken out; nothing was changed.", problems)
        return
    edit = Together(
        edits=(
            *((instead,) if instead else ()),
            Add(parent="site", slot="lifts", values=(lift.model_dump(mode="json"),)),
            SetEach(field="cuts", values=tuple(changed)),
        )
    )
    told = f"{work.details['name']} begun with {work.name}." if instead else f"Lifted {work.name} out."
    answer = store.submit(work.site_id, work.author, edit, base, lambda *_: told)
    if isinstance(answer, store.Loaded):
        pages_told = f"{len(changed)} page{'' if len(changed) == 1 else 's'}"
        end_work(work, Work.State.DONE, f"Lifted out of {pages_told}.", problems)
    else:
        reason = answer.words if isinstance(answer, Refusal) else "somebody changed the same pages meanwhile; try again"
        end_work(work, Work.State.FAILED, f"It could not be lifted out: {reason}.", problems)


def _cuts(
    site: Site, lift: Lift, pages: list[Page], progress: Progress, problems: list[Problem]
) -> list[tuple[str, JsonValue]]:
    changed: list[tuple[str, JsonValue]] = []
    for at, some in enumerate(contents.of_pages(pages)):
        asked = [(content, {**lifts_on(page, site.lifts), lift.id: lift.selector}) for page, content in some]
        for (page, _), (lifting, cuts) in zip(
            some, wall.read(lifted, asked, lift.selector, limits=wall.SITE), strict=True
        ):
            problems += [Problem(page.path, fault) for fault in lifting.faults]
            if lifting.found:
                changed.append((page.id, [cut.model_dump(mode="json") for cut in cuts]))
        progress.tell(at * contents.READ_AT_ONCE + len(some))
    return changed
