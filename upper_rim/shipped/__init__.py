"""The shelf of faces, icons, script and CSS that ship with the application, read once."""

from __future__ import annotations

import hashlib
import json
from functools import cache
from pathlib import Path

from ..core.kinds.rule import Rule, rules_in
from ..core.model.fonts import Measures
from ..core.output.page.scripts import PARTS_IN_ORDER
from ..core.output.shelf import Shelf
from ..core.style.type.faces import Face, FaceFile
from ..core.values.brands import Brand, Brands

HERE = Path(__file__).parent
MENU_CSS = ("list", "drawer", "levels", "button", "panels", "columns")
RUNTIME = HERE.parent / "runtime"


@cache
def shelf() -> Shelf:
    return Shelf(
        faces={face.id: face for face in map(_face, json.loads((HERE / "faces.json").read_text()))},
        icons=json.loads((HERE / "icons.json").read_text()),
        brands=Brands({brand[0]: Brand(*brand) for brand in json.loads((HERE / "brands.json").read_text())}),
        scripts={name: (HERE / "scripts/parts" / f"{name}.js").read_text().strip() for name in PARTS_IN_ORDER},
        late_scripts={file.stem: file.read_text().strip() for file in sorted((HERE / "scripts/late").glob("*.js"))},
        late_rules={file.stem: _rules(file) for file in sorted((RUNTIME / "late").glob("*.css"))},
        audience_scripts={
            file.stem: file.read_text().strip() for file in sorted((HERE / "scripts/audience").glob("*.js"))
        },
        notice_script=(HERE / "scripts/notice.js").read_text().strip(),
        consent_script=(HERE / "scripts/consent.js").read_text().strip(),
        gates_script=(HERE / "scripts/gates.js").read_text().strip(),
        piece_rules=_rules(RUNTIME / "pieces.css"),
        menu_rules={way: _rules(RUNTIME / f"{way}.css") for way in MENU_CSS},
        item_rules={file.stem: _rules(file) for file in sorted((RUNTIME / "items").glob("*.css"))},
    )


@cache
def program() -> str:
    """Tells this program, and what ships with it, from another state of both: what is published depends on them."""
    told = hashlib.sha256()
    folders = (HERE, RUNTIME, HERE.parent / "core")
    for file in sorted(
        one for folder in folders for one in folder.rglob("*") if one.is_file() and one.suffix != ".pyc"
    ):
        told.update(file.name.encode() + file.read_bytes())
    return told.hexdigest()[:16]


def _rules(file: Path) -> tuple[Rule, ...]:
    return rules_in(file.read_text())


def _face(about: dict[str, object]) -> Face:
    files = tuple(
        FaceFile(data=(HERE / "fonts" / file["name"]).read_bytes(), **file)
        for file in about.pop("files")  # type: ignore[attr-defined]
    )
    measures = Measures.model_validate(about.pop("measures"))
    latin = about.pop("latin_measures")
    latin_measures = Measures.model_validate(latin) if latin else None
    return Face(files=files, measures=measures, latin_measures=latin_measures, **about)  # type: ignore[arg-type]
