"""The section model against closed forms of conduction (Carslaw and Jaeger 1959; Rykalin 1957; Crank 1975).

Rises must agree within 2 % before 8 s and 1 % from there, unless a check says otherwise; λ 0.040 W/mm·K and ρc 0.0047
J/mm³·K.
"""

import math
from itertools import pairwise

import numpy as np
import pytest
from scipy.special import erf, j0, j1, y0, y1

from anlage.core.thermal.section.along import Along, Laid, along_factor, along_slope, leaving
from tests.published.section.cases import OPEN_ENDS, plate, reading, rectangle, run, source

A = 0.040 / 0.0047
LOSS_15 = {"coefficient_w_m2_k": 15.0, "sides": OPEN_ENDS}


def rise(celsius):
    return celsius - 20


def test_line_source_on_a_thick_plate():
    """Q/(2πλt)·exp(-r²/4at), half of it in a half model; read at the height of the first cell centre."""
    found = run(
        areas=plate(0, 200, -200, 0), grid={"fine_mm": 1.0, "core_mm": [[0, 40], [-40, 0]], "growth": 1.15},
        sources=[source("q", 600.0, rectangle(0, 1, -1, 0), duration_s=0.0)],
        probes={"near": [10, 0], "mid": [20, 0], "far": [25, 0]}, times_s=[10.0, 60.0], end_s=60.0,
    )  # fmt: skip
    assert [rise(reading(found, name)[0]) for name in ("near", "mid")] == pytest.approx([355.93, 147.45], rel=0.01)
    assert [rise(reading(found, name)[1]) for name in ("near", "far")] == pytest.approx([75.78, 58.60], rel=0.01)


def test_plane_source_in_a_thin_plate_that_loses():
    """Q/(2dρc√(πat))·exp(-y²/4at - bt), d 8, both faces 15 W/m²K."""
    found = run(
        areas=plate(0, 400, 0, 8), grid={"fine_mm": 1.0, "core_mm": [[0, 40], [0, 8]]}, losses=LOSS_15,
        sources=[source("q", 300.0, rectangle(0, 1, 0, 8), duration_s=0.0)], probes={"a": [0, 4], "b": [20, 4]},
        times_s=[60.0, 120.0, 600.0], end_s=600.0,
    )  # fmt: skip
    got = [reading(found, "a")[0], reading(found, "b")[1], reading(found, "a")[2]]
    assert [rise(each) for each in got] == pytest.approx([189.89, 116.06, 39.03], rel=0.01)


def test_rectangle_in_a_plate():
    """A rectangle 10 × 5 at the face of an 18 mm plate, 1500 J/mm, images in the faces."""
    found = run(
        areas=plate(0, 500, 0, 18), grid={"fine_mm": 1.0, "core_mm": [[0, 40], [0, 18]]},
        sources=[source("q", 750.0, rectangle(0, 5, 0, 5), duration_s=0.0)],
        probes={"a": [0, 0], "b": [0, 18], "c": [15, 0], "d": [0, 9], "e": [30, 9], "f": [30, 0]},
        times_s=[5.0, 15.0, 30.0, 60.0, 120.0], end_s=120.0,
    )  # fmt: skip
    early = [reading(found, "a")[0], reading(found, "b")[0]]
    late = [reading(found, name)[at] for name, at in (("c", 1), ("d", 2), ("e", 3), ("f", 4))]
    assert [rise(each) for each in early] == pytest.approx([1086.41, 384.44], rel=0.02)
    assert [rise(each) for each in late] == pytest.approx([294.56, 310.49, 142.39, 125.42], rel=0.01)


def strip(y, z, t, centre=0.0, half=75.0, d=12.0, w=8.0, top=4.0, heat=900.0):
    """The rise of a rectangle in an insulated strip, by images in its edges and faces."""
    s = math.sqrt(4 * A * t)
    k = np.arange(-30, 31)
    at = 2 * k * half + (-1.0) ** k * centre
    across = 0.5 * np.sum(erf((y - at + w / 2) / s) - erf((y - at - w / 2) / s))
    n = 2 * k * d
    through = 0.5 * np.sum(erf((z - n) / s) - erf((z - top - n) / s) + erf((z + top - n) / s) - erf((z - n) / s))
    return heat / (0.0047 * w * top) * across * through


