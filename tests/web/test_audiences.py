"""For whom something is, as it is said in the studio, looked at and published."""

from __future__ import annotations

import json
import re
from random import Random
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.http import QueryDict
from django.test import Client

from tests.nodes import node_in
from tests.visitors import any_card, any_condition
from upper_rim.core.conditions.audience.audience import Audience
from upper_rim.core.conditions.audience.in_period import InPeriod
from upper_rim.core.conditions.audience.not_closed import NotClosed
from upper_rim.core.conditions.audience.unseen import Unseen
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Set, Together
from upper_rim.core.model.site import Site
from upper_rim.demo import ostrey
from upper_rim.web.jobs import publishing
from upper_rim.web.live.addresses import StageKey, stage_label
from upper_rim.web.sites import store
from upper_rim.web.sites.models import StoredSite
from upper_rim.web.studio.controls.audience import CONTROLS_OF
from upper_rim.web.studio.controls.visitors import fields_of
from upper_rim.web.studio.forms.form_error import FormFault, Posted
from upper_rim.web.studio.forms.posting import posted_edit

from .conftest import signed_in, taken_away


def as_sent(fields: list[Any], **more: str) -> QueryDict:
    """What a browser sends of these fields, untouched."""
    post = QueryDict(mutable=True)
    post.update(more)
    for field in fields:
        match field.kind:
            case "several":
                post.setlist(field.name, list(field.value))
            case "yes":
                if field.value:
                    post[field.name] = "true"
            case _:
                post[field.name] = "" if field.value is None else str(field.value)
    return post


def audience_of(ferries: StoredSite, node: str) -> Audience:
    found: Any = node_in(store.load(ferries.pk).site, node)
    audience: Audience = found.audience
    return audience


@pytest.mark.parametrize("seed", range(60))
def test_a_condition_is_what_its_form_says(seed: int) -> None:
    """Sent as it is shown, nothing becomes otherwise, whichever kind it is."""
    site, _ = ostrey()
    condition = any_condition(Random(seed))
    site = with_audience(site, "it-logo", Audience(some=(any_condition(Random(-seed)), condition)))
    fields = CONTROLS_OF[condition.kind].fields(condition, site)
    posted = posted_edit(site, as_sent(fields, do="condition", node="it-logo", part="some", at="1"))
    assert isinstance(posted, Posted) and isinstance(posted.edit, Set)
    assert Audience.model_validate(posted.edit.value) == node_in(site, "it-logo").audience  # type: ignore[attr-defined]


def with_audience(site: Site, node: str, audience: Audience) -> Site:
    changed = apply(site, Set(node=node, field="audience", value=audience.model_dump(mode="json")))
    assert isinstance(changed, Site)
    return changed


@pytest.mark.parametrize("seed", range(60))
def test_a_visitor_is_who_the_form_says(seed: int) -> None:
    chance = Random(seed)
    card = any_card(chance)
    site, _ = ostrey()
    site = with_audience(site.replaced(cards=(card,)), "pc-winter", Audience(every=(NotClosed(), Unseen())))
    fields = [field for _, some in fields_of(card, site) for field in some]
    posted = posted_edit(site, as_sent(fields, do="card", node=card.id))
    assert isinstance(posted, Posted) and posted.edit == Together(edits=())


