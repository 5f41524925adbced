"""What would bring a procedure inside: the fewest leaves to change, against each record, proved by judging again.

Each variable that fails must change at its own leaf, and what a record allows of one does not hang on what is stated of
another. The leaves of what fails against a record are therefore the fewest that bring the procedure inside by it.
"""

from collections.abc import Callable, Iterable, Iterator
from typing import Any

from msgspec import Struct

from anlage.core.codes import Rung
from anlage.core.document import Dimension, at, with_, with_at
from anlage.core.errors import AnlageError
from anlage.core.procedure import Wps
from anlage.core.quantities.units import System
from anlage.core.ranges import Choices, Interval, Numbers, Range, fits
from anlage.data.tables import variables
from anlage.session.judging.assessment import Assessment
from anlage.session.judging.drawn import DIMENSIONS
from anlage.session.judging.ladder import leaf_of_rung, spoken_variable
from anlage.session.leaves.difference import Difference
from anlage.session.leaves.names import named
from anlage.session.leaves.set_text import set_text
from anlage.session.leaves.table import field_of
from anlage.session.leaves.text import shown

LOCKED = ("metals", "range")  # what the job gives: a procedure is not made for other metals because a record is
ONE_WORD = ("shielding_gas", "backing_gas", "trailing_gas", "orifice_gas")  # worked out of a leaf that says just that
AS_DRAWN = tuple(f"drawn_{name}" for name in DIMENSIONS)  # worked out of a dimension: its nominal
OF_ANOTHER = "process"  # a record of another process is none to go by
MOST_RECORDS = 40

Judge = Callable[[Wps, str], Assessment]


class Mending(Struct, frozen=True):
    """What brings a procedure inside by some records.

    Parameters
    ----------
    records : by which it would be judged
    wps : the procedure with the changes made
    changes : leaf by leaf, in words
    left : what stays outside or unproven, a sentence each; none where it is inside
    """

    records: tuple[str, ...]
    wps: Wps
    changes: tuple[Difference, ...]
    left: tuple[str, ...]

    @property
    def is_whole(self) -> bool:
        """Whether the procedure is inside with the changes made."""
        return not self.left


def mendings(
    wps: Wps, assess: Judge, system: System, locked: Iterable[str] = LOCKED
) -> tuple[Mending, ...]:  # fmt: skip
    """Return what would bring a procedure inside, one a record, the nearest first; none where it is inside already.

    Parameters
    ----------
    wps : the procedure
    assess : judges one by all records, or by the one that is named
    system : the units of the reader
    locked : the parts of a procedure, or single leaves, that are not changed
    """
    proof = assess(wps, "")
    if proof.judgement is None or proof.judgement.verdict == "inside":
        return ()
    found = [_mended(wps, assess, by, system, tuple(locked)) for by in ("", *proof.counting[:MOST_RECORDS])]
    known: dict[tuple[tuple[Difference, ...], tuple[str, ...]], Mending] = {}
    for each in found:
        if each is not None:
            known.setdefault((each.changes, each.left), each)
    problems = len(proof.problems())
    useful = [each for each in known.values() if each.changes and len(each.left) < problems]
    return tuple(sorted(useful, key=lambda each: (len(each.left), len(each.changes))))


def _mended(wps: Wps, assess: Judge, by: str, system: System, locked: tuple[str, ...]) -> Mending | None:
    """Return the changes against one record, or all together, and what they leave, as judging again says it."""
    proof = assess(wps, by)
    if proof.judgement is None:
        return None
    failing = [rung for rung in proof.judgement.rungs if rung.verdict != "inside"]
    if by and any(rung.variable == OF_ANOTHER for rung in failing):
        return None
    changed = wps
    for rung in failing:
        changed = _with_rung(changed, rung, locked)
    again = assess(changed, "")
    rungs = again.judgement.rungs if again.judgement else ()
    left = tuple(_left(rung, wps, locked, system) for rung in rungs if rung.verdict != "inside")
    records = (by,) if by else proof.judgement.records()
    return Mending(records, changed, tuple(_differences(wps, changed, system)), left)


def _with_rung(wps: Wps, rung: Rung, locked: tuple[str, ...]) -> Wps:
    """Return a procedure with the leaves of one rung nearest to what is stated within what is allowed."""
    for path in _leaves(wps, rung):
        if path in locked or path.split("/")[0] in locked:
            continue
        try:
            value = _nearest(at(wps, path), rung)
            wps = wps if value is None else with_at(wps, path, value)
        except AnlageError:
            continue  # the leaf cannot be that: it stays, and is told as left
    return wps


def _leaves(wps: Wps, rung: Rung) -> Iterator[str]:
    """Yield the leaves that state the variable of a rung, one a pass for what passes state; none of what is derived."""
    row = variables().get(rung.variable)
    where = row.wps if row else None
    if where is None or where.of or (where.derive and rung.variable not in (*ONE_WORD, *AS_DRAWN)):
        return
    if where.scope != "pass":
        if path := leaf_of_rung(wps, rung):
            yield path
        return
    own = leaf_of_rung(wps, rung).split("/")[1:2]
    home = next((each.deposit for each in wps.passes if [each.id] == own), "")
    yield from (f"passes/{each.id}/{where.name}" for each in wps.passes if each.deposit == home)


