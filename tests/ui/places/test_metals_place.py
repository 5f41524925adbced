"""The Metals place: certificates typed and read, the mixture dragged, what is said of the pair."""

import pytest
from PySide6.QtWidgets import QFileDialog, QInputDialog


@pytest.fixture
def metals(demo):
    """Someone at the Metals place of the first procedure, whose certificate is not read in yet."""
    demo.document.type_text("metals/one/certificate", "")
    demo.press("Alt+T")
    return demo


def said(person):
    return [(line.mark.verdict, line.text.text()) for line in person.place.said if not line.isHidden()]


def figures(person):
    cells = person.place._cells["figures"]
    return {cells[n].text(): cells[n + 1].text() for n in range(0, len(cells), 3) if not cells[n].isHidden()}


def dissimilar(person):
    for path, text in (("metals/one/name", "A516-70"), ("metals/other/name", "A240-316L"),
                       (f"deposits/{person.wps.deposits[0].id}/filler", "ER309L")):  # fmt: skip
        person.document.type_text(path, text)
    person.settle()


def test_a_certificate_is_typed_by_keyboard_and_counts_at_once(metals):
    before = figures(metals)["CE (IIW), A516-70"]
    metals.type("Heat 7: C 0.15 Mn 1,1 Si 0.3")
    metals.press("Tab")
    assert metals.wps.metals.one.certificate == "Heat 7: C 0.15 Mn 1,1 Si 0.3"
    assert figures(metals)["CE (IIW), A516-70"] == "0.33" != before
    assert "by its certificate, heat 7" in metals.place.basis["metals/one/certificate"].text()


def test_nonsense_waits_in_its_field(metals):
    metals.type("much carbon")
    metals.press("Tab")
    assert metals.wps.metals.one.certificate is None
    assert metals.document.working.pending["metals/one/certificate"] == "much carbon"


def test_steel_and_filler_are_matched(metals):
    assert said(metals)[0] == ("inside", "ER70S-2 matches the base metal: 480 MPa against 485 MPa.")
    metals.place.deposit.setCurrentIndex(1)
    metals.settle()
    assert "E7018" in said(metals)[0][1]


def test_a_dissimilar_pair_has_a_mixture_that_is_dragged_and_stepped(metals):
    dissimilar(metals)
    picture = metals.place.picture
    assert picture.placed is not None
    presenter = picture.presenter
    presenter.step("metals/dilution", 1)
    assert metals.wps.metals.dilution == pytest.approx(0.4)
    at = metals.handle(picture, "metals/dilution")
    presenter.take("metals/dilution", (at.x(), at.y()))
    presenter.drag(presenter._plane.at(40.0, 14.0), fine=False)
    presenter.release()
    metals.settle()
    assert metals.wps.metals.dilution == 0
    assert "Dilution: 0 %" in presenter.describe("metals/dilution")
    metals.press("Ctrl+Z", "Ctrl+Z")
    assert metals.wps.metals.dilution is None
    names = [label.text() for label in metals.place._cells["compared"]]
    assert {"ER308L", "ERNiCr-3", "solidifies"} <= set(names)
    assert not metals.place.compare_head.isHidden()


def test_a_certificate_is_read_from_a_table_of_heats(metals, tmp_path, monkeypatch):
    path = tmp_path / "heats.csv"
    path.write_text("heat,C,Mn,Si,colour\nA1,0.17,1.42,0.35,red\nA2,0.20,1.10,0.20,\n")
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_words: (str(path), ""))
    monkeypatch.setattr(QInputDialog, "getItem", lambda *_words: ("2. A2", True))
    metals.press("Ctrl+Shift+A")
    metals.settle()
    assert metals.wps.metals.one.certificate == "Heat A2: C 0.2 Mn 1.1 Si 0.2"
    path.write_text("nothing\n1\n")
    metals.press("Ctrl+Shift+A")
    assert metals.wps.metals.one.certificate == "Heat A2: C 0.2 Mn 1.1 Si 0.2"


def test_own_ferrite_lines_hold_for_every_procedure_and_are_left_out_again(demo, tmp_path, monkeypatch):
    table, bad = tmp_path / "mine.csv", tmp_path / "bad.csv"
    table.write_text("fn,cr_eq,ni_eq\n0,10,20\n0,40,20\n30,10,0\n30,40,0\n")
    bad.write_text("x\n")
    entries = {entry.number: entry.id for entry in demo.desk.works.all_entries()}
    demo.desk.open_document(entries["OST-W-06"])
    demo.press("Alt+T")
    for chosen, expected in ((bad, False), (table, True), (None, False)):
        name = str(chosen) if chosen else ""
        monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_, name=name: (name, ""))
        demo.place.own_lines.click()
        demo.settle()
        shown = [label.text() for label in demo.place._cells["figures"] if not label.isHidden()]
        assert ("Ferrite, own lines" in shown) is expected, chosen
    demo.desk.open_document(entries["OST-W-01"])
    demo.press("Alt+T")
    assert demo.place.own_lines.isHidden()
