"""Reads the kind of a rule with its parameters."""

from collections.abc import Callable, Mapping, Sequence
from itertools import combinations
from types import MappingProxyType
from typing import Any

from anlage.core.codes.conditions import Condition
from anlage.core.codes.functions import FUNCTIONS, Function
from anlage.core.codes.kinds import (
    Addressed,
    Also,
    Attribute,
    Band,
    Declared,
    Doubted,
    End,
    Group,
    Map,
    Only,
    RuleKind,
    Same,
    Table,
    TableRow,
    Unknown,
    UpTo,
)
from anlage.core.codes.limits import Limit
from anlage.core.codes.metal_pairs import LETTERS, MetalPairs, PairRow, member_of
from anlage.core.codes.reader import BOUNDS, Reader
from anlage.core.codes.written import WrittenEnd
from anlage.core.ranges import NONE, Interval, Numbers, Range, between, is_none

PARAMETERS: Mapping[str, set[str]] = MappingProxyType(
    {
        "same": {"also"},
        "only": {"tokens", "also"},
        "group": {"groups", "also"},
        "map": {"map", "otherwise", "also"},
        "band": {"low", "high", "also"},
        "table": {"rows", "of", "also"},
        "pairs": {"rows", "members", "letters", "alone", "otherwise"},
        "declared": {"also"},
        "attribute": {"of", "then", "groups", "map", "otherwise", "order", "ranks", "or_same", "also", "tokens"},
        "composition": {"relative", "absolute"},
        "addressed": set(),
        "unknown": set(),
        "function": {"function"},
    }
)
_END = {"is", "times", "plus", "at_least", "at_most", "of", "open", "take"}


