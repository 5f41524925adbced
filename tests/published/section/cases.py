"""Sections for the checks of the model: plates, grooves with beads, and how a case is run."""

import json
import math

from anlage.core.thermal.section.case import read_case
from anlage.core.thermal.section.polygons import area, cut
from anlage.core.thermal.section.run import SectionRun
from anlage.session.calculations.section import named_table

TEST = {"conductivity_w_mm_k": 0.040, "heat_capacity_j_mm3_k": 0.0047}  # a = 8.5106 mm²/s
OPEN_ENDS = {"left": "none", "right": "none"}


def case(**given):
    """A case of one test metal `m`, from the keys of the contract."""
    return read_case(json.dumps({"metals": {"m": TEST}, **given}), where="case")


def run(before=None, **given):
    """Run a case to its end."""
    found = SectionRun(case(**given), named_table, before)
    for _ in found.advance():
        pass
    return found


def rectangle(y0, y1, z0, z1):
    return [[y0, z0], [y1, z0], [y1, z1], [y0, z1]]


def plate(y0, y1, z0, z1, **given):
    return [{"metal": "m", "outline_mm": rectangle(y0, y1, z0, z1), **given}]


def source(name, heat, outline, **given):
    when = {} if "gap_s" in given else {"start_s": 0.0}
    return {"id": str(name), "heat_j_mm": heat, "outline_mm": outline, **when, **given}


def reading(found, name):
    return found.state.readings[name]


# Grooves ------------------------------------------------------------------------------------------------------------


def v_plates(thickness, angle, opening, half, face=0.0, **given):
    """Two plates with a single V between them; `half` from the centre to the edge of a plate."""
    top = opening / 2 + (thickness - face) * math.tan(math.radians(angle / 2))
    right = [[opening / 2, 0.0], [half, 0.0], [half, thickness], [top, thickness], [opening / 2, face]]
    right = right if face else right[:-1]
    left = [[-y, z] for y, z in reversed(right)]
    return [{"metal": "m", "outline_mm": side, **given} for side in (left, right)]


def v_outline(thickness, angle, opening, face=0.0):
    top = opening / 2 + (thickness - face) * math.tan(math.radians(angle / 2))
    right = [[opening / 2, 0.0], *([[opening / 2, face]] if face else []), [top, thickness]]
    return right + [[-y, z] for y, z in reversed(right)]


def v_layers(thickness, angle, opening, areas, face=0.0):
    """Layers of these areas from the root up."""
    rest, layers = [tuple(point) for point in v_outline(thickness, angle, opening, face)], []
    for each in areas[:-1]:
        layer, rest = cut(rest, 1, _level(rest, 1, each))
        layers.append(layer)
    return [*layers, rest]


def beads_of(layer, count):
    """A layer as beads of equal area, side by side."""
    rest, beads, each = layer, [], area(layer) / count
    for _ in range(count - 1):
        bead, rest = cut(rest, 0, _level(rest, 0, each))
        beads.append(bead)
    return [*beads, rest]


def _level(polygon, axis, wanted):
    low, high = min(p[axis] for p in polygon), max(p[axis] for p in polygon)
    for _ in range(200):
        middle = (low + high) / 2
        low, high = (middle, high) if area(cut(polygon, axis, middle)[0]) < wanted else (low, middle)
    return (low + high) / 2


REFERENCE_LAYERS = (1, 1, 1, 2, 2, 3, 3, 3, 4)


def reference_layers():
    """30 mm, 60 degree V, opening 3, root face 2: layers of 1 1 1 2 2 3 3 3 4 beads alike in area."""
    whole = area(v_outline(30, 60, 3, 2))
    return v_layers(30, 60, 3, [whole * count / 20 for count in REFERENCE_LAYERS], 2)


def reference(fine=1.5, passes=20, **given):
    """The joint that developers are held to: 20 passes of 0.9 and 1.4 kJ/mm, interpass 200 °C, as keys of a case."""
    layers = zip(reference_layers(), REFERENCE_LAYERS, strict=True)
    beads = [bead for layer, count in layers for bead in beads_of(layer, count)][:passes]
    top = 1.5 + 28 * math.tan(math.radians(30))
    sources = [source(1, 900.0, beads[0], metal="m")] + [
        source(n, 1400.0, bead, metal="m", gap_s=500 / 4 + 60, wait_for={"probe": "m", "below_c": 200.0})
        for n, bead in enumerate(beads[1:], 2)
    ]
    groove = {"outline_mm": v_outline(30, 60, 3, 2), "mouth_mm": 2 * top}
    return {
        "metals": {"m": {"catalogue": "C-Mn"}}, "areas": v_plates(30, 60, 3, 200, 2, initial_c=100.0),
        "grid": {"fine_mm": fine}, "losses": {"convection_w_mm2_k1_25": 1.351e-6, "grooves": [groove]},
        "sources": sources, "probes": {"m": [top + 50, 30]}, "end_s": "all", **given,
    }  # fmt: skip
