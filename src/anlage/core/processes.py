"""The arc processes, a row each: words, numbers, what is consumed, efficiencies, and how drawings tell them apart."""

from collections.abc import Mapping
from typing import Literal

import msgspec

from anlage.core.toml_rows import rows_by_id


class Efficiency(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """k of one process by its ISO 4063 number; `k` is `None` where the standard does not name the process."""

    iso_4063: str
    source: str
    confidence: str
    k: float | None = None


class Number(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """An ISO 4063 number that a process has under some gases and with some forms of filler; any where none is named."""

    iso_4063: str
    gas: tuple[str, ...] = ()
    form: tuple[str, ...] = ()


class Deposition(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Deposition efficiency of a process, and how much of its wire's section is metal."""

    efficiency: tuple[float, float]
    confidence: str
    fill: float = 1.0
    note: str = ""

    @property
    def middle(self) -> float:
        """The efficiency that is worked with."""
        return sum(self.efficiency) / 2


class Process(msgspec.Struct, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """One process.

    `shield` is what keeps the air off: a gas that is led to it, its own covering, core or flux, or either of them.
    `electrode` is what carries the arc: a covered stick that is consumed and is its own filler, a wire fed from a
    spool, a tungsten that is not consumed. `hand_fed` says that filler comes as rods led by hand, `without_filler` that
    the edges may be fused alone.
    """

    id: str
    words: tuple[str, ...]
    iso_4063: tuple[str, ...]
    electrode: Literal["stick", "wire", "tungsten"]
    hatch_deg: tuple[float, ...]
    hatch: str
    shield: Literal["gas", "own", "either"] = "gas"
    hand_fed: bool = False
    without_filler: bool = False
    deposition: Deposition | None = None
    k: tuple[Efficiency, ...] = ()
    numbers: tuple[Number, ...] = ()

    @property
    def is_open_wire(self) -> bool:
        """Whether a wire crosses the arc under a gas, in drops, spray or short circuits."""
        return self.electrode == "wire" and self.shield == "gas"

    def numbers_for(self, gas: str, form: str) -> tuple[str, ...]:
        """Return the ISO 4063 numbers that the process may have.

        Parameters
        ----------
        gas : `inert`, `reducing`, `active` or `none`; "" where nobody says
        form : of the filler, `solid`, `cored`, `strip` or `none`; "" where nobody says
        """
        return tuple(
            row.iso_4063
            for row in self.numbers
            if gas in row.gas or not gas or not row.gas
            if form in row.form or not form or not row.form
        )


Processes = Mapping[str, Process]


def of_sticks(processes: Processes) -> str:
    """Return the process of covered electrodes.

    Examples
    --------
    >>> from anlage.data.tables import processes
    >>> of_sticks(processes())
    'SMAW'
    """
    return next(row.id for row in processes.values() if row.electrode == "stick")


def read_processes(text: str, *, where: str = "processes.toml") -> Processes:
    """Return the processes written in `text` (TOML) by their id.

    Raises
    ------
    FormatError : a row is not what a process is, or a process comes twice
    """
    return rows_by_id(text, "process", Process, where=where)


def thermal_efficiency(word: str, process: str, processes: Processes) -> Efficiency | None:
    """Return the efficiency of a process: by the ISO number when the word is one, else the first of its AWS process.

    Parameters
    ----------
    word : the process as stated, such as `TIG` or `142`
    process : the canonical token it means, such as `GTAW`
    processes : from `read_processes`

    Examples
    --------
    >>> from anlage.data.tables import processes
    >>> thermal_efficiency("TIG", "GTAW", processes()).k, thermal_efficiency("142", "GTAW", processes()).k
    (0.6, None)
    """
    rows = [row for each in processes.values() for row in each.k]
    by_number = next((row for row in rows if row.iso_4063 == word.strip()), None)
    own = processes[process].k if process in processes else ()
    return by_number or next(iter(own), None)
