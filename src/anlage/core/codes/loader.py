"""From the files of a code pack (TOML) to rules; whatever is wrong in it is refused with file, line and reason.

A pack is a folder: `pack.toml` with its head, and `rules_*.toml`. Every name in it is checked: facts and variables
against the table of variables, tokens against the words of each, limits against what is measured, sets against the
pack's own. One misspelt token would else turn what is outside into inside without a word.
"""

from collections.abc import Callable, Iterable, Mapping, Sequence
from itertools import combinations
from types import MappingProxyType
from typing import Any

import msgspec
from msgspec.structs import replace

from anlage.core.codes.conditions import Condition
from anlage.core.codes.consistency import head_faults, twice, unasked
from anlage.core.codes.functions import FUNCTIONS, Function
from anlage.core.codes.head import Head, PackText, read_head
from anlage.core.codes.kinds import (
    Addressed,
    Attribute,
    Band,
    BandAlso,
    Declared,
    End,
    Group,
    Map,
    RuleKind,
    Same,
    Table,
    TableRow,
    Unknown,
    UpTo,
)
from anlage.core.codes.limits import Limit, limit
from anlage.core.codes.names import Names
from anlage.core.codes.pack import Combination, Pack, RootDeposit, Rule
from anlage.core.codes.specimens import Specimens
from anlage.core.codes.written import WrittenEnd, WrittenRule, WrittenSpecimens, fault_of
from anlage.core.errors import FormatError, InputError, closest
from anlage.core.ranges import ANY, Interval, Numbers, Range, all_but, between, choices, is_none
from anlage.core.variables import VariableName

_COMMON = {"id", "variable", "clause", "title", "category", "scope", "kind", "on", "confidence", "source", "when",
           "unless", "because", "note"}  # fmt: skip
_PARAMETERS: Mapping[str, set[str]] = MappingProxyType(
    {
        "same": set(),
        "group": {"groups"},
        "map": {"map", "otherwise"},
        "band": {"low", "high", "also"},
        "table": {"rows", "of", "also"},
        "declared": set(),
        "attribute": {"of", "then", "groups", "map", "otherwise", "order", "ranks"},
        "composition": {"relative", "absolute"},
        "addressed": set(),
        "unknown": set(),
        "function": {"function"},
    }
)
_BOUNDS = {"below", "to", "above", "from"}
_END = {"is", "times", "plus", "at_least", "at_most", "of", "open", "take"}


def read_pack(files: Mapping[str, str], *, names: Names) -> Pack:
    """Return the pack written in some files.

    Parameters
    ----------
    files : the TOML of each file by its name: the head in `pack.toml`, rules in any, tables that the head names
    names : what a rule may name

    Raises
    ------
    FormatError : a file is no TOML, a key, name or token is misspelt, a kind unknown, rows overlap, a clause is
        missing, an id comes twice; the message names file and line of the first fault
    """
    pack, faults = _read(files, names)
    for fault in faults:
        raise fault
    assert pack is not None, "a pack without a head is a fault"
    return pack


def faults_of_pack(files: Mapping[str, str], *, names: Names) -> tuple[FormatError, ...]:
    """Return everything that is wrong in the files of a pack, in their order."""
    return tuple(_read(files, names)[1])


def _read(files: Mapping[str, str], names: Names) -> tuple[Pack | None, list[FormatError]]:
    faults: list[FormatError] = []
    texts: dict[str, PackText] = {}
    for name, text in files.items():
        try:
            texts[name] = PackText.of(name, text)
        except FormatError as fault:
            faults.append(fault)
    try:
        head = read_head(texts)
    except FormatError as fault:
        return None, [*faults, fault]
    rules: list[Rule] = []
    for each in texts.values():
        found, wrong = _Reader(each, head, names).read()
        rules += found
        faults += wrong
    specimens, wrong = _specimens(texts.values(), head, names)
    faults += [*wrong, *twice(rules), *unasked(rules, head), *head_faults(head, rules, names)]
    if faults:
        return None, faults
    try:
        return replace(_pack(head, rules, names), specimens=specimens), []
    except InputError as fault:
        return None, [head.text.fault(fault.what, fault.mend, "thickness_from")]


