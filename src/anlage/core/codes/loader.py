"""From the files of a code pack (TOML) to rules; whatever is wrong in it is refused with file, line and reason.

A pack is a folder: `pack.toml` with its head, and `rules_*.toml`. Every name in it is checked: facts and variables
against the table of variables, tokens against the words of each, limits against what is measured, sets against the
pack's own. One misspelt token would else turn what is outside into inside without a word.
"""

from collections.abc import Callable, Iterable, Mapping, Sequence
from types import MappingProxyType
from typing import Any, TypeVar

import msgspec
from msgspec import UNSET, Struct
from msgspec.structs import replace as with_fields

from anlage.core.codes.clauses import Listed, clause_of, clauses_of_combination
from anlage.core.codes.consistency import head_faults, replaced, several, twice, unasked
from anlage.core.codes.detail_reader import DetailReader
from anlage.core.codes.head import Head, PackText, read_head
from anlage.core.codes.kind_reader import PARAMETERS
from anlage.core.codes.limits import limit
from anlage.core.codes.names import Names
from anlage.core.codes.pack import Basis, Borrow, Combination, JoinedPairs, Pack, Route, Rule, Stage, Union
from anlage.core.codes.specimens import Specimens
from anlage.core.codes.wording import Wording
from anlage.core.codes.written import WrittenPairs, WrittenRule, WrittenSpecimens, WrittenUnion
from anlage.core.errors import FormatError, InputError

Row = TypeVar("Row")

_COMMON = {"id", "variable", "clause", "title", "category", "scope", "kind", "on", "confidence", "source", "when",
           "unless", "because", "note", "doubt", "route", "basis", "editions", "stage"}  # fmt: skip


Instead = Mapping[str, Any]  # keys of a rule, and what is to stand there instead
NOTHING: Mapping[str, Instead] = MappingProxyType({})


def read_pack(files: Mapping[str, str], *, names: Names, instead: Mapping[str, Instead] = NOTHING) -> Pack:
    """Return the pack written in some files.

    Parameters
    ----------
    files : the TOML of each file by its name: the head in `pack.toml`, rules in any, tables that the head names
    names : what a rule may name
    instead : by rule the keys that are read instead of its own; of another kind it keeps no parameter of its own

    Raises
    ------
    FormatError : a file is no TOML, a key, name or token is misspelt, a kind unknown, rows overlap, a clause is
        missing, an id comes twice; the message names file and line of the first fault
    """
    pack, faults = _read(files, names, instead)
    for fault in faults:
        raise fault
    assert pack is not None, "a pack without a head is a fault"
    return pack


def faults_of_pack(files: Mapping[str, str], *, names: Names) -> tuple[FormatError, ...]:
    """Return everything that is wrong in the files of a pack, in their order."""
    return tuple(_read(files, names, NOTHING)[1])


def written_rules(files: Mapping[str, str]) -> Mapping[str, Mapping[str, Any]]:
    """Return the rules of a pack as they are written, by their id: their keys, whatever they say."""
    rows = (row for name, text in files.items() for _, row in PackText.of(name, text).rows("rule"))
    return MappingProxyType({row["id"]: row for row in rows})


def _read(
    files: Mapping[str, str], names: Names, instead: Mapping[str, Instead]
) -> tuple[Pack | None, list[FormatError]]:
    faults: list[FormatError] = []
    texts: dict[str, PackText] = {}
    for name, text in files.items():
        try:
            texts[name] = _overlaid(PackText.of(name, text), instead)
        except FormatError as fault:
            faults.append(fault)
    try:
        head = read_head(texts, names)
    except FormatError as fault:
        return None, [*faults, fault]
    found, wrong = _rows(texts.values(), head, names, table="rule", read=RuleReader.rules)
    rules = [rule for of_table in found for rule in of_table]
    lists, faulty = _rows(texts.values(), head, names, table="specimens", read=RuleReader.specimens)
    specimens = [row for each in lists if isinstance(each.kind, Listed) and isinstance(row := each.kind.row, Specimens)]
    details, amiss = _rows(texts.values(), head, names, table="detail", read=RuleReader.detail)
    faults += [*wrong, *faulty, *amiss, *twice(rules), *unasked(rules, head), *head_faults(head, rules, names)]
    faults += [*replaced(specimens, head), *several(lists, rules, head)]
    if faults:
        return None, faults
    try:
        pack = _pack(head, rules, names)
        clauses = (*lists, *clauses_of_combination(head, pack.combination))
        return with_fields(pack, specimens=tuple(specimens), details=tuple(details), clauses=clauses), []
    except InputError as fault:
        return None, [head.text.fault(fault.what, fault.mend, "thickness_from")]


