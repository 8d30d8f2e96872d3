"""No bench of a screen rots: each runs at a tiny size, and tells its figures."""

from __future__ import annotations

import pytest

from bench import browsing
from bench.__main__ import BENCHES
from bench.measured import table

from .conftest import Running


@pytest.mark.parametrize("name", ["fit_on_screen", "swatch_on_stage", "slow_processor"])
def test_a_bench_of_a_screen_runs_and_tells_what_it_got(
    running: Running, monkeypatch: pytest.MonkeyPatch, name: str
) -> None:
    monkeypatch.setattr(browsing, "application", lambda: running)
    found = list(BENCHES[name](True))
    assert found and all(one.got > 0 and one.yardstick[1] > 0 for one in found)
    assert all(one.name in table(found) for one in found)
