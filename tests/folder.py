"""Sites as they are taken away: the files that another server gets, and a server that sends them and knows nothing."""

from __future__ import annotations

import hashlib
import secrets
import threading
from collections.abc import Mapping, Sequence
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from urllib.parse import unquote, urlsplit

from cryptography.exceptions import InvalidTag
from cryptography.hazmat.primitives.ciphers.aead import AESGCM

from upper_rim.core.gates.locking import NONCE_BYTES, ROUNDS, Lock
from upper_rim.core.model.site import Site
from upper_rim.core.output.publication import Publisher, publication
from upper_rim.core.output.unserved import unserved_of
from upper_rim.shipped import shelf


def taken_away(
    site: Site,
    contents: Mapping[str, bytes],
    passwords: Mapping[str, Sequence[str]] | None = None,
    clock: str = "2026-06-15T12:00Z",
) -> dict[str, bytes]:
    """`passwords`: by door."""
    publisher = Publisher(site, shelf(), contents.__getitem__, 2026)
    locks = {door: Lock(typed, secrets.token_bytes) for door, typed in (passwords or {}).items()}
    unserved = unserved_of(site, publisher, shelf().gates_script, locks, clock)
    made = unserved.made(publication(site, shelf(), contents.__getitem__, publisher=publisher))
    return {file.name: file.data for file in (*made, *unserved.besides())}


def key_for(password: str, salt: bytes, wrapped: Sequence[bytes]) -> bytes | None:
    """Of a door, as a browser finds it; None where it is another password."""
    stretched = hashlib.pbkdf2_hmac("sha256", password.encode(), salt, ROUNDS)
    return next((key for one in wrapped if (key := unlocked(one, stretched)) is not None), None)


def unlocked(locked: bytes, key: bytes, path: str = "") -> bytes | None:
    """None where the key is another one, or a byte was changed, or it was put elsewhere."""
    try:
        return AESGCM(key).decrypt(locked[:NONCE_BYTES], locked[NONCE_BYTES:], path.encode())
    except InvalidTag:
        return None


class Serving:
    """A server of this machine's, at a port of its own until it is closed."""

    def __init__(self, handler: type[BaseHTTPRequestHandler]) -> None:
        self._server = ThreadingHTTPServer(("127.0.0.1", 0), handler)
        self.port = self._server.server_address[1]
        threading.Thread(target=self._server.serve_forever, daemon=True).start()

    def close(self) -> None:
        self._server.shutdown()
        self._server.server_close()


class Folder(Serving):
    """The files of a site as they are in the ZIP, on a server that knows nothing of visitors."""

    def __init__(self) -> None:
        self.files: dict[str, bytes] = {}
        folder = self

        class Handler(BaseHTTPRequestHandler):
            def do_GET(self) -> None:
                path = unquote(urlsplit(self.path).path)
                name = path[1:] + ("index.html" if path.endswith("/") else "")
                data = folder.files.get(name)
                if data is None and f"{name}/index.html" in folder.files:
                    self.send_response(301)
                    self.send_header("Location", f"{path}/")
                    self.end_headers()
                    return
                self.send_response(200 if data is not None else 404)
                if data is None:
                    name, data = "404.html", folder.files.get("404.html")
                kind = {"html": "text/html", "js": "text/javascript", "css": "text/css"}.get(
                    name.rpartition(".")[2], "application/octet-stream"
                )
                self.send_header("Content-Type", kind)
                self.send_header("Cache-Control", "no-store")
                self.end_headers()
                self.wfile.write(data or b"")

            def do_POST(self) -> None:
                self.send_error(501)

            def log_message(self, *_: object) -> None:
                pass

        super().__init__(Handler)
