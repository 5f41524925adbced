"""The section model with metal that is born: heat content, books, waits, and an open V against finite elements."""

import math
from itertools import pairwise

import numpy as np
import pytest
import skfem
from scipy.sparse.linalg import splu
from skfem.helpers import dot, grad

from anlage.core.thermal.section.build import built, grid_of, shedding_of
from anlage.core.thermal.section.metals import enthalpy_curve, metal_named
from anlage.core.thermal.section.system import system_of
from anlage.data.heat_tables import heat_metals
from anlage.session.calculations.section import named_table
from tests.published.section.cases import (
    TEST,
    case,
    plate,
    reading,
    rectangle,
    reference,
    reference_layers,
    run,
    source,
    v_layers,
    v_plates,
)


@pytest.mark.parametrize(
    ("celsius", "enthalpy"),
    [(100, 0.29207), (200, 0.69230), (400, 1.58055), (600, 2.63554), (735, 3.73211), (900, 4.96170), (1200, 6.49245),
     (1450, 7.76808), (1500, 10.1427), (2000, 12.6940)],
)  # fmt: skip
def test_enthalpy_of_carbon_steel(celsius, enthalpy):
    """EN 1993-1-2, integrated in closed form; 270 kJ/kg of latent heat from 1450 to 1500 °C."""
    even = np.arange(-100, 3100.1, 0.125)
    found = np.interp(celsius, even, enthalpy_curve(metal_named("C-Mn", heat_metals()), even))
    assert found == pytest.approx(enthalpy, abs=6e-5)


def test_steel_evens_out_at_its_heat_content():
    found = run(
        metals={"m": {"catalogue": "C-Mn"}}, areas=plate(0, 80, 0, 10), probes={"a": [60, 5]}, end_s=20000.0,
        sources=[source("q", 1600.0, rectangle(0, 8, 0, 3))],
    )  # fmt: skip
    assert reading(found, "a")[-1] == pytest.approx(484.92, rel=1e-5)  # by the closed form of EN 1993-1-2


@pytest.mark.parametrize(
    ("metal", "wanted"), [(TEST, (137.53, 221.61, 317.84)), ({"catalogue": "C-Mn"}, (151.01, 246.35, 348.71))]
)
def test_heat_content_with_metal_born_pass_by_pass(metal, wanted):
    """h(T_n)·(A_0 + ΣA_i) = h(T_p)·A_0 + Σ(A_i·h(T_a) + Q_i): a 50 degree V of 18 mm, each pass left to even out."""
    beads = v_layers(18, 50, 3, [25, 35, 45, 100.084])[:3]
    found = run(
        metals={"m": metal}, areas=v_plates(18, 50, 3, 80, initial_c=75.0), grid={"fine_mm": 1.5},
        sources=[source(n, heat, bead, metal="m", **({"gap_s": 9000.0} if n else {}))
                 for n, (heat, bead) in enumerate(zip((800.0, 1100.0, 1300.0), beads, strict=True))],
        probes={"a": [30, 9]}, times_s=[8999.0, 17999.0, 26999.0], end_s=27000.0,
    )  # fmt: skip
    assert reading(found, "a") == pytest.approx(wanted, abs=0.3)
    assert found.mean_c == pytest.approx(wanted[2], abs=0.05)
    celsius = found.temperatures()
    assert np.nanmax(celsius) - np.nanmin(celsius) < 0.5
    assert found.residual == pytest.approx(0, abs=1e-9 * 3200)
    assert found.metal_area_mm2 == pytest.approx(2674.916 + 105, abs=1e-3)


# What developers are held to ----------------------------------------------------------------------------------------


@pytest.fixture(scope="module")
def whole():
    return run(**reference(2.0, 6))


def test_the_books_close_on_a_joint_with_waits(whole):
    books = whole.state.books
    assert books.supplied == pytest.approx(900 + 5 * 1400)
    assert abs(whole.residual) < 1e-9 * books.supplied
    assert books.lost_trapezium == pytest.approx(books.lost, rel=1e-3)


def test_a_pass_waits_until_its_place_has_cooled(whole):
    waited = [each for each in whole.state.passed[1:] if each.wait_s > 0]
    assert waited
    for each in waited:
        assert each.before_c["m"] == pytest.approx(200, abs=0.05)
    for before, after in zip(whole.state.passed, whole.state.passed[1:], strict=False):
        assert after.start_s >= before.start_s + 185 - 1e-6


