"""The calculations of `anlage calc`: from keys to an answer; the formulas are in `core`."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from anlage.cli.answer import Answer, number, number_or_interval, shown, shown_single
from anlage.cli.arguments import Arguments
from anlage.cli.joints import (
    JOINT_KEYS,
    deposit_answer,
    electrodes_answer,
    joint_answer,
    label_of,
    shrinkage_answer,
)
from anlage.cli.node import KEYS as NODE_KEYS
from anlage.cli.node import node_answer
from anlage.core.catalogue import ProcessLimits
from anlage.core.errors import InputError, UnknownNameError
from anlage.core.heat import (
    EnergyRange,
    arc_energy,
    arc_energy_from_energy,
    arc_energy_from_power,
    clock_arc,
    clock_position,
    over_range,
    run_out,
    thermal_efficiency,
    travel_speed_range,
)
from anlage.core.ranges import Interval, over_corners
from anlage.core.results import Notice, Source
from anlage.data.tables import catalogue, efficiencies, run_out_factors


@dataclass(frozen=True, slots=True)
class Calculation:
    """One name of `anlage calc`: the keys it takes and the function that answers."""

    keys: tuple[str, ...]
    answer: Callable[[Arguments], Answer]


def calculate(name: str, words: list[str]) -> Answer:
    """Return the answer of a calculation.

    Raises
    ------
    UnknownNameError : no such calculation, key or name of a table
    InputError : a value is missing or cannot be
    """
    found = CALCULATIONS.get(name)
    if found is None:
        raise UnknownNameError(name, CALCULATIONS, where="calc")
    return found.answer(Arguments(words, known=found.keys))


# Heat input ----------------------------------------------------------------------------------

_ROUTES: Mapping[str, tuple[str, ...]] = {
    "energy": ("energy", "length"),
    "power": ("power", "speed"),
    "speed": ("volts", "amps", "speed"),
    "clock": ("volts", "amps", "od", "from_clock", "to_clock", "time"),
    "stopwatch": ("volts", "amps", "length", "time"),
}
_ARC_ENERGY = "ISO/TR 18491:2015; ASME BPVC IX QW-409.1(a); AWS D1.1"


def heat_input(arguments: Arguments) -> Answer:
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
    row = thermal_efficiency(a.text("process"), a.word("process", "process"), efficiencies())
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
    return min(getattr(row, ends[0]) for row in rows) <= value.low and value.high <= max(
        getattr(row, ends[1]) for row in rows
    )


def _unusual(key: str, value: Interval, rows: list[ProcessLimits], ends: tuple[str, str], unit: str) -> Notice:
    low, high = min(getattr(row, ends[0]) for row in rows), max(getattr(row, ends[1]) for row in rows)
    span = f"{value.low:g}" if value.is_single else f"{value.low:g}..{value.high:g}"
    text = f"{key} {span} {unit} is unusual for {rows[0].process}: {low:g}..{high:g} {unit} is common"
    return Notice("heat_input.unusual", key, text)


# Run-out, joint, pipe ------------------------------------------------------------------------


def run_out_answer(arguments: Arguments) -> Answer:
    """Answer `calc run-out`."""
    arguments.need("diameter", "consumed_length", "bead_length", "electrode_efficiency")
    efficiency = arguments.single("electrode_efficiency", "percent")
    lengths = {f"{key}_mm": arguments.interval(key, "length") for key in ("diameter", "consumed_length", "bead_length")}
    results = []

    def formula(diameter_mm: float, consumed_length_mm: float, bead_length_mm: float) -> dict[str, float]:
        found = run_out(
            diameter_mm,
            consumed_length_mm=consumed_length_mm,
            bead_length_mm=bead_length_mm,
            electrode_efficiency_percent=efficiency,
            factors=run_out_factors(),
        )
        results.append(found)
        return {"heat_input_kj_mm": found.heat_input_kj_mm, "run_out_ratio": found.run_out_ratio}

    values = over_corners(formula, lengths)
    factor = results[0].factor
    sources = [Source("heat input, k = 0.8 inside", factor.source, factor.confidence)]
    names = {"heat_input_kj_mm": "heat input", "run_out_ratio": "run-out ratio"}
    lines = [(label, shown(name, values[name])) for name, label in names.items()]
    return Answer({n: number_or_interval(v) for n, v in values.items()}, lines, sources, results[0].notices)


def pipe_answer(arguments: Arguments) -> Answer:
    """Answer `calc pipe`."""
    arguments.need("nps", "schedule")
    pipe = catalogue().pipe(arguments.text("nps"), arguments.text("schedule"))
    found = {"od_mm": pipe.od_mm, "wall_mm": pipe.wall_mm, "bore_mm": pipe.bore_mm}
    values = {name: number(value) for name, value in found.items()}
    inches = {"od_mm": f"{pipe.od_in:g}", "wall_mm": f"{pipe.wall_in:.3f}"}
    lines = [("pipe", f"NPS {pipe.nps}, DN {pipe.dn}, schedule {pipe.schedule}")]
    for name, value in found.items():
        inch = inches.get(name)
        lines.append((label_of(name), f"{shown_single(value, 'length')}  ({inch} in)" if inch else shown(name, value)))
    return Answer(values, lines, [Source("pipe size", pipe.source, pipe.confidence)])


_HEAT_INPUT_KEYS = ("process", "efficiency", *dict.fromkeys(key for keys in _ROUTES.values() for key in keys))

CALCULATIONS: Mapping[str, Calculation] = {
    "heat-input": Calculation(_HEAT_INPUT_KEYS, heat_input),
    "run-out": Calculation(("diameter", "consumed_length", "bead_length", "electrode_efficiency"), run_out_answer),
    "joint": Calculation(("type", *JOINT_KEYS, "filler"), joint_answer),
    "deposit": Calculation(("process", "wire_diameter", "wire_speed", "travel_speed", "efficiency"), deposit_answer),
    "electrodes": Calculation(("classification", "diameter", "weld_metal_kg", "od", "beads"), electrodes_answer),
    "shrinkage": Calculation(("area", "thickness", "root_opening", "heat_input", "leg", "width"), shrinkage_answer),
    "node": Calculation(NODE_KEYS, node_answer),
    "pipe": Calculation(("nps", "schedule"), pipe_answer),
}
