"""What a number field can be at all: beyond it a value is a slip of the finger or of the unit, and is refused."""

from collections.abc import Iterator, Mapping
from functools import cache
from typing import Any

import rtoml
from msgspec import Struct

from anlage.core.document import Dimension
from anlage.core.errors import InputError
from anlage.core.quantities import show
from anlage.core.ranges import Interval
from anlage.core.record import Recorded
from anlage.data.files import text_of
from anlage.data.tables import unit_table
from anlage.session.leaves.documents import SomeDocument
from anlage.session.leaves.table import LISTS, PARTS, RECORDED, field_of, fields


class Bound(Struct, frozen=True):
    """The least and the most that a field can be, in the base unit of its kind, and why."""

    least: float
    most: float
    why: str


@cache
def bounds() -> Mapping[str, Bound]:
    """Return the bound of every number field, by its pattern."""
    rows = rtoml.loads(text_of("leaves/limits.toml"))["limit"]
    found = {row.get("path") or row["kind"]: Bound(row["least"], row["most"], row["why"]) for row in rows}
    numbers = (field for field in fields().values() if field.kind)
    return {field.path: found[field.path] if field.path in found else found[field.kind] for field in numbers}


def check_bound(path: str, number: float) -> None:
    """Refuse a number that a leaf cannot be at all.

    Raises
    ------
    InputError : it is beyond what is built or welded
    """
    field = field_of(path)
    bound = bounds()[field.path]
    part = path.rpartition("/")[2]
    least = 0.0 if part in PARTS and part not in RECORDED else bound.least  # of a tolerance, which may be nothing
    if least <= number <= bound.most:
        return
    end, word = (bound.most, "at most") if number > bound.most else (least, "at least")
    said, limit = (show(each, field.kind, "si", unit_table()) for each in (number, end))
    what = f"{said} is beyond measure, {bound.why}"
    raise InputError(what, where=field.label.lower(), mend=f"state {word} {limit}, or look at the unit")


def check_bounds(path: str, value: Interval) -> None:
    """Refuse a range of which an end is beyond what a leaf can be.

    Raises
    ------
    InputError : as `check_bound`
    """
    for end in stated_ends(value):
        check_bound(path, end)


def stated_ends(value: Interval) -> tuple[float, ...]:
    """Return the ends that a range has: those that are its own."""
    ends = ((value.low, value.low_open), (value.high, value.high_open))
    return tuple(end for end, is_open in ends if not is_open)


def beyond(value: SomeDocument) -> Mapping[str, InputError]:
    """Return the leaves of a document that state what they cannot be at all, with the refusal of each."""
    found: dict[str, InputError] = {}
    for path, number in _numbers(value):
        try:
            check_bound(path, number)
        except InputError as fault:
            found.setdefault(path, fault)
    return found


def _numbers(value: SomeDocument) -> Iterator[tuple[str, float]]:
    """Yield every number that a document states, with its leaf; of a range both ends."""
    for pattern in bounds():
        head, _, rest = pattern.partition("/*/")
        if not rest:
            yield from _of_leaf(pattern, _stated(value, pattern))
        elif head in LISTS:
            for element in getattr(value, head, ()):
                yield from _of_leaf(f"{head}/{element.id}/{rest}", getattr(element, rest, None))


def _stated(value: Any, path: str) -> Any:
    for step in path.split("/"):
        value = getattr(value, step, None)
    return value


def _of_leaf(path: str, stated: Any) -> Iterator[tuple[str, float]]:
    match stated:
        case Interval():
            yield from ((path, end) for end in stated_ends(stated))
        case Dimension(nominal=nominal, minus=minus, plus=plus):
            yield from ((path, nominal), (f"{path}/minus", minus), (f"{path}/plus", plus))
        case Recorded():
            known = ((part, getattr(stated, part)) for part in RECORDED)
            yield from ((f"{path}/{part}", number) for part, number in known if number is not None)
        case bool():
            return
        case int() | float():
            yield path, stated
