"""How a page is laid out is measured in the designer's browser, and counts where its CSS tells something else."""

from __future__ import annotations

import io
import zipfile
from pathlib import Path

import pytest

from tests.shaped_sites import SCROLLING, SHAPES

from .conftest import Browser, wait_for

WORDS = (
    "<main><h1>The hut</h1>"
    + "<p>The hut is open from May to October, and the path to it from June.</p>" * 3
    + "</main>"
)
SIDE = '<nav class="side"><a href="/">Home</a></nav>'
HEAD = '<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">'
BY_BROWSER_ALONE = {
    "has": ("<style>body{margin:0} body:has(h1){max-width:700px;margin:0 auto;padding:0 20px}</style>", WORDS),
    "painted": (
        "<style>html{background:#ccd} body:has(h1){background:#fff url('data:image/png;base64,x') no-repeat;max-width:600px;"
        "margin:30px auto;border-radius:9px;box-shadow:0 0 4px gray}</style>",
        WORDS,
    ),
    "script": ("", f"{WORDS}<script>document.body.style.cssText='margin:0;border:6px solid teal'</script>"),
    "wider": (
        "<style>body{margin:0} main{padding:20px} @media (min-width:813px){body:has(nav){display:flex;gap:12px}}</style>",
        SIDE + WORDS,
    ),
}

TOLD = {"script": "border-bottom-width is 6px", "painted": "border-bottom-left-radius is 9px"}


def came_in(browser: Browser, folder: Path, name: str, files: dict[str, bytes]) -> None:
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w") as archive:
        for path, data in files.items():
            archive.writestr(path, data)
    file = folder / "came.zip"
    file.write_bytes(packed.getvalue())
    browser.sign_in()
    browser.driver.find_element("name", "name").send_keys(name)
    browser.press("new-site")
    browser.one("file").send_keys(str(file))
    browser.press("bring-in")
    wait_for(lambda: len(browser.all("page")) == sum(path.endswith(".html") for path in files), 60)


def opened(browser: Browser, name: str, path: str) -> None:
    browser.go(f"/s/hut-{name}/pages/")
    row = next(one for one in browser.all("page") if one.text.split("\n")[1] == path)
    browser.go(row.find_element("tag name", "a").get_attribute("href") or "")


def measured(browser: Browser) -> str:
    browser.press("measure-page")
    return str(wait_for(lambda: (found := browser.all("measured-page")) and found[0].text, 60))


FORESEEN = (
    "no css", "no css, quirks", "narrow, one side", "62.5 %", "row flex, children", "grid", "widths", "conditions within",
    "sticky bar", "shell with a side", "root that centres", "card on a ground", "borders",
)  # fmt: skip


def test_what_is_read_in_the_css_of_pages_is_what_is_measured(browser: Browser, tmp_path: Path) -> None:
    files = {}
    for at, name in enumerate(FORESEEN):
        files |= {f"{at}/{file}": data for file, data in {**SHAPES, **SCROLLING}[name].files().items()}
    came_in(browser, tmp_path, "Hut foreseen", files)
    for at, name in enumerate(FORESEEN):
        opened(browser, "foreseen", f"/{at}/")
        assert "pieces lie across all of them" in measured(browser), name


@pytest.mark.parametrize("name", BY_BROWSER_ALONE)
def test_what_only_a_browser_knows_of_a_page_is_measured_and_taken(browser: Browser, tmp_path: Path, name: str) -> None:
    head, body = BY_BROWSER_ALONE[name]
    page = f"{HEAD}<title>Hut</title>{head}</head><body>{body}</body></html>"
    came_in(browser, tmp_path, f"Hut {name}", dict.fromkeys(("index.html", "a.html", "b/c.html"), page.encode()))
    opened(browser, name, "/")
    wait_for(lambda: browser.all("measure-page"))
    told = measured(browser)
    assert TOLD.get(name, "pieces would not lie across the window") in told
    assert "From 813 px on" in told if name == "wider" else "From the narrowest" in told
    browser.press("take-shape-alike")
    wait_for(lambda: "as a browser measured it" in browser.one("shape").text)
    assert "pieces lie across all of them" in measured(browser)
    for path in ("/a.html", "/b/c.html"):
        opened(browser, name, path)
        assert "as a browser measured it" in browser.one("shape").text
