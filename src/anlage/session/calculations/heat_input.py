"""`calc heat-input`: arc energy and heat input, by the route that the stated keys name."""

from collections.abc import Mapping
from typing import Any

from anlage.core.catalogue import ProcessLimits
from anlage.core.errors import InputError
from anlage.core.heat import (
    EnergyRange,
    arc_energy,
    arc_energy_from_energy,
    arc_energy_from_power,
    clock_arc,
    clock_position,
    over_range,
    travel_speed_range,
)
from anlage.core.processes import thermal_efficiency
from anlage.core.ranges import Interval
from anlage.core.results import Notice, Source
from anlage.data.tables import catalogue, processes
from anlage.session.keyed.answer import Answer, number, number_or_interval, shown, shown_single
from anlage.session.keyed.arguments import Arguments

_ROUTES: Mapping[str, tuple[str, ...]] = {
    "energy": ("energy", "length"),
    "power": ("power", "speed"),
    "speed": ("volts", "amps", "speed"),
    "clock": ("volts", "amps", "od", "from_clock", "to_clock", "time"),
    "stopwatch": ("volts", "amps", "length", "time"),
}
_ARC_ENERGY = "ISO/TR 18491:2015; ASME BPVC IX QW-409.1(a); AWS D1.1"


def answer(arguments: Arguments) -> Answer:
    """Answer `calc heat-input` by the route that the stated keys name."""
    stated = [key for keys in _ROUTES.values() for key in keys if key in arguments]
    route = next((name for name, keys in _ROUTES.items() if set(stated) == set(keys)), None)
    if route is None:
        raise _no_route(set(stated))
    if "process" not in arguments and "efficiency" not in arguments:
        arguments.need("process")
    energy, speed, source = _energy(route, arguments)
    efficiency, efficiency_source, notices = _efficiency(arguments)
    heat = energy.scaled(efficiency) if efficiency is not None else None
    notices += _plausible(arguments, speed)
    values: dict[str, Any] = {
        "arc_energy_kj_mm": number_or_interval(energy.interval, always_interval=True),
        "heat_input_kj_mm": number_or_interval(heat, always_interval=True),
        "efficiency": efficiency,
        "corners": {end: _corner(corner.values) for end, corner in (("low", energy.low), ("high", energy.high))},
    }
    lines = [("arc energy", shown("_kj_mm", energy.interval)), ("heat input", shown("_kj_mm", heat))]
    lines += [("efficiency k", "unknown" if efficiency is None else f"{efficiency:g}"), *_corner_lines(energy)]
    if speed and route in ("clock", "stopwatch"):
        values["travel_speed_mm_min"] = number_or_interval(speed)
        lines.append(("travel speed", shown("_mm_min", speed)))
    if route == "clock":
        length = _clock_length(arguments)
        values["length_mm"] = number_or_interval(length)
        lines.append(("length", f"{shown('_mm', length)}, the shorter way round"))
    sources = [Source("arc energy", source, "H"), efficiency_source]
    return Answer(values, lines, sources, notices)


def _no_route(stated: set[str]) -> InputError:
    if not stated:
        return InputError("is missing", where="volts", mend=f"state {', '.join(_ROUTES['speed'])}")
    nearest = max(_ROUTES.values(), key=lambda keys: len(stated & set(keys)) - len(stated - set(keys)))
    missing = [key for key in nearest if key not in stated]
    extra = sorted(stated - set(nearest))
    if extra:
        mend = f"state {', '.join(nearest)} and nothing beside"
        return InputError(f"does not go with {', '.join(nearest)}", where=extra[0], mend=mend)
    return InputError("is missing", where=missing[0], mend=f"state {', '.join(nearest)}")


def _energy(route: str, a: Arguments) -> tuple[EnergyRange, Interval | None, str]:
    """Return the range of arc energy, the travel speed [mm/min] where there is one, and the source."""
    if route == "energy":
        rising, falling = {"energy_j": a.interval("energy", "energy")}, {"length_mm": a.interval("length", "length")}
        found = over_range(arc_energy_from_energy, rising=rising, falling=falling)
        return found, None, "ASME BPVC IX QW-409.1(c) and Appendix H; ISO/TR 18491:2015"
    speed = _travel_speed(route, a)
    falling = {"travel_speed_mm_s": Interval(speed.low / 60, speed.high / 60)}
    if route == "power":
        found = over_range(arc_energy_from_power, rising={"power_w": a.interval("power", "power")}, falling=falling)
        return found, speed, "ASME BPVC IX QW-409.1(c) and Appendix H; ISO/TR 18491:2015"
    rising = {"volts": a.interval("volts", "voltage"), "amps": a.interval("amps", "current")}
    return over_range(arc_energy, rising=rising, falling=falling), speed, _ARC_ENERGY


