"""What is locked where no server keeps it: bytes that only who knows a password can read.

AES-GCM (NIST SP 800-38D) under a key that is drawn for a door each time a site is taken away. That key is wrapped once for
each password, under one that PBKDF2 (RFC 8018) makes of it. A browser undoes both with Web Crypto.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence

from cryptography.hazmat.primitives.ciphers.aead import AESGCM
from cryptography.hazmat.primitives.hashes import SHA256
from cryptography.hazmat.primitives.kdf.pbkdf2 import PBKDF2HMAC

ROUNDS = 600_000
"""Of PBKDF2 with HMAC-SHA256 (OWASP, Password Storage Cheat Sheet)."""
KEY_BYTES, SALT_BYTES = 32, 16
NONCE_BYTES = 12
"""Before each ciphertext, drawn by chance (SP 800-38D, 8.2.2)."""


class Lock:
    """Of one door. `wrapped`: its key for each password, a nonce before it; which one is whose is told by none."""

    def __init__(self, passwords: Sequence[str], draw: Callable[[int], bytes]) -> None:
        """`draw` gives so many bytes that nobody can foretell."""
        self._draw = draw
        self.salt = draw(SALT_BYTES)
        key = draw(KEY_BYTES)
        self._cipher = AESGCM(key)
        self.wrapped = tuple(self._sealed(AESGCM(_stretched(one, self.salt)), key, b"") for one in passwords)

    def locked(self, content: bytes, path: str) -> bytes:
        """What opens only as what it was locked as: `path` is told with it, and has to be told again."""
        return self._sealed(self._cipher, content, path.encode())

    def _sealed(self, cipher: AESGCM, content: bytes, told: bytes) -> bytes:
        nonce = self._draw(NONCE_BYTES)
        return nonce + cipher.encrypt(nonce, content, told)


def _stretched(password: str, salt: bytes) -> bytes:
    made = PBKDF2HMAC(algorithm=SHA256(), length=KEY_BYTES, salt=salt, iterations=ROUNDS)
    return made.derive(password.encode())
