"""Sets as people read them: numbers with their unit in one system, tokens as words."""

from anlage.core.quantities import show_interval
from anlage.core.quantities.units import System
from anlage.core.ranges import Choices, Numbers, Range, is_any, is_none
from anlage.data.tables import unit_table

KINDS = {
    "_kj_mm": "heat_input", "_mm_min": "speed", "_mm2": "area", "_mm": "length", "_c": "temperature",
    "_l_min": "flow", "_s": "time", "_deg": "angle",
}  # fmt: skip
BY_NAME = {"amps": "current", "volts": "voltage", "cup_size": "length"}


def kind_of(variable: str) -> str:
    """Return the kind of quantity of a variable, "" when it is none.

    Examples
    --------
    >>> kind_of("base_metal_thickness_mm"), kind_of("amps"), kind_of("p_number")
    ('length', 'current', '')
    """
    return BY_NAME.get(variable) or next((kind for ending, kind in KINDS.items() if variable.endswith(ending)), "")


def set_text(variable: str, values: Range, system: System) -> str:
    """Return a set as a person reads it, in one unit system.

    Examples
    --------
    >>> from anlage.core.ranges import between, choices
    >>> set_text("pwht", choices("none"), "si")
    'none'
    """
    if is_any(values):
        return "any"
    if is_none(values):
        return "nothing"
    kind = kind_of(variable)
    if isinstance(values, Numbers) and kind:
        return " or ".join(show_interval(part, kind, system, unit_table()) for part in values.parts)
    if isinstance(values, Choices):
        tokens = ", ".join(sorted(values.tokens))
        return f"any but {tokens}" if values.but else tokens
    return str(values)
