"""Passes proposed so that one procedure holds them: some codes limit how far the settings of a filler lie apart."""

import math
from collections.abc import Callable, Mapping
from typing import Final

from msgspec.structs import replace

from anlage.core.codes import Judgement, deposit_labels
from anlage.core.procedure import Wps
from anlage.core.proposal import Narrow
from anlage.core.ranges import Interval, Numbers
from anlage.session.judging.assessment import Assessment
from anlage.session.judging.derivations import DERIVATIONS, WIDTHS
from anlage.session.proposal.fill import Filled, proposed_fill
from anlage.session.weld.bead_sizes import plan_of

Assess = Callable[[Wps], Assessment]
Widths = Mapping[str, float]  # highest over lowest that is allowed, by variable
SPEED, MELTING, VOLTS = "travel_span", "melting_span", "volts_span"
OF_ONE_PASS: Final = 0.4  # of the width on a logarithmic scale: the rest is for the passes among each other; own choice
ROUNDED: Final = 0.985  # of the width: settings are given in round numbers
SHARES: Final = (1.0, *(1 + sign * n / 40 for n in range(1, 21) for sign in (-1, 1)))  # of a usual bead; own choice


def fill_within(wps: Wps, assess: Assess) -> Filled:
    """Return passes that fill the joint, with settings as near to each other as the code wants them.

    Where the usual settings of a filler lie too far apart over its passes, all its beads are laid of one size, by one
    current: layers come out of different heights instead of at different speeds, as with a machine that is set once.

    Parameters
    ----------
    wps : the procedure
    assess : judges a procedure

    Raises
    ------
    InputError : as `proposed_fill` does
    """
    usual = proposed_fill(wps)
    judgement = assess(usual.wps).judgement
    limits = _allowed(usual.wps, judgement)
    allowed = {own: widths for own, widths in limits.items() if _over(usual.wps, own, widths) > 1}
    if not allowed:
        return usual
    narrow = {own: _narrow(usual.wps, own, widths) for own, widths in allowed.items()}
    plan = plan_of(usual.wps if wps.passes else wps)
    others = _outside(judgement) - set(WIDTHS)
    best, least = usual, (math.inf, math.inf)
    for share in SHARES:
        found = proposed_fill(wps, plan.narrowed(narrow, share))
        over = max(1.0, *(_over(found.wps, own, widths) for own, widths in allowed.items()))
        if over > least[0]:
            continue
        rank = over, len(_outside(assess(found.wps).judgement) - others)
        if rank < least:
            best, least = found, rank
        if least == (1.0, 0):
            return best
    said = "No passes were found whose settings lie within what the code allows one procedure: see Proof."
    return replace(best, minded=(*best.minded, said), said=(*best.said, said))


def _outside(judgement: Judgement | None) -> set[str]:
    """Return the variables that are outside."""
    return {rung.variable for rung in judgement.rungs if rung.verdict == "outside"} if judgement else set()


def _allowed(wps: Wps, judgement: Judgement | None) -> Mapping[str, Widths]:
    """Return how wide the settings of each deposit may be, by its id, where its code limits it."""
    if judgement is None:
        return {}
    labels = dict(zip(deposit_labels([each.process or "" for each in wps.deposits]), wps.deposits, strict=True))
    found: dict[str, dict[str, float]] = {}
    for rung in judgement.rungs:
        if rung.variable in WIDTHS and isinstance(rung.sure, Numbers) and rung.label in labels:
            most = max((part.high for part in rung.sure.parts), default=math.inf)
            if math.isfinite(most):
                own = found.setdefault(labels[rung.label].id, {})
                own[rung.variable] = min(most, own.get(rung.variable, most))
    return found


def _width(wps: Wps, own: str, variable: str) -> float:
    found = DERIVATIONS["wps", variable](wps, next(each for each in wps.deposits if each.id == own))
    return 1.0 if found is None else float(found)


def _over(wps: Wps, own: str, widths: Widths) -> float:
    """Return how far the worst setting of a deposit is beyond its width; at most 1 where all are within."""
    return max(_width(wps, own, name) / most for name, most in widths.items())


def _narrow(wps: Wps, own: str, widths: Widths) -> Narrow:
    """Return what the settings of a deposit have in common: the middle of what is usual for its roles."""
    speed, melting, volts = (ROUNDED * widths.get(name, math.inf) for name in (SPEED, MELTING, VOLTS))
    amps, voltages = ([
        value for each in wps.passes if each.deposit == own and (value := getattr(each, leaf)) is not None
    ] for leaf in ("current_a", "voltage_v"))  # fmt: skip
    words = {SPEED: "travel speed", MELTING: "current", VOLTS: "voltage"}
    said = ", ".join(f"{most:.2f} × in {words[name]}" for name, most in widths.items())
    return Narrow(
        speed=_side(speed**OF_ONE_PASS), current=_side(melting**OF_ONE_PASS),
        band=_about(_middles(amps), melting ** (1 - OF_ONE_PASS)) if _is_wide(amps, melting) else None,
        voltage_v=_in_halves(_about(_middles(voltages), volts)) if _is_wide(voltages, volts) else None,
        why=f"one procedure holds {said}",
    )  # fmt: skip


def _is_wide(spans: list[Interval], most: float) -> bool:
    return bool(spans) and max(each.high for each in spans) > most * min(each.low for each in spans)


def _middles(spans: list[Interval]) -> list[float]:
    return [(each.low + each.high) / 2 for each in spans]


def _about(middles: list[float], width: float) -> Interval:
    """Return a range as wide about the middle of some values."""
    middle, half = (min(middles) + max(middles)) / 2, _side(width)
    return Interval(middle * (1 - half), middle * (1 + half))


def _in_halves(span: Interval) -> Interval:
    """Return the half volts that lie in a range."""
    return Interval(math.ceil(2 * span.low) / 2, math.floor(2 * span.high) / 2)


def _side(width: float) -> float:
    """Return how far a range goes to both sides of its middle, as a share, that is so wide."""
    return 1.0 if math.isinf(width) else (width - 1) / (width + 1)
