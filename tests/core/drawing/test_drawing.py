"""The section as a display list: to scale, every stated value shown once and named by its leaf, nothing lost."""

import xml.etree.ElementTree as ET
from itertools import pairwise

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from msgspec.structs import replace

from anlage.core.document import Dimension
from anlage.core.drawing import DisplayList, Marker, Path, Text
from anlage.core.drawing.curves import Curve, Frame, curves
from anlage.core.drawing.operating_window import Axes, PassBox, Plane, operating_window
from anlage.core.drawing.section import grip, metal, profile, section
from anlage.core.drawing.weld_symbol import SymbolTexts, weld_symbol
from anlage.core.joint import (
    KINDS,
    Preparation,
    Sketch,
    area_and_centroid,
    dimensions_of,
    faults,
    joint_metal,
    shape_of,
)
from anlage.core.procedure import Joint, clashes, sketch_of
from anlage.core.quantities import show
from anlage.core.ranges import Interval
from anlage.data.look import colours, heat_colour, role_styles, temper_ramp
from anlage.data.tables import unit_table
from anlage.formats.svg import svg
from tests.strategies import preparations

V = Preparation(
    kind="single-v", thickness_mm=14, root_opening_mm=3, root_face_mm=1.5, groove_angle_deg=60, reinforcement_mm=1.5
)
SVG = "{http://www.w3.org/2000/svg}"


def drawn(joint, scale=3.0, system="si"):
    return section(
        Sketch(joint),
        scale=scale,
        show=lambda v, kind: show(v, kind, system, unit_table()),
        measure=lambda t, h: 0.5 * h * len(t),
    )


def areas(picture, role):
    return [shapely.Polygon(item.points) for item in picture.items if isinstance(item, Path) and item.role == role]


def values(picture):
    return {i.target: i.text.replace("\u2009", " ") for i in picture.items if isinstance(i, Text)}


def styles(theme="light"):
    return role_styles(theme)


def test_every_stated_value_is_shown_once_with_a_handle_to_drag():
    picture = drawn(V)
    assert values(picture) == {
        "joint/root_opening_mm": "3 mm", "joint/root_face_mm": "1.5 mm", "joint/thickness_mm": "14 mm",
        "joint/groove_angle_deg": "60°", "joint/reinforcement_mm": "1.5 mm",
    }  # fmt: skip
    handles = [item.target for item in picture.items if isinstance(item, Marker) and item.kind == "handle"]
    assert sorted(handles) == sorted(values(picture))


def test_values_are_shown_in_the_readers_system():
    assert values(drawn(Preparation(kind="square", thickness_mm=6.35, root_opening_mm=3.175), system="us")) == {
        "joint/root_opening_mm": "1/8 in", "joint/thickness_mm": "1/4 in", "joint/reinforcement_mm": "0 in",
    }  # fmt: skip


joints = preparations()


@given(joints, st.floats(0.5, 8))
def test_groove_and_members_are_to_scale_and_share_nothing_but_edges(joint, scale):
    picture = drawn(joint, scale)
    grooves, members = areas(picture, "groove"), areas(picture, "metal")
    assert sum(each.area for each in grooves) == pytest.approx(sum(
        area_and_centroid(each.outline)[0] for each in shape_of(joint).grooves))  # fmt: skip
    for member in members:
        assert member.is_valid
        # On a grid: without one, edges that lie on each other but for the last bit can turn an overlay inside out.
        assert not any(shapely.intersection(member, groove, grid_size=1e-9).area > 1e-6 for groove in grooves)


@given(joints)
def test_the_cap_holds_the_area_that_is_counted(joint):
    metal = joint_metal(joint)
    caps = sum(cap.area for cap in areas(drawn(joint), "cap"))
    lined = metal.reinforcement_area_mm2 + metal.root_area_mm2 + metal.buttering_area_mm2
    assert caps == pytest.approx(lined, rel=1e-6)