@pytest.mark.parametrize(
    ("centre", "places"),
    [(0.0, [(20, 0.5, 20.0), (0.5, 11.5, 40.0), (70, 6, 200.0)]), (30.0, [(30.5, 6, 60.0), (-70, 6, 200.0)])],
)
def test_rectangle_in_a_strip(centre, places):
    found = run(
        areas=plate(-75, 75, 0, 12), grid={"fine_mm": 1.0, "core_mm": [[-75, 75], [0, 12]]},
        sources=[source("q", 900.0, rectangle(centre - 4, centre + 4, 0, 4), duration_s=0.0)],
        probes={str(n): place[:2] for n, place in enumerate(places)},
        times_s=sorted({t for *_, t in places}), end_s=400.0,
    )  # fmt: skip
    for n, (y, z, t) in enumerate(places):
        got = reading(found, str(n))[found.state.times.index(t)]
        assert rise(got) == pytest.approx(strip(y, z, t, centre), rel=0.01)
    assert found.mean_c == pytest.approx(20 + 900 / (0.0047 * 150 * 12), abs=1e-6)
    assert found.residual == pytest.approx(0, abs=1e-9 * 900)


def test_order_of_time_and_of_space():
    """Errors fall by four when the step, and when the cell, is halved."""

    def mid(fine, step):
        lines = {f"{axis}_mm": list(np.arange(0, most + fine - 1e-9, fine)) for axis, most in (("y", 75), ("z", 12))}
        found = run(
            areas=plate(0, 75, 0, 12), grid=lines,
            sources=[source("q", 450.0, rectangle(0, 4, 0, 4), duration_s=0.0)], probes={"a": [20, 6]}, times_s=[8.0],
            end_s=8.0, tolerance={"fixed_step_s": step},
        )  # fmt: skip
        return reading(found, "a")[0]

    exact = mid(1.0, 0.005)
    errors = [mid(1.0, step) - exact for step in (0.25, 0.125, 0.0625)]
    assert [first / second for first, second in pairwise(errors)] == pytest.approx([4, 4], abs=0.5)
    errors = [mid(fine, 0.01) - 20 - strip(20, 6, 8.0) for fine in (2.0, 1.0, 0.5)]
    assert [first / second for first, second in pairwise(errors)] == pytest.approx([4, 4], abs=0.5)


# The third dimension ------------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("along", "factors", "shares"),
    [(Along(200, 100), (0.9982, 0.8383, 0.5159), (1.559e-4, 8.338e-4, 3.530e-4)),
     (Along(500, 50), (0.9412, 0.7579, 0.6360), (1.625e-3, 4.805e-4, 9.180e-5)),
     (Along(300, 150, (0.0, 0.0)), (1, 1, 1), (0, 0, 0)),
     (Along(300, 50, (40.0, 40.0)), (0.9412, 0.7921, 0.7875), (1.621e-3, 1.743e-4, -5.797e-6))],
)  # fmt: skip
def test_factor_along_a_seam(along, factors, shares):
    """Product solution with images in the ends of the plate; where heat comes back the share is below 0."""
    for age, factor, share in zip((60, 300, 1200), factors, shares, strict=True):
        got = along_factor(along, age, diffusivity=A)
        assert got == pytest.approx(factor, abs=6e-5)
        if along.loses:
            assert -along_slope(along, age, diffusivity=A) / got == pytest.approx(share, rel=5e-4)


def test_share_of_several_passes_is_weighed_by_what_is_left_of_them():
    along, told = Along(200, 100), {"diffusivity": A}
    young, old = (leaving(along, [Laid(1000, 0)], age, **told) for age in (60, 1200))
    both = leaving(along, [Laid(1000, 0), Laid(1000, 1140)], 1200, **told)
    assert min(young, old) < both < max(young, old)
    assert leaving(Along(200, 100, closed=True), [Laid(1000, 0)], 300, **told) == 0


def long_plate(length, passes, **given):
    return run(
        areas=plate(0, 1500, 0, 30), grid={"fine_mm": 1.5, "core_mm": [[0, 70], [0, 30]]},
        sources=[source(n, 500.0, rectangle(0, 1.5, 0, 1.5), duration_s=0.0, **({"gap_s": 300.0} if n else {}))
                 for n in range(passes)],
        seam={"length_mm": length, "diffusivity_mm2_s": A}, probes={"a": [60, 0]}, end_s=300.0 * passes + 301, **given,
    )  # fmt: skip


