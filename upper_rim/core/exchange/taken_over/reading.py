"""What does an old part of a page hold? Its elements are gone through as they were read, each once."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace

from ...values.brands import Brands
from .grouping import LOGO, grouped
from .measured import Measured
from .seen import Kind, Link, Read, Rect, Seen, around_all, content_box, is_button, is_painted, rect_of, split_address

_SEPARATORS = re.compile(r"[\s|/·•›»«‹:,;–—-]*")
_RIGHTS = re.compile(r"\s*©\s*(\d{4})(?:\s*[–-]\s*(\d{4}))?,?\s+(\S.*)", re.DOTALL)
_CURRENT = re.compile(r"(^|[-_ ])(current|active|selected|here|on)([-_ ]|$)", re.I)
_SEARCH = re.compile(r"search|such|query|^q$|^s$|find", re.I)
_INLINE = frozenset({"inline", "contents"})
_MARKS = {"strong": "strong", "b": "strong", "em": "em", "i": "em"}
_UNREAD = {
    "iframe": "A frame with something from elsewhere",
    "video": "A film",
    "canvas": "A drawing made by a script",
    "object": "An embedded object",
    "embed": "An embedded object",
    "select": "A choice out of a list",
    "textarea": "A field for a text",
}
LONGEST_PLAIN = 400
MOST_SEEN = 200
"""Things of one part."""
LABEL_PX = 32
"""So much larger than its text is a label's ground."""
ICON_PX = 64
"""Pictures in links to profiles are no larger."""
_HEADINGS = ("h1", "h2", "h3", "h4", "h5", "h6", "dt")


def read_part(measured: Measured, brands: Brands, front: str) -> Read:
    """`front`: address of the site's front page, as the page's links have it."""
    reader = _Reader(measured, brands, front)
    reader.go(0)
    read = reader.read
    is_cut = measured.cut or len(read.seen) > MOST_SEEN
    read.seen = grouped(read.seen[:MOST_SEEN], measured, front)
    if is_cut:
        read.unread.append("It has more parts than are read; what stands last is missing.")
    return read


