"""The rules of a code in words: what each says, whom it concerns, what it makes of a coupon, and who checked it."""

from collections.abc import Iterable, Mapping, Sequence
from functools import cache

import msgspec
import rtoml
from msgspec import Struct

from anlage.core.codes import Pack, Rule
from anlage.core.codes.clauses import Listed
from anlage.core.codes.conditions import Condition
from anlage.core.codes.examples import Example, Samples, examples_of
from anlage.core.codes.facts import Fact, Measured
from anlage.core.codes.kind_reader import numbers_within
from anlage.core.codes.kinds import Addressed
from anlage.core.quantities.units import System
from anlage.core.ranges import ANY, Choices, Extreme, Interval, Numbers, Pairs, Range, is_any, is_none
from anlage.core.rulebook import Check, Overlay, Rulebook
from anlage.core.variables import spoken
from anlage.data.code_packs import code_pack, pack_names
from anlage.data.files import text_of
from anlage.data.tables import variables
from anlage.session.judging.editions import Codes
from anlage.session.judging.reasons import capital
from anlage.session.leaves.set_text import set_text
from anlage.session.rulebook.clause_words import category_of, says

CONFIDENCES: Mapping[str, str] = {"H": "high", "M": "medium: read from memory", "L": "low: not relied on until checked"}


class ExampleLine(Struct, frozen=True):
    """One worked example in words: the coupon and what it allows; the sets are those of the variable of the rule."""

    coupon: str
    allowed: str
    recorded: Range | None
    sure: Range
    possible: Range


class RuleEntry(Struct, frozen=True, kw_only=True):
    """One rule in words. `rules` are its values in the pack: several under one id where it limits a mixture.

    `stale` are checks that count for nothing here, each with why.
    """

    id: str
    clause: str
    title: str
    category: str
    limits: str  # the variables that it limits
    concerns: str  # "" where it concerns every case
    rules: tuple[Rule, ...]
    overlay: Overlay | None
    checks: tuple[Check, ...]
    stale: tuple[tuple[Check, str], ...]

    @property
    def rule(self) -> Rule:
        """Its first value."""
        return self.rules[0]

    @property
    def is_clause(self) -> bool:
        """Whether it limits no variable by itself: a list of specimens, or how records combine."""
        return isinstance(self.rule.kind, Listed)

    @property
    def head(self) -> str:
        """Its category as a heading says it, and what it limits, in one sentence."""
        return (
            f"{capital(self.category)}."
            if self.is_clause
            else (f"{capital(self.category)} variable. It limits {self.limits}.")
        )

    @property
    def note(self) -> str:
        """What the rule remarks of itself."""
        return capital(self.rule.note) if self.rule.note else ""

    @property
    def confidence(self) -> str:
        """How sure its words are."""
        return self.rule.confidence

    def is_for(self, process: str) -> bool:
        """Return whether it may concern a deposit of a process, by the processes that its conditions name."""
        names = [each.tokens for each in self.rule.when if each.fact == "process"]
        lifted = [group[0].tokens for group in self.rule.unless if len(group) == 1 and group[0].fact == "process"]
        return all(process in each for each in names) and not any(process in each for each in lifted)


