"""What is wrong in a pack as a whole: an id twice, or a name in its head that stands for nothing."""

from collections.abc import Iterable, Sequence

from anlage.core.codes.head import Head
from anlage.core.codes.names import Names
from anlage.core.codes.pack import Rule
from anlage.core.errors import FormatError, closest


def twice(rules: Sequence[Rule]) -> list[FormatError]:
    """Return a fault for every id that another rule has already; one table may make several rules."""
    faults: list[FormatError] = []
    seen: dict[str, Rule] = {}
    for rule in rules:
        first = seen.setdefault(rule.id, rule)
        if (first.file, first.line) != (rule.file, rule.line):
            where = f"{rule.file} line {rule.line}"
            mend = f"see {first.file} line {first.line}"
            faults.append(FormatError(f"the id {rule.id} comes twice", where=where, mend=mend))
    return faults


def head_faults(head: Head, rules: Sequence[Rule], names: Names) -> list[FormatError]:
    """Return a fault for every rule, variable, token or column that the head names and that is not there."""
    asked = _asked(head, rules, names)
    return [_fault(head, table, each, known) for table, listed, known in asked for each in listed if each not in known]


_Asked = tuple[str, Iterable[str], Iterable[str]]  # the table, what it names, what there is


def _asked(head: Head, rules: Sequence[Rule], names: Names) -> list[_Asked]:
    ids, ruled = {rule.id for rule in rules}, {name for rule in rules for name in rule.variables}
    combination, root = head.combination, head.root_deposit or {}
    processes = names.tokens("process") or frozenset[str]()
    variables = names.variables
    asked: list[_Asked] = [
        ("[pack]", head.processes, processes),
        ("[combination]", combination.get("variables", ()), ruled),
        ("[combination]", combination.get("joined_pairs", ()), ruled),
        ("[root_deposit]", root.get("variables", ()), ruled),
        ("[root_deposit]", root.get("lifts", ()), ids),
        ("[root_deposit]", root.get("processes", ()), processes),
        ("[pack.assumed]", head.assumed, variables),
        ("[[demand]]", [each.id for each in head.demands], [each.id for each in variables.values() if each.asked]),
    ]
    for fact, assumption in head.assumed.items():
        if fact in variables and isinstance(assumption.value, str) and not names.is_token(fact, assumption.value):
            asked.append(("[pack.assumed]", [assumption.value], names.tokens(fact) or ()))
    for demand in head.demands:
        asked.append(("[[demand]]", [demand.default], demand.choices))
        asked.append(("[[demand]]", demand.choices, names.tokens(demand.id) or demand.choices))
    for row in head.derive.rows:
        asked.append(("[[derive]]", [row.variable], variables))
        asked.append(("[[derive]]", row.columns, names.columns.get(row.of, ())))
    if treatment := head.derive.heat_treatment:
        asked.append(("[heat_treatment]", [treatment.fact, treatment.temperature, treatment.metals], variables))
        asked.append(("[heat_treatment]", [treatment.below, treatment.otherwise], names.tokens(treatment.fact) or ()))
    return asked


def _fault(head: Head, table: str, name: str, known: Iterable[str]) -> FormatError:
    close = closest(name, known)
    return head.text.fault(
        f"{table} names {name}, which is not there", f"write {close[0]}" if close else "write one that is", name
    )
