"""Rules that are asked of the procedure itself: its own sets are the facts, and what they allow must hold for all.

A stated set is asked at each of its tokens, at the ends of its numbers and on both sides of every limit that the rule
names between them; what the rule allows at each is intersected. The ends of bands move one way with their fact, so that
nothing between two of these places allows less.
"""

from collections.abc import Callable, Iterator, Mapping, Sequence
from itertools import product
from typing import Any, TypeVar

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.codes.box import Allowance, Ruling, readings_of
from anlage.core.codes.conditions import Condition, concern
from anlage.core.codes.facts import Demand, Fact, Facts
from anlage.core.codes.kinds import End, Only, Readings, unknown
from anlage.core.codes.limits import Limit
from anlage.core.codes.pack import SHAPE, Detail, Pack, Rule
from anlage.core.codes.verdict import Verdict, verdict_of
from anlage.core.quantities.units import System
from anlage.core.ranges import NONE, Choices, Interval, Numbers, Range
from anlage.core.variables import spoken

BESIDE = 1e-8  # of a limit: how far beside it both sides are asked; more than the tolerance of a condition
FAR = 1e9  # asked in place of an end that a set has not
KEPT = 4  # answers of one rule: of the deposits of one procedure, of passes of some kinds
MOST = 512  # places at which one rule is asked


Members = Sequence[Mapping[str, Range]]  # the sides of a joint, with what is stated of each alone


def asked_of(
    pack: Pack, rules: Sequence[Rule], sets: Mapping[str, Range], demand: Demand, members: Members = ()
) -> dict[str, Allowance]:
    """Return what some rules allow a procedure for what it states itself.

    Parameters
    ----------
    pack : the code
    rules : of basis `wps`
    sets : what the procedure states, the joint's and those of one deposit
    demand : what it asks
    members : the sides of the joint: a rule of that scope is asked of each, and holds for all
    """
    demanded = pack.facts_of(demand)
    found: dict[str, list[Ruling]] = {}
    for rule in rules:
        own = [{**sets, **each} for each in members] if rule.scope == "member" and members else [sets]
        told = [readings_at_all(rule, each, demanded, demand) for each in own]
        known = [each for each in told if each is not None]
        readings = _all_of(known) if known else None
        if readings is not None:
            for variable in rule.variables:
                found.setdefault(variable, []).append(Ruling(rule, readings))
    return {variable: together(rulings) for variable, rulings in found.items()}


def together(rulings: Sequence[Ruling]) -> Allowance:
    """Return what several rulings on a variable allow together."""
    sure, possible = rulings[0].readings.sure, rulings[0].readings.possible
    for ruling in rulings[1:]:
        sure, possible = sure & ruling.readings.sure, possible & ruling.readings.possible
    return Allowance(sure, possible, tuple(rulings))


def readings_at_all(
    rule: Rule, sets: Mapping[str, Range], demanded: Mapping[str, Fact], demand: Demand
) -> Readings | None:
    """Return what a rule allows at every place of the stated sets; `None` where it concerns none of them.

    What was answered last for the same statements is given again: an edit changes few of them.
    """
    key = (demand, demanded, *map(sets.get, _names_of(rule)))
    known: tuple[tuple[object, Readings | None], ...] = rule.__dict__.get("answers", ())
    for asked, answer in known:
        if asked == key:
            return answer
    found = _readings_at_all(rule, sets, demanded, demand)
    rule.__dict__["answers"] = ((key, found), *known[: KEPT - 1])
    return found


def _names_of(rule: Rule) -> tuple[str, ...]:
    names: tuple[str, ...] | None = rule.__dict__.get("names")
    if names is None:
        names = rule.__dict__["names"] = tuple(sorted(asks(rule)))
    return names


