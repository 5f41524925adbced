"""How records carry one deposit together: where the pack names the variables, and never variable by variable.

Three ways, each with its clause in the pack:

- union: each record alone contains the deposit in all variables but the named ones; over those the union of their
  products covers it, by exact subtraction;
- joined pairs: records on A-A and on B-B, equal in all else, together cover A-B;
- root from another record: base metal as thick as a record of another process in the same joint allows.
"""

from collections import Counter
from collections.abc import Mapping, Sequence
from itertools import combinations

from msgspec import Struct

from anlage.core.codes.box import Allowance
from anlage.core.codes.candidates import Candidate
from anlage.core.codes.conditions import number_of, tokens_of
from anlage.core.codes.facts import pair_token
from anlage.core.codes.pack import Borrow, Pack, Union
from anlage.core.ranges import ANY, Choices, Interval, Numbers, Range, fits, is_none, loosened, uncovered

CLOSE = 1e-4  # of a length: what the tolerance of limits moves ends apart
GROOVES = ("groove", "partial")  # kinds of weld that lie in their base metal


class Together(Struct, frozen=True):
    """Several records that cover a deposit, and what they allow as one; each with the place of its deposit."""

    allowances: Mapping[str, Allowance]
    records: tuple[str, ...]
    places: frozenset[tuple[str, int]]


def jointly_covered(pack: Pack, candidates: Sequence[Candidate], sets: Mapping[str, Range]) -> Together | None:
    """Return the fewest-dropped set of records that covers a deposit together, or `None`."""
    found = (_by_union(rule, candidates, sets) for rule in pack.combination.unions)
    return next((each for each in found if each is not None), None)


def _by_union(rule: Union, candidates: Sequence[Candidate], sets: Mapping[str, Range]) -> Together | None:
    axes = [variable for variable in rule.variables if variable in sets]
    usable = [c for c in candidates if axes and c.inside_but_for(axes)]
    if len(usable) < 2 or _uncovered(rule, usable, sets, axes):
        return None
    needed = _needed(rule, usable, sets, axes)
    return _together(needed, axes) if len(needed) > 1 else None  # one that does not cover alone is no cover


def _needed(
    rule: Union, usable: Sequence[Candidate], sets: Mapping[str, Range], axes: Sequence[str]
) -> list[Candidate]:
    """Return those without which the cover fails, when each that it does not need is dropped in turn.

    How many of the next ones can be dropped together is found by halving: a cover with less covers less.
    """
    needed: list[Candidate] = []
    left = _contributing(usable, sets, axes)
    while left:
        most, least = len(left), 0  # so many of the first can be dropped, at least and at most
        while least < most:
            tried = (least + most + 1) // 2
            rest = [*needed, *left[tried:]]
            if rest and not _uncovered(rule, rest, sets, axes):
                least = tried
            else:
                most = tried - 1
        needed += left[least : least + 1]
        left = left[least + 1 :]
    return needed


def _contributing(usable: Sequence[Candidate], sets: Mapping[str, Range], axes: Sequence[str]) -> list[Candidate]:
    """Return the candidates that cover something of what is stated; of those that cover the very same, the last."""
    found: dict[tuple[Range, ...], Candidate] = {}
    for candidate in usable:
        own = candidate.allowances
        covers = tuple(loosened(own[axis].sure) & sets[axis] if axis in own else sets[axis] for axis in axes)
        found.pop(covers, None)  # the last of equals, at its own place
        if not any(map(is_none, covers)):
            found[covers] = candidate
    return list(found.values())


def pairs_joined(pack: Pack, candidates: Sequence[Candidate], sets: Mapping[str, Range]) -> Together | None:
    """Return two records on A-A and B-B that cover a stated pair A-B, or `None`.

    The pairs of each variable are joined for themselves, or those of all together where the code joins across numbers.
    """
    ways = [
        (rule, variables)
        for rule in pack.combination.pairs
        for variables in ([rule.variables] if rule.across else [(variable,) for variable in rule.variables])
    ]
    for rule, variables in ways:
        told = [variable for variable in variables if variable in sets]
        usable = [c for c in candidates if c.inside_but_for(told) and all(_pairs(c, variable) for variable in told)]
        for one, two in combinations(_different(usable, told), 2):
            joined = {
                variable: _joined(_pairs(one, variable) | _pairs(two, variable), across=rule.across)
                for variable in told
            }
            if told and all(fits(sets[variable], joined[variable]) for variable in told):
                return _together([one, two], told, joined)
    return None


def _different(usable: Sequence[Candidate], variables: Sequence[str]) -> list[Candidate]:
    """Return of the candidates on the same pairs the first two: another adds nothing."""
    seen = Counter[tuple[frozenset[str], ...]]()
    found = []
    for candidate in usable:
        own = tuple(_pairs(candidate, variable) for variable in variables)
        seen[own] += 1
        if seen[own] <= 2:
            found.append(candidate)
    return found


