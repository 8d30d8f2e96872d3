from __future__ import annotations

import zipfile
from collections.abc import Iterator
from io import BytesIO
from pathlib import Path
from typing import Any

import pytest
from django.contrib.auth import get_user_model
from django.contrib.auth.models import User
from django.template.context import Context
from django.test import Client
from django.utils.safestring import SafeString

from upper_rim.demo import ostrey
from upper_rim.web.live import published, stage
from upper_rim.web.sites import looking, store
from upper_rim.web.sites.models import StoredSite
from upper_rim.web.studio.cycle.regions import KeptNode, RegionNode
from upper_rim.web.studio.preview import small


@pytest.fixture(autouse=True)
def nothing_kept() -> Iterator[None]:
    """Processes keep sites by number and revision; between tests both begin anew."""
    for forget in (
        store.forget_all,
        looking.forget_all,
        stage.forget_all,
        small.forget_all,
        published.listed_files.cache_clear,
    ):
        forget()
    yield


@pytest.fixture(autouse=True)
def regions_name_all_that_they_are_written_from(monkeypatch: pytest.MonkeyPatch) -> None:
    """What says from what it is written is written all the same, and comes out alike where that is alike."""
    written: dict[str, str] = {}
    render = RegionNode.render

    def compared(region: RegionNode, context: Context) -> SafeString:
        made = render(region, context)
        if region.told:
            key = made.partition(">")[0].removesuffix(" data-stays")
            html = region.written(context).replace(str(context.get("csrf_token") or "\0"), "")
            assert written.setdefault(key, html) == html, f"{key}: it is written from something else, too"
        return made

    def compared_kept(kept: KeptNode, context: Context) -> SafeString:
        made = keep(kept, context)
        assert made == kept.written(context), "what is kept hangs on something else, too"
        return made

    keep = KeptNode.render
    monkeypatch.setattr(RegionNode, "render", compared)
    monkeypatch.setattr(KeptNode, "render", compared_kept)


@pytest.fixture(autouse=True)
def quick_passwords(settings: Any) -> None:
    """Every test has people of its own; what makes their passwords slow to guess is Django's."""
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]


@pytest.fixture(autouse=True)
def own_folders(settings: Any, tmp_path: Path) -> None:
    from django.core.files.storage import storages

    changed = {name: dict(storage) for name, storage in settings.STORAGES.items()}
    for name in ("default", "editions"):
        changed[name]["OPTIONS"] = {"location": tmp_path / name}
    settings.STORAGES = changed
    storages._storages.clear()
    storages.__dict__.pop("backends", None)


@pytest.fixture
def ada(db: None) -> User:
    return get_user_model().objects.create_user("ada", password="p")


@pytest.fixture
def ben(db: None) -> User:
    return get_user_model().objects.create_user("ben", password="p")


@pytest.fixture
def ferries(ada: User) -> StoredSite:
    return store.new_site(ada, *ostrey(), slug="ostrey")


def taken_away(client: Client, slug: str = "ostrey", number: int = 1, **typed: str) -> dict[str, bytes]:
    """The files of an edition's ZIP. `typed`: passwords, by the names of their fields."""
    answer: Any = client.post(f"/s/{slug}/editions/{number}/zip/", typed)
    with zipfile.ZipFile(BytesIO(b"".join(answer.streaming_content))) as archive:
        assert archive.testzip() is None
        return {name: archive.read(name) for name in archive.namelist()}


def signed_in(user: User) -> Client:
    client = Client(HTTP_HOST="localhost")
    client.force_login(user, backend="django.contrib.auth.backends.ModelBackend")
    return client
