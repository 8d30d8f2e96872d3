"""What do 20,000 pages cost? `python -m bench many_pages`, with a database

By the command line: a folder of them taken in and published; in the studio, as the worker does it: a bundle brought in, the
first edition, and a second one after one page has changed. The yardstick of each: reading the same files and writing them
elsewhere. And the peak memory of the worker.
"""

from __future__ import annotations

import json
import os
import resource
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Iterator
from pathlib import Path

from upper_rim.core.exchange.imports.import_pages import described_page, digest
from upper_rim.core.model.editing.edits import Add, Edit, Remove, Together
from upper_rim.core.model.site import Page

from .asking import asking
from .corpus import page_source
from .measured import Measured

PAGES, TINY, KILOBYTES = 20_000, 60, 6
MOST_OF_FIRST = 0.03
"""Asked: of the first edition's time, what a second takes where one page has changed."""
MOST_MB = 400.0


def measure(tiny: bool) -> Iterator[Measured]:
    count = TINY if tiny else PAGES
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        _write(folder / "pages", count)
        copying = _seconds(["cp", "-r", str(folder / "pages"), str(folder / "copy")])
        yardstick = ("cp -r of the pages", copying)
        bundle, out, frame = (str(folder / name) for name in ("site.zip", "out", "frame.zip"))
        cli = [sys.executable, "-m", "upper_rim.cli"]
        _seconds([*cli, "demo", frame])
        importing = _seconds([*cli, "import", str(folder / "pages"), "--like", frame, "--out", bundle, "--quiet"])
        yield Measured(f"{count} pages taken in", importing, None, "s", yardstick)
        yield Measured(
            "published into a folder", _seconds([*cli, "publish", bundle, "--out", out]), None, "s", yardstick
        )
        environment = {**os.environ, "RIM_RUN_FOLDER": str(folder / "run")}
        command = [sys.executable, "-m", "bench.many_pages", bundle, str(count)]
        done = subprocess.run(command, env=environment, check=True, stdout=subprocess.PIPE)
    told = json.loads(done.stdout)
    yield Measured("brought into the studio", told["brought"], None, "s", yardstick)
    yield Measured("the first edition", told["first"], None, "s", yardstick)
    second = MOST_OF_FIRST * told["first"]
    yield Measured("the second, with one page changed", told["second"], second, "s", ("the first", told["first"]))
    yield Measured("the worker's memory", told["megabytes"], MOST_MB, "MB", ("a hundred MB", 100.0))


def _write(folder: Path, count: int) -> None:
    """Most of them in one folder, as in the reference of some library."""
    for number in range(count):
        branch = f"api/{number}" if number % 5 else f"archive/{number % 40}/{number}"
        place = folder / branch
        place.mkdir(parents=True)
        (place / "index.html").write_bytes(page_source(number, KILOBYTES))
    (folder / "style.css").write_text("body { margin: 0 }")


def _seconds(command: list[str]) -> float:
    begin = time.perf_counter()
    done = subprocess.run(command, stderr=subprocess.DEVNULL)
    assert done.returncode in {0, 1}, "done, though something may deserve a look"
    return time.perf_counter() - begin


def main() -> None:
    bundle, count = Path(sys.argv[1]), int(sys.argv[2])
    with asking() as (_, user):
        from django.core.files.base import File

        from upper_rim.core.exchange.bundle import frame_in
        from upper_rim.web import wall
        from upper_rim.web.jobs.arriving import take_in
        from upper_rim.web.jobs.publishing import make_edition, new_edition
        from upper_rim.web.sites import contents, store
        from upper_rim.web.sites.models import Work

        stored = store.new_site(user, wall.read(frame_in, str(bundle)), {}, slug=f"bench-{os.getpid()}")
        with bundle.open("rb") as file:
            work = Work.objects.create(
                site=stored,
                author=user,
                kind=Work.Kind.BRING_IN,
                name=bundle.name,
                file=File(file, name=bundle.name),
                details={"bundle": True},
            )
        told = {"brought": _timed(lambda: take_in(work.pk))}
        work.refresh_from_db()
        assert work.state == Work.State.DONE, work.message
        told["first"] = _timed(lambda: make_edition(new_edition(stored, user.pk).pk))
        page = store.load(stored.pk).site.pages[count // 2]
        source = page_source(count // 2, KILOBYTES).replace(b"</main>", b"<p>Something else</p></main>")
        contents.keep_contents({digest(source): source})
        store.submit(stored.pk, user, _changed(page, source))
        told["second"] = _timed(lambda: make_edition(new_edition(stored, user.pk).pk))
        told["megabytes"] = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1000
        stored.delete()
    print(json.dumps(told))


def _changed(page: Page, source: bytes) -> Edit:
    """As a page that comes in again does."""
    new = described_page(Page(id=page.id, path=page.path, language=page.language), source).replaced(title=page.title)
    add = Add(parent="site", slot="pages", values=(new.model_dump(mode="json"),))
    return Together(edits=(Remove(nodes=(page.id,)), add))


def _timed(act: Callable[[], None]) -> float:
    begin = time.perf_counter()
    act()
    return time.perf_counter() - begin


if __name__ == "__main__":
    main()