def _readings_at_all(
    rule: Rule, sets: Mapping[str, Range], demanded: Mapping[str, Fact], demand: Demand
) -> Readings | None:
    if _is_beside(rule, sets, demanded):
        return None
    names = sorted(asks(rule) - demanded.keys())
    places = [list(_places(rule, name, sets.get(name), demand.units)) for name in names]
    count = 1
    for each in places:
        count *= len(each)
    if count > MOST:
        return unknown(f"{rule.clause} hangs on more than can be asked one by one")
    found: list[Readings] = []
    concerned = False
    for values in product(*places):
        stated = {name: value for name, value in zip(names, values, strict=True) if value is not None}
        readings = readings_of(rule, Facts({**demanded, **stated}, {}), demand)
        concerned = concerned or readings is not None
        if readings is not None:
            found.append(_not_stated(readings))
    return _all_of(found) if concerned else None


def _not_stated(readings: Readings) -> Readings:
    if not readings.missing:
        return readings
    reason = f"it hangs on {spoken(readings.missing)}, which is not stated"
    return replace(readings, reason=reason)


def _all_of(found: Sequence[Readings]) -> Readings:
    sure, possible = found[0].sure, found[0].possible
    for each in found[1:]:
        sure, possible = sure & each.sure, possible & each.possible
    reasons = dict.fromkeys(each.reason for each in found if each.reason)
    missing = next((each.missing for each in found if each.missing), "")
    told = max((each.confidence for each in found if each.confidence), key="HML".index, default="")
    return Readings(sure, possible, "; ".join(reasons), missing, told)


def _places(rule: Rule, name: str, stated: Range | None, units: System) -> Iterator[Fact | None]:
    """Yield where a rule is asked of a stated set; `None` for one that is not stated, or is anything."""
    if isinstance(stated, Choices) and not stated.but and stated.tokens:
        yield from sorted(stated.tokens)
    elif isinstance(stated, Numbers) and stated.parts:
        limits = sorted(limits_on(rule, name, units))
        places = [place for part in stated.parts for place in _of_part(part, limits)]
        yield from dict.fromkeys(places)
    else:
        yield None


def _of_part(part: Interval, limits: Sequence[float]) -> Iterator[float]:
    low = -FAR if part.low == float("-inf") else part.low
    high = FAR if part.high == float("inf") else part.high
    if part.is_single:
        yield low
        return
    yield low + _beside(low) if part.low_open else low
    for limit in limits:
        for place in (limit - _beside(limit), limit, limit + _beside(limit)):
            if low < place < high:
                yield place
    yield high - _beside(high) if part.high_open else high


def _beside(limit: float) -> float:
    return abs(limit) * BESIDE or BESIDE


def asks(rule: Rule) -> frozenset[str]:
    """Return the facts that a rule asks for, in its conditions or its kind."""
    known: frozenset[str] | None = rule.__dict__.get("asks")
    if known is not None:
        return known
    found = {condition.fact for condition in _conditions(rule)}
    for part in _parts(rule.kind):
        if isinstance(part, End):
            found |= {part.of} if part.of else set()
        elif (on := getattr(part, "on", "")) and isinstance(on, str):
            found.add(on)
    rule.__dict__["asks"] = own = frozenset(found)
    return own


def wanted(pack: Pack) -> tuple[str, ...]:
    """Return every variable that a pack limits, and every fact that a rule asks of the procedure itself."""
    found: tuple[str, ...] | None = pack.__dict__.get("wanted")
    if found is None:
        facts = sorted({name for rule in pack.rules if not rule.is_of_record for name in asks(rule)})
        found = pack.__dict__["wanted"] = tuple(dict.fromkeys((*pack.variables, *facts)))
    return found


def asked_by(pack: Pack) -> frozenset[str]:
    """Return every variable that a procedure is asked for by a pack."""
    found: frozenset[str] | None = pack.__dict__.get("asked")
    if found is None:
        found = pack.__dict__["asked"] = frozenset(wanted(pack))
    return found


