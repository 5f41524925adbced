"""What is counted is what is laid."""

import pytest

from anlage.core.document import Dimension, with_at
from anlage.core.procedure import Joint, Wps, sketch_of, with_deposit
from anlage.session.proposal.fill import filled
from anlage.session.weld.bead_sizes import bead_counts


@pytest.mark.parametrize(
    ("kind", "thickness"), [("single-v", 6), ("single-v", 20), ("double-v", 30), ("single-u", 25), ("single-bevel", 14)]
)
@pytest.mark.parametrize("size", [2.4, 4.0])
def test_beads_to_fill_it_are_as_many_as_fill_lays(kind, thickness, size):
    wps = Wps(joint=Joint(kind=kind, product="plate", thickness_mm=thickness))
    second = thickness / 2 - 1 if kind == "double-v" else None
    stated = {"root_opening_mm": 3, "root_face_mm": 2, "groove_angle_deg": 20 if kind == "single-u" else 60,
              "radius_mm": 6, "second_depth_mm": second, "reinforcement_mm": 2}  # fmt: skip
    for name, value in stated.items():
        wps = with_at(wps, f"joint/{name}", None if value is None else Dimension(nominal=value))
    wps, _ = with_deposit(wps, process="SMAW", filler="E7018", filler_diameter_mm=(size, size))
    (counted,) = bead_counts(wps, (sketch_of(wps.joint).preparation,))
    assert counted == len(filled(wps).passes)
    again = filled(filled(wps))
    assert bead_counts(filled(wps), (sketch_of(wps.joint).preparation,)) == (len(again.passes),)
