"""Which specimens a code asks of a coupon, and whether the results at hand show them passed."""

from collections import Counter
from collections.abc import Iterable, Mapping

from msgspec import Struct

from anlage.core.codes.conditions import Condition, concern
from anlage.core.codes.facts import Facts
from anlage.core.quantities.units import System
from anlage.core.variables import spoken


class Specimens(Struct, frozen=True, kw_only=True):
    """One row: for which coupons it holds, and the sets of specimens of which one suffices, counted by kind."""

    id: str
    clause: str
    confidence: str
    when: tuple[Condition, ...]
    any_of: tuple[Mapping[str, int], ...]


def lacking(rows: Iterable[Specimens], facts: Facts, units: System, passed: Counter[str]) -> tuple[str, ...]:
    """Return what is missing until a coupon is shown to have passed, one part of a sentence each; () when nothing is.

    Parameters
    ----------
    rows : of the code; those that hold for the coupon must all be met
    facts : of the coupon
    units : the column that limits are judged in
    passed : passed specimens by kind

    Returns
    -------
    tuple : also what stands against knowing which rows hold; a coupon for which no row holds lacks a row
    """
    found: list[str] = []
    held = False
    for row in rows:
        concerned = concern(row.when, (), facts, units)
        if concerned.applies is False:
            continue
        held = True
        if concerned.applies is None:
            plain = f"{spoken(concerned.missing)} is not recorded, on which the specimens hang"
            found.append(facts.clashes.get(concerned.missing, plain))
        elif not any(_met(each, passed) for each in row.any_of):
            found.append(_missing(min(row.any_of, key=lambda each: sum(_short(each, passed).values())), passed, row))
    return tuple(dict.fromkeys(found)) if held else ("the code pack does not say which specimens such a coupon needs",)


def _met(wanted: Mapping[str, int], passed: Counter[str]) -> bool:
    return all(passed[kind] >= count for kind, count in wanted.items())


def _short(wanted: Mapping[str, int], passed: Counter[str]) -> dict[str, int]:
    return {kind: count - passed[kind] for kind, count in wanted.items() if passed[kind] < count}


def _missing(wanted: Mapping[str, int], passed: Counter[str], row: Specimens) -> str:
    parts = [f"{count} {kind}{'s' if count > 1 else ''}" for kind, count in _short(wanted, passed).items()]
    return f"{' and '.join(parts)} of {row.clause} not recorded as passed"