def limits_on(rule: Rule, fact: str, units: System) -> frozenset[float]:
    """Return the numbers at which a rule turns for a fact, in one unit column."""
    kept: dict[tuple[str, System], frozenset[float]] = rule.__dict__.setdefault("limits", {})
    if (fact, units) in kept:
        return kept[fact, units]
    limits: set[float] = set()
    for condition in _conditions(rule):
        if condition.fact == fact:
            ends = (condition.below, condition.to, condition.above, condition.start)
            limits |= {each.of(units) for each in ends if isinstance(each, Limit)}
    kept[fact, units] = own = frozenset(limits)
    return own


def _conditions(rule: Rule) -> tuple[Condition, ...]:
    known: tuple[Condition, ...] | None = rule.__dict__.get("conditions")
    if known is None:
        inner = (part for part in _parts(rule.kind) if isinstance(part, Condition))
        known = rule.__dict__["conditions"] = (*rule.own_conditions, *inner)
    return known


def _is_beside(rule: Rule, sets: Mapping[str, Range], demanded: Mapping[str, Fact]) -> bool:
    """Whether a rule concerns nothing that is stated: one of its words is none of those that it is for."""
    for condition in rule.when:
        if condition.tokens:
            fact, own = demanded.get(condition.fact), sets.get(condition.fact)
            if isinstance(fact, str) and fact not in condition.tokens:
                return True
            listed = own.tokens if isinstance(own, Choices) and not own.but else None
            if fact is None and listed and listed.isdisjoint(condition.tokens):
                return True
    return False


def _parts(value: Any) -> Iterator[Any]:
    """Yield a kind and everything that it is made of."""
    if isinstance(value, Struct):
        yield value
        for name in value.__struct_fields__:
            yield from _parts(getattr(value, name))
    elif isinstance(value, tuple):
        for each in value:
            yield from _parts(each)


Answer = TypeVar("Answer")


def _remembered(
    pack: Pack, ask: Callable[[Pack, Mapping[str, Range], Demand], Answer], sets: Mapping[str, Range], demand: Demand
) -> Answer:
    """Return what was answered last for the same dimensions, else ask: most edits are of something else."""
    names: tuple[str, ...] | None = pack.__dict__.get("of_details")
    if names is None:
        rules = [rule for detail in pack.details for rule in detail.rules]
        facts = {condition.fact for detail in pack.details for condition in detail.when}
        asked = {name for rule in rules for name in (*rule.variables, *asks(rule))} | facts
        names = pack.__dict__["of_details"] = tuple(sorted(asked))
    key = (demand, *(sets.get(name) for name in names))
    known: dict[str, tuple[object, Answer]] = pack.__dict__.setdefault("answers", {})
    last = known.get(ask.__name__)
    if last is None or last[0] != key:
        last = known[ask.__name__] = (key, ask(pack, sets, demand))
    return last[1]


Distance = tuple[int, int, int, float]  # of another shape, outside, open, and by what share beyond


def nearest_detail(pack: Pack, sets: Mapping[str, Range], demand: Demand) -> Detail | None:
    """Return the joint without a record that a deposit comes nearest to; `None` where none is meant for it.

    It is of the same shape in as much as can be, then fewest of its variables are outside, then fewest are open, then
    those that are outside are so by least.
    """
    return _remembered(pack, _nearest, sets, demand)


def _nearest(pack: Pack, sets: Mapping[str, Range], demand: Demand) -> Detail | None:
    facts = Facts({**pack.facts_of(demand), **_words(sets)}, {})
    best: tuple[Distance, Detail] | None = None
    for detail in pack.details:
        if concern(detail.when, (), facts, demand.units).applies is False:
            continue
        rank = _distance(pack, detail, sets, demand, best[0] if best else None)
        if rank is not None and (best is None or rank < best[0]):
            best = rank, detail
    return best[1] if best else None


