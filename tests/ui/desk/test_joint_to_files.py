"""From a preparation to the floor and to files: chosen, dragged, styled, filled, reordered, printed, saved as DXF."""

import io

import ezdxf
import openpyxl
import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QFileDialog

from anlage.core.drawing.bead_map import middle
from anlage.core.joint import KINDS, MAKES
from anlage.session.output.pictures import picture_file
from anlage.session.weld.beads import bead_layout, bead_of
from anlage.session.weld.preparations import FAMILIES
from anlage.ui.kit.look import measure
from anlage.ui.places.joint.place import NODE


@pytest.fixture
def files(tmp_path, monkeypatch):
    """Every file dialog answers with the next name that is put here."""
    names: list[str] = []
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(tmp_path / names.pop(0)), ""))

    def answer(name):
        names.append(name)
        return tmp_path / name

    return answer


def test_a_new_user_designs_fills_prints_and_exports_a_joint(person, files):
    column = person.place.column
    person.click(column.chooser.button("single-v"))
    for path, text in (("thickness_mm", "20"), ("root_opening_mm", "3.2"), ("root_face_mm", "0.8"),
                       ("groove_angle_deg", "60"), ("reinforcement_mm", "2"), ("cap_overlap_mm", "1.5")):  # fmt: skip
        column.fields[f"joint/{path}"].setFocus()
        person.fill(text)

    person.drag(person.place.section, "joint/groove_angle_deg", (1.6, -0.6))
    dragged = person.wps.joint.groove_angle_deg.nominal
    assert dragged > 60
    assert dragged % 2.5 == pytest.approx(0)

    style = column.advice.style_choice
    style.enter()
    style.activated.emit(style.findData("keyhole-dip"))
    assert person.wps.joint.root_style == "keyhole-dip"
    assert any("goes with keyhole dip" in each.text() for each in column.advice.sentences)
    column.fields["joint/root_opening_mm"].setFocus()
    person.fill("2")
    assert any("open the gap" in each.text() for each in column.advice.sentences if not each.isHidden())
    person.press("Ctrl+Z")

    person.press("Alt+P", "Ctrl+Shift+Return")
    for text in ("S", "E7018", "3.2", "DCEP"):
        person.fill(text)
    person.press("Ctrl+Shift+F")
    found = bead_layout(person.wps)
    assert len(person.wps.passes) == len(found.beads) > 8
    assert found.laid_mm2 == pytest.approx(sum(each.room_mm2 for each in found.fillings), rel=0.01)

    view, ids = person.place.bead_view, [each.id for each in person.wps.passes]
    start, end = (view.placed.on_screen(middle(bead_of(person.wps, key).outline)) for key in (ids[-1], ids[-2]))
    QTest.mousePress(view, Qt.MouseButton.LeftButton, pos=start.toPoint())
    QTest.mouseRelease(view, Qt.MouseButton.LeftButton, pos=end.toPoint())
    assert [each.id for each in person.wps.passes][-2:] == [ids[-1], ids[-2]]

    dxf = files("map.dxf")
    person.press("Ctrl+Shift+P")
    drawing = ezdxf.read(io.StringIO(dxf.read_text()))
    assert len([e for e in drawing.modelspace() if e.dxf.layer == "BEADS"]) >= len(ids)
    sheet = files("floor.pdf")
    person.press("Ctrl+E")
    assert sheet.read_bytes().startswith(b"%PDF-")


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_can_be_chosen_and_drawn(person, kind):
    chooser = person.place.column.chooser
    make = MAKES[kind]
    person.click(chooser.families[FAMILIES.index(make.family)])
    button = next(each for each in chooser.buttons if not each.isHidden() and MAKES[each.kind].form == make.form)
    person.click(button)
    if person.wps.joint.kind != kind:
        person.click(chooser.way(kind))
    assert person.wps.joint.kind == kind
    assert person.place.section.placed is not None
    assert person.place.section.placed.handles()
    person.press("Alt+P")
    person.place.add_pass()
    assert person.place.bead_view.placed is not None


