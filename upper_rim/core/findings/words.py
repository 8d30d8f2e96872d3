"""How is a finding said? Once for screens and the command line."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from ..gates.unserved import Loss
from .finding import Finding, FindingKind


def finding_words(finding: Finding, name_of: Callable[[str], str]) -> str:
    """A sentence without its end. `name_of` gives a node's name by its id."""
    place = finding.place
    who, other = name_of(place.stage or finding.node), name_of(finding.other) if finding.other else ""
    return WORDS[finding.kind].format(
        who=who,
        other=other,
        both=f"{who}: {other}" if other and other != who else who,
        foreseen=", as far as can be foreseen," if finding.is_estimate else "",
        scroll_px=place.scroll_px,
        **finding.about,
    )


def short_words(kind: FindingKind) -> str:
    """Two or three, for a mark beside what it is about."""
    return _SHORT.get(kind, kind)


_SHORT: Mapping[FindingKind, str] = {
    "weak text": "hard to read",
    "nothing": "heads nothing",
    "double": "there twice",
    "deep": "too deep",
    "never": "not reached",
    "brief": "too brief",
    "gap": "shows a gap",
    "covered": "covers much",
    "limited": "higher than wished",
    "overlap": "overlaps",
    "anchor": "jumps too low",
    "flicker": "begins too early",
    "past": "is over",
    "nobody": "for nobody",
    "to come": "page to come",
    "one language": "leads nowhere",
    "drafts": "not looked at",
    "in English": "says it in English",
    "other letters": "in other letters",
}
"""Where the kind's own name does not say it."""


LOSS_WORDS: Mapping[Loss, str] = {
    "addresses show": "The addresses of locked pages can be read in it, though nothing of what is there.",
    "opens over https alone": "It opens only over https, in a browser that runs scripts.",
    "only a browser counts tries": "Wrong tries are counted by the visitor’s own browser alone: choose passwords that are long.",
    "passwords do not end": "A password opens for good what was taken away with it: last days and changes do not reach it.",
    "asks by a script": "It asks by a script: whoever switches scripts off, or is a program, is not asked, and a browser may fetch ahead what the page fetches unasked.",
    "files are not asked for": "Files and pages into which nothing can be put are open to whoever knows their address.",
    "regions are unknown": "Where somebody is nobody knows there: the age that holds elsewhere is asked for.",
    "groups are unknown": "Nobody is known as a member there: all are asked.",
    "audiences are unknown": "It stands there as it does now for somebody of whom nothing is known.",
    "laws are unknown": "Where somebody is nobody knows there: all are asked before anything is fetched.",
    "decisions are not recorded": "Decisions are kept by the visitor’s own browser alone; none is on record.",
}
"""What a gate does less where no server of ours keeps it."""


FIT_WORDS: dict[Any, str] = {
    "tight": "has little room left",
    "wraps": "wraps",
    "breaks words": "breaks within a word",
    "clips": "is higher than its room",
    "overflows": "reaches out of its row",
    "collides": "lies over what stands beside it",
}
"""Of a row at some widths, from little to much, with or without the widths behind it."""