def _overlaid(text: PackText, instead: Mapping[str, Instead]) -> PackText:
    """Return a file with other keys in some of its rules."""
    if not instead or not isinstance(text.raw.get("rule"), list):
        return text
    rows = [_with(row, instead[row["id"]]) if row.get("id") in instead else row for row in text.raw["rule"]]
    return with_fields(text, raw={**text.raw, "rule": rows})


def _with(row: Mapping[str, Any], keys: Instead) -> Mapping[str, Any]:
    kind = row.get("kind")
    dropped = PARAMETERS.get(str(kind), set()) if keys.get("kind", kind) != kind else set()
    return {**{key: value for key, value in row.items() if key not in dropped}, **keys}


def _pack(head: Head, rules: Sequence[Rule], names: Names) -> Pack:
    ranked = sorted(rules, key=lambda rule: rule.rank)  # the strongest category first, whatever the file
    return Pack(
        code=head.pack.code,
        name=head.pack.name,
        title=head.pack.title,
        editions=head.pack.editions,
        processes=frozenset(head.pack.processes),
        source=head.pack.source,
        rules=tuple(rule for rule in ranked if rule.stage == "wps"),
        staged=tuple(rule for rule in ranked if rule.stage != "wps"),
        combination=_combination(head, names),
        untested=frozenset(head.pack.untested),
        papers=head.pack.papers,
        optional=frozenset((*(each.id for each in names.variables.values() if each.optional), *head.pack.optional)),
        accepts_records_of=frozenset((head.pack.code, *head.pack.accepts_records_of)),
        assumed=MappingProxyType({names.variable(fact): each for fact, each in head.pack.assumed.items()}),
        categories=head.categories,
        demands=head.demands,
        derive=head.derive,
        basis=head.pack.basis,
        deposit_by=head.pack.deposit_by,
        governs=head.pack.governs,
        units=head.pack.units,
    )


def _combination(head: Head, names: Names) -> Combination:
    unions, pairs, borrows = [], [], []
    for each in head.combination:
        if isinstance(each, WrittenUnion):
            unions.append(Union(**_plain(each)))
        elif isinstance(each, WrittenPairs):
            pairs.append(JoinedPairs(**_plain(each)))
        else:
            told = _plain(each)
            told |= {name: frozenset(told[name]) for name in ("roles", "processes", "lifts")}
            told["thickness_from"] = limit(each.thickness_from, names.kind("base_metal_thickness_mm"), names.units)
            borrows.append(Borrow(**told))
    return Combination(unions=tuple(unions), pairs=tuple(pairs), borrows=tuple(borrows))


def _plain(row: Struct) -> dict[str, Any]:
    return {name: getattr(row, name) for name in row.__struct_fields__}


def _rows(
    texts: Iterable[PackText], head: Head, names: Names, *, table: str, read: Callable[["RuleReader", Any], Row]
) -> tuple[list[Row], list[FormatError]]:
    """Return what the rows of a table say in all files, and what is wrong in them, row by row."""
    rows: list[Row] = []
    faults: list[FormatError] = []
    for text in texts:
        reader = RuleReader(text, head, names)
        for reader.rule, row in text.rows(table):
            try:
                rows.append(read(reader, row))
            except FormatError as fault:
                faults.append(fault)
            except InputError as fault:  # numbers that contradict each other, as the ends of a row
                faults.append(reader.fault(fault.what, fault.mend))
    return rows, faults


