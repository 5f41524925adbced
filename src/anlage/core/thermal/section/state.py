"""What changes in a run of a section: temperatures as enthalpy, the books, and what its probes read pass by pass."""

import math
from dataclasses import dataclass, field, replace

from anlage.core.thermal.section.along import Laid
from anlage.core.thermal.section.cut_cells import CutGrid
from anlage.core.thermal.section.grid import Array
from anlage.core.thermal.section.stepping import Books
from anlage.core.thermal.section.system import Whole

COOLS = (800.0, 500.0)
SOON = 1e-9  # of a time: two that differ by less are one


@dataclass(frozen=True)
class Progress:
    """Where a run is: passes begun, time [s], and what its probes read [°C]."""

    passes: int
    time_s: float
    probes: dict[str, float]


@dataclass
class Track:
    """What a probe read over the pass that is on: its peak, and when it last fell through 800 and 500 °C."""

    peak: float
    last: tuple[float, float]
    fell: dict[float, float] = field(default_factory=dict)

    def read(self, time: float, celsius: float, ambient: float) -> None:
        """Take a reading."""
        before, was = self.last
        if math.isnan(self.peak) or celsius > self.peak:
            self.peak = celsius
        for level in COOLS:
            if was >= level > celsius > ambient:
                self.fell[level] = before + cooled_share(was - ambient, level - ambient, celsius - ambient) * (
                    time - before
                )
        self.last = (time, celsius)

    @property
    def cooled_s(self) -> float | None:
        """Time from 800 to 500 °C [s]; `None` where it did not get so hot."""
        high, low = (self.fell.get(level) for level in COOLS)
        return None if high is None or low is None or low <= high else low - high

    def copy(self) -> "Track":
        """Return a track that can go on by itself."""
        return Track(self.peak, self.last, dict(self.fell))


@dataclass
class Passed:
    """What became of one source; `start_s` is `None` while it waits, and for ever where it waits in vain."""

    id: str
    start_s: float | None = None
    wait_s: float | None = None
    before_c: dict[str, float] = field(default_factory=dict)
    tracks: dict[str, Track] = field(default_factory=dict)

    def copy(self) -> "Passed":
        """Return the same, to go on by itself."""
        tracks = {name: track.copy() for name, track in self.tracks.items()}
        return Passed(self.id, self.start_s, self.wait_s, dict(self.before_c), tracks)


@dataclass
class State:
    """Everything that changes in a run, so that a copy of it is where a run can go on."""

    time: float
    grid: CutGrid
    metal: Whole  # of every cell of the grid, -1 for none
    enthalpy: Array  # of every cell that holds metal, J/mm
    books: Books
    beyond_c: float  # temperature of the plate beyond the ends of the seam
    initial: float  # enthalpy at the start, with what was born and relabelled since, J/mm
    readings: dict[str, list[float]]
    laid: tuple[Laid, ...] = ()
    passed: tuple[Passed, ...] = ()
    times: list[float] = field(default_factory=list)
    steps: int = 0
    rejected: int = 0

    def copy(self) -> "State":
        """Return a state that can go its own way."""
        return replace(
            self,
            grid=self.grid.copy(),
            metal=self.metal.copy(),
            passed=tuple(each.copy() for each in self.passed),
            times=list(self.times),
            readings={name: list(values) for name, values in self.readings.items()},
        )


def cooled_share(was: float, level: float, now: float) -> float:
    """Return at what share of a step a rise fell through a level, by the way it falls; between 0 and 1.

    Examples
    --------
    >>> cooled_share(400, 200, 100)
    0.5
    """
    return math.log(was / level) / math.log(was / now)


def same_time(first: float, second: float) -> bool:
    """Return whether two times are one."""
    return abs(first - second) <= SOON * max(first, 1.0)
