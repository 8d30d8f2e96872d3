"""`upper-rim`: a bundle in, files or answers out; without a database.

Exit codes: 0 done; 1 done, but something was found that deserves a look (named on stderr); 2 the command is written
wrongly; 3 an input cannot be read or an output cannot be written (nothing was changed); 130 it was interrupted (nothing
was changed).
"""

from __future__ import annotations

import argparse
import sys
from collections.abc import Sequence
from functools import partial

from .. import VERSION
from ..collecting import collect_rarely

MOST_BAR_PX = 60.0
FOUND, USAGE, UNREADABLE, INTERRUPTED = 1, 2, 3, 130


def _scroll_bar(text: str) -> float:
    px = float(text) if text.replace(".", "", 1).isdecimal() else -1
    if not 0 <= px <= MOST_BAR_PX:
        raise argparse.ArgumentTypeError(f"it takes 0 to {MOST_BAR_PX:g} px")
    return px


def main(arguments: Sequence[str] | None = None) -> int:
    collect_rarely()
    parser = argparse.ArgumentParser(
        prog="upper-rim", description="Sites as bundles: made, brought in, published, examined."
    )
    parser.add_argument("--version", action="version", version=f"upper-rim {VERSION}")
    common = argparse.ArgumentParser(add_help=False)
    common.add_argument("--quiet", action="store_true", help="say nothing of what deserves a look; the exit code does")
    all_parts = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    parts = partial(all_parts.add_parser, parents=[common])

    demo = parts("demo", help="write a demo site as a bundle")
    demo.add_argument("out", metavar="OUT", help="the bundle to write")
    demo.add_argument("--site", choices=("ostrey", "quillwort"), default="ostrey", help="which demo (default: ostrey)")

    bring_in = parts("import", help="make a bundle of a ZIP or folder of HTML, or of a sitemap")
    bring_in.add_argument(
        "source", metavar="SOURCE", help="a .zip, a folder, or a sitemap .xml; - reads a .zip from standard input"
    )
    bring_in.add_argument(
        "--out", required=True, metavar="BUNDLE", help="the bundle to write; - writes it to standard output"
    )
    bring_in.add_argument("--like", metavar="BUNDLE", help="take foundations, menus and pieces from this bundle")
    bring_in.add_argument("--name", help="the site's name (default: the source's)")

    publish = parts("publish", help="write the finished site into a folder")
    publish.add_argument("bundle", metavar="BUNDLE")
    publish.add_argument("--out", required=True, metavar="DIR", help="a folder that is empty or does not exist yet")
    publish.add_argument(
        "--prune", action="store_true", help="with --force: take away whatever else lies in the folder"
    )
    publish.add_argument(
        "--force", action="store_true", help="write into a folder that holds something, over what is there"
    )
    publish.add_argument(
        "--passwords",
        metavar="FILE",
        help='JSON: by locked door the passwords that open it there, as {"Press room": ["…"]}; else what it locks is left out',
    )

    coverage = parts("coverage", help="tell for each page, slot and band which piece shows, and by which rule")
    coverage.add_argument("bundle", metavar="BUNDLE")
    form = coverage.add_mutually_exclusive_group()
    form.add_argument("--json", dest="form", action="store_const", const="json")
    form.add_argument("--csv", dest="form", action="store_const", const="csv")
    told = "a visitor: the name of one of the site's cards, or its fields as JSON"
    coverage.add_argument("--card", metavar="CARD", help=f"what is shown to {told}")
    coverage.add_argument("--compare", metavar="CARD", help="only what differs from another card's, both told")
    coverage.add_argument("--at", metavar="MOMENT", help="at another time: 2026-12-24T18:00, in the site's time zone")

    fit = parts("fit", help="tell at which widths rows wrap, overflow or collide, and what would mend them")
    fit.add_argument("bundle", metavar="BUNDLE")
    fit.add_argument("--piece", metavar="NAME", help="only this piece, by its name or id")
    fit.add_argument("--scroll-bar", type=_scroll_bar, default=0.0, metavar="PX", help="so much of the window it takes")
    fit.add_argument("--json", action="store_true")

    movement = parts("movement", help="tell where pieces are, and in which stage, while a page is scrolled")
    movement.add_argument("bundle", metavar="BUNDLE")
    movement.add_argument("--page", required=True, metavar="PATH", help="the page's path, or its file's name")
    movement.add_argument("--viewport", required=True, metavar="WxH", help="width and height in px, such as 390x844")
    movement.add_argument(
        "--scroll", required=True, metavar="PX,PX,...", help="the scroll positions, one after the other"
    )
    movement.add_argument(
        "--content", type=float, metavar="PX", help="how high the page's own content is (otherwise estimated)"
    )
    movement.add_argument("--json", action="store_true")

    visit = parts("visit", help="tell what a visitor meets on the way to a page, and where answers lead")
    visit.add_argument("bundle", metavar="BUNDLE")
    visit.add_argument("--page", required=True, metavar="PATH", help="the page's path, or its file's name")
    visit.add_argument("--card", metavar="CARD", help=f"as {told} (default: somebody new)")
    visit.add_argument("--at", metavar="MOMENT", help="at another time: 2026-12-24T18:00, in the site's time zone")
    visit.add_argument(
        "--taken-away", action="store_true", help="from the folder that publish writes, on another server"
    )
    visit.add_argument("--json", action="store_true")

    check = parts("check", help="tell what is wrong, doubtful or unfinished about a site")
    check.add_argument("bundle", metavar="BUNDLE")
    form = check.add_mutually_exclusive_group()
    form.add_argument("--json", dest="form", action="store_const", const="json")
    form.add_argument("--sarif", dest="form", action="store_const", const="sarif", help="SARIF 2.1.0, for other tools")
    form.add_argument("--html", dest="form", action="store_const", const="html", help="a report to hand over or print")
    check.add_argument(
        "--fail-on",
        choices=("breaks", "hinders", "doubtful"),
        default="doubtful",
        help="exit with 1 where something is found that is as bad, or worse (default: doubtful)",
    )

    texts = parts("texts", help="write a site's texts for translators, or take in what came back")
    texts.add_argument("bundle", metavar="BUNDLE")
    texts.add_argument("--out", required=True, metavar="FILE", help="the file to write; with --take, a bundle")
    way = texts.add_mutually_exclusive_group()
    way.add_argument("--language", metavar="TAG", help="XLIFF 2.1 of this language (default: CSV of all)")
    way.add_argument(
        "--take", dest="source", metavar="FILE", help="put the translations of a .xlf or .csv into the bundle"
    )

    validate = parts("validate", help="check a bundle: its schema, references and contents")
    validate.add_argument("bundle", metavar="BUNDLE")

    chosen = parser.parse_args(arguments)
    from .commands import COMMANDS  # only here: help needs none of it
    from .files import CannotDo

    try:
        remarks = COMMANDS[chosen.command](chosen)
    except CannotDo as fault:
        print(f"upper-rim: {fault}", file=sys.stderr)
        return UNREADABLE
    except BrokenPipeError:
        sys.stderr.close()
        return 0
    except KeyboardInterrupt:
        return INTERRUPTED
    for remark in () if chosen.quiet else remarks:
        print(f"upper-rim: {remark}", file=sys.stderr)
    return FOUND if remarks else 0


if __name__ == "__main__":
    sys.exit(main())
