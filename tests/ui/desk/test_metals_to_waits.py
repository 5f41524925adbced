"""A new user's way: two steels and a filler, how they harden, how hot before, how long to wait, what the floor gets."""

import time

from anlage.core.drawing import Text


def until(person, done, seconds=40.0):
    end = time.monotonic() + seconds
    while not done() and time.monotonic() < end:
        person.settle()
        time.sleep(0.02)
    assert done()


def state(person, **leaves):
    for path, text in leaves.items():
        person.desk.go_to(path.replace("__", "/"))
        person.fill(text)
    person.settle()


def drafted(person):
    """Draft a plate joint of two steels, 20 mm, with covered electrodes."""
    person.press("Alt+B")
    for path, text in (
        ("metals/one/name", "A516-70"), ("metals/other/name", "A572-50"), ("joint/product", "plate"),
        ("technique/position", "1G"), ("header/code", "asme-ix"), ("joint/thickness_mm", "20"),
    ):  # fmt: skip
        person.document.type_text(path, text)
    person.settle()
    person.press("Ctrl+Shift+J")
    dialog = person.place.draft_dialog
    dialog.ways.setCurrentText("SMAW")
    person.click(dialog.take_button)
    assert [each.filler for each in person.wps.deposits] == ["E7018"]


def test_from_two_steels_to_waits_and_crayons_on_the_sheet(person):
    drafted(person)

    person.press("Alt+T")
    figures = [label.text() for label in person.place._cells["figures"] if not label.isHidden()]
    assert {"CE (IIW), A516-70", "CE (IIW), A572-50"} <= {text for text in figures if text.startswith("CE (IIW)")}
    state(person, metals__one__certificate="Heat 7: C 0.19 Mn 1.15 Si 0.3 Cr 0.04 Mo 0.01 V 0.003 Ni 0.05 Cu 0.06")
    assert any("by its certificate, heat 7" in label.text() for label in person.place.basis.values())

    person.press("Alt+H")
    state(person, preheat__hydrogen="H4")
    person.document.type_text("preheat/reason", "")
    person.document.type_text("preheat/restraint", "medium")
    person.press("Ctrl+Shift+G")
    assert person.wps.preheat.minimum_c is not None
    assert person.wps.preheat.reason.split(":")[0] in person.place.views.view("preheat").verdict.text.text()

    state(person, preheat__interpass_maximum_c="200", joint__seam_length_mm="400")
    person.press("Alt+H")
    state(person, piece__half_width_mm="120")
    person.document.type_text("piece/beyond_mm", "0")
    person.place.views.show_view("sequence")
    shown = person.place.views.view("sequence")
    until(person, lambda: shown.waits is not None and not shown.is_running)
    third = shown.waits.passes[2]
    assert third.number == 3
    assert third.wait_s.high > 0
    rows = [label.text() for label in shown._cells if not label.isHidden()]
    assert rows[rows.index("3") + 1] != "none"

    person.place.views.show_view("cooling")
    person.settle()
    band = person.place.views.view("cooling").band.text()
    assert "kJ/mm" in band, band
    person.press("Alt+P")
    drawn = [item.text for item in person.place.window_view.placed.picture.items if isinstance(item, Text)]
    assert any("HV10" in text for text in drawn), drawn

    person.press("Alt+S")
    until(person, lambda: not person.place.runs.is_due)
    texts = [item.text for page in person.place._in_hand().pages for item in page.items if isinstance(item, Text)]
    assert any(text.startswith("Crayons: ") and "must not melt" in text for text in texts)
    assert any("before pass 3" in text for text in texts)
    assert any(text.startswith("Why this preheat: ") for text in texts)