class RulesOfCode(Struct, frozen=True, dict=True):
    """The rules of one edition of a code as a works has them, in the order of their clauses."""

    code: str
    edition: str
    pack: Pack
    shipped: Pack
    book: Rulebook | None

    def entries(self, system: System) -> tuple[RuleEntry, ...]:
        """Return every rule in words."""
        kept: dict[str, tuple[RuleEntry, ...]] = self.__dict__.setdefault("kept", {})
        if system not in kept:
            kept[system] = tuple(sorted(self._entries(system), key=_place))
        return kept[system]

    def _entries(self, system: System) -> Iterable[RuleEntry]:
        found: dict[str, list[Rule]] = {}
        for rule in self.pack.every:
            found.setdefault(rule.id, []).append(rule)
        for own, rules in found.items():
            first, kind = rules[0], rules[0].kind
            word = category_of(kind.row) if isinstance(kind, Listed) else self.pack.category(first.category).word
            yield RuleEntry(
                id=own, clause=first.clause, title=capital(first.title), category=word,
                limits=", ".join(dict.fromkeys(spoken(name) for rule in rules for name in rule.variables)),
                concerns=concerns(first, self.pack, system), rules=tuple(rules), overlay=first.overlay,
                checks=first.checks, stale=self._stale(first),
            )  # fmt: skip

    def _stale(self, rule: Rule) -> tuple[tuple[Check, str], ...]:
        checks = [each for each in (self.book.checks if self.book else ()) if each.rule == rule.id]
        return tuple((each, why) for each in checks if (why := self._why_stale(each, rule)))

    def _why_stale(self, check: Check, rule: Rule) -> str:
        if check.said != rule.said:
            return "the rule says something else since"
        return f"it was edition {check.edition}" if check.edition != self.edition else ""

    def entry(self, rule: str, system: System) -> RuleEntry | None:
        """Return a rule by its id; `None` where there is none."""
        return next((each for each in self.entries(system) if each.id == rule), None)

    def lost(self) -> tuple[str, ...]:
        """Return the rules that somebody marked and that the code has no more."""
        known = {rule.id for rule in self.pack.every}
        book = self.book
        marked = [*(each.rule for each in book.checks), *(each.rule for each in book.overlays)] if book else []
        return tuple(dict.fromkeys(rule for rule in marked if rule not in known))

    def examples(self, entry: RuleEntry, system: System, *, as_shipped: bool = False) -> tuple[ExampleLine, ...]:
        """Return the worked examples of a rule in words; as it ships, where an overlay says something else."""
        rules, pack = entry.rules, self.pack
        if as_shipped:
            rules, pack = tuple(rule for rule in self.shipped.every if rule.id == entry.id), self.shipped
        return tuple(line for rule in rules for line in example_lines(rule, pack, system))


def rules_of(code: str, codes: Codes) -> RulesOfCode:
    """Return the rules of a code, `asme-ix` or `asme-ix:2019`, as a works has them.

    Raises
    ------
    UnknownNameError : no such pack, or the pack serves no such edition
    FormatError : the rulebook of the code cannot be read
    """
    pack, edition = codes.edition_of(code, governs=None)
    return RulesOfCode(pack.code, edition, pack, code_pack(pack.code).of_edition(edition), codes.book(pack.code))


def example_lines(rule: Rule, pack: Pack, system: System) -> tuple[ExampleLine, ...]:
    """Return the worked examples of a rule of a pack in words."""
    if isinstance(rule.kind, Listed):
        return tuple(ExampleLine(of, said, None, ANY, ANY) for of, said in says(rule.kind.row, pack, system))
    found = examples_of(rule, pack, pack_names(), samples(), system)
    return tuple(_line(rule, each, pack, system) for each in found)


@cache
def samples() -> Samples:
    """Return what a coupon of an example is where the rule leaves it open."""
    table = rtoml.loads(text_of("rulebook_samples.toml"))
    return msgspec.convert({key: table[key] for key in ("numbers", "words")}, Samples)


def concerns(rule: Rule, pack: Pack, system: System) -> str:
    """Return in words which cases a rule concerns; "" where it concerns every one."""
    asked = {each.id for each in pack.demands}
    when = [_condition(each, asked, system) for each in rule.when]
    unless = [" and ".join(_condition(each, asked, system) for each in group) for group in rule.unless]
    said = [f"where {' and '.join(when)}"] if when else []
    said += [f"not where {'; nor where '.join(unless)}"] if unless else []
    return "; ".join(said)


