"""The ladder of a procedure: one line a variable, in words, with what to change and where it is typed."""

from collections.abc import Iterator, Sequence

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.codes import Pack, Rung
from anlage.core.codes.facts import deposit_labels
from anlage.core.procedure import Deposit, Wps
from anlage.core.quantities.units import System
from anlage.core.ranges import fits, is_any, is_none
from anlage.core.variables import Stating, spoken
from anlage.data.tables import variables
from anlage.session.judging.assessment import Assessment, code_words
from anlage.session.judging.coupons import HEAT
from anlage.session.judging.derivations import hottest_sector
from anlage.session.judging.evidence import OF_ANOTHER_CODE
from anlage.session.judging.reasons import Said, capital, mend_of, reads_alike, reason_of
from anlage.session.leaves.set_text import set_text


class Line(Struct, frozen=True, kw_only=True):
    """One rung in words; `path` is the leaf that answers it, "" where nothing is typed for it.

    Of a procedure by several codes `by` names the code, and `beside` says how its limit lies to those of others.
    """

    rung: Rung
    title: str
    stated: str
    allowed: str
    reason: str
    mend: str
    path: str
    by: str = ""
    beside: str = ""

    @property
    def is_problem(self) -> bool:
        """Whether it is not inside."""
        return self.rung.verdict != "inside"


def problem_sentences(wps: Wps, proof: Assessment, system: System) -> tuple[str, ...]:
    """Return what is not inside, outside first, a sentence each with its clause, and its code where there are more."""
    found = [line for line in lines(wps, proof, system) if line.is_problem]
    return tuple(
        f"{line.title}, {line.rung.verdict}: {line.reason}{f' ({clause})' if (clause := clause_of(line)) else ''}"
        for line in found
    )


def clause_of(line: Line) -> str:
    """Return the clause of a line, behind the name of its code where there are several."""
    return " ".join(filter(None, (line.by, line.rung.clause)))


def lines(wps: Wps, proof: Assessment, system: System) -> tuple[Line, ...]:
    """Return the ladder, outside first, then unproven, then inside, each in the order of the code.

    Of several codes the rungs of a variable stand one under the other, at the place of the worst: what a code has no
    rule for has none.
    """
    if proof.judgement is None:
        return ()
    if proof.parts:
        return tuple(_of_several(wps, proof, system))
    rungs = sorted(proof.judgement.rungs, key=_badness)
    return tuple(_line(wps, rung, system) for rung in rungs)


def _badness(rung: Rung) -> int:
    return ("outside", "unproven", "inside").index(rung.verdict)


def _of_several(wps: Wps, proof: Assessment, system: System) -> Iterator[Line]:
    packs = {each.pack.code: each.pack for each in proof.parts if each.pack is not None}
    rungs: dict[str, list[Rung]] = {}
    for rung in proof.judgement.rungs if proof.judgement else ():
        rungs.setdefault(rung.id, []).append(rung)
    for own in sorted(rungs.values(), key=lambda each: min(map(_badness, each))):
        for rung in own:
            others = [(packs[each.code], each) for each in own if each is not rung]
            beside = _beside(packs[rung.code], rung, others)
            yield replace(_line(wps, rung, system), by=packs[rung.code].name, beside=beside)


def _beside(pack: Pack, rung: Rung, others: Sequence[tuple[Pack, Rung]]) -> str:
    """Return how what one code allows of a variable lies beside what the others do."""
    if not others:
        return "No other code has a rule for it."
    said: dict[str, list[str]] = {}
    for other_pack, other in others:
        name = f"{other_pack.name} ({other.clause})" if other.clause else other_pack.name
        said.setdefault(_against((pack, rung), (other_pack, other)), []).append(name)
    return f"{capital(', '.join(f'{word} {_and(names)}' for word, names in said.items()))}."


def _and(names: Sequence[str]) -> str:
    return " and ".join(names)


def _against(own: tuple[Pack, Rung], other: tuple[Pack, Rung]) -> str:
    """Return how one code's limit lies to that of another; what they measure otherwise is not compared."""
    (pack, rung), (beside, its) = own, other
    words = pack.derive.words.get(rung.variable) != beside.derive.words.get(rung.variable)
    if (words or (rung.variable == HEAT and pack.basis != beside.basis)) and not (
        is_any(rung.sure) or is_any(its.sure)
    ):
        return "in another measure than"
    within, around = fits(rung.sure, its.sure), fits(its.sure, rung.sure)
    if within and around:
        return "as strict as"
    return "stricter than" if within else "wider than" if around else "partly wider, partly stricter than"