def test_short_seams_lose_along_their_length():
    single = long_plate(200, 1, times_s=[120.0, 300.0, 600.0])
    assert [rise(each) for each in reading(single, "a")] == pytest.approx([25.24, 23.33, 15.91], rel=0.01)
    assert rise(reading(long_plate(100, 1, times_s=[300.0]), "a")[0]) == pytest.approx(14.36, rel=0.01)
    assert single.seam_factor == pytest.approx(along_factor(Along(200, 100), single.state.time, diffusivity=A))


@pytest.mark.parametrize(
    ("length", "rises"), [(200, [23.33, 39.24, 51.04, 60.40, 68.13]), (400, [27.69, 50.04, 68.21, 83.41, 96.43])]
)
def test_five_passes_on_a_short_seam(length, rises):
    found = long_plate(length, 5, times_s=[300.0 * n for n in range(1, 6)])
    assert [rise(each) for each in reading(found, "a")] == pytest.approx(rises, abs=1.5)
    assert found.residual == pytest.approx(0, abs=1e-9 * 2500)


def test_a_preheated_plate_is_not_drained_by_its_ends():
    found = run(
        areas=plate(0, 1500, 0, 20, initial_c=120.0), grid={"fine_mm": 1.5, "core_mm": [[0, 70], [0, 20]]},
        losses=LOSS_15, seam={"length_mm": 300.0, "diffusivity_mm2_s": A}, probes={"a": [60, 10]},
        sources=[source(n, 500.0, rectangle(0, 1.5, 0, 1.5), duration_s=0.0, **({"gap_s": 300.0} if n else {}))
                 for n in range(5)],
        times_s=[300.0 * n for n in range(1, 6)], end_s=1501.0,
    )  # fmt: skip
    assert reading(found, "a") == pytest.approx([147.45, 164.22, 174.40, 180.64, 184.41], abs=2)
    assert found.residual == pytest.approx(0, abs=1e-9 * 2500)


def test_a_seam_as_long_as_its_plate_loses_nothing_along_it():
    told = {"areas": plate(0, 200, 0, 20), "sources": [source("q", 500.0, rectangle(0, 4, 0, 4))],
            "probes": {"a": [30, 10]}, "times_s": [60.0, 600.0], "end_s": 600.0}  # fmt: skip
    alone, along = run(**told), run(**told, seam={"length_mm": 300.0, "run_off_mm": [0.0, 0.0]})
    assert reading(along, "a") == reading(alone, "a")
    assert along.state.books.along == 0


def test_a_small_piece_cools_as_a_lump():
    """τ = ρc·A_s/[h·(P + 2A_s/W)]: a plate pair 320 × 16 of 300 mm, 18 W/m²K, its end faces counted."""
    found = run(
        metals={"m": {"conductivity_w_mm_k": 40.0, "heat_capacity_j_mm3_k": 0.0042}}, grid={"fine_mm": 4.0},
        areas=plate(0, 320, 0, 16, initial_c=75.8), losses={"coefficient_w_m2_k": 18.0, "end_faces": True},
        seam={"plate_length_mm": 300.0}, probes={"a": [160, 8]}, times_s=[1691.8], end_s=1692.0,
    )  # fmt: skip
    assert rise(reading(found, "a")[0]) == pytest.approx(55.8 / math.e, rel=0.01)


# Pipe, two metals, metal at a slant ---------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("inner", "outer", "beta", "rate"), [(30.0, 60.0, 0.106553, 0.09663), (115.0, 136.5, 0.146283, 0.18212)]
)
def test_a_radial_mode_of_a_pipe(inner, outer, beta, rate):
    """Insulated hollow cylinder, first mode of J0·Y1(βr1) - Y0·J1(βr1); of second order in the cells."""

    def shape(r):
        return j0(beta * r) * y1(beta * inner) - y0(beta * r) * j1(beta * inner)

    radii = np.linspace(inner, outer, 400)
    errors = []
    for count in (10, 20):
        found = run(
            areas=plate(0, 1, 0, outer - inner, initial_c={
                "from_mm": [0, 0], "to_mm": [0, outer - inner],
                "temperature_c": [float(each) for each in 20 + 100 * shape(radii) / shape(inner)],
            }),
            grid={"y_mm": [0.0, 1.0], "z_mm": list(np.linspace(0, outer - inner, count + 1))},
            pipe={"od_mm": 2 * outer},
            probes={"in": [0, 0], "out": [0, outer - inner]}, times_s=[1 / rate], end_s=1.01 / rate,
            tolerance={"fixed_step_s": 1 / rate / 400},
        )  # fmt: skip
        places = [found.places()[name][1] + inner for name in ("in", "out")]
        wanted = [100 * shape(place) / shape(inner) / math.e for place in places]
        got = [rise(reading(found, name)[0]) for name in ("in", "out")]
        errors.append(max(abs(g / w - 1) for g, w in zip(got, wanted, strict=True)))
    assert errors[1] < 0.005
    assert errors[0] / errors[1] == pytest.approx(4, abs=0.5)