class _Reader:
    def __init__(self, measured: Measured, brands: Brands, front: str) -> None:
        self.measured, self.brands, self.front = measured, brands, front
        self.parts = measured.parts
        self.read = Read()

    def go(self, at: int) -> None:
        part = self.parts[at]
        if not part.styles and not part.is_text:
            return
        if part.adorned:
            self._note("A sign that is drawn by CSS alone, before or behind something, was left out.")
        if part.tag in _UNREAD:
            if part.shows:
                self._note(f"{_UNREAD[part.tag]} was not read.")
            return
        if part.tag == "form" or part.tag == "input":
            return self._form(at)
        if part.tag in {"img", "svg"}:
            return self._picture(at, at)
        if part.tag == "a":
            return self._link(at)
        if part.tag == "button":
            return self._script_button(at)
        if self._background(at):
            return None
        if part.tag in {"p", *_HEADINGS} and all(map(self._flows, self.measured.children(at))):
            return self._run([at])
        self._children(at)
        return None

    def _children(self, at: int) -> None:
        """Texts with what flows among them are read together."""
        run: list[int] = []
        for child in self.measured.children(at):
            if self._flows(child):
                run.append(child)
                continue
            self._run(run)
            run = []
            self.go(child)
        self._run(run)

    def _flows(self, at: int) -> bool:
        part = self.parts[at]
        if part.is_text:
            return True
        if part.tag == "br":
            return True
        if part.styles.get("display") not in _INLINE or part.tag in {"img", "svg", "input", "button", "form", *_UNREAD}:
            return False
        return all(self._flows(child) for child in self.measured.children(at))

    def _run(self, run: Sequence[int]) -> None:
        inside = [number for at in run for number in (at, *self.measured.within(at))]
        texts = [number for number in inside if self.parts[number].is_text and self.parts[number].shows]
        links = [number for number in inside if self.parts[number].tag == "a"]
        linked = {number for link in links for number in self.measured.within(link)}
        plain = [
            number for number in texts if number not in linked and not _SEPARATORS.fullmatch(self.parts[number].text)
        ]
        if any(self.parts[number].tag in {"img", "svg", "input", "button"} for number in inside):
            for at in run:
                if not self.parts[at].is_text:
                    self._children(at) if self.parts[at].tag in {"p", *_HEADINGS} else self.go(at)
            return
        if not texts:
            for link in links:
                self._link(link)
            return
        if not plain:
            if any(number not in linked for number in texts):
                self._note("Signs between links, such as a stroke, were left out; the room between them stays.")
            for link in links:
                self._link(link)
            return
        self._text(run, texts, links)

    def _text(self, run: Sequence[int], texts: Sequence[int], links: Sequence[int]) -> None:
        first = self.parts[texts[0]].parent
        anchors = around_all(rect_of(self.parts[number]) for number in texts)
        words = " ".join("".join(self._words(at) for at in run).split())
        lines = sum(1 for _ in _lines([rect_of(self.parts[number]) for number in texts]))
        lines = max(lines, *(self.parts[number].lines for number in texts))
        rights = _RIGHTS.fullmatch(words)
        marked = links or any(self.parts[number].tag in {*_MARKS, "br"} for number in self._inside(run))
        if rights and not links:
            kind: Kind = "copyright"
        else:
            kind = "rich" if marked or lines > 1 or len(words) > LONGEST_PLAIN else "text"
        html = f"<p>{''.join(self._marked(at) for at in run).strip()}</p>" if kind == "rich" else ""
        box = anchors if lines == 1 else self._block_box(run[0], anchors)
        link_at, has_box = next(iter(links), None), kind == "text" and self._is_labelled(first, anchors)
        self.read.seen.append(
            Seen(kind, first, box, (anchors,), words, html=html, lines=lines, link_at=link_at, has_box=has_box)
        )

    def _is_labelled(self, at: int, anchors: Rect) -> bool:
        """Whether what is painted around a text is for it alone: hardly larger than itself."""
        part = self.parts[at]
        box = rect_of(part)
        is_close = box.width <= anchors.width + LABEL_PX and box.height <= anchors.height + LABEL_PX
        edges = all(part.px(f"border-{side}-width") > 0 for side in ("left", "right"))
        return at > 0 and is_close and (edges or is_painted(part.styles.get("background-color", "")))

    def _block_box(self, at: int, anchors: Rect) -> Rect:
        """How wide its lines may be."""
        for around in (at, *self.measured.around(at)):
            part = self.parts[around]
            if not part.is_text and part.styles.get("display") not in {*_INLINE, None} and part.shows:
                inner = content_box(part)
                return anchors._replace(left=min(inner.left, anchors.left), right=max(inner.right, anchors.right))
        return anchors

    def _inside(self, run: Sequence[int]) -> Iterator[int]:
        for at in run:
            yield at
            yield from self.measured.within(at)

    def _words(self, at: int) -> str:
        part = self.parts[at]
        if part.is_text:
            return part.text if part.shows else ""
        if part.tag == "br":
            return " "
        return "".join(self._words(child) for child in self.measured.children(at))

    def _marked(self, at: int) -> str:
        part = self.parts[at]
        if part.is_text:
            return _escaped(part.text) if part.shows else ""
        if part.tag == "br":
            return "<br>"
        inner = "".join(self._marked(child) for child in self.measured.children(at))
        if part.tag == "a" and part.attributes.get("href"):
            return f'<a href="{_escaped(part.attributes["href"])}">{inner}</a>'
        tag = _MARKS.get(part.tag)
        return f"<{tag}>{inner}</{tag}>" if tag and inner else inner

    def _link(self, at: int) -> None:
        part = self.parts[at]
        pictures = [
            one for one in self.measured.within(at) if self.parts[one].tag in {"img", "svg"} and self.parts[one].shows
        ]
        texts = [one for one in self.measured.within(at) if self._is_shown_text(one)]
        href = part.attributes.get("href", "")
        if not texts:
            if self._profile(at, pictures):
                return
            if pictures:
                return self._picture(pictures[0], at)
            if not self._background(at) and part.adorned:
                self._note("A link whose sign is a letter of a font for icons was left out.")
            return
        for picture in pictures:
            self._picture(picture, at)
        marks = [one for one in texts if self._is_mark(one, at)]
        texts = [one for one in texts if one not in marks] or texts
        words = " ".join("".join(self.parts[one].text for one in texts).split())
        anchors = around_all(rect_of(self.parts[one]) for one in texts)
        new_window = part.attributes.get("target") == "_blank"
        style_at = self.parts[texts[0]].parent
        box = rect_of(part) if part.shows else anchors
        if is_button(part):
            seen = Seen("button", at, box, (anchors,), words, href, new_window=new_window)
        else:
            link = Link(words, href, at, anchors, box, self._is_current(at), new_window)
            if marks and marks[0] not in texts:
                link = replace(link, mark=self.parts[marks[0]].text.strip(), mark_at=self.parts[marks[0]].parent)
            seen = Seen(
                "text", style_at, anchors, (anchors,), words, href, (link,), new_window=new_window, is_bare_link=True
            )
        self.read.seen.append(seen)

    def _is_mark(self, text: int, link: int) -> bool:
        holder = self.parts[text].parent
        return holder != link and self._is_labelled(holder, rect_of(self.parts[text]))

    def _is_shown_text(self, at: int) -> bool:
        """What is moved out of sight to be replaced by a picture is not seen."""
        part = self.parts[at]
        if not part.is_text or not part.shows or part.rect[0] + part.rect[2] < 0:
            return False
        left, _, width, _ = part.rect
        return -200 < left < self.measured.width + 200 and width > 1

    def _is_current(self, at: int) -> bool:
        inner = (at, self.parts[at].parent)
        told = (self.parts[one].attributes for one in inner if one >= 0)
        return any("aria-current" in said or _CURRENT.search(said.get("class", "")) for said in told)

    def _profile(self, at: int, pictures: Sequence[int]) -> bool:
        """Whether it leads to a service whose mark is known."""
        part = self.parts[at]
        href = part.attributes.get("href", "")
        small = [rect_of(self.parts[one]) for one in pictures]
        if any(box.width > ICON_PX or box.height > ICON_PX for box in small):
            return False
        host = split_address(href).hostname or ""
        is_known = href.startswith(("mailto:", "tel:")) or bool(host and self.brands.of_host(host))
        if not is_known or split_address(self.front).hostname == host or not (small or part.adorned):
            return False
        box = small[0] if small else rect_of(part)
        name = part.attributes.get("aria-label") or part.attributes.get("title") or ""
        link = Link(name, href, at, box, rect_of(part))
        self.read.seen.append(Seen("social", at, box, (box,), name, href, (link,)))
        return True

    def _picture(self, at: int, holder: int) -> None:
        part, around = self.parts[at], self.parts[holder]
        if not part.shows:
            return
        href = around.attributes.get("href", "")
        words = (
            part.attributes.get("alt") or part.attributes.get("aria-label") or around.attributes.get("aria-label", "")
        )
        if part.tag == "svg":
            words = words or self.measured.text(at)
            if not part.drawing:
                return self._note("A drawing was too large to be read.")
        box = rect_of(part)
        named = any(LOGO.search(self._named(one)) for one in (at, holder, *list(self.measured.around(holder))[:2]))
        kind: Kind = "logo" if named or self._leads_home(href) else "picture"
        source = part.attributes.get("src", "")
        self.read.seen.append(Seen(kind, at, box, (box,), words, href, source=source, drawing=part.drawing))
        return None

    def _named(self, at: int) -> str:
        attributes = self.parts[at].attributes
        return f"{attributes.get('id', '')} {attributes.get('class', '')} {attributes.get('alt', '')}"

    def _leads_home(self, href: str) -> bool:
        return bool(href) and href.partition("#")[0].removesuffix("index.html") == self.front

    def _background(self, at: int) -> bool:
        """Whether it is a picture for the eye, without a text or anything in it that shows."""
        part = self.parts[at]
        found = re.fullmatch(r'url\("([^"]+)"\)', part.styles.get("background-image", ""))
        if not found or not part.shows:
            return False
        for number in self.measured.within(at):
            if self._is_shown_text(number) or (
                self.parts[number].tag in {"img", "svg", "input"} and self.parts[number].shows
            ):
                return False
        link = next((one for one in (at, *self.measured.within(at)) if self.parts[one].tag == "a"), None)
        href = self.parts[link].attributes.get("href", "") if link is not None else ""
        kind: Kind = "logo" if self._leads_home(href) or LOGO.search(self._named(at)) else "picture"
        box = rect_of(part)
        words = self.measured.text(at, shown=False)
        self.read.seen.append(Seen(kind, at, box, (box,), words, href, source=found[1]))
        return True

    def _form(self, at: int) -> None:
        inside = (at, *self.measured.within(at))
        inputs = [
            one for one in inside
            if self.parts[one].tag == "input" and self.parts[one].shows
            and self.parts[one].attributes.get("type", "text") in {"text", "search", "email", "tel", "url"}
        ]  # fmt: skip
        if not inputs:
            if any(self.parts[one].tag in {"input", "button"} and self.parts[one].shows for one in inside):
                self._note("A form without a field to type in was not read.")
            return
        own = self.parts[inputs[0]].attributes
        told = " ".join((own.get("type", ""), own.get("name", ""), own.get("id", ""), own.get("placeholder", "")))
        named = " ".join(self._named(one) + self.parts[one].attributes.get("role", "") for one in (at, inputs[0]))
        if len(inputs) > 1 or not (_SEARCH.search(told) or "search" in told or _SEARCH.search(named)):
            return self._note("A form that is no search was not read: make one of the kind Form beside it.")
        box = rect_of(self.parts[inputs[0]])
        words = own.get("placeholder") or own.get("aria-label") or ""
        self.read.seen.append(Seen("search", inputs[0], box, (box,), words))
        return None

    def _script_button(self, at: int) -> None:
        """It stands for what opens below it, or for what a script does."""
        if not self.parts[at].shows:
            return
        words = self.measured.text(at)
        item = next((one for one in self.measured.around(at) if self.parts[one].tag == "li"), None)
        if words and item is not None and any(self.parts[one].tag == "a" for one in self.measured.within(item)):
            texts = [one for one in self.measured.within(at) if self._is_shown_text(one)]
            anchors = around_all(rect_of(self.parts[one]) for one in texts)
            link = Link(words, "", at, anchors, rect_of(self.parts[at]))
            style_at = self.parts[texts[0]].parent
            self.read.seen.append(Seen("text", style_at, anchors, (anchors,), words, "", (link,), is_bare_link=True))
            return
        self._note(f"A button that a script answers (“{words or self._named(at).strip() or 'no name'}”) was not read.")

    def _note(self, sentence: str) -> None:
        if sentence not in self.read.unread:
            self.read.unread.append(sentence)


def _lines(boxes: Iterable[Rect]) -> Iterator[float]:
    """Where lines of text end: what overlaps by more than half stands on the same one."""
    bottom = float("-inf")
    for box in sorted(boxes, key=lambda box: box.top):
        if box.middle > bottom:
            yield box.bottom
            bottom = box.bottom


def _escaped(text: str) -> str:
    return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;").replace('"', "&quot;")


def rights_of(words: str) -> tuple[int | None, str]:
    """Since when, and whose, of a line about rights: the year it begins with counts only where it names two."""
    found = _RIGHTS.fullmatch(words)
    if not found:
        return None, words
    return (int(found[1]) if found[2] else None), found[3]
