"""The heat scale of a document: one for all its pictures, so that one colour is one energy everywhere."""

from anlage.core.document import kept
from anlage.core.procedure import Wps, pass_energy
from anlage.session.seam.sectors import sector_energy


@kept
def heat_span(wps: Wps) -> tuple[float, float] | None:
    """Return the coldest and hottest arc energy of all passes and sectors [kJ/mm]; `None` while none is known."""
    known = [pass_energy(each) for each in wps.passes] + [sector_energy(wps, each) for each in wps.sectors]
    energies = [energy.interval for energy in known if energy is not None]
    if not energies:
        return None
    return min(each.low for each in energies), max(each.high for each in energies)
