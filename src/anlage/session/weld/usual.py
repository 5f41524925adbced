"""Usual settings of the deposits of a procedure by role; what its own passes state is taken first."""

from collections.abc import Mapping
from functools import lru_cache, partial
from types import MappingProxyType
from typing import Any, Final, cast

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.catalogue import Filler, FillerCurrent
from anlage.core.document import kept
from anlage.core.errors import InputError
from anlage.core.procedure import Deposit, Pass, Wps
from anlage.core.proposal import (
    Case,
    Circumstances,
    Melting,
    Proposal,
    Typed,
    as_typed,
    burn_off,
    melting_of_wire,
    propose,
    refuse,
)
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.data.tables import catalogue, unit_table
from anlage.data.usual_table import usual_table
from anlage.session.leaves.marks import spans
from anlage.session.weld.bead_areas import (
    THIN_FIRST,
    density_of,
    deposition_efficiency,
    deposition_fill,
    filler_of,
    is_wire_fed,
    melting_of,
    usual_settings,
)
from anlage.session.weld.places import Whereabouts, goes, refuse_without, whereabouts

SETTINGS: Final = ("current_a", "voltage_v", "travel_speed_mm_min", "wire_speed_mm_min")
ROLES: Final = ("root", "hot", "fill", "strip", "cap", "back", "buttering")
TRADE_MM = 0.15  # sizes of both systems are one within so much, 2.4 and 2.5 mm, as the catalogue looks them up
NEAREST = 2  # fillers named that would go


class Described(Struct, frozen=True):
    """The row of the catalogue that settings are taken from; `taken_as` says so where it is not the filler's own.

    `known` is whether the catalogue has the filler at all: of another one no setting is proposed, only how large its
    beads may be.
    """

    row: FillerCurrent
    taken_as: str = ""
    known: bool = True


def where_of(wps: Wps, deposit: Deposit) -> Whereabouts:
    """Return where a deposit of a procedure is laid."""
    filler = filler_of(deposit)
    return whereabouts(wps, downhill_filler=filler is not None and filler.progression == ("down",))


def described(deposit: Deposit, role: str, place: str) -> Described | None:
    """Return the catalogue's row for a role: its own, else that of the nearest filler of the process, by size.

    `None` where the process is not stated, or no filler of it is described.
    """
    size = deposit.filler_diameter_mm
    mm = None if size is None else size.low if role in THIN_FIRST else size.high
    return _described(deposit.process or "", deposit.filler or "", deposit.transfer_mode or "", mm, place)


@lru_cache(maxsize=512)
def _described(process: str, name: str, mode: str, mm: float | None, place: str) -> Described | None:
    rows = [row for row in catalogue().filler_currents if row.process == process]
    if not rows:
        return None
    filler = filler_of(Deposit(id="d0", filler=name)) if name else None
    named = filler.classification if filler else name
    own = [row for row in rows if row.classification == named]
    family = filler.family if filler else ""
    near = own or [row for row in rows if family and _family_of(row).startswith(family.split()[0])] or rows
    wanted = [row for row in near if mode in ("", row.mode)] or near
    at = Circumstances(process=process, family=family, place=place)
    open_to = [row for row in wanted if not _cannot(at, row)] or wanted
    row = min(open_to, key=lambda each: abs(each.diameter_mm - mm) if mm else 0.0)
    said = []
    if not own:
        said.append(f"{name or 'a filler not stated'} as {row.classification}")
    if mm is not None and abs(row.diameter_mm - mm) > TRADE_MM:
        said.append(f"{mm:g} mm as {row.diameter_mm:g} mm")
    if mode and row.mode != mode:
        said.append(f"{mode} as {row.mode or 'its only mode'}")
    return Described(row, ", ".join(said), filler is not None)


def _family_of(row: FillerCurrent) -> str:
    filler = catalogue().filler_rows().get(row.classification)
    return filler.family if filler else ""


def _cannot(at: Circumstances, row: FillerCurrent) -> bool:
    known = Circumstances(process=at.process, family=at.family or _family_of(row), mode=row.mode, place=at.place)
    return known.first_of(usual_table().cannot) is not None


def refuse_there(wps: Wps, deposit: Deposit) -> None:
    """Refuse a deposit whose process or mode goes nowhere near the stated positions, whatever its filler.

    Raises
    ------
    InputError : it is not for one of them
    """
    filler = filler_of(deposit)
    at = Circumstances(
        process=deposit.process or "", mode=deposit.transfer_mode or "", family=filler.family if filler else ""
    )
    for place in where_of(wps, deposit).all:
        refuse(replace(at, place=place), usual_table())