def _pairs(candidate: Candidate, variable: str) -> frozenset[str]:
    """Return the recorded pairs of metals; none where the record does not say them, or no rule asks."""
    fact = candidate.box.coupon.joint.get(variable)
    return frozenset() if fact is None or variable not in candidate.allowances else tokens_of(fact)


def _joined(pairs: frozenset[str], *, across: bool) -> Range:
    """Return some pairs, and A-B for every A-A and B-B among them: of one P-Number, or across them."""
    ends = sorted(one for one, other in (pair.split("+") for pair in pairs) if one == other)
    alike = ((a, b) for a, b in combinations(ends, 2) if across or a.rsplit("-", 1)[0] == b.rsplit("-", 1)[0])
    return Choices(pairs | {pair_token(a, b) for a, b in alike})


def with_metal_borrowed(
    root: Borrow, candidate: Candidate, others: Sequence[Candidate], sets: Mapping[str, Range]
) -> Together | None:
    """Return the candidate with its base-metal limit widened by a thicker record of another process, or `None`.

    Its own deposit is held to a multiple of what was recorded of it.
    """
    if not candidate.inside_but_for(root.variables):
        return None
    thickness = _thickness(candidate)
    process = str(candidate.box.coupon.deposits[candidate.index]["process"])
    if process not in root.processes or thickness < root.thickness_from.of(candidate.box.demand.units) * (1 - 1e-9):
        return None
    laid, allowed = candidate.box.coupon.deposits[candidate.index].get(root.deposit), dict(candidate.allowances)
    if laid is None or root.deposit not in allowed or root.deposit not in sets:
        return None
    own = allowed[root.deposit]
    held = own.sure & Numbers((Interval(0.0, number_of(laid) * root.times),))
    allowed[root.deposit] = Allowance(held, held, own.rulings)
    if not fits(sets[root.deposit], held):
        return None
    for other in others:
        if _thickness(other) <= thickness:
            continue
        widened = {v: _lifted(candidate.allowances[v], other.allowances.get(v), root.lifts) for v in root.variables
                   if v in candidate.allowances}  # fmt: skip
        if all(v in sets and fits(sets[v], allowance.sure) for v, allowance in widened.items()):
            places = frozenset(((candidate.record, candidate.index),))
            return Together({**allowed, **widened}, (candidate.record, other.record), places)
    return None


def _thickness(candidate: Candidate) -> float:
    return number_of(candidate.box.coupon.joint["base_metal_thickness_mm"])


def _lifted(own: Allowance, other: Allowance | None, lifts: frozenset[str]) -> Allowance:
    kept: Range = ANY
    lifted: Range = ANY
    for ruling in own.rulings:
        if ruling.rule.id in lifts:
            lifted = lifted & ruling.readings.sure
        else:
            kept = kept & ruling.readings.sure
    sure = kept & (lifted | (other.sure if other else lifted))
    return Allowance(sure, sure, own.rulings)


def _uncovered(rule: Union, candidates: Sequence[Candidate], sets: Mapping[str, Range], axes: Sequence[str]) -> bool:
    """Return whether something that is stated, and that can be, is covered by none."""
    boxes = [{axis: c.allowances[axis].sure for axis in axes if axis in c.allowances} for c in candidates]
    left = uncovered(sets, boxes, axes)
    demand = candidates[0].box.demand
    if "weld" in demand.unsaid or demand.asked.get("weld", "groove") not in GROOVES:
        return bool(left)
    within = [(inner, outer) for inner, outer in rule.within.items() if {inner, outer} <= set(axes)]
    return any(not any(_is_void(piece[inner], piece[outer]) for inner, outer in within) for piece in left)


def _is_void(inner: Range, outer: Range) -> bool:
    """Return whether the first is everywhere larger than the second, as no deposit is than its groove is deep.

    A deposit through the whole metal is as large as it: where both ends are stated, that is no void.
    """
    if not isinstance(inner, Numbers) or not isinstance(outer, Numbers) or not inner.parts or not outer.parts:
        return False
    least, most = inner.parts[0], outer.parts[-1]
    if abs(least.low - most.high) <= CLOSE * most.high:  # an end that a subtraction left is open
        return least.low_open or most.high_open
    return least.low > most.high


def _together(
    candidates: Sequence[Candidate], axes: Sequence[str], joined: Mapping[str, Range] | None = None
) -> Together:
    allowances = dict(candidates[0].allowances)
    for axis in axes:
        sure: Range = (joined or {}).get(axis) or candidates[0].allowances[axis].sure
        for candidate in candidates[1:]:
            sure = sure | candidate.allowances[axis].sure
        rulings = tuple(r for candidate in candidates for r in candidate.allowances[axis].rulings)
        allowances[axis] = Allowance(sure, sure, rulings)
    places = frozenset((candidate.record, candidate.index) for candidate in candidates)
    return Together(allowances, tuple(dict.fromkeys(candidate.record for candidate in candidates)), places)
