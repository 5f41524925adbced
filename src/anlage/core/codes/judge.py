"""The verdict on every variable of a WPS from the boxes of its candidate records.

Each deposit rests on one record that contains it, or on several that cover it together where the pack lets them;
ranges of different records are never mixed variable by variable.
"""

from collections.abc import Iterator, Mapping, Sequence
from itertools import islice, product
from types import MappingProxyType

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.codes.asking import allows_of, asked_of, together, wanted
from anlage.core.codes.box import Allowance, CoverBox, Ruling
from anlage.core.codes.candidates import Boxes, Candidate
from anlage.core.codes.combine import jointly_covered, pairs_joined, with_metal_borrowed
from anlage.core.codes.explain import Origin, origin_of
from anlage.core.codes.facts import Demand, deposit_facts, deposit_labels
from anlage.core.codes.pack import Pack, Rule
from anlage.core.codes.stated import Stated, StatedDeposit, StatedPass, several_of
from anlage.core.codes.verdict import Verdict, verdict_of, worst
from anlage.core.ranges import ANY, NONE, Choices, Interval, Numbers, Range, union
from anlage.core.variables import spoken

LAID = "deposit_thickness_mm"  # what deposits that rest on one deposit of a record lay together
MOST_TRIED = 2000  # ways in which the deposits of a WPS may rest on records


class Together(Struct, frozen=True):
    """Deposits that rest on one deposit of a record, and what they lay together."""

    labels: tuple[str, ...]
    laid: Interval


class Rung(Struct, frozen=True, kw_only=True):
    """The verdict on one variable: what is stated, what is allowed, by which records and clause, and why."""

    variable: str
    label: str  # the deposit, or "" for the joint
    verdict: Verdict
    stated: Range | None
    sure: Range
    possible: Range
    gap: float | None
    category: str
    because: str
    clause: str
    confidence: str
    records: tuple[str, ...]
    reason: str
    worst_pass: str = ""
    origin: Origin | None = None  # of the end that is overstepped
    together: Together | None = None  # the deposits that rest on one deposit of a record, where it allows less
    member: str = ""  # the deposit that gives the verdict on a variable of the joint
    note: str = ""  # what the rules remark
    remarks: tuple[str, ...] = ()  # what was said against the results of its records
    clash: str = ""  # the two statements that disagree, where that is why nothing counts as stated
    rules: tuple[Rule, ...] = ()  # that it is judged by

    @property
    def id(self) -> str:
        """The variable, with the deposit behind a dot where it belongs to one."""
        return f"{self.variable}.{self.label}" if self.label else self.variable


class Judgement(Struct, frozen=True):
    """The overall verdict, one rung a variable, and the records each deposit rests on."""

    verdict: Verdict
    rungs: tuple[Rung, ...]
    supports: tuple[tuple[str, ...], ...]  # records by deposit; () where none covers it

    def counts(self) -> dict[Verdict, int]:
        """Return how many rungs carry each verdict."""
        verdicts: tuple[Verdict, ...] = ("inside", "outside", "unproven")
        return {verdict: sum(rung.verdict == verdict for rung in self.rungs) for verdict in verdicts}

    def records(self) -> tuple[str, ...]:
        """Return the records that it rests on, or is judged by, in the order of their names."""
        return tuple(sorted({record for rung in self.rungs for record in rung.records}))


NOWHERE: Mapping[str, StatedPass] = MappingProxyType({})
WORST_FIRST: tuple[Verdict, ...] = ("outside", "unproven", "inside")


class _Support(Struct, frozen=True):
    """What one deposit rests on: the allowances it is judged by and the records they come from."""

    allowances: Mapping[str, Allowance]
    records: tuple[str, ...]
    covered: bool
    places: frozenset[tuple[str, int]] = frozenset()  # the deposits of records that it rests on
    box: CoverBox | None = None  # of the one record that it rests on
    detail: str = ""  # the joint without a record that it rests on, in place of records
    at: Mapping[str, StatedPass] = NOWHERE  # the pass that gives the verdict on a variable asked of each pass itself


def judge(pack: Pack, stated: Stated, boxes: Sequence[CoverBox] | Boxes) -> Judgement:
    """Return the verdict on everything a WPS states.

    Parameters
    ----------
    pack : the code
    stated : the sets of the WPS
    boxes : the boxes of the candidate records under the WPS's demand, newest first

    Returns
    -------
    Judgement : outside beats unproven beats inside; without any record, or any variable, unproven
    """
    case = _case(pack, stated, boxes if isinstance(boxes, Boxes) else Boxes(boxes))
    supports, sums = _together_supported(case)
    judged = [_with_own(case, index, support) for index, support in enumerate(supports)]
    rungs = [*_demand_rungs(case, stated.demand), *_unruled_rungs(case), *_rungs(case, judged, sums)]
    rungs += _clash_rungs(case, rungs)
    overall = worst(rung.verdict for rung in rungs)
    covered = (() if n in sums or not s.covered else s.records for n, s in enumerate(supports))
    return Judgement(overall, tuple(rungs), tuple(covered))


