"""The heat that the records allow, in the operating window of the Passes."""

from anlage.core.document import with_at
from tests.session.judging.test_evidence import with_impact


def test_in_the_window_the_line_comes_with_the_verdict(demo):
    for entry in demo.desk.works.all_entries():
        if entry.number == "OST-R-01":
            demo.desk.open_document(entry.id)
            demo.document.edit(with_impact(demo.document.value), "impact")
    demo.desk.open_document(demo.desk.works.entries()[0].id)
    demo.press("Alt+P")
    demo.settle()
    cooled = demo.place.limits()
    assert [each.is_least for each in cooled] == [True, False], "hardness and cooling limit it whatever the records say"
    demo.document.edit(with_at(demo.wps, "header/impact", True), "impact")  # noqa: FBT003 - a leaf
    demo.settle()
    assert [each.chosen for each in demo.place.limits() if each not in cooled] == [True, False]
