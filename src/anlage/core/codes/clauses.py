"""What a code says beside its rules on variables: which specimens it asks, and how records carry a deposit together.

They are kept as rules of a kind of their own, so that a person reads, checks and prints them like any other.
"""

from collections.abc import Iterator, Mapping
from typing import Any

import msgspec
from msgspec import Struct

from anlage.core.codes.facts import Facts
from anlage.core.codes.head import Head
from anlage.core.codes.kinds import Readings, known
from anlage.core.codes.pack import Borrow, Combination, JoinedPairs, Rule, Union
from anlage.core.codes.specimens import Specimens
from anlage.core.codes.wording import Wording
from anlage.core.quantities.units import System
from anlage.core.ranges import ANY


class Listed(Struct, frozen=True):
    """The kind of a clause that limits no variable: the row that says it."""

    row: Specimens | Union | JoinedPairs | Borrow

    def allowed(self, facts: Facts, units: System) -> Readings:  # noqa: ARG002 - one interface for all kinds
        """Return everything."""
        return known(ANY)


def clause_of(head: Head, table: Mapping[str, Any], row: Specimens | Union | JoinedPairs | Borrow, *,
              file: str, line: int) -> Rule:  # fmt: skip
    """Return a row as a rule: under the id, title, clause and confidence that its table states."""
    variables = () if isinstance(row, Specimens) else row.variables
    return Rule(
        id=row.id, variables=variables, clause=row.clause, title=row.title, category="", scope="joint",
        kind=Listed(row), confidence=row.confidence, source=head.pack.source, file=file, line=line,
        when=row.when if isinstance(row, Specimens) else (), rank=len(head.categories),
        wording=Wording(table, head.sets),
    )  # fmt: skip


def clauses_of_combination(head: Head, combination: Combination) -> Iterator[Rule]:
    """Yield how records combine as rules, in the order of the pack."""
    starts = [n for n, line in enumerate(head.text.lines, 1) if line.strip().startswith("[[combination]]")]
    rows: dict[str, Union | JoinedPairs | Borrow] = {
        **{row.id: row for row in combination.unions},
        **{row.id: row for row in combination.pairs},
        **{row.id: row for row in combination.borrows},
    }
    for number, written in enumerate(head.combination):
        line = starts[number] if number < len(starts) else 1  # rows may stand inline
        table = msgspec.to_builtins(written)
        yield clause_of(head, table, rows[written.id], file=head.text.name, line=line)
