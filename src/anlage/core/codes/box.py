"""The box of a record: every allowed set that one coupon buys, variable by variable, for one demand."""

from collections.abc import Mapping
from functools import cached_property
from typing import Any

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.codes.conditions import concern
from anlage.core.codes.facts import Coupon, Demand, Facts, deposit_facts, deposit_labels, joint_facts
from anlage.core.codes.kinds import Readings, unknown
from anlage.core.codes.pack import Pack, Rule
from anlage.core.codes.verdict import Verdict, verdict_within
from anlage.core.ranges import ANY, NONE, Range, is_any, loosened
from anlage.core.variables import spoken


class Ruling(Struct, frozen=True):
    """What one rule says of one coupon."""

    rule: Rule
    readings: Readings

    @property
    def confidence(self) -> str:
        """How sure what it says is: that of the row or word that answers, else of the rule."""
        return self.readings.confidence or self.rule.confidence


class Allowance(Struct, frozen=True, dict=True):
    """What all rules on one variable allow together, and each of them.

    What is asked at every edit is worked out once, at the first: a box lives far longer than an edit.
    """

    sure: Range
    possible: Range
    rulings: tuple[Ruling, ...]
    doubt: str = ""  # why nothing is allowed for sure, whatever the rules say

    @cached_property
    def _loose(self) -> tuple[Range, Range]:
        sure = loosened(self.sure)
        return sure, sure if self.possible is self.sure else loosened(self.possible)

    def verdict(self, stated: Range | None) -> Verdict:
        """Return the verdict on a stated set; the one that was asked last is not worked out again."""
        kept = self.__dict__.get("kept")
        if kept is None or kept[0] != stated:
            kept = self.__dict__["kept"] = (stated, verdict_within(stated, *self._loose))
        verdict: Verdict = kept[1]
        return verdict

    @cached_property
    def inside(self) -> dict[Any, tuple[Range | None, Any]]:
        """What was made of it last where a stated set is inside, by what else that hangs on."""
        return {}

    @cached_property
    def clause(self) -> str:
        """The clauses of the rules, each once."""
        return ", ".join(dict.fromkeys(ruling.rule.clause for ruling in self.rulings))

    @cached_property
    def category(self) -> str:
        """The strongest category among the rules."""
        return min(self.rulings, key=lambda ruling: ruling.rule.rank).rule.category

    @cached_property
    def confidence(self) -> str:
        """The lowest confidence among the rules."""
        return max((ruling.confidence for ruling in self.rulings), key="HML".index)

    @cached_property
    def reason(self) -> str:
        """Why the two readings differ, one sentence part a rule."""
        if self.doubt:
            return self.doubt
        return "; ".join(dict.fromkeys(r.readings.reason for r in self.rulings if r.readings.reason))

    @cached_property
    def missing(self) -> tuple[str, ...]:
        """The facts that were not recorded and that the rules need."""
        return tuple(dict.fromkeys(r.readings.missing for r in self.rulings if r.readings.missing))

    @cached_property
    def note(self) -> str:
        """What the rules remark."""
        return "; ".join(dict.fromkeys(r.rule.note for r in self.rulings if r.rule.note))


class CoverBox(Struct, frozen=True, dict=True):
    """One record's box under one demand: its allowances, one mapping a deposit.

    Each mapping holds the variables of the joint, of that deposit and of its passes. A variable without rule that
    concerns the case is absent. `empty_because` says why nothing is qualified at all.
    """

    record: str
    coupon: Coupon
    demand: Demand
    labels: tuple[str, ...]
    deposits: tuple[Mapping[str, Allowance], ...]
    empty_because: str = ""

    @cached_property
    def split(self) -> tuple[tuple[frozenset[str], tuple[tuple[str, Allowance], ...]], ...]:
        """Per deposit the variables that need only be stated, and those with a limit to compare."""
        return tuple(
            (
                frozenset(variable for variable, allowance in own.items() if is_any(allowance.sure)),
                tuple((variable, allowance) for variable, allowance in own.items() if not is_any(allowance.sure)),
            )
            for own in self.deposits
        )