@pytest.mark.parametrize("kind", KINDS)
def test_every_handle_of_every_kind_moves_its_dimension_the_way_it_points(kind):
    sketch = sketch_of(Joint(kind=kind, thickness_mm=20, product="pipe", od_mm=200, run_od_mm=400))
    shape = shape_of(sketch.preparation)
    assert {each.field for each in shape.dimensions} - {"thickness_mm", "other_thickness_mm"} <= set(
        dimensions_of(kind)
    )
    handles = {item.target for item in drawn(sketch.preparation).items if isinstance(item, Marker)} - {""}
    assert handles == {f"joint/{each.field}" for each in shape.dimensions}
    for item in drawn(sketch.preparation).items:
        field = getattr(item, "target", "").partition("/")[2]
        if getattr(item, "kind", "") != "handle" or field in ("reinforcement_mm", "root_reinforcement_mm"):
            continue
        grown = {n: v for n in (field,) if (v := getattr(sketch.preparation, n)) is not None}
        if not grown or faults(larger := replace(sketch.preparation, **{field: grown[field] * 1.02 + 0.01})):
            continue
        other = next(i for i in drawn(larger).items if isinstance(i, Marker) and i.target == item.target)
        assert grip(sketch.preparation, field, other.at) > grip(sketch.preparation, field, item.at), field


@given(joints, st.floats(0.5, 8))
def test_everything_lies_within_the_corners_of_the_picture(joint, scale):
    picture = drawn(joint, scale)
    for item in picture.items:
        for x, y in item.points if isinstance(item, Path) else [item.at]:
            assert picture.low[0] - 1e-9 <= x <= picture.high[0] + 1e-9
            assert picture.low[1] - 1e-9 <= y <= picture.high[1] + 1e-9


def test_a_joint_on_backing_shows_the_bar():
    bar = areas(
        drawn(Preparation(kind="v-backing", thickness_mm=20, root_opening_mm=6, groove_angle_deg=45)), "backing"
    )
    assert len(bar) == 1
    assert bar[0].bounds[3] == 0


# The operating window ------------------------------------------------------------------------

SI, US = Axes("mm/min", 1.0, "kJ/mm", 1.0), Axes("in/min", 25.4, "kJ/in", 1 / 25.4)
ROOT = PassBox("passes/p1", "1 root", Interval(50, 80), Interval(900, 1320))
FILL = PassBox("passes/p2", "2 fill", Interval(110, 190), Interval(2500, 3400))


def window(passes, axes=SI):
    return operating_window(passes, axes, Plane.around(passes, (110, 68)), lambda t, h: 0.5 * h * len(t))


def test_a_box_carries_the_energy_of_its_hottest_corner():
    (root,) = [item for item in window([ROOT]).items if item.target and isinstance(item, Path) and item.role == "pass"]
    assert root.heat == pytest.approx(1320 / (50 / 60) / 1000)  # E = P / (1000 v), v in mm/s
    assert ROOT.arc_energy_kj_mm.low == pytest.approx(900 / (80 / 60) / 1000)


def test_boxes_stand_where_speed_and_power_put_them():
    first, second = [
        item.points for item in window([ROOT, FILL]).items if isinstance(item, Path) and item.role == "pass"
    ]
    assert first[1][0] / second[1][0] == pytest.approx(80 / 190)
    assert first[2][1] / second[2][1] == pytest.approx(1320 / 3400)


@pytest.mark.parametrize("axes", [SI, US])
def test_every_point_of_a_line_has_the_energy_it_is_named_after(axes):
    picture = window([ROOT, FILL], axes)
    speed_mm, power_mm = 110 / (190 * 1.15), 68 / (3400 * 1.2)  # paper per mm/min and W, by the plot's own margins
    lines = [item for item in picture.items if isinstance(item, Path) and item.role == "equal"]
    for line in lines:
        x, y = line.points[1]
        assert (y / power_mm) * 0.06 / (x / speed_mm) == pytest.approx(line.heat)
    named = {item.text for item in picture.items if isinstance(item, Text) and item.role == "tick"}
    assert {f"{line.heat / axes.kj_mm_per_unit:g}" for line in lines} <= named
    assert len(lines) >= 5


@given(st.floats(1, 2000), st.floats(0, 3000), st.floats(50, 50_000), st.floats(0, 50_000))
def test_any_passes_make_a_picture_with_a_handful_of_ticks(speed, more, power, stronger):
    box = PassBox("passes/p1", "1", Interval(speed, speed + more), Interval(power, power + stronger))
    picture = window([box])
    ticks = [item for item in picture.items if isinstance(item, Text) and item.role == "tick"]
    assert 8 <= len(ticks) <= 34


def test_without_passes_the_plane_stands_ready():
    assert window([]).targets() == frozenset()
    assert any(item.role == "equal" for item in window([]).items)


def test_hotter_is_further_along_the_ramp():
    steps = [temper_ramp().index(heat_colour(v, coldest=0.5, hottest=2.5)) for v in (0.1, 0.5, 1.0, 2.0, 2.5, 9.0)]
    assert steps == sorted(steps)
    assert (steps[0], steps[-1]) == (0, 255)


