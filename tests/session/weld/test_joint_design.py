"""What a joint's designer is told: root styles, standard details, what the weld takes, other designs, files."""

import csv
import io
import math

import ezdxf
import openpyxl
import pytest
import shapely
from msgspec.structs import replace

from anlage.core.consumption import Rates, Run, takes
from anlage.core.document import Dimension, read_strict, with_at
from anlage.core.errors import InputError
from anlage.core.joint import KINDS, MAKES, Preparation, deviations, faults, joint_metal, misfits, shape_of
from anlage.core.joint.root_style import Root
from anlage.core.procedure import WPS, Joint, Wps, with_deposit, with_pass, without_pass
from anlage.core.ranges import Interval
from anlage.data.files import FOLDER
from anlage.data.joint_tables import root_styles, standard_details
from anlage.formats.font import measure
from anlage.formats.tables import Table, as_csv
from anlage.formats.xlsx import as_xlsx
from anlage.session.output.pictures import picture_file, picture_of
from anlage.session.output.tables import pass_table, table_file
from anlage.session.proposal.fill import filled
from anlage.session.seam.seam_places import seam_mm
from anlage.session.takes.designs import HEADS, compared, designs
from anlage.session.takes.takes import shrinkage_figures, takes_sections, weld_takes
from anlage.session.weld.advice import advice, details_for, styles_for, with_detail
from anlage.session.weld.beads import bead_layout
from anlage.session.weld.fill_notices import fill_notices


def demo():
    return read_strict((FOLDER / "demo/OST-W-01.json").read_text(encoding="utf-8"), WPS)


def joint_of(**stated):
    dimensions = {
        name: Dimension.stated(nominal=value)
        if name.rpartition("_")[0] not in ("thickness", "od", "backing")
        else value
        for name, value in stated.items()
        if name != "kind"
    }
    return Joint(kind=stated["kind"], **dimensions)


def procedure(joint, *deposits):
    wps = Wps(joint=joint)
    for each in deposits:
        wps, home = with_deposit(wps, **each)
        wps, _ = with_pass(wps, home)
    return wps


OPEN_V = {
    "kind": "single-v",
    "thickness_mm": 12.0,
    "root_opening_mm": 3.2,
    "root_face_mm": 0.5,
    "groove_angle_deg": 75.0,
}
WIRE = {"process": "GMAW", "filler": "ER70S-6", "filler_diameter_mm": [1.2, 1.2], "transfer_mode": "spray"}
ROD = {"process": "SMAW", "filler": "E7018", "filler_diameter_mm": [3.2, 3.2]}


# Root styles and standard details ------------------------------------------------------------


def test_an_open_joint_is_offered_open_styles_and_one_on_backing_its_own():
    assert {each.id for each in styles_for(Joint(kind="single-v"))} == {
        "lay-wire", "keyhole-dip", "back-feed", "cup-walk", "wide-gap", "drop-by-drop", "inside-below-keyhole-above",
        "inside-below-wide-above", "cellulosic", "downhill",
    }  # fmt: skip
    on_plate = styles_for(Joint(kind="single-v", product="plate"))
    assert not any(each.by_clock for each in on_plate), "a plate has no clock"
    assert [each.id for each in styles_for(Joint(kind="v-backing"))] == ["on-backing"]
    assert styles_for(Joint(kind="fillet")) == styles_for(Joint()) == ()


