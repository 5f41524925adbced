"""From the text of a code pack (TOML) to rules; whatever is wrong in it is refused with file, line and reason."""

import re
import tomllib
from collections.abc import Callable, Iterable, Mapping
from itertools import combinations
from types import MappingProxyType
from typing import Any, get_args

from anlage.core.codes.conditions import Condition
from anlage.core.codes.functions import FUNCTIONS, Function
from anlage.core.codes.kinds import (
    Addressed,
    Attribute,
    Band,
    BandAlso,
    Declared,
    End,
    Group,
    Map,
    Row,
    RuleKind,
    Same,
    Table,
    Unknown,
    UpTo,
)
from anlage.core.codes.limits import limit
from anlage.core.codes.pack import CATEGORIES, Assumption, Combination, Pack, RootDeposit, Rule, Scope
from anlage.core.errors import FormatError, closest
from anlage.core.ranges import ANY, Interval, Numbers, Range, all_but, between, choices, is_none

Column = Callable[[str], Mapping[str, str]]  # a catalogue column by its name, as token -> value

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
_PACK = {"code", "title", "editions", "processes", "source", "assumed"}


def read_pack(text: str, *, where: str, column: Column) -> Pack:
    """Return the pack written in `text`.

    Parameters
    ----------
    text : the TOML of the pack
    where : the file, for messages
    column : returns a catalogue column, for rules on an attribute

    Raises
    ------
    FormatError : the text is no TOML, a key is misspelt, a kind unknown, rows overlap, a clause is missing, an id comes
        twice; the message names file and line
    """
    try:
        raw = tomllib.loads(text)
    except tomllib.TOMLDecodeError as error:
        raise FormatError(f"no TOML: {error}", where=where, mend="mend the line") from error
    return _Reader(text, where, column).pack(raw)


