"""Where the machines of a works are set for each pass, in sentences; what no meter read is unproven as amps."""

from collections.abc import Iterator, Sequence

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.machine import Calibrated, DialStep, Machine, MachineHeader, MachineReading, Tap, dial_steps, is_day
from anlage.core.procedure import Pass, Reading, Wps, deposit_of_pass
from anlage.core.quantities import show, show_interval
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.data.tables import processes, unit_table
from anlage.session.leaves.marks import spans
from anlage.session.leaves.table import field_of
from anlage.session.leaves.text import parsed

NONE_CALIBRATED = "No machine of the works is calibrated: a dial setting is unproven as amps."
NOT_READ = "No tap was read over the current of this pass: a dial setting is unproven as amps."
BY_WIRE = "The wire speed sets its current, no dial does."


def known_machines(wps: Wps, works: Calibrated) -> Calibrated:
    """Return the machines of the works, and those of which readings stand in the procedure alone.

    Of a machine that the works has, its own readings count, whatever a procedure says of it.
    """
    own: dict[str, list[Reading]] = {}
    for each in wps.readings:
        own.setdefault(each.machine or "", []).append(each)
    alone = tuple(_as_machine(name, rows, wps.ids) for name, rows in own.items() if not works.knows(name))
    return replace(works, machines=(*works.machines, *alone))


def _as_machine(number: str, rows: Sequence[Reading], ids: int) -> Machine:
    """Return a machine with the readings that stand in a procedure; a day that is none is not stated."""
    readings = tuple(
        MachineReading(
            id=each.id, tap=each.tap, dial=each.dial, current_a=each.current_a, voltage_v=each.voltage_v,
            meter=each.meter, day=each.day if is_day(each.day or "") else None,
        )
        for each in rows
    )  # fmt: skip
    return Machine(header=MachineHeader(number=number), readings=readings, ids=ids)


def superseded_sentences(wps: Wps, works: Calibrated) -> tuple[str, ...]:
    """Return of which machines readings stand in the procedure and in the works: the works' count."""
    names = dict.fromkeys(each.machine for each in wps.readings if each.machine and works.knows(each.machine))
    return tuple(f"What this procedure says of {name} does not count: the works keeps its readings." for name in names)


class _Setting(Struct, frozen=True):
    """What a machine is to give: over a whole pass, or in a sector of it."""

    where: str
    current_a: Interval
    voltage_v: Interval | None


def dial_sentences(wps: Wps, pass_id: str, works: Calibrated, system: System) -> tuple[str, ...]:
    """Return where to set the machines for a pass and its sectors, and why a dial is unproven as amps where it is.

    Nothing is said of a pass whose current is not stated. A deposit that names its machine is welded with that one,
    any other with whichever is free.
    """
    each = next((one for one in wps.passes if one.id == pass_id), None)
    if each is None or each.current_a is None:
        return ()
    row = processes().get(deposit_of_pass(wps, each).process or "")
    if row is not None and row.electrode == "wire":
        return (BY_WIRE,)
    calibrated, number = known_machines(wps, works), _machine_of(wps, each)
    if number and not calibrated.knows(number):
        return (f"{number} is no machine of the works: its dial is unproven as amps.",)
    taps = calibrated.taps(number)
    if not taps:
        return (NONE_CALIBRATED,)
    return tuple(sentence for setting in _settings(wps, each) for sentence in _for_setting(taps, setting, system))


def _machine_of(wps: Wps, each: Pass) -> str:
    return (deposit_of_pass(wps, each).machine or "").strip()


def _settings(wps: Wps, each: Pass) -> Iterator[_Setting]:
    """Yield what a machine is to give for a pass, then in each sector whose current is stated."""
    assert each.current_a is not None, "it is stated"
    yield _Setting("", each.current_a, each.voltage_v)
    for sector in wps.sectors:
        if sector.of == each.id and sector.current_a is not None:
            where = f"{sector.reach or 'a sector'}: "
            yield _Setting(where, sector.current_a, sector.voltage_v or each.voltage_v)


def _for_setting(taps: Sequence[Tap], of: _Setting, system: System) -> tuple[str, ...]:
    steps = dial_steps(taps, of.current_a)
    said = tuple(_said(step, system) for step in steps if _is_read_at(step.tap, of.voltage_v))
    others = tuple(_elsewhere(step, of, system) for step in steps if not _is_read_at(step.tap, of.voltage_v))
    found = said or others or tuple(unproven_sentences(taps, system)) or (NOT_READ,)
    return tuple(f"{of.where}{sentence}" for sentence in found)