@pytest.mark.parametrize(
    ("style", "root", "fields"),
    [
        ("keyhole-dip", {"gap_mm": 3.5, "land_mm": 0.5, "filler_mm": 2.4}, []),
        ("keyhole-dip", {"gap_mm": 2.0, "land_mm": 0.5, "filler_mm": 2.4}, ["root_opening_mm"] * 2),
        ("keyhole-dip", {"gap_mm": 3.5, "land_mm": 2.0, "filler_mm": 3.2}, ["root_face_mm", "filler_diameter_mm"]),
        ("lay-wire", {"gap_mm": 3.2, "land_mm": 0.0, "filler_mm": 2.0}, ["filler_diameter_mm", "root_opening_mm"]),
        ("back-feed", {"gap_mm": 4.5, "land_mm": 0.0, "filler_mm": 3.2}, []),
        ("wide-gap", {"gap_mm": 6.0, "land_mm": 0.0, "filler_mm": 3.2}, []),
        ("wide-gap", {"gap_mm": 3.2, "land_mm": 0.0, "filler_mm": 3.2}, ["root_opening_mm"]),
        ("drop-by-drop", {"gap_mm": 7.5, "land_mm": 0.0, "filler_mm": 3.2}, []),
        ("inside-below-keyhole-above", {"gap_mm": 4.0, "land_mm": 0.0, "filler_mm": 2.4}, []),
        ("cellulosic", {"gap_mm": 3.0, "land_mm": 0.5}, ["root_face_mm"]),
        ("keyhole-dip", {"gap_mm": 3.2, "land_mm": 0.5, "bevel_deg": 25.0}, ["groove_angle_deg"]),
        ("keyhole-dip", {}, []),
    ],
)
def test_what_does_not_go_with_a_root_style_is_named(style, root, fields):
    assert [each.field for each in misfits(Root(**root), root_styles().styles[style])] == fields


def test_advice_says_what_to_do_and_where_it_comes_from():
    wps = with_at(procedure(joint_of(**OPEN_V | {"root_opening_mm": 2.0}), ROD), "joint/root_style", "keyhole-dip")
    said = advice(wps, "si")
    assert any("open the gap" in each.text and each.origin == "common practice, no source" for each in said)
    assert any("keyhole dip is welded with GTAW, the first deposit is SMAW" in each.text for each in said)
    spacer = next(each for each in said if each.text.startswith("Spacer"))
    assert spacer.text.startswith("Spacer for the tacks: 2 mm (5/64 in) or 2.4 mm (3/32 in);")
    wide = with_at(wps, "joint/root_opening_mm", Dimension.stated(nominal=9.0))
    assert any("Spacer for the tacks: a bar of 9" in each.text for each in advice(wide, "si"))
    inch = next(each for each in advice(wps, "us") if each.text.startswith("Spacer"))
    assert "5/64 in (2 mm)" in inch.text


def test_thin_backing_is_told_and_ceramic_is_not():
    joint = joint_of(kind="v-backing", thickness_mm=20.0, root_opening_mm=6.0, groove_angle_deg=45.0, backing_mm=5.0)
    wps = procedure(joint, {"process": "SAW"})
    assert any("is thin" in each.text for each in advice(wps, "si"))
    assert not any("is thin" in each.text for each in advice(with_at(wps, "joint/backing_form", "ceramic"), "si"))
    assert not any("is thin" in each.text for each in advice(with_at(wps, "joint/backing_mm", 10.0), "si"))


def test_every_standard_detail_is_a_joint_that_can_be_made_and_conforms_to_itself():
    for name, detail in standard_details().items():
        thick = min(max(detail.thickness_mm[0] + 1, 20.0), detail.thickness_mm[1])
        for kind in detail.kinds:
            assert kind in KINDS
            wps = with_detail(Wps(joint=Joint(kind=kind, thickness_mm=thick)), name)
            stated = {
                field: value.nominal
                for field in ("root_opening_mm", "root_face_mm", "groove_angle_deg", "radius_mm")
                if (value := getattr(wps.joint, field)) is not None
            }
            if MAKES[kind].form in ("u", "j"):
                stated.setdefault("radius_mm", 6.0)  # a detail that draws none leaves it open
            joint = Preparation(kind=kind, thickness_mm=thick, **stated)
            assert deviations(joint, detail) == (), name
            assert joint_metal(joint).groove_area_mm2 > 0