class _Reader:
    """Reads one pack; `rule` is the number of the rule being read, for the line of a refusal."""

    def __init__(self, text: str, where: str, column: Column) -> None:
        self.lines, self.where, self.column = text.splitlines(), where, column
        self.starts = [n for n, line in enumerate(self.lines, 1) if re.match(r"\s*\[\[rule\]\]", line)]
        self.rule: int | None = None

    # Where a fault is ------------------------------------------------------------------------

    def line(self, key: str = "") -> int:
        """Return the line of `key` in the rule being read, or of the rule itself."""
        start = self.starts[self.rule] if self.rule is not None else 1
        end = (
            next((n for n in self.starts if n > start), len(self.lines) + 1)
            if self.rule is not None
            else len(self.lines)
        )
        pattern = re.compile(rf"(?:^|[\s{{,.]){re.escape(key)}\s*(?:=|\.)")
        return next((n for n in range(start, end) if key and pattern.search(self.lines[n - 1])), start)

    def fault(self, what: str, mend: str, key: str = "") -> FormatError:
        return FormatError(what, where=f"{self.where} line {self.line(key)}", mend=mend)

    def only(self, table: Mapping[str, Any], allowed: Iterable[str], of: str) -> None:
        for key in table:
            if key not in set(allowed):
                close = closest(key, allowed)
                mend = f"write {close[0]}" if close else f"known are {', '.join(sorted(allowed))}"
                raise self.fault(f"{of} has no key {key}", mend, key)

    # The pack --------------------------------------------------------------------------------

    def pack(self, raw: Mapping[str, Any]) -> Pack:
        self.only(raw, {"pack", "rule", "combination", "root_deposit"}, "a pack")
        head = raw.get("pack", {})
        self.only(head, _PACK, "[pack]")
        for key in _PACK - {"assumed"}:
            if not head.get(key):
                raise self.fault(f"[pack] has no {key}", f"state {key}")
        rules: list[Rule] = []
        for number, table in enumerate(raw.get("rule", [])):
            self.rule = number
            rules += self.rules(table, head["source"])
        self.unique(rules)
        self.rule = None
        return Pack(
            code=head["code"],
            title=head["title"],
            editions=tuple(head["editions"]),
            processes=frozenset(head["processes"]),
            source=head["source"],
            rules=tuple(rules),
            combination=self.combination(raw.get("combination", {})),
            root_deposit=self.root_deposit(raw.get("root_deposit")),
            assumed=MappingProxyType(
                {fact: Assumption(a["is"], a["say"]) for fact, a in head.get("assumed", {}).items()}
            ),
        )

    def unique(self, rules: list[Rule]) -> None:
        seen: dict[str, int] = {}
        for rule in rules:
            if seen.setdefault(rule.id, rule.line) != rule.line:
                where = f"{self.where} line {rule.line}"
                raise FormatError(f"the id {rule.id} comes twice", where=where, mend=f"see line {seen[rule.id]}")

    def combination(self, table: Mapping[str, Any]) -> Combination:
        self.only(table, {"variables", "joined_pairs", "clause", "confidence"}, "[combination]")
        variables = tuple(table.get("variables", ()))
        if len(variables) > 3:
            raise self.fault("[combination] names more than three variables", "name at most three", "variables")
        return Combination(
            variables=variables, joined_pairs=tuple(table.get("joined_pairs", ())), clause=table.get("clause", "")
        )

    def root_deposit(self, table: Mapping[str, Any] | None) -> RootDeposit | None:
        if table is None:
            return None
        keys = {"processes", "thickness_from", "lifts", "variables", "clause", "confidence"}
        self.only(table, keys, "[root_deposit]")
        return RootDeposit(
            processes=frozenset(table["processes"]),
            thickness_from=limit(table["thickness_from"], "base_metal_thickness_mm"),
            lifts=frozenset(table["lifts"]),
            variables=tuple(table["variables"]),
            clause=table["clause"],
        )

    # A rule ----------------------------------------------------------------------------------

    def rules(self, table: Mapping[str, Any], source: str) -> list[Rule]:
        kind_name = str(table.get("kind"))
        if kind_name not in _PARAMETERS:
            raise self.fault(f"no kind {kind_name}", f"take one of {', '.join(_PARAMETERS)}", "kind")
        self.only(table, _COMMON | _PARAMETERS[kind_name], f"a rule of kind {kind_name}")
        for key in ("id", "variable", "clause", "title"):
            if not table.get(key):
                raise self.fault(f"the rule has no {key}", f"state {key}", key)
        self.one_of(table, "category", CATEGORIES)
        self.one_of(table, "scope", get_args(Scope))
        self.one_of(table, "confidence", ("H", "M", "L"))
        stated = table["variable"]
        variables = (stated,) if isinstance(stated, str) else tuple(stated)
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
                source=table.get("source", source),
                line=self.line(),
                when=self.conditions(table.get("when", {}), "when"),
                unless=self.conditions(table.get("unless", {}), "unless"),
                because=table.get("because", ""),
                note=table.get("note", ""),
            )
            for names, kind in self.kinds(table, variables)
        ]

    def one_of(self, table: Mapping[str, Any], key: str, allowed: tuple[str, ...]) -> None:
        if table.get(key) not in allowed:
            raise self.fault(f"{key} is {table.get(key)}", f"take one of {', '.join(allowed)}", key)

    def conditions(self, table: Mapping[str, Any], key: str) -> tuple[Condition, ...]:
        return tuple(self.condition(fact, entry, key) for fact, entry in table.items())

    def condition(self, fact: str, entry: Any, key: str) -> Condition:
        if isinstance(entry, list):
            return Condition(fact, frozenset(entry))
        if not isinstance(entry, dict) or not entry:
            raise self.fault(f"{key}.{fact} is no condition", "write [tokens] or {from = …, below = …}", key)
        self.only(entry, _BOUNDS, f"{key}.{fact}")
        return self.bounds(fact, entry)

    def bounds(self, fact: str, entry: Mapping[str, Any], prefix: str = "") -> Condition:
        names = {"below": "below", "to": "to", "above": "above", "from": "start"}
        limits = {to: limit(entry[prefix + key], fact) for key, to in names.items() if prefix + key in entry}
        return Condition(fact, **limits)  # type: ignore[arg-type]

    # Kinds -----------------------------------------------------------------------------------

    def kinds(self, table: Mapping[str, Any], variables: tuple[str, ...]) -> list[tuple[tuple[str, ...], RuleKind]]:
        if table["kind"] == "composition":
            return self.composition(table, variables[0])
        return [(variables, self.kind(table, table["kind"], table.get("on", variables[0]), variables[0]))]

    def kind(self, table: Mapping[str, Any], name: str, on: str, variable: str) -> RuleKind:
        makers: Mapping[str, Callable[[], RuleKind]] = {
            "same": lambda: Same(on),
            "group": lambda: Group(on, tuple(map(frozenset, self.needed(table, "groups")))),
            "map": lambda: self.map(table, on),
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

    def map(self, table: Mapping[str, Any], on: str) -> Map:
        otherwise = self.needed(table, "otherwise")
        if otherwise not in ("same", "unknown"):
            raise self.fault(f"otherwise is {otherwise}", "take same or unknown", "otherwise")
        allows = {token: self.token_set(entry) for token, entry in self.needed(table, "map").items()}
        return Map(on, MappingProxyType(allows), otherwise == "same")

    def token_set(self, entry: Any) -> Range:
        if entry == "any":
            return ANY
        if isinstance(entry, list):
            return choices(*entry)
        if isinstance(entry, dict) and set(entry) == {"but"}:
            return all_but(*entry["but"])
        raise self.fault(f"{entry} is no set of tokens", 'write [tokens], "any" or {but = [tokens]}', "map")

    def band(self, table: Mapping[str, Any], on: str, variable: str) -> Band:
        if "low" not in table and "high" not in table:
            raise self.fault("the band has no end", "state low, high or both")
        low, high = (self.end(table[key], on, variable, key) if key in table else None for key in ("low", "high"))
        return Band(low, high)

    def end(self, entry: Mapping[str, Any], on: str, variable: str, key: str) -> End:
        self.only(entry, _END, key)
        if ("is" in entry) is bool({"times", "plus", "of", "take"} & set(entry)):
            raise self.fault(f"{key} is neither a number nor a fact", "state is, or times and plus", key)

        def number(name: str, *, difference: bool = False) -> Any:
            return limit(entry[name], variable, difference=difference) if name in entry else None

        if "is" in entry:
            return End(number=number("is"), open=entry.get("open", False))
        return End(
            of=entry.get("of", on),
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
        second = table.get("of", "")
        seconds = {f"of_{bound}" for bound in _BOUNDS} if second else set()
        rows = []
        for entry in self.needed(table, "rows"):
            self.only(entry, _BOUNDS | seconds | {"low", "high", "unlimited"}, "a row")
            other = self.bounds(second, entry, "of_") if seconds & set(entry) else None
            band = Band() if entry.get("unlimited") else self.band(entry, on, variable)
            rows.append(Row(self.bounds(on, entry), other, band))
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
        return Attribute(on, of, self.column(of), inner)

    def function(self, table: Mapping[str, Any], on: str) -> Function:
        name = self.needed(table, "function")
        if name not in FUNCTIONS:
            raise self.fault(f"no function {name}", f"take one of {', '.join(FUNCTIONS)}", "function")
        return Function(name, on)

    def composition(self, table: Mapping[str, Any], variable: str) -> list[tuple[tuple[str, ...], RuleKind]]:
        """Return one band per component of a mixture: within a share of the recorded percentage, or within limits."""
        rules: list[tuple[tuple[str, ...], RuleKind]] = []
        for component, percent in table.get("relative", {}).items():
            name = f"{variable}.{component}"
            low, high = (End(of=name, times=1 + sign * percent / 100) for sign in (-1, 1))
            rules.append(((name,), Band(low, high)))
        for component, entry in table.get("absolute", {}).items():
            name = f"{variable}.{component}"
            rules.append(((name,), self.band(entry, name, name)))
        if not rules:
            raise self.fault("the rule names no component", "state relative, absolute or both")
        return rules


def _overlap(one: Row, two: Row) -> bool:
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