def cover_box(pack: Pack, coupon: Coupon, demand: Demand) -> CoverBox:
    """Return the box of a coupon: what a pack allows from it under a demand.

    Parameters
    ----------
    pack : the code
    coupon : the recorded facts
    demand : weld kind, toughness, hardness and judging units asked for
    """
    because, doubt = _untested(pack, coupon, demand)
    demanded = pack.facts_of(demand)
    joint = joint_facts(coupon, demanded)
    common = _rulings([rule for rule in pack.rules if rule.scope == "joint" and rule.is_of_record], joint, demand)
    shared = {variable: _together(found, because, doubt) for variable, found in common.items()}
    deposits = []
    for index, deposit in enumerate(coupon.deposits):
        facts = deposit_facts(coupon, index, demanded)
        own = _deposit_rulings(pack, str(deposit["process"]), facts, demand)
        narrowed = {variable: [*common.get(variable, ()), *found] for variable, found in own.items()}
        together = {variable: _together(found, because, doubt) for variable, found in narrowed.items()}
        deposits.append({**shared, **together})
    labels = deposit_labels([str(deposit["process"]) for deposit in coupon.deposits])
    return CoverBox(coupon.name, coupon, demand, labels, tuple(deposits), because)


def _untested(pack: Pack, coupon: Coupon, demand: Demand) -> tuple[str, str]:
    """Return why a record allows nothing under a demand, or nothing for sure; each "" where it does."""
    tested = {"impact": coupon.toughness_tested, "hardness": coupon.hardness_tested}
    asked = [each for each in sorted(pack.untested) if demand.asks_for(each) and not tested.get(each)]
    for each in asked:
        if tested[each] is False:
            return f"{each} is demanded and the record has no {each} results", ""
    return "", f"{asked[0]} is demanded and no passed {asked[0]} results are recorded" if asked else ""


def _deposit_rulings(pack: Pack, process: str, facts: Facts, demand: Demand) -> dict[str, list[Ruling]]:
    rules = [rule for rule in pack.rules if rule.scope != "joint" and rule.is_of_record]
    if process in pack.processes:
        return _rulings(rules, facts, demand)
    why = unknown(f"the pack has no rules for {process} yet")
    return {v: [Ruling(rule, why)] for rule in rules for v in rule.variables}


def _rulings(rules: list[Rule], facts: Facts, demand: Demand) -> dict[str, list[Ruling]]:
    found: dict[str, list[Ruling]] = {}
    for rule in rules:
        readings = readings_of(rule, facts, demand)
        if readings is not None:
            if readings.missing in facts.clashes:
                readings = replace(readings, reason=facts.clashes[readings.missing])
            ruling = Ruling(rule, readings)
            for variable in rule.variables:
                found.setdefault(variable, []).append(ruling)
    return found


def readings_of(rule: Rule, facts: Facts, demand: Demand) -> Readings | None:
    """Return what a rule allows for some facts; `None` where it does not concern them.

    What is of confidence L, the rule or the row that answers, counts only when someone has checked the rule against an
    owned copy.
    """
    concerned = concern(rule.when, rule.unless, facts, demand.units)
    if concerned.applies is False:
        return None
    readings = rule.kind.allowed(facts, demand.units)
    if (readings.confidence or rule.confidence) == "L" and not rule.checks:
        hazy = unknown("the rule is hazy and nobody has checked it against an owned copy")
        return replace(hazy, confidence=readings.confidence)
    if concerned.applies is None:
        # Two readings: the rule limits, or it does not concern the case at all.
        said = "stated" if concerned.missing in demand.unsaid else "recorded"
        reason = f"whether {rule.clause} applies hangs on {spoken(concerned.missing)}, which is not {said}"
        return Readings(readings.sure, ANY, reason, concerned.missing, readings.confidence)
    return readings


def _together(rulings: list[Ruling], because: str, doubt: str) -> Allowance:
    if because:
        return Allowance(NONE, NONE, tuple(rulings), because)
    sure, possible = rulings[0].readings.sure, rulings[0].readings.possible
    for ruling in rulings[1:]:
        sure, possible = sure & ruling.readings.sure, possible & ruling.readings.possible
    return Allowance(NONE if doubt else sure, possible, tuple(rulings), doubt)