class _Case(Struct, frozen=True):
    """One WPS against its candidate records: per deposit its label and the sets it is judged by."""

    pack: Pack
    deposits: tuple[StatedDeposit, ...]
    labels: tuple[str, ...]
    sets: list[dict[str, Range]]
    beside: list[frozenset[str]]  # variables that do not concern it
    boxes: Boxes
    demand: Demand
    clashes: tuple[Mapping[str, str], ...]
    remarks: Mapping[str, str]  # by record

    def near(self, index: int) -> list[Candidate]:
        """Return the candidates that could carry a deposit, alone or with others, by rank."""
        return self.boxes.near(self.sets[index], self.beside[index], self.pack.combination.spare)


def _case(pack: Pack, stated: Stated, boxes: Boxes) -> _Case:
    sets = [_sets(stated, deposit, pack) for deposit in stated.deposits]
    several = [several_of(pack, own, deposit) for own, deposit in zip(sets, stated.deposits, strict=True)]
    unsaid = [(own, {**stated.clashes, **each.clashes}) for own, each in zip(sets, stated.deposits, strict=True)]
    beside = [frozenset(v for v in pack.optional if v not in own and v not in told) for own, told in unsaid]
    labels = deposit_labels([deposit.process for deposit in stated.deposits])
    clashes = tuple(
        {**told, **stated.clashes, **deposit.clashes} for told, deposit in zip(several, stated.deposits, strict=True)
    )
    sets = [
        {name: each for name, each in own.items() if name not in told} for own, told in zip(sets, several, strict=True)
    ]
    remarks = {box.record: f"{box.record} was {box.coupon.remark}" for box in boxes.boxes if box.coupon.remark}
    return _Case(pack, stated.deposits, labels, sets, beside, boxes, stated.demand, clashes, remarks)


def _sets(stated: Stated, deposit: StatedDeposit, pack: Pack) -> dict[str, Range]:
    """Return every set a deposit is judged by: its own, its passes' united, and the joint's."""
    united: dict[str, Range] = {}
    for variable in {name for each in deposit.passes for name in each.sets}:
        parts = [each.sets.get(variable) for each in deposit.passes]
        stated_in_all = [part for part in parts if part is not None]
        if len(stated_in_all) == len(parts):
            united[variable] = union(stated_in_all)
    own = {**stated.joint, **deposit.sets, **united, "process": Choices(frozenset((deposit.process,)))}
    clashes = {**stated.clashes, **deposit.clashes}
    return {variable: own[variable] for variable in wanted(pack) if variable in own and variable not in clashes}


def _together_supported(case: _Case) -> tuple[list[_Support], dict[int, Together]]:
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


def _offers(case: _Case, index: int) -> Iterator[_Support]:
    """Yield what could carry a deposit: each record that covers it alone, then several together, else the best."""
    if case.deposits[index].process not in case.pack.processes:
        yield _Support({}, (), covered=False)
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
            yield _Support(several.allowances, several.records, covered=True, places=several.places)
    details = sorted(_details(case, index), key=lambda each: each[0])
    yield from (support for rank, support in details if not any(rank))
    if not found and not any(support.covered for _, support in details):
        best = case.boxes.best(sets, beside)
        nearest = [(each.rank[:2], _alone(each, covered=False)) for each in ([best] if best else [])]
        nearest += details
        yield min(nearest, key=lambda each: each[0], default=((0, 0), _Support({}, (), covered=False)))[1]


def _details(case: _Case, index: int) -> Iterator[tuple[tuple[int, int], _Support]]:
    """Yield the joints without a record that a deposit may rest on, each with how many variables fail and are open."""
    sets = case.sets[index]
    for detail in case.pack.details:
        allowances = allows_of(case.pack, detail, sets, case.demand)
        if allowances is not None:
            own = {name: each for name, each in allowances.items() if name not in case.beside[index]}
            rules = [rule for rule in case.pack.rules if rule.route == "prequalified" and rule.scope == "pass"]
            support = _by_pass(case, index, _Support(own, (detail.id,), covered=False, detail=detail.id), rules)
            stated = {name: support.at[name].sets if name in support.at else sets for name in support.allowances}
            verdicts = [each.verdict(stated[name].get(name)) for name, each in support.allowances.items()]
            rank = (verdicts.count("outside"), verdicts.count("unproven"))
            yield rank, replace(support, covered=not any(rank))


