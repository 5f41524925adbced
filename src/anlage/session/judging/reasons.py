"""Why a variable stands as it does, and what to change, in sentences that an engineer accepts."""

import math
from typing import NamedTuple

from anlage.core.codes import Rung
from anlage.core.codes.explain import Origin
from anlage.core.quantities import show, show_interval
from anlage.core.quantities.units import System
from anlage.core.ranges import Choices, Interval, Numbers, is_any, is_none
from anlage.core.variables import spoken
from anlage.data.tables import unit_table, variables
from anlage.session.leaves.set_text import kind_of


class Said(NamedTuple):
    """A rung with what is stated and allowed in words, in the units of the reader."""

    rung: Rung
    stated: str
    allowed: str
    system: System
    finer: bool  # numbers carry one more digit, as two would read alike


def reason_of(said: Said) -> str:
    """Return in one or two plain sentences why the verdict is what it is."""
    return _beyond_rules(said.rung) or _by_rules(said)


def mend_of(said: Said) -> str:
    """Return what to change to come inside; "" where nothing is to be changed, or nothing can be said."""
    rung = said.rung
    if rung.verdict == "inside":
        return ""
    if rung.clash:
        return "Mend it where it is typed."
    if rung.stated is None:
        row = variables().get(rung.variable)
        words = row.tokens if row and isinstance(row.tokens, tuple) else ("yes", "no")
        return f"Say so, {' or '.join(words)}." if not rung.clause else f"State the {spoken(rung.variable)}."
    if not rung.clause:
        return ""
    return _change(said)


def reads_alike(rung: Rung, system: System) -> bool:
    """Return whether an end of what is stated and one of what is allowed differ, but are written alike."""
    kind = kind_of(rung.variable)
    ranges = [each for each in (rung.stated, rung.sure, rung.possible) if isinstance(each, Numbers) and each.parts]
    if not kind or len(ranges) < 2 or rung.verdict == "inside":
        return False
    ends = [(each.parts[0].low, each.parts[-1].high) for each in ranges]
    pairs = [(ends[0][side], other[side]) for other in ends[1:] for side in (0, 1)]
    return any(
        math.isfinite(a) and math.isfinite(b) and not math.isclose(a, b, rel_tol=1e-6)
        and show(a, kind, system, unit_table()) == show(b, kind, system, unit_table())
        for a, b in pairs
    )  # fmt: skip


def capital(text: str) -> str:
    """Return a text that begins a sentence."""
    return f"{text[0].upper()}{text[1:]}"


def _beyond_rules(rung: Rung) -> str:
    """Return why where no rule gives the verdict: a clash, or a demand that is open or not answered."""
    if rung.clash:
        return f"{capital(rung.clash)}: nothing counts as stated."
    if not rung.clause:
        return f"{capital(rung.reason)}."
    return f"The procedure does not state {spoken(rung.variable)}." if rung.stated is None else ""


def _by_rules(said: Said) -> str:
    rung = said.rung
    records = " and ".join(rung.records) or "no record"
    if rung.verdict == "inside":
        note = f" {capital(rung.note)}." if rung.note and not is_any(rung.sure) else ""
        allowed = "any is allowed" if is_any(rung.sure) else f"{said.allowed} is allowed"
        return f"{said.stated} is stated; {allowed}.{note}"
    if rung.together is not None:
        laid = _span(said, rung.together.laid)
        each = " and ".join(rung.together.labels)
        return f"{each} rest on one deposit of {records} and lay {laid} together; it allows {said.allowed}."
    if rung.verdict == "outside" and is_none(rung.possible):
        return f"{said.stated} is stated; {records} allows nothing: {rung.reason}."
    member = f", for {rung.member}" if rung.member else ""
    why = _why(said)
    if rung.verdict == "outside":
        return f"{said.stated} is stated; {records} allows {said.allowed}{member}{f': {why}' if why else ''}."
    return f"{said.stated} is stated{member}, and {rung.reason}{f'; {why}' if why else ''}."


def _why(said: Said) -> str:
    """Return where the overstepped limit comes from, and which coupon would lift it."""
    rung, origin = said.rung, said.rung.origin
    if origin is None or rung.verdict != "outside":
        return ""
    kind = kind_of(origin.fact or rung.variable)
    if not kind:
        return ""
    found = [_source(said, origin, kind)]
    if origin.lifted_from is not None and math.isfinite(origin.lifted_from):
        found.append(f"a coupon from {_say(origin.lifted_from, kind, said)} on would lift it")
    return "; ".join(found)


def _source(said: Said, origin: Origin, kind: str) -> str:
    clause = said.rung.clause
    if origin.fixed is not None:
        return f"{_say(origin.fixed, kind, said)} by {clause}"
    assert origin.recorded is not None, "what is no number of the code was recorded"
    own = _say(origin.recorded, kind, said)
    times = f"{origin.times:g} \u00d7 " if origin.times != 1 else ""
    step = ""
    if origin.plus:
        difference = "temperature_difference" if kind == "temperature" else kind
        step = f", {'plus' if origin.plus > 0 else 'less'} {_say(abs(origin.plus), difference, said)}"
    held = ", held by the code" if origin.held else ""
    return f"{times}{own} recorded on {' and '.join(said.rung.records)}{step}{held} by {clause}"


def _span(said: Said, span: Interval) -> str:
    return show_interval(span, kind_of(said.rung.variable), said.system, unit_table(), finer=said.finer)


def _say(value: float, kind: str, said: Said) -> str:
    return show(value, kind, said.system, unit_table(), finer=said.finer)


def _change(said: Said) -> str:
    """Return what to state otherwise, or which test to weld."""
    rung = said.rung
    row = variables().get(rung.variable)
    of = row.wps.of if row and row.wps else ""
    if is_none(rung.possible):
        return "Weld a test that covers it."
    if of == "metals" or rung.variable == "process":
        return f"Weld a test with {'these base metals' if of else 'this process'}."
    if isinstance(rung.stated, Numbers) and isinstance(rung.sure, Numbers) and len(rung.sure.parts) == 1:
        return f"{_ends(said, rung.stated, rung.sure.parts[0])}, or weld a test that covers it."
    if isinstance(rung.sure, Choices) and not rung.sure.but and rung.sure.tokens:
        allowed = " or ".join(sorted(rung.sure.tokens))
        follows = of == "filler" and rung.variable != "filler_classification"
        wanted = f"a filler of {spoken(rung.variable)} {allowed}" if follows else allowed
        return f"Take {wanted}, or weld a test that covers it."
    return "Weld a test that covers it, or record what is missing."


def _ends(said: Said, stated: Numbers, allowed: Interval) -> str:
    """Return which end of the stated range has to move, and how far."""
    kind = kind_of(said.rung.variable)

    def say(value: float) -> str:
        return _say(value, kind, said) if kind else f"{value:g}"

    low, high = stated.parts[0].low, stated.parts[-1].high
    found = []
    if low < allowed.low:
        found.append(f"at least {say(allowed.low)}")
    if high > allowed.high:
        found.append(f"{'less than' if allowed.high_open else 'at most'} {say(allowed.high)}")
    return f"State {' and '.join(found)}" if found else "State a range inside what is allowed"
