"""What correcting a rule needs to know, and what it does."""

from collections.abc import Callable, Sequence
from typing import NamedTuple

from anlage.session.rulebook.entries import ExampleLine, RuleEntry
from anlage.session.rulebook.values import Place, RuleValue

Texts = dict[Place, str]


class Correction(NamedTuple):
    """A rule, each of its values as it reads now, and who corrected it why last.

    `preview` returns the examples of the rule with other values, `put` puts them in its place, by name and reason; both
    refuse what cannot be.
    """

    entry: RuleEntry
    values: Sequence[RuleValue]
    by: str
    reason: str
    preview: Callable[[Texts], Sequence[ExampleLine]]
    put: Callable[[Texts, str, str], None]
