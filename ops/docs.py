"""Writes docs/bundle.schema.json from the model; with --check, fails where the file is out of date."""

from __future__ import annotations

import json
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(ROOT))

from upper_rim.core.exchange.bundle import bundle_schema  # noqa: E402

SCHEMA = ROOT / "docs" / "bundle.schema.json"


def main() -> None:
    schema = json.dumps(bundle_schema(), indent=1, ensure_ascii=False) + "\n"
    if "--check" not in sys.argv:
        SCHEMA.write_text(schema)
    elif not SCHEMA.exists() or SCHEMA.read_text() != schema:
        sys.exit("docs/bundle.schema.json is out of date; run ops/docs.py")


if __name__ == "__main__":
    main()
