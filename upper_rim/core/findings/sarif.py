"""All that was found about a site for other tools: SARIF 2.1.0 (OASIS)."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from .finding import FindingKind
from .let_be import Sorted, as_it_is
from .severity import SOURCES, Severity, severity_of
from .told import Teller
from .whole import Cause

_LEVELS: dict[Severity, str] = {"breaks": "error", "hinders": "warning", "doubtful": "note"}
_SCHEMA = "https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json"


def as_sarif(found: Sorted, teller: Teller, version: str) -> dict[str, Any]:
    """What is let be is suppressed there (3.35)."""
    listed = [*((cause, None) for cause in found.open), *found.let_be]
    rules = dict.fromkeys(cause.kind for cause, _ in listed)
    results = []
    for cause, said in listed:
        result = _result(cause, teller)
        if said is not None:
            result["suppressions"] = [{"kind": "external", "justification": said.reason}]
        results.append(result)
    driver = {"name": "upper-rim", "version": version, "rules": [_rule(kind) for kind in rules]}
    return {"$schema": _SCHEMA, "version": "2.1.0", "runs": [{"tool": {"driver": driver}, "results": results}]}


def _rule(kind: FindingKind) -> dict[str, Any]:
    source = {"help": {"text": SOURCES[kind]}} if kind in SOURCES else {}
    return {
        "id": kind.replace(" ", "-"),
        "shortDescription": {"text": f"{kind[:1].upper()}{kind[1:]}"},
        "defaultConfiguration": {"level": _LEVELS[severity_of(kind)]},
        **source,
    }


def _result(cause: Cause, teller: Teller) -> dict[str, Any]:
    return {
        "ruleId": cause.kind.replace(" ", "-"),
        "level": _LEVELS[cause.severity],
        "message": {"text": teller.line(cause)},
        "locations": list(_locations(cause, teller)),
        "partialFingerprints": {"cause/v1": cause.key, "numbers/v1": as_it_is(cause)},
    }


def _locations(cause: Cause, teller: Teller) -> Iterator[dict[str, Any]]:
    named = [{"name": teller.name(cause.node), "fullyQualifiedName": "/".join(teller.where(cause)), "kind": "object"}]
    paths = dict.fromkeys(teller.page(one.place.page) for one in cause.findings if one.place.page)
    for path in paths or [""]:
        physical = {"physicalLocation": {"artifactLocation": {"uri": path.lstrip("/") or "index.html"}}} if path else {}
        yield {"logicalLocations": named, **physical}
