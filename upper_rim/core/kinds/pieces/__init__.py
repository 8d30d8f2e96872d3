"""What can stand around a page's content? One module a kind; `AnyPiece` is the union of their values, told apart by
`kind`."""

from __future__ import annotations

from typing import Annotated, get_args

from pydantic import Field

from .age import AgeGate
from .base import Piece
from .bottom import BottomBar
from .consent import ConsentQuestion
from .drawer import Drawer
from .float import Float
from .footer import Footer
from .gate import Gate
from .header import Header
from .notice import Notice
from .password import PasswordGate
from .sidebar import Sidebar

_PIECE = Header | Notice | Footer | Sidebar | BottomBar | Float | Drawer | PasswordGate | AgeGate | ConsentQuestion
AnyPiece = Annotated[_PIECE, Field(discriminator="kind")]
PIECE_KINDS: dict[str, type[Piece]] = {str(kind.model_fields["kind"].default): kind for kind in get_args(_PIECE)}
"""By the name that a kind has in documents."""
GATE_SLOTS = frozenset(name for name, kind in PIECE_KINDS.items() if issubclass(kind, Gate))
