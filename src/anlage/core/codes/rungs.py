"""The rungs of a verdict: what is stated, what is allowed, by which records and clause, and why."""

from collections.abc import Mapping

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.codes.box import Allowance, Ruling
from anlage.core.codes.case import Case, Support
from anlage.core.codes.explain import Origin, origin_of
from anlage.core.codes.facts import Demand, deposit_facts
from anlage.core.codes.kinds import TWO_WAYS
from anlage.core.codes.pack import Pack, Rule
from anlage.core.codes.stated import StatedDeposit
from anlage.core.codes.verdict import Verdict, verdict_of, worst
from anlage.core.ranges import ANY, NONE, Choices, Interval, Numbers, Range
from anlage.core.variables import spoken

LAID = "deposit_thickness_mm"  # what deposits that rest on one deposit of a record lay together


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
    code: str = ""

    @property
    def id(self) -> str:
        """The variable, with the deposit behind a dot where it belongs to one."""
        return f"{self.variable}.{self.label}" if self.label else self.variable

    @property
    def key(self) -> str:
        """What tells it from every other of a procedure that is judged by several codes."""
        return f"{self.id} {self.code}"


def rungs_of(case: Case, supports: list[Support], sums: Mapping[int, Together]) -> list[Rung]:
    """Return a rung for every variable that a rule limits, in the order of the code.

    Parameters
    ----------
    supports : what each deposit rests on
    sums : of the deposits that rest together on too little, what they lay together
    """
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


def demand_rungs(case: Case, demand: Demand) -> list[Rung]:
    """Return a rung for every demand that is open, and for every one that is made and that no rule answers."""
    found = []
    for kind in case.pack.demands:
        if kind.id in demand.unsaid and kind.id in case.pack.answered:
            asked = "whether {} is demanded" if set(kind.choices) == {"yes", "no"} else "the {}"
            reason = f"the procedure does not say {asked.format(kind.word)}"
        elif demand.asks_for(kind.id) and kind.id not in case.pack.answered:
            reason = f"{case.pack.name} has no rule on {kind.word}: prove it by what demands it"
        else:
            continue
        if kind.id not in case.pack.variables:
            made = None if kind.id in demand.unsaid else Choices(frozenset(("yes",)))
            found.append(replace(_bare_rung(case, kind.id, "", reason), stated=made))
    return found


def unruled_rungs(case: Case) -> list[Rung]:
    """Return a rung for every deposit of a process that the code has no rules for here: it is judged no further."""
    found = []
    for deposit, label in zip(case.deposits, case.labels, strict=True):
        if deposit.process not in case.pack.processes:
            reason = f"{case.pack.name} has no rules for {deposit.process} here, and nothing of this deposit is judged"
            rung = _bare_rung(case, "process", label, reason)
            found.append(replace(rung, stated=Choices(frozenset((deposit.process,)))))
    return found


def unsupported_rungs(case: Case, supports: list[Support]) -> list[Rung]:
    """Return a rung for every deposit that rests on nothing, where the code asks something of it all the same."""
    if all(rule.is_of_record for rule in case.pack.rules):
        return []
    reason = f"no record{', and no joint that needs none,' if case.pack.details else ''} carries this deposit"
    return [
        replace(_bare_rung(case, "process", label, reason), stated=Choices(frozenset((deposit.process,))))
        for deposit, label, support in zip(case.deposits, case.labels, supports, strict=True)
        if not support.records and deposit.process in case.pack.processes
    ]


def clash_rungs(case: Case, rungs: list[Rung]) -> list[Rung]:
    """Return a rung for every clash that no rung tells: no record was asked, or no rule limits the variable."""
    found: dict[tuple[str, str], Rung] = {}
    told = {rung.clash for rung in rungs}
    for label, clashes in zip(case.labels, case.clashes, strict=True):
        for variable, sentence in clashes.items():
            if sentence not in told:
                told.add(sentence)
                found[variable, label] = replace(_bare_rung(case, variable, "", sentence), clash=sentence)
    return list(found.values())


def _bare_rung(case: Case, variable: str, label: str, reason: str) -> Rung:
    return Rung(
        variable=variable, label=label, verdict="unproven", stated=None, sure=NONE, possible=ANY, gap=None,
        category=case.pack.categories[0].id if case.pack.categories else "", because="", clause="", confidence="H",
        records=(), reason=reason, code=case.pack.code,
    )  # fmt: skip


def _rung(case: Case, index: int, variable: str, support: Support) -> Rung:
    deposit, label, at = case.deposits[index], case.labels[index], support.at.get(variable)
    stated = (at.sets if at else case.sets[index]).get(variable)
    clash = case.clashes[index].get(variable, "")
    allowance = support.allowances[variable]
    verdict = allowance.verdict(stated)
    inside = verdict == "inside"
    if inside and not clash and not case.remarks:
        return _inside(case.pack, allowance, (variable, label), stated, support)
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
        reason=clash or _reason(variable, verdict, stated, allowance, _by(governing.rule, support)),
        worst_pass="" if inside else at.id if at else _worst_pass(variable, deposit, allowance),
        clash=clash,
        rules=tuple(ruling.rule for ruling in allowance.rulings),
        code=case.pack.code,
    )


def _inside(pack: Pack, allowance: Allowance, of: tuple[str, str], stated: Range | None, support: Support) -> Rung:
    """Return the rung of a variable that is inside; while nothing of it is another, the very same as before."""
    variable, label = of
    key = (variable, label, support.records)
    kept = allowance.inside.get(key)
    if kept is None or kept[0] != stated:
        governing = allowance.rulings[0].rule
        rung = Rung(
            variable=variable, label=label, verdict="inside", stated=stated, sure=allowance.sure,
            possible=allowance.possible, gap=0.0, category=allowance.category, because=governing.because,
            clause=allowance.clause, confidence=allowance.confidence, records=support.records, note=allowance.note,
            reason=_reason(variable, "inside", stated, allowance, _by(governing, support)),
            rules=tuple(ruling.rule for ruling in allowance.rulings), code=pack.code,
        )  # fmt: skip
        kept = allowance.inside[key] = (stated, rung)
    return kept[1]


def _governing(allowance: Allowance, stated: Range | None, verdict: Verdict) -> Ruling:
    """Return the first rule that alone gives the verdict of all together, or else the first."""
    same = (r for r in allowance.rulings if verdict_of(stated, r.readings.sure, r.readings.possible) == verdict)
    return next(same, allowance.rulings[0])


def _origin(pack: Pack, support: Support, ruling: Ruling, stated: Range | None, allowance: Allowance) -> Origin | None:
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


def _by(rule: Rule, support: Support) -> str:
    """Return what allows a variable: the record, the joint that needs none, or the code itself."""
    if rule.is_of_record:
        return "the record"
    return support.detail if rule.id == support.detail else rule.clause


def _reason(variable: str, verdict: Verdict, stated: Range | None, allowance: Allowance, by: str) -> str:
    name = spoken(variable)
    if verdict == "inside":
        return allowance.note or f"the stated {name} lies inside what {by} allows"
    if stated is None:
        return f"the WPS does not state {name}"
    if verdict == "outside":
        why = allowance.reason if allowance.reason != TWO_WAYS else ""
        return why or f"the stated {name} lies outside what {by} allows"
    return allowance.reason or f"the stated {name} is allowed by one reading of the rules alone"
