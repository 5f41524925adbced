"""Boxes: one set per variable, and the exact question whether several boxes together cover one."""

from collections.abc import Iterable, Mapping, Sequence

from anlage.core.ranges.sets import ANY, Range, is_none, loosened, without

Box = Mapping[str, Range]  # a variable that is not named is unlimited

MOST_AXES = 3  # DESIGN: records combine over at most three variables; subtraction grows with every axis


def uncovered(target: Box, boxes: Iterable[Box], axes: Sequence[str]) -> list[dict[str, Range]]:
    """Return what of `target` no box covers, as disjoint boxes over `axes`; an empty list means covered.

    The subtraction is exact. Ends of `boxes` are read as `loosened`, so that 1.1 × 13 mm covers 14.3 mm.

    Parameters
    ----------
    target : the stated set of every axis
    boxes : what each record allows, by axis
    axes : the variables over which the union is taken, at most three

    Examples
    --------
    >>> from anlage.core.ranges.sets import between
    >>> left, right = {"t": between(0, 5)}, {"t": between(8, None)}
    >>> [f"{piece['t']}" for piece in uncovered({"t": between(2, 9)}, [left, right], ["t"])]
    ['(5, 7.99999)']
    """
    assert len(axes) <= MOST_AXES, f"records combine over at most {MOST_AXES} variables"
    remaining = [{axis: target[axis] for axis in axes}]
    if any(is_none(target[axis]) for axis in axes):
        return []
    for box in boxes:
        loose = {axis: loosened(box.get(axis, ANY)) for axis in axes}
        remaining = [piece for part in remaining for piece in _minus(part, loose, axes)]
    return remaining


def _minus(part: dict[str, Range], box: Box, axes: Sequence[str]) -> Iterable[dict[str, Range]]:
    inner = dict(part)
    for axis in axes:
        outside = without(inner[axis], box[axis])
        if not is_none(outside):
            yield {**inner, axis: outside}
        inner[axis] = inner[axis] & box[axis]
        if is_none(inner[axis]):
            return