def test_svg_fills_a_pass_with_its_heat():
    text = svg(window([ROOT]), styles(), heat=lambda value: f"#{round(value * 100):06d}")
    assert 'fill="#000158"' in text


# SVG -----------------------------------------------------------------------------------------


def test_svg_is_well_formed_in_millimetres_and_names_its_targets():
    picture = drawn(V)
    root = ET.fromstring(svg(picture, styles(), ground="#FFFFFF"))  # noqa: S314 - our own text
    assert root.get("width").endswith("mm")
    width = (picture.high[0] - picture.low[0]) * 3.0 + 6.0
    assert float(root.get("viewBox").split()[2]) == pytest.approx(width, abs=1e-3)
    assert {element.get("data-target") for element in root.iter()} - {None} == picture.targets()
    assert [text.text for text in root.iter(f"{SVG}text")].count("60°") == 1
    assert {element.tag.removeprefix(SVG) for element in root.iter()} <= {"svg", "rect", "path", "circle", "text"}


def test_text_from_outside_cannot_become_markup():
    picture = DisplayList((Text(role="value", at=(0, 0), text="<script>&", target='"x'),), 1.0, (0, 0), (1, 1))
    root = ET.fromstring(svg(picture, styles()))  # noqa: S314 - our own text
    (text,) = root.iter(f"{SVG}text")
    assert (text.text, text.get("data-target")) == ("<script>&", '"x')


def test_every_role_of_a_picture_has_a_style_in_both_themes():
    used = {item.role for item in drawn(V).items} | {"backing"}
    assert used <= set(styles("light"))
    assert set(styles("light")) == set(styles("dark"))


# The look ------------------------------------------------------------------------------------


def luminance(colour):
    """Relative luminance of WCAG 2.1 (H)."""
    parts = [int(colour[at : at + 2], 16) / 255 for at in (1, 3, 5)]
    linear = [p / 12.92 if p <= 0.04045 else ((p + 0.055) / 1.055) ** 2.4 for p in parts]
    return sum(weight * part for weight, part in zip((0.2126, 0.7152, 0.0722), linear, strict=True))


def contrast(one, other):
    light, dark = sorted((luminance(one), luminance(other)), reverse=True)
    return (light + 0.05) / (dark + 0.05)


@pytest.mark.parametrize("theme", ["light", "dark"])
@pytest.mark.parametrize("back", ["ground", "sheet"])
def test_colours_can_be_told_from_what_they_stand_on(theme, back):
    own = colours(theme)
    for token in ("ink", "muted", "accent", "inside", "outside", "unproven"):
        assert contrast(own[token], own[back]) >= 5.65, token
    assert contrast(own["edge"], own[back]) >= 3
    assert contrast(own["ink"], own["metal"]) >= 5.7


def test_the_heat_ramp_darkens_all_the_way():
    lights = [luminance(colour) for colour in temper_ramp()]
    assert len(lights) == 256
    assert all(later <= earlier + 1e-3 for earlier, later in pairwise(lights))


# Sketches and ghosts -------------------------------------------------------------------------


def test_a_joint_without_values_is_a_picture_that_states_nothing():
    assert sketch_of(Joint()) is None
    sketch = sketch_of(Joint(kind="single-v"))
    assert sketch.incomplete
    assert sketch.unstated == {"thickness_mm", *dimensions_of("single-v")}
    picture = section(sketch, scale=2.0, show=lambda v, _: f"{v:g}", measure=lambda t, h: 0.5 * h * len(t))
    texts = [item for item in picture.items if isinstance(item, Text)]
    assert {item.role for item in texts} == {"unstated"}
    assert not any(character.isdigit() for item in texts for character in item.text)


@pytest.mark.parametrize(
    ("stated", "incomplete"),
    [
        ({"kind": "square"}, False),
        ({"kind": "square", "product": "pipe"}, True),
        ({"kind": "square", "product": "pipe", "od_mm": 100}, False),
        ({"kind": "single-v"}, True),
        ({"kind": "single-v", "groove_angle_deg": Dimension(nominal=60)}, True),
        ({"kind": "v-backing", "groove_angle_deg": Dimension(nominal=45)}, False),
        ({"kind": "single-v", "groove_angle_deg": Dimension(nominal=60), "root_face_mm": Dimension(nominal=0)}, False),
    ],
)
def test_a_sketch_knows_whether_anything_can_be_worked_out(stated, incomplete):
    joint = Joint(thickness_mm=10, root_opening_mm=Dimension(nominal=3), **stated)
    assert sketch_of(joint).incomplete == incomplete


