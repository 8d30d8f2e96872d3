"""Templates are read without their indentation: a screen is sent again and again, and every line of it is parsed."""

from __future__ import annotations

import re

from django.template import Origin
from django.template.loaders import filesystem

_INDENT = re.compile(r"\n[ \t]+")


class Loader(filesystem.Loader):
    def get_contents(self, origin: Origin) -> str:
        return _INDENT.sub("\n", super().get_contents(origin))
