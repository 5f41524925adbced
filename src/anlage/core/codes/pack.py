"""A code pack: the rules of one code, frozen."""

from collections.abc import Mapping
from functools import cached_property
from types import MappingProxyType
from typing import TYPE_CHECKING, Literal

import msgspec
from msgspec import Struct

from anlage.core.codes.conditions import Condition
from anlage.core.codes.derive import Derivations
from anlage.core.codes.facts import Demand, Fact
from anlage.core.codes.kinds import RuleKind
from anlage.core.codes.limits import Limit
from anlage.core.codes.specimens import Specimens
from anlage.core.codes.wording import Wording
from anlage.core.quantities.units import System

if TYPE_CHECKING:  # a document: what judges a coupon stated by hand needs none
    from anlage.core.rulebook import Check, Overlay

Scope = Literal["joint", "deposit", "pass", "member"]  # of what a rule is asked; a member is one side of the joint


Route = Literal["record", "prequalified", "always"]  # what a deposit rests on where a rule binds it
Basis = Literal["record", "wps"]  # whose facts a rule is asked of
Stage = Literal["wps", "fit-up", "run", "inspection"]  # when a rule is asked
Governs = Literal["qualification", "construction"]  # what proves a procedure, or what the job is built to
Heat = Literal["arc_energy", "heat_input"]  # what a code compares: without the process's efficiency, or with it


SHAPE = ("process", "weld", "joint_type", "root_side")  # what a joint without a record is for, before its dimensions


