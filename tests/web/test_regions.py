"""What a screen shows already is not sent again; what is otherwise by now is, and all of it to whoever shows nothing."""

from __future__ import annotations

import re
from itertools import pairwise
from pathlib import Path

from django.contrib.auth.models import User
from django.http import HttpResponse
from django.test import Client

from upper_rim.web.sites.models import StoredSite
from upper_rim.web.studio.cycle.regions import SHOWN
from upper_rim.web.studio.cycle.screen import AHEAD

from .conftest import signed_in

BENCH = "/s/ostrey/pieces/pc-main/"
HTMX = {"HX-Request": "true"}
REGION = re.compile(r'<div class="region" id="region-([\w-]+)" data-state="(\w+)"( data-stays)?>(</div>)?')


def regions(answer: HttpResponse) -> dict[str, tuple[str, bool]]:
    """State of each, and whether it came without what stands in it; what is marked to stay is empty, and nothing else."""
    found = REGION.findall(answer.content.decode())
    assert found and all(bool(stays) == bool(end) for _, _, stays, end in found)
    assert len({name for name, *_ in found}) == len(found), "each has a name of its own"
    return {name: (state, bool(stays)) for name, state, stays, _ in found}


def shown(answer: HttpResponse) -> dict[str, str]:
    return {**HTMX, SHOWN: " ".join(f"{name}={state}" for name, (state, _) in regions(answer).items())}


def anew(client: Client, answer: HttpResponse, address: str) -> set[str]:
    """The regions that come again where `answer` is shown, and come as they do to whoever shows nothing."""
    now, whole = client.get(address, headers=shown(answer)), client.get(address, headers=HTMX)
    assert len(now.content) < len(whole.content)
    assert {name: state for name, (state, _) in regions(now).items()} == {
        name: state for name, (state, _) in regions(whole).items()
    }
    return {name for name, (_, stays) in regions(now).items() if not stays}


def test_what_is_shown_already_stays(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    first = client.get(f"{BENCH}?select=it-menu", headers=HTMX)
    assert not any(stays for _, stays in regions(first).values())
    assert anew(client, first, f"{BENCH}?select=it-menu") == set()
    whole = client.get(f"{BENCH}?select=it-menu", headers={SHOWN: shown(first)[SHOWN].replace("=", "=0")})
    assert not any(stays for _, stays in regions(whole).values()), "another state is shown"


def test_choosing_brings_what_is_about_the_chosen_alone(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    for one, other in pairwise(("it-book", "it-menu", "rw-main", "pc-main", "it-logo")):
        first = client.get(f"{BENCH}?select={one}", headers=HTMX)
        came = anew(client, first, f"{BENCH}?select={other}")
        assert came and not came & {"outline", "ruler", "reach", "others", "places", "account", "scrolling", "find"}


def test_an_edit_brings_what_it_changed(ferries: StoredSite, ada: User) -> None:
    client, address = signed_in(ada), f"{BENCH}?select=it-book&tray=edge"
    first = client.get(address, headers=HTMX)
    form = {
        "do": "style",
        "node": "it-book",
        "property": "border-start-start-radius",
        "value": "3px",
        "select": "it-book",
    }
    answer = client.post(BENCH, {**form, "tray": "edge"}, headers=shown(first))
    assert {name for name, (_, stays) in regions(answer).items() if not stays} == {"style-1", "states", "steps"}
    assert b"3px" in answer.content
    renamed = client.post(
        BENCH, {"do": "set", "node": "pc-main", "field": "name", "value": "Top"}, headers=shown(answer)
    )
    assert "outline" in {name for name, (_, stays) in regions(renamed).items() if not stays}


def test_an_answer_that_is_kept_for_a_moment_names_all_that_the_scripts_ask_with(
    ferries: StoredSite, ada: User
) -> None:
    client, scripts = signed_in(ada), Path(__file__).parents[2] / "upper_rim/web/studio/static/studio/script"
    asked_with = set(re.findall(r'headers\["([\w-]+)"\]', "".join(one.read_text() for one in scripts.glob("*.js"))))
    assert {SHOWN} < asked_with
    kept = client.get(BENCH, headers={**HTMX, AHEAD: "1"})
    assert {*asked_with, AHEAD, "HX-Request", "Cookie"} <= set(kept.headers["Vary"].split(", "))
    assert kept.headers["Cache-Control"] == "private, max-age=3"
    assert "max-age" not in client.get(BENCH, headers=HTMX).headers.get("Cache-Control", "")
    posted = client.post(BENCH, {"do": "undo", "base": "1"}, headers={**HTMX, AHEAD: "1"})
    assert "max-age" not in posted.headers.get("Cache-Control", "")
