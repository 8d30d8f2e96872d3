"""What is taken away for another server: locked, asked by a script, or left out."""

from __future__ import annotations

import gzip
import json
import re
import secrets
from base64 import b64decode
from pathlib import Path
from typing import Any

import pytest

from tests.core.test_guards import CONTENTS, SECRET, SITE, with_secrets
from tests.folder import key_for, taken_away, unlocked
from upper_rim.cli.__main__ import main
from upper_rim.core.conditions.audience.audience import Audience
from upper_rim.core.conditions.audience.in_region import InRegion
from upper_rim.core.conditions.below import Below
from upper_rim.core.conditions.everywhere import Everywhere
from upper_rim.core.exchange.bundle import write_bundle
from upper_rim.core.exchange.html.markers import strip
from upper_rim.core.exchange.imports.import_pages import described_page, digest, file_name
from upper_rim.core.gates.guards import guards_of
from upper_rim.core.gates.locking import NONCE_BYTES, Lock
from upper_rim.core.gates.unserved import Unserved, losses
from upper_rim.core.kinds.items.form import Form
from upper_rim.core.kinds.pieces.age import AgeByRegion, AgeGate
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.footer import Footer
from upper_rim.core.kinds.pieces.password import PasswordGate
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.model.site import Asset, Page, Site
from upper_rim.core.output.unserved import WORKER

DOOR, PASSWORD = "pc-press-door", "salt on the wind"


def table_of(files: dict[str, bytes], worker: str = WORKER) -> dict[str, Any]:
    found = re.match(r"self\.rimGates=(\{.*?\});\(", files[worker].decode())
    assert found is not None
    table: dict[str, Any] = json.loads(found[1])
    return table


def key_in(files: dict[str, bytes], password: str) -> bytes | None:
    table = table_of(files)
    wrapped = [b64decode(one) for one in table["gates"][DOOR]["wrapped"]]
    return key_for(password, b64decode(table["salts"][DOOR]), wrapped)


@pytest.fixture(scope="module")
def secret() -> tuple[Site, dict[str, bytes], dict[str, bytes]]:
    """A site with something to hide, its contents, and what is taken away of it."""
    site, contents = with_secrets()
    return site, contents, taken_away(site, contents, {DOOR: ["another password", PASSWORD]})


def aged(*pages: Page, **more: Any) -> Site:
    rule = ReachRule(id="rr-all", where=Everywhere())
    gate = AgeGate(id="pc-age", name="Age", reach=(rule,))
    return Site(key="aged", name="Aged", pages=pages, pieces=(gate,), **more)


def test_what_is_locked_is_there_for_who_knows_a_password_and_for_nobody_else(secret: Any) -> None:
    site, _, files = secret
    guards = guards_of(site)
    assert guards is not None
    locked = [page.path for page in (*site.pages, *site.assets) if guards.is_locked(page.path)]
    assert len(locked) >= 6
    for name, data in files.items():
        assert SECRET.encode() not in data and SECRET.encode("utf-16le") not in data and SECRET not in name, name
    key = key_in(files, PASSWORD)
    assert key is not None and key_in(files, "another password") == key and key_in(files, "a third one") is None
    folder = table_of(files)["locked"][1:]
    there = [data for name, data in files.items() if name.startswith(folder) and not name.endswith("list.json")]
    for path in locked:
        (page,) = [found for one in there if (found := unlocked(one, key, path)) is not None]
        kind, _, content = page.partition(b"\n")
        assert kind.startswith(b"text/html" if path.endswith("/") else b"image/") and content
        assert (file_name(path) in files) == path.endswith("/"), (
            "at a page's address stands its door, of a file nothing"
        )
    assert any(SECRET.encode() in (unlocked(one, key, "/press/one/") or b"") for one in there)
    assert strip(files["press/index.html"]).count(b"<main") == 0, "and of the page nothing"
    assert len(json.loads(files[f"{table_of(files)['locked'][1:]}list.json"])[DOOR].split(",")) == len(locked)


