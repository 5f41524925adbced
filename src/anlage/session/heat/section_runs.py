"""One run of the section at one corner of what is stated; a later run starts at the pass that changed. Loads NumPy."""

from collections.abc import Callable
from dataclasses import dataclass
from threading import Lock

from msgspec import Struct

from anlage.core.drawing.curves import read_at
from anlage.core.machine import Calibrated
from anlage.core.procedure import Wps
from anlage.core.thermal.section.run import SectionRun
from anlage.session.heat.section_frames import Recorder
from anlage.session.heat.section_of import section_case, table_of_family
from anlage.session.heat.sequence import PLACE, Corner, Film

Curves = dict[str, list[tuple[float, float]]]  # by place: time [s] and temperature [°C]


class PassRan(Struct, frozen=True):
    """One pass of a run: its id, its wait [s], what its place reads before it and at its hottest after it [°C]."""

    id: str
    wait_s: float | None
    before_c: float | None
    peak_c: float | None


class Ran(Struct, frozen=True):
    """A run: its passes, when it ended, the curve of the first place, when the arcs came there and were struck [s]."""

    passes: tuple[PassRan, ...]
    total_s: float | None
    curve: tuple[tuple[float, float], ...]
    starts_s: tuple[float, ...]
    struck_s: tuple[float, ...]
    reached_c: tuple[float, ...]  # what the place of its side has cooled to as each arc comes to it [°C]
    film: Film | None


@dataclass(frozen=True)
class _Kept:
    """A run with what was written down of it."""

    run: SectionRun
    recorder: Recorder
    curves: Curves


_taking = Lock()
_last: dict[Corner, _Kept] = {}


def run_corner(wps: Wps, corner: Corner, goes_on: Callable[[float], bool], works: Calibrated) -> Ran | None:
    """Return a run of a procedure, taken up where its passes begin to differ from the last one; `None` if given up.

    Parameters
    ----------
    wps : a procedure of which nothing is missing
    corner : the longest waits or the shortest
    goes_on : told after every step how much is done, 0 to 1; once it says no, the run is given up
    works : the machines

    Raises
    ------
    InputError : the section cannot be run
    """
    kept = _begun(wps, corner, works)
    run, count = kept.run, max(len(kept.run.case.sources), 1)
    finished = False
    try:
        for progress in run.advance():
            if not goes_on(max(progress.passes - 1, 0) / count):
                return None
            for name, celsius in progress.probes.items():
                kept.curves[name].append((progress.time_s, celsius))
            if corner == "long":
                kept.recorder.take(progress.time_s, run.temperatures())
        finished = True
    finally:
        with _taking:
            if finished or corner not in _last:
                _last[corner] = kept
    return _ran(kept)


def _begun(wps: Wps, corner: Corner, works: Calibrated) -> _Kept:
    """Return a run at its start, or where the last one was before the first pass that differs."""
    with _taking:
        last = _last.get(corner)
    run = SectionRun(section_case(wps, corner, works), table_of_family, None if last is None else last.run)
    since = run.state.time if run.state.passed else 0.0
    if last is None or since <= 0.0:
        return _Kept(run, Recorder(run.build.lines), {name: [] for name in run.case.probes})
    curves = {name: [point for point in points if point[0] <= since] for name, points in last.curves.items()}
    return _Kept(run, last.recorder.until(since), curves)


def _ran(kept: _Kept) -> Ran:
    run, curves = kept.run, kept.curves
    frames = kept.recorder.frames()
    film = None if frames is None else Film(frames, tuple(run.case.probes.values()))
    read = [PLACE if each.wait_for is None else each.wait_for.probe for each in run.case.sources]
    passed = run.state.passed
    rows = []
    for each, name in zip(passed, read, strict=False):
        peak = each.tracks[name].peak if name in each.tracks else None
        rows.append(PassRan(each.id, each.wait_s, each.before_c.get(name), peak))
    total = run.state.time if all(each.start_s is not None for each in passed) else None
    starts = tuple(each.start_s for each in passed if each.start_s is not None)
    struck = tuple(start - source.delay_s for start, source in zip(starts, run.case.sources, strict=False))
    reached = tuple(read_at(curves[name], start) for name, start in zip(read, starts, strict=False))
    return Ran(tuple(rows), total, tuple(curves[PLACE]), starts, struck, reached, film)
