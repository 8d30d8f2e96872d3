"""What seems old on pages of others is proposed, the commonest first, by a selector that finds it."""

from __future__ import annotations

import pytest

from tests.broken_pages import BROKEN
from tests.hostile import MARKUP
from upper_rim.core.exchange.html.lift_proposals import MOST, proposals
from upper_rim.core.exchange.html.lifting import find_in_page, selector_fault


def page(body: str) -> bytes:
    return f"<!doctype html><title>x</title><body>{body}".encode()


def test_landmarks_and_what_is_named_like_one_outside_of_the_content() -> None:
    one = page(
        "<header class='old top'><nav>Home</nav></header><div id=cookie-note>We use cookies</div>"
        "<main><header>A title</header><nav>Steps</nav></main><div class=wrap><ul class=side-nav><li>More</ul></div>"
        "<div role=contentinfo class=end>Bye</div>"
    )
    other = page("<header class=old>Home</header><article><footer>By</footer></article><footer>Bye</footer>")
    found = proposals([one, other])
    assert [(each.selector, each.what, each.pages) for each in found] == [
        ("header.old", "Header", 2),
        ("#cookie-note", "Consent bar", 1),
        ("div.end", "Footer", 1),
        ("footer", "Footer", 1),
        ("ul.side-nav", "Menu", 1),
    ]
    assert found[1].excerpt == "We use cookies"
    assert "header.old" not in {each.selector for each in proposals([one], ["header.old"])}


def test_what_says_the_same_on_most_pages_whatever_it_is_called() -> None:
    def made(words: str) -> bytes:
        top = "<div id=top><div class=inner><a href=/>Ferry</a> <a href=/x>Fares</a></div></div>"
        return page(f"<div class=all>{top}<div class=text>{words * 20}</div><table id=end><td>Quay 1</table></div>")

    found = proposals([made(words) for words in ("One ", "Two ", "Three ")])
    assert [(each.selector, each.what, each.pages) for each in found] == [("#end", "Footer", 3), ("#top", "Header", 3)]
    assert not proposals([made("One ")]), "one page tells nothing"


def test_names_that_are_no_plain_words_are_left_out() -> None:
    found = proposals([page("<div id='nav}{' class='menu:x'>a</div><nav id='1'>b</nav><div class='menu;'>c</div>")])
    assert [each.selector for each in found] == ["nav"]


@pytest.mark.parametrize(
    "content", [*BROKEN.values(), *(page(one) for one in MARKUP)], ids=range(len(BROKEN) + len(MARKUP))
)
def test_whatever_comes_in_each_proposal_finds_something_and_is_a_selector(content: bytes) -> None:
    found = proposals([content, content])
    assert len(found) <= MOST
    for one in found:
        assert one.pages == 2 and selector_fault(one.selector) is None
        lifting = find_in_page(content, one.selector)
        assert lifting.found or lifting.faults


def test_two_thousand_menus_are_few_proposals_and_quickly() -> None:
    many = page("".join(f"<div class='menu-{at}'><p>{at}</div>" for at in range(2000)))
    assert len(proposals([many])) == MOST