class KindReader(Reader):
    """Reads the kinds of rules."""

    def kinds(self, table: Mapping[str, Any], variables: tuple[str, ...]) -> list[tuple[tuple[str, ...], RuleKind]]:
        """Return the kinds of a rule, each with the variables that it limits; of a mixture one a component."""
        if table["kind"] == "composition":
            return self.composition(table, variables[0])
        on = self.variable(table["on"], "on") if "on" in table else variables[0]
        return [(variables, self.kind(table, table["kind"], on, variables[0]))]

    def kind(self, table: Mapping[str, Any], name: str, on: str, variable: str) -> RuleKind:
        """Return a kind by its name, with its second reading and its doubt."""
        makers: Mapping[str, Callable[[], RuleKind]] = {
            "same": lambda: Same(on),
            "only": lambda: Only(self.constant(table, variable)),
            "group": lambda: Group(
                on, tuple(frozenset(self.tokens(on, each, "groups")) for each in self.needed(table, "groups"))
            ),
            "map": lambda: self.map(table, on, variable),
            "band": lambda: self.band(table, on, variable),
            "table": lambda: self.table(table, on, variable),
            "pairs": lambda: self.pairs(table, on),
            "declared": lambda: Declared(on),
            "attribute": lambda: self.attribute(table, on),
            "addressed": Addressed,
            "unknown": lambda: Unknown(self.needed(table, "note")),
            "function": lambda: self.function(table, on),
        }
        if name not in makers:
            raise self.fault(f"no kind {name}", f"take one of {', '.join(makers)}", "then")
        made = makers[name]()  # the second reading of an attribute is in the words of the attribute
        return self.doubted(table, made if name == "attribute" else self.also(table, made, on, variable))

    def constant(self, table: Mapping[str, Any], variable: str) -> Range:
        """Return the set of a rule that is one whatever was recorded; an empty list is nothing."""
        if table.get("tokens") == []:
            return NONE
        return self.token_set(variable, self.needed(table, "tokens"), "tokens")

    def doubted(self, table: Mapping[str, Any], kind: RuleKind) -> RuleKind:
        """Return a rule as it is, or as one that nobody is sure of, whose note says why."""
        return Doubted(kind, self.needed(table, "note")) if table.get("doubt") else kind

    def map(self, table: Mapping[str, Any], on: str, variable: str) -> Map:
        """Return what each token allows."""
        otherwise = self.needed(table, "otherwise")
        if otherwise not in ("same", "unknown"):
            raise self.fault(f"otherwise is {otherwise}", "take same or unknown", "otherwise")
        allows, confidences, wider = {}, {}, {}
        for token, entry in self.needed(table, "map").items():
            self.token(on, token, token)
            allowed = entry
            if isinstance(entry, dict) and "but" not in entry:
                self.only(entry, {"tokens", "confidence", "also"}, token)
                allowed = self.needed(entry, "tokens")
                if "confidence" in entry:
                    self.one_of(entry, "confidence", ("H", "M", "L"))
                    confidences[token] = entry["confidence"]
                if "also" in entry:
                    wider[token] = self.token_set(variable, entry["also"])
            allows[token] = NONE if allowed == [] else self.token_set(variable, allowed)
        return Map(on, MappingProxyType(allows), otherwise == "same", confidences, wider)

    def band(self, table: Mapping[str, Any], on: str, variable: str) -> Band:
        """Return a band, of which one end may be absent."""
        if "low" not in table and "high" not in table:
            raise self.fault("the band has no end", "state low, high or both")
        low, high = (self.end(table[key], on, variable, key) if key in table else None for key in ("low", "high"))
        return Band(low, high)

    def end(self, entry: Mapping[str, Any], on: str, variable: str, key: str) -> End:
        """Return one end of a band."""
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
            times=self.factor(entry.get("times", 1.0), key),
            plus=number("plus", difference=True),
            at_least=number("at_least"),
            at_most=number("at_most"),
            open=entry.get("open", False),
        )

    def factor(self, times: float | Mapping[str, float], key: str) -> Limit:
        """Return by what a fact in base units is multiplied, in each unit column."""
        if not isinstance(times, Mapping):
            return Limit(float(times), float(times))
        if set(times) != {"si", "us"}:
            raise self.fault(f"times is {dict(times)}", "write a number, or {si = …, us = …}", key)
        return Limit(float(times["si"]), float(times["us"]))

    def also(self, table: Mapping[str, Any], kind: RuleKind, on: str, variable: str) -> RuleKind:
        """Return a rule with its wider reading, a band for numbers, a set of tokens for words."""
        if "also" not in table:
            return kind
        if not isinstance(kind, Band | Table | Declared):
            return Also(kind, Only(self.token_set(variable, table["also"], "also")))
        if not isinstance(table["also"], dict):
            raise self.fault(f"also is {table['also']}", "write {low = …, high = …}", "also")
        return Also(kind, self.band(table["also"], on, variable))

    def table(self, table: Mapping[str, Any], on: str, variable: str) -> Table:
        """Return bands by the value of one fact or two."""
        second = self.variable(table["of"], "of") if "of" in table else ""
        seconds = {f"of_{bound}" for bound in BOUNDS} if second else set()
        rows = []
        for entry in self.needed(table, "rows"):
            self.only(entry, BOUNDS | seconds | {"low", "high", "unlimited", "confidence"}, "a row")
            if "confidence" in entry:
                self.one_of(entry, "confidence", ("H", "M", "L"))
            other = self.bounds(second, entry, "of_") if seconds & set(entry) else None
            band = Band() if entry.get("unlimited") else self.band(entry, on, variable)
            rows.append(TableRow(self.bounds(on, entry), other, band, entry.get("confidence", "")))
        for one, two in combinations(rows, 2) if len(rows) > 1 else ():
            if _overlap(one, two):
                numbers = f"{rows.index(one) + 1} and {rows.index(two) + 1}"
                raise self.fault(f"rows {numbers} of {table['id']} overlap", "part them with below and from", "rows")
        return Table(tuple(rows))

    def pairs(self, table: Mapping[str, Any], on: str) -> MetalPairs:
        """Return which pairs of metals a tested pair covers."""
        row = self.names.variables.get(on)
        if row is None or not row.grade:
            raise self.fault(f"{on} are no pairs with a grade", "take kind map or group", "variable")
        members = {group: tuple(own) for group, own in self.needed(table, "members").items()}
        letters = {group: letter for letter, own in self.needed(table, "letters").items() for group in own}
        metals = [metal for own in members.values() for metal in own]
        known = [*members, *metals]
        bare = [group for group in members if letters.get(group) not in LETTERS]
        if bare or set(letters) - set(members):
            wrong = (bare or sorted(set(letters) - set(members)))[0]
            raise self.fault(f"group {wrong} has no letter or no members", "state both, a, b or c", "letters")
        if table.get("otherwise", "unknown") not in ("letter", "unknown"):
            raise self.fault(f"otherwise is {table['otherwise']}", "write letter or unknown", "otherwise")
        twice = sorted(metal for metal in set(metals) if metals.count(metal) > 1)
        if twice or not set(table.get("alone", ())) <= set(metals):
            raise self.fault("a subgroup is in two groups, or alone names none", "mend members", "members")
        rows = tuple(self.pair_row(entry, members, known) for entry in self.needed(table, "rows"))
        if len({each.tested for each in rows}) < len(rows):
            raise self.fault(f"{table['id']} tests the same groups twice", "keep one row of them", "rows")
        otherwise = table.get("otherwise") == "letter"
        return MetalPairs(on, members, letters, rows, frozenset(table.get("alone", ())), otherwise)

    def pair_row(self, entry: Mapping[str, Any], members: Mapping[str, Any], known: Sequence[str]) -> PairRow:
        """Return one row: `tested` groups with a dash between, and what they cover, written alike with letters."""
        self.only(entry, {"tested", "covers", "confidence"}, "a row")
        if "confidence" in entry:
            self.one_of(entry, "confidence", ("H", "M", "L"))
        texts = [self.needed(entry, "tested"), *self.needed(entry, "covers")]
        ends = [[member_of(end) for end in str(text).split("-")] for text in texts]
        for text, found in zip(texts, ends, strict=True):
            if len(found) != 2 or any(each is None or each.metals not in known for each in found):
                raise self.fault(f"{text} is no pair of groups", 'write "3a-1", groups that members names', "rows")
        tested, *covers = [(one, other) for one, other in ends if one is not None and other is not None]
        if any(each.metals not in members or each.letter for each in tested):
            raise self.fault(f"{texts[0]} are no groups", 'write "3-1"', "rows")
        first, second = sorted(each.metals for each in tested)
        return PairRow((first, second), tuple(covers), entry.get("confidence", ""))

    def attribute(self, table: Mapping[str, Any], on: str) -> Attribute:
        """Return a rule on a property of a token."""
        of = self.needed(table, "of")
        inner: RuleKind
        if "order" in table:
            self.one_of(table, "order", ("<=",))
            inner = UpTo(of, tuple(self.needed(table, "ranks")))
        else:
            inner = self.kind(table, table.get("then", "same"), of, of)
        return Attribute(on, of, self.names.column(of), inner, bool(table.get("or_same")))

    def function(self, table: Mapping[str, Any], on: str) -> Function:
        """Return a rule that is a function."""
        name = self.needed(table, "function")
        if name not in FUNCTIONS:
            raise self.fault(f"no function {name}", f"take one of {', '.join(FUNCTIONS)}", "function")
        return Function(name, on)

    def composition(self, table: Mapping[str, Any], variable: str) -> list[tuple[tuple[str, ...], RuleKind]]:
        """Return one band per component of a mixture: within a share of the recorded percentage, or within limits."""
        rules: list[tuple[tuple[str, ...], RuleKind]] = []
        for component, percent in table.get("relative", {}).items():
            name = self.names.variable(f"{variable}.{component}")
            low, high = (End(of=name, times=Limit(share := 1 + sign * percent / 100, share)) for sign in (-1, 1))
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
        met = [numbers_within(a, units) & numbers_within(b, units) for a, b in axes]
        if not any(is_none(common) for common in met):
            return True
    return False


def numbers_within(condition: Condition | None, units: Any) -> Numbers:
    """Return the numbers for which a condition holds in one unit column; all where there is none."""
    if condition is None:
        return between(None, None)
    bounds = {"low": condition.above or condition.start, "high": condition.below or condition.to}
    low, high = (
        bound.of(units) if bound else float(f"{sign}inf") for bound, sign in zip(bounds.values(), "-+", strict=True)
    )
    return Numbers((Interval(low, high, condition.above is not None, condition.below is not None),))