def _with_own(case: _Case, index: int, support: _Support) -> _Support:
    """Return a support with what the code asks of the procedure itself, whatever it rests on."""
    routes = {"always"} if support.detail else {"always", "record"}
    rules = [rule for rule in case.pack.rules if not rule.is_of_record and rule.route in routes]
    if not rules or case.deposits[index].process not in case.pack.processes:
        return support
    allowances = dict(support.allowances)
    whole = [rule for rule in rules if rule.scope != "pass"]
    for variable, own in asked_of(case.pack, whole, case.sets[index], case.demand).items():
        if variable not in case.beside[index]:
            allowances[variable] = _added(allowances.get(variable), own)
    by_pass = [rule for rule in rules if rule.scope == "pass"]
    return _by_pass(case, index, replace(support, allowances=allowances), by_pass)


def _added(known: Allowance | None, own: Allowance) -> Allowance:
    return own if known is None else together((*known.rulings, *own.rulings))


def _by_pass(case: _Case, index: int, support: _Support, rules: Sequence[Rule]) -> _Support:
    """Return a support with what some rules ask of each pass by itself: the worst pass gives the verdict.

    What a root may be is nothing that a cap must be: passes of other roles, places and sizes have limits of their own.
    """
    if not rules:
        return support
    deposit, sets = case.deposits[index], case.sets[index]
    in_passes = {name for each in deposit.passes for name in each.sets}
    of_all = {name: each for name, each in sets.items() if name not in in_passes}
    found: dict[str, tuple[int, Allowance, StatedPass]] = {}
    for each in deposit.passes or (StatedPass("", {}),):
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


def _alone(candidate: Candidate, *, covered: bool) -> _Support:
    places = frozenset(((candidate.record, candidate.index),))
    return _Support(candidate.allowances, (candidate.record,), covered, places, candidate.box)


def _root_supports(case: _Case, index: int, supports: Sequence[_Support]) -> list[_Support]:
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
    return [_Support(one.allowances, one.records, covered=True, places=one.places) for one in found if one]


def _over_sum(case: _Case, supports: Sequence[_Support]) -> dict[int, Together]:
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


def _rungs(case: _Case, supports: list[_Support], sums: Mapping[int, Together]) -> list[Rung]:
    rungs = []
    for variable in case.pack.variables:
        each = [
            _rung(case, n, variable, supports[n]) for n in range(len(case.labels)) if variable in supports[n].allowances
        ]
        if variable == LAID:
            each = [_summed(rung, sums.get(case.labels.index(rung.label))) for rung in each]
        if case.pack.scope_of(variable) == "joint" and each:
            rungs.append(_of_the_joint(each))
        else:
            rungs += each
    return rungs


def _summed(rung: Rung, together: Together | None) -> Rung:
    """Return the rung of a deposit's thickness; outside where several rest on one deposit that allows less."""
    if together is None or rung.verdict != "inside":
        return rung
    reason = f"{' and '.join(together.labels)} rest on one deposit, which allows less than they lay together"
    return replace(rung, verdict="outside", reason=reason, together=together)


def _of_the_joint(each: list[Rung]) -> Rung:
    verdict = worst(rung.verdict for rung in each)
    first = next(rung for rung in each if rung.verdict == verdict)
    records = tuple(dict.fromkeys(record for rung in each for record in rung.records))
    alike = sum(rung.verdict == verdict for rung in each) == len(each)
    member = "" if verdict == "inside" or alike else first.label
    return replace(first, label="", records=records, member=member)


def _demand_rungs(case: _Case, demand: Demand) -> list[Rung]:
    """Return a rung for every demand that is open, and for every one that is made and that no rule answers."""
    found = []
    for kind in case.pack.demands:
        if kind.id in demand.unsaid and kind.id in case.pack.answered:
            reason = f"the procedure does not say whether {kind.word} is demanded"
        elif demand.asks_for(kind.id) and kind.id not in case.pack.answered:
            reason = f"{case.pack.name} has no rule on {kind.word}: prove it by what demands it"
        else:
            continue
        if kind.id not in case.pack.variables:
            made = None if kind.id in demand.unsaid else Choices(frozenset(("yes",)))
            found.append(replace(_bare_rung(case, kind.id, "", reason), stated=made))
    return found


def _unruled_rungs(case: _Case) -> list[Rung]:
    """Return a rung for every deposit of a process that the code has no rules for here: it is judged no further."""
    found = []
    for deposit, label in zip(case.deposits, case.labels, strict=True):
        if deposit.process not in case.pack.processes:
            reason = f"{case.pack.name} has no rules for {deposit.process} here, and nothing of this deposit is judged"
            rung = _bare_rung(case, "process", label, reason)
            found.append(replace(rung, stated=Choices(frozenset((deposit.process,)))))
    return found


