"""What a deposit can say twice of its electrode: its gas, its polarity, and how its metal crosses the arc."""

from collections.abc import Iterator

from anlage.core.catalogue import Filler, ProcessLimits
from anlage.core.procedure import Wps
from anlage.core.quantities import show, show_interval
from anlage.core.ranges import Interval
from anlage.core.record import Pqr
from anlage.core.transition import transfer
from anlage.data.tables import catalogue, processes, unit_table
from anlage.data.transition_table import transition_of_wire, transitions
from anlage.session.judging.clashes.clash import Clash, Said
from anlage.session.judging.metals import is_known_filler, is_without
from anlage.session.leaves.gases import NONE as NO_GAS
from anlage.session.leaves.gases import gas_tokens

SPRAYED = ("spray", "pulsed")
NOT_PULSED = ("spray", "globular", "short")
ANOTHER = {"globular": "short", "short": "globular"}  # either side of the volts and amps at which drops come free


def _filler(name: str | None) -> Filler | None:
    return catalogue().filler(name) if name and is_known_filler(name) and not is_without(name) else None


def polarities(said: Said) -> Iterator[Clash]:
    """Yield consumed electrodes on a current that they are not made for."""
    for each in said.document.deposits:
        process, filler = processes().get(each.process or ""), _filler(each.filler)
        if process is None or process.electrode == "tungsten" or filler is None or not each.current_type:
            continue
        if filler.currents and each.process in filler.processes and each.current_type not in filler.currents:
            text = f"{filler.classification} is made for {' and '.join(filler.currents)}, not for {each.current_type}"
            leaves = (f"deposits/{each.id}/filler", f"deposits/{each.id}/current_type")
            yield Clash(leaves, frozenset(("current_type",)), text, each.id)


def gases_of_electrodes(said: Said) -> Iterator[Clash]:
    """Yield electrodes under a gas that they do not take, or without the one that they need."""
    for each in said.document.deposits:
        process, filler = processes().get(each.process or ""), _filler(each.filler)
        gases, other = gas_tokens(each.shielding_gas), "filler"
        if process is None or not gases:
            continue
        text = ""
        if process.electrode == "stick" and gases - {NO_GAS}:
            text, other = f"{each.process} takes no shielding gas, but {each.shielding_gas} is stated", "process"
        elif process.electrode == "wire" and process.shield == "either" and filler is not None:
            alone = filler.shielding.startswith(NO_GAS)
            if alone and gases - {NO_GAS}:
                text = f"{filler.classification} shields itself, but {each.shielding_gas} is stated"
            elif not alone and NO_GAS in gases:
                text = f"{filler.classification} needs a shielding gas, but none is stated"
        if text:
            leaves = (f"deposits/{each.id}/{other}", f"deposits/{each.id}/shielding_gas")
            yield Clash(leaves, frozenset(("shielding_gas",)), text, each.id)


def transfers(said: Said) -> Iterator[Clash]:
    """Yield a transfer that the gas bars, or that is not that of the current: a spray under it, another over it."""
    for each in said.document.deposits:
        home, mode = f"deposits/{each.id}", each.transfer_mode
        process = processes().get(each.process or "")
        if mode is None or process is None or process.electrode != "wire":
            continue
        size = each.filler_diameter_mm.low if isinstance(each.filler_diameter_mm, Interval) else each.filler_diameter_mm
        begins = transition_of_wire(each.process, each.filler, size, each.shielding_gas)
        barred = mode == "spray" and begins is not None and begins.between is None
        if barred or (mode in SPRAYED and "CO2" in gas_tokens(each.shielding_gas)):
            text = f"metal does not cross the arc as {mode} under {each.shielding_gas}"
            yield Clash(
                (f"{home}/transfer_mode", f"{home}/shielding_gas"), frozenset(("transfer_mode",)), text, each.id
            )
        elif begins is not None and begins.between is not None and mode in NOT_PULSED:
            odd = "under" if mode == "spray" else "spray"
            for leaf, current, _ in _settings(said, each.id):
                if transfer(current, begins, transitions().near) == odd:
                    amps = show_interval(current, "current", said.system, unit_table())
                    from_a = show(begins.between.low, "current", said.system, unit_table())
                    text = f"{mode} is stated, but spray begins near {from_a} and {amps} is set"
                    leaves = (f"{home}/transfer_mode", leaf)
                    yield Clash(leaves, frozenset(("transfer_mode",)), text, each.id)
                    break


def windows_of_transfers(said: Said) -> Iterator[Clash]:
    """Yield a transfer that is neither at the current nor at the volts which are set, where another one is at both.

    Of aluminium the windows of the table are others.
    """
    windows = {row.id: row for row in catalogue().process_limits}
    for each in said.document.deposits:
        mode, filler = each.transfer_mode or "", _filler(each.filler)
        own, other = (windows.get(f"{each.process}-{name}") for name in (mode, ANOTHER.get(mode, "")))
        if own is None or other is None or filler is None or filler.family.startswith("aluminium"):
            continue
        for leaf, current, volts in _settings(said, each.id):
            if volts is not None and _is_beside(current, volts, own) and _is_within(current, volts, other):
                amps = show_interval(current, "current", said.system, unit_table())
                at = show_interval(volts, "voltage", said.system, unit_table())
                text = f"{mode} is stated, but at {amps} and {at} metal crosses the arc as {ANOTHER[mode]}"
                leaves = (f"deposits/{each.id}/transfer_mode", leaf)
                yield Clash(leaves, frozenset(("transfer_mode",)), text, each.id)
                break


def _is_beside(current: Interval, volts: Interval, window: ProcessLimits) -> bool:
    """Return whether current and volts both lie wholly under a window, or both over it."""
    under = current.high < window.amps_min and volts.high < window.volts_min
    return under or (current.low > window.amps_max and volts.low > window.volts_max)


def _is_within(current: Interval, volts: Interval, window: ProcessLimits) -> bool:
    return (
        window.amps_min <= current.low and current.high <= window.amps_max
        and window.volts_min <= volts.low and volts.high <= window.volts_max
    )  # fmt: skip


Setting = tuple[str, Interval, Interval | None]


def _settings(said: Said, deposit: str) -> Iterator[Setting]:
    """Yield the currents of a deposit [A], each with its leaf and volts: of passes and their sectors, or as recorded.

    The volts are `None` where they are not stated.
    """
    if isinstance(said.document, Wps):
        of_it = {each.id: each for each in said.document.passes if each.deposit == deposit}
        for own in of_it.values():
            if own.current_a is not None:
                yield f"passes/{own.id}/current_a", own.current_a, own.voltage_v
        for part in said.document.sectors:
            if part.of in of_it and part.current_a is not None:
                yield f"sectors/{part.id}/current_a", part.current_a, part.voltage_v or of_it[part.of].voltage_v
    elif isinstance(said.document, Pqr):
        laid = next(each for each in said.document.deposits if each.id == deposit)
        if laid.current_a is not None and (span := laid.current_a.span) is not None:
            yield f"deposits/{deposit}/current_a", span, laid.voltage_v.span if laid.voltage_v else None
        for read in said.document.welded:
            if read.deposit == deposit and read.current_a is not None:
                volts = Interval.single(read.voltage_v) if read.voltage_v is not None else None
                yield f"welded/{read.id}/current_a", Interval.single(read.current_a), volts
