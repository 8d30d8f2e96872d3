"""What can stand in a cell? One module a kind; `Item` is the union of their values, told apart by `kind`."""

from __future__ import annotations

from typing import Annotated, get_args

from pydantic import Field

from .answer import Answer
from .base import BaseItem
from .birth import BirthField
from .button import ButtonItem
from .choices import Choices
from .contact import Contact
from .copyright import Copyright
from .credit import Credit
from .divider import Divider
from .embed import Embed
from .form import Form
from .icon import IconLink
from .languages import LanguageSwitch
from .links import LinkList
from .logo import Logo
from .map import MapItem
from .menu import MenuItem
from .pager import Pager
from .picture import PictureItem
from .pictures import PictureList
from .posts import Posts
from .privacy import PrivacyChoices
from .rich import RichText
from .search import SearchBox
from .secret import PasswordField
from .social import SocialRow
from .spacer import Spacer
from .text import TextItem
from .told import Told
from .top import BackToTop
from .trail import Trail
from .viewer import Viewer

_ITEM = (
    Logo
    | MenuItem
    | TextItem
    | RichText
    | PictureItem
    | ButtonItem
    | IconLink
    | LinkList
    | Contact
    | SocialRow
    | Copyright
    | Credit
    | Divider
    | Spacer
    | BackToTop
    | SearchBox
    | PictureList
    | Trail
    | LanguageSwitch
    | Pager
    | Viewer
    | Form
    | MapItem
    | Posts
    | Answer
    | PasswordField
    | BirthField
    | Told
    | Choices
    | PrivacyChoices
    | Embed
)
Item = Annotated[_ITEM, Field(discriminator="kind")]
ITEM_KINDS: dict[str, type[BaseItem]] = {str(kind.model_fields["kind"].default): kind for kind in get_args(_ITEM)}
"""By the name that a kind has in documents."""
