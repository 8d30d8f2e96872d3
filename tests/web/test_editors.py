"""Every property of the model is set without typing, and what an editor begins with is the value again."""

from __future__ import annotations

import json

import pytest

from tests.core.generated import VALUES
from upper_rim.core.values.properties import CHECKS, PROPERTIES, NotAValue, check_value
from upper_rim.web.studio.controls.editors import EDITORS, editor_of, parts_of
from upper_rim.web.studio.controls.of_styles import SIDED, listed_groups

CHOSEN_FROM_A_LIST = {"choice", "face", "weight", "stretch"}


def test_every_property_of_the_model_has_a_control_and_the_control_an_editor_or_a_list() -> None:
    shown = {
        one
        for facet in ("text", "ground", "edge", "room")
        for role in ("button", "list", "column-rule")
        for _, names in listed_groups(facet, role)
        for name in names
        for one in SIDED.get(name, (name,))
    }
    assert set(PROPERTIES) - shown == set()
    assert {listed.kind for listed in PROPERTIES.values()} - CHOSEN_FROM_A_LIST == set(EDITORS)
    assert set(EDITORS) <= set(CHECKS)


@pytest.mark.parametrize("name", [name for name in VALUES if PROPERTIES[name].kind in EDITORS])
def test_what_an_editor_begins_with_is_read_of_every_value_that_is_one(name: str) -> None:
    for value in VALUES[name]:
        try:
            check_value(name, value)
        except (NotAValue, ValueError):
            continue
        begun, editor = json.loads(editor_of((name,), (value,))), EDITORS[PROPERTIES[name].kind]
        if editor.axes:
            assert len(begun["parts"]) == len(editor.axes) == 2
            assert all("number" in part or part["word"] in {*editor.whole, "auto"} for part in begun["parts"])
        else:
            assert begun["properties"] and begun["parts"] == [parts_of(editor, value)]


def test_the_size_of_a_ground_has_two_axes_and_what_is_not_said_is_automatic() -> None:
    def parts(value: str) -> list[str]:
        begun = json.loads(editor_of(("background-size",), (value,)))
        return [one.get("word") or f"{one['number']:g}{one['unit']}" for one in begun["parts"]]

    assert parts("20px 30%") == ["20px", "30%"] and parts("20px") == ["20px", "auto"]
    assert parts("auto 2rem") == ["auto", "2rem"] and parts("cover") == ["cover", "cover"]


def test_stops_without_a_place_stand_between_their_neighbours() -> None:
    (layer,) = parts_of(EDITORS["image"], "linear-gradient(red, blue, @sw-a 60%, #fff)")
    assert [stop["at"] for stop in layer["stops"]] == [0, 30, 60, 100]
    assert layer["stops"][2]["colour"] == "@sw-a"


def test_layers_of_shadows_and_pictures_are_read_one_by_one() -> None:
    upper, lower = parts_of(EDITORS["shadow"], "inset 1px 2px 3px 4px @:accent/40%, 0 1px red")
    assert upper["is_inset"] and (upper["right"], upper["spread"], upper["colour"]) == ("1px", "4px", "@:accent/40%")
    assert (lower["down"], lower["blur"], lower["colour"]) == ("1px", "", "red")
    gradient, picture = parts_of(EDITORS["image"], 'radial-gradient(red, blue), url("/a.png")')
    assert (gradient["kind"], picture) == ("radial", {"kind": "picture", "path": "/a.png"})
    assert parts_of(EDITORS["position"], "center top") == [{"number": 50, "unit": "%"}, {"number": 0, "unit": "%"}]
