"""Who is asked for consent, what waits for it, and what is said of a question that is not as it should be."""

from __future__ import annotations

import gzip
import json
import re
from datetime import timedelta
from random import Random
from typing import Any

import pytest

from tests.consent_judge import OPTIONAL, PATHS, any_visitor, asking
from tests.folder import taken_away
from upper_rim.core.exchange.carrying import carried
from upper_rim.core.exchange.html.markers import strip
from upper_rim.core.exchange.imports.import_pages import described_page, digest
from upper_rim.core.findings.checks.shown.consent import in_consent
from upper_rim.core.gates.asking import ConsentVisit, asked_in_short
from upper_rim.core.gates.waiting import hosts_found, needed_for, parts_of
from upper_rim.core.kinds.consent import OtherHost, host_said
from upper_rim.core.kinds.items.answer import Answer
from upper_rim.core.kinds.items.embed import Embed
from upper_rim.core.kinds.pieces.consent import QUESTION_PLACES
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Add, Edit, Remove, Set, Together
from upper_rim.core.model.editing.refusal import Refusal
from upper_rim.core.model.site import Cut, Page, Site, Snippet
from upper_rim.core.output.publication import CONSENT_PATH, publication
from upper_rim.demo import ostrey, quillwort
from upper_rim.shipped import shelf


def edited(site: Site, *edits: Edit) -> Site:
    made = apply(site, Together(edits=edits))
    assert isinstance(made, Site), made
    return made


def published(site: Site, contents: dict[str, bytes]) -> dict[str, bytes]:
    return {file.name: file.data for file in publication(site, shelf(), contents.__getitem__)}


def kinds(site: Site) -> list[str]:
    return [one.kind for one in in_consent(site, hosts_found(site))]


@pytest.mark.parametrize("seed", range(40))
def test_before_a_yes_nothing_that_waits_is_fetched_and_after_it_all_of_it(seed: int) -> None:
    site, _ = asking(seed)
    for page in site.pages:
        visit = ConsentVisit(site, any_visitor(Random(seed), has_region=False).replaced(has_script=True))
        parts = parts_of(site, page, visit.shown(page))
        free = {host for part in parts if not part.waits for host in part.hosts}
        assert visit.fetched_on(page) == free, "where nobody knows the region, nothing runs unasked"
        visit.say("yes")
        assert visit.fetched_on(page) == {host for part in parts for host in part.hosts}
        visit.say("no")
        assert visit.fetched_on(page) == free
        for one in OPTIONAL:
            visit.say("ticked", [one])
            assert visit.fetched_on(page) == {host for part in parts if set(part.waits) <= {one} for host in part.hosts}


def test_an_answer_counts_for_its_days_and_to_what_was_asked() -> None:
    site, _ = ostrey()
    page = next(page for page in site.pages if page.path == "/travelling/")
    visit = ConsentVisit(site, site.cards[0])
    assert visit.on(page).is_put and visit.fetched_on(page) == frozenset()
    visit.say("ticked", ["preferences"])
    assert visit.fetched_on(page) == {"charts.saltmarsh.example"} and not visit.on(page).is_put
    visit.wait(timedelta(days=179))
    assert not visit.on(page).is_put
    visit.wait(timedelta(days=1))
    assert visit.on(page).is_put and visit.fetched_on(page) == frozenset()
    more = edited(site, Add(parent="site", slot="categories", values=({"id": "own-one", "words": {"text": "Films"}},)))
    said = edited(site, Set(node="it-consent-yes", field="words", value={"text": "Go ahead"}))
    assert len({asked_in_short(one) for one in (site, more, said)}) == 3
    assert asked_in_short(edited(site, Set(node="pc-consent", field="place", value="whole"))) == asked_in_short(site)


def test_a_signal_is_a_no_to_what_it_speaks_of_where_no_yes_is_needed() -> None:
    site, _ = ostrey()
    site = edited(site, Set(node="statistics", field="is_sold", value=True))
    card = site.cards[0].replaced(region="US-CA")
    page = site.pages[0]
    assert set(ConsentVisit(site, card).on(page).agreed) == {"necessary", "preferences", "statistics"}
    signals = ConsentVisit(site, card.replaced(signals=True))
    assert set(signals.on(page).agreed) == {"necessary", "preferences"}
    signals.say("yes")
    assert "statistics" in signals.on(page).agreed, "an answer of one's own counts more"


def test_what_is_said_of_a_host_is_said_of_all_below_it() -> None:
    hosts = (OtherHost(id="ho-1", host="a.example"), OtherHost(id="ho-2", host="x.a.example", category="statistics"))
    found = {
        host: one.id if (one := host_said(host, hosts)) else ""
        for host in ("a.example", "y.x.a.example", "z.a.example", "ba.example")
    }
    assert found == {"a.example": "ho-1", "y.x.a.example": "ho-2", "z.a.example": "ho-1", "ba.example": ""}
    site = ostrey()[0].replaced(hosts=(*hosts, OtherHost(id="ho-3", host="b.example", category="necessary")))
    assert needed_for(site, ["y.x.a.example", "b.example"]) == "statistics"
    assert needed_for(site, ["a.example"], "preferences") == "preferences" and needed_for(site, ["b.example"]) == ""