def _condition(condition: Condition, asked: set[str], system: System) -> str:
    name = _named(condition.fact, asked)
    if condition.tokens:
        words = [set_text(condition.fact, Choices(frozenset((each,))), system) for each in sorted(condition.tokens)]
        every = "all of " if condition.every else ""
        if condition.fact in asked:
            return f"{name}: {_listed(words)}"
        return f"{name} is {every}{_listed(words)}"
    return f"{name} is {set_text(condition.fact, numbers_within(condition, system), system)}"


def _listed(words: Sequence[str]) -> str:
    return f"{', '.join(words[:-1])} or {words[-1]}" if len(words) > 1 else words[0]


def _named(fact: str, asked: set[str]) -> str:
    row = variables().get(fact.partition(".")[0])
    name = f"{row.name}{fact.removeprefix(row.id).replace('.', ', ')}" if row else spoken(fact)
    return f"{name} asked" if fact in asked else name


def _line(rule: Rule, example: Example, pack: Pack, system: System) -> ExampleLine:
    asked = {each.id for each in pack.demands}
    rows = {each.fact: set_text(each.fact, numbers_within(each, system), system) for each in example.rows}
    facts = [
        _fact(name, value, asked, system) + (f" ({rows[name]})" if rows.get(name, "any") != "any" else "")
        for name, value in example.facts.items()
        if not _is_end(name, example)
    ]
    readings, variable = example.readings, rule.variables[0]
    own = example.facts.get(variable)
    return ExampleLine(
        coupon=capital("; ".join(facts)) if facts else _of_no_fact(rule),
        allowed=_allowed(rule, readings.sure, readings.possible, readings.reason, system),
        recorded=None if own is None else as_set(own),
        sure=readings.sure,
        possible=readings.possible,
    )


def _of_no_fact(rule: Rule) -> str:
    """Return of what a constant is said: of any coupon, or of a variable of the procedure itself."""
    return "Any coupon" if rule.is_of_record else capital(spoken(rule.variables[0]))


def _is_end(fact: str, example: Example) -> bool:
    """Return whether a fact only repeats the ends of a pair that is said under the same name."""
    row, rows = variables().get(fact), variables()
    return row is not None and any(
        name != fact and rows[name].pairs and rows[name].name == row.name for name in example.facts if name in rows
    )


def _fact(name: str, value: Fact, asked: set[str], system: System) -> str:
    own = name.removeprefix("declared.")
    said = set_text(own, as_set(value), system)
    return f"{_named(own, asked)}{':' if own in asked else ''} {said}{', as declared' if own != name else ''}"


def as_set(value: Fact) -> Range:
    """Return a fact as a set of one."""
    if isinstance(value, Numbers | Choices | Pairs | Extreme):
        return value
    if isinstance(value, Measured):
        return Numbers((Interval(value.least, value.most),))
    if isinstance(value, str | frozenset):
        return Choices(value if isinstance(value, frozenset) else frozenset((value,)))
    return Numbers((Interval.single(value),))


def _allowed(rule: Rule, sure: Range, possible: Range, reason: str, system: System) -> str:
    if isinstance(rule.kind, Addressed):
        return "any, but the procedure states it"
    variable = rule.variables[0]
    if is_none(sure) and is_any(possible):
        return f"unproven: {reason}"
    text = set_text(variable, sure, system)
    if sure == possible:
        return text
    wider = "anything" if possible == ANY else set_text(variable, possible, system)
    return f"unproven, at most {wider}: {reason}" if is_none(sure) else f"{text}, perhaps {wider}: {reason}"


def _place(entry: RuleEntry) -> tuple[int, str, tuple[tuple[int, str], ...]]:
    return entry.rule.rank, entry.category, _order(entry.clause)


def _order(clause: str) -> tuple[tuple[int, str], ...]:
    """Return what sorts clauses as a reader looks them up: QW-403.9 before QW-403.10."""
    parts = clause.partition(",")[0].replace("-", ".").replace("(", ".").split(".")
    return tuple((int(part), "") if part.isdigit() else (0, part) for part in parts)
