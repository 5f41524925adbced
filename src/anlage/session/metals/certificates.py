"""Mill certificates from a table of heats: read, named for a choice, and typed into the leaf of a side."""

from pathlib import Path

from msgspec import Struct

from anlage.core.errors import InputError
from anlage.core.metal.certificate import read_certificates, written
from anlage.core.procedure import Wps
from anlage.core.quantities.units import System
from anlage.session.leaves.text import with_text


class Heat(Struct, frozen=True):
    """One certificate of a table: what it is called in a list, and its text as it is typed."""

    name: str
    text: str


class Heats(Struct, frozen=True):
    """What a table holds, and a sentence for each line that could not be read."""

    heats: tuple[Heat, ...]
    faults: tuple[str, ...]


def heats_in(path: Path) -> Heats:
    """Return the certificates of a CSV file.

    Raises
    ------
    InputError : the file cannot be read
    FormatError : its first line names no elements
    """
    try:
        text = path.read_text(encoding="utf-8-sig")
    except (OSError, UnicodeDecodeError) as fault:
        raise InputError(f"cannot be read: {fault}", where=path.name, mend="name a CSV file") from fault
    found, faults = read_certificates(text, where=path.name)
    names = (f"{n}. {each.heat or 'no heat number'}" for n, each in enumerate(found, 1))
    return Heats(tuple(Heat(name, written(each)) for name, each in zip(names, found, strict=True)), faults)


def with_heat(wps: Wps, leaf: str, heat: Heat, system: System) -> Wps:
    """Return the procedure with a heat as the certificate of a side."""
    return with_text(wps, leaf, heat.text, system)
