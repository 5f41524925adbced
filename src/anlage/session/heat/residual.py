"""What an analysis leaves out: a steel may hold it all the same."""

from collections.abc import Iterable

from msgspec.structs import replace

from anlage.core.metal.analyses import specified_of
from anlage.data.metal_tables import residuals
from anlage.session.weld.analyses import Side


def left_out(side: Side) -> tuple[str, ...]:
    """Return which elements that harden an analysis says nothing of."""
    return () if side.analysis is None else tuple(e for e in residuals().most if e not in side.analysis.composition)


def with_residuals(side: Side) -> Side:
    """Return a side with as much of what its analysis leaves out as its specification, else any steel, may hold."""
    if side.analysis is None or not left_out(side):
        return side
    known = specified_of(side.metal) if side.metal is not None else None
    whole = {**residuals().most, **(known.composition if known else {}), **side.analysis.composition}
    return replace(side, analysis=replace(side.analysis, composition=whole))


def counted_as_none(elements: Iterable[str]) -> str:
    """Return what is taken for granted of elements that an analysis leaves out, as a part of a sentence with *if*."""
    return f"the steel holds no {'/'.join(elements)} (not analysed)"
