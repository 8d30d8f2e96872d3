"""The published site: one composer, links by language, CSS that no page reaches into, bundles that come back whole."""

from __future__ import annotations

import errno
import gzip
import io
import json
import os
import re
import sys
import tempfile
import zipfile
from pathlib import Path

import pytest
import tinycss2
from PIL import Image

import upper_rim
from tests.broken_pages import archive
from upper_rim import VERSION
from upper_rim.cli.__main__ import main
from upper_rim.cli.clock import present
from upper_rim.core.conditions.audience.audience import Audience
from upper_rim.core.conditions.audience.in_period import InPeriod
from upper_rim.core.conditions.audience.visits import Visits
from upper_rim.core.conditions.visitor import VisitorCard
from upper_rim.core.exchange.bundle import BrokenBundle, Bundle, write_bundle
from upper_rim.core.exchange.html.markers import strip
from upper_rim.core.exchange.imports.import_pages import described_page, digest, file_name
from upper_rim.core.kinds.items.logo import Logo
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Remove, Set, Together
from upper_rim.core.model.editing.refusal import Refusal
from upper_rim.core.model.site import Cut, Lift, Page, Site
from upper_rim.core.model.tree import items_of
from upper_rim.core.output.css.sheet import sheet
from upper_rim.core.output.css.style_rules import band_queries
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.output.publication import publication
from upper_rim.demo import ostrey, quillwort
from upper_rim.shipped import shelf


def published(site: Site, contents: dict[str, bytes]) -> dict[str, bytes]:
    return {file.name: file.data for file in publication(site, shelf(), contents.__getitem__)}


def test_the_demo_has_what_its_story_says() -> None:
    site, contents = ostrey()
    assert len(site.pages) == 42
    assert {page.language for page in site.pages} == {"en", "de", "cy", "ar"}
    files = published(site, contents)
    assert b"q7xk-pc-main" in files["index.html"]
    assert b"q7xk-pc-press" in files["press/index.html"] and b"q7xk-pc-main" not in files["press/index.html"]
    assert b"q7xk" not in files["sailings/winter/index.html"]
    assert b"q7xk-pc-main" in files["404.html"]


def test_menus_speak_the_pages_language_and_know_the_current_page() -> None:
    files = published(*ostrey())
    arabic = files["ar/timetable/index.html"].decode()
    assert 'lang="ar" dir="rtl"' in arabic
    assert '<a href="/ar/timetable/" aria-current="page">المواعيد</a>' in arabic
    assert '<a href="/harbours/"><span>الموانئ<' in arabic, "what has no translation leads to the original"
    assert files["index.html"].count(b'aria-current="page"') == 0
    assert files["sailings/fares/index.html"].count(b'aria-current="page"') == 2, "in each of the header's two rows"


def test_a_page_that_goes_takes_its_menu_entries_with_it() -> None:
    site, contents = ostrey()
    after = apply(site, Remove(nodes=("pg-guide",)))
    assert isinstance(after, Site)
    page = published(after, contents)["index.html"]
    assert b'/guide/"' not in page and b">Island guide</a>" not in page
    moved = apply(site, Set(node="pg-guide", field="path", value="/islands/"))
    assert isinstance(moved, Site)
    assert b'href="/islands/">Island guide' in published(moved, contents)["index.html"]


def test_every_declaration_is_important_and_in_the_first_layer() -> None:
    site, _ = ostrey()
    css = sheet(site, shelf(), "")
    rules = [rule for rule in tinycss2.parse_stylesheet(css, True, True) if rule.type != "error"]
    assert {rule.at_keyword for rule in rules if rule.type == "at-rule"} <= {"font-face", "layer"}
    assert not [rule for rule in rules if rule.type == "qualified-rule"], "nothing stands outside the layer"
    layer = next(rule for rule in rules if rule.type == "at-rule" and rule.at_keyword == "layer")
    plain = []

    def walk(nodes: list[object]) -> None:
        for rule in tinycss2.parse_rule_list(nodes, True, True):
            if rule.type == "qualified-rule":
                selector = tinycss2.serialize(rule.prelude)
                for declaration in tinycss2.parse_declaration_list(rule.content, True, True):
                    assert declaration.type == "declaration", selector
                    if not declaration.important:
                        plain.append(selector)
            elif rule.type == "at-rule":
                walk(rule.content)

    walk(layer.content)
    assert plain == ["body"], "only the browser's own margin gives way to a page's"


