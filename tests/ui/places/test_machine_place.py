"""The Machine place: readings typed, dragged and stepped, what they give while it is typed, and where it counts."""

import pytest

from anlage.core.document import with_at
from anlage.core.procedure import with_element
from anlage.session.kinds import PROCEDURE, SOURCE
from anlage.session.seam.change_over import change_overs


def sentences(person):
    return [line.text.text().replace("\u2009", " ") for line in person.place.said]


def marks(person):
    return [line.mark.verdict for line in person.place.said]


def open_number(person, number):
    entries = {entry.number: entry.id for entry in person.desk.works.all_entries()}
    person.desk.open(entries[number])
    person.settle()


def fill(person, own, **texts):
    for leaf, text in texts.items():
        person.place.fields[f"readings/{own}/{leaf}"].setFocus()
        person.place.fields[f"readings/{own}/{leaf}"].selectAll()
        person.fill(text)


@pytest.fixture
def machine(demo):
    """Someone at the engine set of the demo."""
    demo.press("Alt+M")
    return demo


def test_it_opens_a_machine_and_the_way_back_leads_to_the_procedure(machine):
    assert machine.document.value.header.number == "OST-M-01"
    assert machine.focus() is machine.place.wanted
    assert machine.shell.band.state.text() == "machine, 2 of 2 taps in date"
    machine.press("Alt+P")
    assert machine.document.value.header.number == "OST-W-01"


def test_a_wanted_current_is_told_as_dial_while_it_is_typed(machine):
    machine.type("90..1")
    assert "holds nothing" in machine.place.given.text()
    machine.type("10")
    said = machine.place.given.text().replace("\u2009", " ")
    assert said.splitlines() == ["tap 60–120 with 15 m of leads dial 5..6.5",
                                 "tap 40–110 with 15 m of leads dial 6.5..8 for 90..104 A of it"]  # fmt: skip
    texts = [item.text for item in machine.place.picture.placed.picture.items if hasattr(item, "text")]
    assert {"5..6.5", "6.5..8"} <= set(texts)


def test_what_proves_nothing_says_so_by_shape_and_word(machine):
    open_number(machine, "OST-M-02")
    assert marks(machine) == ["unproven", "unproven"]
    assert "out of date since 2026-08-12" in sentences(machine)[0]
    assert "neither rises nor falls" in sentences(machine)[1]
    wrong = next(each.id for each in machine.document.value.readings if each.current_a == 115)
    fill(machine, wrong, current_a="151")
    assert marks(machine) == ["unproven", "inside"]
    assert machine.shell.band.state.text() == "machine, 1 of 2 taps in date"


def test_a_reading_is_added_as_the_one_before_but_for_what_was_read(machine):
    machine.press("Ctrl+Return")
    new = machine.document.value.readings[-1]
    assert (new.tap, new.lead_m, new.meter, new.day) == ("40–110", 15, "clamp 2", "2026-10-06")
    assert (new.dial, new.current_a) == (None, None)
    assert machine.focus() is machine.place.fields[f"readings/{new.id}/dial"]
    assert "1 without dial" in sentences(machine)[1]
    machine.fill("9,5")
    machine.fill("118")
    assert "58..118 A over dial 2..9.5" in sentences(machine)[1]
    machine.click(machine.place.readings.buttons[new.id][0])
    assert "over dial 2..8" in sentences(machine)[1]


def test_a_reading_that_is_being_typed_over_proves_nothing_meanwhile(machine):
    own = machine.document.value.readings[0].id
    fill(machine, own, current_a="7x")
    assert "over dial 5..7" in sentences(machine)[0]
    fill(machine, own, current_a="71")
    assert "over dial 3..7" in sentences(machine)[0]


def test_a_day_that_is_none_waits_in_its_field(machine):
    own = machine.document.value.readings[0].id
    fill(machine, own, day="2026-02-30")
    assert "write" in str(machine.document.complaints()[f"readings/{own}/day"])
    assert machine.document.value.readings[0].day == "2026-10-05"


def test_a_point_is_dragged_and_stepped(machine):
    own = machine.document.value.readings[-1]
    target = f"readings/{own.id}/current_a"
    view, plane = machine.place.picture, machine.place.picture.presenter._plane
    per_dial, per_amp = plane.size_mm[0] / plane.dial, plane.size_mm[1] / (plane.current_a.high - plane.current_a.low)
    machine.drag(view, target, (1.0 * per_dial, 6.2 * per_amp))
    moved = machine.document.value.readings[-1]
    assert (moved.dial, moved.current_a) == (9.0, 110.0)
    view.setFocus()
    view.held = target
    machine.press("Up")
    assert machine.document.value.readings[-1].current_a == 111.0
    machine.press("Ctrl+Z", "Ctrl+Z")
    assert machine.document.value.readings[-1] == own