def _distance(
    pack: Pack, detail: Detail, sets: Mapping[str, Range], demand: Demand, best: Distance | None
) -> Distance | None:
    """Return how far a deposit is from a joint; `None` as soon as that is farther than the best."""
    other, outside, unproven, by = 0, 0, 0, 0.0
    for rule in detail.rules:
        variable = rule.variables[0]
        own = sets.get(variable)
        if own is None and variable in pack.optional:
            continue
        verdict = _of_detail(rule, sets, demand)
        other += verdict == "outside" and variable in SHAPE
        outside += verdict == "outside" and variable not in SHAPE
        unproven += verdict == "unproven"
        if verdict == "outside" and isinstance(own, Numbers):
            by += _share_beyond(rule, sets, demand, own)
        if best is not None and (other, outside, 0, 0.0) > best:
            return None
    return other, outside, unproven, by


def _share_beyond(rule: Rule, sets: Mapping[str, Range], demand: Demand, own: Numbers) -> float:
    """Return by what share of itself a stated number lies beyond what a joint allows."""
    readings = readings_at_all(rule, sets, {}, demand)
    allowed = readings.possible if readings else None
    gap = allowed.gap_to(own) if isinstance(allowed, Numbers) else None
    return abs(gap or 0.0) / (max((abs(part.high) for part in own.parts), default=1.0) or 1.0)


def _of_detail(rule: Rule, sets: Mapping[str, Range], demand: Demand) -> Verdict:
    own = sets.get(rule.variables[0])
    if isinstance(rule.kind, Only) and rule.confidence != "L":  # most are words that stay what they are
        return "unproven" if own is None else "inside" if rule.kind.values.contains(own) else "outside"
    readings = readings_at_all(rule, sets, {}, demand)
    return "unproven" if readings is None else verdict_of(own, readings.sure, readings.possible)


def allows_of(
    pack: Pack, detail: Detail, sets: Mapping[str, Range], demand: Demand, members: Members = ()
) -> dict[str, Allowance]:
    """Return what a joint without a record allows a procedure, with the rules of that route.

    Rules that are asked of each pass by itself are not among them. Where what the joint is for hangs on something that
    the procedure does not say, nothing is allowed for sure.
    """
    facts = Facts({**pack.facts_of(demand), **_words(sets)}, {})
    meant = concern(detail.when, (), facts, demand.units)
    rules = [rule for rule in pack.rules if rule.route == "prequalified" and rule.scope != "pass"]
    asked = asked_of(pack, rules, sets, demand, members)
    found = {variable: list(each.rulings) for variable, each in asked.items()}
    for rule in detail.rules:
        readings = readings_at_all(rule, sets, {}, demand) or unknown("it is for another joint")
        if meant.applies is None:
            why = f"whether {rule.clause} may be used hangs on {spoken(meant.missing)}, which is not stated"
            readings = Readings(NONE, readings.possible, why, meant.missing, readings.confidence)
        found.setdefault(rule.variables[0], []).insert(0, Ruling(rule, readings))
    return {variable: together(rulings) for variable, rulings in found.items()}


NOT_GEOMETRY = frozenset({"process", "position", "shielding_gas", "weld"})


def lies_in_a_detail(pack: Pack, sets: Mapping[str, Range], demand: Demand) -> Verdict:
    """Return whether a joint as it is drawn and fitted up lies in one that needs no record, by whichever process."""
    return _remembered(pack, _lies_in_a_detail, sets, demand)


def _lies_in_a_detail(pack: Pack, sets: Mapping[str, Range], demand: Demand) -> Verdict:
    found: set[Verdict] = set()
    for detail in pack.details:
        verdicts: set[Verdict] = set()
        for rule in detail.rules:
            if rule.variables[0] in NOT_GEOMETRY:
                continue
            if sets.get(rule.variables[0]) is None and rule.variables[0] in pack.optional:
                continue
            verdicts.add(_of_detail(rule, sets, demand))
            if "outside" in verdicts:
                break
        found.add("outside" if "outside" in verdicts else "unproven" if "unproven" in verdicts else "inside")
    return "inside" if "inside" in found else "unproven" if "unproven" in found else "outside"


def _words(sets: Mapping[str, Range]) -> dict[str, Fact]:
    return {name: each.tokens for name, each in sets.items() if isinstance(each, Choices) and not each.but}
