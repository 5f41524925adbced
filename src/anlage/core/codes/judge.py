"""The verdict on every variable of a WPS from the boxes of its candidate records.

Each deposit rests on one record that contains it, or on several that cover it together where the pack lets them;
ranges of different records are never mixed variable by variable.
"""

from collections.abc import Mapping, Sequence

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.codes.box import Allowance, CoverBox, Ruling
from anlage.core.codes.combine import Candidate, jointly_covered, pairs_joined, with_root_lifted
from anlage.core.codes.facts import Demand, deposit_labels
from anlage.core.codes.pack import Pack
from anlage.core.codes.stated import Stated, StatedDeposit
from anlage.core.codes.verdict import Verdict, verdict_of, worst
from anlage.core.ranges import ANY, NONE, Choices, Numbers, Range, union
from anlage.core.variables import spoken


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
    remarks: tuple[str, ...] = ()  # what was said against the results of its records
    clash: str = ""  # the two statements that disagree, where that is why nothing counts as stated

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


class _Support(Struct, frozen=True):
    """What one deposit rests on: the allowances it is judged by and the records they come from."""

    allowances: Mapping[str, Allowance]
    records: tuple[str, ...]
    covered: bool


def judge(pack: Pack, stated: Stated, boxes: Sequence[CoverBox]) -> Judgement:
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
    case = _case(pack, stated, boxes)
    supports = [_support(pack, found, own) for found, own in zip(case.candidates, case.sets, strict=True)]
    supports = [
        support if support.covered else _root_support(case, index, supports) or support
        for index, support in enumerate(supports)
    ]
    rungs = [*_demand_rungs(case, stated.demand), *_rungs(case, supports)]
    rungs += _clash_rungs(case, rungs)
    overall = worst(rung.verdict for rung in rungs)
    return Judgement(overall, tuple(rungs), tuple(s.records if s.covered else () for s in supports))


class _Case(Struct, frozen=True):
    """One WPS against its candidate records: per deposit its label, the sets it is judged by, and its candidates."""

    pack: Pack
    deposits: tuple[StatedDeposit, ...]
    labels: tuple[str, ...]
    sets: list[dict[str, Range]]
    candidates: list[list[Candidate]]
    clashes: tuple[Mapping[str, str], ...]
    remarks: Mapping[str, str]  # by record


def _case(pack: Pack, stated: Stated, boxes: Sequence[CoverBox]) -> _Case:
    sets = [_sets(stated, deposit, pack) for deposit in stated.deposits]
    candidates = [_candidates(deposit, own, boxes) for deposit, own in zip(stated.deposits, sets, strict=True)]
    labels = deposit_labels([deposit.process for deposit in stated.deposits])
    clashes = tuple({**stated.clashes, **deposit.clashes} for deposit in stated.deposits)
    remarks = {box.record: f"{box.record} was {box.coupon.remark}" for box in boxes if box.coupon.remark}
    return _Case(pack, stated.deposits, labels, sets, candidates, clashes, remarks)


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
    return {variable: own[variable] for variable in pack.variables if variable in own and variable not in clashes}


def _candidates(deposit: StatedDeposit, sets: Mapping[str, Range], boxes: Sequence[CoverBox]) -> list[Candidate]:
    """Return every deposit of every record that could carry this one; those of its process where there are any."""
    found = [
        Candidate.of(box, index, sets, order)
        for order, box in enumerate(boxes)
        for index, coupon_deposit in enumerate(box.coupon.deposits)
        if coupon_deposit["process"] == deposit.process
    ]
    return found or [
        Candidate.of(box, index, sets, order) for order, box in enumerate(boxes) for index in range(len(box.deposits))
    ]


def _support(pack: Pack, candidates: list[Candidate], sets: Mapping[str, Range]) -> _Support:
    if not candidates:
        return _Support({}, (), covered=False)
    best = min(candidates, key=lambda candidate: candidate.rank)
    if best.covers:
        return _Support(best.allowances, (best.record,), covered=True)
    for together in (jointly_covered(pack, candidates, sets), pairs_joined(pack, candidates, sets)):
        if together:
            return _Support(together.allowances, together.records, covered=True)
    return _Support(best.allowances, (best.record,), covered=False)


def _root_support(case: _Case, index: int, supports: list[_Support]) -> _Support | None:
    others = [
        candidate
        for other, support in enumerate(supports)
        if support.covered and case.deposits[other].process != case.deposits[index].process
        for candidate in case.candidates[other]
        if candidate.covers
    ]
    for candidate in sorted(case.candidates[index], key=lambda each: each.rank):
        lifted = with_root_lifted(case.pack, candidate, others, case.sets[index])
        if lifted:
            return _Support(lifted.allowances, lifted.records, covered=True)
    return None


def _rungs(case: _Case, supports: list[_Support]) -> list[Rung]:
    rungs = []
    for variable in case.pack.variables:
        each = [
            _rung(case, n, variable, supports[n]) for n in range(len(case.labels)) if variable in supports[n].allowances
        ]
        if case.pack.scope_of(variable) == "joint" and each:
            rungs.append(_of_the_joint(each))
        else:
            rungs += each
    return rungs


def _of_the_joint(each: list[Rung]) -> Rung:
    verdict = worst(rung.verdict for rung in each)
    first = next(rung for rung in each if rung.verdict == verdict)
    records = tuple(dict.fromkeys(record for rung in each for record in rung.records))
    return replace(first, label="", records=records)


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
    deposit, label, stated = case.deposits[index], case.labels[index], case.sets[index].get(variable)
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
        records=support.records,
        remarks=tuple(case.remarks[name] for name in support.records if name in case.remarks),
        reason=clash or _reason(variable, verdict, stated, allowance),
        worst_pass="" if inside else _worst_pass(variable, deposit, allowance),
        clash=clash,
    )


def _governing(allowance: Allowance, stated: Range | None, verdict: Verdict) -> Ruling:
    """Return the first rule that alone gives the verdict of all together, or else the first."""
    same = (r for r in allowance.rulings if verdict_of(stated, r.readings.sure, r.readings.possible) == verdict)
    return next(same, allowance.rulings[0])


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
        return f"{stated} is stated and {allowance.possible} is allowed"
    return allowance.reason or f"{stated} is stated and only {allowance.sure} is allowed in every reading"
