"""How the metal of a wire goes over in a pass, and whether its feed and its current say the same."""

from anlage.core.procedure import Deposit, Pass, Wps
from anlage.core.proposal import burn_off
from anlage.core.proposal.settings import current_at
from anlage.core.quantities import show, show_interval
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.core.transition import Transition, transfer
from anlage.data.tables import unit_table
from anlage.data.transition_table import transition_of_wire, transitions
from anlage.session.weld.bead_areas import is_wire_fed, usual_settings
from anlage.session.weld.usual import described_near

APART = 0.2  # feed and current say different things when they are apart by more; feeds are known to 15 %, own choice
SAID = {
    "under": "drops, globular or short-circuit",
    "edge": "at the edge of spray: fine drops all over mean more volts or less wire",
    "spray": "spray",
}


def fed_current(deposit: Deposit, each: Pass) -> Interval | None:
    """Return the current that a wire draws at its stated feed [A], ±15 %; `None` where feed or wire is not known."""
    row = usual_settings(deposit) if is_wire_fed(deposit) else None
    if row is None or each.wire_speed_mm_min is None:
        return None
    curve = burn_off(row, described_near(row))
    if curve is None:
        return None
    return Interval(current_at(curve, each.wire_speed_mm_min.low), current_at(curve, each.wire_speed_mm_min.high))


def transition_of(deposit: Deposit) -> Transition | None:
    """Return at which current the wire of a deposit sprays in its gas; `None` where that is not known."""
    size = deposit.filler_diameter_mm
    return transition_of_wire(
        deposit.process, deposit.filler, None if size is None else size.low, deposit.shielding_gas
    )


def transfer_sentences(wps: Wps, each: Pass, system: System) -> tuple[str, ...]:
    """Return how the metal of a wire goes over, and where feed, current and stated transfer do not go together."""
    deposit = next(home for home in wps.deposits if home.id == each.deposit)
    fed, said = fed_current(deposit, each), []
    if fed is not None and each.current_a is not None and _apart(fed, each.current_a):
        amps, stated = (show_interval(span, "current", system, unit_table()) for span in (fed, each.current_a))
        said.append(f"By its feed the wire draws about {amps} (±15 %), {stated} is stated.")
    current, found = each.current_a or fed, transition_of(deposit)
    if current is None or found is None:
        return tuple(said)
    kind, mode = transfer(current, found, transitions().near), deposit.transfer_mode
    if found.between is None:
        if mode == "spray":
            said.append(f"There is no spray in {deposit.shielding_gas}: too much carbon dioxide.")
        return tuple(said)
    begins = show(found.between.low, "current", system, unit_table())
    if mode == "spray" and kind != "spray":
        said.append(f"Spray begins near {begins} ({found.confidence}): {SAID[kind]}.")
    elif mode == "short" and kind == "spray":
        said.append(f"Spray begins near {begins} ({found.confidence}): this is no short circuit.")
    elif mode is None:
        said.append(f"Transfer by its current: {SAID[kind]} (spray begins near {begins}, {found.confidence}).")
    return tuple(said)


def _apart(fed: Interval, stated: Interval) -> bool:
    return stated.high < fed.low * (1 - APART) or stated.low > fed.high * (1 + APART)
