"""A rule of CSS as data: which elements, what is declared for them, within which at-rules."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from itertools import takewhile
from typing import Any, NamedTuple

import tinycss2


class Rule(NamedTuple):
    """`declarations`: property and value. `within`: the conditions that it stands in, from outside, as they are
    written: `@media (width < 600px)`. What has no selector has its at-rule instead: `@font-face`."""

    selector: str
    declarations: Mapping[str, str]
    within: tuple[str, ...] = ()

    def named(self, name: Callable[[str], str]) -> Rule:
        """The same with all of its text as `name` gives it."""
        declared = {name(property_): name(value) for property_, value in self.declarations.items()}
        return Rule(name(self.selector), declared, tuple(map(name, self.within)))


def css(rules: Iterable[Rule], *, is_important: bool = False) -> str:
    """The rules as text, in their order. What follows each other within the same conditions stands in one block.
    `is_important`: every declaration is."""
    text: list[str] = []
    around: tuple[str, ...] = ()
    end = "!important" if is_important else ""
    for rule in rules:
        shared = sum(1 for _ in takewhile(lambda pair: pair[0] == pair[1], zip(around, rule.within, strict=False)))
        text.append("}" * (len(around) - shared))
        text += [f"{condition}{{" for condition in rule.within[shared:]]
        declared = ";".join(f"{name}:{value}{end}" for name, value in rule.declarations.items())
        text.append(f"{rule.selector}{{{declared}}}")
        around = rule.within
    return "".join(text) + "}" * len(around)


def inside(conditions: Sequence[str], rules: Iterable[Rule]) -> Iterator[Rule]:
    """The same rules, within more conditions."""
    return (rule._replace(within=(*conditions, *rule.within)) for rule in rules)


def any_of(selectors: Sequence[str]) -> str:
    """A selector of all that any of these selects (Selectors 4, 4.2)."""
    return selectors[0] if len(selectors) == 1 else f":is({','.join(selectors)})"


def rules_in(css_text: str) -> tuple[Rule, ...]:
    """The rules of a style sheet of ours. ValueError where it is not understood, or says a property twice in a rule."""
    return tuple(_read(tinycss2.parse_stylesheet(css_text, skip_comments=True, skip_whitespace=True), ()))


_DECLARING = frozenset({"font-face", "property"})
"""At-rules that hold declarations, and no rules."""


def _read(nodes: Iterable[Any], within: tuple[str, ...]) -> Iterator[Rule]:
    for node in nodes:
        if node.type == "at-rule" and node.content is not None:
            condition = f"@{node.at_keyword} {tinycss2.serialize(node.prelude).strip()}".rstrip()
            if node.at_keyword in _DECLARING:
                yield Rule(condition, _declared(node.content), within)
                continue
            inner = tinycss2.parse_rule_list(node.content, skip_comments=True, skip_whitespace=True)
            yield from _read(inner, (*within, condition))
        elif node.type == "qualified-rule":
            yield Rule(tinycss2.serialize(node.prelude).strip(), _declared(node.content), within)
        else:
            raise ValueError(f"no rule at line {node.source_line}")


def _declared(content: Sequence[Any]) -> Mapping[str, str]:
    declared: dict[str, str] = {}
    for node in tinycss2.parse_blocks_contents(content, skip_comments=True, skip_whitespace=True):
        if node.type != "declaration" or node.name in declared:
            raise ValueError(f"no declaration, or a second one, at line {node.source_line}")
        declared[node.name] = tinycss2.serialize(node.value).strip()
    return declared