@pytest.mark.parametrize(
    ("changed", "fields"),
    [
        ({}, []),
        ({"root_opening_mm": 8.0}, []),  # AWS D1.1 steel backing, as detailed: +2, -0 (from memory, H)
        ({"root_opening_mm": 9.0}, ["root_opening_mm"]),
        ({"root_opening_mm": 5.0, "groove_angle_deg": 40.0}, ["root_opening_mm", "groove_angle_deg"]),
        ({"groove_angle_deg": 55.0}, []),
    ],
)
def test_deviations_from_a_detail_are_those_outside_its_tolerances(changed, fields):
    plain = {"kind": "v-backing", "thickness_mm": 20.0, "root_opening_mm": 6.0, "groove_angle_deg": 45.0}
    found = deviations(Preparation(**plain | changed), standard_details()["D1.1 B-U2a (i)"])
    assert [each.field for each in found] == fields


def test_a_detail_of_another_process_or_preparation_is_told():
    joint = joint_of(kind="v-backing", thickness_mm=20.0, root_opening_mm=6.0, groove_angle_deg=45.0)
    wps = with_at(procedure(joint, {"process": "GTAW"}), "joint/detail", "D1.1 B-U2a (i)")
    assert any("is for SMAW, not for GTAW" in each.text for each in advice(wps, "si"))
    assert any(
        "another preparation" in each.text for each in advice(with_at(wps, "joint/detail", "D1.1 B-U7-GF"), "si")
    )
    assert {each.id for each in details_for(joint)} >= {"D1.1 B-U2a (i)", "D1.1 B-U2-S"}


# Filling the joint ---------------------------------------------------------------------------


@pytest.mark.parametrize("deposits", [(ROD,), (WIRE,), ({"process": "GTAW", "filler": "ER70S-2"}, ROD), ({},)])
@pytest.mark.parametrize("kind", ["single-v", "double-u", "tee-bevel", "fillet", "lap-fillet", "v-backing", "cladding"])
def test_the_joint_is_filled_whatever_lays_the_metal(kind, deposits):
    stated = {
        "thickness_mm": 25.0, "root_opening_mm": 3.0, "root_face_mm": 1.5, "groove_angle_deg": 40.0, "radius_mm": 6.0,
        "leg_mm": 12.0, "width_mm": 60.0, "layer_mm": 5.0, "reinforcement_mm": 2.0,
    }  # fmt: skip
    if kind == "double-u":
        stated |= {"radius_mm": 4.0, "groove_angle_deg": 20.0}
    wps = filled(procedure(joint_of(kind=kind, **stated), *deposits))
    found = bead_layout(wps)
    assert len(found.beads) == len(wps.passes) >= 1
    assert found.laid_mm2 == pytest.approx(sum(each.room_mm2 for each in found.fillings), rel=0.02)
    assert fill_notices(wps, "si")[0].good


def test_wire_passes_get_the_speed_that_lays_their_bead():
    wps = filled(procedure(joint_of(**OPEN_V), WIRE))
    feed, speed = wps.passes[2].wire_speed_mm_min, wps.passes[2].travel_speed_mm_min
    area = 0.96 * math.pi / 4 * 1.2**2 * (feed.low + feed.high) / (speed.low + speed.high)
    bead = bead_layout(wps).beads[2]
    assert bead.area_mm2 == pytest.approx(area, rel=1e-6)
    assert not bead.shared


def test_a_joint_that_is_not_stated_cannot_be_filled():
    with pytest.raises(InputError, match="not stated in full; state the preparation"):
        filled(Wps(joint=Joint(kind="single-v")))