def _clash_rungs(case: _Case, rungs: list[Rung]) -> list[Rung]:
    """Return a rung for every clash that no rung tells: no record was asked, or no rule limits the variable."""
    found: dict[tuple[str, str], Rung] = {}
    told = {rung.clash for rung in rungs}
    for label, clashes in zip(case.labels, case.clashes, strict=True):
        for variable, sentence in clashes.items():
            if sentence not in told:
                told.add(sentence)
                found[variable, label] = replace(_bare_rung(case, variable, "", sentence), clash=sentence)
    return list(found.values())


def _bare_rung(case: _Case, variable: str, label: str, reason: str) -> Rung:
    return Rung(
        variable=variable, label=label, verdict="unproven", stated=None, sure=NONE, possible=ANY, gap=None,
        category=case.pack.categories[0].id if case.pack.categories else "", because="", clause="", confidence="H",
        records=(), reason=reason,
    )  # fmt: skip


def _rung(case: _Case, index: int, variable: str, support: _Support) -> Rung:
    deposit, label, at = case.deposits[index], case.labels[index], support.at.get(variable)
    stated = (at.sets if at else case.sets[index]).get(variable)
    clash = case.clashes[index].get(variable, "")
    allowance = support.allowances[variable]
    verdict = allowance.verdict(stated)
    inside = verdict == "inside"
    governing = allowance.rulings[0] if inside else _governing(allowance, stated, verdict)
    return Rung(
        variable=variable,
        label=label,
        verdict=verdict,
        stated=stated,
        sure=allowance.sure,
        possible=allowance.possible,
        gap=0.0 if inside else _gap(stated, allowance),
        category=allowance.category,
        because=governing.rule.because,
        clause=allowance.clause if inside else governing.rule.clause,
        confidence=allowance.confidence,
        records=() if not inside and not governing.rule.is_of_record and not support.detail else support.records,
        origin=None if inside or clash else _origin(case.pack, support, governing, stated, allowance),
        note=allowance.note,
        remarks=tuple(case.remarks[name] for name in support.records if name in case.remarks),
        reason=clash or _reason(variable, verdict, stated, allowance),
        worst_pass="" if inside else at.id if at else _worst_pass(variable, deposit, allowance),
        clash=clash,
        rules=tuple(ruling.rule for ruling in allowance.rulings),
    )


def _governing(allowance: Allowance, stated: Range | None, verdict: Verdict) -> Ruling:
    """Return the first rule that alone gives the verdict of all together, or else the first."""
    same = (r for r in allowance.rulings if verdict_of(stated, r.readings.sure, r.readings.possible) == verdict)
    return next(same, allowance.rulings[0])


def _origin(pack: Pack, support: _Support, ruling: Ruling, stated: Range | None, allowance: Allowance) -> Origin | None:
    """Return where the end comes from that a stated range oversteps most."""
    limits = allowance.possible
    if not isinstance(stated, Numbers) or not isinstance(limits, Numbers) or not (stated.parts and limits.parts):
        return None
    if support.box is None or len(support.places) != 1 or not ruling.rule.is_of_record:
        return None
    ((_, index),) = support.places
    box = support.box
    facts = deposit_facts(box.coupon, index, pack.facts_of(box.demand))
    low, high = stated.parts[0].low, stated.parts[-1].high
    over, under = high - limits.parts[-1].high, limits.parts[0].low - low
    upper = over >= under
    return origin_of(ruling.rule.kind, facts, box.demand.units, high=upper, stated=high if upper else low)


def _gap(stated: Range | None, allowance: Allowance) -> float | None:
    if stated is None or not isinstance(allowance.possible, Numbers):
        return None
    return allowance.possible.gap_to(stated)


def _worst_pass(variable: str, deposit: StatedDeposit, allowance: Allowance) -> str:
    if not any(variable in each.sets for each in deposit.passes):
        return ""

    def badness(sets: Mapping[str, Range]) -> tuple[int, float]:
        own = sets.get(variable)
        order = ("inside", "unproven", "outside").index(allowance.verdict(own))
        return order, abs(_gap(own, allowance) or 0.0)

    return max(deposit.passes, key=lambda each: badness(each.sets)).id


def _reason(variable: str, verdict: Verdict, stated: Range | None, allowance: Allowance) -> str:
    name = spoken(variable)
    if verdict == "inside":
        return allowance.note or f"the stated {name} lies inside what the record allows"
    if stated is None:
        return f"the WPS does not state {name}"
    if verdict == "outside":
        return allowance.reason or f"the stated {name} lies outside what the record allows"
    return allowance.reason or f"the stated {name} is allowed by one reading of the rules alone"
