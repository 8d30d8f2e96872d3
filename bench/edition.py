"""How long does the studio take to make an edition? `python ops/with_test_database.py python -m bench.edition [PAGES]`

From the database into the storage of editions, as the worker does it, for imported pages of 10 KB: the first edition, in
which every file is new, and a second one after an edit of the header; as ratios to `cp -r` of the first one's files.
"""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile
import time
from pathlib import Path

import django


def main() -> None:
    page_count = int(sys.argv[1]) if len(sys.argv) > 1 else 5000
    with tempfile.TemporaryDirectory() as folder:
        os.environ["RIM_RUN_FOLDER"] = folder
        os.environ.setdefault("DJANGO_SETTINGS_MODULE", "upper_rim.web.settings")
        django.setup()
        from django.contrib.auth import get_user_model
        from django.core.management import call_command

        from upper_rim.core.exchange.bundle import contents_of
        from upper_rim.core.model.edits import Set
        from upper_rim.web.jobs.publishing import make_edition, new_edition
        from upper_rim.web.sites import store

        from .corpus import large_site

        call_command("migrate", verbosity=0)
        user = get_user_model().objects.create_user(f"bench-{os.getpid()}", password="p")
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
        files = sum(1 for path in Path(f"{folder}/editions").rglob("*") if path.is_file())
        stored.delete()
        user.delete()
    print(f"{page_count} pages ({files} files kept), cp -r of the first edition {copying:.2f} s")
    for name, seconds in zip(("first edition", "second edition"), taken, strict=True):
        print(f"{name} {seconds:.2f} s, ratio {seconds / copying:.2f}")


if __name__ == "__main__":
    main()
