"""What each command of the command line does. Each gives back remarks: sentences about what deserves a look."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Callable
from pathlib import Path

from pydantic import ValidationError

from ..core.conditions.audience.in_period import instant_in
from ..core.conditions.visitor import VisitorCard
from ..core.exchange.bundle import write_bundle
from ..core.exchange.coverage_table import as_csv, as_json, coverage_rows
from ..core.model.site import Site
from ..core.reach.coverage import Coverage
from .files import CannotDo, Remarks, bytes_of, new_file, opened_bundle
from .importing import bring_in
from .progress import progress
from .proving import misplaced
from .publishing import publish


def demo(chosen: argparse.Namespace) -> Remarks:
    from ..demo import ostrey, quillwort  # only here: the other commands start faster without the demo's texts

    site, contents = {"ostrey": ostrey, "quillwort": quillwort}[chosen.site]()
    with new_file(chosen.out) as out:
        write_bundle(out, site, contents.__getitem__)
    return []


def coverage(chosen: argparse.Namespace) -> Remarks:
    with opened_bundle(chosen.bundle) as bundle:
        site = bundle.site
        if chosen.compare and not chosen.card:
            raise CannotDo("--compare asks for --card, too: with which one is it compared?")
        if chosen.at and not chosen.card:
            raise CannotDo("--at asks for --card, too: who looks then? --card '{}' is somebody")
        cards = [_card(site, said, chosen.at) for said in (chosen.card, chosen.compare) if said]
        rows = list(coverage_rows(Coverage(site), *cards))
    if chosen.form == "json":
        sys.stdout.writelines(as_json(rows))
    elif chosen.form == "csv":
        sys.stdout.writelines(as_csv(rows))
    else:
        for row in rows:
            reason = f"{row.why}: {row.rule}" if row.rule else row.why
            who = f"  for {row.card}" if len(cards) > 1 else ""
            print(f"{row.page}  {row.slot}  {row.band or 'all widths'}  {row.piece or '-'}  ({reason}){who}")
    tied = {
        f"{row.page}: {row.piece} and {', '.join(row.beaten)} tie; the first in the site's order shows"
        for row in rows
        if row.why == "tie"
    }
    return sorted(tied)


def visit(chosen: argparse.Namespace) -> Remarks:
    from .visit import report  # only here: no other command plays a visit through

    with opened_bundle(chosen.bundle) as bundle:
        card = _card(bundle.site, chosen.card or "{}", chosen.at)
        return report(bundle.site, bundle.read, card, chosen)


def _card(site: Site, said: str, at: str | None) -> VisitorCard:
    try:
        if said.lstrip().startswith("{"):
            card = VisitorCard.model_validate({"id": "vc-said", **json.loads(said)})
        else:
            card = next(one for one in site.cards if said.casefold() in {one.name.casefold(), one.id})
        return card.replaced(clock=f"{instant_in(at, site.zone):%Y-%m-%dT%H:%MZ}") if at else card
    except StopIteration:
        names = ", ".join(one.name for one in site.cards) or "there are none"
        raise CannotDo(f"no card is called {said} ({names})") from None
    except ValidationError as error:
        first = error.errors()[0]
        raise CannotDo(f"--card: {'.'.join(map(str, first['loc']))}: {first['msg']}") from None
    except ValueError as error:
        raise CannotDo(f"--card, --at: {error}") from None


def validate(chosen: argparse.Namespace) -> Remarks:
    with opened_bundle(chosen.bundle) as bundle:
        with progress(quiet=chosen.quiet) as told:
            remarks = misplaced(bundle.site.pages, bundle.read_checked, told)
        for asset in bundle.site.assets:
            bundle.read_checked(asset.content)
        print(
            f"{bundle.site.name}: {len(bundle.site.pages)} pages, {len(bundle.site.assets)} files, "
            f"{len(bundle.site.pieces)} pieces"
        )
    return remarks


def check(chosen: argparse.Namespace) -> Remarks:
    from .check import report  # as with `fit`

    with opened_bundle(chosen.bundle) as bundle:
        return report(bundle, chosen)


def fit(chosen: argparse.Namespace) -> Remarks:
    from .fit import NoPiece, report  # only here: the other commands start faster without fonts being measured

    with opened_bundle(chosen.bundle) as bundle:
        try:
            return report(bundle, chosen)
        except NoPiece as fault:
            raise CannotDo(f"{chosen.bundle}: {fault}") from None


def movement(chosen: argparse.Namespace) -> Remarks:
    from .movement import CannotPlay, report  # as with `fit`

    with opened_bundle(chosen.bundle) as bundle:
        try:
            return report(bundle, chosen)
        except CannotPlay as fault:
            raise CannotDo(str(fault)) from None


def texts(chosen: argparse.Namespace) -> Remarks:
    from .texts import NotTaken, read, written  # only here: no other command has to do with translators

    with opened_bundle(chosen.bundle) as bundle:
        try:
            if chosen.source is None:
                with new_file(chosen.out) as out:
                    out.write(written(bundle.site, chosen).encode())
                return []
            site, remarks = read(bundle.site, Path(chosen.source), bytes_of(Path(chosen.source)))
        except NotTaken as fault:
            raise CannotDo(str(fault)) from None
        with new_file(chosen.out) as out:
            write_bundle(out, site, bundle.read)
        return remarks


COMMANDS: dict[str, Callable[[argparse.Namespace], Remarks]] = {
    "demo": demo,
    "import": bring_in,
    "publish": publish,
    "coverage": coverage,
    "check": check,
    "fit": fit,
    "movement": movement,
    "visit": visit,
    "texts": texts,
    "validate": validate,
}