def test_without_a_password_what_is_locked_is_left_out(secret: Any) -> None:
    site, contents, _ = secret
    guards = guards_of(site)
    assert guards is not None
    files = taken_away(site, contents)
    locked = {file_name(page.path) for page in (*site.pages, *site.assets) if guards.is_locked(page.path)}
    assert not locked & set(files) and not any(SECRET.encode() in data for data in files.values())
    assert not any(DOOR in name or "guards.json" in name or "/locked/" in name for name in files)
    assert "shop/index.html" in files and any("pc-shop-age" in name for name in files), "the other gate asks"


def test_nothing_that_was_changed_is_opened() -> None:
    lock = Lock([PASSWORD], secrets.token_bytes)
    key = key_for(PASSWORD, lock.salt, lock.wrapped)
    assert key is not None
    whole = lock.locked(b"Winter plan" * 9, "/press/")
    assert unlocked(whole, key, "/press/") == b"Winter plan" * 9
    for at in (0, NONCE_BYTES - 1, NONCE_BYTES, len(whole) // 2, len(whole) - 1):
        assert unlocked(whole[:at] + bytes([whole[at] ^ 1]) + whole[at + 1 :], key, "/press/") is None
    assert unlocked(whole[:-1], key, "/press/") is None
    assert unlocked(whole, key, "/press/other/") is None, "nor what was put elsewhere"
    assert key_for(PASSWORD, Lock([PASSWORD], secrets.token_bytes).salt, lock.wrapped) is None
    assert lock.locked(b"x", "/") != lock.locked(b"x", "/")


def test_the_script_is_small_and_only_where_there_are_gates() -> None:
    files = taken_away(SITE, CONTENTS, {DOOR: [PASSWORD, "another password"]})
    assert len(gzip.compress(files[WORKER], 9)) <= 3 * 1024
    asked = {name for name, data in files.items() if f'src="/{WORKER}"'.encode() in data}
    assert "index.html" not in asked and "shop/index.html" in asked and "press/index.html" in asked
    without = SITE.replaced(pieces=tuple(one for one in SITE.pieces if not isinstance(one, PasswordGate | AgeGate)))
    assert WORKER not in taken_away(without, CONTENTS)


def test_a_file_of_the_site_keeps_its_name() -> None:
    asset = Asset(id="as-mine", path=f"/{WORKER}", content=digest(b"mine"), size=4)
    files = taken_away(aged(assets=(asset,)), {digest(b"mine"): b"mine"})
    assert files[WORKER] == b"mine" and table_of(files, f"_{WORKER}")["worker"] == f"/_{WORKER}"


@pytest.mark.parametrize("encoding", ["utf-8", "windows-1252", "utf-16le", "utf-16be"])
@pytest.mark.parametrize("bare", [True, False])
def test_a_question_about_age_is_put_into_pages_of_any_encoding(encoding: str, bare: bool) -> None:
    bom = {"utf-16le": b"\xff\xfe", "utf-16be": b"\xfe\xff"}.get(encoding, b"")
    content = bom + "<!doctype html><title>Café</title><h1>Café</h1>".encode(encoding)
    page = described_page(Page(id="pg-rum", path="/rum/", bare=bare), content)
    data = taken_away(aged(page), {digest(content): content})["rum/index.html"]
    at = data.index('data-before="pc-age"'.encode(encoding))
    assert at < data.index("Café".encode(encoding)) and strip(data) == content


def test_what_may_be_locked_for_somebody_is_locked_for_all() -> None:
    def door(name: str, audience: Audience) -> PasswordGate:
        rule = ReachRule(id=f"rr-{name}", where=Below(path="/a/"))
        return PasswordGate(id=f"pc-{name}", name=name, reach=(rule,), audience=audience)

    icelandic = Audience(every=(InRegion(regions=("IS",)),))
    page = Page(id="pg-a", path="/a/")

    def stands(*doors: PasswordGate) -> list[str]:
        guards = guards_of(Site(key="quay", name="Q", pages=(page,), pieces=doors))
        assert guards is not None
        return [gate.id for gate in Unserved(guards.kept, "2026-06-15T12:00Z").at("/a/")]

    assert stands(door("is", icelandic)) == ["pc-is"]
    assert stands(door("is", icelandic), door("all", Audience())) == ["pc-all"]
    assert list(losses(door("is", icelandic)))[-1] == "audiences are unknown"


def test_it_is_told_what_another_server_does_less() -> None:
    gate = AgeGate(id="pc-a", name="A")
    assert set(losses(gate)) == {"asks by a script", "files are not asked for"}
    strict = gate.replaced(by_region=(AgeByRegion(region="IS", years=20),), excused=("crew",))
    assert set(losses(strict)) - set(losses(gate)) == {"regions are unknown", "groups are unknown"}


def test_nobody_is_told_of_what_is_not_there() -> None:
    guards = guards_of(SITE)
    assert guards is not None
    assert guards.before("/press/nothing/").is_locked, "a server hides what there is"
    there = Unserved(guards.kept, "2026-06-15T12:00Z")
    assert there.at("/press/nothing/") == () and [gate.id for gate in there.at("/press")] == [DOOR]


@pytest.mark.parametrize("encoding", ["utf-8", "utf-16le"])
def test_forms_post_to_their_own_addresses(encoding: str) -> None:
    content = (b"\xff\xfe" if encoding == "utf-16le" else b"") + "<!doctype html><title>T</title><h1>T</h1>".encode(
        encoding
    )
    page = described_page(Page(id="pg-a", path="/a/"), content)
    form = Form(id="it-form", name="Form", own_address="https://post.example/in?a=1&b=2")
    row = Row(id="rw-a", name="R", cells=(Cell(id="cl-a", items=(form,)),))
    footer = Footer(id="pc-foot", name="F", rows=(row,), reach=(ReachRule(id="rr-foot", where=Everywhere()),))
    site = aged(page)
    files = taken_away(site.replaced(pieces=(*site.pieces, footer)), {digest(content): content})
    assert "https://post.example/in?a=1&amp;b=2".encode(encoding) in files["a/index.html"]
    assert not any('action="/_rim/forms/'.encode(encoding) in data for data in files.values())
    assert not any(name.startswith("_rim/forms/") for name in files)


def test_the_command_line_locks_with_the_passwords_of_a_file(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    content = b"<!doctype html><title>T</title><h1>Winter plan</h1>"
    page = described_page(Page(id="pg-a", path="/a/"), content)
    door = PasswordGate(id="pc-door", name="Door", reach=(ReachRule(id="rr-door", where=Everywhere()),))
    site = aged(page)
    bundle, said = tmp_path / "site.rim.zip", tmp_path / "passwords.json"
    with bundle.open("wb") as out:
        write_bundle(out, site.replaced(pieces=(*site.pieces, door)), {digest(content): content}.__getitem__)

    def published(text: str, name: str) -> int:
        said.write_text(text)
        return main(["publish", str(bundle), "--out", str(tmp_path / name), "--passwords", str(said)])

    for wrong in ("no", "[]", '{"Door": []}', '{"Door": [8]}', '{"Gate": ["long enough"]}', '{"Door": ["short"]}'):
        assert published(wrong, "none") == 3 and str(said) in capsys.readouterr().err
    assert not (tmp_path / "none").exists(), "and nothing is written"
    assert published('{"Door": ["long enough"]}', "out") == 1
    told = capsys.readouterr().err
    assert "“Door” on another server: It opens only over https" in told and "left out" not in told
    table = table_of({WORKER: (tmp_path / "out" / WORKER).read_bytes()})
    wrapped = [b64decode(one) for one in table["gates"]["pc-door"]["wrapped"]]
    key = key_for("long enough", b64decode(table["salts"]["pc-door"]), wrapped)
    files = [file.read_bytes() for file in (tmp_path / "out").rglob("*") if file.is_file()]
    assert key is not None and not any(b"Winter plan" in data for data in files)
    assert any(b"Winter plan" in (unlocked(data, key, "/a/") or b"") for data in files)
    assert main(["publish", str(bundle), "--out", str(tmp_path / "without")]) == 1
    assert "“Door” is left out" in capsys.readouterr().err