def proposal_for(wps: Wps, deposit: Deposit, role: str, *, most_a: float | None = None) -> Proposal | None:
    """Return what is usual for a role of a deposit where it is laid, with what its passes state instead.

    `None` where the catalogue describes nothing of the process.

    Raises
    ------
    InputError : process, filler or mode is not for that place
    """
    typed = typed_for(wps, deposit, role)
    usual = _usual_for(wps, deposit, role, typed, most_a)
    return as_typed(usual, typed) if usual is not None and typed is not None else usual


def _usual_for(wps: Wps, deposit: Deposit, role: str, typed: Typed | None, most_a: float | None) -> Proposal | None:
    where = where_of(wps, deposit)
    found = described(deposit, role, where.place)
    if found is None:
        return None
    row = found.row
    if typed is not None and typed.current_a is not None:  # of two sizes the one that the stated current is for
        each = Pass(id="p0", deposit=deposit.id, role=cast("Any", role), current_a=typed.current_a)
        row = usual_settings(deposit, each) or row
    return _usual(_key_of(deposit), role, where.all, row, most_a)


def _key_of(deposit: Deposit) -> tuple[Any, ...]:
    size = deposit.filler_diameter_mm
    return deposit.process, deposit.filler, size and (size.low, size.high), deposit.operation


@lru_cache(maxsize=1024)
def _usual(
    key: tuple[Any, ...], role: str, places: tuple[str, ...], row: FillerCurrent, most_a: float | None
) -> Proposal:
    process, name, size, operation = key
    deposit = Deposit(
        id="d0", process=process, filler=name, operation=operation,
        filler_diameter_mm=Interval(*size) if size else Interval.single(row.diameter_mm),
    )  # fmt: skip
    filler = filler_of(deposit) or catalogue().filler(row.classification)
    at = Circumstances(
        process=row.process, family=filler.family, filler=filler.classification, mode=row.mode, place=places[0],
        role=role, size_mm=row.diameter_mm,
    )  # fmt: skip
    for place in places:
        refuse(replace(at, place=place), usual_table())
        refuse_without(place, filler, partial(_others, filler, row.process, place))
    case = Case(
        at=at, row=row, melting=_melting(deposit, row), density_g_cm3=density_of(deposit),
        burn_off=burn_off(row, described_near(row)) if is_wire_fed(deposit) else None,
    )  # fmt: skip
    return propose(case, usual_table(), catalogue().process_limits, most_a=most_a)


def _melting(deposit: Deposit, row: FillerCurrent) -> Melting:
    if is_wire_fed(deposit):
        efficiency, origin = deposition_efficiency(deposit)
        size = cast("Interval", deposit.filler_diameter_mm)
        per_feed = melting_of_wire(
            (size.low + size.high) / 2, efficiency=efficiency, fill=deposition_fill(deposit),
            density_g_cm3=density_of(deposit),
        )  # fmt: skip
        return Melting(
            per_feed_kg_h=per_feed, origin=f"wire feed, efficiency {efficiency:g} ({origin})", confidence="M"
        )
    found = melting_of(deposit, row)
    if found is None:
        what = f"how much {deposit.filler or 'the filler'} lays is not known"
        raise InputError(what, where="filler", mend="state the area of the bead")
    return found


@lru_cache(maxsize=128)
def described_near(row: FillerCurrent) -> tuple[FillerCurrent, ...]:
    """Return the rows of a process by how near they are: of the mode first, then by size."""
    same = [each for each in catalogue().filler_currents if each.process == row.process]
    return tuple(sorted(same, key=lambda each: (each.mode != row.mode, abs(each.diameter_mm - row.diameter_mm))))


def _others(filler: Filler, process: str, place: str) -> str:
    """Return which fillers of a kind and analysis go where this one does not, the most alike first."""

    def unlike(other: Filler) -> tuple[bool, float]:
        return other.f_number != filler.f_number, abs((other.smts_mpa or 0) - (filler.smts_mpa or 0))

    same = [each for each in catalogue().fillers if filler.a_number and each.a_number == filler.a_number
            and each.family.split()[0] == filler.family.split()[0]]  # fmt: skip
    found = sorted((each for each in same if process in each.processes and goes(each, place)), key=unlike)
    return " or ".join(each.classification for each in found[:NEAREST])


# What the passes state -----------------------------------------------------------------------


def typed_for(wps: Wps, deposit: Deposit, role: str) -> Typed | None:
    """Return what passes of a deposit state that was not proposed: of the role itself, else of the deposit.

    The root is set apart: voltage, speed and feed stated over it are not taken for it, nor its own for them; a current
    holds for its role alone. A pass without a role speaks for all.
    """
    stated = stated_in(wps, deposit)
    if not stated:
        return None
    rooted = role in THIN_FIRST
    values: dict[str, Interval] = {}
    for (leaf, at), value in stated.items():
        near = at == role or at is None or (leaf != "current_a" and (at in THIN_FIRST) == rooted)
        if near and (leaf not in values or at == role):
            values[leaf] = value
    return Typed(**values) if values else None


