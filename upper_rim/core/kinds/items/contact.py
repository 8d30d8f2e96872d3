"""Who and where one is."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator, Mapping, Sequence, Set
from typing import Annotated, Any, Literal

from pydantic import Field, StringConstraints

from ...languages import direction
from ...languages.written import comma, day_names, time_in_words
from ...values.nodes import Value
from ...values.styling import Part
from ...values.words import Label
from ..context import PageContext, SiteOffer
from ..markup import Markup, Raw, element
from .base import BaseItem, Fact, Lack

Day = Literal["Mo", "Tu", "We", "Th", "Fr", "Sa", "Su"]
DAY_ORDER: tuple[Day, ...] = ("Mo", "Tu", "We", "Th", "Fr", "Sa", "Su")
Clock = Annotated[str, StringConstraints(pattern=r"^([01]\d|2[0-4]):[0-5]\d$")]

BusinessKind = Literal[
    "Organization", "LocalBusiness", "Store", "TravelAgency", "Restaurant", "LodgingBusiness", "EducationalOrganization"
]
"""Types of schema.org that carry an address."""


class Hours(Value):
    """When one is open on some days of the week (schema.org OpeningHoursSpecification)."""

    days: tuple[Day, ...]
    opens: Clock
    closes: Clock


class Contact(BaseItem):
    """Who and where one is: published as an `address` and as schema.org data."""

    NAME = "Contact"
    ABOUT = "Address, telephone, mail, opening hours"
    CALLED = ("address", "hours", "opening times")
    ROLES = {"box": "text", "link": "link"}
    ALIKE = ("business", "name", "street", "postcode", "town", "country", "telephone", "mail", "hours")

    kind: Literal["contact"] = "contact"
    business: BusinessKind = "Organization"
    name: Label = ""
    street: Label = ""
    postcode: Label = ""
    town: Label = ""
    country: Annotated[str, StringConstraints(pattern=r"^([A-Z]{2})?$")] = Field(
        default="", description="ISO 3166-1 code of two letters."
    )
    telephone: Annotated[str, StringConstraints(strip_whitespace=True, pattern=r"^(\+?[\d ()/-]{5,24})?$")] = ""
    mail: Annotated[
        str, StringConstraints(strip_whitespace=True, pattern=r"^([^\s@/:<>]+@[^\s@/:<>]+\.[^\s@/:<>]+)?$")
    ] = ""
    hours: tuple[Hours, ...] = ()

    def facts(self) -> Mapping[str, Fact]:
        said = self.model_dump(mode="json", include=set(self.ALIKE) - {"business", "name"})
        return {f"contact {field}": Fact(self.id, field, value, self.name) for field, value in said.items() if value}

    @classmethod
    def beginning(cls, offer: SiteOffer) -> dict[str, Any]:
        return {"name": offer.site_name}

    @property
    def address_lines(self) -> list[str]:
        """Name, street, postcode with town; without what is not given."""
        place = " ".join(part for part in (self.postcode, self.town) if part)
        return [line for line in (self.name, self.street, place) if line]

    def lacks(self) -> Iterator[Lack]:
        if not self.facts():
            yield Lack("says nothing", "street")

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        lines = (element("span", {}, *line) for line in self._lines(page))
        address = element("address", page.attributes(self, "text", "contact", self.id), *lines)
        data = self.structured()
        if not data:
            return (address,)
        json_ld = json.dumps(data, ensure_ascii=False).replace("<", "\\u003c")
        return (address, element("script", {"type": "application/ld+json"}, Raw(json_ld)))

    def _lines(self, page: PageContext) -> Iterator[tuple[Markup, ...]]:
        yield from ((element("bdi", {}, line),) for line in self.address_lines)
        anchor = page.name("anchor")
        if self.telephone:
            number = re.sub(r"[^\d+]", "", self.telephone)
            yield (element("a", {"class": anchor, "href": f"tel:{number}", "dir": "ltr"}, self.telephone),)
        if self.mail:
            yield (element("a", {"class": anchor, "href": f"mailto:{self.mail}", "dir": "ltr"}, self.mail),)
        for hours in self.hours:
            said = [time_in_words(clock, page.language, self.country) for clock in (hours.opens, hours.closes)]
            runs = direction(page.language) if any(char.isalpha() for char in said[0]) else "ltr"
            times = element("span", {"dir": runs}, "–".join(said))
            yield f"{days_in_words(hours, page.language)} ", times

    def structured(self) -> dict[str, Any]:
        """The contact as schema.org names it; empty without a name, which every type requires."""
        if not self.name:
            return {}
        address = {
            "streetAddress": self.street,
            "postalCode": self.postcode,
            "addressLocality": self.town,
            "addressCountry": self.country,
        }
        address = {key: value for key, value in address.items() if value}
        has_hours = self.business not in {"Organization", "EducationalOrganization"}
        data: dict[str, Any] = {
            "@context": "https://schema.org",
            "@type": self.business,
            "name": self.name,
            "address": {"@type": "PostalAddress", **address} if address else None,
            "telephone": self.telephone,
            "email": self.mail,
            "openingHoursSpecification": [_structured_hours(hours) for hours in self.hours] if has_hours else None,
        }
        return {key: value for key, value in data.items() if value}

    @property
    def unseen_parts(self) -> Set[Part]:
        return set() if self.texts_within() else {"link"}

    def texts_within(self) -> tuple[Part, ...]:
        return ("link",) if self.telephone or self.mail else ()


_DAY_NAMES: dict[Day, str] = {
    "Mo": "Monday",
    "Tu": "Tuesday",
    "We": "Wednesday",
    "Th": "Thursday",
    "Fr": "Friday",
    "Sa": "Saturday",
    "Su": "Sunday",
}


def _structured_hours(hours: Hours) -> dict[str, Any]:
    return {
        "@type": "OpeningHoursSpecification",
        "dayOfWeek": [_DAY_NAMES[day] for day in DAY_ORDER if day in hours.days],
        "opens": hours.opens,
        "closes": hours.closes,
    }


def days_in_words(hours: Hours, language: str) -> str:
    """`Mon–Fri`, `Sat, Sun`: three days or more in a row are joined."""
    return joined_days(hours, day_names(language), "–", comma(language))


def joined_days(hours: Hours, names: Sequence[str], to: str, comma: str) -> str:
    """The days by `names`, Monday's first; three or more in a row as a range."""
    places = sorted({DAY_ORDER.index(day) for day in hours.days})
    runs: list[list[int]] = []
    for place in places:
        if runs and runs[-1][-1] == place - 1:
            runs[-1].append(place)
        else:
            runs.append([place])
    parts = [
        f"{names[run[0]]}{to}{names[run[-1]]}" if len(run) > 2 else comma.join(names[day] for day in run)
        for run in runs
    ]
    return comma.join(parts)