def test_class_names_begin_with_the_sites_key() -> None:
    site, contents = quillwort()
    files = published(site, contents)
    html = files["index.html"].decode()
    piece = re.search(r"<!--rim:header-->(.*?)<!--/rim-->", html, re.S)
    assert piece is not None
    for names in re.findall(r'(?:class|id)="([^"]*)"', piece[1]):
        assert all(name == site.key or name.startswith(site.key + "-") for name in names.split())
    css = next(data for name, data in files.items() if name.endswith(".css") and name.startswith("_rim/")).decode()
    assert not re.search(r"[.#]rim[-{ ,:]", css)


def test_a_page_loads_css_and_script_for_what_stands_on_it_only() -> None:
    files = published(*ostrey())

    def loaded(page: str) -> list[str]:
        return re.findall(r'(?:href|src)="/(_rim/[^"]+\.(?:css|js))"', files[page].decode())

    pages = [name for name in files if name.endswith(".html")]
    asking = shelf().consent_script.encode()
    weights = {
        page: sum(len(gzip.compress(files[part], 9)) for part in loaded(page) if files[part] != asking)
        for page in pages
    }
    # Pages of results load the search itself, which others fetch when a field is used.
    results = {page: weights.pop(page) for page in pages if page.startswith("search/")}
    assert weights["index.html"] <= 8_900 and max(weights.values()) <= 10_600 and max(results.values()) <= 11_100
    css = {page: files[loaded(page)[0]].decode() for page in pages if loaded(page)}
    assert "q7xk-trail" in css["guide/index.html"] and "q7xk-trail" not in css["index.html"]
    assert ":lang(de)" in css["de/index.html"] and ":lang(de)" not in css["index.html"]
    whole = "noto-sans-arabic-arabic-wght-normal.woff2"
    assert whole in css["ar/index.html"] and whole not in css["index.html"]
    late = re.findall(r'data-rim-late="/([^"]*)"', files["index.html"].decode())
    assert len(set(late)) == 4 and all(name in files and name not in loaded("index.html") for name in late)


def test_a_piece_hidden_by_another_rule_is_hidden_only_there() -> None:
    site, contents = ostrey()
    edit = Together(edits=(Set(node="pc-press", field="hidden_in", value=["bd-narrow"]),))
    after = apply(site, edit)
    assert isinstance(after, Site)
    files = published(after, contents)
    press = files["press/index.html"].decode()
    assert 'class="q7xk q7xk-pc-main q7xk-out-bd-middle q7xk-out-bd-wide"' in press
    assert 'class="q7xk q7xk-pc-press q7xk-out-bd-narrow"' in press
    assert 'class="q7xk q7xk-pc-main"' in files["index.html"].decode()
    assert list(band_queries(site, {"bd-middle", "bd-wide"})) == ["(width >= 560px)"]
    assert list(band_queries(site, {"bd-narrow"})) == ["(width < 560px)"]


def test_a_bundle_comes_back_as_it_went(tmp_path: Path) -> None:
    site, contents = ostrey()
    for name in ("a.zip", "b.zip"):
        with (tmp_path / name).open("wb") as file:
            write_bundle(file, site, contents.__getitem__)
    assert (tmp_path / "a.zip").read_bytes() == (tmp_path / "b.zip").read_bytes()
    with (tmp_path / "a.zip").open("rb") as file:
        bundle = Bundle(file)
        assert bundle.site == site
        assert all(bundle.read_checked(content) == data for content, data in contents.items())


@pytest.mark.parametrize(
    "fault",
    [
        "not json",
        '{"name": "x"}',
        '{"format":1,"key":"abcd","name":"x","pieces":[{"id":"pc","name":"p","styles":[{"id":"st-a","property":"color","value":"@sw-gone"}]}]}',
        '{"format":1,"key":"abcd","name":"x","pages":[{"id":"pg","path":"/%2e%2e/x"}]}',
        '{"format":1,"key":"abcd","name":"x","assets":[{"id":"as","path":"/x.png","size":1,"content":"'
        + "0" * 64
        + '"}]}',
    ],
)
def test_a_broken_bundle_says_where(tmp_path: Path, fault: str) -> None:
    path = tmp_path / "broken.zip"
    with zipfile.ZipFile(path, "w") as packed:
        packed.writestr("site.json", fault)
    with path.open("rb") as file, pytest.raises(BrokenBundle):
        Bundle(file)
    assert main(["validate", str(path)]) == 3