def test_a_cap_that_has_to_fill_and_one_too_low_are_told():
    wps = filled(procedure(joint_of(**OPEN_V, reinforcement_mm=2.0), ROD))
    assert len(fill_notices(wps, "si")) == 1
    fills = [each.id for each in wps.passes if each.role == "fill"]
    for each in fills[-2:]:
        wps = without_pass(wps, each)
    for each in (one.id for one in wps.passes if one.role == "cap"):
        wps = with_at(wps, f"passes/{each}/bead_area_mm2", [34, 34])
    said = [each.text.replace("\u2009", " ") for each in fill_notices(wps, "si")]
    assert any("under the surface, usual is 1.59 mm or just flush: the cap has to fill" in each for each in said)
    low = with_at(filled(procedure(joint_of(**OPEN_V, reinforcement_mm=1.0), ROD)), "joint/reinforcement_mm",
                  Dimension.stated(nominal=3.0, minus=0.5, plus=0.5))  # fmt: skip
    assert any("high, 2.5..3.5" in each.text for each in fill_notices(low, "si"))


@pytest.mark.parametrize(
    ("deposit", "least", "most"),
    [
        (WIRE, 12, 40),
        ({"process": "SAW", "filler": "F7A2-EM12K", "filler_diameter_mm": [4.0, 4.0]}, 15, 45),
        ({"process": "FCAW", "filler": "E71T-1M", "filler_diameter_mm": [1.2, 1.2]}, 10, 40),
        ({"process": "FCAW", "filler": "a wire of our own", "filler_diameter_mm": [1.2, 1.2]}, 10, 40),
        ({"process": "FCAW"}, 10, 60),
    ],
)
def test_wire_fills_a_joint_with_beads_of_the_usual_size(deposit, least, most):
    """Common practice, no source: beads of wire are 15 to 40 mm², not the sliver that a rod as thin would lay."""
    thick = joint_of(
        kind="v-backing", thickness_mm=25.0, root_opening_mm=6.0, groove_angle_deg=45.0, reinforcement_mm=2.0
    )
    wps = filled(procedure(thick, deposit))
    areas = [bead.area_mm2 for bead in bead_layout(wps).beads]
    assert least < min(areas)
    assert max(areas) < most
    assert 10 < len(areas) < 40


def test_the_shrinkage_of_a_fillet_is_told_with_the_presetting_it_implies():
    for kind, first in (("fillet", "Edge 100 mm"), ("double-fillet", "After one fillet, edge 100 mm")):
        rows = shrinkage_figures(procedure(joint_of(kind=kind, thickness_mm=12.0, leg_mm=7.0), ROD), "si")
        across, rises, back = (each.text.replace("\u2009", " ") for each in rows)
        assert (across, rises) == ("0.8 mm", back)
        assert rows[1].name.startswith(first)
        assert float(back.removesuffix(" mm")) == pytest.approx(100 / 150 * 2.52, abs=0.01)  # EX: 2.52 mm at 150 mm


@pytest.mark.parametrize(
    ("kind", "others"),
    [
        ("tee-double-bevel", {"tee-bevel", "tee-j", "tee-double-j"}),
        ("corner-bevel", {"corner-v", "corner-j"}),
        ("fillet", set()),
    ],
)
def test_a_t_and_a_corner_are_compared_with_their_own_grooves(kind, others):
    stated = {"thickness_mm": 30.0, "root_opening_mm": 3.0, "root_face_mm": 2.0, "groove_angle_deg": 45.0}
    joint = joint_of(kind=kind, thickness_mm=30.0, leg_mm=10.0) if kind == "fillet" else joint_of(kind=kind, **stated)
    found = designs(procedure(joint, ROD), "si")
    assert {each.joint.kind for each in found[1:]} == others
    assert all(each.area_mm2 and len(each.curve) > 20 for each in found)
    for each in found[1:]:
        if each.joint.kind.endswith("-j"):  # D1.1 TC-U8a, TC-U9a, from memory: 10 mm
            assert each.joint.radius_mm.nominal == 10.0


def test_a_buttering_has_no_cap_to_be_told_of():
    stated = OPEN_V | {"reinforcement_mm": 2.0, "buttering_mm": 5.0}
    said = [each.text for each in fill_notices(filled(procedure(joint_of(**stated), ROD)), "si")]
    assert not any("buttering" in each for each in said)