def test_what_a_machine_gives_counts_for_every_procedure_at_once(machine):
    own = machine.document.value.readings[0].id
    machine.desk.open(machine.desk.works.entries(PROCEDURE)[1].id)
    machine.desk.go("passes")
    machine.place.views.show_view("sectors")
    said = machine.place.views.front().dials
    assert "OST-M-01 tap 60–120 with 15\u2009m of leads dial 4.5..6" in said.text()
    machine.press("Alt+M")
    fill(machine, own, dial="4")
    machine.press("Alt+P")
    assert "dial 5..6" in said.text()
    machine.desk.keep(calibration_months=1)
    machine.desk.refresh_place()
    assert "out of date since 2026-11-05, unproven as amps" in said.text()


def test_readings_of_a_procedure_are_brought_to_the_works(demo):
    wps = demo.wps
    for dial, amps in ((20, 60), (80, 130)):
        wps, _ = with_element(wps, "readings", machine="Set 9", tap="C", dial=dial, current_a=amps, meter="K-2",
                              day="2026-10-05")  # fmt: skip
    demo.document.edit(wps, "as of an earlier version")
    demo.desk.go("passes")
    demo.place.views.show_view("sectors")
    view = demo.place.views.front()
    assert "Set 9 tap C dial" in view.dials.text()
    assert view.bring.isVisible()
    demo.click(view.bring)
    assert demo.wps.readings == ()
    assert [entry.number for entry in demo.desk.works.entries(SOURCE)][-1] == "Set 9"
    assert "Set 9 tap C dial" in view.dials.text()
    assert not view.bring.isVisible()


def test_a_copy_of_a_machine_has_none_of_its_readings(machine):
    machine.press("Ctrl+Shift+D")
    assert machine.document.value.header.number == "OST-M-03"
    assert machine.document.value.readings == ()
    assert machine.shell.band.state.text() == "machine, not calibrated"
    assert "Two or more make a curve" in machine.place.picture.presenter.empty_text()
    assert machine.place.picture.placed is None


def test_no_dimension_and_no_metal_is_a_field_of_a_machine(machine):
    machine.press("Ctrl+K")
    labels = {entry.text for entry in machine.desk.palette._entries if entry.note == "field"}
    assert {"Number", "Title", "Stands", "Current meter ±", "Volt meter ±", "Travel speed ±"} == labels


def test_a_machine_is_read_in_feet_where_the_reader_wants_them(machine):
    machine.desk.reader.switch_units()
    own = machine.document.value.readings[0].id
    assert machine.place.fields[f"readings/{own}/lead_m"].text() == "49.2"
    fill(machine, own, lead_m="50")
    assert machine.document.value.readings[0].lead_m == pytest.approx(15.24)


def test_a_row_of_the_register_leads_to_it_and_says_how_it_stands(demo):
    demo.press("Alt+G")
    rows = {row.number: row for row in demo.place.rows}
    assert (rows["OST-M-01"].verdict, rows["OST-M-01"].state) == ("inside", "machine, 2 of 2 taps in date")
    assert rows["OST-M-02"].verdict == "unproven"
    assert rows["OST-M-01"].id not in demo.place.map.placed.picture.targets()
    demo.place.choose(rows["OST-M-02"].id)
    assert demo.place.rests.text() == ""
    demo.press("Return")
    assert (demo.desk.place, demo.document.value.header.number) == ("machine", "OST-M-02")


def test_nothing_can_be_typed_where_the_file_is_open_for_reading_only(machine):
    document = machine.document
    document.can_write = False
    before = document.working
    document.edit(with_at(document.value, "place", "elsewhere"), "x")
    assert document.working is before


def test_a_deposit_names_its_machine_beside_its_dials_and_the_way_leads_there(demo):
    deposit = demo.wps.deposits[1].id
    demo.desk.go_to(f"deposits/{deposit}/machine")
    view = demo.place.views.front()
    assert demo.place.selection.chosen.deposit == deposit
    assert demo.focus() is view.fields[f"deposits/{deposit}/machine"]
    demo.fill("OST-M-09")
    assert view.dials.text() == "OST-M-09 is no machine of the works: its dial is unproven as amps."
    assert any("Before pass" in text and "one machine is not stated" in text for text in _change_overs(demo))


def _change_overs(person):
    return [each.text for each in change_overs(person.wps, "si")]


def test_what_its_meters_may_be_off_by_is_typed_refused_and_shown_at_the_passes(demo):
    open_number(demo, "OST-M-01")
    for path, text in (("current_tolerance", "2,5 %"), ("speed_tolerance", "lots")):
        demo.place.fields[path].setFocus()
        demo.place.fields[path].selectAll()
        demo.fill(text)
    machine = demo.document.value
    assert (machine.current_tolerance, machine.speed_tolerance) == ("2,5 %", "3 %")
    assert "speed_tolerance" in demo.document.working.pending
    assert "no tolerance" in demo.document.complaints()["speed_tolerance"].what
    demo.press("Ctrl+Z")
    open_number(demo, "OST-W-02")
    demo.press("Alt+P")
    assert "heat input ± 4.7 % by the meters of OST-M-01 (95 of 100)" in demo.place.hero.corners.toolTip()
