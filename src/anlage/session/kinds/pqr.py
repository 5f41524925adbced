"""Records as a kind of document."""

from anlage.core.procedure import Header
from anlage.core.record import PQR, Pqr
from anlage.session.kinds.kind import Kind

RECORD = Kind(
    id="pqr",
    word="record",
    core=PQR,
    first_number="PQR-001",
    first_place="proof",
    letter="R",
    new=lambda number: Pqr(header=Header(number=number)),
    row="anlage.session.works.register:record_row",
    state="anlage.session.works.register:record_state",
)
