"""What a deposit can say twice of its electrode: its gas, its polarity, and how its metal crosses the arc."""

from collections.abc import Iterator

from anlage.core.catalogue import Filler
from anlage.core.procedure import Wps
from anlage.core.proposal.transition import transfer
from anlage.core.quantities import show, show_interval
from anlage.core.ranges import Interval
from anlage.core.record import Pqr
from anlage.data.tables import catalogue, processes, unit_table
from anlage.data.transition_table import transition_of_wire, transitions
from anlage.session.judging.clashes.clash import Clash, Said
from anlage.session.judging.metals import is_known_filler, is_without
from anlage.session.leaves.gases import NONE as NO_GAS
from anlage.session.leaves.gases import gas_tokens

SPRAYED = ("spray", "pulsed")


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
    """Yield a transfer that the gas bars, or that is not the one of the current: a spray under it, a short over it."""
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
        elif begins is not None and begins.between is not None and mode in ("spray", "short"):
            odd = "under" if mode == "spray" else "spray"
            for leaf, current in _currents(said, each.id):
                if transfer(current, begins, transitions().near) == odd:
                    amps = show_interval(current, "current", said.system, unit_table())
                    from_a = show(begins.between.low, "current", said.system, unit_table())
                    text = f"{mode} is stated, but spray begins near {from_a} and {amps} is set"
                    leaves = (f"{home}/transfer_mode", leaf)
                    yield Clash(leaves, frozenset(("transfer_mode",)), text, each.id)
                    break


def _currents(said: Said, deposit: str) -> Iterator[tuple[str, Interval]]:
    """Yield the currents of a deposit [A] with their leaves: of its passes and their sectors, or as recorded."""
    if isinstance(said.document, Wps):
        of_it = {each.id for each in said.document.passes if each.deposit == deposit}
        for each in said.document.passes:
            if each.id in of_it and each.current_a is not None:
                yield f"passes/{each.id}/current_a", each.current_a
        for part in said.document.sectors:
            if part.of in of_it and part.current_a is not None:
                yield f"sectors/{part.id}/current_a", part.current_a
    elif isinstance(said.document, Pqr):
        recorded = next(each.current_a for each in said.document.deposits if each.id == deposit)
        if recorded is not None and (span := recorded.span) is not None:
            yield f"deposits/{deposit}/current_a", span
        for read in said.document.welded:
            if read.deposit == deposit and read.current_a is not None:
                yield f"welded/{read.id}/current_a", Interval.single(read.current_a)
