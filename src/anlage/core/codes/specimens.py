"""Which specimens a code asks of a coupon, and whether the results at hand show them passed."""

from collections import Counter
from collections.abc import Iterable, Mapping

from msgspec import Struct

from anlage.core.codes.conditions import Condition, concern
from anlage.core.codes.facts import Facts
from anlage.core.quantities.units import System
from anlage.core.variables import spoken


class Specimens(Struct, frozen=True, kw_only=True):
    """One row: for which coupons it holds, and the sets of specimens of which one suffices, counted by kind.

    A row that is `added` asks its one set on top of what the others ask; a row that holds stands `instead` of others.
    """

    id: str
    title: str
    clause: str
    confidence: str
    when: tuple[Condition, ...]
    any_of: tuple[Mapping[str, int], ...]
    is_added: bool = False
    instead: tuple[str, ...] = ()
    is_checked: bool = False  # by a person against the code: one of low confidence is not relied on before


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
    concerned = [(row, concern(row.when, (), facts, units)) for row in rows]
    held = [row for row, each in concerned if each.applies]
    for _, each in concerned:
        if each.applies is None:
            plain = f"{spoken(each.missing)} is not recorded, on which the specimens hang"
            found.append(facts.clashes.get(each.missing, plain))
    replaced = {other for row in held for other in row.instead}
    added = sum((Counter(row.any_of[0]) for row in held if row.is_added), Counter[str]())
    asked = [row for row in held if row.id not in replaced and not row.is_added]
    hazy = [row.clause for row in held if row.confidence == "L" and not row.is_checked]
    found += [f"the specimens of {each} are of low confidence, and nobody has checked them yet" for each in hazy]
    for row in asked:
        sets = [Counter(each) + added for each in row.any_of]
        if not any(_met(each, passed) for each in sets):
            found.append(_missing(min(sets, key=lambda each: sum(_short(each, passed).values())), passed, row))
    if not asked and not found:
        return ("the code pack does not say which specimens such a coupon needs",)
    return tuple(dict.fromkeys(found))


def _met(wanted: Mapping[str, int], passed: Counter[str]) -> bool:
    return all(passed[kind] >= count for kind, count in wanted.items())


def _short(wanted: Mapping[str, int], passed: Counter[str]) -> dict[str, int]:
    return {kind: count - passed[kind] for kind, count in wanted.items() if passed[kind] < count}


def _missing(wanted: Mapping[str, int], passed: Counter[str], row: Specimens) -> str:
    parts = [f"{count} {kind}{'s' if count > 1 else ''}" for kind, count in _short(wanted, passed).items()]
    return f"{' and '.join(parts)} of {row.clause} not recorded as passed"
