"""Parts in the tray: each that shows can be styled there, and a piece's own defaults for what stands in it."""

from __future__ import annotations

import re

import pytest
from django.contrib.auth.models import User

from upper_rim.core.kinds.items.base import ShowsMenu
from upper_rim.core.model.editing.check import roles_of, unseen_of
from upper_rim.core.output.css.sheet import sheet
from upper_rim.core.style.paint.texts import SAID_BY_ENTRIES, beside_labels
from upper_rim.core.style.resolve import Styling, default_of, styled_in
from upper_rim.core.values.styling import LIMITED
from upper_rim.shipped import shelf
from upper_rim.web.live.addresses import StageKey, stage_label
from upper_rim.web.sites import store
from upper_rim.web.sites.models import StoredSite
from upper_rim.web.studio.controls.of_styles import FACETS, SIDED, listed_groups

from .conftest import signed_in

OFFERED = re.compile(r'<option value="([^"]*)"')


def parts_offered(page: str) -> list[str]:
    select = re.search(r'<select[^>]*id="part".*?</select>', page, re.S)
    return OFFERED.findall(select[0]) if select else []


def test_every_part_of_every_item_of_the_demo_is_listed_and_takes_a_ground(ferries: StoredSite, ada: User) -> None:
    client, host = signed_in(ada), f"{stage_label(StageKey(ferries.pk, ada.pk))}.localhost"
    seen = set()
    site = store.load(ferries.pk).site
    for piece in site.pieces:
        for node in styled_in(piece):
            roles = roles_of(node)
            unsaid = SAID_BY_ENTRIES - beside_labels(node, site) if isinstance(node, ShowsMenu) else set()
            shown = [part for part in roles if part not in unseen_of(node) | unsaid]
            address = f"/s/ostrey/pieces/{piece.id}/"
            if node is piece or (node.__class__, *shown) in seen:
                continue
            seen.add((node.__class__, *shown))
            page = client.get(f"{address}?select={node.id}&tray=ground").content.decode()
            assert parts_offered(page) == (shown if len(shown) > 1 else []), node.id
            for part in shown:
                if "background-color" not in LIMITED.get(roles[part], ("background-color",)):
                    continue
                form = {
                    "do": "style",
                    "node": node.id,
                    "property": "background-color",
                    "value": "#123456",
                    "part": part,
                }
                state = {"state": "focus"} if roles[part] == "ring" else {}
                assert client.post(address, {**form, **state, "page": "/", "width": "1120"}).status_code == 200
                styling = Styling(store.load(ferries.pk).site)
                found = styling.resolve(styling.elements[node.id, part], "background-color")
                assert found.value == "#123456" and found.source.layer == "own", (node.id, part)
                strip = client.get(f"/_rim/specimens/states/{node.id}/{part}/all/", HTTP_HOST=host)
                assert strip.status_code == 200
                client.post(address, {"do": "undo"})
    assert len(seen) > 15


