"""What a code says beside its rules on variables, in words: which specimens it asks, and how records combine."""

from collections.abc import Iterable, Iterator, Mapping, Sequence

from anlage.core.codes.pack import Borrow, JoinedPairs, Pack, Union
from anlage.core.codes.specimens import Specimens
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.core.variables import spoken
from anlage.data.tables import unit_table, variables
from anlage.session.judging.results import kind_of_test

TESTS, RECORDS = "specimens", "how records combine"
Row = Specimens | Union | JoinedPairs | Borrow


def category_of(row: Row) -> str:
    """Return under which heading a clause stands."""
    return TESTS if isinstance(row, Specimens) else RECORDS


def says(row: Row, pack: Pack, system: System) -> tuple[tuple[str, str], ...]:
    """Return what a clause of a pack says, each as what it asks of and what it asks or allows."""
    clauses = {rule.id: rule.clause for rule in pack.every}
    return tuple(_specimens(row, clauses) if isinstance(row, Specimens) else _records(row, clauses, system))


def _specimens(row: Specimens, clauses: Mapping[str, str]) -> Iterator[tuple[str, str]]:
    beside = "besides what others ask" if row.is_added else ""
    instead = f"instead of {_clauses(row.instead, clauses)}" if row.instead else ""
    head = ", ".join(filter(None, ("Such a coupon needs", beside, instead)))
    for number, wanted in enumerate(row.any_of):
        yield (f"{head}, all passed" if number == 0 else "Or in their place"), _counted(wanted)


def _counted(wanted: Mapping[str, int]) -> str:
    specimens = "specimens" if sum(wanted.values()) > 1 else "specimen"
    return f"{_listed([f'{count} {kind_of_test(kind)}' for kind, count in wanted.items()])} {specimens}"


def _records(
    row: Union | JoinedPairs | Borrow, clauses: Mapping[str, str], system: System
) -> Iterator[tuple[str, str]]:
    names = _listed([_name(each) for each in row.variables])
    if isinstance(row, Union):
        yield "Several records, each of which allows all else", f"together they cover {names}"
        for inner, outer in row.within.items():
            yield "In a groove", f"no {_name(inner)} is over the {_name(outer)}"
    elif isinstance(row, JoinedPairs):
        yield "Two records, of A to A and of B to B, alike in all else", f"A to B as well, by {names}"
        yield "A and B", "of any numbers" if row.across else "of one number, before its dash"
    else:
        thick = show(row.thickness_from.of(system), "length", system, unit_table())
        roles, processes = " and ".join(sorted(row.roles)), _listed(sorted(row.processes))
        yield (
            f"A record {thick} thick or more, for {roles} passes alone ({processes})",
            f"{names} as another record of the joint allows, in place of its own by {_clauses(row.lifts, clauses)}",
        )
        yield "What is laid so", f"{_name(row.deposit)} up to {row.times:g} times what its own record has"


def _clauses(rules: Iterable[str], clauses: Mapping[str, str]) -> str:
    return _listed(sorted({clauses.get(each, each) for each in rules}))


def _name(variable: str) -> str:
    row = variables().get(variable)
    return row.name if row else spoken(variable)


def _listed(words: Sequence[str]) -> str:
    return f"{', '.join(words[:-1])} and {words[-1]}" if len(words) > 1 else "".join(words)
