"""What time is it? Said from outside where the same has to come out each time."""

from __future__ import annotations

import os
from datetime import UTC, datetime


def present() -> datetime:
    """The present, or the moment that `SOURCE_DATE_EPOCH` says in seconds since 1970
    (reproducible-builds.org/specs/source-date-epoch)."""
    said = os.environ.get("SOURCE_DATE_EPOCH", "")
    return datetime.fromtimestamp(int(said), UTC) if said.isdecimal() else datetime.now(UTC)