def read_current(text: str) -> Interval | None:
    """Return the current that a text asks for [A]; `None` for no text.

    Raises
    ------
    InputError : it is no current
    """
    return parsed(field_of("passes/*/current_a"), text, "si") if text.strip() else None


def wanted_sentences(taps: Sequence[Tap], current_a: Interval, system: System) -> tuple[str, ...]:
    """Return where the taps of one machine are set for a current, or that none was read over it."""
    found = []
    for step in dial_steps(taps, current_a):
        part = "" if step.is_whole else f" for {show_interval(step.covered_a, 'current', system, unit_table())} of it"
        dial = f"dial {step.dial_text}" if step.dial else "no half division gives it"
        found.append(f"{tap_words(step.tap, system)} {dial}{part}".strip())
    return tuple(found) or ("No tap is proven over it.",)


def unproven_sentences(taps: Sequence[Tap], system: System) -> tuple[str, ...]:
    """Return of each tap that proves no current why it does not."""
    return tuple(f"{tap_name(each, system)}: {each.why_not}, unproven as amps." for each in taps if each.why_not)


def dial_lines(wps: Wps, works: Calibrated) -> tuple[str, ...]:
    """Return where to set the machines for every pass, a line for passes that are set alike, and what is unproven."""
    system, alike = wps.header.units, dict[tuple[str, ...], list[int]]()
    for number, each in enumerate(wps.passes, 1):
        alike.setdefault(dial_sentences(wps, each.id, works, system), []).append(number)
    found = [
        f"{'Pass' if len(numbers) == 1 else 'Passes'} {spans(numbers)}: {sentence}"
        for sentences, numbers in alike.items() for sentence in sentences
    ]  # fmt: skip
    numbers = dict.fromkeys(_machine_of(wps, each) for each in wps.passes)
    asked = numbers if all(numbers) else {"": None}  # any machine may be taken where one is not named
    rest = [each for number in asked for each in unproven_sentences(known_machines(wps, works).taps(number), system)]
    told = {sentence for sentences in alike for sentence in sentences}
    return (*found, *(sentence for sentence in rest if sentence not in told))


def tap_name(tap: Tap, system: System) -> str:
    """Return a tap in words: its machine, itself, its leads."""
    return " ".join(filter(None, (tap.machine, tap_words(tap, system)))) or "A machine"


def tap_words(tap: Tap, system: System) -> str:
    """Return a tap without its machine; "" where nothing is stated of it."""
    leads = f"with {show(tap.lead_m, 'distance', system, unit_table())} of leads" if tap.lead_m else ""
    return " ".join(filter(None, (f"tap {tap.name}" if tap.name else "", leads)))


def _said(step: DialStep, system: System) -> str:
    """Return one step in a sentence: the dial, the part of the current that was read, by which meter and when."""
    dial = f"dial {step.dial_text}" if step.dial else "dial: no half division gives it"
    covered = show_interval(step.covered_a, "current", system, unit_table())
    part = "" if step.is_whole else f" for {covered} of it, the rest was not read"
    volts = "" if _volts(step.tap) else ", its volts were not read"
    return f"{tap_name(step.tap, system)} {dial}{part} (meter {', '.join(step.tap.meters)}, {step.tap.day}{volts})."


def _elsewhere(step: DialStep, of: _Setting, system: System) -> str:
    """Return that a tap was read at other volts than a pass runs at: a drooping source gives another current there."""
    read, runs = _volts(step.tap), of.voltage_v
    assert read is not None, "its volts were read"
    assert runs is not None, "those of the pass are stated"
    one, other = (show_interval(each, "voltage", system, unit_table()) for each in (read, runs))
    return f"{tap_name(step.tap, system)} was read at {one}, the pass runs at {other}: unproven as amps there."


def _is_read_at(tap: Tap, voltage_v: Interval | None) -> bool:
    """Return whether a tap may have been read at the volts of a pass: they meet, or one of them is not known."""
    read = _volts(tap)
    return voltage_v is None or read is None or (read.low <= voltage_v.high and voltage_v.low <= read.high)


def _volts(tap: Tap) -> Interval | None:
    volts = [each.voltage_v for each in tap.points if each.voltage_v is not None]
    return Interval(min(volts), max(volts)) if volts else None