def _travel_speed(route: str, a: Arguments) -> Interval:
    if route in ("speed", "power"):
        return a.interval("speed", "speed")
    length = a.interval("length", "length") if route == "stopwatch" else _clock_length(a)
    return travel_speed_range(length, a.interval("time", "time"))


def _clock_length(a: Arguments) -> Interval:
    od = a.interval("od", "length")
    start, end = (clock_position(a.text(key), where=key) for key in ("from_clock", "to_clock"))
    return Interval(clock_arc(od.low, start, end).length_mm, clock_arc(od.high, start, end).length_mm)


def _corner(values: tuple[tuple[str, float], ...]) -> dict[str, float | None]:
    """Return the stated values of one end; the speed in the unit of its key."""
    found = {name: number(value) for name, value in values}
    if "travel_speed_mm_s" in found:
        found["travel_speed_mm_min"] = number(dict(values)["travel_speed_mm_s"] * 60)
        del found["travel_speed_mm_s"]
    return found


def _corner_lines(energy: EnergyRange) -> list[tuple[str, str]]:
    ends = [("lowest at", energy.low), ("highest at", energy.high)]
    if energy.low == energy.high:
        ends = [("at", energy.low)]
    return [(name, ", ".join(_corner_value(*entry) for entry in corner.values)) for name, corner in ends]


def _corner_value(key: str, value: float) -> str:
    if key == "travel_speed_mm_s":
        return shown("_mm_min", value * 60)
    if key == "length_mm":
        return shown(key, value)
    return shown_single(value, {"volts": "voltage", "amps": "current", "energy_j": "energy", "power_w": "power"}[key])


def _efficiency(a: Arguments) -> tuple[float | None, Source, list[Notice]]:
    if "efficiency" in a:
        return a.single("efficiency", "ratio"), Source("efficiency", "as stated", "H"), []
    row = thermal_efficiency(a.text("process"), a.word("process", "process"), processes())
    if row and row.k is not None:
        return row.k, Source("efficiency", row.source, row.confidence), []
    source = row.source if row else "unknown"
    text = f"no efficiency is known for {a.text('process')}: state efficiency"
    return None, Source("efficiency", source, "unknown"), [Notice("heat_input.no_efficiency", "process", text)]


def _plausible(a: Arguments, speed: Interval | None) -> list[Notice]:
    """Return a notice for each stated value outside every usual window of the process: plausibility, no limit."""
    process = a.optional_word("process", "process")
    rows = [row for row in catalogue().process_limits if row.process == process]
    stated = {
        "volts": (a.interval("volts", "voltage") if "volts" in a else None, "volts_min", "volts_max", "V"),
        "amps": (a.interval("amps", "current") if "amps" in a else None, "amps_min", "amps_max", "A"),
        "speed": (speed, "travel_min_mm_min", "travel_max_mm_min", "mm/min"),
    }
    return [
        _unusual(key, value, rows, (low, high), unit)
        for key, (value, low, high, unit) in stated.items()
        if rows and value and not _usual(value, rows, (low, high))
    ]


def _usual(value: Interval, rows: list[ProcessLimits], ends: tuple[str, str]) -> bool:
    low, high = _usual_ends(rows, ends)
    return low <= value.low and value.high <= high


def _usual_ends(rows: list[ProcessLimits], ends: tuple[str, str]) -> tuple[float, float]:
    return min(float(getattr(row, ends[0])) for row in rows), max(float(getattr(row, ends[1])) for row in rows)


def _unusual(key: str, value: Interval, rows: list[ProcessLimits], ends: tuple[str, str], unit: str) -> Notice:
    low, high = _usual_ends(rows, ends)
    span = f"{value.low:g}" if value.is_single else f"{value.low:g}..{value.high:g}"
    text = f"{key} {span} {unit} is unusual for {rows[0].process}: {low:g}..{high:g} {unit} is common"
    return Notice("heat_input.unusual", key, text)


KEYS = ("process", "efficiency", *dict.fromkeys(key for keys in _ROUTES.values() for key in keys))
