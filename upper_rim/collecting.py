"""How often does Python look for what only refers to itself?"""

from __future__ import annotations

import gc

NEW, YOUNG, OLD = 20_000, 20, 20


def collect_rarely() -> None:
    """What is worked out of a site is kept, in millions of values that refer to nothing that refers to them; looking
    through all of these again after every 700 new ones takes a tenth of all the time. For the beginning of a process."""
    gc.set_threshold(NEW, YOUNG, OLD)