def test_an_edit_of_a_late_pass_gives_the_same_numbers_as_a_whole_run(whole):
    """Bit for bit: what comes before the pass that changed is taken over."""
    told = reference(2.0, 6)
    told["sources"][-1] = {**told["sources"][-1], "heat_j_mm": 1500.0}
    again, fresh = run(before=whole, **told), run(**told)
    assert [each.start_s for each in again.state.passed] == [each.start_s for each in fresh.state.passed]
    assert again.state.readings == fresh.state.readings
    assert np.array_equal(again.state.enthalpy, fresh.state.enthalpy)
    assert (again.state.books, again.state.steps) == (fresh.state.books, fresh.state.steps)
    other = {**told, "ambient_c": 15.0}
    assert run(before=whole, **other).state.readings == run(**other).state.readings


@pytest.mark.parametrize("higher_mm", [1.0, 20.0])
def test_a_late_pass_that_reaches_further_lays_another_grid_under_the_same_early_ones(whole, higher_mm):
    told = reference(2.0, 6)
    top = [[y, z + higher_mm if z > 16.0 else z] for y, z in told["sources"][-1]["outline_mm"]]
    told["sources"][-1] = {**told["sources"][-1], "outline_mm": top}
    fresh = run(**told)
    assert not np.array_equal(fresh.build.lines[1], whole.build.lines[1]), "or nothing is shown"
    again = run(before=whole, **told)
    assert again.state.readings == fresh.state.readings
    assert np.array_equal(again.state.enthalpy, fresh.state.enthalpy)


def test_cells_hardly_matter():
    """Time and temperature before each pass at 2 mm against 1 mm: within 0.3 % and 0.5 K."""
    coarse, fine = (run(**reference(size, 4)) for size in (2.0, 1.0))
    assert coarse.state.passed[-1].start_s == pytest.approx(fine.state.passed[-1].start_s, rel=0.003)
    for one, other in zip(coarse.state.passed[1:], fine.state.passed[1:], strict=True):
        assert one.before_c["m"] == pytest.approx(other.before_c["m"], abs=0.5)


def test_a_groove_gives_off_as_its_mouth_whatever_the_cells():
    lengths = []
    for fine in (2.0, 1.5, 1.0):
        build = built(case(**reference(fine, 1)), named_table)
        grid, _, metal = grid_of(build)
        system = system_of(grid.metal, metal, grid.faces(), build.lines, build.weights)
        parts = shedding_of(build, grid, system).parts
        lengths.append(sum(float(length.sum()) for _, _, length in parts))
    mouth = 3 + 2 * 28 * math.tan(math.radians(30))
    outside = 2 * (200 - mouth / 2) + 2 * (200 - 1.5) + 2 * 30
    assert lengths == pytest.approx([outside + mouth] * 3, rel=1e-6)


# An open V against finite elements ----------------------------------------------------------------------------------


