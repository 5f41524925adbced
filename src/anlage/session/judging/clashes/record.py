"""What a record can say twice."""

import math
from collections import Counter
from collections.abc import Iterator

from anlage.core.heat import arc_energy
from anlage.core.joint import MAKES
from anlage.core.quantities import show
from anlage.core.ranges import Interval
from anlage.core.record import Pqr, Recorded, RecordedDeposit
from anlage.data.tables import unit_table
from anlage.session.judging.clashes.clash import NEAR, Check, Clash, Said, holds, is_day, slack
from anlage.session.judging.clashes.declared import declared_around
from anlage.session.judging.coupons import OF_KIND
from anlage.session.judging.results import kind_of_test, mark_of
from anlage.session.leaves.table import field_of

OF_PIECES = frozenset((
    "position", "heat_input_kj_mm", "filler_make", "shown_makes", "pieces_apart",
    *(name for each in OF_KIND.values() for name in (each.position, each.heat)),
))  # fmt: skip


def _recorded_energy(said: Said) -> Iterator[Clash]:
    for each in said.document.deposits:
        bounds = _corners(each)
        stated = each.heat_input_kj_mm.span if each.heat_input_kj_mm else None
        if bounds is None or stated is None or each.heat_input_basis != "arc_energy":
            continue
        if stated.high > bounds.high * 1.02 or stated.low < bounds.low * 0.98:
            low, high = (show(end, "heat_input", said.system, unit_table()) for end in (bounds.low, bounds.high))
            text = f"the heat input recorded does not lie within {low} to {high} of its own volts, amps and speeds"
            leaves = tuple(
                f"deposits/{each.id}/{name}"
                for name in ("heat_input_kj_mm", "voltage_v", "current_a", "travel_speed_mm_min")
            )
            yield Clash(leaves, frozenset(("heat_input_kj_mm",)), text, each.id)


def _passes_read(said: Said) -> Iterator[Clash]:
    """Yield the passes that were read beyond the extremes that are recorded of their deposit."""
    for deposit in said.document.deposits:
        for each in said.document.welded:
            if each.deposit not in (deposit.id, None) or (each.deposit is None and len(said.document.deposits) > 1):
                continue
            for name in ("current_a", "voltage_v", "travel_speed_mm_min"):
                read, recorded = getattr(each, name), getattr(deposit, name)
                if read is None or recorded is None or holds(_between(recorded), read):
                    continue
                what = field_of(f"deposits/{deposit.id}/{name}").label.lower()
                text = f"the {what} of a pass as read lies beyond the least and most that are recorded"
                ends = [f"deposits/{deposit.id}/{name}/{end}" for end in ("least", "most")]
                leaves = (f"welded/{each.id}/{name}", *ends)
                yield Clash(leaves, frozenset(("heat_input_kj_mm",)), text, deposit.id)


def _between(recorded: Recorded) -> Interval:
    """Return what lies between the least and the most that were written down."""
    low = -math.inf if recorded.least is None else recorded.least
    return Interval(low, math.inf if recorded.most is None else recorded.most)


def _corners(deposit: RecordedDeposit) -> Interval | None:
    read = (deposit.voltage_v, deposit.current_a, deposit.travel_speed_mm_min)
    known = [span for each in read if each is not None and (span := each.span) is not None]
    if len(known) < len(read):
        return None
    volts, amps, speed = known
    cold = arc_energy(volts.low, amps.low, speed.high / 60)
    return Interval(cold, arc_energy(volts.high, amps.high, speed.low / 60))


def _pass_in_deposit(said: Said) -> Iterator[Clash]:
    for each in said.document.deposits:
        thick, most = each.thickness_mm, each.max_pass_thickness_mm
        if thick is not None and most is not None and most > thick * (1 + NEAR):
            text = f"a pass of {said.length(most)} is recorded in a deposit of {said.length(thick)}"
            leaves = (f"deposits/{each.id}/thickness_mm", f"deposits/{each.id}/max_pass_thickness_mm")
            yield Clash(leaves, frozenset(("deposit_thickness_mm", "pass_thickness_mm")), text, each.id)


def _runs_of_coupon(said: Said) -> Iterator[Clash]:
    pqr: Pqr = said.document
    most = max(len(pqr.welded), len(pqr.deposits))
    if pqr.technique.runs == "single" and most > 2:
        text = f"one pass a side is recorded, but {most} were laid"
        yield Clash(("technique/runs",), frozenset(("runs",)), text)


def _deposits_of_coupon(said: Said) -> Iterator[Clash]:
    """Yield a groove coupon whose deposits do not make its thickness: one of the numbers is another."""
    pqr: Pqr = said.document
    joint, laid = pqr.joint, [each.thickness_mm for each in pqr.deposits]
    is_butt = joint.kind is None or MAKES[joint.kind].family == "butt"
    if pqr.header.weld not in (None, "groove") or not is_butt or joint.thickness_mm is None or not laid:
        return
    known = [thickness for thickness in laid if thickness is not None]
    if len(known) == len(laid) and sum(known) < joint.thickness_mm - slack(joint.thickness_mm):
        text = f"the deposits add up to {said.length(sum(known))} in a coupon of {said.length(joint.thickness_mm)}"
        leaves = ("joint/thickness_mm", *(f"deposits/{each.id}/thickness_mm" for each in pqr.deposits))
        yield Clash(leaves, frozenset(("base_metal_thickness_mm", "deposit_thickness_mm")), text)


def _impact_results(said: Said) -> Iterator[Clash]:
    tested = [each for each in said.document.results if kind_of_test(each.kind) == "impact"]
    if tested and said.document.toughness_tested is False:
        leaves = ("toughness_tested", f"results/{tested[0].id}/kind")
        yield Clash(leaves, frozenset(), "impact tests are listed, but it is said that there are none")


def _pieces(said: Said) -> Iterator[Clash]:
    """Yield a mark that two test pieces have, and tests of a piece that the record does not have."""
    pqr: Pqr = said.document
    marks = Counter(mark for each in pqr.pieces if (mark := mark_of(each.mark)))
    for each in pqr.pieces:
        if marks[mark_of(each.mark)] > 1:
            yield Clash((f"pieces/{each.id}/mark",), OF_PIECES, f"two test pieces are marked {each.mark}")
    for test in pqr.results:
        if (mark := mark_of(test.piece)) and mark not in marks:
            yield Clash((f"results/{test.id}/piece",), OF_PIECES, f"the record has no test piece {test.piece}")


def _days(said: Said) -> Iterator[Clash]:
    day = said.document.welded_on
    if day and not is_day(day):
        yield Clash(("welded_on",), frozenset(), f"{day} is no day of the calendar", "", "write it as 2026-04-14")


OF_PQR: tuple[Check, ...] = (
    _recorded_energy,
    _passes_read,
    _pass_in_deposit,
    _runs_of_coupon,
    _deposits_of_coupon,
    _impact_results,
    _pieces,
    _days,
    declared_around,
)
