"""Sets as people read them: numbers with their unit in one system, tokens as words."""

from collections.abc import Iterable
from functools import cache

from anlage.core.quantities import show, show_interval
from anlage.core.quantities.show import THIN_SPACE
from anlage.core.quantities.units import System
from anlage.core.ranges import Choices, GradedEnd, Interval, Numbers, Pairs, Range, ends_of, is_any, is_none
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
    if isinstance(values, Numbers):
        return _numbers_text(variable, values, system, finer=finer)
    if isinstance(values, Pairs):
        boxes = (" with ".join(_end_text(variable, end, system) for end in box) for box in values.boxes)
        return "; ".join((*boxes, *(_word(variable, token, system) for token in sorted(values.tokens))))
    if isinstance(values, Choices):
        words = [_word(variable, token, system) for token in sorted(values.tokens)]
        tokens = ("; " if any("," in word for word in words) else ", ").join(words)
        return f"any but {tokens}" if values.but else tokens
    return str(values)


def _numbers_text(variable: str, values: Numbers, system: System, *, finer: bool) -> str:
    kind = kind_of(variable)
    if variable == SIZE and not any(p.low_open or p.high_open for p in values.parts):
        unit = unit_table()[kind].shown_in[system][0].name
        return " or ".join(f"{size_text(part, system)}{THIN_SPACE}{unit}" for part in values.parts)
    if kind:
        return " or ".join(show_interval(part, kind, system, unit_table(), finer=finer) for part in values.parts)
    return " or ".join(_plain(part) for part in values.parts)


def _word(variable: str, token: str, system: System) -> str:
    """Return a word for people; of a pair with grades both ends with their number and unit."""
    row, ends = variables().get(variable), ends_of(token)
    if row is None or not row.grade or ends is None:
        return word_of(variable, token)
    return " with ".join(f"{group} at {show(grade, row.grade, system, unit_table())}" for group, grade in ends)


def _end_text(variable: str, end: GradedEnd, system: System) -> str:
    groups = _subgroups(end.groups)
    named = (f"any but {groups}" if groups else "any") if end.but else groups
    row = variables().get(variable)
    if row is None or not row.grade or end.most == float("inf"):
        return named
    return f"{named} up to {show(end.most, row.grade, system, unit_table())}"


def _subgroups(groups: Iterable[str]) -> str:
    """Return subgroups in the order of their numbers, three and more in a row by the first and the last.

    Examples
    --------
    >>> _subgroups({"1.1", "1.2", "1.4", "1.3", "2.1", "2.2", "10.1"})
    '1.1 to 1.4, 2.1, 2.2, 10.1'
    """
    rows: list[list[str]] = []
    for group in sorted(groups, key=_numbered):
        whole, part = _numbered(group)[:2]
        if rows and part > 0 and _numbered(rows[-1][-1])[:2] == (whole, part - 1):
            rows[-1].append(group)
        else:
            rows.append([group])
    return ", ".join(f"{row[0]} to {row[-1]}" if len(row) > 2 else ", ".join(row) for row in rows)


def _numbered(group: str) -> tuple[int, int, str]:
    whole, _, part = group.partition(".")
    return int(whole) if whole.isdigit() else 0, int(part) if part.isdigit() else 0, group


def _plain(part: Interval) -> str:
    """Return an interval of plain numbers: counts and ratios."""
    if part.is_single:
        return f"{part.low:g}"
    if part.high == float("inf"):
        return f"{'>' if part.low_open else '≥'} {part.low:g}"
    if part.low == float("-inf"):
        return f"{'<' if part.high_open else '≤'} {part.high:g}"
    return f"{part.low:g}..{part.high:g}"
