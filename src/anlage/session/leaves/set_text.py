"""Sets as people read them: numbers with their unit in one system, tokens as words."""

from functools import cache

from anlage.core.quantities import show_interval
from anlage.core.quantities.show import THIN_SPACE
from anlage.core.quantities.units import System
from anlage.core.ranges import Choices, Interval, Numbers, Range, is_any, is_none
from anlage.data.tables import unit_table, variables
from anlage.session.leaves.size_text import size_text
from anlage.session.leaves.table import fields

SIZE = "filler_diameter_mm"  # a size of the trade, under two names


@cache
def kind_of(name: str) -> str:
    """Return the kind of quantity of a variable or result, "" when it is none: by its unit ending, else by the table.

    Examples
    --------
    >>> kind_of("base_metal_thickness_mm"), kind_of("amps"), kind_of("p_number"), kind_of("bead_area_mm2")
    ('length', 'current', '', 'area')
    """
    kinds = unit_table().items()
    endings = sorted(((end, kind) for kind, row in kinds for end in row.endings), key=lambda each: -len(each[0]))
    ended = next((kind for end, kind in endings if name.endswith(end)), "")
    return ended or (variables()[name].kind if name in variables() else "")


@cache
def _leaf(variable: str) -> str:
    """Return the leaf in which a variable is stated or recorded, "" for none."""
    row = variables().get(variable)
    where = row.wps or row.pqr if row else None
    return where.leaf if where is not None and where.leaf in fields() else ""


@cache
def word_of(variable: str, token: str) -> str:
    """Return how a word is written for people: as the field where it is chosen says it."""
    return fields()[_leaf(variable)].say(token) if _leaf(variable) else token


def set_text(variable: str, values: Range, system: System, *, finer: bool = False) -> str:
    """Return a set as a person reads it, in one unit system; `finer` with one more digit.

    Examples
    --------
    >>> from anlage.core.ranges import between, choices
    >>> set_text("pwht", choices("below-ltt"), "si")
    'below the lower transformation'
    """
    if is_any(values):
        return "any"
    if is_none(values):
        return "nothing"
    kind = kind_of(variable)
    if isinstance(values, Numbers) and variable == SIZE and not any(p.low_open or p.high_open for p in values.parts):
        unit = unit_table()[kind].shown_in[system][0].name
        return " or ".join(f"{size_text(part, system)}{THIN_SPACE}{unit}" for part in values.parts)
    if isinstance(values, Numbers) and kind:
        return " or ".join(show_interval(part, kind, system, unit_table(), finer=finer) for part in values.parts)
    if isinstance(values, Choices):
        words = [word_of(variable, token) for token in sorted(values.tokens)]
        tokens = ("; " if any("," in word for word in words) else ", ").join(words)
        return f"any but {tokens}" if values.but else tokens
    return " or ".join(_plain(part) for part in values.parts) if isinstance(values, Numbers) else str(values)


def _plain(part: Interval) -> str:
    """Return an interval of plain numbers: counts and ratios."""
    if part.is_single:
        return f"{part.low:g}"
    if part.high == float("inf"):
        return f"{'>' if part.low_open else '≥'} {part.low:g}"
    if part.low == float("-inf"):
        return f"{'<' if part.high_open else '≤'} {part.high:g}"
    return f"{part.low:g}..{part.high:g}"