def _pack(head: Head, rules: Sequence[Rule], names: Names) -> Pack:
    combination, root = head.combination, head.root_deposit
    return Pack(
        code=head.pack.code,
        name=head.pack.name,
        title=head.pack.title,
        editions=head.pack.editions,
        processes=frozenset(head.pack.processes),
        source=head.pack.source,
        rules=tuple(sorted(rules, key=lambda rule: rule.rank)),  # the strongest category first, whatever the file
        combination=Combination(
            variables=combination.variables,
            joined_pairs=combination.joined_pairs,
            joined_across=combination.joined_across,
            within=combination.within,
            clause=combination.clause,
        )
        if combination
        else Combination(),
        root_deposit=RootDeposit(
            processes=frozenset(root.processes),
            thickness_from=limit(root.thickness_from, names.kind("base_metal_thickness_mm"), names.units),
            lifts=frozenset(root.lifts),
            variables=root.variables,
            deposit=root.deposit,
            times=root.times,
            clause=root.clause,
        )
        if root
        else None,
        untested=frozenset(head.pack.untested),
        optional=frozenset(each.id for each in names.variables.values() if each.optional),
        accepts_records_of=frozenset((head.pack.code, *head.pack.accepts_records_of)),
        assumed=MappingProxyType({names.variable(fact): each for fact, each in head.pack.assumed.items()}),
        categories=head.categories,
        demands=head.demands,
        derive=head.derive,
    )


def _specimens(texts: Iterable[PackText], head: Head, names: Names) -> tuple[tuple[Specimens, ...], list[FormatError]]:
    """Return the lists of specimens, and what is wrong in them, row by row."""
    rows: list[Specimens] = []
    faults: list[FormatError] = []
    for text in texts:
        reader, tables = _Reader(text, head, names), text.raw.get("specimens", [])
        for number, table in enumerate(tables if isinstance(tables, list) else [tables]):
            reader.rule = text.rules + number
            try:
                rows.append(reader.specimens(table))
            except FormatError as fault:
                faults.append(fault)
    return tuple(rows), faults


