"""A run of a case: pass by pass, each waiting until its probe reads less, with the books of where its heat went."""

import math
from collections.abc import Generator, Iterator
from dataclasses import replace

import numpy as np
from msgspec.structs import replace as with_values

from anlage.core.errors import InputError
from anlage.core.thermal.section.along import Laid, along_factor, leaving
from anlage.core.thermal.section.build import Named, built, grid_of, heated_share, require_room, shedding_of
from anlage.core.thermal.section.case import SectionCase, SourceCase
from anlage.core.thermal.section.grid import Array
from anlage.core.thermal.section.losses import Loss
from anlage.core.thermal.section.place import Reading, reading_of
from anlage.core.thermal.section.state import Passed, Progress, State, Track, cooled_share, same_time
from anlage.core.thermal.section.stepping import Books, Found, Medium, Sink, Stepped, Tolerance, step
from anlage.core.thermal.section.system import System, Whole, system_of
from anlage.core.thermal.section.tables import HeatTable

ACCEPTED, SAFE, SAFE_AGAIN, MOST_GROWTH, LEAST_SHRINK = 1.4, 0.85, 0.8, 3.0, 0.2
FIRST_ON_S, FIRST_OFF_S = 0.02, 0.05
SHORTEST_S = 1e-9
WAIT_STEP_S, LONGEST_WAIT_S = 1.0, 86400.0
BEYOND_STEP_S = 10.0
EVENED_FROM_S = 10.0  # steps this long leave a sliver behind; shorter ones follow it truly
AFTER_LAST_S = 60.0


