"""Thermal efficiency k of the processes: what turns arc energy into heat input."""

import tomllib
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Efficiency:
    """k of one process by its ISO 4063 number; `k` is `None` where the standard does not name the process."""

    iso_4063: str
    process: str
    k: float | None
    source: str
    confidence: str


def read_efficiencies(text: str) -> tuple[Efficiency, ...]:
    """Return the rows written in `text` (TOML), in their order."""
    rows = tomllib.loads(text)["row"]
    return tuple(Efficiency(r["iso_4063"], r["process"], r.get("k"), r["source"], r["confidence"]) for r in rows)


def thermal_efficiency(word: str, process: str, table: tuple[Efficiency, ...]) -> Efficiency | None:
    """Return the row of a process: by the ISO number when the word is one, else the first of its AWS process.

    Parameters
    ----------
    word : the process as stated, such as `TIG` or `142`
    process : the canonical token it means, such as `GTAW`
    table : from `read_efficiencies`

    Examples
    --------
    >>> from anlage.data.tables import efficiencies
    >>> thermal_efficiency("TIG", "GTAW", efficiencies()).k, thermal_efficiency("142", "GTAW", efficiencies()).k
    (0.6, None)
    """
    by_number = next((row for row in table if row.iso_4063 == word.strip()), None)
    return by_number or next((row for row in table if row.process == process), None)