def test_entries_set_apart_are_a_part_once_there_is_one(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    bench = "/s/ostrey/pieces/pc-main/?select=it-menu&tray=ground"
    menu = next(one for one in store.load(ferries.pk).site.menus if one.id == "mn-main")
    form = {"do": "set", "node": menu.entries[-1].id, "field": "apart", "value": "true"}
    assert "apart" not in parts_offered(client.get(bench).content.decode())
    answer = client.post(f"/s/ostrey/menus/{menu.id}/?select={menu.entries[-1].id}", form).content.decode()
    assert "Entries set apart" in answer, "and it is said where their look is set"
    page = client.get(f"{bench}&part=apart").content.decode()
    assert "apart" in parts_offered(page) and "Entries set apart" in page


def test_a_part_is_offered_the_facets_that_it_has_and_no_others(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    for part, has_text, has_room in (("veil", False, False), ("opened", False, True), ("second-line", True, True)):
        address = f"/s/ostrey/pieces/pc-main/?select=it-menu&tray=text&part={part}"
        page = client.get(address).content.decode()
        assert ('data-test="tray-text"' in page, 'data-test="tray-room"' in page) == (has_text, has_room), part
        assert 'data-test="style-' in page, "and what is shown has something to set"


def test_the_stage_goes_to_where_a_part_shows(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)

    def goes_to(part: str, width: int) -> str | None:
        address = f"/s/ostrey/pieces/pc-main/?select=it-menu&tray=ground&part={part}&into=view&width={width}"
        found = re.search(r'data-goes-to="(\d+)"', client.get(address).content.decode())
        return found and found[1]

    assert goes_to("opened", 1120) == "979" and goes_to("opened", 800) is None
    assert goes_to("panel", 800) == "980" and goes_to("panel", 1120) is None
    assert goes_to("content", 800) is None


def test_a_piece_has_defaults_of_its_own_for_what_stands_in_it(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    address = "/s/ostrey/pieces/pc-footer/"
    page = client.get(f"{address}?select=pc-footer&tray=text&part=in-heading-2").content.decode()
    assert {"box", "in-link", "in-field", "in-list-title"} <= set(parts_offered(page))
    form = {"do": "style", "node": "role:list-title@pc-footer", "part": "in-list-title", "page": "/", "width": "1120"}
    for name, value in (("color", "#ffd27f"), ("font-size", "18px")):
        answer = client.post(address, {**form, "property": name, "value": value, "tray": "text"})
        assert answer.status_code == 200 and 'value="in-list-title" selected' in answer.content.decode()
    site = store.load(ferries.pk).site
    footer = next(piece for piece in site.pieces if piece.id == "pc-footer")
    default = default_of(footer.roles, "list-title")
    assert default is not None and {style.property for style in default.styles} == {"color", "font-size"}
    assert re.search(r"\.q7xk-pc-footer \.q7xk-list-title[^{]*\{[^}]*font-size:18px", sheet(site, shelf(), ""))
    for _ in range(2):
        client.post(address, {"do": "undo"})
    footer = next(piece for piece in store.load(ferries.pk).site.pieces if piece.id == "pc-footer")
    assert default_of(footer.roles, "list-title") is None


def test_a_look_is_made_of_what_looks_have_and_the_other_parts_stay(ferries: StoredSite, ada: User) -> None:
    client = signed_in(ada)
    form = {"do": "style", "node": "it-menu", "property": "background-color", "page": "/", "width": "1120"}
    client.post("/s/ostrey/pieces/pc-main/", {**form, "value": "#101010", "part": "opened"})
    client.post("/s/ostrey/pieces/pc-main/", {**form, "value": "#202020", "part": "content"})
    client.post("/s/ostrey/pieces/pc-main/", {"do": "look-from", "node": "it-menu", "name": "Dusk", "page": "/"})
    site = store.load(ferries.pk).site
    look = next(look for look in site.looks if look.name == "Dusk")
    assert "#202020" in {style.value for style in look.styles} and {style.part for style in look.styles} <= {
        "box",
        "title",
        "content",
    }
    menu = Styling(site).holders["it-menu"]
    assert [(style.part, style.value) for style in menu.styles] == [("opened", "#101010")]


def test_a_look_is_put_on_all_of_a_piece_at_once(ferries: StoredSite, ada: User) -> None:
    client, address = signed_in(ada), "/s/ostrey/pieces/pc-bar/"
    icons = [node.id for node in Styling(store.load(ferries.pk).site).holders.values() if node.id.startswith("it-bar-")]
    client.post(
        address, {"do": "style", "node": icons[0], "property": "opacity", "value": "0.9", "page": "/", "width": "420"}
    )
    client.post(address, {"do": "look-from", "node": icons[0], "name": "Soft", "page": "/"})
    look = next(look.id for look in store.load(ferries.pk).site.looks if look.name == "Soft")
    page = client.get(f"{address}?select={icons[1]}&tray=looks").content.decode()
    assert f'data-test="wear-alike-{look}"' in page and "On all icons here" in page
    client.post(address, {"do": "wear:alike", "node": icons[1], "look": look, "page": "/"})
    holders = Styling(store.load(ferries.pk).site).holders
    assert [holders[icon].wears for icon in icons] == [(look,)] * len(icons) and len(icons) > 2
    client.post(address, {"do": "undo"})
    holders = Styling(store.load(ferries.pk).site).holders
    assert [holders[icon].wears for icon in icons] == [(look,), *[()] * (len(icons) - 1)], "one step, and one back"


@pytest.mark.parametrize("role", sorted(LIMITED))
def test_the_tray_offers_what_a_role_has_and_all_of_it(role: str) -> None:
    offered = {name for facet in FACETS for _, names in listed_groups(facet, role) for name in names}
    assert all(any(name in (one, *SIDED.get(one, ())) for one in offered) for name in LIMITED[role])
