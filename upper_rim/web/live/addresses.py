"""At which addresses do sites and stages answer, and whose stage is this?

A stage shows a site's newest, unpublished state to one designer. Its host's first label carries the site, the designer
and a signature, so that it needs no cookie and shares no origin with the studio or with the published site.
"""

from __future__ import annotations

import re
from typing import NamedTuple

from django.conf import settings
from django.utils.crypto import constant_time_compare, salted_hmac


class StageKey(NamedTuple):
    site_id: int
    user_id: int


_STAGE = re.compile(r"^stage-(\d{1,12})-(\d{1,12})-([0-9a-f]{32})$")


def stage_label(key: StageKey) -> str:
    return f"stage-{key.site_id}-{key.user_id}-{_signature(key)}"


def read_stage_label(label: str) -> StageKey | None:
    """The key of a stage's host label; None where it is none, or not signed by us."""
    found = _STAGE.match(label)
    if found is None:
        return None
    key = StageKey(int(found[1]), int(found[2]))
    return key if constant_time_compare(found[3], _signature(key)) else None


def _signature(key: StageKey) -> str:
    return salted_hmac("upper-rim-stage", f"{key.site_id}:{key.user_id}", algorithm="sha256").hexdigest()[:32]


def address(label: str, host_with_port: str) -> str:
    """The origin of a site or stage, on the port at which the studio was asked."""
    port = host_with_port.rpartition(":")[2] if ":" in host_with_port else ""
    return f"{settings.ADDRESS_SCHEME}://{label}.{settings.SITES_DOMAIN}" + (f":{port}" if port else "")


def studio_address(host_with_port: str) -> str:
    port = host_with_port.rpartition(":")[2] if ":" in host_with_port else ""
    return f"{settings.ADDRESS_SCHEME}://{settings.STUDIO_HOST}" + (f":{port}" if port else "")
