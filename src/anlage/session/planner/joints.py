"""Joints that coupons are planned for: rows of a table, or procedures as they are."""

from collections.abc import Iterable, Mapping, Sequence

from msgspec import Struct

from anlage.core.document import with_at
from anlage.core.errors import AnlageError, InputError
from anlage.core.procedure import Wps, with_deposit
from anlage.core.quantities.units import System
from anlage.session.leaves.text import with_text

LEAVES = {
    "base": "metals/one/name", "base2": "metals/other/name", "product": "joint/product",
    "thickness": "range/thickness_mm", "od": "range/diameter_mm", "position": "technique/position",
    "impact": "header/impact", "pwht": "pwht/kind", "weld": "header/weld",
}  # fmt: skip
COLUMNS = ("name", *LEAVES, "process", "filler")
MOST = 2000  # joints in one plan; own choice


class Joint(Struct, frozen=True):
    """One joint to be covered: what it is called, and what is stated of it as a procedure."""

    name: str
    wps: Wps


def joints_of(rows: Sequence[Mapping[str, str]], system: System = "si") -> tuple[Joint, ...]:
    """Return the joints of a table, a row each; what a cell does not say is not asked for.

    Parameters
    ----------
    rows : cells by the name of their column
    system : of numbers without a unit

    Raises
    ------
    InputError : a cell cannot be read, or a column is none of a joint: with its row
    """
    if len(rows) > MOST:
        raise InputError(f"{len(rows)} joints are more than {MOST}", where="joints", mend="plan in parts")
    known = set(COLUMNS)
    unknown = sorted({column for row in rows for column in row if column and column not in known})
    if unknown:
        raise InputError(
            f"{', '.join(unknown)} is no column of a joint", where="joints", mend=f"take {' '.join(COLUMNS)}"
        )
    found = []
    for number, row in enumerate(rows, 1):
        try:
            found.append(_joint(row, number, system))
        except AnlageError as fault:
            raise InputError(fault.what, where=f"row {number}", mend=fault.mend) from fault
    return tuple(found)


def _joint(row: Mapping[str, str], number: int, system: System) -> Joint:
    cells = {column: text.strip() for column, text in row.items() if text and text.strip()}
    wps = with_at(Wps(), "header/units", system)
    for column, leaf in LEAVES.items():
        if column in cells:
            wps = with_text(wps, leaf, cells[column], system)
    if wps.range.thickness_mm is None:
        raise InputError("no thickness is stated", where="thickness", mend="state it as 8..16mm")
    if wps.metals.one.name is None:
        raise InputError("no base metal is stated", where="base", mend="name it as the catalogue does")
    if wps.joint.product is None and wps.range.diameter_mm is not None:
        wps = with_text(wps, "joint/product", "pipe", system)
    wps = _with_deposits(wps, cells, system)
    if len(wps.deposits) == 1 and wps.header.weld == "groove":  # it lays the whole thickness
        wps = with_at(wps, f"deposits/{wps.deposits[0].id}/thickness_mm", wps.range.thickness_mm)
    return Joint(cells.get("name", "") or f"row {number}", wps)


def _with_deposits(wps: Wps, cells: Mapping[str, str], system: System) -> Wps:
    processes, fillers = (
        [part.strip() for part in cells.get(column, "").split(",") if part.strip()] for column in ("process", "filler")
    )
    if not processes:
        raise InputError("no process is stated", where="process", mend="state it, GTAW,SMAW for two")
    if len(fillers) not in (0, 1, len(processes)):
        what = f"{len(fillers)} fillers for {len(processes)} processes"
        raise InputError(what, where="filler", mend="state one for all, or one for each")
    for place, process in enumerate(processes):
        wps, own = with_deposit(wps)
        wps = with_text(wps, f"deposits/{own}/process", process, system)
        if fillers:
            wps = with_text(wps, f"deposits/{own}/filler", fillers[place if len(fillers) > 1 else 0], system)
    return wps


def joints_of_procedures(found: Iterable[Wps]) -> tuple[Joint, ...]:
    """Return procedures as joints to be covered; one without thickness or process is left out: it asks for nothing."""
    return tuple(
        Joint(each.header.number or "procedure", each)
        for each in found
        if each.range.thickness_mm is not None and each.deposits and all(one.process for one in each.deposits)
    )