@given(st.sampled_from(KINDS), st.floats(0.5, 200) | st.none(), st.sampled_from(["plate", "pipe", None]))
def test_a_picture_of_what_is_not_stated_is_never_impossible(kind, thickness, product):
    assert not faults(sketch_of(Joint(kind=kind, thickness_mm=thickness, product=product)).preparation)


def test_ghosts_are_the_tightest_and_the_widest_joint_the_tolerances_allow():
    joint = Joint(
        kind="single-v", thickness_mm=10, root_opening_mm=Dimension(nominal=3, minus=1, plus=2),
        root_face_mm=Dimension(nominal=1, minus=1, plus=0.5), groove_angle_deg=Dimension(nominal=60, minus=5, plus=10),
    )  # fmt: skip
    tight, wide = sketch_of(joint).ghosts
    assert (tight.root_opening_mm, tight.root_face_mm, tight.groove_angle_deg) == (2, 1.5, 55)
    assert (wide.root_opening_mm, wide.root_face_mm, wide.groove_angle_deg) == (5, 0, 70)
    assert joint_metal(tight).groove_area_mm2 < joint_metal(wide).groove_area_mm2
    assert sketch_of(Joint(kind="square", thickness_mm=10)).ghosts == ()


def test_clashes_are_told_at_every_leaf_that_takes_part_and_not_where_nothing_is_stated():
    clashing = Joint(kind="single-v", thickness_mm=6, root_face_mm=Dimension(nominal=8))
    assert set(clashes(clashing)) == {"joint/root_face_mm", "joint/thickness_mm"}
    bore = Joint(kind="square", product="pipe", od_mm=20, thickness_mm=12)
    assert set(clashes(bore)) == {"joint/od_mm", "joint/thickness_mm"}
    assert clashes(Joint(kind="single-v")) == clashes(Joint()) == {}


@given(st.floats(-3, 3), st.floats(-3, 3))
def test_a_grip_follows_the_pointer_by_what_it_measures(dx, dy):
    def moved(field, by):
        return grip(V, field, (2 + by[0], 4 + by[1])) - grip(V, field, (2, 4))

    assert moved("root_opening_mm", (dx, dy)) == pytest.approx(2 * dx)
    assert moved("thickness_mm", (dx, dy)) == pytest.approx(dy)


def test_a_profile_is_the_section_without_dimensions():
    picture = profile(V, 2.0)
    assert not any(isinstance(item, Text | Marker) for item in picture.items)
    assert len(areas(picture, "metal")) == 2


# Handles of the operating window -------------------------------------------------------------


def test_the_chosen_box_has_a_handle_at_each_side_and_the_plane_reads_them_back():
    plane = Plane.around([ROOT], (110, 68))
    picture = operating_window([replace(ROOT, chosen=True)], SI, plane, lambda t, h: 0.5 * h * len(t))
    handles = {item.target.removeprefix(ROOT.target): item.at for item in picture.items if isinstance(item, Marker)}
    assert set(handles) == {
        f"/{leaf}/{end}" for leaf in ("travel_speed_mm_min", "current_a") for end in ("low", "high")
    }
    assert plane.read(handles["/travel_speed_mm_min/high"])[0] == pytest.approx(ROOT.travel_speed_mm_min.high)
    assert plane.read(handles["/current_a/low"])[1] == pytest.approx(ROOT.power_w.low)


def test_the_plates_of_boxes_at_one_place_stand_side_by_side():
    boxes = [replace(ROOT, label=str(n)) for n in range(5)]
    plates = areas(window(boxes), "plate")
    assert shapely.union_all(plates).area == pytest.approx(sum(plate.area for plate in plates))


# Weld symbols and curves ---------------------------------------------------------------------


def symbol(system, **stated):
    texts = SymbolTexts("3", ("60°", "60°"), ("", ""), "SMAW")
    joint = Preparation(**{"thickness_mm": 12, "root_opening_mm": 3, "groove_angle_deg": 60} | stated)
    return weld_symbol(joint, texts, system, lambda t, h: 0.5 * h * len(t))


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_has_a_symbol(kind):
    stated = {"radius_mm": 15, "leg_mm": 6, "hole_mm": 20, "slot_length_mm": 40, "width_mm": 30, "layer_mm": 3}
    for system in ("aws", "iso"):
        picture = symbol(system, kind=kind, **stated)
        assert sum(isinstance(item, Path) and item.role == "symbol" for item in picture.items) >= 3


