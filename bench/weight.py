"""What does the front page of the demo add to a visitor's download? `python -m bench weight`"""

from __future__ import annotations

import gzip
import re
from collections.abc import Iterator

from upper_rim.core.output.publication import publication
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

from .measured import Measured


def measure(tiny: bool) -> Iterator[Measured]:
    site, contents = ostrey()
    files = {file.name: file.data for file in publication(site, shelf(), contents.__getitem__, year=2026)}
    page = files["index.html"].decode()
    parts = re.findall(r'(?:href|src)="/(_rim/[^"]+\.(?:css|js))"', page)
    whole = sum(len(files[part]) for part in parts) / 1000
    packed = sum(len(gzip.compress(files[part], 9)) for part in parts) / 1000
    yield Measured(
        "front page of the demo: style sheet and scripts, gzipped", packed, 8.0, "kB", ("the same unpacked", whole)
    )
