"""The ladder of a procedure: one line a variable, in words, with what to change and where it is typed."""

from collections.abc import Sequence

from msgspec import Struct

from anlage.core.codes import Rung
from anlage.core.codes.facts import deposit_labels
from anlage.core.procedure import Deposit, Wps
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.core.ranges import Choices, Interval, Numbers, is_any, is_none
from anlage.core.variables import spoken
from anlage.data.tables import unit_table, variables
from anlage.session.judging.assessment import Assessment
from anlage.session.leaves.set_text import kind_of, set_text


class Line(Struct, frozen=True, kw_only=True):
    """One rung in words; `path` is the leaf that answers it, "" where nothing is typed for it."""

    rung: Rung
    title: str
    stated: str
    allowed: str
    reason: str
    mend: str
    path: str

    @property
    def is_problem(self) -> bool:
        """Whether it is not inside."""
        return self.rung.verdict != "inside"


def lines(wps: Wps, proof: Assessment, system: System) -> tuple[Line, ...]:
    """Return the ladder, outside first, then unproven, then inside, each in the order of the code."""
    if proof.judgement is None:
        return ()
    order = ("outside", "unproven", "inside")
    rungs = sorted(proof.judgement.rungs, key=lambda rung: order.index(rung.verdict))
    return tuple(_line(wps, rung, system) for rung in rungs)


def support_sentences(wps: Wps, proof: Assessment) -> tuple[str, ...]:
    """Return for each deposit which records it rests on, or that none covers it; which support nothing, and remarks."""
    if proof.judgement is None:
        return ()
    labels = deposit_labels([str(deposit.process) for deposit in wps.deposits])
    pairs = zip(labels, proof.judgement.supports, strict=True)
    found = [
        f"{label} rests on {' and '.join(records)}" if records else f"no record covers {label} as stated"
        for label, records in pairs
    ]
    if not all(proof.judgement.supports):
        found += [f"{record} supports nothing, it is {why}" for record, why in proof.set_aside]
    return (*found, *proof.remarks)


def _line(wps: Wps, rung: Rung, system: System) -> Line:
    name, title = spoken(rung.variable), spoken_variable(rung.variable)
    unsaid = "nothing that counts" if rung.clash else "not stated"
    stated = unsaid if rung.stated is None else set_text(rung.variable, rung.stated, system)
    allowed = set_text(rung.variable, rung.sure, system)
    if rung.sure != rung.possible:
        possible = set_text(rung.variable, rung.possible, system)
        allowed = f"unproven, at most {possible}" if is_none(rung.sure) else f"{allowed}, perhaps {possible}"
    if not rung.clause:
        allowed = "no rule says"
    told = "".join(f" {remark}." for remark in rung.remarks)  # said against its records, wherever one rests on them
    reason, mend = _beyond_rules(rung) or (_reason(wps, rung, name, stated, allowed), _mend(rung, name, system))
    return Line(
        rung=rung,
        title=f"{title}, {rung.label}" if rung.label else title,
        stated=stated,
        allowed=allowed,
        reason=f"{reason}{told}",
        mend=mend,
        path=leaf_of_rung(wps, rung),
    )


def spoken_variable(variable: str) -> str:
    """Return the name of a variable as a title."""
    name = spoken(variable)
    return _capital(name)


def _records(rung: Rung) -> str:
    return " and ".join(rung.records) or "no record"


def _beyond_rules(rung: Rung) -> tuple[str, str] | None:
    """Return reason and remedy where no rule gives the verdict: a clash, or a demand that is open or not answered."""
    if rung.clash:
        return f"{_capital(rung.clash)}: nothing counts as stated.", "Mend it where it is typed."
    if not rung.clause:
        return f"{_capital(rung.reason)}.", "Say so, yes or no." if rung.stated is None else ""
    return None


def _capital(text: str) -> str:
    return f"{text[0].upper()}{text[1:]}"


def _reason(wps: Wps, rung: Rung, name: str, stated: str, allowed: str) -> str:
    """Return in one plain sentence why the verdict is what it is."""
    if rung.stated is None:
        return f"The procedure does not state {name}."
    if rung.verdict == "inside":
        free = is_any(rung.sure)
        return f"{stated} is stated; any is allowed." if free else f"{stated} is stated; {allowed} is allowed."
    if rung.verdict == "outside" and is_none(rung.possible) and wps.header.impact:
        return f"Impact is demanded, and {_records(rung)} has no impact results: it allows nothing."
    if rung.verdict == "outside":
        return f"{stated} is stated; {_records(rung)} allows {allowed}."
    return f"{stated} is stated, and {rung.reason}."


def _mend(rung: Rung, name: str, system: System) -> str:
    """Return what to change to come inside."""
    if rung.verdict == "inside":
        return ""
    if rung.stated is None:
        return f"State the {name}."
    if is_none(rung.possible):
        return "Weld a test that covers it."
    if isinstance(rung.stated, Numbers) and isinstance(rung.sure, Numbers) and len(rung.sure.parts) == 1:
        return f"{_ends(rung, rung.sure.parts[0], system)}, or weld a test that covers it."
    if isinstance(rung.sure, Choices) and not rung.sure.but and rung.sure.tokens:
        return f"Take {' or '.join(sorted(rung.sure.tokens))}, or weld a test that covers it."
    return "Weld a test that covers it, or record what is missing."


def _ends(rung: Rung, allowed: Interval, system: System) -> str:
    """Return which end of the stated range has to move, and how far."""
    assert isinstance(rung.stated, Numbers)
    kind = kind_of(rung.variable)

    def say(value: float) -> str:
        return show(value, kind, system, unit_table()) if kind else f"{value:g}"

    low, high = rung.stated.parts[0].low, rung.stated.parts[-1].high
    found = []
    if low < allowed.low:
        found.append(f"at least {say(allowed.low)}")
    if high > allowed.high:
        found.append(f"{'less than' if allowed.high_open else 'at most'} {say(allowed.high)}")
    return f"State {' and '.join(found)}" if found else "State a range inside what is allowed"


def leaf_of_rung(wps: Wps, rung: Rung) -> str:
    """Return the leaf where the variable of a rung is typed; "" when the procedure has none."""
    row = variables().get(rung.variable)
    where = row.wps if row else None
    if row is not None and row.asked and not rung.clause:
        return row.asked  # a demand: what answers it is typed where it is asked
    if where is None:
        return ""
    if where.scope == "joint":
        return where.leaf
    deposit = _deposit(wps, rung.label)
    if deposit is None:
        return ""
    if where.scope == "deposit":
        return f"deposits/{deposit.id}/{where.name}"
    own = [each.id for each in wps.passes if each.deposit == deposit.id]
    owner = rung.worst_pass or next(iter(_lacking(wps, own, where.name)), own[0] if own else "")
    return f"passes/{owner}/{where.name}" if owner else ""


def _lacking(wps: Wps, ids: Sequence[str], leaf: str) -> list[str]:
    return [each.id for each in wps.passes if each.id in ids and getattr(each, leaf) is None]


def _deposit(wps: Wps, label: str) -> Deposit | None:
    labels = deposit_labels([str(deposit.process) for deposit in wps.deposits])
    pairs = dict(zip(labels, wps.deposits, strict=True))
    return pairs.get(label) or (wps.deposits[0] if wps.deposits else None)