def test_missing_and_excess_metal_are_told():
    wps = filled(procedure(joint_of(**OPEN_V, reinforcement_mm=2.0), ROD))
    assert len(fill_notices(wps, "si")) == 1
    fewer = replace(wps, passes=wps.passes[:-4])
    assert any("is missing: layer 4 ends" in each.text for each in fill_notices(fewer, "si"))
    thick = with_at(wps, f"passes/{wps.passes[-1].id}/bead_area_mm2", [90.0, 90.0])
    assert any("The cap stands" in each.text for each in fill_notices(thick, "si"))
    unknown = with_at(wps, f"passes/{wps.passes[0].id}/travel_speed_mm_min", None)
    unknown = with_at(unknown, f"passes/{wps.passes[0].id}/thickness_mm", None)
    assert "not known for 1 of" in fill_notices(unknown, "si")[0].text


# What it takes -------------------------------------------------------------------------------


def test_what_passes_take_adds_up():
    """Worked by hand: 66 min of arc at 2.5 kW, 12 l/min; 1.3 kg at 65 %."""
    runs = [
        Run(filler="E", metal_kg=0.65, efficiency=0.65, arc_min=30, power_w=2500, gas="Ar", gas_l_min=12, factor=0.25,
            electrode_kg=0.02),
        Run(filler="E", metal_kg=0.65, efficiency=0.65, arc_min=36, power_w=2500, gas="Ar", gas_l_min=12, factor=0.25,
            electrode_kg=0.02),
    ]  # fmt: skip
    found = takes(runs, wait_min=5, rates=Rates(labour_per_h=60, filler_per_kg=5, gas_per_m3=10, power_per_kwh=0.2))
    assert (found.arc_min, found.elapsed_min) == (66, pytest.approx(66 / 0.25 + 5))
    assert found.energy_kwh == pytest.approx(66 / 60 * 2.5)
    assert found.gases_l == {"Ar, shielding": pytest.approx(66 * 12)}
    assert (found.fillers[0].mass_kg, found.fillers[0].electrodes) == (pytest.approx(2.0), pytest.approx(65))
    assert found.whole_cost == pytest.approx(269 + 10 + 7.92 + 0.55)


def test_what_a_pass_does_not_say_is_not_made_up():
    found = takes([Run(filler="E", metal_kg=1, efficiency=1, arc_min=None)], rates=Rates(labour_per_h=60))
    assert (found.arc_min, found.elapsed_min, found.energy_kwh, found.whole_cost) == (None,) * 4


def test_the_weld_is_counted_by_the_metre_the_seam_or_the_ring():
    wps = with_at(demo(), "joint/seam_length_mm", None)
    assert seam_mm(wps) == (1000, "one metre of seam")
    long = with_at(wps, "joint/seam_length_mm", 2400.0)
    one, many = weld_takes(wps, {}), weld_takes(long, {})
    assert many.metal_kg == pytest.approx(2.4 * one.metal_kg)
    assert many.arc_min == pytest.approx(2.4 * one.arc_min)
    ring = with_at(with_at(wps, "joint/product", "pipe"), "joint/od_mm", 400.0)
    assert seam_mm(ring) == (pytest.approx(math.pi * 400), "the whole ring")
    assert weld_takes(ring, {}).metal_kg < one.metal_kg * math.pi * 0.4  # Pappus: its centroid lies inside the wall


def test_every_group_of_figures_is_told_and_says_where_it_comes_from():
    sections = takes_sections(demo(), {"labour_per_h": 50.0}, "us")
    assert [each.title for each in sections] == ["Metal", "Time and energy", "Gas", "Money", "Shrinkage"]
    assert all(figure.origin for each in sections for figure in each.figures)
    assert "–" in {figure.text for figure in sections[3].figures}  # rates that are not stated
    empty = takes_sections(Wps(), {}, "si")
    assert "Fill the joint" in empty[0].figures[0].origin


