"""What each deposit of a procedure rests on: a record, several together, or a joint that needs none.

Ranges of different records are never mixed variable by variable.
"""

from collections.abc import Iterator, Sequence
from itertools import islice, product

from msgspec.structs import replace

from anlage.core.codes.asking import allows_of, asked_of, asks, nearest_detail, together
from anlage.core.codes.box import Allowance
from anlage.core.codes.candidates import Candidate
from anlage.core.codes.case import Case, Support
from anlage.core.codes.combine import jointly_covered, pairs_joined, with_metal_borrowed
from anlage.core.codes.kinds import Unknown
from anlage.core.codes.pack import Rule
from anlage.core.codes.rungs import LAID, Together
from anlage.core.codes.stated import StatedPass
from anlage.core.codes.verdict import Verdict
from anlage.core.ranges import Interval, Numbers, Range

MOST_TRIED = 2000  # ways in which the deposits of a WPS may rest on records
WORST_FIRST: tuple[Verdict, ...] = ("outside", "unproven", "inside")


def supports_of(case: Case) -> tuple[list[Support], dict[int, Together]]:
    """Return what each deposit rests on, and of those that rest together on too little, the sentence that says so.

    What several deposits of a WPS rest on together must allow the sum of their thickness; where the best record of
    each does not, others that cover it are tried.
    """
    alone = [next(_offers(case, index)) for index in range(len(case.deposits))]
    roots = [
        [] if support.covered else _root_supports(case, index, alone) for index, support in enumerate(alone)
    ]  # fmt: skip
    chosen = [root[0] if root else own for root, own in zip(roots, alone, strict=True)]
    if not (over := _over_sum(case, chosen)):
        return chosen, {}
    offers = [root or list(_offers(case, index)) for index, root in enumerate(roots)]
    for combined in islice(product(*offers), MOST_TRIED):
        is_covered = all(support.covered for support, best in zip(combined, chosen, strict=True) if best.covered)
        if is_covered and not _over_sum(case, combined):
            return list(combined), {}
    return chosen, over


def _offers(case: Case, index: int) -> Iterator[Support]:
    """Yield what could carry a deposit: each record that covers it alone, then several together, else the best."""
    if case.deposits[index].process not in case.pack.processes:
        yield Support({}, (), covered=False)
        return
    sets, beside = case.sets[index], case.beside[index]
    first = case.boxes.first(sets, beside)
    found = first is not None
    if first is not None:
        yield _alone(first, covered=True)
        if len(case.deposits) == 1:
            return
    candidates = case.near(index)
    for each in candidates:
        if each.covers and first is not None and (each.order, each.index) != (first.order, first.index):
            yield _alone(each, covered=True)
    for several in (jointly_covered(case.pack, candidates, sets), pairs_joined(case.pack, candidates, sets)):
        if several:
            found = True
            yield Support(several.allowances, several.records, covered=True, places=several.places)
    details = sorted(_details(case, index), key=lambda each: each[0])
    yield from (support for rank, support in details if not any(rank))
    if not found and not any(support.covered for _, support in details):
        best = case.boxes.best(sets, beside)
        nearest = [(each.rank[:2], _alone(each, covered=False)) for each in ([best] if best else [])]
        nearest += [each for each in details if not nearest or not _is_not_held(each[1])]
        yield min(nearest, key=lambda each: each[0], default=((0, 0), Support({}, (), covered=False)))[1]


def _details(case: Case, index: int) -> Iterator[tuple[tuple[int, int], Support]]:
    """Yield the joint without a record that a deposit may rest on, with how many variables fail and are open."""
    sets = case.sets[index]
    detail = nearest_detail(case.pack, sets, case.demand)
    if detail is None:
        return
    allowances = allows_of(case.pack, detail, sets, case.demand, case.members)
    own = {name: each for name, each in allowances.items() if name not in case.beside[index]}
    rules = [rule for rule in case.pack.rules if rule.route == "prequalified" and rule.scope == "pass"]
    support = _by_pass(case, index, Support(own, (detail.id,), covered=False, detail=detail.id), rules)
    stated = {name: support.at[name].sets if name in support.at else sets for name in support.allowances}
    verdicts = [each.verdict(stated[name].get(name)) for name, each in support.allowances.items()]
    rank = (verdicts.count("outside"), verdicts.count("unproven"))
    yield rank, replace(support, covered=not any(rank))


def _is_not_held(support: Support) -> bool:
    """Whether a route without a record hangs on what nobody knows: no procedure is ever proved by it."""
    kinds = (ruling.rule.kind for each in support.allowances.values() for ruling in each.rulings)
    return any(isinstance(kind, Unknown) for kind in kinds)


