"""Bead counts of common practice (no source): beads of usual sizes, no layer set by hand; deposits of wire and rods."""

import pytest

from anlage.core.beads import (
    Size,
    bead_area_of_rate,
    deposition_rate,
    electrode_metal,
    fill,
    wire_bead_area,
)
from anlage.core.joint import Preparation, shape_of
from anlage.data.tables import catalogue

IN = 25.4


def counts(joint, *sizes):
    found: list[int] = []
    for bead in fill(shape_of(joint), sizes):
        found.append(0) if bead.starts_layer else None
        found[-1] += 1
    return found


def test_a_plate_on_backing_takes_two_three_three_and_four_beads():
    """3/8 in plate, 1/2 in opening, one 30° bevel: 12 beads of about 14 mm², 3/8 in wide and lapping by two fifths
    (common practice, no source)."""
    plate = Preparation(
        kind="bevel-backing", thickness_mm=3 / 8 * IN, root_opening_mm=IN / 2, groove_angle_deg=30,
        reinforcement_mm=IN / 16, cap_overlap_mm=IN / 16,
    )  # fmt: skip
    pitch = 0.6 * 3 / 8 * IN
    assert counts(plate, Size(pitch_mm=pitch, height_mm=14 / pitch)) == [2, 3, 3, 4]


def test_a_heavy_wall_pipe_goes_one_one_two_two_three_three_and_five():
    """Root, hot, layers of 2, 2, 3, 3 and a cap of five, 1/8 in electrodes (common practice, no source)."""
    pipe = Preparation(
        kind="single-v", thickness_mm=19, root_opening_mm=IN / 8, root_face_mm=2, groove_angle_deg=75,
        reinforcement_mm=IN / 16, cap_overlap_mm=IN / 16, root_reinforcement_mm=1,
    )  # fmt: skip
    assert counts(pipe, Size.of_electrode(IN / 8)) == [1, 1, 2, 2, 3, 3, 5]


def test_a_layer_plan_of_two_rod_layers_three_woven_ones_and_a_woven_cap():
    """75° V, 0.406 in wall: two GTAW layers of about 5 mm, then 3/32 in, 1/8 in twice, a cap (common practice)."""
    pipe = Preparation(
        kind="single-v", thickness_mm=0.406 * IN, root_opening_mm=IN / 8, root_face_mm=IN / 32, groove_angle_deg=75,
        reinforcement_mm=IN / 16, cap_overlap_mm=IN / 16,
    )  # fmt: skip
    rods = (Size.of_electrode(IN / 8, reach_mm=5), Size.of_electrode(IN * 3 / 32, weave=True),
            Size.of_electrode(IN / 8, weave=True))  # fmt: skip
    beads = fill(shape_of(pipe), rods)
    assert [(bead.deposit, bead.role) for bead in beads] == [
        (0, "root"), (0, "hot"), (1, "fill"), (2, "fill"), (2, "fill"), (2, "cap"),
    ]  # fmt: skip
    assert beads[-1].width_mm == pytest.approx(21, abs=0.7)


def test_a_bead_by_wire_feed():
    """Conservation of metal, worked by hand: 0.96·(π/4·1.2²)·7400/340."""
    area = wire_bead_area(1.2, wire_speed_mm_min=7400, travel_speed_mm_min=340, efficiency=0.96)
    assert area == pytest.approx(23.63, abs=0.005)
    rate = deposition_rate(1.2, wire_speed_mm_min=7400, efficiency=0.96, density_g_cm3=7.85)
    assert rate == pytest.approx(3.784, abs=5e-4)
    assert bead_area_of_rate(rate, travel_speed_mm_min=340, density_g_cm3=7.85) == pytest.approx(area)
    assert 340 * area / 26 == pytest.approx(309, abs=0.5)  # speed for a bead of 26 mm²


def test_the_metal_of_one_electrode():
    """4 mm, 450 mm long, 50 mm stub, recovery 1.15: 45.4 g (ISO 2401 for the recovery, from memory)."""
    mass = electrode_metal(4, consumed_length_mm=400, recovery=1.15, density_g_cm3=7.85)
    assert mass * 1000 == pytest.approx(45.4, abs=0.05)


def test_usual_wire_settings_of_the_catalogue_agree_with_their_own_deposition():
    """The catalogue's kg/h and its wire speed are two columns of one table: each follows from the other."""
    checked = 0
    for row in catalogue().filler_currents:
        if (
            row.process == "GMAW"
            and row.deposition_kg_h_typical
            and row.at_wire_speed_m_min
            and row.classification.startswith("ER70")
        ):
            rate = deposition_rate(row.diameter_mm, wire_speed_mm_min=row.at_wire_speed_m_min * 1000, efficiency=0.96,
                                   density_g_cm3=7.85)  # fmt: skip
            assert row.deposition_kg_h_typical == pytest.approx(rate, rel=0.12)
            checked += 1
    assert checked >= 6