def test_other_designs_take_more_or_less_by_their_own_areas():
    found = designs(demo(), "si")
    assert found[0].joint == demo().joint
    by_kind = {each.joint.kind: each.area_mm2 for each in found}
    assert by_kind["double-v"] < by_kind["single-v"]
    curve = dict(next(each.curve for each in found if each.joint.kind == "single-v"))
    assert list(curve.values()) == sorted(curve.values())


RATES = {"labour_per_h": 50.0, "filler_per_kg": 6.0, "gas_per_m3": 9.0, "power_per_kwh": 0.3}


def test_designs_are_compared_in_metal_time_and_money_over_the_same_seam():
    own, anew, *others = compared(demo(), RATES, "si")
    assert (own.name, own.design) == ("As stated, your passes", None)
    found = weld_takes(demo(), RATES)
    assert own.texts[HEADS.index("Beads")] == str(len(demo().passes))
    assert own.texts[HEADS.index("Money")] == f"{found.whole_cost:.2f}"
    assert anew.design.joint == demo().joint
    money = {each.design.joint.kind: float(each.texts[HEADS.index("Money")]) for each in (anew, *others)}
    assert money["double-v"] < money["single-v"]  # half the metal, the same deposits
    assert sum(each.least[HEADS.index("Money")] for each in (own, anew, *others)) == 1
    assert compared(Wps(), RATES, "si") == ()


def test_a_kept_design_stays_beside_the_joint_as_it_is_changed():
    kept = demo().joint
    changed = with_at(demo(), "joint/groove_angle_deg", Dimension.stated(nominal=45))
    rows = compared(changed, {}, "si", [kept])
    assert rows[2].name.replace("\u2009", " ").startswith("Single-V, 60°, 3 mm, kept")
    metal = [float(row.texts[0].split("\u2009")[0]) for row in rows[1:3]]
    assert metal[0] < metal[1]
    assert rows[1].texts[HEADS.index("Money")] == "–"  # no rates are stated


# Files ---------------------------------------------------------------------------------------


def test_the_section_as_dxf_is_in_real_millimetres_on_named_layers():
    wps = demo()
    drawing = ezdxf.read(io.StringIO(picture_file(wps, "section", ".dxf", "si", measure).decode()))
    assert drawing.units == ezdxf.units.MM
    assert not drawing.audit().errors
    grooves = [e for e in drawing.modelspace() if e.dxf.layer == "GROOVE"]
    (groove,) = (shapely.Polygon([point[:2] for point in each.get_points()]) for each in grooves)
    assert groove.area == pytest.approx(211.2, abs=0.1)  # the demo's groove, in mm²
    assert {"MEMBERS", "DIMENSIONS", "TEXT", "TOLERANCE"} <= {layer.dxf.name for layer in drawing.layers}
    texts = {e.dxf.text.replace("\u2009", " ") for e in drawing.modelspace() if e.dxftype() == "TEXT"}
    assert {"18 mm", "3 mm", "60°"} <= texts


def test_the_bead_map_as_dxf_holds_every_bead_with_its_area():
    wps = filled(demo())
    drawing = ezdxf.read(io.StringIO(picture_file(wps, "beads", ".dxf", "si", measure).decode()))
    outlines = [e for e in drawing.modelspace() if e.dxf.layer == "BEADS"]
    areas = [shapely.Polygon([point[:2] for point in each.get_points()]).area for each in outlines]
    assert sorted(areas) == pytest.approx(sorted(bead.area_mm2 for bead in bead_layout(wps).beads), rel=1e-4)


@pytest.mark.parametrize("name", ["section", "beads", "designs"])
def test_every_picture_is_written_as_svg_and_pdf(name):
    wps = demo()
    assert picture_file(wps, name, ".svg", "si", measure).startswith(b"<svg")
    assert picture_file(wps, name, ".pdf", "us", measure).startswith(b"%PDF-")
    assert picture_file(wps, name, ".pdf", "us", measure) == picture_file(wps, name, ".pdf", "us", measure)