def test_a_pipe_stub_evens_out():
    """Q·(r_i/r_0)/(ρc·ΣA·r/r_0); at mid-wall the radius drops out."""
    found = run(
        metals={"m": {"conductivity_w_mm_k": 0.04, "heat_capacity_j_mm3_k": 0.0042}}, areas=plate(-150, 150, 0, 15.1),
        pipe={"od_mm": 273.1}, sources=[source("q", 1100 * 129 / 136.55, rectangle(-5, 5, 7, 15.1))],
        probes={"a": [100, 8]}, end_s=100.0,
    )  # fmt: skip
    assert found.mean_c - 20 == pytest.approx(1100 / (0.0042 * 15.1 * 300), rel=1e-4)
    assert found.residual == pytest.approx(0, abs=1e-9 * 1100)


def test_two_metals_in_contact():
    """T_i = Σe·T/Σe with e = √(λρc); 300 °C steel against 20 °C stainless."""
    metals = {"hot": {"conductivity_w_mm_k": 0.047, "heat_capacity_j_mm3_k": 0.0042},
              "cold": {"conductivity_w_mm_k": 0.016, "heat_capacity_j_mm3_k": 0.0041}}  # fmt: skip
    found = run(
        metals=metals, grid={"fine_mm": 1.0, "core_mm": [[-30, 30], [0, 4]]},
        areas=[{"metal": "hot", "outline_mm": rectangle(-300, 0, 0, 4), "initial_c": 300.0},
               {"metal": "cold", "outline_mm": rectangle(0, 300, 0, 4), "initial_c": 20.0}],
        probes={"a": [-20, 2], "b": [-5, 2], "c": [5, 2], "d": [10, 2], "e": [20, 2]}, times_s=[20.0, 60.0], end_s=61.0,
    )  # fmt: skip
    assert [reading(found, name)[0] for name in "abc"] == pytest.approx([264.73, 216.74, 142.38], abs=0.3)
    assert [reading(found, name)[1] for name in "de"] == pytest.approx([134.38, 83.12], abs=0.3)


@pytest.mark.parametrize(("fine", "degrees"), [(2.0, 0), (2.0, 20), (2.0, 30), (2.0, 45), (1.0, 20), (1.0, 45)])
def test_metal_at_a_slant_conducts_as_metal_along_the_grid(fine, degrees):
    """A bar 80 × 10 turned in a void: the mode cos(πs/80) falls to exp(-a·(π/80)²·t)."""
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))

    def turned(along, across):
        return [along * c - across * s, along * s + across * c]

    corners = [turned(0, 0), turned(80, 0), turned(80, 10), turned(0, 10)]
    wave = [20 + 100 * math.cos(math.pi * n / 400) for n in range(401)]
    start = {"from_mm": turned(0, 5), "to_mm": turned(80, 5), "temperature_c": wave}
    found = run(
        areas=[{"metal": "m", "outline_mm": corners, "initial_c": start}],
        grid={"fine_mm": fine, "core_mm": [[-20, 100], [-20, 100]]}, probes={"a": turned(40, 5)}, end_s=76.194,
        tolerance={"fixed_step_s": 76.194 / 400},
    )  # fmt: skip
    ys, zs = found.build.lines
    along = ((ys[1:] + ys[:-1]) / 2)[:, None] * c + ((zs[1:] + zs[:-1]) / 2)[None, :] * s
    mode = np.cos(np.pi * np.clip(along, 0, 80) / 80)
    metal, celsius = found.state.grid.metal, np.nan_to_num(found.temperatures(), nan=20.0)
    amplitude = (metal * (celsius - 20) * mode).sum() / (metal * mode**2).sum()
    assert found.metal_area_mm2 == pytest.approx(800, abs=1e-6)
    assert amplitude == pytest.approx(36.788, rel=0.005)