class Category(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A category of variables; of a `stated` one a change needs no new record, but the WPS states it."""

    id: str
    word: str
    stated: bool = False


class DemandKind(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """What a procedure may ask of any record: its answers, and the one that holds unless asked.

    With `of` the code itself makes it of every metal whose word of that variable is none of `but`.
    """

    id: str
    word: str
    choices: tuple[str, ...]
    default: str
    of: str = ""
    but: tuple[str, ...] = ()


class Rule(Struct, frozen=True, kw_only=True, dict=True):
    """One rule: for the variables it limits, when it concerns a case, and the kind that answers."""

    id: str
    variables: tuple[str, ...]
    clause: str
    title: str
    category: str
    scope: Scope
    kind: RuleKind
    confidence: str
    source: str
    file: str
    line: int
    when: tuple[Condition, ...] = ()
    unless: tuple[tuple[Condition, ...], ...] = ()  # groups: each lifts the rule when all of it holds
    because: str = ""
    note: str = ""
    rank: int = 0  # of its category, 0 the strongest
    route: Route = "record"
    basis: Basis = "record"
    editions: tuple[str, ...] = ()  # in which it holds; all where it names none
    stage: Stage = "wps"
    wording: Wording | None = None
    checks: "tuple[Check, ...]" = ()  # by whom these very words were laid beside a copy of the edition in use
    overlay: "Overlay | None" = None  # what a person put in place of its own words

    @property
    def own_conditions(self) -> tuple[Condition, ...]:
        """All conditions of it, its own and those of its exceptions."""
        return (*self.when, *(each for group in self.unless for each in group))

    @property
    def said(self) -> str:
        """The fingerprint of its words: a check or an overlay holds for these alone."""
        return self.wording.said if self.wording else ""

    @property
    def is_of_record(self) -> bool:
        """Whether it is asked of what a record says: the others are asked of the procedure itself."""
        return self.route == "record" and self.basis == "record"


class Detail(Struct, frozen=True, kw_only=True):
    """A joint that a code lets be welded without a record: what it allows, variable by variable, as rules.

    `when` says which procedures it is for, by what they ask. Of a dimension one rule says what may be drawn, another
    what may be fitted up.
    """

    id: str
    title: str
    rules: tuple[Rule, ...]
    when: tuple[Condition, ...] = ()
    note: str = ""


class Union(Struct, frozen=True, kw_only=True):
    """Over which variables several records may together cover one deposit: in all else each covers it alone."""

    id: str
    title: str
    variables: tuple[str, ...]
    clause: str
    confidence: str
    within: Mapping[str, str] = msgspec.field(default_factory=dict)  # in a groove the first is never over the second


class JoinedPairs(Struct, frozen=True, kw_only=True):
    """Of which pairs records on A-A and on B-B together cover A-B: of one number alone, or across numbers."""

    id: str
    title: str
    variables: tuple[str, ...]
    clause: str
    confidence: str
    across: bool = False


class Borrow(Struct, frozen=True, kw_only=True):
    """A deposit laid by one record in base metal as thick as another record allows: which rules are lifted, and when.

    Only passes of the roles are laid so, up to `times` the thickness `deposit` of the record's own.
    """

    id: str
    title: str
    roles: frozenset[str]
    processes: frozenset[str]
    thickness_from: Limit
    lifts: frozenset[str]  # rule ids whose set is widened by the other record's
    variables: tuple[str, ...]
    deposit: str
    times: float
    clause: str
    confidence: str


class Combination(Struct, frozen=True, kw_only=True, dict=True):
    """How records carry one deposit together."""

    unions: tuple[Union, ...] = ()
    pairs: tuple[JoinedPairs, ...] = ()
    borrows: tuple[Borrow, ...] = ()

    @cached_property
    def spare(self) -> frozenset[str]:
        """The variables in which a record may fail and yet carry a deposit with others."""
        named = [*(each.variables for each in self.unions), *(each.variables for each in self.pairs)]
        return frozenset(v for variables in (*named, *(each.variables for each in self.borrows)) for v in variables)


class Assumption(Struct, frozen=True, forbid_unknown_fields=True):
    """A fact taken for granted when a what-if leaves it out, and how the answer says so."""

    value: float | str = msgspec.field(name="is")
    say: str


class Pack(Struct, frozen=True, dict=True):
    """One code: identity, editions it serves, processes it has rules for, its rules and how records combine."""

    code: str
    name: str  # in short, as people say it
    title: str
    editions: tuple[str, ...]  # oldest first
    processes: frozenset[str]
    source: str
    rules: tuple[Rule, ...]
    combination: Combination
    assumed: Mapping[str, Assumption]  # facts taken for granted in conditions when a what-if leaves them out
    categories: tuple[Category, ...] = ()  # strongest first
    demands: tuple[DemandKind, ...] = ()
    untested: frozenset[str] = frozenset()  # demands under which a record without results allows nothing
    papers: tuple[str, ...] = ()  # what the packet of a weld holds by the code
    optional: frozenset[str] = frozenset()  # variables that do not concern a procedure that does not state them
    accepts_records_of: frozenset[str] = frozenset()  # codes whose records count: its own, and those it names
    specimens: tuple[Specimens, ...] = ()
    details: tuple[Detail, ...] = ()
    staged: tuple[Rule, ...] = ()  # asked later than of the procedure: at fit-up, at the run, at inspection
    clauses: tuple[Rule, ...] = ()  # the lists of specimens, and how records combine, to be read and checked
    basis: Heat = "arc_energy"
    governs: Governs = "qualification"
    deposit_by: tuple[str, ...] = ()  # what is laid with another one of these is another deposit
    units: System = "si"  # in whose column it is judged where nobody says
    edition: str = ""  # whose rules it holds, where they differ
    derive: Derivations = Derivations()

    def facts_of(self, demand: Demand) -> dict[str, Fact]:
        """Return a demand as facts that a condition can ask for: what is not asked as the pack takes it.

        What is open is no fact: a condition that asks for it is not known to hold.
        """
        facts = {**{each.id: each.default for each in self.demands}, **demand.as_facts()}
        return {name: fact for name, fact in facts.items() if name not in demand.unsaid}

    @cached_property
    def answered(self) -> frozenset[str]:
        """The demands that a rule, or what becomes of a record without results, answers."""
        asked = {c.fact for rule in self.rules for group in (rule.when, *rule.unless) for c in group} | self.untested
        return frozenset(each.id for each in self.demands if each.id in asked | set(self.variables))

    @cached_property
    def asks_members(self) -> bool:
        """Whether a rule is asked of each side of a joint by itself."""
        return any(rule.scope == "member" for rule in self.rules)

    @property
    def every(self) -> tuple[Rule, ...]:
        """All that the code says: on variables, of joints without a record, asked later, of specimens and records."""
        return (*self.rules, *(rule for each in self.details for rule in each.rules), *self.staged, *self.clauses)

    def of_edition(self, edition: str) -> "Pack":
        """Return the pack with the rules of an edition; the very same one where all editions have the same."""
        if not any(rule.editions for rule in self.rules):
            return self
        made: dict[str, Pack] = self.__dict__.setdefault("made", {})
        if edition not in made:
            rules = tuple(rule for rule in self.rules if not rule.editions or edition in rule.editions)
            made[edition] = msgspec.structs.replace(self, rules=rules, edition=edition)
        return made[edition]

    def category(self, category_id: str) -> Category:
        """Return a category by its id."""
        return next(each for each in self.categories if each.id == category_id)

    @cached_property
    def joint_variables(self) -> frozenset[str]:
        """Variables that belong to the joint as a whole, even where a deposit narrows them."""
        return frozenset(v for rule in self.rules if rule.scope == "joint" for v in rule.variables)

    @cached_property
    def variables(self) -> Mapping[str, tuple[Rule, ...]]:
        """Every variable with its rules, in the order of the pack."""
        found: dict[str, tuple[Rule, ...]] = {}
        for rule in (*self.rules, *(rule for each in self.details for rule in each.rules)):
            for variable in rule.variables:
                found[variable] = (*found.get(variable, ()), rule)
        return MappingProxyType(found)

    def scope_of(self, variable: str) -> Scope:
        """Return where a variable is stated: at the joint, a deposit or a pass."""
        if variable in self.joint_variables:
            return "joint"
        return self.variables[variable][0].scope