def test_a_picture_that_cannot_be_drawn_or_written_is_refused():
    with pytest.raises(InputError, match="not stated in full"):
        picture_of(Wps(), "section", "si", measure)
    with pytest.raises(InputError, match=r"take \.svg, \.pdf or \.dxf"):
        picture_file(demo(), "section", ".png", "si", measure)
    with pytest.raises(InputError, match="is no picture"):
        picture_of(demo(), "clouds", "si", measure)


def test_the_passes_are_a_table_in_numbers():
    wps = demo()
    rows = list(csv.DictReader(io.StringIO(table_file(wps, ".csv", "si", {}).decode("utf-8-sig"))))
    assert len(rows) == len(wps.passes)
    assert float(rows[0]["Current least, A"]) == wps.passes[0].current_a.low
    table = pass_table(wps, "us")
    speed = table.head.index("Travel speed least, in/min")
    assert table.rows[0][speed] == pytest.approx(wps.passes[0].travel_speed_mm_min.low / 25.4, rel=1e-5)


def test_a_workbook_holds_passes_and_what_they_take():
    book = openpyxl.load_workbook(io.BytesIO(table_file(demo(), ".xlsx", "si", {"labour_per_h": 60.0})))
    assert book.sheetnames == ["Passes", "What it takes"]
    assert book["Passes"]["G2"].value == demo().passes[0].current_a.low


@pytest.mark.parametrize("text", ["=1+1", "+1", "-1", "@x", "\tx"])
def test_no_cell_starts_a_formula(text):
    table = Table("T", ("a",), ((text,),))
    assert as_csv(table).decode("utf-8-sig").splitlines()[1].strip('"').startswith("'")
    cell = openpyxl.load_workbook(io.BytesIO(as_xlsx([table])))["T"]["A2"]
    assert (cell.data_type, cell.value) == ("s", text)


# What a contract or a pipe adds --------------------------------------------------------------


def woven(**seam):
    rod = {"process": "SMAW", "filler": "E7018", "filler_diameter_mm": [3.2, 3.2]}
    wps = with_at(procedure(joint_of(**OPEN_V), rod), "technique/bead_technique", "weave")
    for name, value in seam.items():
        wps = with_at(wps, f"seam/{name}", value)
    return wps


def test_a_weave_limit_splits_wide_layers_and_a_bead_over_it_is_told():
    """No limit by default; some contracts stop at 3 electrode diameters (common practice, no source)."""
    free = filled(woven())
    limited = filled(woven(weave_limit_mm=9.6))
    assert len(limited.passes) > len(free.passes)
    assert not any(each.text.startswith("Weave") for each in fill_notices(limited, "si"))
    told = [each.text for each in fill_notices(with_at(free, "seam/weave_limit_mm", 9.6), "si")]
    (weave,) = (each for each in told if each.startswith("Weave of pass"))
    widest = max(bead.width_mm for bead in bead_layout(free).beads)
    assert f"{widest / 3.2:.1f} electrode diameters; the limit is 9.6" in weave.replace("\u2009", " ")


def test_purge_gas_flows_through_the_elapsed_time_and_the_waits():
    runs = [Run(filler="ER70S-2", metal_kg=0.1, efficiency=1.0, arc_min=4.0, gas="Ar", gas_l_min=10.0, purge="Ar",
                purge_l_min=5.0, factor=0.2)] * 2  # fmt: skip
    assert dict(takes(runs, wait_min=10.0).gases_l) == {
        "Ar, shielding": 80.0,
        "Ar, purging": 2 * 5.0 * (4.0 / 0.2 + 10.0),
    }
    wps = demo()
    home = wps.deposits[0].id
    wps = with_at(with_at(wps, f"deposits/{home}/backing_gas", "Ar"), f"deposits/{home}/backing_flow_l_min", [5, 5])
    (gas,) = (each for each in takes_sections(wps, {}, "si") if each.title == "Gas")
    assert [figure.name for figure in gas.figures] == ["Ar, shielding", "Ar, purging"]
    assert "displaces the air" in gas.figures[1].origin


