"""How are contact details published: as an `address`, and as schema.org data in JSON-LD?"""

from __future__ import annotations

import json
import re
from collections.abc import Callable
from html import escape
from typing import Any

from ..model.items import Contact, Day
from ..model.told import DAY_ORDER, address_lines, days_in_words

_DAYS: dict[Day, str] = {
    "Mo": "Monday",
    "Tu": "Tuesday",
    "We": "Wednesday",
    "Th": "Thursday",
    "Fr": "Friday",
    "Sa": "Saturday",
    "Su": "Sunday",
}


def contact_html(item: Contact, attributes: str, name: Callable[[str], str], language: str) -> str:
    """`attributes` of the address element; `name` makes published class names."""
    lines = [f"<bdi>{escape(line)}</bdi>" for line in address_lines(item)]
    if item.telephone:
        number = re.sub(r"[^\d+]", "", item.telephone)
        lines.append(f'<a class="{name("anchor")}" href="tel:{number}" dir="ltr">{escape(item.telephone)}</a>')
    if item.mail:
        mail = escape(item.mail, quote=True)
        lines.append(f'<a class="{name("anchor")}" href="mailto:{mail}" dir="ltr">{mail}</a>')
    lines += [
        f'{escape(days_in_words(hours, language))} <span dir="ltr">{hours.opens}–{hours.closes}</span>'
        for hours in item.hours
    ]
    data = structured(item)
    json_ld = json.dumps(data, ensure_ascii=False).replace("<", "\\u003c")
    script = f'<script type="application/ld+json">{json_ld}</script>' if data else ""
    return f"<address {attributes}>{''.join(f'<span>{line}</span>' for line in lines)}</address>{script}"


def structured(item: Contact) -> dict[str, Any]:
    """The contact as schema.org names it; empty without a name, which every type requires."""
    if not item.name:
        return {}
    address = {
        "streetAddress": item.street,
        "postalCode": item.postcode,
        "addressLocality": item.town,
        "addressCountry": item.country,
    }
    address = {key: value for key, value in address.items() if value}
    hours = [
        {
            "@type": "OpeningHoursSpecification",
            "dayOfWeek": [_DAYS[day] for day in DAY_ORDER if day in hours.days],
            "opens": hours.opens,
            "closes": hours.closes,
        }
        for hours in item.hours
    ]
    said: dict[str, Any] = {
        "@context": "https://schema.org",
        "@type": item.business,
        "name": item.name,
        "address": {"@type": "PostalAddress", **address} if address else None,
        "telephone": item.telephone,
        "email": item.mail,
        "openingHoursSpecification": hours
        if item.business not in {"Organization", "EducationalOrganization"}
        else None,
    }
    return {key: value for key, value in said.items() if value}