class Elements:
    """Bilinear elements on a mesh that follows the walls of a partly filled V, Crank-Nicolson after two Euler steps."""

    def __init__(self, low, level, half=200.0, thickness=30.0, size=0.5):
        self.level = level
        marks = sorted({0.0, 2.0, low, level, thickness})
        parts = [np.linspace(a, b, max(round((b - a) / size), 2) + 1) for a, b in pairwise(marks)]
        rows = np.unique(np.concatenate(parts))
        out = [0.0]
        while out[-1] < 1:
            out.append(out[-1] + max(size / 190, 0.06 * out[-1]))
        out = np.array(out) / out[-1]
        inner = np.linspace(0, 1, 2 * max(int(self.wall(level) / size / 2), 8) + 1)
        points, cells = [], []
        number = {}

        def point(y, z):
            key = (round(y, 9), round(z, 9))
            if key not in number:
                number[key] = len(points)
                points.append(key)
            return number[key]

        def lay(columns, pairs):
            for under, over in pairs:
                for a, b in pairwise(columns):
                    cells.append([point(*a(under)), point(*b(under)), point(*b(over)), point(*a(over))])

        pairs = list(pairwise(rows))
        lay([lambda z, s=s: (self.wall(z) + s * (half - self.wall(z)), z) for s in out], pairs)
        lay([lambda z, s=s: (s * self.wall(z), z) for s in inner], [p for p in pairs if p[1] <= level + 1e-9])
        mesh = skfem.MeshQuad(np.array(points).T, np.array(cells).T)
        self.basis = skfem.Basis(mesh, skfem.ElementQuad1())
        self.mesh = mesh
        self.stiff = 0.040 * skfem.BilinearForm(lambda u, v, _w: dot(grad(u), grad(v))).assemble(self.basis)
        self.mass = 0.0047 * skfem.BilinearForm(lambda u, v, _w: u * v).assemble(self.basis)

    @staticmethod
    def wall(z):
        return 1.5 + max(z - 2, 0) * math.tan(math.radians(30))

    def source(self, low, high, heat):
        """Heat spread evenly over the layer between two heights [W/mm of half a section]."""
        area = sum(
            (self.wall(a) + self.wall(b)) / 2 * (b - a)
            for a, b in ((low, min(high, max(low, 2))), (max(low, min(2, high)), high))
        )

        def load(v, w):
            y, z = w.x
            walls = 1.5 + np.maximum(z - 2, 0) * math.tan(math.radians(30))
            return v * ((z >= low) & (z <= high) & (y <= walls)) / area

        return heat * skfem.LinearForm(load).assemble(self.basis)

    def march(self, load, duration, times, steps):
        """Return temperatures over the steps; `load` is on for `duration`."""
        now, found, at = np.full(self.mass.shape[0], 20.0), [], 0.0
        off = duration + np.geomspace(0.02, times - duration, 8 * steps)
        grid = np.concatenate([np.linspace(0, duration, steps + 1), off])
        for n, (start, end) in enumerate(pairwise(grid)):
            dt = end - start
            theta = 1.0 if n < 2 or steps <= n < steps + 2 else 0.5
            on = load if end <= duration + 1e-9 else 0 * load
            right = (self.mass - (1 - theta) * dt * self.stiff) @ now + dt * on
            now = splu((self.mass + theta * dt * self.stiff).tocsc()).solve(right)
            at = end
            found.append((at, now))
        return found

    def at(self, place):
        near = self.basis.probes(np.array([[place[0]], [place[1]]]))
        return lambda celsius: float((near @ celsius)[0])


@pytest.mark.parametrize("layers", [2, 4])
def test_an_open_v_against_finite_elements(layers):
    """Constant properties, adiabatic, 1000 J/mm over 3 s in the last layer; a half model for the elements."""
    filled = reference_layers()
    heights = [max(z for _, z in layer) for layer in filled[:layers]]
    low = heights[-2]
    level, middle = heights[-1], (heights[-2] + heights[-1]) / 2
    elements = Elements(low, level, size=0.75)
    marched = elements.march(elements.source(low, level, 500 / 3), 3.0, 120.0, 24)
    top = Elements.wall(30)
    places = {"bead": (0.0, middle), "near": (20.0, 1.0), "far": (top + 50, 29.25)}
    theirs = {name: [(t, elements.at(place)(celsius)) for t, celsius in marched] for name, place in places.items()}
    bead = np.array(theirs["bead"])
    after = bead[np.argmax(bead[:, 1]) :]
    wanted = [float(np.interp(-level_c, -after[:, 1], after[:, 0])) for level_c in (600, 350)]
    areas = [*v_plates(30, 60, 3, 200, 2), *({"metal": "m", "outline_mm": layer} for layer in filled[:layers])]
    found = run(
        areas=areas, grid={"fine_mm": 1.0, "core_mm": [[-top - 6, top + 6], [0, 30]]}, probes=places,
        sources=[source("q", 1000.0, filled[layers - 1])], end_s=120.0,
        tolerance={"absolute_k": 0.1, "relative": 0.0005},
    )  # fmt: skip
    times, mine = np.array(found.state.times), np.array(reading(found, "bead"))
    falls = slice(int(np.argmax(mine)), None)
    got = [float(np.interp(-level_c, -mine[falls], times[falls])) for level_c in (600, 350)]
    assert got[1] - got[0] == pytest.approx(wanted[1] - wanted[0], rel=0.01)
    for name, at, tolerance in (("near", 30.0, 0.01), ("far", 100.0, 0.02)):
        ours = float(np.interp(at, times, reading(found, name))) - 20
        other = np.array(theirs[name])
        assert ours == pytest.approx(float(np.interp(at, other[:, 0], other[:, 1])) - 20, rel=tolerance)