def stated_in(wps: Wps, deposit: Deposit) -> Mapping[tuple[str, str | None], Interval]:
    """Return the settings that passes of a deposit state of their own, by leaf and role.

    Where passes of a role differ, it is the middle one.
    """
    return _stated_by_deposit(wps).get(deposit.id, MappingProxyType({}))


@kept
def _stated_by_deposit(wps: Wps) -> Mapping[str, Mapping[tuple[str, str | None], Interval]]:
    found: dict[str, dict[tuple[str, str | None], list[Interval]]] = {}
    for each in wps.passes:
        for leaf in SETTINGS:
            value = getattr(each, leaf)
            if value is not None and f"passes/{each.id}/{leaf}" not in wps.proposed:
                found.setdefault(each.deposit, {}).setdefault((leaf, each.role), []).append(value)
    return {
        home: {key: sorted(values, key=_middle)[len(values) // 2] for key, values in own.items()}
        for home, own in found.items()
    }


def _middle(span: Interval) -> float:
    return (span.low + span.high) / 2


def hot_over_root(wps: Wps) -> float | None:
    """Return the current of the second pass over that of the root; `None` where either is not stated."""
    amps = [
        next((each.current_a for each in wps.passes if each.role == role and each.current_a), None)
        for role in ("hot", "root")
    ]
    if amps[0] is None or amps[1] is None:
        return None
    return (amps[0].low + amps[0].high) / (amps[1].low + amps[1].high)


def hot_words(wps: Wps, each: Pass) -> str:
    """Return the current of a second pass over that of the root, in words; "" for any other pass."""
    ratio = hot_over_root(wps) if each.role == "hot" else None
    return f"{ratio:.2f} × the current of the root; usual {usual_table().hot.usual}" if ratio else ""


def proposed_words(wps: Wps, each: Pass) -> str:
    """Return which settings of a pass are only proposed, and why; "" for none."""
    marks = {leaf: mark for leaf in SETTINGS if (mark := wps.proposed.get(f"passes/{each.id}/{leaf}"))}
    if not marks:
        return ""
    mark = next(iter(marks.values()))
    return f"proposed, {mark.confidence}: {mark.reason}"


def size_sentences(wps: Wps, system: System) -> tuple[str, ...]:
    """Return which passes of a deposit of two sizes are worked out with which, by their current and role."""
    said = []
    for deposit in wps.deposits:
        size = deposit.filler_diameter_mm
        if size is None or size.is_single:
            continue
        taken: dict[float, list[int]] = {}
        for number, each in enumerate(wps.passes, 1):
            row = usual_settings(deposit, each) if each.deposit == deposit.id else None
            if row is not None:
                taken.setdefault(row.diameter_mm, []).append(number)
        if taken:
            parts = [
                f"{show(mm, 'length', system, unit_table())} for pass {spans(own)}" for mm, own in sorted(taken.items())
            ]
            name = " ".join(filter(None, (deposit.process, deposit.filler)))
            said.append(f"{name} of two sizes, by current and role: {', '.join(parts)}; add a deposit to state it.")
    return tuple(said)


def outdated(wps: Wps) -> tuple[int, ...]:
    """Return the numbers of passes whose settings were proposed for another position, process, filler or role."""
    homes = {each.id: each for each in wps.deposits}
    known: dict[tuple[str, str], str] = {}
    found = []
    for number, each in enumerate(wps.passes, 1):
        marks = [mark for leaf in SETTINGS if (mark := wps.proposed.get(f"passes/{each.id}/{leaf}"))]
        if not marks:
            continue
        own = [each.role or ""] if each.role != "strip" else list(ROLES)  # a strip is set like the pass below
        for role in own:
            if (each.deposit, role) not in known:
                known[each.deposit, role] = _reason_now(wps, homes[each.deposit], role)
        if all(mark.reason not in {known[each.deposit, role] for role in own} for mark in marks):
            found.append(number)
    return tuple(found)


def _reason_now(wps: Wps, deposit: Deposit, role: str) -> str:
    """Return why settings would be proposed as things stand; "" where none would."""
    try:
        usual = _usual_for(wps, deposit, role, typed_for(wps, deposit, role), None)
    except InputError:
        return ""
    return usual.words if usual is not None else ""


def outdated_words(wps: Wps) -> str:
    """Return which passes are set for something else, and what to do; "" for none."""
    passes = outdated(wps)
    if not passes:
        return ""
    return f"Pass {spans(passes)}: proposed for another position, process or filler; fill the joint anew."
