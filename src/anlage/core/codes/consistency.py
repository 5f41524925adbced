"""What is wrong in a pack as a whole: an id twice, or a name in its head that stands for nothing."""

from collections.abc import Iterable, Sequence

from anlage.core.codes.derive import leading
from anlage.core.codes.head import Head
from anlage.core.codes.names import Names
from anlage.core.codes.pack import Rule
from anlage.core.codes.specimens import Specimens
from anlage.core.codes.written import WrittenBorrow, WrittenUnion
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


def several(lists: Sequence[Rule], rules: Sequence[Rule], head: Head) -> list[FormatError]:
    """Return a fault for every id of a list of specimens or a way to combine that is taken: a mark is kept by it."""
    ids = [*{rule.id for rule in rules}, *(each.id for each in lists), *(each.id for each in head.combination)]
    return [
        head.text.fault(f"the id {each} comes twice", "give each its own", each)
        for each in dict.fromkeys(ids)
        if ids.count(each) > 1
    ]


def unasked(rules: Sequence[Rule], head: Head) -> list[FormatError]:
    """Return a fault for every rule that counts because of a demand that the pack does not make."""
    demands = [each.id for each in head.demands]
    return [
        FormatError(
            f"{rule.id} counts because of {rule.because}, which is no demand",
            where=f"{rule.file} line {rule.line}",
            mend=f"take one of {', '.join(demands)}" if demands else "state it in [[demand]]",
        )
        for rule in rules
        if rule.because and rule.because not in demands
    ]


def replaced(specimens: Sequence[Specimens], head: Head) -> list[FormatError]:
    """Return a fault for every list of specimens that stands instead of one that is not there."""
    known = [each.id for each in specimens]
    return [
        FormatError(
            f"{row.id} stands instead of {each}, which is not there", where=head.text.name, mend="name one that is"
        )
        for row in specimens
        for each in row.instead
        if each not in known
    ]


def head_faults(head: Head, rules: Sequence[Rule], names: Names) -> list[FormatError]:
    """Return a fault for every rule, variable, token or column that the head names and that is not there."""
    asked = _asked(head, rules, names)
    return [_fault(head, table, each, known) for table, listed, known in asked for each in listed if each not in known]


_Asked = tuple[str, Iterable[str], Iterable[str]]  # the table, what it names, what there is


def _asked(head: Head, rules: Sequence[Rule], names: Names) -> list[_Asked]:
    ruled = {name for rule in rules for name in rule.variables}
    processes, variables = names.tokens("process") or frozenset[str](), names.variables
    asked: list[_Asked] = [
        ("[pack]", head.pack.processes, processes),
        ("[pack.assumed]", head.pack.assumed, variables),
        ("[pack.untested]", head.pack.untested, {each.id for each in head.demands}),
        ("[[demand]]", [each.id for each in head.demands], [each.id for each in variables.values() if each.asked]),
    ]
    asked.append(("[pack] deposit_by", head.pack.deposit_by, variables))
    asked.append(("[pack] optional", head.pack.optional, variables))
    asked.append(("[pack] names", head.pack.names, variables))
    for each in head.combination:
        asked.append(("[[combination]]", each.variables, ruled))
        if isinstance(each, WrittenUnion):
            asked.append(("[[combination]]", (*each.within, *each.within.values()), ruled))
        if isinstance(each, WrittenBorrow):
            asked.append(("[[combination]]", [each.deposit], ruled))
            asked.append(("[[combination]]", each.lifts, {rule.id for rule in rules}))
            asked.append(("[[combination]]", each.processes, processes))
            asked.append(("[[combination]]", each.roles, names.tokens("pass_role") or each.roles))
    for fact, assumption in head.pack.assumed.items():
        asked += _words("[pack.assumed]", fact, [assumption.value], names)
    for demand in head.demands:
        asked.append(("[[demand]]", [demand.default], demand.choices))
        asked.append(("[[demand]]", [demand.of] if demand.of else [], [row.variable for row in head.derive.rows]))
        asked.append(("[[demand]]", demand.choices, names.tokens(demand.id) or demand.choices))
    return asked + _asked_of_derivations(head, names)


def _asked_of_derivations(head: Head, names: Names) -> list[_Asked]:
    asked: list[_Asked] = []
    for row in head.derive.rows:
        asked.append(("[[derive]]", [row.variable], names.variables))
        own = {column for each in head.derive.listing.rows for column in each.says}
        asked.append(("[[derive]]", row.columns, own if row.listed else names.columns.get(row.of, ())))
        if row.listed and row.form in ("pair", "ends"):
            said = [word for each in head.derive.listing.rows if (word := each.says.get(row.columns[0]))]
            known = names.tokens(row.variable)
            asked.append((head.pack.metals, [*said, *filter(None, [row.otherwise])], known or [*said, row.otherwise]))
        asked += _words("[[derive]]", row.variable, [each.token for each in row.patterns if each.token], names)
        if row.analysis:
            asked += _words(row.analysis, row.variable, [each.a_number for each in head.derive.a_numbers], names)
    return asked + _asked_of_classes(head, names) + _asked_of_heat_treatment(head, names)


def _asked_of_classes(head: Head, names: Names) -> list[_Asked]:
    """Return what the classes of numbers and the words of a code name."""
    asked: list[_Asked] = []
    for each in head.derive.classes:
        asked.append(("[[class]]", [each.variable, each.of], names.variables))
        asked += _words("[[class]]", each.variable, [row.token for row in each.rows if not row.own], names)
    for variable, words in head.derive.words.items():
        asked.append(("[words]", [variable], names.variables))
        said = [*(word.split()[0] for word in words), *(word for own in words.values() for word in own)]
        asked += _words(f"[words.{variable}]", variable, said, names)
    return asked


def _asked_of_heat_treatment(head: Head, names: Names) -> list[_Asked]:
    """Return what a code's words of heat treatment name."""
    treatment = head.derive.heat_treatment
    if treatment is None:
        return []
    asked: list[_Asked] = [
        ("[heat_treatment]", [treatment.fact, treatment.temperature, treatment.metals], names.variables)
    ]
    asked += _words("[heat_treatment]", treatment.fact, [treatment.below, treatment.otherwise], names)
    if groups := names.tokens(treatment.metals):
        asked.append(("[heat_treatment]", treatment.but, groups))
        asked.append(("[heat_treatment]", treatment.transforming, {leading(each) for each in groups}))
        rows = head.derive.lower_transformations
        asked.append((treatment.limits, [each for row in rows for each in sorted(row.p_numbers)], groups))
    return asked


def _words(table: str, variable: str, listed: Iterable[float | str], names: Names) -> list[_Asked]:
    """Return what a variable is said to be, against the words or numbers that it may be."""
    row = names.variables.get(variable)
    if row is None:
        return []
    wrong = [each for each in listed if isinstance(each, str) is bool(row.kind)]
    known = names.tokens(variable)
    said = [str(each) for each in listed if isinstance(each, str) and not names.is_token(variable, each)]
    return [(table, [str(each) for each in wrong], ()), (table, said, known or ())]


def _fault(head: Head, table: str, name: str, known: Iterable[str]) -> FormatError:
    close = closest(name, known)
    return head.text.fault(
        f"{table} names {name}, which is not there", f"write {close[0]}" if close else "write one that is", name
    )
