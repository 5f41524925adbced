"""What of a procedure's heat, cap and root is not shown to hold, for whoever issues it without having looked at it."""

from collections.abc import Iterator

from anlage.core.codes.verdict import Verdict
from anlage.core.machine import Calibrated
from anlage.core.procedure import Wps
from anlage.core.quantities.units import System
from anlage.session.heat.after import after_view
from anlage.session.heat.cooling import cooling_view
from anlage.session.heat.meters import NO_MACHINES
from anlage.session.heat.preheat import preheat_view
from anlage.session.judging.editions import SHIPPED, Codes
from anlage.session.judging.finish import finish_limits


def heat_amiss(
    wps: Wps, codes: Codes = SHIPPED, works: Calibrated = NO_MACHINES, system: System = "si"
) -> tuple[tuple[Verdict, str, str], ...]:
    """Return what of preheat, of the most between passes and of what follows the last pass is not inside.

    Of hardness only where the job limits it, of cap and root as drawn what the construction code of the job limits.

    Each is a verdict, what it is of, and why. Of a procedure that names no base metal there is nothing to say yet.
    """
    named = wps.metals.one.name or wps.metals.one.p_number or wps.metals.one.certificate
    return tuple(_amiss(wps, codes, works, system)) if named else ()


def _amiss(wps: Wps, codes: Codes, works: Calibrated, system: System) -> Iterator[tuple[Verdict, str, str]]:
    preheat, cooling = preheat_view(wps, codes, works), cooling_view(wps, works)
    judged = [("Preheat", preheat.verdict(system)), ("Between passes", preheat.interpass_verdict(system))]
    if not cooling.soft and (wps.header.hardness or wps.header.sour_service):
        judged.append(("Hardness", cooling.verdict))
    for word, (verdict, text) in judged:
        if text and verdict != "inside":
            yield "outside" if verdict == "outside" else "unproven", word, text
    for each in finish_limits(wps, codes, system):
        if each.verdict is not None and each.verdict != "inside":
            yield each.verdict, "Cap and root", f"{each.words[0].upper()}{each.words[1:]}."
    for line in after_view(wps, codes, system).lines:
        if line.verdict != "inside":
            yield line.verdict, "After welding", line.text