class SectionRun:
    """One run; `advance` steps through it, and a later run can take it up where its passes begin to differ.

    Parameters
    ----------
    case : what is run
    named : returns the heat table of a metal by its name
    before : a run whose leading passes, and all else, may be the same: what is the same is not run again

    Raises
    ------
    InputError : the case cannot be run
    """

    def __init__(self, case: SectionCase, named: Named, before: "SectionRun | None" = None) -> None:
        self.case = case
        self.build = built(case, named)
        self.kept: list[State] = []  # the state before each pass
        self._tolerance = Tolerance(case.tolerance.absolute_k, case.tolerance.relative, case.tolerance.fixed_step_s)
        self._system: System
        self._medium: Medium
        self._readings: dict[str, Reading]
        self._found: tuple[Array, Found] | None = None
        self._loss: tuple[float, float] | None = None  # what was given off at the start of the last step, and its size
        self._start()
        self._beyond_loss = self._ungrooved_loss()
        same = 0 if before is None else _same_passes(before, self)
        if before is not None and same:
            self.kept = before.kept[: same + 1]
        if self.kept:
            self.state = self.kept[-1].copy()
            self._rebuild(None)
        self._require_probes()

    # What is asked of it ------------------------------------------------------------------------

    def advance(self) -> Iterator[Progress]:
        """Run to the end, yielding after every step; to cancel, ask no further.

        Raises
        ------
        InputError : a source starts before the one before it ends, or no temperature comes out
        """
        for at in range(len(self.state.passed), len(self.case.sources)):
            if len(self.kept) <= at:
                self._settle()
                self.kept.append(self.state.copy())
            passed = Passed(self.case.sources[at].id)
            self.state.passed = (*self.state.passed, passed)
            yield from self._run_pass(self.case.sources[at], passed)
            if passed.start_s is None:
                return
        end = self.state.time + AFTER_LAST_S if self.case.end_s == "all" else float(self.case.end_s)
        yield from self._until(end, FIRST_OFF_S)
        self._settle()

    def temperatures(self) -> Array:
        """Return the temperature of every cell of the grid [°C], not a number where there is no metal."""
        return self._system.spread(self._here().celsius)

    def probes(self) -> dict[str, float]:
        """Return what every probe reads now [°C], not a number while there is no metal."""
        celsius = self._here().celsius
        return {name: reading.of(celsius) for name, reading in self._readings.items()}

    def places(self) -> dict[str, tuple[float, float] | None]:
        """Return the place that every probe really reads [mm]."""
        return {name: reading.at_mm for name, reading in self._readings.items()}

    @property
    def stored(self) -> float:
        """Heat that the section holds more than at its start [J/mm]; metal that was born brings its own."""
        return float(self.state.enthalpy.sum()) - self.state.initial

    @property
    def residual(self) -> float:
        """What the books do not explain [J/mm]."""
        books = self.state.books
        return self.stored + books.lost + books.along - books.supplied

    @property
    def mean_c(self) -> float:
        """Temperature at which the section would even out [°C]."""
        volumes = {
            int(n): float(self._system.volume[self._medium.metal == n].sum()) for n in np.unique(self._medium.metal)
        }
        total = float(self.state.enthalpy.sum())
        low, high = -200.0, 20000.0
        for _ in range(100):
            middle = (low + high) / 2
            heat = sum(self._table(n).enthalpy_at(middle) * volume for n, volume in volumes.items())
            low, high = (middle, high) if heat < total else (low, middle)
        return (low + high) / 2

    @property
    def metal_area_mm2(self) -> float:
        """Area of all metal [mm²]."""
        return float(self.state.grid.metal.sum())

    @property
    def cells(self) -> int:
        """How many cells hold metal."""
        return self._system.count

    @property
    def seam_factor(self) -> float:
        """F of the last pass at its age now; 1 without a third dimension."""
        along, laid = self.build.along, self.state.laid
        if along is None or not laid:
            return 1.0
        age = self.state.time - laid[-1].at_s
        return along_factor(along, age, diffusivity=self.build.diffusivity, over_mm=laid[-1].over_mm)

    # How it goes --------------------------------------------------------------------------------

    def _start(self) -> None:
        """Make the state at the start: metal as it lies, at its temperature."""
        grid, celsius, metal = grid_of(self.build)
        volume = grid.metal * self.build.weights.cells[None, :]
        enthalpy = self._enthalpy_of(celsius, metal) * volume
        seam, initial = self.case.seam, self.case.areas[0].initial_c
        own = initial if isinstance(initial, float) else self.case.ambient_c
        beyond = own if seam is None or seam.far_c is None else seam.far_c
        laid: tuple[Laid, ...] = ()
        if seam is not None and seam.preheated_mm is not None:
            cold = self._enthalpy_of(np.full_like(celsius, self.case.ambient_c), metal) * volume
            laid, beyond = (Laid(float((enthalpy - cold).sum()), 0.0, seam.preheated_mm),), self.case.ambient_c
        empty: dict[str, list[float]] = {name: [] for name in self.case.probes}
        self.state = State(0.0, grid, metal, enthalpy, Books(), beyond, float(enthalpy.sum()), empty, laid)
        self._rebuild(enthalpy)

    def _run_pass(self, source: SourceCase, passed: Passed) -> Iterator[Progress]:
        state = self.state
        planned = self._planned(source)
        yield from self._until(planned, FIRST_OFF_S)
        arrived = state.time
        if source.wait_for is not None:
            reached = yield from self._wait(source.wait_for.probe, source.wait_for.below_c)
            if not reached:
                return
        passed.wait_s, passed.before_c = state.time - arrived, self.probes()
        yield from self._until(state.time + source.delay_s, FIRST_OFF_S)
        passed.start_s = state.time
        into = self._born(source)
        passed.tracks = {name: Track(value, (state.time, value)) for name, value in self.probes().items()}
        state.laid = (*state.laid, Laid(source.heat_j_mm, state.time))
        if source.duration_s == 0:
            state.enthalpy = state.enthalpy + source.heat_j_mm * into
            state.books = replace(state.books, supplied=state.books.supplied + source.heat_j_mm)
            self._track()
            return
        self._medium = replace(self._medium, source=source.heat_j_mm / source.duration_s * into)
        yield from self._until(state.time + source.duration_s, FIRST_ON_S)
        self._medium = replace(self._medium, source=np.zeros_like(into))

    def _planned(self, source: SourceCase) -> float:
        """Return when a source is to start [s].

        Raises
        ------
        InputError : that is before the one before it ends
        """
        planned = source.start_s
        if planned is None:
            before = self.state.passed[-2].start_s
            assert before is not None
            assert source.gap_s is not None
            planned = before + source.gap_s
        if planned < self.state.time and not same_time(planned, self.state.time):
            mend = f"start it at {self.state.time:g} s or later"
            raise InputError("starts before the one before it ends", where=f"source {source.id}", mend=mend)
        return planned

    def _wait(self, probe: str, below: float) -> Generator[Progress, None, bool]:
        """Step until a probe reads less, to the very time; return whether it ever does."""
        state, ambient = self.state, self.case.ambient_c
        limit, dt = state.time + LONGEST_WAIT_S, WAIT_STEP_S
        before = self.probes()[probe]
        while before >= below:
            if below <= ambient or state.time >= limit:
                return False
            was, loss = replace(state), self._loss
            taken, dt = self._step(max(dt, WAIT_STEP_S))
            after = self.probes()[probe]
            if after < below:
                share = cooled_share(before - ambient, below - ambient, max(after - ambient, 1e-9))
                for name in ("time", "enthalpy", "books", "beyond_c"):
                    setattr(state, name, getattr(was, name))
                target, self._loss = state.time + share * taken, loss
                while state.time < target and not same_time(state.time, target):
                    self._step(target - state.time)
                before = min(self.probes()[probe], math.nextafter(below, -math.inf))
            else:
                before = after
            self._track()
            self._record()
            yield self._progress()
        return True

    def _until(self, end: float, first: float) -> Iterator[Progress]:
        """Step to a time, meeting every time that is asked for."""
        state, fixed = self.state, self._tolerance.fixed_step_s
        dt = fixed or first
        while state.time < end and not same_time(state.time, end):
            stop = min([end, *(t for t in self._asked() if t > state.time and not same_time(t, state.time))])
            left = stop - state.time
            wanted = min(dt, left) if fixed else left if dt >= left else left / 2 if 2 * dt > left else dt
            taken, following = self._step(wanted)
            if taken == wanted < dt:
                following = max(following, dt)
            if taken == left:
                state.time = stop
            dt = following
            self._track()
            self._record()
            yield self._progress()

    def _asked(self) -> tuple[float, ...]:
        return self.case.times_s or ()

    def _step(self, dt: float) -> tuple[float, float]:
        """Take one step of `dt` or, where that is too far off, a shorter one; return its size and the next one's."""
        state, fixed = self.state, self._tolerance.fixed_step_s
        while True:
            sink, beyond = self._sink(dt)
            taken = step(self._medium, state.enthalpy, self._here(), dt, (sink, self._tolerance))
            if math.isfinite(taken.error) and (fixed or taken.error <= ACCEPTED or dt <= SHORTEST_S):
                break
            if dt <= SHORTEST_S:
                raise InputError("comes to no temperature", where="section", mend="state other heats or properties")
            state.rejected += 1
            dt *= max(LEAST_SHRINK, SAFE_AGAIN / math.sqrt(taken.error)) if math.isfinite(taken.error) else LEAST_SHRINK
        self._book(taken, dt)
        state.enthalpy = self._system.evened(taken.enthalpy) if dt >= EVENED_FROM_S else taken.enthalpy
        state.beyond_c = beyond
        state.time, state.steps = state.time + dt, state.steps + 1
        if fixed:
            return dt, fixed
        return dt, dt * (min(MOST_GROWTH, SAFE / math.sqrt(taken.error)) if taken.error > 0 else MOST_GROWTH)

    def _book(self, taken: Stepped, dt: float) -> None:
        books = self.state.books
        trapezium = 0.0 if self._loss is None else self._loss[1] * (self._loss[0] + taken.given_off) / 2
        self._loss = (taken.given_off, dt)
        supplied = books.supplied + dt * float(self._medium.source.sum())
        self.state.books = Books(
            supplied, books.lost + taken.lost, books.along + taken.along, books.lost_trapezium + trapezium
        )

    def _settle(self) -> None:
        """Close the trapezium of the last step, before surfaces change or at the end."""
        if self._loss is None:
            return
        given_off = float(self._medium.shedding.heat(self._here().celsius, self._medium.ambient_c)[0].sum())
        more = self._loss[1] * (self._loss[0] + given_off) / 2
        self.state.books = replace(self.state.books, lost_trapezium=self.state.books.lost_trapezium + more)
        self._loss = None

    def _sink(self, dt: float) -> tuple[Sink, float]:
        """Return what leaves along the seam at the middle of a step, and the temperature beyond at its end."""
        along = self.build.along
        if along is None or not along.loses:
            return Sink(), self.state.beyond_c
        middle = self._beyond_after(dt / 2)
        share = leaving(along, self.state.laid, self.state.time + dt / 2, diffusivity=self.build.diffusivity)
        levels = np.array([table.enthalpy_at(middle) for table in self.build.tables.metals])
        return Sink(share, levels[self._medium.metal]), self._beyond_after(dt)

    def _beyond_after(self, dt: float) -> float:
        """Return the plate beyond the ends of the seam after a time, losing by its own surfaces alone [°C]."""
        seam, here = self.case.seam, self.state.beyond_c
        if seam is None or seam.preheated_mm is not None or abs(here - self.case.ambient_c) < 1e-9:
            return here
        count = max(1, math.ceil(dt / BEYOND_STEP_S))
        for _ in range(count):
            half = here - dt / count / 2 * self._beyond_rate(here)
            here -= dt / count * self._beyond_rate(half)
        return here

    def _beyond_rate(self, celsius: float) -> float:
        table, at = self._table(self.build.number(self.case.areas[0].metal)), np.array([celsius])
        given_off = sum(float(loss.flux(at, self.case.ambient_c)[0][0]) * per for loss, per in self._beyond_loss)
        return given_off * table.diffusivity_at(celsius) / table.conductivity_at(celsius)

    # What it holds ------------------------------------------------------------------------------

    def _born(self, source: SourceCase) -> Array:
        """Add the metal of a source, at ambient; return how its heat spreads over the cells."""
        state = self.state
        if source.metal is None:
            return self._system.gathered(heated_share(self.build, state.grid, source))
        self._settle()
        enthalpy, weights = self._system.spread(state.enthalpy, 0.0), self.build.weights.cells
        old, areas = state.grid.metal, state.grid.add(source.outline_mm)
        require_room(state.grid, f"source {source.id}")
        number = self.build.number(source.metal)
        taken = (areas > old) & (state.metal != number)
        for i, j in np.argwhere(taken & (state.metal >= 0)):  # what little lay there counts as the new metal, as hot
            volume, before = old[i, j] * weights[j], enthalpy[i, j]
            celsius = self._table(int(state.metal[i, j])).temperature_at(before / volume)
            enthalpy[i, j] = volume * self._table(number).enthalpy_at(celsius)
            state.initial += enthalpy[i, j] - before
        state.metal = np.where(taken, number, state.metal)
        fresh = areas * weights[None, :]
        born = fresh * self._enthalpy_of(np.full_like(fresh, self.case.ambient_c), state.metal)
        state.initial += float(born.sum())
        self._rebuild(enthalpy + born)
        return self._system.gathered(fresh / fresh.sum())

    def _rebuild(self, enthalpy: Array | None) -> None:
        """Work out cells, links and surfaces anew for the metal there is; `enthalpy` is that of the grid's cells."""
        state, build = self.state, self.build
        self._found = None
        self._system = system_of(state.grid.metal, state.metal, state.grid.faces(), build.lines, build.weights)
        if enthalpy is not None:
            state.enthalpy = self._system.gathered(enthalpy)
        self._medium = Medium(
            self._system, build.tables, self._numbers(), shedding_of(build, state.grid, self._system),
            np.zeros(self._system.count), self.case.ambient_c,
        )  # fmt: skip
        self._readings = {
            name: reading_of(place, self._system, build.lines) for name, place in self.case.probes.items()
        }

    def _numbers(self) -> Whole:
        return np.asarray(self.state.metal[self._system.number >= 0])

    def _ungrooved_loss(self) -> tuple[tuple[Loss, float], ...]:
        """Return free surface over metal of the section as it is at the start, its grooves full [1/mm]."""
        weights = self.build.weights.cells[None, :]
        full = sum(float((area * weights).sum()) for area in self.state.grid.groove_area)
        volume = float(self._system.volume.sum()) + full
        return tuple((loss, float(lengths.sum()) / volume) for loss, _, lengths in self._medium.shedding.parts)

    def _enthalpy_of(self, celsius: Array, metal: Whole) -> Array:
        """Return the enthalpy of temperatures, cell by cell [J/mm³]."""
        found = np.zeros_like(celsius)
        for number in np.unique(metal[metal >= 0]):
            own, table = metal == number, self._table(int(number))
            values, back = np.unique(celsius[own], return_inverse=True)
            found[own] = np.array([table.enthalpy_at(float(value)) for value in values])[back]
        return found

    def _table(self, number: int) -> HeatTable:
        return self.build.tables.metals[number]

    # What it writes down ------------------------------------------------------------------------

    def _here(self) -> Found:
        """Return the temperatures of the state as it is, worked out once."""
        if self._found is None or self._found[0] is not self.state.enthalpy:
            self._found = (self.state.enthalpy, self._medium.state(self.state.enthalpy))
        return self._found[1]

    def _track(self) -> None:
        passed = next((each for each in reversed(self.state.passed) if each.start_s is not None), None)
        if passed is None:
            return
        for name, value in self.probes().items():
            if not math.isnan(value):
                passed.tracks[name].read(self.state.time, value, self.case.ambient_c)

    def _record(self) -> None:
        state = self.state
        if self.case.times_s is not None and not any(same_time(t, state.time) for t in self.case.times_s):
            return
        if state.times and same_time(state.times[-1], state.time):
            return
        state.times.append(state.time)
        for name, value in self.probes().items():
            state.readings[name].append(value)

    def _progress(self) -> Progress:
        return Progress(len(self.state.passed), self.state.time, self.probes())

    def _require_probes(self) -> None:
        """Refuse a probe that never reads metal, now or when all passes are laid."""
        empty = [name for name, reading in self._readings.items() if not reading.cells]
        if not empty:
            return
        grid = self.state.grid.copy()
        for source in self.case.sources[len(self.state.passed) :]:
            if source.metal is not None:
                grid.add(source.outline_mm)
        kinds = np.zeros(grid.metal.shape, dtype=np.intp)
        system = system_of(grid.metal, kinds, grid.faces(), self.build.lines, self.build.weights)
        for name in empty:
            if not reading_of(self.case.probes[name], system, self.build.lines).cells:
                raise InputError("lies on no metal", where=f"probes.{name}", mend="state a place within an outline")


SAME_LINE_MM = 1e-9  # lines come out of other sums in other last digits


def _same_passes(before: SectionRun, now: SectionRun) -> int:
    """Return how many leading passes of two runs are the same; 0 where anything else differs.

    The grid is laid for all passes together: a later one that reaches further lays other lines under the same ones.
    """
    if with_values(before.case, sources=(), end_s="all") != with_values(now.case, sources=(), end_s="all"):
        return 0
    count = 0
    for one, other in zip(before.case.sources, now.case.sources, strict=False):
        if one != other:
            break
        count += 1
    kept = before.kept[: count + 1]
    return count if kept and _on_same_lines(before, now, kept[-1].grid.metal) else 0


def _on_same_lines(before: SectionRun, now: SectionRun, metal: Array) -> bool:
    """Return whether every cell that held metal lies between the same lines in both; empty ones may have moved."""
    for axis, (own, other) in enumerate(zip(before.build.lines, now.build.lines, strict=True)):
        if own.shape != other.shape:
            return False
        with_metal = np.flatnonzero((metal > 0).any(axis=1 - axis))
        for ends in (with_metal, with_metal + 1):
            if not np.allclose(own[ends], other[ends], rtol=0.0, atol=SAME_LINE_MM):
                return False
    return True
