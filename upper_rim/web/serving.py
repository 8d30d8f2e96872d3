"""How does gunicorn serve Upper Rim? Its settings; `-c python:upper_rim.web.serving`.

A request that comes slowly, or never whole, holds a thread until its sender has said nothing for a while. There are many
more threads than processors, so that some dozens of such requests keep nobody else waiting; against thousands, have a
proxy in front that reads requests whole (docs/deploy.md).
"""

from __future__ import annotations

import socket
import struct
from typing import Any

workers = 2
threads = 64
timeout = 120
loglevel = "warning"
SILENT_S = 15


def when_ready(server: Any) -> None:
    """What comes in on a listening socket has its limits (socket(7), SO_RCVTIMEO)."""
    for listener in server.LISTENERS:
        listener.sock.setsockopt(socket.SOL_SOCKET, socket.SO_RCVTIMEO, struct.pack("ll", SILENT_S, 0))
