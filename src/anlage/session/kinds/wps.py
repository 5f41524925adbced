"""Procedures as a kind of document."""

from anlage.core.procedure import WPS, Header, Wps
from anlage.session.kinds.kind import Kind

PROCEDURE = Kind(
    id="wps",
    word="procedure",
    core=WPS,
    first_number="WPS-001",
    first_place="job",
    letter="W",
    new=lambda number: Wps(header=Header(number=number)),
    row="anlage.session.works.register:procedure_row",
)
