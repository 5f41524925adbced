"""The results of a record: which tests passed, by the kinds of the trade."""

from collections import Counter

from anlage.core.errors import UnknownNameError
from anlage.core.record import Pqr
from anlage.data.tables import vocabulary


def kind_of_test(text: str) -> str:
    """Return the kind of specimen that a result names; as written where nobody knows it."""
    try:
        return vocabulary().token("specimen", text)
    except UnknownNameError:
        return text.strip()


def mark_of(text: str | None) -> str:
    """Return a mark as it is compared: case and blanks do not count."""
    return "".join((text or "").casefold().split())


def passed_of(pqr: Pqr) -> Counter[str]:
    """Return how many specimens of each kind passed."""
    found: Counter[str] = Counter()
    for each in pqr.results:
        if each.passed:
            found[kind_of_test(each.kind)] += each.count
    return found


def toughness_tested(pqr: Pqr) -> bool | None:
    """Return whether impact results are there and passed; `None` where nobody says so, or two things are said."""
    if passed_of(pqr)["impact"]:
        return None if pqr.toughness_tested is False else True
    listed = any(kind_of_test(each.kind) == "impact" for each in pqr.results)
    return False if pqr.toughness_tested is False and not listed else None


def way_of_bends(pqr: Pqr) -> str | None:
    """Return which way the passed bends lie to the weld, `None` without one; transverse ones rule where both are."""
    passed = passed_of(pqr)
    if any(passed[kind] for kind in ("face bend", "root bend", "side bend")):
        return "transverse"
    along = any(passed[kind] for kind in ("longitudinal face bend", "longitudinal root bend"))
    return "longitudinal" if along else None