def test_the_command_line_from_archive_to_published_site_and_back(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    source, like, bundle, out = (tmp_path / name for name in ("in.zip", "like.zip", "bundle.zip", "out"))
    source.write_bytes(archive())
    assert main(["demo", str(like)]) == 0
    assert main(["import", str(source), "--out", str(bundle), "--like", str(like)]) == 1, "two pages deserve a look"
    assert "frameset.html" in capsys.readouterr().err
    assert main(["validate", str(bundle)]) == 0
    assert main(["publish", str(bundle), "--out", str(out)]) == 1
    front = (out / "index.html").read_bytes()
    assert b"<!--rim:header-->" in front
    assert main(["publish", str(bundle), "--out", str(out)]) == 3, "a folder that holds something is not written over"
    again = tmp_path / "again.zip"
    assert main(["import", str(out), "--out", str(again)]) == 1
    with again.open("rb") as one, bundle.open("rb") as other:
        first, second = Bundle(one), Bundle(other)
        known = {page.path: page.content for page in second.site.pages}
        taken = {page.path: page.content for page in first.site.pages if page.path in known}
        assert taken == known, "published pages are recognised and stripped"
    assert main(["coverage", str(like), "--json"]) == 0
    rows = json.loads(capsys.readouterr().out.partition("[")[2].join(["[", ""]))
    assert {
        "page": "/press/",
        "slot": "header",
        "band": "Wide",
        "piece": "Press header",
        "why": "rule",
        "rule": "on /press/ and below",
        "beaten": ["Main header"],
        "not_for_them": [],
        "card": "",
    } in rows
    assert main(["coverage", str(tmp_path / "none.zip")]) == 3


def test_pages_come_in_anew_each_night_with_all_that_the_frame_names(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    like, first, second = (tmp_path / name for name in ("like.zip", "first.zip", "second.zip"))
    assert main(["demo", str(like)]) == 0
    site, contents = ostrey()
    pages = tmp_path / "site"
    for page in site.pages:
        if page.content and page.path != "/sailings/fares/":
            file = pages / file_name(page.path)
            file.parent.mkdir(parents=True, exist_ok=True)
            file.write_bytes(contents[page.content])
    for bundle in (first, second):
        assert main(["import", str(pages), "--out", str(bundle), "--like", str(like)]) == 1
    assert "“Fares” leads to /sailings/fares/, and no page is there" in capsys.readouterr().err
    assert first.read_bytes() == second.read_bytes()
    with first.open("rb") as file:
        made = Bundle(file).site
    assert made.key == site.key and made.pieces == site.pieces
    assert {page.path: page.id for page in made.pages}.items() <= {page.path: page.id for page in site.pages}.items()
    named = {item.picture for item in items_of(site.pieces) if isinstance(item, Logo) and item.picture}
    assert named and named <= {asset.path for asset in made.assets}
    assert main(["publish", str(first), "--out", str(tmp_path / "out")]) in {0, 1}
    assert all((tmp_path / "out" / path[1:]).is_file() for path in named)


def test_the_command_line_is_a_part_of_a_pipeline(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    def piped(data: bytes, *arguments: str) -> tuple[int, bytes]:
        out = io.TextIOWrapper(io.BytesIO())
        with monkeypatch.context() as here:
            here.setattr(sys, "stdin", io.TextIOWrapper(io.BytesIO(data)))
            here.setattr(sys, "stdout", out)
            code = main(arguments)
            out.flush()
        return code, out.buffer.getvalue()  # type: ignore[attr-defined]

    code, bundle = piped(archive(), "import", "-", "--out", "-", "--quiet")
    assert code == 1 and zipfile.is_zipfile(io.BytesIO(bundle)) and not capsys.readouterr().err
    assert piped(archive(), "import", "-", "--out", "-", "--quiet") == (code, bundle)
    assert piped(bundle, "validate", "-")[0] == 0
    assert piped(b"no bundle", "validate", "-")[0] == 3
    monkeypatch.setenv("SOURCE_DATE_EPOCH", "86400")
    assert present().isoformat() == "1970-01-02T00:00:00+00:00"
    with pytest.raises(SystemExit):
        main(["--version"])
    assert capsys.readouterr().out.split()[-1] == VERSION
    assert f'version = "{VERSION}"' in (Path(upper_rim.__file__).parent.parent / "pyproject.toml").read_text()


def test_an_interrupted_command_ends_quietly(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    bundle, out = tmp_path / "bundle.zip", tmp_path / "out"
    assert main(["demo", str(bundle), "--site", "quillwort"]) == 0

    def interrupted(*_: object) -> None:
        raise KeyboardInterrupt

    monkeypatch.setattr(os, "write", interrupted)
    assert main(["publish", str(bundle), "--out", str(out)]) == 130
    assert list(tmp_path.iterdir()) == [bundle]


def test_a_site_is_published_whole_or_not_at_all(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    bundle, out = tmp_path / "bundle.zip", tmp_path / "out"
    assert main(["demo", str(bundle), "--site", "quillwort"]) == 0
    asked = ["publish", str(bundle), "--out", str(out)]
    write = os.write
    with monkeypatch.context() as full:
        room = iter(range(40))

        def written(descriptor: int, data: memoryview) -> int:
            if next(room, None) is None:
                raise OSError(errno.ENOSPC, "No space left on device")
            return write(descriptor, data[: max(1, len(data) // 2)])

        full.setattr(os, "write", written)
        assert main(asked) == 3
        assert list(tmp_path.iterdir()) == [bundle], "nothing half-made is left"
    with monkeypatch.context() as short:
        short.setattr(os, "write", lambda descriptor, data: write(descriptor, data[:1000]))
        assert main(asked) in {0, 1}
    whole = {path.relative_to(out): path.read_bytes() for path in out.rglob("*") if path.is_file()}
    (out / "old" / "er").mkdir(parents=True)
    (out / "old" / "er" / "page.html").write_text("of a former edition")
    assert main([*asked, "--force"]) in {0, 1} and (out / "old" / "er" / "page.html").exists()
    assert main([*asked, "--force", "--prune"]) in {0, 1}
    assert {path.relative_to(out): path.read_bytes() for path in out.rglob("*") if path.is_file()} == whole
    assert not (out / "old").exists()


def test_a_bundle_that_knows_less_of_its_pages_is_sound(tmp_path: Path) -> None:
    """What is noticed of pages besides their places has grown, and grows."""
    site, contents = quillwort()
    pages = tuple(
        page.replaced(splice=page.splice.replaced(unscaled=True, turned=True)) if page.splice else page
        for page in site.pages
    )
    with (tmp_path / "other.zip").open("wb") as out:
        write_bundle(out, site.replaced(pages=pages), contents.__getitem__)
    assert main(["validate", str(tmp_path / "other.zip")]) == 0


def test_a_wanted_page_is_composed_although_its_content_is_to_come() -> None:
    site, _ = ostrey()
    page = site.pages[0].replaced(content=None, splice=None, title="A <new> page")
    html = Composer(site, shelf()).page_to_come(page).decode()
    assert "q7xk-pc-main" in html and "A &lt;new&gt; page" in html


def test_bundle_reading_is_not_fooled_by_sizes() -> None:
    site, contents = quillwort()
    out = io.BytesIO()
    write_bundle(out, site, contents.__getitem__)
    data = bytearray(out.getvalue())
    data[200:260] = b"\xff" * 60
    with tempfile.TemporaryFile() as file:
        file.write(data)
        file.seek(0)
        with pytest.raises(BrokenBundle):
            bundle = Bundle(file)
            for content in contents:
                bundle.read_checked(content)


@pytest.mark.parametrize("count", [3, 601])
def test_nothing_is_published_at_places_that_belong_to_another_content(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], count: int
) -> None:
    data = b"<!doctype html><title>x</title><body><p>Words</body>"
    page = described_page(Page(id="pg-0", path="/0/"), data)
    pages = [page.replaced(id=f"pg-{at}", path=f"/{at}/") for at in range(count)]
    assert page.splice is not None
    pages[1] = pages[1].replaced(splice=page.splice.replaced(body_at=page.splice.body_at + 1))
    pages[2] = pages[2].replaced(cuts=(Cut(lift="lf-1", start=9, end=9_999),))
    site = Site(key="qtest", name="T", pages=tuple(pages), lifts=(Lift(id="lf-1", selector="p"),))
    with (tmp_path / "a.zip").open("wb") as file:
        write_bundle(file, site, lambda _: data)
    for command in (["validate"], ["publish", "--out", str(tmp_path / "out")]):
        assert main([command[0], str(tmp_path / "a.zip"), *command[1:]]) == (1 if command == ["validate"] else 3)
        said = capsys.readouterr().err
        assert "/1/: the places for pieces do not" in said and "/2/: a cut lies outside" in said and "/0/" not in said
    assert [path.name for path in tmp_path.iterdir()] == ["a.zip"]


def test_every_command_explains_itself(capsys: pytest.CaptureFixture[str]) -> None:
    for command in ("demo", "import", "publish", "coverage", "validate"):
        with pytest.raises(SystemExit) as ended:
            main([command, "--help"])
        assert ended.value.code == 0 and "usage: upper-rim" in capsys.readouterr().out
    with pytest.raises(SystemExit) as ended:
        main(["paint"])
    assert ended.value.code == 2


def test_nothing_half_is_left_where_an_output_cannot_be_written(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["demo", str(tmp_path / "no folder" / "x.zip")]) == 3
    assert main(["import", str(tmp_path / "none.zip"), "--out", str(tmp_path / "x.zip")]) == 3
    (tmp_path / "no.zip").write_bytes(b"no archive")
    assert main(["import", str(tmp_path / "no.zip"), "--out", str(tmp_path / "x.zip")]) == 3
    assert sorted(path.name for path in tmp_path.iterdir()) == ["no.zip"]
    assert all(line.startswith("upper-rim: ") for line in capsys.readouterr().err.splitlines())


def test_coverage_is_told_for_a_visitor_at_a_time_and_beside_another(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    site, contents = quillwort()
    fair = InPeriod(begins="2026-12-24T18:00", ends="2026-12-25T00:00")
    piece = site.pieces[0].replaced(id="pc-fair", name="Fair", audience=Audience(every=(Visits(last=1), fair)))
    rules = tuple(rule.replaced(id=f"{rule.id}-fair") for rule in piece.reach)
    card = VisitorCard(id="vc-late", name="Back again", visit=2, clock="2026-12-24T18:00Z")
    more = site.replaced(
        pieces=(*site.pieces, piece.replaced(rows=(), roles=(), styles=(), reach=rules)),
        cards=(card,),
        zone="Europe/Berlin",
    )
    bundle = tmp_path / "x.zip"
    with bundle.open("wb") as file:
        write_bundle(file, more, contents.__getitem__)

    def told(*arguments: str) -> list[dict[str, object]]:
        assert main(["coverage", str(bundle), "--json", *arguments]) == 0
        return list(json.loads(capsys.readouterr().out))

    def pieces(rows: list[dict[str, object]]) -> set[object]:
        return {row["piece"] for row in rows if row["slot"] == piece.kind}

    assert "Fair" not in pieces(told())
    assert pieces(told("--card", "{}", "--at", "2026-12-24T18:00")) == {"Fair"}
    assert "Fair" not in pieces(told("--card", "{}", "--at", "2026-12-24T17:59"))
    assert "Fair" not in pieces(told("--card", "back again"))
    beside = told("--card", '{"name": "New"}', "--compare", "vc-late", "--at", "2026-12-24T18:00")
    assert {(row["card"], row["piece"]) for row in beside} == {("New", "Fair"), ("Back again", site.pieces[0].name)}
    assert all(row["not_for_them"] == ["Fair"] for row in beside if row["card"] == "Back again")
    for wrong in (
        ["--card", "nobody"],
        ["--card", "{"],
        ["--card", '{"zone": "Nowhere"}'],
        ["--card", "{}", "--at", "tomorrow"],
        ["--compare", "vc-late"],
        ["--at", "2026-12-24T18:00"],
    ):
        assert main(["coverage", str(bundle), *wrong]) == 3, wrong
    assert "no card is called nobody (Back again)" in capsys.readouterr().err


def test_coverage_in_a_spreadsheet_holds_no_formula(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    site, contents = quillwort()
    piece = site.pieces[0].replaced(name='=HYPERLINK("x")')
    bundle = tmp_path / "x.zip"
    with bundle.open("wb") as file:
        write_bundle(file, site.replaced(pieces=(piece,)), contents.__getitem__)
    assert main(["coverage", str(bundle), "--csv"]) == 0
    lines = capsys.readouterr().out.splitlines()
    assert lines[0] == "page,slot,band,piece,why,rule,beaten,not_for_them,card"
    assert len(lines) == 1 + len(site.pages) * 2 and all("'=HYPERLINK" in line for line in lines[1:])


@pytest.mark.parametrize("colour", ["red/*", "red/*}*/", "red}", "red;x:y", "r\\65 d", "#fff<b"])
def test_a_colour_is_only_a_colour(colour: str) -> None:
    site, _ = ostrey()
    answer = apply(site, Set(node="sw-deep", field="colour", value=colour))
    assert isinstance(answer, Refusal) and answer.field == "colour"


@pytest.mark.parametrize("icon", ['x"><!--/rim--><script>', "a b", "", "../x"])
def test_an_icons_name_is_no_markup(icon: str) -> None:
    site, _ = ostrey()
    assert isinstance(apply(site, Set(node="it-phone", field="icon", value=icon)), Refusal)
    unknown = apply(site, Set(node="it-phone", field="icon", value="no-such-icon"))
    assert isinstance(unknown, Site)
    css = sheet(unknown, shelf(), "")
    assert "icon-no-such-icon" not in css and "icon{" in css


def test_a_sites_icon_and_description_stand_in_the_head_of_pages_that_have_none_of_their_own() -> None:
    site, contents = ostrey()
    files = published(site, contents)
    assert b'<meta name="description" content="Drei Schiffe' in files["de/index.html"]
    assert (
        files["index.html"].count(b'rel="icon"') == 2
        and b'href="/icon.svg" type="image/svg+xml"' in files["index.html"]
    )
    with Image.open(io.BytesIO(files["favicon.ico"])) as icon:
        assert icon.info["sizes"] == {(16, 16), (32, 32), (48, 48)}
    touch = next(name for name in files if name.endswith("-180.png"))
    with Image.open(io.BytesIO(files[touch])) as icon:
        assert icon.size == (180, 180)
    assert f'<link rel="apple-touch-icon" href="/{touch}">'.encode() in files["index.html"]

    own = b"<!DOCTYPE html><html><head><title>O</title><LINK rel='shortcut icon' href=/own.png><meta content=\"Ours\" name=description></head><body><p>x</p></body></html>"
    page = described_page(Page(id="pg-own", path="/own/"), own)
    made = Composer(site.replaced(pages=(page,)), shelf(), {**contents, digest(own): own}.__getitem__).page(page, own)
    assert b"rim:site" not in made and strip(made) == own


def test_pictures_say_their_size_and_the_markup_has_none_of_what_a_checker_refuses() -> None:
    """Each of these was found by a conforming checker in the demo's pages."""
    site, contents = ostrey()
    for name, data in published(site, contents).items():
        if not name.endswith(".html"):
            continue
        html = data.decode()
        ours = " ".join(re.findall(r"<!--rim:.*?<!--/rim-->", html, re.DOTALL))
        for image in re.findall(r"<img [^>]*>", ours):
            assert re.search(r' width="\d+" height="\d+"', image) or "R0lGOD" in image, (name, image[:120])
            assert " " not in (re.search(r'src="([^"]*)"', image) or [""])[1], name
        for button in re.findall(r"<button [^>]*popovertarget[^>]*>", ours):
            assert "aria-expanded" not in button
        assert '<option value=""></option>' not in ours


def test_the_script_that_decides_is_small_and_only_where_something_is_for_some() -> None:
    """With every kind of condition in it; without its table."""
    whole = "".join(shelf().audience_scripts.values())
    assert len(gzip.compress(whole.encode(), 9)) <= 1_500
    files = published(*ostrey())
    deciding = {name for name, made in files.items() if name.endswith(".html") and b"dataset.rimOut" in made}
    assert (
        "index.html" not in deciding and {"harbours/index.html", "travelling/index.html", "ar/index.html"} <= deciding
    )
    assert all(
        "data-rim-out" not in sheet_of(files, name) for name in files if name.endswith(".html") and name not in deciding
    )


def sheet_of(files: dict[str, bytes], page: str) -> str:
    found = re.search(rb'href="/(_rim/[^"]+\.css)"', files[page])
    return files[found[1].decode()].decode() if found else ""
