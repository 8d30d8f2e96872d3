"""Commands take a page by its path or by its file's name, and say which is most like one that is not there."""

from __future__ import annotations

from pathlib import Path

import pytest

from upper_rim.cli.__main__ import main
from upper_rim.cli.pages import none_at, page_meant
from upper_rim.core.exchange.imports.import_pages import file_name
from upper_rim.core.model.site import Page, Site
from upper_rim.demo import ostrey


def test_a_page_is_meant_by_its_path_and_by_its_file() -> None:
    site, _ = ostrey()
    more = (Page(id="pg-x", path="/old/fares.html"), Page(id="pg-y", path="/a%20b/"))
    site = site.replaced(pages=(*site.pages, *more))
    for page in site.pages:
        name = file_name(page.path)
        for said in (page.path, page.path.rstrip("/"), page.path.strip("/"), name, f"/{name}", f"./{name}"):
            found = page_meant(site, said)
            assert found is not None and found.path == page.path, said
    assert page_meant(site, "/sailings/index.htm") is None and page_meant(Site(key="qtest", name="T"), "/") is None


def test_the_nearest_is_proposed_where_there_is_none(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    site, _ = ostrey()
    assert none_at(site, "/sailing/fares/") == "there is no page at /sailing/fares/; did you mean /sailings/fares/?"
    assert none_at(site, "sailings/fare/index.html").endswith("; did you mean /sailings/fares/?")
    assert none_at(site, "/zzzzzz") == "there is no page at /zzzzzz"
    bundle = f"{tmp_path}/demo.rim"
    assert main(["demo", bundle]) == 0
    asked = ["--viewport", "390x844", "--scroll", "0,100"]
    assert main(["movement", bundle, "--page", "sailings/fares/index.html", *asked]) in {0, 1}
    assert "/sailings/fares/ at 390x844" in capsys.readouterr().out
    assert main(["movement", bundle, "--page", "/sailings/fare/", *asked]) == 3
    assert "did you mean /sailings/fares/?" in capsys.readouterr().err
