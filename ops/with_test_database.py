"""Runs a command with a database cluster of its own, and takes it away afterwards."""

from __future__ import annotations

import os
import subprocess
import sys
from pathlib import Path

from database import Cluster, Trouble, stop_with

ROOT = Path(__file__).resolve().parent.parent


def main() -> None:
    try:
        cluster = Cluster(ROOT / ".run", "test")
        cluster.start()
    except Trouble as trouble:
        stop_with(str(trouble))
    try:
        code = subprocess.run(sys.argv[1:], cwd=ROOT, env={**os.environ, **cluster.environment()}).returncode
    finally:
        cluster.stop()
    sys.exit(code)


if __name__ == "__main__":
    main()