# Losses and real metals ---------------------------------------------------------------------------------------------


def test_radiation_is_capped():
    """10 mm from both faces, ε 0.8: 550 K at the flux of 1450 °C, then by quadrature; mixed through."""
    found = run(
        metals={"m": {"conductivity_w_mm_k": 40.0, "heat_capacity_j_mm3_k": 0.0047}}, grid={"fine_mm": 2.5},
        areas=plate(0, 10, 0, 10, initial_c=2000.0),
        losses={"emissivity": 0.8, "convection_w_mm2_k1_25": 0.0, "sides": OPEN_ENDS},
        probes={"a": [5, 5]}, end_s=1000.0,
        tolerance={"absolute_k": 0.5, "relative": 0.001},
    )  # fmt: skip
    got = [
        float(np.interp(-level, [-each for each in reading(found, "a")], found.state.times))
        for level in (1450, 1000, 600, 300)
    ]
    assert got == pytest.approx([32.35, 82.36, 259.4, 943.9], rel=0.01)


EX = {"emissivity": 0.8, "convection_w_mm2_k1_25": 1.32e-6 / 0.3**0.25, "sides": {"left": "none"}}
PLAIN = {"conductivity_w_mm_k": 0.047, "heat_capacity_j_mm3_k": 7850 * 540e-9}


@pytest.mark.parametrize(
    ("metal", "losses", "wanted"),
    [(PLAIN, {**EX, "cap_c": None}, [78.1, 141.6, 191.9, 222.8]), (PLAIN, EX, [78.4, 141.8, 192.1, 224.5]),
     ({"catalogue": "C-Mn"}, EX, [81.3, 147.4, 199.5, 232.5])],
)  # fmt: skip
def test_four_passes_on_16_mm_plate(metal, losses, wanted):
    """A case solved by an explicit and by this implicit method, at 1 and 0.5 mm (from memory of both)."""
    found = run(
        metals={"m": metal}, areas=plate(0, 300, 0, 16), losses=losses, probes={"a": [25, 16]},
        grid={"fine_mm": 1.0, "core_mm": [[0, 40], [0, 16]]}, times_s=[240.0, 480.0, 720.0, 960.0], end_s=961.0,
        sources=[source(n, heat / 2, rectangle(0, half, 4 * n, 4 * n + 4), start_s=240.0 * n, duration_s=4.0)
                 for n, (heat, half) in enumerate(((850, 2.5), (1250, 4), (1400, 5.5), (1400, 7)))],
    )  # fmt: skip
    assert reading(found, "a") == pytest.approx(wanted, abs=0.35)
    assert found.residual == pytest.approx(0, abs=1e-9 * 2450)
    books = found.state.books
    assert books.lost_trapezium == pytest.approx(books.lost, rel=1e-3)


@pytest.mark.parametrize(
    ("q", "t0", "d", "seconds"),
    [(1.6, 120, 30, 11.33), (1.6, 120, 18, 12.55), (1.6, 120, 16, 14.59), (1.6, 120, 10, 46.13)],
)
def test_cooling_of_a_bead_on_a_plate_with_the_constants_of_the_standard(q, t0, d, seconds):
    """EN 1011-2 Annex D and its image series: with its effective constants the section gives the same."""
    conductivity = 1e3 / (2 * math.pi * (6700 - 5 * t0))
    product = 1e6 / (4 * math.pi * (4300 - 4.3 * t0) * 1e5)
    found = run(
        metals={"m": {"conductivity_w_mm_k": conductivity, "heat_capacity_j_mm3_k": product / conductivity}},
        areas=plate(0, 500, 0, d, initial_c=float(t0)), grid={"fine_mm": 1.0, "core_mm": [[0, 30], [0, d]]},
        sources=[source("q", 500 * q, rectangle(0, 5, d - 4, d))], probes={"a": [0, d]},
        end_s=120.0 if d < 12 else 40.0,
    )  # fmt: skip
    assert found.state.passed[0].tracks["a"].cooled_s == pytest.approx(seconds, rel=0.02)
