"""Commands act on the document in front alone, and no place is stale when it is shown."""

import pytest

from anlage.core.document import with_at
from anlage.core.procedure import with_deposit, with_element, with_pass, without_pass
from anlage.core.ranges import Interval
from anlage.session.kinds import PROCEDURE, RECORD
from anlage.ui.kit.tabs import Views
from anlage.ui.places import place_specs

PROCEDURES = ("picture", "table", "add_pass", "remove_pass", "fill_joint", "stopwatch", "add_deposit", "issue", "pdf")


@pytest.mark.parametrize("command", PROCEDURES)
def test_a_command_for_procedures_is_off_while_a_record_is_in_front(demo, command):
    """Issuing from a record once issued the procedure behind it."""
    demo.desk.open_document(demo.desk.works.entries(RECORD)[0].id)
    before = [(each.id, each.revisions) for each in demo.desk.works.entries()]
    assert not demo.desk.actions[command].isEnabled()
    demo.desk.run(command)
    assert demo.desk.kind is RECORD
    assert [(each.id, each.revisions) for each in demo.desk.works.entries()] == before


def test_a_command_for_records_is_off_while_a_procedure_is_in_front(demo):
    assert not demo.desk.actions["add_recorded"].isEnabled()
    demo.press("Alt+O")
    assert demo.desk.actions["add_recorded"].isEnabled()
    assert not demo.desk.actions["add_deposit"].isEnabled()


def test_at_the_register_a_command_is_about_the_chosen_document(demo):
    demo.press("Alt+G")
    demo.place.list.setCurrentRow(1)
    demo.desk.run("duplicate")
    titles = [each.title for each in demo.desk.works.entries()]
    assert titles[-1] == titles[1]
    demo.place.list.setCurrentRow(1)
    number = demo.desk.works.entries()[1].number
    demo.desk.run("delete")
    assert number not in [each.number for each in demo.desk.works.entries()]


def _edits(wps):
    """One edit of every kind: a leaf of each part, a list longer and shorter, another joint."""
    first = wps.passes[0].id
    yield "a dimension", with_at(wps, "joint/thickness_mm", 19.0)
    yield "another preparation", with_at(wps, "joint/kind", "double-v")
    yield "a setting of a pass", with_at(wps, f"passes/{first}/current_a", Interval(91.0, 93.0))
    yield "a pass less", without_pass(wps, first)
    yield "a pass more", with_pass(wps, wps.deposits[0].id, role="cap")[0]
    yield "a deposit more", with_deposit(wps, process="SMAW")[0]
    yield "a filler", with_at(wps, f"deposits/{wps.deposits[0].id}/filler", "E6010")
    yield "the header", with_at(wps, "header/number", "OTHER-7")
    yield "a range", with_at(wps, "range/thickness_mm", Interval(3.0, 90.0))
    yield "a tack", with_element(wps, "tacks", place="100 mm")[0]
    yield "a station", with_element(wps, "stations", place="start", gap_mm=4.0)[0]
    yield "a sector", with_element(wps, "sectors", of=first, reach="0 mm to 50 mm")[0]
    yield "the seam", with_at(wps, "seam/stagger_mm", 25.0)
    yield "preheat", with_at(wps, "preheat/minimum_c", 140.0)


def _choose_first(person, place):
    """Choose the first pass or rung: what a person chose before is kept, and is not stale."""
    person.settle()
    if place == "passes":
        person.place.table.setCurrentIndex(person.place.table.model().index(0, 0))
    if place == "ranges":
        person.place.ladder.setCurrentIndex(person.place.model.index(1))  # under the first head


def _looks(person):
    """What every place and every view of it looks like, pixel by pixel."""
    found = {}
    for spec in place_specs():
        if PROCEDURE.id not in spec.kinds:
            continue
        person.desk.go(spec.id)
        _choose_first(person, spec.id)
        views = person.place.findChild(Views)
        for view in list(views._offered) if views else [""]:
            if view and not views.tabs.tab(view).isVisibleTo(views):
                continue
            if view:
                views.show_view(view)
            person.shell.setFocus()
            person.settle()
            found[f"{spec.id} {view}"] = person.shell.stack.grab().toImage()
        if views:
            views.show_view(next(iter(views._offered)))
    return found


@pytest.mark.parametrize("place", range(14))
def test_no_view_is_stale_when_it_is_shown(demo, open_person, tmp_path, place):
    """Every place and view is shown, then an edit of each kind is made; they look as in a window opened after it."""
    what, after = list(_edits(demo.wps))[place]
    _looks(demo)
    demo.desk.go("ranges")
    demo.document.edit(after, what)
    seen = _looks(demo)
    demo.shell.close()
    anew = open_person(tmp_path / "ostrel-demo.anlage")
    fresh = _looks(anew)
    assert seen.keys() == fresh.keys()
    assert [name for name in seen if seen[name] != fresh[name]] == []