@pytest.mark.parametrize("seed", range(12))
def test_published_pages_less_what_was_put_in_are_as_they_came(seed: int) -> None:
    site, contents = asking(seed)
    files = published(site, contents)
    for page in site.pages:
        data = files[f"{page.path[1:]}index.html"]
        assert strip(data) == contents[str(page.content)]
    assert json.loads(files[CONSENT_PATH[1:]])["kept_days"] == 1095
    assert CONSENT_PATH[1:] not in taken_away(site, contents)


def test_what_is_cut_out_waits_for_nothing() -> None:
    text = b'<!DOCTYPE html><title>T</title><body><h1>T</h1><div><img src="//h.example/p.gif"></div><img src="//i.example/p.gif"></body>'
    site, _ = asking(1)
    at, end = text.index(b"<div>"), text.index(b"</div>") + 6
    page = described_page(Page(id="pg-cut", path="/cut/"), text).replaced(cuts=(Cut(start=at, end=end, lift="lf-1"),))
    hosts = tuple(OtherHost(id=f"ho-{one}", host=f"{one}.example", category=site.categories[-1].id) for one in "hi")
    site = site.replaced(pages=(page,), hosts=hosts, snippets=(), pieces=site.pieces[1:])
    assert [part.hosts for part in parts_of(site, page, ())] == [("i.example",)]
    data = published(site, {digest(text): text})["cut/index.html"]
    assert b"h.example" not in data and data.count(b"data-rim-then-src") == 1


def test_sites_that_ask_nothing_and_pages_that_fetch_nothing_carry_nothing_of_it() -> None:
    site, contents = quillwort()
    assert not any(b"data-rim-consent" in data or b"rim-agreed" in data for data in published(site, contents).values())
    site, contents = ostrey()
    bare = edited(site, Remove(nodes=("pc-consent",)))
    assert not any(b"data-rim-consent" in data or b"rim-agreed" in data for data in published(bare, contents).values())
    loads = b"https://count.tidemark.example/count.js"
    assert loads in published(bare, contents)["index.html"], "what nobody can say yes to does not wait"


def test_the_script_and_its_table_are_small() -> None:
    files = published(*ostrey())
    page = files["index.html"].decode()
    table = re.search(r"<script type=\"application/json\" data-rim-consent>(.*?)</script>", page)
    assert table is not None
    script = shelf().consent_script.encode()
    assert len(gzip.compress(script, 9)) + len(gzip.compress(table[1].encode(), 9)) <= 3000
    assert script in files.values()
    said = json.loads(table[1])
    assert said["asked"] == asked_in_short(ostrey()[0]) and ["statistics", 0, "tm_*"] in said["of"]


def test_all_hosts_are_found_with_what_is_fetched_and_where() -> None:
    site, _ = ostrey()
    found = {one.host: one for one in hosts_found(site)}
    chart, count = found["charts.saltmarsh.example"], found["count.tidemark.example"]
    assert chart.kinds == ("embed",) and 0 < chart.pages < len(site.pages)
    assert count.kinds == ("snippet",) and count.pages == len(site.pages)
    assert chart.said is not None and chart.said.host == "saltmarsh.example"
    assert found.keys() == {"charts.saltmarsh.example", "count.tidemark.example"}, (
        "what is said of those above is theirs"
    )
    quiet = edited(site, Remove(nodes=("sn-counting",)))
    assert [one.pages for one in hosts_found(quiet) if one.host == "tidemark.example"] == [0]


@pytest.mark.parametrize(
    ("edit", "kind"),
    [
        (Remove(nodes=("it-consent-no",)), "no no to all"),
        (Remove(nodes=("it-consent-yes",)), "no yes to all"),
        (Set(node="it-consent-no", field="look", value="link"), "unequal answers"),
        (Set(node="it-consent-words", field="rich", value={"text": "<p>May we?</p>"}), "no policy"),
        (Remove(nodes=("it-privacy",)), "no way back"),
        (Set(node="pc-consent", field="place", value="bar-bottom"), "over a bar"),
        (Set(node="pc-consent", field="place", value="top-end"), "over a button"),
        (Set(node="pc-consent", field="place", value="bar-top"), "two at once"),
        (Remove(nodes=("ho-charts",)), "unknown hosts"),
        (Set(node="pc-consent", field="on", value=False), "waits for nobody"),
    ],
)
def test_what_is_wrong_with_a_question_is_found(edit: Edit, kind: str) -> None:
    site, _ = ostrey()
    assert kinds(site) == []
    assert kind in kinds(edited(site, edit))