WORDS: Mapping[FindingKind, str] = {
    "first words": "{who} still says what it began with: write what it is to say",
    "leads nowhere": "{who} leads nowhere: say where",
    "leads to itself": "{who} leads to the page that one is on already: say where it is to lead",
    "made-up address": "{who}: {address} stands for an address that is still to come",
    "empty list": "{who} has nothing to list",
    "empty piece": "{who} has nothing in it: what it takes up stays empty",
    "no fields": "{who} has no field: nobody can tell you anything",
    "no picture": "{who} has no picture yet",
    "picture gone": "{who} shows {path}, which is not among the site’s files",
    "no alternative": "{who} has no words for those who do not see it: write some, or say that it is an ornament",
    "first place": "{who} shows a place that nobody has chosen",
    "says nothing": "{who} says nothing yet, and does not show",
    "unused": "“{who}”: nothing uses this {what}",
    "no title": "Pages without a title: {count:.0f}, {path} among them",
    "same title": "Pages that share a title with another one in their language: {count:.0f}, {path} among them (“{first}”)",
    "no description": "Pages of which search engines are told nothing: {count:.0f}, {path} among them. Write one for the site in its settings",
    "no icon": "Pages without an icon: {count:.0f}, {path} among them. Choose one for the site in its settings",
    "no first heading": "Pages without a first heading (h1): {count:.0f}, {path} among them",
    "two first headings": "Pages with several first headings (h1): {count:.0f}, {path} among them",
    "skips a level": "Pages on which headings skip a level: {count:.0f}, {path} among them ({first})",
    "no main": "Pages that do not say where their content begins (main): {count:.0f}, {path} among them",
    "two mains": "Pages that say twice where their content begins (main): {count:.0f}, {path} among them",
    "id twice": "Pages on which several elements have the same id: {count:.0f}, {path} among them (“{first}”)",
    "broken link": "Pages with links of their own that lead to nothing on this site: {count:.0f}, {path} among them, which leads to {first}",
    "no viewport": "Pages without a viewport meta, which phones draw as wide as a screen: {count:.0f}, {path} among them. All that is made for small screens is void there",
    "takes no pieces": "Pages into which no piece can be put: {count:.0f}, {path} among them. {first}",
    "left as it is": "Pages that are left as they are, where what is pinned does not hold: {count:.0f}, {path} among them",
    "nameless link": "Pages with a link or a button that says nothing to who hears it: {count:.0f}, {path} among them ({first})",
    "own order": "Pages on which elements ask for a place of their own in the order of the focus (tabindex above 0): {count:.0f}, {path} among them",
    "two banners": "Pages with a header of their own beside the site’s, both as the page’s banner: {count:.0f}, {path} among them. Lift the old one out",
    "two footers": "Pages with a footer of their own beside the site’s, both as the page’s footer: {count:.0f}, {path} among them. Lift the old one out",
    "unseen picture": "Pages with a picture that has no words for those who do not see it (alt): {count:.0f}, {path} among them ({first})",
    "nameless frame": "Pages with a frame that does not say what is in it (title): {count:.0f}, {path} among them ({first})",
    "nameless field": "Pages with a field that does not say what it asks for (label): {count:.0f}, {path} among them ({first})",
    "empty heading": "Pages with a heading that says nothing: {count:.0f}, {path} among them ({first})",
    "dead link": "Pages with a link that has no address: {count:.0f}, {path} among them (“{first}”)",
    "lost file": "Pages that ask for a file which this site does not have, or say of none which: {count:.0f}, {path} among them ({first})",
    "no encoding": "Pages that do not say how their letters are written (meta charset): {count:.0f}, {path} among them. Browsers guess, and guess wrong",
    "not turned": 'Pages whose language runs from right to left, and that do not say so: {count:.0f}, {path} among them. Put dir="rtl" into their html element',
    "cannot grow": "Pages that phones are told not to enlarge (viewport meta): {count:.0f}, {path} among them",
    "no language": "Pages that do not say which language they are in: {count:.0f}, {path} among them",
    "vague name": "{who} says “{first}”, which tells nobody where it leads",
    "same name": "{who} is called “{first}” as {other} is, and leads elsewhere",
    "unseen focus": "{who}: who uses the keyboard does not see where the focus is",
    "colour alone": "{who}: what is current is told by a colour alone, and by too little of it",
    "hidden link": "{who}: links in its text are told by their colour alone",
    "no such weight": "{face} has no weight {weight:.0f}, which {who} asks for: browsers take another, or smear it",
    "heavy picture": "{who} shows {path}, which has {kilobytes:.0f} kB",
    "heavy pieces": "Pieces add {kilobytes:.0f} kB of pictures and fonts to {path} and to pages like it, {first} the most of it",
    "small picture": "{who} shows {path} wider ({asked_px:.0f} px) than it is ({px:.0f} px)",
    "same landmark": "{who} and {other} are called the same, and are there at once: who goes from landmark to landmark cannot tell them apart",
    "same on hover": "{who} looks the same while one points at it",
    "current unmarked": "{who}: nobody sees which entry leads to the page that one is on",
    "unused files": "Files that no page, piece, script or style sheet names: {count:.0f} with {kilobytes:.0f} kB, {path} among them",
    "reaches nothing": "Your own CSS, line {line:.0f}: “{first}” reaches nothing on any page",
    "no business name": "{who} has no name: search engines are told nothing of it",
    "covered": "{percent:.0f} % of the window is covered at {scroll_px:.0f} px; {most:.0f} % were said to be too much",
    "gap": (
        "“{who}” begins {px:.0f} px too early: so much of the room that it gives up is still in view, "
        "and shows beneath it"
    ),
    "never": "“{who}” is not reached here: the page’s end comes {px:.0f} px before it",
    "brief": "“{who}” lasts {px:.0f} px: one notch of a wheel jumps over it",
    "limited": "“{who}” is {px:.0f} px higher than was wished, by {other}",
    "overlap": "It lies {px:.0f} px over {other} at {scroll_px:.0f} px",
    "hidden focus": "What has the focus finds no room between what is pinned: {px:.0f} px are missing",
    "anchor": (
        "What is jumped to stands {px:.0f} px lower than it could: so much higher the piece may be on the way there"
    ),
    "flicker": (
        "“{who}” begins at {after_px} px and gives up {given_up_px:g} px; it would flicker from {from_px} to {to_px} px, "
        "its room is kept and {gap_px:g} px of it show; from {least_px:g} px on neither"
    ),
    "no page": "there is no page at {path}",
    "page gone": "its page is gone",
    "to come": "{path} has no content yet: nobody can read it",
    "no place": "its page has no place “{anchor}” any more",
    "nothing": "leads nowhere, and heads nothing",
    "double": "leads to the same place as “{other}”",
    "same label": "says the same as “{other}”, and leads elsewhere",
    "deep": "on the fourth level: few will find it",
    "nothing grows": "no page lies below {path}",
    "two buttons": (
        "“{first}” and “{second}” both bring one, on {path} and elsewhere: "
        "leave one away, or let it show in other width bands"
    ),
    "two buttons in one": (
        "“{first}” brings two, on {path} and elsewhere: leave one away, or let it show in other width bands"
    ),
    "never shown": "“{who}” shows on no page, to nobody",
    "no effect": "“{who}”: the rule “{rule}” has no effect on any page",
    "without header": "Pages without a header at {bands}: {pages:.0f}, {path} among them",
    "without footer": "Pages without a footer at {bands}: {pages:.0f}, {path} among them",
    "nobody": "“{who}” is for nobody: {audience} cannot all be so",
    "past": "“{who}”: its time is past, {audience}",
    "no way on": "Pages on which {visitor} finds neither a menu nor a search: {pages:.0f}, {path} among them",
    "no yes": "“{who}” has no answer that lets anybody in: insert one that says yes",
    "no no": "“{who}” has no answer for those who are too young: insert one that says no",
    "no field": "“{who}” has no field for a password: nobody can type one",
    "goes round": "Whoever “{who}” refuses at {path} is sent to where it asks the same again",
    "refused to a door": "Whoever “{who}” refuses is sent to {path}, which “{other}” locks",
    "many presses": "{count:.0f} answers are asked for before {path}: few go so far",
    "locked picture": "“{who}” shows {path}, which is locked: where the piece shows openly, the picture is missing",
    "told by a file": "Addresses that “{who}” locks stand in {file}, which anybody may read: {count:.0f}, {path} among them",
    "quotes a title": "Open pages say “{first}”, which “{who}” locks: {count:.0f}, {path} among them",
    "no yes to all": "“{who}” has no answer that is a yes to all",
    "no no to all": "“{who}” has no answer that is a no to all: a no is as easy as a yes",
    "unequal answers": "“{who}”: its yes and its no do not look alike; neither may be pressed more readily",
    "no policy": "“{who}” leads to no page that says who learns what",
    "no way back": "On {path} and elsewhere nobody who has answered “{who}” can change that: insert Privacy choices",
    "over a bar": "“{who}” lies over “{other}” on {path}",
    "over a button": "“{who}” lies over the menu’s button of “{other}” on {path}, at widths where there is one",
    "two at once": "“{who}” and “{other}” stand at the same edge on {path}",
    "unknown hosts": "Pages fetch from hosts of which nobody has said what they are: {count:.0f}, {host} among them",
    "waits for nobody": "Hosts wait for a yes, and nobody is asked: {count:.0f}. Create a question about consent",
    "one language": "“{who}” leads nowhere: all pages are in one language",
    "no switch": "Pages are in {count:.0f} languages, and no piece leads from one to another: insert a Language switch",
    "speaks alone": "Nobody is led to {first}: none of its {pages:.0f} pages is the translation of another, {path} among them",
    "twice in a language": "Pages to which no switch leads, since others translate the same into their language: {count:.0f}, {path} beside {first}",
    "not translated": "Texts that are not in {second}: {count:.0f} of {of:.0f}, “{first}” among them",
    "older texts": "Texts in {second} of what the original was before: {count:.0f}, “{first}” among them",
    "drafts": "Texts in {second} that a machine made and nobody has looked at: {count:.0f}, “{first}” among them",
    "other letters": "Texts that are not in the letters of {second}: {count:.0f}, “{first}” among them",
    "in English": "Built-in words that pages in {second} say in English: {count:.0f}, “{first}” among them",
    "older pages": "Pages of which the original has changed since they were translated: {count:.0f}, {path} among them",
    "not mutual": "Pages name others as the same in another language that do not name them back, so search engines take no notice: {count:.0f}, {path} among them, which names {first}",
    "turned by CSS": 'Pages that run from right to left by CSS alone: {count:.0f}, {path} among them. Put dir="rtl" into their html element',
    "weak text": "{who}: {ratio:.2f} to 1, {needed:g} are needed",
    "over a picture": "{who}",
    "squeezed": "{who}: {px:.0f} of {asked_px:.0f} px",
    "short lines": "{who} has fewer than {limit:.0f} characters on a line",
    "long lines": "{who} has more than {limit:.0f} characters on a line",
    "small target": (
        "{who} is {width_px:g} × {height_px:g} px at {at_px} px, {distance_px:g} px from {other}; 24 px are asked for"
    ),
    **{kind: f"{{both}} {said}{{foreseen}} from {{from_px}} to {{to_px}} px" for kind, said in FIT_WORDS.items()},
}