def test_the_arrow_side_is_below_the_line_by_aws_and_above_it_by_iso():
    """AWS A2.4 and ISO 2553 system A, from memory, M; the other side stands on the dashed line of ISO 2553."""

    def vee(system):
        lines = [i.points for i in symbol(system, kind="single-v").items if isinstance(i, Path) and i.role == "symbol"]
        return next(points for points in lines if len(points) == 3 and points[0][1] == points[2][1])

    assert vee("aws")[0][1] < 0 < vee("iso")[0][1]
    dashed = [i for i in symbol("iso", kind="single-v").items if i.role == "symbol_dashed"]
    assert len(dashed) == 1
    assert not [i for i in symbol("aws", kind="single-v").items if i.role == "symbol_dashed"]


@pytest.mark.parametrize("opening", ["3", "0.118", "5/32 to 3/16"])
@pytest.mark.parametrize("kind", ["single-v", "single-bevel", "square"])
def test_a_root_opening_stands_between_the_lines_of_its_symbol(kind, opening):
    measure = lambda text, height: 0.5 * height * len(text)  # noqa: E731 - one line
    texts = SymbolTexts(opening, ("60°", ""), ("", ""), "")
    joint = Preparation(kind=kind, thickness_mm=12, root_opening_mm=3, groove_angle_deg=60)
    picture = weld_symbol(joint, texts, "iso", measure)
    (text,) = (item for item in picture.items if isinstance(item, Text) and item.text == opening)
    half = measure(opening, text.height_mm) / 2
    box = shapely.box(text.at[0] - half, text.at[1], text.at[0] + half, text.at[1] + 0.7 * text.height_mm)
    lines = [shapely.LineString(item.points) for item in picture.items if isinstance(item, Path)]
    assert not any(line.intersects(box) for line in lines)


def test_the_face_of_a_weld_without_a_cap_is_drawn():
    fillet = replace(PLAIN_FILLET, reinforcement_mm=0.0)
    faces = [item.points for item in metal(shape_of(fillet)) if item.role == "face"]
    assert [coordinate for face in faces for point in face for coordinate in point] == pytest.approx([0, 8, 8, 0])
    crowned = replace(PLAIN_FILLET, reinforcement_mm=1.0)
    assert not [item for item in metal(shape_of(crowned)) if item.role == "face"]
    assert "face" in {item.role for item in profile(fillet, 1.0).items}
    groove = Preparation(kind="single-v", thickness_mm=12, root_opening_mm=3, groove_angle_deg=60)
    assert "face" not in {item.role for item in profile(groove, 1.0).items}


PLAIN_FILLET = Preparation(kind="fillet", thickness_mm=12, leg_mm=8)


def test_a_symbol_says_all_round_backing_and_melt_through():
    roles = {item.role for item in symbol("iso", kind="single-v", od_mm=100, root_reinforcement_mm=1).items}
    assert {"symbol_circle", "symbol_full"} <= roles
    assert "symbol_circle" not in {item.role for item in symbol("iso", kind="v-backing").items}


def test_curves_keep_their_names_apart():
    lines = [Curve(f"design {n}", "1", ((1.0, 1.0), (2.0, 2.0 + 0.01 * n)), own=n == 0) for n in range(4)]
    picture = curves(lines, Frame("across", "up", 1.5, (80.0, 60.0)), lambda t, h: 0.5 * h * len(t))
    heights = sorted(i.at[1] for i in picture.items if isinstance(i, Text) and i.text.startswith("design"))
    assert all(two - one >= 4 for one, two in pairwise(heights))


def test_among_many_passes_no_number_stands_outside_the_plane_and_the_chosen_one_is_named():
    many = [replace(ROOT, target=f"passes/p{n}", label=str(n), chosen=n == 60) for n in range(1, 61)]
    plane = Plane.around(many, (110, 68))
    picture = operating_window(many, SI, plane, lambda t, h: 0.5 * h * len(t))
    plates = [item for item in picture.items if isinstance(item, Path) and item.role == "plate"]
    assert 1 < len(plates) < 60
    assert all(max(x for x, _ in plate.points) <= plane.width + 1e-9 for plate in plates)
    assert any(plate.target == "passes/p60" for plate in plates)
