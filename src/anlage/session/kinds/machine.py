"""Power sources as a kind of document."""

from anlage.core.machine import MACHINE, Machine, MachineHeader
from anlage.session.kinds.kind import Kind

SOURCE = Kind(
    id="machine",
    word="machine",
    core=MACHINE,
    first_number="M-1",
    first_place="machine",
    letter="M",
    new=lambda number: Machine(header=MachineHeader(number=number)),
    row="anlage.session.works.register:machine_row",
    state="anlage.session.works.register:machine_state",
)