def with_own_rules(case: Case, index: int, support: Support) -> Support:
    """Return a support with what the code asks of the procedure itself, whatever it rests on."""
    routes = {"always"} if support.detail else {"always", "record"}
    rules = [rule for rule in case.pack.rules if not rule.is_of_record and rule.route in routes]
    if not rules or case.deposits[index].process not in case.pack.processes:
        return support
    allowances = dict(support.allowances)
    whole = [rule for rule in rules if rule.scope != "pass"]
    for variable, own in asked_of(case.pack, whole, case.sets[index], case.demand, case.members).items():
        if variable not in case.beside[index]:
            allowances[variable] = _added(allowances.get(variable), own)
    by_pass = [rule for rule in rules if rule.scope == "pass"]
    return _by_pass(case, index, replace(support, allowances=allowances), by_pass)


def _added(known: Allowance | None, own: Allowance) -> Allowance:
    return own if known is None else together((*known.rulings, *own.rulings))


def _by_pass(case: Case, index: int, support: Support, rules: Sequence[Rule]) -> Support:
    """Return a support with what some rules ask of each pass by itself: the worst pass gives the verdict.

    What a root may be is nothing that a cap must be: passes of other roles, places and sizes have limits of their own.
    """
    if not rules:
        return support
    deposit, sets = case.deposits[index], case.sets[index]
    in_passes = {name for each in deposit.passes for name in each.sets}
    of_all = {name: each for name, each in sets.items() if name not in in_passes}
    found: dict[str, tuple[int, Allowance, StatedPass]] = {}
    names = frozenset(name for rule in rules for name in (*asks(rule), *rule.variables)) & in_passes
    looked_at = sorted(names - case.clashes[index].keys())
    alike: set[tuple[Range | None, ...]] = set()  # most passes are alike in what the rules look at: the first counts
    for each in deposit.passes or (StatedPass("", {}),):
        key = tuple(map(each.sets.get, looked_at))
        if key in alike:
            continue
        alike.add(key)
        told = {name: own for name, own in each.sets.items() if name not in case.clashes[index]}
        own_sets = {**of_all, **told}
        for variable, own in asked_of(case.pack, rules, own_sets, case.demand).items():
            if variable in case.beside[index]:
                continue
            allowance = _added(support.allowances.get(variable), own)
            rank = WORST_FIRST.index(allowance.verdict(own_sets.get(variable)))
            if variable not in found or rank < found[variable][0]:
                found[variable] = (rank, allowance, StatedPass(each.id, own_sets))
    allowances = {**support.allowances, **{name: each[1] for name, each in found.items()}}
    return replace(support, allowances=allowances, at={name: each[2] for name, each in found.items()})


def _alone(candidate: Candidate, *, covered: bool) -> Support:
    places = frozenset(((candidate.record, candidate.index),))
    return Support(candidate.allowances, (candidate.record,), covered, places, candidate.box)


def _root_supports(case: Case, index: int, supports: Sequence[Support]) -> list[Support]:
    """Return what carries passes that no record carries in metal of its thickness: their own record and another."""
    own = case.deposits[index]
    rules = [each for each in case.pack.combination.borrows if own.roles and own.roles <= each.roles]
    if not rules or own.process not in case.pack.processes:
        return []
    others = [
        candidate
        for other, support in enumerate(supports)
        if support.covered and case.deposits[other].process != case.deposits[index].process
        for candidate in case.near(other)
        if candidate.covers
    ]
    near = case.near(index)
    found = (with_metal_borrowed(rule, each, others, case.sets[index]) for rule in rules for each in near)
    return [Support(one.allowances, one.records, covered=True, places=one.places) for one in found if one]


def _over_sum(case: Case, supports: Sequence[Support]) -> dict[int, Together]:
    """Return the deposits that rest on the same deposit of a record, which allows less than they lay together."""
    groups: dict[frozenset[tuple[str, int]], list[int]] = {}
    for index, support in enumerate(supports):
        if support.places and LAID in support.allowances:
            groups.setdefault(support.places, []).append(index)
    found: dict[int, Together] = {}
    for members in groups.values():
        spans = [case.sets[index].get(LAID) for index in members]
        known = [span.parts for span in spans if isinstance(span, Numbers) and span.parts]
        if len(members) < 2 or len(known) < len(members):
            continue
        whole = Interval(sum(parts[0].low for parts in known), sum(parts[-1].high for parts in known))
        if any(supports[index].allowances[LAID].verdict(Numbers((whole,))) != "inside" for index in members):
            found |= dict.fromkeys(members, Together(tuple(case.labels[index] for index in members), whole))
    return found
