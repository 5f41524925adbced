"""Speed and error of the section model: against real time, and against finite elements on the same lines and steps.

The joint is the one of the tests. The elements are bilinear, Crank-Nicolson after two Euler steps at each switch, with
properties extrapolated to the middle of the step, assembled and solved anew in every step.
"""

import sys
import time
from itertools import pairwise
from pathlib import Path

import numpy as np
import shapely
import skfem
from scipy.sparse.linalg import splu
from skfem.helpers import dot, grad

sys.path.insert(0, str(Path(__file__).parent.parent))

from anlage.core.thermal.section.case import SectionCase
from anlage.core.thermal.section.grid import Array
from anlage.core.thermal.section.run import SectionRun
from anlage.session.calculations.section import named_table
from tests.published.section.cases import case, plate, reference, v_outline

FASTER, SLOWER = 1500, 15
PASSES, READ_S, YOUNG_S = 3, 450.0, 8.0
EMISSIVITY, BOLTZMANN, CONVECTION, CAP_C, KELVIN = 0.8, 5.670374e-14, 1.351e-6, 1450.0, 273.15
PLACES = {"near": (12.0, 15.0), "above": (0.0, 25.0), "far": (70.0, 15.0)}


def solid(fine: float, **given: object) -> SectionCase:
    """Return the joint as a solid plate whose passes heat the metal that is there: what both methods can do."""
    told = reference(fine, PASSES)
    sources = [{k: v for k, v in s.items() if k not in ("metal", "wait_for")} for s in told["sources"]]
    top = max(y for y, _ in v_outline(30, 60, 3, 2))
    grid = {"fine_mm": fine, "core_mm": [[-top - 6, top + 6], [0, 30]]}
    return case(
        **{**told, "areas": plate(-200, 200, 0, 30, initial_c=100.0), "sources": sources, "grid": grid,
           "losses": {"convection_w_mm2_k1_25": CONVECTION}, "probes": PLACES, "end_s": READ_S, **given}
    )  # fmt: skip


def ran(of: SectionCase) -> tuple[SectionRun, float, list[float]]:
    """Return a run, how long it took [s], and when its steps ended."""
    begun = time.perf_counter()
    found = SectionRun(of, named_table)
    steps = [progress.time_s for progress in found.advance()]
    return found, time.perf_counter() - begun, steps


