"""How long does the studio take to make an edition? `python -m bench edition`, with a database

From the database into the storage of editions, as the worker does it, for imported pages of 10 KB: the first edition,
in which every file is new, and a second one after an edit of the header; as ratios to `cp -r` of the first one's files.
In a process of its own, whose files are its own, too.
"""

from __future__ import annotations

import json
import os
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator

from upper_rim.core.exchange.bundle import contents_of
from upper_rim.core.model.editing.edits import Set

from .asking import asking
from .corpus import large_site
from .measured import Measured


def measure(tiny: bool) -> Iterator[Measured]:
    page_count = 60 if tiny else 5000
    with tempfile.TemporaryDirectory() as folder:
        command = [sys.executable, "-m", "bench.edition", folder, str(page_count)]
        done = subprocess.run(command, env={**os.environ, "RIM_RUN_FOLDER": folder}, check=True, stdout=subprocess.PIPE)
    first, second, copying = json.loads(done.stdout)
    copied = ("cp -r of the first edition", copying)
    yield Measured(f"an edition of {page_count} pages, all files new", first, None, "s", copied)
    yield Measured("another after an edit of the header", second, None, "s", copied)


def main() -> None:
    folder, page_count = sys.argv[1], int(sys.argv[2])
    with asking() as (_, user):
        from upper_rim.web.jobs.publishing import make_edition, new_edition
        from upper_rim.web.sites import store

        site, read = large_site(page_count)
        stored = store.new_site(
            user, site, {content: read(content) for content in contents_of(site)}, slug=f"bench-{os.getpid()}"
        )
        store.load(stored.pk)
        taken = []
        for label in ("Book", "Board"):
            store.submit(stored.pk, user, Set(node="it-book", field="words", value={"text": label}))
            begin = time.perf_counter()
            make_edition(new_edition(stored, user.pk).pk)
            taken.append(time.perf_counter() - begin)
            if label == "Book":
                begin = time.perf_counter()
                subprocess.run(["cp", "-r", f"{folder}/editions", f"{folder}/copy"], check=True)
                copying = time.perf_counter() - begin
        stored.delete()
    print(json.dumps([*taken, copying]))


if __name__ == "__main__":
    main()
