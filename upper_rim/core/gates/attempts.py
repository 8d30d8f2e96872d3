"""How long does a door stay shut after wrong tries?

By visitor and by door, each counted by itself: so many tries, then a wait; the wait doubles with each further round, up to
the longest. A door as a whole bears more, so that a stranger who tries cannot lock all others out for long.
"""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime, timedelta
from typing import Annotated

from pydantic import Field

from ..values.nodes import Value


class Patience(Value):
    tries: Annotated[int, Field(ge=1, le=100)] = 5
    wait_s: Annotated[int, Field(ge=1, le=86_400)] = 60
    longest_s: Annotated[int, Field(ge=1, le=86_400)] = 3600
    forgets_s: Annotated[int, Field(ge=60, le=604_800)] = Field(
        default=86_400, description="A wrong try is forgotten after so long."
    )


def opens_at(patience: Patience, wrong: Sequence[datetime], now: datetime) -> datetime | None:
    """When the next try is heard; None: now. `wrong`: the moments of tries that were heard and wrong, oldest first."""
    since = now - timedelta(seconds=patience.forgets_s)
    counted = [at for at in wrong if at > since]
    rounds, left = divmod(len(counted), patience.tries)
    if not rounds or left:
        return None
    opens = counted[-1] + timedelta(seconds=min(patience.wait_s * 2 ** min(rounds - 1, 30), patience.longest_s))
    return opens if opens > now else None
