"""Reads what every table of a pack may have: variables, tokens, limits, conditions; each name is checked."""

from collections.abc import Iterable, Mapping, Sequence
from typing import Any

from anlage.core.codes.conditions import Condition
from anlage.core.codes.head import Head, PackText
from anlage.core.codes.limits import Limit, limit
from anlage.core.codes.names import Names
from anlage.core.codes.written import fault_of
from anlage.core.errors import FormatError, InputError, closest
from anlage.core.ranges import ANY, Range, all_but, choices
from anlage.core.variables import VariableName

BOUNDS = {"below", "to", "above", "from"}


class Reader:
    """Reads tables of one file; `rule` is the number of the table being read, for the line of a refusal."""

    def __init__(self, text: PackText, head: Head, names: Names) -> None:
        self.text, self.head, self.names = text, head, names
        self.rule: int | None = None

    def line(self, key: str = "") -> int:
        """Return the line of `key` in the rule being read, or of the rule itself."""
        return self.text.line(key, rule=self.rule)

    def fault(self, what: str, mend: str, key: str = "") -> FormatError:
        """Return a refusal that names file and line of a key in the table being read."""
        return self.text.fault(what, mend, key, rule=self.rule)

    def only(self, table: Mapping[str, Any], allowed: Iterable[str], of: str) -> None:
        """Refuse what is no table, or a key that it cannot have."""
        self.text.only(table, allowed, of, rule=self.rule)

    def variable(self, name: str, key: str = "variable") -> VariableName:
        """Return a variable or a fact by its id; refused when there is none."""
        own = name.partition(".")[0]
        known = self.names.variables
        if own not in known:
            close = closest(own, known)
            raise self.fault(f"no variable {name}", f"write {close[0]}" if close else "add it to variables.toml", key)
        return self.names.variable(name, self.head.pack.names.get(own, ""))

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
        """Refuse a value that is none of some."""
        if table.get(key) not in allowed:
            raise self.fault(f"{key} is {table.get(key)}", f"take one of {', '.join(allowed)}", key)

    def needed(self, table: Mapping[str, Any], key: str) -> Any:
        """Return the value of a key that must be there."""
        if not table.get(key):
            raise self.fault(f"the rule has no {key}", f"state {key}")
        return table[key]

    def conditions(self, table: Mapping[str, Any], key: str) -> tuple[Condition, ...]:
        """Return a table of conditions."""
        return tuple(self.condition(fact, entry, key) for fact, entry in table.items())

    def lifted(self, table: Mapping[str, Any] | list[Mapping[str, Any]]) -> tuple[tuple[Condition, ...], ...]:
        """Return when a rule is lifted: by each entry of one table, or by each table of a list as a whole."""
        if isinstance(table, list):
            return tuple(self.conditions(each, "unless") for each in table if each)
        return tuple((each,) for each in self.conditions(table, "unless"))

    def condition(self, fact: str, entry: Any, key: str) -> Condition:
        """Return one condition: tokens, tokens of which all must match, or bounds."""
        name = self.variable(fact, fact)
        words = isinstance(entry, list | str) or (isinstance(entry, dict) and "all" in entry)
        if words and self.names.kind(fact):
            raise self.fault(f"{fact} is a number, and {key}.{fact} are words", "write {from = …, below = …}", key)
        if isinstance(entry, list | str):
            return Condition(name, frozenset(self.tokens(fact, entry, fact)))
        if not isinstance(entry, dict) or not entry:
            raise self.fault(f"{key}.{fact} is no condition", "write [tokens] or {from = …, below = …}", key)
        if "all" in entry:
            self.only(entry, {"all"}, f"{key}.{fact}")
            return Condition(name, frozenset(self.tokens(fact, entry["all"], fact)), every=True)
        self.only(entry, BOUNDS, f"{key}.{fact}")
        if self.names.tokens(fact) is not None:
            raise self.fault(f"{fact} are words, and {key}.{fact} are bounds", "write [tokens]", key)
        return self.bounds(name, entry)

    def bounds(self, fact: str, entry: Mapping[str, Any], prefix: str = "") -> Condition:
        """Return the bounds of a fact, each key behind a prefix."""
        names = {"below": "below", "to": "to", "above": "above", "from": "start"}
        limits = {to: self.limit(entry[prefix + key], fact, key) for key, to in names.items() if prefix + key in entry}
        return Condition(fact, **limits)  # type: ignore[arg-type]

    def token_set(self, of: str, entry: Any, key: str = "map") -> Range:
        """Return a set of tokens: a list, a named set, all but some, or any."""
        if entry == "any":
            return ANY
        if self.names.kind(of):
            raise self.fault(f"{of} is a number, and {key} are words", "take kind band or table", key)
        if isinstance(entry, list | str):
            return choices(*self.tokens(of, entry, key))
        if isinstance(entry, dict) and set(entry) == {"but"}:
            return all_but(*self.tokens(of, entry["but"], key))
        raise self.fault(f"{entry} is no set of tokens", 'write [tokens], "any" or {but = [tokens]}', key)