def _nearest(stated: Any, rung: Rung) -> Any:
    """Return the value of a leaf that lies within what a rung allows for sure; `None` where none is known or needed."""
    if isinstance(rung.sure, Choices):
        return None if rung.sure.but else _word(stated, rung.sure, rung.stated)
    if not isinstance(rung.sure, Numbers) or not rung.sure.parts:
        return None
    if isinstance(stated, Dimension):
        return _dimension(stated, rung.sure, drawn=rung.variable in AS_DRAWN)
    if isinstance(stated, Interval):
        return _span(stated, rung.sure)
    if isinstance(stated, float | int) and not isinstance(stated, bool):
        return _number(float(stated), rung.sure)
    return None


def _word(stated: Any, allowed: Choices, said: Range | None) -> str | None:
    if not isinstance(stated, str | None):
        return None
    kept = sorted(allowed.tokens & said.tokens) if isinstance(said, Choices) and not said.but else []
    found = kept or sorted(allowed.tokens)
    return found[0] if kept or len(found) == 1 else None  # which of several, the person says


def _span(stated: Interval, allowed: Numbers) -> Interval | None:
    if fits(Numbers((stated,)), allowed):
        return None
    met = Numbers((stated,)) & allowed
    if isinstance(met, Numbers) and met.parts:
        widest = max(met.parts, key=lambda part: part.high - part.low)
        return Interval(widest.low, widest.high)
    ends = [_number(end, allowed) for end in (stated.low, stated.high)]
    known = [end for end in ends if end is not None]
    return Interval.single(known[0]) if known else None


def _dimension(stated: Dimension, allowed: Numbers, *, drawn: bool) -> Dimension | None:
    """Return a dimension drawn as is allowed, its tolerance kept; or one whose tolerance is held within what is."""
    if drawn:
        nominal = _number(stated.nominal, allowed)
        return None if nominal is None else with_(stated, nominal=nominal, minus=min(stated.minus, nominal))
    met = Numbers((stated.span,)) & allowed
    if not isinstance(met, Numbers) or not met.contains(Numbers((Interval.single(stated.nominal),))):
        return None
    part = next(each for each in met.parts if each.low <= stated.nominal <= each.high)
    return with_(stated, minus=stated.nominal - part.low, plus=part.high - stated.nominal)


def _number(stated: float, allowed: Numbers) -> float | None:
    """Return the nearest number that is allowed; `None` where it lies at an open end."""
    if any(part.low <= stated <= part.high for part in allowed.parts):
        return None
    ends = [end for p in allowed.parts for end in ((p.low, p.low_open), (p.high, p.high_open))]
    closed = [end for end, is_open in ends if not is_open and abs(end) != float("inf")]
    return min(closed, key=lambda end: abs(end - stated)) if closed else None


def _left(rung: Rung, wps: Wps, locked: tuple[str, ...], system: System) -> str:
    """Return in a sentence what a rung still asks, and why it is not among the changes."""
    title = f"{spoken_variable(rung.variable)}{f', {rung.label}' if rung.label else ''}"
    asked = set_text(rung.variable, rung.sure, system)
    path = leaf_of_rung(wps, rung)
    if path in locked:
        return f"{title}: {asked} is allowed, and it is kept as it is."
    if path.split("/")[0] in locked:
        return f"{title}: {asked} is allowed, and the job asks for more: weld a test that covers it."
    if rung.stated is None:
        return f"{title}: state it; {asked} is allowed."
    return f"{title}: {rung.verdict}, {asked} is allowed."


def _differences(wps: Wps, changed: Wps, system: System) -> Iterator[Difference]:
    for path in _changed_paths(wps, changed):
        texts = []
        for each in (wps, changed):
            text, field = shown(each, path, system), field_of(path)
            texts.append(f"{field.say(text)} {field.unit(system)}".strip() if text else "–")
        yield Difference(named(changed, path), texts[0], texts[1], path)


def _changed_paths(wps: Wps, changed: Wps) -> list[str]:
    found: dict[str, None] = {}
    for row in variables().values():
        if row.wps is not None:
            for path in _paths_of(row.wps.leaf, changed):
                if at(wps, path) != at(changed, path):
                    found[path] = None
    return list(found)


def _paths_of(pattern: str, wps: Wps) -> Iterator[str]:
    head, is_listed, rest = pattern.partition("/*/")
    if not is_listed:
        if pattern.split("/", maxsplit=1)[0] in wps.__struct_fields__ and not pattern.startswith("metals"):
            yield pattern
        return
    yield from (f"{head}/{each.id}/{rest}" for each in getattr(wps, head, ()))
