"""The one way from a document to the values of its variables, by the table of variables."""

from collections.abc import Callable, Collection, Iterator, Mapping
from functools import cache, lru_cache
from operator import attrgetter
from typing import Any

from anlage.core.catalogue.filler_sizes import size_named
from anlage.core.codes import Measured
from anlage.core.codes.facts import Fact
from anlage.core.document import Dimension, kept_of_parts
from anlage.core.procedure import Deposit, Pass, Sector, Wps
from anlage.core.procedure.parts import YesNo
from anlage.core.ranges import Interval, Range, choices, numbers
from anlage.core.record import Recorded
from anlage.core.variables import Stating
from anlage.data.tables import catalogue, variables
from anlage.session.judging.derivations import DERIVATIONS, OF_BEADS, measured
from anlage.session.kinds import kind_of

Source = Callable[[Any, Any], Any]
Only = Collection[str] | None
RECORD = "pqr"
FILLER_SIZE = "filler_diameter_mm"


def stated_values(document: Any, scope: str, element: Any = None, only: Only = None) -> dict[str, Any]:
    """Return what a document states of each variable of a scope; of a deposit or pass, what that element states.

    What a pack derives from metals, filler or heat treatment is not among it. `only` keeps some variables: what no
    code asks for is not worked out.
    """
    found = {}
    for variable, _, source in _sources(kind_of(document).id, scope):
        if only is None or variable in only:
            value = source(document, element)
            if value is not None and value != "":
                found[variable] = value
    return found


def sets_of(document: Any, scope: str, element: Any = None, only: Only = None) -> dict[str, Range]:
    """Return the sets that a document states."""
    return {name: as_set(value) for name, value in stated_values(document, scope, element, only).items()}


def pass_sets(wps: Wps, deposit: Deposit, only: Collection[str]) -> Iterator[tuple[str, Mapping[str, Range]]]:
    """Yield the id of each pass of a deposit with the sets that it states.

    What other passes have no part in is kept: an edit changes one pass, and each code asks for all.
    """
    beads = _of_beads() & frozenset(only)
    sectors: dict[str, tuple[Sector, ...]] = {}
    for sector in wps.sectors:
        sectors[sector.of] = (*sectors.get(sector.of, ()), sector)
    for each in wps.passes:
        if each.deposit == deposit.id:
            own = _own_sets(each, sectors.get(each.id, ()), deposit.waveform, wps.ids)
            yield each.id, {**own, **sets_of(wps, "pass", each, beads)} if beads else own


@kept_of_parts
def _own_sets(each: Pass, sectors: tuple[Sector, ...], waveform: YesNo | None, ids: int) -> Mapping[str, Range]:
    """Return the sets of a pass that hang on nothing else of the procedure: it is read from one that has no more."""
    home = Deposit(id=each.deposit, waveform=waveform)
    alone = Wps(deposits=(home,), passes=(each,), sectors=sectors, ids=ids)
    names = {variable for variable, _, _ in _sources("wps", "pass")} - _of_beads()
    return {name: _the_one(found) for name, found in sets_of(alone, "pass", each, names).items()}


@lru_cache(maxsize=4096)
def _the_one(found: Range) -> Range:
    """Return always the same of equal sets: passes that state the same are seen to at a glance."""
    return found


@cache
def _of_beads() -> frozenset[str]:
    """Return the variables of a pass that hang on where all beads lie."""
    return frozenset(name for name, where, _ in _sources("wps", "pass") if where.derive in OF_BEADS)


def facts_of(document: Any, scope: str, element: Any = None) -> dict[str, Fact]:
    """Return the facts that a document records."""
    declared = {
        f"declared.{variable}": as_set(value)
        for variable, source in _declared_sources(scope)
        if kind_of(document).id == RECORD and (value := source(document, element)) is not None
    }
    takes = {variable: where.take for variable, where, _ in _sources(kind_of(document).id, scope)}
    stated = stated_values(document, scope, element).items()
    facts = {name: _fact(value, takes[name]) for name, value in stated}
    return {name: fact for name, fact in facts.items() if fact is not None} | declared


@cache
def _declared_sources(scope: str) -> tuple[tuple[str, Source], ...]:
    """Return what reads the ranges that a record declares of itself."""
    rows = ((each.id, Stating(each.declared)) for each in variables().values() if each.declared)
    return tuple((variable, _source(RECORD, where)) for variable, where in rows if where.scope == scope)


@cache
def _sources(kind: str, scope: str) -> tuple[tuple[str, Stating, Source], ...]:
    rows: Mapping[str, Stating | None] = {each.id: getattr(each, kind) for each in variables().values()}
    return tuple(
        (variable, where, _source(kind, where))
        for variable, where in rows.items()
        if where is not None and where.scope == scope and not where.of
    )


def _source(kind: str, where: Stating) -> Source:
    """Return what reads a variable from a document and one of its elements."""
    if where.derive:
        return DERIVATIONS[kind, where.derive]
    read = attrgetter(where.name.replace("/", "."))
    if where.name == FILLER_SIZE:
        return lambda _document, element: as_size(read(element))
    if where.scope != "joint":
        return lambda _document, element: read(element)
    return lambda document, _element: read(document)


def as_size(value: Any) -> Any:
    """Return a size of a filler, or a range of them, as one length by whichever name: 3/32 in is 2.4 mm."""
    if value is None:
        return None
    ends = [value.low, value.high] if isinstance(value, Interval) else [value]
    sizes = [(size_named(end, catalogue().filler_sizes), end) for end in ends]
    named = [size.judged_mm if size else end for size, end in sizes]
    return Interval(named[0], named[-1]) if isinstance(value, Interval) else named[0]


def as_set(value: Any) -> Range:
    """Return a stated value as the set it is: a range, one number, or a word."""
    if isinstance(value, Dimension):
        value = value.span
    if isinstance(value, Interval):
        return numbers([value])
    if isinstance(value, frozenset):
        return choices(*sorted(value))
    return choices(value) if isinstance(value, str) else numbers([Interval.single(value)])


def _fact(value: Any, take: str) -> Fact | None:
    """Return a recorded value as a fact: of a range the end that is meant, of a dimension its nominal.

    `None` where what was written down of it does not tell.
    """
    if isinstance(value, Recorded):
        return measured(value)
    if isinstance(value, Dimension):
        return value.nominal
    if isinstance(value, Interval) and take == "span":
        return Measured(value.low, (value.low + value.high) / 2, value.high)
    if isinstance(value, Interval):
        return value.high if take == "most" else value.low if take == "least" else (value.low + value.high) / 2
    fact: float | str | Measured = value
    return fact