def test_a_detail_gives_its_dimensions_as_one_step(person):
    person.click(person.place.column.chooser.button("single-v"))
    person.click(person.place.column.chooser.way("v-backing"))
    advice = person.place.column.advice
    advice.detail.enter()
    advice.detail.activated.emit(advice.detail.findData("D1.1 B-U2a (i)"))
    steps = person.document.undo_stack.count()
    person.click(advice.take)
    assert person.wps.joint.groove_angle_deg.nominal == 45
    assert (person.wps.joint.root_opening_mm.nominal, person.wps.joint.root_opening_mm.plus) == (6, 2)
    assert person.document.undo_stack.count() == steps + 1
    person.press("Ctrl+Z")
    assert person.wps.joint.groove_angle_deg is None


def test_what_the_weld_takes_follows_the_users_rates_and_they_are_remembered(demo):
    demo.place.views.show_view("takes")
    assert "Together: –" in demo.place.views.view("takes").text()
    for name in demo.place.views.view("takes").fields:
        field = demo.place.views.view("takes").fields[name]
        field.setFocus()
        demo.type("2.5")
    assert "Together: –" not in demo.place.views.view("takes").text()
    assert demo.desk.settings.rates == dict.fromkeys(demo.place.views.view("takes").fields, 2.5)
    demo.desk.run("units")
    assert "lb" in demo.place.views.view("takes").text()
    field = demo.place.views.view("takes").fields["filler_per_kg"]
    assert (field.accessibleName(), float(field.text())) == (
        "Filler, per lb",
        pytest.approx(2.5 * 0.45359237, rel=1e-4),
    )
    assert demo.place.views.view("takes").rates["filler_per_kg"] == 2.5  # shown by the pound, kept as it was typed
    demo.shell.close()
    assert demo.kept[-1].rates["labour_per_h"] == 2.5


def test_other_designs_are_compared_and_saved_as_a_picture(demo, files):
    demo.click(demo.place.views.tabs.tab("designs"))
    assert demo.place.views.in_front == "designs"
    assert demo.place.views.view("designs").picture.placed is not None
    target = files("designs.svg")
    demo.press("Ctrl+Shift+P")
    assert target.read_text().startswith("<svg")
    assert "Double-V" in target.read_text()


def test_a_design_is_kept_compared_and_taken(demo):
    demo.place.views.show_view("designs")
    view = demo.place.views.view("designs")
    demo.click(view.keep)
    demo.document.type_text("joint/groove_angle_deg", "45")
    (name,) = (each.name for each in view.rows if each.design and each.design.kept)
    assert "kept" in name
    demo.click(view.buttons[f"Take {name}"])
    assert demo.wps.joint.groove_angle_deg.nominal == 60
    demo.press("Ctrl+Z")
    assert demo.wps.joint.groove_angle_deg.nominal == 45
    demo.click(view.buttons["Take Double-V"])
    assert demo.wps.joint.kind == "double-v"
    demo.press("Ctrl+Z")
    demo.click(view.buttons[f"Drop {name}"])
    assert not view.kept
    assert not any(each.design and each.design.kept for each in view.rows)


def test_the_passes_are_saved_as_a_workbook_and_a_refusal_is_told(demo, person, files):
    target = files("passes.xlsx")
    demo.press("Ctrl+Shift+T")
    assert openpyxl.load_workbook(target).sheetnames == ["Passes", "What it takes"]
    files("section.dxf")
    person.press("Ctrl+Shift+P")
    assert "not stated in full" in person.shell.notice.text.text()


def test_starts_and_stops_have_a_view_of_their_own_and_a_click_chooses_the_pass(demo, files):
    demo.press("Alt+P")
    demo.place.views.show_view("stops")
    view = demo.place.views.view("stops").picture
    target = f"passes/{demo.wps.passes[4].id}"
    run = next(i for i in view.placed.picture.items if i.role == "clock_run" and i.target == target)
    xs, ys = zip(*run.points, strict=True)
    demo.click(view, view.placed.on_screen((sum(xs) / len(xs), sum(ys) / len(ys))).toPoint())
    assert demo.place.selection.row == 4
    assert demo.place.table.currentIndex().row() == 4
    assert demo.place.views.view("stops").sentences.text().startswith("Pass 5: ")
    changes = demo.place.views.view("stops").changes
    assert "Before pass 4: shut off Ar" in changes.text()
    demo.press("Ctrl+U")
    assert "5/32\N{NO-BREAK SPACE}in." in changes.text()
    demo.press("Ctrl+U")
    demo.find("Stagger")
    demo.fill("25")
    assert demo.wps.seam.stagger_mm == 25
    saved = files("stops.dxf")
    demo.press("Ctrl+Shift+P")
    drawing = ezdxf.read(io.StringIO(saved.read_text()))
    assert {"BEADS", "STOPS"} <= {layer.dxf.name for layer in drawing.layers}
    demo.place.views.show_view("beads")
    assert not demo.place.beside.isHidden()


