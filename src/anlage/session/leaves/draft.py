"""A draft while it is edited: the last good value, and the texts that do not parse, where they were typed."""

from collections.abc import Mapping
from types import MappingProxyType
from typing import Any

from msgspec import Struct, field

from anlage.core.errors import AnlageError, InputError
from anlage.core.procedure import Wps, clashes
from anlage.core.quantities.units import System
from anlage.session.leaves.bounds import beyond
from anlage.session.leaves.marks import after_edit
from anlage.session.leaves.presence import has_leaf
from anlage.session.leaves.table import PARTS, RECORDED, field_of
from anlage.session.leaves.text import shown, with_leaf_of, with_number, with_text

_NONE: Mapping[str, str] = MappingProxyType({})


class Working(Struct, frozen=True):
    """One step of an edited document, a procedure or a record; undo goes back to the very value of the step before."""

    value: Any
    pending: Mapping[str, str] = field(default_factory=lambda: _NONE)


def typed(working: Working, path: str, text: str, system: System, entered: Working | None = None) -> Working:
    """Return the draft after a text was typed into the field of a leaf: taken over, or kept as it is when it cannot be.

    The very same draft comes back when nothing differs.

    Parameters
    ----------
    entered : the draft when the field was entered: what stands there when the text is none is what stood there then,
        not the beginning of the text
    """
    try:
        wps = with_text(working.value, path, text, system)
    except AnlageError:
        value = working.value if entered is None else with_leaf_of(working.value, entered.value, path)
        if working.pending.get(path) == text and value is working.value:
            return working
        return Working(value, MappingProxyType({**working.pending, path: text}))
    return _retried(_cleared(working, path, wps), path, system)


def _retried(working: Working, path: str, system: System) -> Working:
    """Return the draft with the texts taken over that waited for a leaf.

    Tolerances wait for their dimension, least and most of a recorded quantity for one that is in order with them.
    """
    parent, _, part = path.rpartition("/")
    together = parent if part in RECORDED else path
    for other, text in working.pending.items():
        if other != path and other.rpartition("/")[0] == together:
            try:
                working = _cleared(working, other, with_text(working.value, other, text, system))
            except AnlageError:
                continue
    return working


def moved(working: Working, path: str, number: float) -> Working:
    """Return the draft after a handle was dragged to a number; where that cannot be, the draft as it was."""
    try:
        wps = with_number(working.value, path, number)
    except InputError:
        return working
    return _cleared(working, path, wps)


def changed_to(working: Working, wps: Wps) -> Working:
    """Return the draft with another value; pending texts of leaves that are gone go with them."""
    if wps is working.value:
        return working
    wps = after_edit(working.value, wps)
    kept = {path: text for path, text in working.pending.items() if has_leaf(wps, path)}
    return Working(wps, MappingProxyType(kept))


def within_bounds(value: Any) -> tuple[Any, Mapping[str, str]]:
    """Return a document without the numbers that its leaves cannot be at all, and those as texts that wait, by leaf.

    What else goes with such a number, the tolerance of a dimension or the least and most of a recorded one, waits too.
    """
    waiting: dict[str, str] = {}
    for path in beyond(value):
        parent, _, part = path.rpartition("/")
        together = [f"{parent}/{each}" for each in RECORDED] if part in RECORDED else [path]
        if field_of(path).shape == "dimension" and part not in PARTS:
            together += [f"{path}/minus", f"{path}/plus"]
        for own in together:
            if text := shown(value, own, "si"):
                waiting[own] = f"{text} {field_of(own).unit('si')}".strip()
        value = with_text(value, path, "", "si")
    return value, MappingProxyType(waiting)


def _cleared(working: Working, path: str, wps: Wps) -> Working:
    if wps is working.value and path not in working.pending:
        return working
    wps = after_edit(working.value, wps)
    return Working(wps, MappingProxyType({p: text for p, text in working.pending.items() if p != path}))


def text_in(working: Working, path: str, system: System) -> str:
    """Return what stands in a field: the text that waits there, else the stated value; "" when the leaf is gone."""
    if not has_leaf(working.value, path):
        return ""
    return working.pending.get(path, "") or shown(working.value, path, system)


def complaints(working: Working, system: System) -> dict[str, AnlageError]:
    """Return what is wrong, by leaf: texts that were not taken over, and values that are impossible together."""
    waiting = {path: complaint(working.value, path, text, system) for path, text in working.pending.items()}
    joint = getattr(working.value, "joint", None)
    return {**(clashes(joint) if joint is not None else {}), **waiting}


def complaint(wps: Wps, path: str, text: str, system: System) -> AnlageError:
    """Return why a text that waits in a field is not taken over."""
    try:
        with_text(wps, path, text, system)
    except AnlageError as fault:
        return fault
    return InputError(f"{text} is not taken over yet", where=path, mend="type it again, or step back")