def test_conditions_are_added_changed_and_taken_away(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    screen = "/s/ostrey/pieces/pc-main/?select=it-book&tray=who"
    for part, kind in zip(("every", "some", "none") * 4, CONTROLS_OF, strict=False):
        answer = client.post(screen, {"do": "condition:add", "node": "it-book", "part": part, "kind": kind})
        assert CONTROLS_OF[kind].name in answer.content.decode()
    assert {one.kind for one in audience_of(ferries, "it-book").conditions} == set(CONTROLS_OF)
    places = [
        (part, one.kind) for part in Audience.model_fields for one in getattr(audience_of(ferries, "it-book"), part)
    ]
    for part, _ in places:
        client.post(screen, {"do": "condition:remove", "node": "it-book", "part": part, "at": "0"})
    assert audience_of(ferries, "it-book").is_everybody
    for wrong in ({"part": "every", "at": "0"}, {"part": "all", "at": "0"}, {"part": "every", "at": "x"}, {}):
        assert client.post(screen, {"do": "condition", "node": "it-book", **wrong}).status_code == 422


@pytest.mark.parametrize(
    ("kind", "typed", "name", "said"),
    [
        ("region", {"regions": "GB, Wales"}, "regions", "“Wales” will not do for “Countries, or parts of them”"),
        ("region", {"regions": ""}, "regions", "say something for “Countries, or parts of them”"),
        ("visits", {"first": "3", "last": "2"}, "first", "the last visit comes before the first"),
        ("came-from", {"days": "0"}, "hosts", "say a host, or the name of a parameter"),
        (
            "period",
            {"begins": "2026-11-02T00:00", "yearly": "true", "zone_of": "site"},
            "begins",
            "a beginning and an end",
        ),
        ("unseen", {"days": "0"}, "days", "“0” will not do"),
        ("device", {"pointer": "toe"}, "pointer", "“toe” will not do for “Points with”"),
    ],
)
def test_what_a_condition_cannot_be_is_told_at_its_field_and_changes_nothing(
    kind: str, typed: dict[str, str], name: str, said: str
) -> None:
    site, _ = ostrey()
    begun = CONTROLS_OF[kind].begins(site)
    audience = Audience.model_validate({"every": [{"kind": kind, **begun}]})
    post = QueryDict(mutable=True)
    post.update({"do": "condition", "node": "it-book", "part": "every", "at": "0", **typed})
    fault = posted_edit(with_audience(site, "it-book", audience), post)
    assert isinstance(fault, FormFault) and fault.name == name and said in fault.words


def test_the_stage_shows_what_a_visitor_gets(ferries: StoredSite, ada: User) -> None:
    stage = Client(HTTP_HOST=f"{stage_label(StageKey(ferries.pk, ada.pk))}.localhost")

    def seen(path: str, card: str = "") -> str:
        return stage.get(path, {"rim-as": card} if card else {}).content.decode()

    def notice(path: str, card: str = "") -> list[str]:
        return re.findall(r'data-rim-node="(it-(?:welcome|winter))"', seen(path, card))

    assert notice("/harbours/", "vc-first") == ["it-welcome"] and notice("/harbours/", "vc-regular") == ["it-winter"]
    assert notice("/harbours/") == ["it-welcome"], "whoever gets it"
    assert 'data-rim-out="it-crossings"' in seen("/travelling/", "vc-first")
    assert 'data-rim-out="it-sign-in"' in seen("/travelling/", "vc-regular")
    assert 'data-rim-out=""' in seen("/travelling/") and "<script data-rim-out" not in seen("/", "vc-first")


def test_the_workbench_says_who_gets_it_and_looks_as_they_do(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    html = client.get("/s/ostrey/pieces/pc-welcome/?tray=who").content.decode()
    assert "Those who come for the first time" in html and "<b>First visit, phone</b>" in html
    assert "Not Regular, signed in: only for those who come for the first time" in html
    html = client.get("/s/ostrey/pieces/pc-welcome/?page=/harbours/&as=vc-regular&into=as").content.decode()
    assert "?rim-as=vc-regular" in html and "Winter timetable, everywhere; First visit is for those" in html
    assert 'data-goes-to="390"' in client.get("/s/ostrey/pieces/pc-main/?as=vc-first&into=as").content.decode()


def test_visitors_are_created_changed_doubled_and_removed(ferries: StoredSite, ada: User, ben: User) -> None:
    client, screen = signed_in(ada), "/s/ostrey/visitors/"
    client.post(screen, {"do": "add", "what": "card", "name": "Night reader"})
    made = store.load(ferries.pk).site.cards[-1]
    assert made.name == "Night reader" and made.zone == "Europe/London"
    sent = as_sent([field for _, some in fields_of(made, store.load(ferries.pk).site) for field in some])
    sent.update({"do": "card", "node": made.id})
    sent["clock"], sent["zone"] = "2026-07-01T23:00", "Europe/Berlin"
    assert client.post(screen, sent).status_code == 200
    assert store.load(ferries.pk).site.cards[-1].clock == "2026-07-01T21:00Z"
    for name, typed in (("zone", "Europe/Atlantis"), ("languages", "no language"), ("visit", "0"), ("region", "Wales")):
        wrong = sent.copy()
        wrong[name] = typed
        answer = client.post(screen, wrong)
        assert answer.status_code == 422 and f'data-name="{name}"' in answer.content.decode(), name
    client.post(screen, {"do": "duplicate", "node": made.id})
    assert store.load(ferries.pk).site.cards[-1].name == "Night reader, copy"
    client.post(screen, {"do": "remove", "node": made.id})
    assert made.id not in {card.id for card in store.load(ferries.pk).site.cards}
    assert signed_in(ben).get(screen).status_code == 404


def test_the_end_of_a_time_is_turned_on_the_timetable(ferries: StoredSite, ada: User) -> None:
    client, screen = signed_in(ada), "/s/ostrey/timetable/?from=2026-11-30&days=28"
    period = {"kind": "period", "begins": "2026-12-07T00:00", "ends": "2026-12-14T00:00"}
    edit = {"kind": "set", "node": "pc-spring", "field": "audience", "value": {"every": [period]}}
    client.post(screen, {"do": "edit", "edit": json.dumps(edit)})
    html = client.get(screen).content.decode()
    assert 'aria-valuenow="10080"' in html and "Mon 7 Dec 00:00 to Mon 14 Dec 00:00" in html
    turned = {"do": "turn-time", "node": "pc-spring", "at": "0", "from": "2026-11-30"}
    assert client.post(screen, {**turned, "end": "ends", "minutes": str(9 * 1440 + 70)}).status_code == 200
    (said,) = audience_of(ferries, "pc-spring").every
    assert isinstance(said, InPeriod) and said.ends == "2026-12-09T01:00", "to the hour"
    answer = client.post(screen, {**turned, "end": "ends", "minutes": "0"})
    assert answer.status_code == 422 and "it ends before it begins" in answer.content.decode()
    for wrong in ({"end": "middle", "minutes": "0"}, {"end": "ends", "minutes": "soon"}, {"end": "ends"}, {"at": "7"}):
        assert client.post(screen, {**turned, **wrong}).status_code == 422
    assert audience_of(ferries, "pc-spring").every == (said,)
    for asked in ("from=2026-13-45", "from=9999-12-20&days=364", "days=7", "from=0001-01-01"):
        assert client.get(f"/s/ostrey/timetable/?{asked}").status_code == 200, asked


@pytest.fixture
def live(ferries: StoredSite, ada: User) -> Client:
    publishing.make_edition(publishing.new_edition(ferries, ada.pk).pk)
    return Client(HTTP_HOST="ostrey.localhost")


def test_all_visitors_get_the_same_bytes_and_a_small_answer_of_their_own(live: Client, settings: Any) -> None:
    pages = ("/", "/harbours/", "/travelling/", "/ar/", "/sailings/fares/")
    other = {"HTTP_ACCEPT_LANGUAGE": "ar", "HTTP_REFERER": "https://letters.example/", "REMOTE_ADDR": "203.0.113.9"}
    first = [live.get(page).content for page in pages]
    live.post("/_rim/sign-in/", {"do": "in", "groups": "regulars, <crew>"})
    assert live.cookies["rim-member"].value == "regulars.crew"
    assert [live.get(page, **other).content for page in pages] == first
    assert [b'src="/_rim/visitor.js"' in page for page in first] == [False, False, True, False, False]
    answer = live.get("/_rim/visitor.js", **other)
    assert answer.content == b'window.rimVisitor={"region":"GB-WLS"}' and answer["Cache-Control"] == "private, no-store"
    settings.REGION_HEADER = "X-Edge-Region"
    for said, region in (("de-by", b"DE-BY"), ("<script>", b""), ("", b"")):
        assert (
            live.get("/_rim/visitor.js", HTTP_X_EDGE_REGION=said).content
            == b'window.rimVisitor={"region":"%s"}' % region
        )
    live.post("/_rim/sign-in/", {"do": "out"})
    assert not live.cookies["rim-member"].value


def test_in_a_folder_of_files_nobody_is_known(ferries: StoredSite, ada: User) -> None:
    edition = publishing.new_edition(ferries, ada.pk)
    publishing.make_edition(edition.pk)
    files = taken_away(signed_in(ada), number=edition.number)
    assert files["_rim/visitor.js"] == b"window.rimVisitor=window.rimVisitor||{}"
