"""What holds for every run: the same examples each time, and how long each file of tests took."""

from __future__ import annotations

import os
import random
from collections import Counter
from collections.abc import Set
from typing import Any

import pytest
from hypothesis import settings

TOLD_FROM_S = 60.0
"""A run that took less needs no table."""


# A run says the same of the same code wherever it is made. `EXPLORE=1 ./test core` draws other examples each time:
# what it finds becomes a worked example of its own.
settings.register_profile("same", derandomize=True, deadline=None)
settings.register_profile("explore", derandomize=False, deadline=None)
settings.load_profile("explore" if os.environ.get("EXPLORE") else "same")


class FileTimes:
    def __init__(self) -> None:
        self.seconds: Counter[str] = Counter()

    def pytest_runtest_logreport(self, report: pytest.TestReport) -> None:
        self.seconds[report.location[0]] += report.duration

    def pytest_terminal_summary(self, terminalreporter: Any) -> None:
        whole = sum(self.seconds.values())
        if whole >= TOLD_FROM_S:
            terminalreporter.section(f"seconds by file, {whole:.0f} in all", sep="-")
            for name, seconds in self.seconds.most_common():
                terminalreporter.write_line(f"{seconds:7.1f}  {name}")


def pytest_configure(config: pytest.Config) -> None:
    if not hasattr(config, "workerinput"):
        config.pluginmanager.register(FileTimes())


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """`SHUFFLE=7 ./test`: files in another order, and in each file its tests, for no test may need one before it."""
    seed = os.environ.get("SHUFFLE")
    if seed:
        files = {item.path: random.Random(f"{seed} {item.path.name}").random() for item in items}
        places = {item.nodeid: random.Random(f"{seed} {item.nodeid}").random() for item in items}
        items.sort(key=lambda item: (files[item.path], places[item.nodeid]))


def pytest_generate_tests(metafunc: pytest.Metafunc) -> None:
    """A set has another order in each process: two workers would not find the same tests."""
    for mark in metafunc.definition.iter_markers("parametrize"):
        if isinstance(mark.args[1], Set):
            raise pytest.UsageError(f"{metafunc.definition.nodeid}: its parameters have no order; give a list")
