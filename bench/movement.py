"""How long does movement take: simulating, reporting on a site, and the published script's work in a frame?

python -m bench.movement

Prints the best of many, and each as a share of a yardstick of the same run: reading the demo's 42 pages from JSON.
"""

from __future__ import annotations

import random
from collections.abc import Iterator

from tests.browser.conftest import load_faces, plain_chromium
from tests.fit_judge import served
from tests.movement_judge import looks_through
from upper_rim.core.findings.checks.laid_out.movement import in_movement_of_all
from upper_rim.core.fit.advice.opened import SCREENS
from upper_rim.core.fit.rows.fitter import Fitter
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.model.site import Site
from upper_rim.core.movement.content import estimated_content_px
from upper_rim.core.movement.play import play
from upper_rim.core.movement.scene import Scenes, Shape
from upper_rim.core.output.fitting import fitter_of
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.output.publication import publication
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

from .measured import Measured, table, timed

_FRAMES = """
const done = arguments[0], work = [];
let long = 0;
new PerformanceObserver((list) => (long += list.getEntries().length)).observe({ type: 'longtask' });
const frame = () => new Promise((next) => requestAnimationFrame(next));
(async () => {
  const most = document.documentElement.scrollHeight - innerHeight;
  for (let n = 0; n < 240; n += 1) {
    scrollTo(0, Math.round(most * (n < 120 ? n / 120 : 2 - n / 120)));
    await frame();
    const began = performance.now();
    dispatchEvent(new Event('scroll'));
    work.push(performance.now() - began);
  }
  done([work.sort((a, b) => a - b)[120], work[239], long]);
})();
"""


def measure(tiny: bool) -> Iterator[Measured]:
    site, contents = ostrey()
    fitter = fitter_of(shelf(), contents.__getitem__, 2026, foresees=False)
    told = site.model_dump_json()
    times = 2 if tiny else 15
    yardstick = ("the demo read from JSON", timed(times, lambda: Site.model_validate_json(told)))
    page = next(page for page in site.pages if page.path == "/guide/walks/")
    laid = Scenes(fitter, site).of(page, (390, 844), Shape(3000.0))
    five = laid._replace(bodies=tuple(body for body in laid.bodies if body.kind != "sidebar"))
    chance, ys = random.Random(1), [0.0]
    for _ in range(9999):
        ys.append(min(five.scrolls_px, max(0.0, ys[-1] + chance.uniform(-80, 90))))

    def simulate() -> None:
        played = play(five, ys)
        played.covered()
        list(played.events())

    yield Measured("10,000 moments of a stack of five", timed(times, simulate), 50.0, "ms", yardstick)
    heights = {
        (page.id, width): estimated_content_px(contents[page.content or ""].decode(), float(width))
        for page in site.pages
        for width, _ in SCREENS
    }

    def whole(fitter: Fitter = fitter) -> None:
        in_movement_of_all(Scenes(fitter, site), lambda page, viewport: Shape(heights[page.id, viewport[0]]))

    def anew() -> None:
        whole(fitter_of(shelf(), contents.__getitem__, 2026, foresees=False))

    yield Measured("report for 42 pages at five viewports", timed(min(times, 9), whole), 1000.0, "ms", yardstick)
    yield Measured("the same, nothing known", timed(min(times, 3), anew), None, "ms", yardstick)
    resolved = fitter.resolved(site)
    header = site.pieces[0]
    assert isinstance(header, Header)
    away = header.replaced(moves="away", moves_in=(), stages=(), rows=header.rows[:2])
    still = resolved.replaced(pieces=(away, *resolved.pieces[1:]))
    for name, one in (
        ("style sheet and composer", resolved),
        ("the same with a header that scrolls away", still),
    ):

        def composed(one: Site = one) -> None:
            Composer(one, shelf(), contents.__getitem__, year=2026, fitter=fitter)

        yield Measured(name, timed(min(times, 9), composed), None, "ms", yardstick)


def main() -> None:
    """The same, and what the script costs in a frame that scrolls."""
    print(table(measure(False)))
    site, contents = ostrey()
    driver = plain_chromium()
    try:
        with served() as (files, port):
            for file in publication(site, shelf(), contents.__getitem__, year=2026):
                files[("/" + file.name).removesuffix("index.html")] = file.data
            for viewport in ((1280, 800), (390, 844)):
                looks_through(driver, viewport)
                driver.get(f"http://127.0.0.1:{port}/guide/walks/")
                load_faces(driver)
                median, worst, long_tasks = driver.execute_async_script(_FRAMES)
                print(
                    f"script in a frame that scrolls, {viewport[0]}x{viewport[1]}: {median:.2f} ms in the median, "
                    f"{worst:.2f} at most, {long_tasks} long tasks (asked: 1 ms, none)"
                )
    finally:
        driver.quit()


if __name__ == "__main__":
    main()
