"""How results are called and written in a table."""

from anlage.core.ranges import Interval
from anlage.session.keyed.answer import shown


def label_of(name: str) -> str:
    """Return how a result is called in a table: its key without the unit."""
    for ending in ("_mm2", "_mm", "_kg_m", "_kg_h", "_kg", "_min"):
        name = name.removesuffix(ending)
    return name.replace("_", " ")


def metal_text(name: str, value: Interval | None) -> str:
    """Return a result with its unit; masses of weld metal to the gram."""
    unit = {"_kg_m": "kg/m", "_kg_h": "kg/h"}.get(name[-5:], "kg" if name.endswith("_kg") else "")
    if not unit or value is None:
        return shown(name, value)
    return f"{'..'.join(dict.fromkeys(f'{end:.3f}' for end in (value.low, value.high)))} {unit}"


def minutes_text(value: Interval | None) -> str:
    """Return a time in minutes."""
    return shown("_min", value) + ("" if value is None else " min")