def test_the_symbol_of_the_joint_is_shown_and_saved(demo, files):
    demo.place.views.show_view("symbol")
    assert demo.place.views.view("symbol").placed is not None
    saved = files("symbol.svg")
    demo.press("Ctrl+Shift+P")
    assert "GTAW SMAW" in saved.read_text()


def test_fit_up_is_measured_at_stations_and_the_beads_are_shown_as_they_lie_there(demo):
    demo.press("Alt+P")
    demo.place.views.show_view("fit-up")
    view = demo.place.views.view("fit-up")
    demo.click(view.add)
    ids = [each.id for each in demo.wps.stations]
    assert len(ids) == 4
    view.fields[f"stations/{ids[3]}/gap_mm"].setFocus()
    demo.fill("5")
    narrow = view.picture.placed.picture
    demo.click(view.rows.buttons[ids[3]][0])
    assert view.chosen == ids[3]
    assert view.picture.placed.picture != narrow
    assert "Worst station: end, gap off by 1" in view.sentences.text()
    demo.click(view.rows.buttons[ids[0]][1])
    assert [each.id for each in demo.wps.stations] == ids[1:]
    demo.press("Ctrl+Z")
    assert [each.id for each in demo.wps.stations] == ids
    assert view.chosen == ids[3]


def test_sectors_and_dials_are_typed_and_told_for_the_chosen_pass(demo):
    demo.press("Alt+P")
    demo.place.views.show_view("sectors")
    view = demo.place.views.view("sectors")
    assert "OST-M-01 tap 60–120" in view.dials.text()
    demo.click(view.add_sector)
    (sector,) = demo.wps.sectors
    assert sector.of == demo.wps.passes[0].id
    view.fields[f"sectors/{sector.id}/current_a"].setFocus()
    demo.fill("95..100")
    assert "kJ/mm" in view.said.text()
    assert "first" not in view.dials.text()
    view.fields[f"sectors/{sector.id}/reach"].setFocus()
    demo.fill("first 300 mm")
    assert "first 300 mm: OST-M-01 tap 60–120" in view.dials.text()
    demo.place.selection.choose(demo.wps.passes[4].id)
    assert "No sector" in view.said.text()
    assert "unproven as amps there" in view.dials.text()
    demo.place.selection.choose(demo.wps.passes[0].id)
    demo.click(view.sectors.buttons[sector.id][0])
    assert demo.wps.sectors == ()


def test_tacks_are_set_out_and_a_strip_bead_is_laid_where_the_fill_runs_low(demo):
    demo.press("Alt+P")
    demo.place.views.show_view("tacks")
    view = demo.place.views.view("tacks")
    demo.click(view.every)
    assert [each.place for each in demo.wps.tacks] == ["9.5 mm", "2390.5 mm"]
    assert view.every.isHidden()
    first = demo.wps.tacks[0].id
    end = view.fields[f"tacks/{first}/first_end"]
    end.activated.emit(end.findData("whole"))
    assert "the root runs into its first end" in view.tacks_said.text()
    demo.click(view.strip)
    (strip,) = (each for each in demo.wps.passes if each.role == "strip")
    view.fields[f"passes/{strip.id}/reach"].setFocus()
    demo.fill("100 mm to 400 mm")
    assert "100 mm to 400 mm: 300" in view.parts_said.text()
    runs = [item for item in view.picture.placed.picture.items if item.target == f"passes/{strip.id}"]
    assert runs
    demo.click(view.parts.buttons[strip.id][0])
    demo.click(view.tacks.buttons[first][0])
    assert len(demo.wps.tacks) == 1
    assert not any(each.role == "strip" for each in demo.wps.passes)
    demo.find("Weave limit")
    demo.fill("3 * 3.2")
    assert demo.wps.seam.weave_limit_mm == pytest.approx(9.6)


