"""The arc energy that the records allow, deposit by deposit, as lines for the operating window."""

import math
from collections.abc import Mapping, Sequence

from anlage.core.codes import Rung, deposit_labels
from anlage.core.drawing.operating_window import HeatLimit
from anlage.core.procedure import Wps
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.core.ranges import Numbers
from anlage.data.tables import unit_table
from anlage.session.judging.assessment import Assessment
from anlage.session.judging.coupons import HEAT
from anlage.session.leaves.iso_numbers import efficiency_of


def heat_limits(wps: Wps, proof: Assessment | None, system: System, chosen: str = "") -> tuple[HeatLimit, ...]:
    """Return the most arc energy that a pass of each deposit may have; deposits of one limit share a line.

    Where a code compares heat input, its limit is shown as the arc energy that makes it.

    Parameters
    ----------
    proof : how the procedure stands
    chosen : id of the pass whose limit is named
    """
    found: dict[float, list[Rung]] = {}
    for own in proof.by_code if proof is not None else ():
        for rung in own.judgement.rungs if own.judgement is not None and own.pack is not None else ():
            if rung.variable == HEAT and isinstance(rung.sure, Numbers) and rung.sure.parts:
                most = rung.sure.parts[-1].high
                k = 1.0 if own.pack is None or own.pack.basis == "arc_energy" else _efficiency(wps, rung.label)
                if math.isfinite(most) and k:
                    found.setdefault(round(most / k, 6), []).append(rung)
    chosen_label = _label_of(wps, chosen)
    several = len(wps.deposits) > 1
    names = {each.pack.code: each.pack.name for each in (proof.parts if proof else ()) if each.pack is not None}
    return tuple(
        HeatLimit(
            most, f"{_label(most, rungs, system, several=several)}{_by_codes(rungs, names)}",
            any(rung.label == chosen_label for rung in rungs),
        )
        for most, rungs in found.items()
    )  # fmt: skip


def _by_codes(rungs: Sequence[Rung], names: Mapping[str, str]) -> str:
    """Return which of several codes set a limit."""
    own = " and ".join(dict.fromkeys(names[rung.code] for rung in rungs)) if names else ""
    return f", {own}" if own else ""


def _label_of(wps: Wps, pass_id: str) -> str | None:
    labels = deposit_labels([str(deposit.process) for deposit in wps.deposits])
    own = next((each.deposit for each in wps.passes if each.id == pass_id), None)
    return next((label for label, each in zip(labels, wps.deposits, strict=True) if each.id == own), None)


def _efficiency(wps: Wps, label: str) -> float | None:
    labels = deposit_labels([str(deposit.process) for deposit in wps.deposits])
    own = dict(zip(labels, wps.deposits, strict=True)).get(label)
    row = efficiency_of(own.process, own.filler, own.shielding_gas) if own else None
    return row.k if row else None


def _label(most: float, rungs: Sequence[Rung], system: System, *, several: bool) -> str:
    whose = f"{', '.join(rung.label for rung in rungs if rung.label)} " if several else ""
    records = " and ".join(dict.fromkeys(record for rung in rungs for record in rung.records))
    return f"{whose}≤ {show(most, 'heat_input', system, unit_table())}{f' by {records}' if records else ''}"
