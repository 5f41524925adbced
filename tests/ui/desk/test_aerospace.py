"""An aluminium weld of an aerospace frame, from the Job to the sheet: class of weld, what is not known, its papers."""

from anlage.core.drawing import Text
from anlage.ui.places.ranges.ladder import LINE_ROLE

FRAME = {
    "metals/one/name": "B209-6061-T6", "header/weld": "groove", "joint/product": "plate", "range/thickness_mm": "2..6",
    "technique/position": "1G", "technique/progression": "none", "header/code": "aws-d17.1", "header/impact": "no",
    "header/hardness": "no", "header/sour_service": "no", "pwht/kind": "none", "joint/kind": "single-v",
    "joint/thickness_mm": "3",
}  # fmt: skip


def lines(person):
    model = person.place.model
    found = (model.index(row).data(LINE_ROLE) for row in range(model.rowCount()))
    return {line.rung.variable: line for line in found if line is not None}


def test_a_frame_of_aluminium_under_aws_d17_1(person):
    person.press("Ctrl+N")
    person.document.type_text("header/code", "asme-ix")
    person.settle()
    assert not person.place.fields["header/weld_class"].isVisibleTo(person.place)
    for path, text in FRAME.items():
        person.document.type_text(path, text)
    person.settle()
    assert person.place.fields["header/weld_class"].isVisibleTo(person.place), "its code asks for the class"
    person.press("Alt+P")
    person.place.add_deposit()
    (deposit,) = person.wps.deposits
    for leaf, text in {"process": "GTAW", "filler": "ER5356", "filler_diameter_mm": "2.4", "current_type": "AC",
                       "shielding_gas": "Ar", "operation": "manual"}.items():  # fmt: skip
        person.document.type_text(f"deposits/{deposit.id}/{leaf}", text)
    person.settle()
    person.press("Alt+R")
    found = lines(person)
    assert found["weld_class"].rung.verdict == "unproven"
    person.document.type_text("header/weld_class", "B")
    person.settle()
    assert lines(person)["weld_class"].rung.verdict == "inside"
    assert person.desk.assessment().verdict == "unproven", "no record carries it"
    person.document.type_text("header/construction_code", "aws-d17.1-work")
    person.press("Alt+S")
    pages = person.place.pages.pages
    text = " ".join(item.text for page in pages for item in page.items if isinstance(item, Text))
    assert "The packet of AWS D17.1 holds" in text
    assert "vision test of each welder" in text
    assert "B, semicritical" in text
