"""What differs between two drafts or revisions of a procedure, leaf by leaf, in words."""

from collections.abc import Iterator, Sequence
from typing import Any

from anlage.core.errors import AnlageError
from anlage.core.quantities.units import System
from anlage.session.leaves.difference import NONE, Difference
from anlage.session.leaves.names import named
from anlage.session.leaves.presence import has_leaf
from anlage.session.leaves.table import LISTS, PARTS, RECORDED, field_of, fields
from anlage.session.leaves.text import leaf_value, shown

WORDS = {"passes": "Pass", "deposits": "Deposit", "hold_points": "Hold point", "members": "Member", "tacks": "Tack",
         "stations": "Station", "sectors": "Sector", "readings": "Reading", "results": "Test",
         "welded": "Pass as read", "pieces": "Test piece"}  # fmt: skip


def differences(left: Any, right: Any, system: System) -> tuple[Difference, ...]:
    """Return what differs, in the order in which leaves are listed; an element that one side lacks is one line."""
    return tuple(_differing(left, right, system))


def _differing(left: Any, right: Any, system: System) -> Iterator[Difference]:
    for pattern in fields():
        head, is_listed, rest = pattern.partition("/*/")
        if not is_listed:
            yield from _leaf(left, right, pattern, system)
            continue
        if head not in LISTS or not hasattr(left, head):
            continue
        both = [each.id for each in getattr(left, head) if each.id in {one.id for one in getattr(right, head)}]
        for element in both:
            yield from _leaf(left, right, f"{head}/{element}/{rest}", system)
    for head in LISTS:
        if hasattr(left, head):
            yield from _elements(getattr(left, head), getattr(right, head), head)


def _leaf(left: Any, right: Any, path: str, system: System) -> Iterator[Difference]:
    if not has_leaf(left, path) or not has_leaf(right, path):
        return
    parts = [""]
    shape = field_of(path).shape
    if shape == "dimension":
        parts += [f"/{part}" for part in PARTS[:2]]
    elif shape == "recorded":
        parts = [f"/{part}" for part in RECORDED]
    for part in parts:
        own = f"{path}{part}"
        try:
            one, other = leaf_value(left, own), leaf_value(right, own)
        except AnlageError:
            continue
        if (one if part or shape != "dimension" else _nominal(one)) == (
            other if part or shape != "dimension" else _nominal(other)
        ):
            continue
        texts = [_said(value, own, system) for value in (left, right)]
        if texts[0] == texts[1]:
            texts = [f"{text}, by less than is shown" for text in texts]
        yield Difference(named(right, own), *texts)


def _nominal(value: Any) -> Any:
    return getattr(value, "nominal", value)


def _said(value: Any, path: str, system: System) -> str:
    text, field = shown(value, path, system), field_of(path)
    return f"{field.say(text)} {field.unit(system)}".strip() if text else NONE


def _elements(left: Sequence[Any], right: Sequence[Any], head: str) -> Iterator[Difference]:
    one, other = ([each.id for each in side] for side in (left, right))
    for number, own in enumerate(one, 1):
        if own not in other:
            yield Difference(f"{WORDS[head]} {number}", "there", NONE)
    for number, own in enumerate(other, 1):
        if own not in one:
            yield Difference(f"{WORDS[head]} {number}", NONE, "there")
    kept = ([own for own in one if own in other], [own for own in other if own in one])
    if kept[0] != kept[1]:
        yield Difference(f"Order of the {head}", *(", ".join(str(one.index(own) + 1) for own in side) for side in kept))