@pytest.mark.parametrize("place", QUESTION_PLACES)
@pytest.mark.parametrize("says", ["yes", "no", "ticked"])
def test_answers_are_what_they_say_they_are_whatever_their_words(place: str, says: str) -> None:
    site, contents = ostrey()
    item = next(one for one in site.shown_items(site.pieces[-1]) if isinstance(one, Answer) and one.says == says)
    site = edited(
        site,
        Set(node="pc-consent", field="place", value=place),
        Set(node=item.id, field="words", value={"text": "Whatever"}),
    )
    page = published(site, contents)["index.html"].decode()
    assert f'type="button" data-rim-answer="{says}">Whatever</button>' in page
    assert (
        page.index("data-rim-question") < page.index("<header")
        and "hidden" in page[page.index("data-rim-question") :][:40]
    )


def test_a_tick_is_no_answer_elsewhere_and_a_category_that_something_waits_for_stays() -> None:
    site, _ = ostrey()
    for edit in (
        Set(node="it-shop-yes", field="says", value="ticked"),
        Add(parent="cl-end", slot="items", values=({"id": "it-new", "kind": "choices"},)),
        Remove(nodes=("statistics",)),
        Set(node="it-help-chart", field="address", value="javascript:alert(1)"),
        Set(node="it-help-chart", field="address", value="https:///nowhere"),
        Set(node="it-help-chart", field="category", value="gone"),
    ):
        assert isinstance(apply(site, edit), Refusal), edit


def test_who_takes_a_piece_along_takes_what_it_waits_for_where_that_is_known() -> None:
    source, target = ostrey()[0], quillwort()[0]
    source = edited(source, Set(node="it-help-chart", field="category", value="statistics"))
    ids = iter(range(10_000))

    def taken(target: Site) -> Any:
        edit = carried(source, target, ["pc-help"], {}, lambda letters: f"{letters}-new{next(ids)}")
        made = edited(target, edit)
        embeds = [i for piece in made.pieces for i in made.shown_items(piece) if isinstance(i, Embed)]
        return embeds[0].category

    assert taken(target) == "statistics"
    assert taken(target.replaced(categories=target.categories[:1])) is None


def test_every_page_of_the_demo_asks_but_those_that_stand_alone() -> None:
    site, _ = ostrey()
    visit = ConsentVisit(site, site.cards[0])
    put = {page.path for page in site.pages if visit.on(page).is_put}
    assert {page.path for page in site.pages} - put == {"/sailings/winter/"} and PATHS[0] in put


def test_a_way_back_in_a_drawer_is_one_and_brings_its_script() -> None:
    site, contents = ostrey()
    row = site.pieces[[piece.id for piece in site.pieces].index("pc-drawer")].rows[0]
    moved = edited(
        site,
        Remove(nodes=("it-privacy",)),
        Add(parent=row.cells[0].id, slot="items", values=({"id": "it-back", "kind": "privacy"},)),
        Set(node="rr-consent", field="where", value={"kind": "below", "path": "/guide/"}),
        Remove(nodes=("sn-counting",)),
    )
    fares = published(moved, contents)["sailings/fares/index.html"]
    assert b"data-rim-choices" in fares and b"data-rim-consent" in fares and b"data-rim-question" not in fares
    page = next(page for page in site.pages if page.path == "/guide/birds/")
    assert ConsentVisit(moved, site.cards[0]).question(page) is not None


def test_a_snippet_that_waits_brings_the_script_to_pages_in_any_encoding() -> None:
    site, _ = asking(3)
    text = "<!DOCTYPE html><title>T</title><body><h1>T</h1></body>"
    waits = site.categories[-1].id
    snippet = Snippet(id="sn-1", name="S", code='<script src="//h.example/s.js"></script>', waits=waits)
    for encoding, bom in (("utf-8", b""), ("utf-16le", b"\xff\xfe")):
        content = bom + text.encode(encoding)
        page = described_page(Page(id="pg-1", path="/only/"), content)
        question = site.pieces[-1].replaced(reach=())
        made = site.replaced(pages=(page,), snippets=(snippet,), pieces=(question,))
        data = published(made, {digest(content): content})["only/index.html"].decode(encoding)
        assert "data-rim-consent" in data and f'data-rim-waits="{waits}"' in data


def test_an_embed_by_code_alone_leads_nowhere_and_says_nobody() -> None:
    site, contents = ostrey()
    code = '<script src="https://code.saltmarsh.example/w.js"></script>'
    edits = (Set(node="it-help-chart", field="address", value=""), Set(node="it-help-chart", field="code", value=code))
    page = published(edited(site, *edits), contents)["travelling/index.html"].decode()
    frame = page[page.index("data-rim-embed") :][:900]
    assert 'data-rim-waits="preferences"' in frame and "data-rim-then-srcdoc=" in frame and "data-rim-once" in frame
    assert 'href=""' not in frame and "comes from" not in frame