def bored(**stated):
    return Preparation(kind="single-v", thickness_mm=8, other_thickness_mm=12, root_opening_mm=3, root_face_mm=1,
                       groove_angle_deg=60, flush="face", taper=4.0, od_mm=300, **stated)  # fmt: skip


def test_a_counterbore_moves_the_transition_and_leaves_the_groove_as_it_is():
    plain, long = bored(), bored(counterbore_mm=15)
    assert joint_metal(plain) == joint_metal(long)
    starts = []
    for joint in (plain, long):
        (thick,) = (member for member in shape_of(joint).members if member.target == "metals/other")
        low = sorted(x for line in thick.lines for x, y in line if y == 0.0 and x > 0)
        starts.append(low[-1])
        assert min(y for line in thick.lines for _, y in line) == -4.0
    assert starts[1] - starts[0] == 15
    (shown,) = (each for each in shape_of(long).dimensions if each.field == "counterbore_mm")
    assert shown.end[0] - shown.start[0] == 15
    assert [str(each).partition(":")[0] for each in faults(bored(counterbore_mm=-1))] == ["counterbore"]


@pytest.mark.parametrize(
    ("number", "name"),
    [*(("01", name) for name in ("section", "beads", "designs", "symbol", "stops")),
     *(("02", name) for name in ("stops", "symbol", "fit-up/6 o'clock", "sectors/1")), ("03", "node"), ("03", "cope")],
)  # fmt: skip
def test_every_line_of_a_drawing_lies_on_a_named_layer(number, name):
    wps = read_strict((FOLDER / f"demo/OST-W-{number}.json").read_text(encoding="utf-8"), WPS)
    if number == "02":
        wps = with_at(wps, "seam/stop_rule", "downhill")
    drawing = ezdxf.read(io.StringIO(picture_file(wps, name, ".dxf", "si", measure).decode()))
    layers = {entity.dxf.layer for entity in drawing.modelspace()}
    assert layers
    assert not layers & {"OTHER", "0"}
    assert not drawing.audit().errors


# What has no section -------------------------------------------------------------------------


def test_a_buttering_pass_in_a_joint_without_any_takes_what_its_settings_lay():
    wps = demo()
    first = with_at(wps, "passes/p10/role", "buttering")
    whole, without = (weld_takes(each, {}) for each in (first, with_at(first, "passes/p10/bead_area_mm2", None)))
    assert whole is not None
    assert without is not None
    assert whole.metal_kg != without.metal_kg > 0  # a rod lays what is fed at its current


def test_a_closed_butt_without_metal_shrinks_by_no_school():
    closed = procedure(joint_of(kind="square", thickness_mm=3.0, root_opening_mm=0.0, reinforcement_mm=0.0))
    (figure,) = shrinkage_figures(closed, "si")
    assert (figure.text, "no metal is laid" in figure.origin) == ("–", True)


def test_the_waits_of_the_sequence_count_where_nobody_states_one():
    span, runs = Interval(18.0, 42.0), len(demo().passes)
    plain, waited = weld_takes(demo(), {}), weld_takes(demo(), {}, span)
    assert waited.elapsed_min - plain.elapsed_min == pytest.approx(30.0)
    typed = {"wait_min": 8.0}
    assert weld_takes(demo(), typed, span).elapsed_min - plain.elapsed_min == pytest.approx(8.0 * (runs - 1))
    notes = [takes_sections(demo(), rates, "si", span)[1].note for rates in ({}, typed)]
    assert "waits as Sequence finds them, 18 min to 42 min together" in notes[0]
    assert f"{runs - 1} waits of 8 min (Sequence finds 18 min to 42 min)" in notes[1]