def support_sentences(wps: Wps, proof: Assessment) -> tuple[str, ...]:
    """Return for each deposit what it rests on, or that nothing covers it; which support nothing, and remarks.

    Of several codes each says it for itself, its name before.
    """
    if proof.parts:
        told = [(code_words(each), support_sentences(wps, each)) for each in proof.parts]
        return tuple(f"{name}: {', '.join(said)}" for name, said in told if said)
    if proof.judgement is None:
        return ()
    labels = deposit_labels([str(deposit.process) for deposit in wps.deposits])
    listed = frozenset(each.id for each in proof.pack.details) if proof.pack else frozenset[str]()
    none = "no record and no listed joint covers" if listed else "no record covers"
    found = []
    for label, records in zip(labels, proof.judgement.supports, strict=True):
        if records and listed.issuperset(records):
            found.append(f"{label} needs no test: its joint is {' and '.join(records)}")
        else:
            found.append(f"{label} rests on {' and '.join(records)}" if records else f"{none} {label} as stated")
    if not all(proof.judgement.supports):
        found += _set_aside(proof)
    return (*found, *proof.remarks)


def _set_aside(proof: Assessment) -> list[str]:
    """Return which records support nothing and why; those of other codes are counted alone."""
    others = [record for record, why in proof.set_aside if why.startswith(OF_ANOTHER_CODE)]
    several = others if len(others) > 1 else []
    told = [f"{record} supports nothing, it is {why}" for record, why in proof.set_aside if record not in several]
    return [*told, f"{len(several)} records are made to other codes"] if several else told


def _line(wps: Wps, rung: Rung, system: System) -> Line:
    title, finer = spoken_variable(rung.variable), reads_alike(rung, system)
    unsaid = "nothing that counts" if rung.clash else "not stated"
    stated = unsaid if rung.stated is None else set_text(rung.variable, rung.stated, system, finer=finer)
    allowed = set_text(rung.variable, rung.sure, system, finer=finer)
    if rung.sure != rung.possible:
        possible = set_text(rung.variable, rung.possible, system, finer=finer)
        allowed = f"unproven, at most {possible}" if is_none(rung.sure) else f"{allowed}, perhaps {possible}"
    if not rung.clause:
        allowed = "no rule says"
    told = "".join(f" {remark}." for remark in rung.remarks)  # said against its records, wherever one rests on them
    said = Said(rung, stated, allowed, system, finer)
    reason, mend = reason_of(said), mend_of(said)
    return Line(
        rung=rung,
        title=f"{title}, {rung.label}" if rung.label else title,
        stated=stated,
        allowed=allowed,
        reason=f"{reason}{_hottest(wps, rung)}{told}",
        mend=mend,
        path=leaf_of_rung(wps, rung),
    )


def _hottest(wps: Wps, rung: Rung) -> str:
    """Return where in its pass the heat of a rung is highest, where a sector of it is laid hotter."""
    if rung.variable != "heat_input_kj_mm" or not rung.worst_pass:
        return ""
    found = next(((n, each) for n, each in enumerate(wps.passes, 1) if each.id == rung.worst_pass), None)
    sector = hottest_sector(wps, found[1]) if found else None
    return f" Pass {found[0]} is hottest at {sector.reach or 'one of its sectors'}." if found and sector else ""


def spoken_variable(variable: str) -> str:
    """Return the name of a variable as a title."""
    return capital(spoken(variable))


def leaf_of_rung(wps: Wps, rung: Rung) -> str:
    """Return the leaf where the variable of a rung is typed; "" when the procedure has none."""
    row = variables().get(rung.variable)
    where = row.wps if row else None
    if row is not None and row.asked and not rung.clause:
        return row.asked  # a demand: what answers it is typed where it is asked
    if where is None or where.scope == "joint":
        return where.leaf if where else ""
    deposit = _deposit(wps, rung.label)
    return _leaf_below(wps, rung, where, deposit) if deposit else ""


def _leaf_below(wps: Wps, rung: Rung, where: Stating, deposit: Deposit) -> str:
    """Return the leaf of a deposit or of one of its passes where the variable of a rung is typed."""
    own = [each.id for each in wps.passes if each.deposit == deposit.id]
    if where.scope == "deposit":
        return where.typed.replace("*", own[0]) if where.typed and own else f"deposits/{deposit.id}/{where.name}"
    shown = rung.variable == "heat_input_kj_mm" and deposit.waveform == "yes"  # what its source shows, typed so
    name = "heat_input_kj_mm" if shown else where.name
    owner = rung.worst_pass or next(iter(_lacking(wps, own, name)), own[0] if own else "")
    return f"passes/{owner}/{name}" if owner else ""


def _lacking(wps: Wps, ids: Sequence[str], leaf: str) -> list[str]:
    return [each.id for each in wps.passes if each.id in ids and getattr(each, leaf) is None]


def _deposit(wps: Wps, label: str) -> Deposit | None:
    labels = deposit_labels([str(deposit.process) for deposit in wps.deposits])
    pairs = dict(zip(labels, wps.deposits, strict=True))
    return pairs.get(label) or (wps.deposits[0] if wps.deposits else None)