class Elements:
    """The same section by finite elements, marched along the same steps."""

    def __init__(self, run: SectionRun) -> None:
        self.run, table = run, run.build.tables.metals[0]
        mesh = skfem.MeshQuad.init_tensor(*run.build.lines)
        self.basis = skfem.Basis(mesh, skfem.ElementQuad1())
        self.edges = skfem.FacetBasis(mesh, skfem.ElementQuad1())
        self.loads = [
            self._load(source.outline_mm, source.heat_j_mm / source.duration_s) for source in run.case.sources
        ]
        self.celsius = np.arange(-40.0, 4000.0, 2.0)
        levels = np.array([table.enthalpy_at(c) for c in np.append(self.celsius, 4000.0) - 1])
        self.capacity = np.diff(levels) / 2
        self.conductivity = np.array([table.conductivity_at(c) for c in self.celsius])

    def _load(self, outline: object, power: float) -> Array:
        shape = shapely.Polygon(outline)
        load = skfem.LinearForm(lambda v, w: v * shapely.contains_xy(shape, w.x[0], w.x[1])).assemble(self.basis)
        return np.asarray(power * load / load.sum())

    def march(self, steps: list[float]) -> dict[str, list[float]]:
        """Return what its places read after every step."""
        starts = [each.start_s or 0.0 for each in self.run.state.passed]
        ends = [start + source.duration_s for start, source in zip(starts, self.run.case.sources, strict=True)]
        switches = [*starts, *ends]
        places = {name: self.basis.probes(np.array([[y], [z]])) for name, (y, z) in PLACES.items()}
        now = before = np.full(self.basis.N, 100.0)
        last, since = 1.0, 0
        found: dict[str, list[float]] = {name: [] for name in PLACES}
        for start, end in pairwise([0.0, *steps]):
            dt, since = end - start, 0 if any(abs(start - s) < 1e-6 for s in switches) else since + 1
            ahead = now + (now - before) * (dt / last) / 2 if since > 1 else now
            on = [load for load, a, b in zip(self.loads, starts, ends, strict=True) if a - 1e-6 <= start < b - 1e-6]
            theta = 1.0 if since < 2 else 0.5
            right, matrix = self._system(now, ahead, dt, theta)
            before, now = now, splu(matrix.tocsc()).solve(right + dt * sum(on, np.zeros(self.basis.N)))
            last = dt
            for name, probe in places.items():
                found[name].append(float((probe @ now)[0]))
        return found

    def _system(self, now: Array, ahead: Array, dt: float, theta: float) -> tuple[Array, object]:
        within = self.basis.interpolate(ahead)
        outside = self.edges.interpolate(ahead)
        mass = skfem.BilinearForm(lambda u, v, w: np.interp(w["t"], self.celsius, self.capacity) * u * v).assemble(
            self.basis, t=within
        )
        stiff = skfem.BilinearForm(
            lambda u, v, w: np.interp(w["t"], self.celsius, self.conductivity) * dot(grad(u), grad(v))
        ).assemble(self.basis, t=within)
        lose = skfem.BilinearForm(lambda u, v, w: self._coefficient(w["t"]) * u * v).assemble(self.edges, t=outside)
        air = skfem.LinearForm(lambda v, w: self._coefficient(w["t"]) * 20.0 * v).assemble(self.edges, t=outside)
        conduct = stiff + lose
        return (mass - (1 - theta) * dt * conduct) @ now + dt * air, mass + theta * dt * conduct

    @staticmethod
    def _coefficient(celsius: Array) -> Array:
        hot = np.minimum(celsius, CAP_C)
        flux = EMISSIVITY * BOLTZMANN * ((hot + KELVIN) ** 4 - 293.15**4) + CONVECTION * np.abs(hot - 20) ** 1.25
        return np.asarray(flux / np.maximum(celsius - 20, 1e-3))


def main() -> None:
    """Print the ratios."""
    whole, took, _ = ran(case(**reference()))
    off = abs(whole.residual) / whole.state.books.supplied
    print(f"20 passes, 30 mm: {whole.state.time / took:.0f} x real time, {FASTER} asked "
          f"({whole.cells} cells, {whole.state.steps} steps, books off by {off:.0e})")  # fmt: skip
    edit = reference()
    edit["sources"][-1] = {**edit["sources"][-1], "heat_j_mm": 1450.0}
    begun = time.perf_counter()
    again = SectionRun(case(**edit), named_table, whole)
    for _ in again.advance():
        pass
    print(f"an edit of its last pass: {(time.perf_counter() - begun) / took:.2f} of the whole run, 0.1 asked")
    best, _, times = ran(solid(0.5, tolerance={"absolute_k": 0.5, "relative": 0.002}))
    for fine in (2.0, 1.0):
        found, ours, steps = ran(solid(fine))
        elements = Elements(found)
        begun = time.perf_counter()
        theirs = elements.march(steps)
        ratio = (time.perf_counter() - begun) / ours
        errors = [0.0, 0.0]
        starts = [each.start_s or 0.0 for each in found.state.passed]
        late = [n for n, t in enumerate(steps) if t - max(s for s in starts if s <= t) > YOUNG_S]
        for name in PLACES:
            wanted = np.interp(steps, times, best.state.readings[name])
            for at, got in enumerate((found.state.readings[name], theirs[name])):
                errors[at] = max(errors[at], *(abs(got[n] - wanted[n]) for n in late))
        print(f"{fine:g} mm: elements take {ratio:.1f} x as long, {SLOWER} asked; "
              f"largest error {errors[0]:.2f} K, theirs {errors[1]:.2f} K")  # fmt: skip


if __name__ == "__main__":
    main()