class RuleReader(DetailReader):
    """Reads a rule, a list of specimens or a detail of one file."""

    def rules(self, table: Mapping[str, Any]) -> list[Rule]:
        """Return the rules of one table."""
        self.typed(table, WrittenRule, "")
        kind_name = str(table.get("kind"))
        if kind_name not in PARAMETERS:
            raise self.fault(f"no kind {kind_name}", f"take one of {', '.join(PARAMETERS)}", "kind")
        self.only(table, _COMMON | PARAMETERS[kind_name], f"a rule of kind {kind_name}")
        for key in ("id", "variable", "clause", "title"):
            if not table.get(key):
                raise self.fault(f"the rule has no {key}", f"state {key}", key)
        ranks = [each.id for each in self.head.categories]
        self.one_of(table, "category", ranks)
        self.one_of(table, "scope", self.head.pack.scopes)
        self.one_of(table, "confidence", ("H", "M", "L"))
        if not isinstance(table["clause"], str):
            raise self.fault(f"the clause is {table['clause']}", "write it as a text", "clause")
        stated = table["variable"]
        variables = tuple(self.variable(each) for each in ([stated] if isinstance(stated, str) else stated))
        return [
            Rule(
                id=table["id"],
                variables=names,
                clause=table["clause"],
                title=table["title"],
                category=table["category"],
                scope=table["scope"],
                kind=kind,
                confidence=table["confidence"],
                source=table.get("source", self.head.pack.source),
                file=self.text.name,
                line=self.line(),
                when=self.conditions(table.get("when", {}), "when"),
                unless=self.lifted(table.get("unless", {})),
                because=table.get("because", ""),
                note=table.get("note", ""),
                rank=ranks.index(table["category"]),
                route=(route := table.get("route", "record")),
                basis=self.basis(table, route),
                editions=self.editions(table),
                stage=self.stage(table),
                wording=Wording(table, self.head.sets),
            )
            for names, kind in self.kinds(table, variables)
        ]

    def basis(self, table: Mapping[str, Any], route: Route) -> Basis:
        """Return whose facts a rule is asked of; what rests on no record is asked of the procedure."""
        if route != "record" and table.get("basis") == "record":
            raise self.fault(f"a rule by route {route} has no record", 'write basis = "wps", or leave it out', "basis")
        stated: Basis = table.get("basis", "record" if route == "record" else "wps")
        if stated == "wps" and table["kind"] == "declared":
            raise self.fault("a procedure declares no range of its own", "take another kind", "kind")
        return stated

    def stage(self, table: Mapping[str, Any]) -> Stage:
        """Return when a rule is asked; what is measured on the piece rests on no record."""
        stage: Stage = table.get("stage", "wps")
        if stage != "wps" and table.get("route", "record") == "record":
            raise self.fault(f"a rule of stage {stage} rests on no record", 'write route = "always"', "stage")
        return stage

    def editions(self, table: Mapping[str, Any]) -> tuple[str, ...]:
        """Return the editions in which a rule holds; refused where the pack has no such one."""
        for each in table.get("editions", ()):
            if each not in self.head.pack.editions:
                known = ", ".join(self.head.pack.editions)
                raise self.fault(f"the pack has no edition {each}", f"take one of {known}", "editions")
        return tuple(table.get("editions", ()))

    def specimens(self, table: Any) -> Rule:
        """Return one list of specimens as a clause."""
        self.typed(table, WrittenSpecimens, "[[specimens]]")
        row = msgspec.convert(table, WrittenSpecimens)
        if (row.any is UNSET) is (row.add is UNSET):
            raise self.fault(f"{row.id} states neither any nor add, or both", "state one of them", "any")
        sets = (row.add,) if row.add is not UNSET else row.any
        assert sets is not UNSET, "one of them is stated"
        for wanted in sets:
            for kind in wanted:
                self.token("specimen", kind, kind)
        own = Specimens(
            id=row.id, title=row.title, clause=row.clause, confidence=row.confidence,
            when=self.conditions(row.when, "when"), any_of=sets, is_added=row.add is not UNSET, instead=row.instead,
        )  # fmt: skip
        return clause_of(self.head, table, own, file=self.text.name, line=self.line())
