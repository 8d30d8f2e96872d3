"""What a cache that all visitors share keeps of a published site: Apache's, as it comes from Debian, before the running
application (RFC 9111)."""

from __future__ import annotations

import shutil
import socket
import subprocess
import tempfile
from collections.abc import Iterator
from http.client import HTTPConnection
from pathlib import Path
from typing import NamedTuple

import pytest

from .conftest import Running, wait_for

LOCKED = ("/press/", "/press/releases/", "/press/pictures/", "/press/the-quay-at-dusk.svg")
_CONF = """
ServerRoot "{folder}"
DefaultRuntimeDir "{folder}"
PidFile "{folder}/pid"
ErrorLog "{folder}/errors.txt"
ServerName localhost
Listen 127.0.0.1:{port}
User nobody
LoadModule mpm_event_module /usr/lib/apache2/modules/mod_mpm_event.so
LoadModule authz_core_module /usr/lib/apache2/modules/mod_authz_core.so
LoadModule proxy_module /usr/lib/apache2/modules/mod_proxy.so
LoadModule proxy_http_module /usr/lib/apache2/modules/mod_proxy_http.so
LoadModule cache_module /usr/lib/apache2/modules/mod_cache.so
LoadModule cache_disk_module /usr/lib/apache2/modules/mod_cache_disk.so
CacheRoot "{folder}/kept"
CacheEnable disk "/"
CacheHeader on
CacheIgnoreNoLastMod on
ProxyPreserveHost On
ProxyPass "/" "http://127.0.0.1:{behind}/"
"""


class Answer(NamedTuple):
    status: int
    said: str
    content: bytes


class SharedCache:
    def __init__(self, folder: Path, behind: int) -> None:
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self._host = f"ostrey.localhost:{behind}"
        kept = folder / "kept"
        kept.mkdir()
        # Begun by root, it works as nobody.
        for one in (folder, kept):
            one.chmod(0o777)
        conf = folder / "apache.conf"
        conf.write_text(_CONF.format(folder=folder, port=self.port, behind=behind))
        self._process = subprocess.Popen(["/usr/sbin/apache2", "-X", "-f", str(conf)])
        wait_for(lambda: self.get("/").status == 200)

    def get(self, path: str, method: str = "GET", **headers: str) -> Answer:
        """`said`: what the cache did."""
        connection = HTTPConnection("127.0.0.1", self.port, timeout=20)
        named = {name.replace("_", "-"): value for name, value in headers.items()}
        connection.request(method, path, headers={"Host": self._host, **named})
        answer = connection.getresponse()
        found = Answer(answer.status, answer.getheader("X-Cache", ""), answer.read())
        connection.close()
        return found

    def stop(self) -> None:
        self._process.terminate()
        self._process.wait(20)


@pytest.fixture
def cache(running: Running) -> Iterator[SharedCache]:
    """In a folder that whoever it works as may enter."""
    folder = Path(tempfile.mkdtemp())
    made = SharedCache(folder, running.port)
    try:
        yield made
    finally:
        made.stop()
        shutil.rmtree(folder)


def test_a_shared_cache_keeps_what_all_may_see_and_nothing_that_was_let_through(
    cache: SharedCache, running: Running
) -> None:
    for path in ("/", "/guide/"):
        cache.get(path)
        assert "HIT" in cache.get(path).said or "REVALIDATE" in cache.get(path).said, "the cache keeps pages"
    opens = running.passes("ostrey", "/press/", "pc-press-door")
    for path in LOCKED:
        inside = [cache.get(path, Cookie=opens) for _ in range(2)]
        assert all(one.status == 200 and "MISS" in one.said for one in inside) and inside[0].content
        for more in ({}, {"If_None_Match": "*"}, {"Range": "bytes=0-99"}, {"Cache_Control": "max-stale=9999"}, {"Cache_Control": "only-if-cached"}):  # fmt: skip
            outside = cache.get(path, **more)
            assert outside.status in {403, 504} and inside[0].content[-300:] not in outside.content, (path, more)
        assert cache.get(path, Cookie=opens).status == 200, "nor is the door kept, and shown to who has passed"


def test_a_shared_cache_shows_no_child_what_an_adult_was_shown(cache: SharedCache, running: Running) -> None:
    grown = running.passes("ostrey", "/shop/", "pc-shop-age")
    assert cache.get("/shop/").status == 403
    assert cache.get("/shop/", Cookie=grown).status == 200
    child = cache.get("/shop/")
    assert child.status == 403 and b'name="year"' in child.content
