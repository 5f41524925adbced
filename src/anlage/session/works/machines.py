"""What the machines of a works file prove; a reading that is being typed over, or is not whole, proves nothing."""

from anlage.core.document import with_
from anlage.core.machine import Calibrated, Machine
from anlage.core.procedure import Wps
from anlage.session.seam.dials import known_machines
from anlage.session.works.filed import Opened


def as_known(read: Opened) -> Machine:
    """Return a machine with the readings that may prove something.

    Of one that had to be mended none does, for what was left out of it may be what says otherwise; of any other those
    in which no text waits.
    """
    working, notices = read
    machine: Machine = working.value
    if notices:
        return with_(machine, readings=())
    typed = {path.split("/")[1] for path in working.pending if path.startswith("readings/")}
    return with_(machine, readings=tuple(each for each in machine.readings if each.id not in typed))


def brought(wps: Wps, works: Calibrated) -> tuple[Wps, tuple[Machine, ...]]:
    """Return a procedure without the readings of machines that the works has not yet, and those machines with them."""
    known = {each.header.number for each in works.machines}
    found = [each for each in known_machines(wps, works).machines if each.header.number not in known]
    new = tuple(each for each in found if each.header.number)
    taken = {each.header.number for each in new}
    return with_(wps, readings=tuple(each for each in wps.readings if (each.machine or "") not in taken)), new