def test_a_tube_node_is_built_up_member_by_member_and_its_picture_is_saved(person, files):
    place, column = person.place, person.place.column
    assert place.views.tabs.tab(NODE).isHidden()
    person.click(column.chooser.families[FAMILIES.index("pipe")])
    person.click(column.chooser.button("tube-node"))
    for path, text in (("thickness_mm", "3.2"), ("od_mm", "48.3"), ("run_od_mm", "60.3"), ("leg_mm", "3")):
        column.fields[f"joint/{path}"].setFocus()
        person.fill(text)
    person.click(place.views.tabs.tab(NODE))
    view = place.views.view(NODE)
    person.click(view.add)
    (member,) = person.wps.members
    assert member.angle_deg == 45
    view.fields[f"members/{member.id}/od_mm"].setFocus()
    person.fill("33.7")
    assert "2. Member 2: " in view.said.text()
    assert "on First member" in view.said.text()
    pattern = view.pattern.placed.picture
    seam = next(i for i in view.picture.placed.picture.items if i.role == "weld_line")
    xs, ys = zip(*seam.points, strict=True)
    person.click(view.picture, view.picture.placed.on_screen((max(xs) + 0.5, max(ys))).toPoint())
    person.click(view.rows.buttons[member.id][0])
    assert view.chosen == f"members/{member.id}"
    assert view.pattern.placed.picture != pattern
    saved = files("node.svg")
    person.press("Ctrl+Shift+P")
    assert "Member 2" in saved.read_text()
    person.click(view.add)
    other = person.wps.members[1]
    assert other.angle_deg == 135
    view.fields[f"members/{other.id}/angle_deg"].setFocus()
    person.fill("45")
    assert "it lies in member 2; state 135°" in view.said.text()
    assert "cannot stand so" in view.picture.presenter.empty_text()
    person.click(view.ways[1])
    assert (person.wps.members[1].angle_deg, person.wps.members[1].turn_deg) == (45, 90)
    assert view.ways[0].isHidden()
    person.press("Ctrl+Z")
    person.click(view.ways[0])
    assert person.wps.members[1].angle_deg == 135
    person.click(view.rows.buttons[other.id][1])
    person.find("Weld order")
    assert person.focus() is view.order
    person.click(view.rows.buttons[member.id][1])
    assert person.wps.members == ()
    person.click(column.chooser.families[FAMILIES.index("butt")])
    person.click(column.chooser.button("single-v"))
    assert place.views.in_front == "section"
    assert place.views.tabs.tab(NODE).isHidden()


def test_the_station_and_the_sectors_in_front_are_what_is_saved(demo, files):
    demo.press("Alt+R")
    demo.desk.open_document(next(e.id for e in demo.desk.works.entries() if e.number == "OST-W-02"))
    demo.press("Alt+P")
    demo.place.views.show_view("fit-up")
    stations = demo.place.views.front()
    demo.click(stations.rows.buttons[demo.wps.stations[3].id][0])
    saved = files("station.svg")
    demo.press("Ctrl+Shift+P")
    assert saved.read_bytes() == picture_file(demo.wps, "fit-up/9 o'clock", ".svg", "si", measure)
    demo.place.views.show_view("sectors")
    saved = files("sectors.svg")
    demo.press("Ctrl+Shift+P")
    assert saved.read_bytes() == picture_file(demo.wps, "sectors/1", ".svg", "si", measure)


def test_with_many_passes_other_designs_are_worked_out_beside_the_window(demo, qtbot, monkeypatch):
    monkeypatch.setattr("anlage.ui.places.joint.designs_view.FEW_PASSES", 2)
    demo.place.views.show_view("designs")
    view = demo.place.views.view("designs")
    assert view.picture.presenter.empty_text() == "Being worked out…"
    qtbot.waitUntil(lambda: bool(view.rows), timeout=60_000)
    before = view.rows
    demo.document.type_text("joint/root_opening_mm", "4")
    assert view.picture.presenter.is_stale()
    assert view.rows is before, "what was shown stays until then"
    assert not any(button.isEnabled() for button in view.buttons.values()), "and is not taken"
    qtbot.waitUntil(lambda: view.rows is not before, timeout=60_000)
    assert not view.picture.presenter.is_stale()
    assert all(button.isEnabled() for button in view.buttons.values())
    assert view.rows[1].texts != before[1].texts