class _Reader:
    """Reads the rules of one file; `rule` is the number of the rule being read, for the line of a refusal."""

    def __init__(self, text: PackText, head: Head, names: Names) -> None:
        self.text, self.head, self.names = text, head, names
        self.rule: int | None = None

    def read(self) -> tuple[list[Rule], list[FormatError]]:
        """Return the rules of the file, and what is wrong in it, rule by rule."""
        rules: list[Rule] = []
        faults: list[FormatError] = []
        tables = self.text.raw.get("rule", [])
        for number, table in enumerate(tables if isinstance(tables, list) else [tables]):
            self.rule = number
            try:
                rules += self.rules(table)
            except FormatError as fault:
                faults.append(fault)
            except InputError as fault:  # numbers that contradict each other, as the ends of a row
                faults.append(self.fault(fault.what, fault.mend))
        return rules, faults

    def line(self, key: str = "") -> int:
        """Return the line of `key` in the rule being read, or of the rule itself."""
        return self.text.line(key, rule=self.rule)

    def fault(self, what: str, mend: str, key: str = "") -> FormatError:
        return self.text.fault(what, mend, key, rule=self.rule)

    def only(self, table: Mapping[str, Any], allowed: Iterable[str], of: str) -> None:
        self.text.only(table, allowed, of, rule=self.rule)

    # A rule ----------------------------------------------------------------------------------

    def rules(self, table: Mapping[str, Any]) -> list[Rule]:
        self.typed(table, WrittenRule, "")
        kind_name = str(table.get("kind"))
        if kind_name not in _PARAMETERS:
            raise self.fault(f"no kind {kind_name}", f"take one of {', '.join(_PARAMETERS)}", "kind")
        self.only(table, _COMMON | _PARAMETERS[kind_name], f"a rule of kind {kind_name}")
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
            )
            for names, kind in self.kinds(table, variables)
        ]

    def specimens(self, table: Any) -> Specimens:
        """Return one list of specimens."""
        self.typed(table, WrittenSpecimens, "[[specimens]]")
        row = msgspec.convert(table, WrittenSpecimens)
        for wanted in row.any:
            for kind in wanted:
                self.token("specimen", kind, kind)
        when = self.conditions(row.when, "when")
        return Specimens(id=row.id, clause=row.clause, confidence=row.confidence, when=when, any_of=row.any)

    def variable(self, name: str, key: str = "variable") -> VariableName:
        """Return a variable or a fact by its id; refused when there is none."""
        own = name.partition(".")[0]
        known = self.names.variables
        if own not in known:
            close = closest(own, known)
            raise self.fault(f"no variable {name}", f"write {close[0]}" if close else "add it to variables.toml", key)
        return self.names.variable(name)

    def tokens(self, of: str, listed: Any, key: str) -> tuple[str, ...]:
        """Return the tokens of a list, or of a named set, `@name`; each must be one that the variable may be."""
        if isinstance(listed, str) and listed.startswith("@"):
            if listed[1:] not in self.head.sets:
                close = closest(listed[1:], self.head.sets)
                raise self.fault(f"no set {listed}", f"write @{close[0]}" if close else "state it in [sets]", key)
            listed = self.head.sets[listed[1:]]
        if not listed or not isinstance(listed, list) or not all(isinstance(each, str) for each in listed):
            raise self.fault(f"{listed} is no list of tokens", 'write ["…", "…"], or "@set"', key)
        for token in listed:
            self.token(of, token, key)
        return tuple(listed)

    def token(self, of: str, token: str, key: str) -> None:
        """Refuse a token that a variable cannot be."""
        choices_of = {each.id: each.choices for each in self.head.demands}
        if token not in choices_of.get(of, (token,)) or not self.names.is_token(of, token):
            close = closest(token, choices_of.get(of) or self.names.tokens(of) or ())
            raise self.fault(f"{token} is no {of}", f"write {close[0]}" if close else "take a known word", key)

    def limit(self, number: Any, of: str, key: str, *, difference: bool = False) -> Limit:
        """Return a limit in the base unit of a variable."""
        try:
            return limit(number, self.names.kind(of), self.names.units, difference=difference)
        except InputError as fault:
            raise self.fault(fault.what, fault.mend, key) from fault

    def typed(self, table: Any, kind: type, of: str) -> None:
        """Refuse a table that is none, or a value in it of another type."""
        what, key = fault_of(table, kind)
        if what:
            raise self.fault(f"{'.'.join(filter(None, (of, key))) or 'the rule'}: {what}", "mend it", key or of)

    def one_of(self, table: Mapping[str, Any], key: str, allowed: Sequence[str]) -> None:
        if table.get(key) not in allowed:
            raise self.fault(f"{key} is {table.get(key)}", f"take one of {', '.join(allowed)}", key)

    def conditions(self, table: Mapping[str, Any], key: str) -> tuple[Condition, ...]:
        return tuple(self.condition(fact, entry, key) for fact, entry in table.items())

    def lifted(self, table: Mapping[str, Any] | list[Mapping[str, Any]]) -> tuple[tuple[Condition, ...], ...]:
        """Return when a rule is lifted: by each entry of one table, or by each table of a list as a whole."""
        if isinstance(table, list):
            return tuple(self.conditions(each, "unless") for each in table if each)
        return tuple((each,) for each in self.conditions(table, "unless"))

    def condition(self, fact: str, entry: Any, key: str) -> Condition:
        name = self.variable(fact, fact)
        if isinstance(entry, list | str):
            return Condition(name, frozenset(self.tokens(fact, entry, fact)))
        if not isinstance(entry, dict) or not entry:
            raise self.fault(f"{key}.{fact} is no condition", "write [tokens] or {from = …, below = …}", key)
        if "all" in entry:
            self.only(entry, {"all"}, f"{key}.{fact}")
            return Condition(name, frozenset(self.tokens(fact, entry["all"], fact)), every=True)
        self.only(entry, _BOUNDS, f"{key}.{fact}")
        return self.bounds(name, entry)

    def bounds(self, fact: str, entry: Mapping[str, Any], prefix: str = "") -> Condition:
        names = {"below": "below", "to": "to", "above": "above", "from": "start"}
        limits = {to: self.limit(entry[prefix + key], fact, key) for key, to in names.items() if prefix + key in entry}
        return Condition(fact, **limits)  # type: ignore[arg-type]

    # Kinds -----------------------------------------------------------------------------------

    def kinds(self, table: Mapping[str, Any], variables: tuple[str, ...]) -> list[tuple[tuple[str, ...], RuleKind]]:
        if table["kind"] == "composition":
            return self.composition(table, variables[0])
        on = self.variable(table["on"], "on") if "on" in table else variables[0]
        return [(variables, self.kind(table, table["kind"], on, variables[0]))]

    def kind(self, table: Mapping[str, Any], name: str, on: str, variable: str) -> RuleKind:
        makers: Mapping[str, Callable[[], RuleKind]] = {
            "same": lambda: Same(on),
            "group": lambda: Group(
                on, tuple(frozenset(self.tokens(on, each, "groups")) for each in self.needed(table, "groups"))
            ),
            "map": lambda: self.map(table, on, variable),
            "band": lambda: self.also(table, self.band(table, on, variable), on, variable),
            "table": lambda: self.also(table, self.table(table, on, variable), on, variable),
            "declared": lambda: Declared(on),
            "attribute": lambda: self.attribute(table, on, variable),
            "addressed": Addressed,
            "unknown": lambda: Unknown(self.needed(table, "note")),
            "function": lambda: self.function(table, on),
        }
        if name not in makers:
            raise self.fault(f"no kind {name}", f"take one of {', '.join(makers)}", "then")
        return makers[name]()

    def needed(self, table: Mapping[str, Any], key: str) -> Any:
        if not table.get(key):
            raise self.fault(f"the rule has no {key}", f"state {key}")
        return table[key]

    def map(self, table: Mapping[str, Any], on: str, variable: str) -> Map:
        otherwise = self.needed(table, "otherwise")
        if otherwise not in ("same", "unknown"):
            raise self.fault(f"otherwise is {otherwise}", "take same or unknown", "otherwise")
        allows = {}
        for token, entry in self.needed(table, "map").items():
            self.token(on, token, token)
            allows[token] = self.token_set(variable, entry)
        return Map(on, MappingProxyType(allows), otherwise == "same")

    def token_set(self, of: str, entry: Any) -> Range:
        if entry == "any":
            return ANY
        if isinstance(entry, list | str):
            return choices(*self.tokens(of, entry, "map"))
        if isinstance(entry, dict) and set(entry) == {"but"}:
            return all_but(*self.tokens(of, entry["but"], "map"))
        raise self.fault(f"{entry} is no set of tokens", 'write [tokens], "any" or {but = [tokens]}', "map")

    def band(self, table: Mapping[str, Any], on: str, variable: str) -> Band:
        if "low" not in table and "high" not in table:
            raise self.fault("the band has no end", "state low, high or both")
        low, high = (self.end(table[key], on, variable, key) if key in table else None for key in ("low", "high"))
        return Band(low, high)

    def end(self, entry: Mapping[str, Any], on: str, variable: str, key: str) -> End:
        self.only(entry, _END, key)
        self.typed(entry, WrittenEnd, key)
        if ("is" in entry) is bool({"times", "plus", "of", "take"} & set(entry)):
            raise self.fault(f"{key} is neither a number nor a fact", "state is, or times and plus", key)

        def number(name: str, *, difference: bool = False) -> Any:
            return self.limit(entry[name], variable, key, difference=difference) if name in entry else None

        if "is" in entry:
            return End(number=number("is"), open=entry.get("open", False))
        return End(
            of=self.variable(entry["of"], key) if "of" in entry else on,
            take=entry.get("take", "mean"),
            times=entry.get("times", 1.0),
            plus=number("plus", difference=True),
            at_least=number("at_least"),
            at_most=number("at_most"),
            open=entry.get("open", False),
        )

    def also(self, table: Mapping[str, Any], kind: RuleKind, on: str, variable: str) -> RuleKind:
        return BandAlso(kind, self.band(table["also"], on, variable)) if "also" in table else kind

    def table(self, table: Mapping[str, Any], on: str, variable: str) -> Table:
        second = self.variable(table["of"], "of") if "of" in table else ""
        seconds = {f"of_{bound}" for bound in _BOUNDS} if second else set()
        rows = []
        for entry in self.needed(table, "rows"):
            self.only(entry, _BOUNDS | seconds | {"low", "high", "unlimited"}, "a row")
            other = self.bounds(second, entry, "of_") if seconds & set(entry) else None
            band = Band() if entry.get("unlimited") else self.band(entry, on, variable)
            rows.append(TableRow(self.bounds(on, entry), other, band))
        for one, two in combinations(rows, 2):
            if _overlap(one, two):
                numbers = f"{rows.index(one) + 1} and {rows.index(two) + 1}"
                raise self.fault(f"rows {numbers} of {table['id']} overlap", "part them with below and from", "rows")
        return Table(tuple(rows))

    def attribute(self, table: Mapping[str, Any], on: str, variable: str) -> Attribute:
        of = self.needed(table, "of")
        inner: RuleKind
        if "order" in table:
            self.one_of(table, "order", ("<=",))
            inner = UpTo(of, tuple(self.needed(table, "ranks")))
        else:
            inner = self.kind(table, table.get("then", "same"), of, variable)
        return Attribute(on, of, self.names.column(of), inner)

    def function(self, table: Mapping[str, Any], on: str) -> Function:
        name = self.needed(table, "function")
        if name not in FUNCTIONS:
            raise self.fault(f"no function {name}", f"take one of {', '.join(FUNCTIONS)}", "function")
        return Function(name, on)

    def composition(self, table: Mapping[str, Any], variable: str) -> list[tuple[tuple[str, ...], RuleKind]]:
        """Return one band per component of a mixture: within a share of the recorded percentage, or within limits."""
        rules: list[tuple[tuple[str, ...], RuleKind]] = []
        for component, percent in table.get("relative", {}).items():
            name = self.names.variable(f"{variable}.{component}")
            low, high = (End(of=name, times=1 + sign * percent / 100) for sign in (-1, 1))
            rules.append(((name,), Band(low, high)))
        for component, entry in table.get("absolute", {}).items():
            name = self.names.variable(f"{variable}.{component}")
            rules.append(((name,), self.band(entry, name, name)))
        if not rules:
            raise self.fault("the rule names no component", "state relative, absolute or both")
        return rules


def _overlap(one: TableRow, two: TableRow) -> bool:
    for units in ("si", "us"):
        axes = [(one.on, two.on), (one.second, two.second)]
        met = [_numbers(a, units) & _numbers(b, units) for a, b in axes]
        if not any(is_none(common) for common in met):
            return True
    return False


def _numbers(condition: Condition | None, units: Any) -> Numbers:
    if condition is None:
        return between(None, None)
    bounds = {"low": condition.above or condition.start, "high": condition.below or condition.to}
    low, high = (
        bound.of(units) if bound else float(f"{sign}inf") for bound, sign in zip(bounds.values(), "-+", strict=True)
    )
    return Numbers((Interval(low, high, condition.above is not None, condition.below is not None),))
