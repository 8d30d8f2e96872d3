"""All that was found about a site as one HTML file that a designer can hand over: it fetches nothing, and prints."""

from __future__ import annotations

from collections.abc import Mapping
from html import escape
from typing import NamedTuple

from ..kinds.let_be import LetBe
from ..kinds.markup import html
from ..languages.names import name_in
from ..model.site import Site
from .finding import Finding
from .let_be import Sorted
from .pictures import Pictured, Picturing
from .severity import SEVERITIES, SOURCES, Severity
from .told import Teller, all_of
from .whole import Cause

MOST_PICTURES = 60
"""So many are drawn: of what is found in more places than that the worst."""
MOST_PLACES = 5
"""So many are told of one cause beside the worst."""
SEVERITY_WORDS: Mapping[Severity, tuple[str, str]] = {
    "breaks": ("Breaks", "Visitors meet something that does not work, or cannot get on."),
    "hinders": ("Hinders", "Some visitors have a harder time."),
    "doubtful": ("Doubtful", "Somebody should look at it."),
}


class Head(NamedTuple):
    """`of`: which state of the site, in words; `day`: ISO 8601."""

    of: str
    day: str


def report_html(site: Site, found: Sorted, head: Head, picturing: Picturing) -> str:
    teller = Teller(site)
    counts = {one: sum(cause.severity == one for cause in found.open) for one in SEVERITIES}
    drawn = {cause.key: picturing.of(cause, f"p{at}") for at, cause in enumerate(found.open[:MOST_PICTURES])}
    parts = [
        f"<h1>{escape(site.name)}: findings</h1>",
        f"<p>{escape(head.of)}, looked at on {escape(head.day)}. {_counted(counts)}</p>",
    ]
    for severity in SEVERITIES:
        listed = [cause for cause in found.open if cause.severity == severity]
        if listed:
            title, meaning = SEVERITY_WORDS[severity]
            parts.append(f'<section class="{severity}"><h2>{title}: {len(listed)}</h2><p>{meaning}</p><ol>')
            parts += [_told(cause, teller, drawn.get(cause.key)) for cause in listed]
            parts.append("</ol></section>")
    if found.let_be:
        parts.append(f'<section class="let-be"><h2>Let be: {len(found.let_be)}</h2><ol>')
        parts += [_let_be(cause, one, teller) for cause, one in found.let_be]
        parts.append("</ol></section>")
    title = f"{escape(site.name)}: findings"
    return (
        f'<!doctype html>\n<html lang="en">\n<head>\n<meta charset="utf-8">\n<title>{title}</title>\n'
        '<meta name="viewport" content="width=device-width, initial-scale=1">\n'
        f"<style>{_CSS}</style>\n</head>\n<body>\n<main>\n{chr(10).join(parts)}\n</main>\n</body>\n</html>\n"
    )


def _counted(counts: Mapping[Severity, int]) -> str:
    said = {"breaks": "{} that break", "hinders": "{} that hinder", "doubtful": "{} that are doubtful"}
    listed = [said[one].format(count) for one, count in counts.items() if count]
    return f"{all_of(listed)}." if listed else "Nothing was found."


def _told(cause: Cause, teller: Teller, pictured: Pictured | None) -> str:
    source = SOURCES.get(cause.kind)
    lines = [f"<h3>{_sentence(teller.said(cause))}</h3>", f'<p class="where">{_where(cause, teller)}</p>']
    _, *more = dict.fromkeys(_said_in(one, cause, teller) for one in cause.findings)
    listed = [_sentence(one) for one in more[:MOST_PLACES]]
    if len(more) > MOST_PLACES:
        listed.append(f"And {len(more) - MOST_PLACES} more.")
    if listed:
        lines.append(f"<ul>{''.join(f'<li>{one}</li>' for one in listed)}</ul>")
    if source:
        lines.append(f'<p class="source">{escape(source)}</p>')
    if pictured is not None:
        wide = min(100.0, pictured.width_px / 12.8)
        lines.append(
            f'<figure style="width:{wide:.0f}%">{html([pictured.svg])}<figcaption>{escape(pictured.said)}</figcaption></figure>'
        )
    return f"<li>{''.join(lines)}</li>"


def _said_in(one: Finding, cause: Cause, teller: Teller) -> str:
    """With its language, where it is so in several."""
    said = teller.said_of(one)
    return f"{name_in(one.language, 'en')}: {said}" if len(cause.languages) > 1 else said


def _let_be(cause: Cause, one: LetBe, teller: Teller) -> str:
    until = f", until {one.until}" if one.until else ""
    why = f"<p>“{escape(one.reason)}” ({escape(one.by or 'somebody')}, {one.on}{until})</p>"
    return f'<li><h3>{_sentence(teller.said(cause))}</h3><p class="where">{_where(cause, teller)}</p>{why}</li>'


def _where(cause: Cause, teller: Teller) -> str:
    return escape(" · ".join((" › ".join(teller.where(cause)), *teller.when(cause))))


def _sentence(said: str) -> str:
    return escape(f"{said[:1].upper()}{said[1:]}{'' if said.endswith('.') else '.'}")


_CSS = """
body{margin:0;background:#fffdf8;color:#23292b;font:16px/1.5 "Atkinson Hyperlegible Next",system-ui,sans-serif}
main{max-width:60rem;margin:0 auto;padding:2rem 1.25rem}
h1{font-size:1.6rem;margin:0 0 .5rem}h2{font-size:1.15rem;margin:2rem 0 .25rem}h3{font-size:1rem;margin:0}
ol{padding:0;margin:1rem 0 0;list-style:none}ol>li{border-top:1px solid #ddd3c2;padding:.75rem 0;break-inside:avoid}
ul{margin:.25rem 0;padding-left:1.25rem}p{margin:.15rem 0}
.where,.source,figcaption{color:#5a5d57;font-size:.875rem}
h2,section>p{break-after:avoid}figcaption{white-space:nowrap}
.breaks h2{color:#97291f}.hinders h2{color:#6f4700}
figure{margin:.5rem 0 0;break-inside:avoid}figure svg{display:block;width:100%;height:auto;max-height:24rem;border:1px solid #ddd3c2}
.window{fill:#fff;stroke:#8d8474}.piece{fill:#e9e4da;stroke:#8d8474}.meant{fill:#f2dfd3;stroke:#97291f;stroke-width:2}
.named{fill:#23292b;font-family:system-ui,sans-serif}
@media print{main{max-width:none;padding:0}body{background:#fff;font-size:11pt}}
"""
