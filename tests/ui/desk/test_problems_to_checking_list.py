"""A way of a new user, by keyboard alone: a wire procedure with three problems is brought inside by the fewest changes,
a rule that it hangs on is checked against the works' own copy, and the rules are put on paper.
"""

from PySide6.QtWidgets import QFileDialog


def verdicts(person):
    return {line.rung.id: line.rung.verdict for line in person.place.model.lines if line.is_problem}


def test_from_three_problems_to_a_checked_rule_and_a_checking_list(demo, tmp_path, monkeypatch):
    demo.find("OST-W-04")
    demo.press("Return", "Alt+R")
    demo.settle()
    assert [deposit.process for deposit in demo.wps.deposits] == ["GMAW", "FCAW"]
    assert verdicts(demo) == {
        "base_metal_thickness_mm": "outside", "preheat_c": "outside", "shielding_gas.FCAW": "outside",
    }  # fmt: skip
    before = demo.wps

    demo.press("Shift+F7")  # the fewest changes, against the nearest record
    dialog = demo.place.mend_dialog
    assert [(each.label, each.right) for each in dialog.found[0].changes] != []
    assert len(dialog.found[0].left) == 1, "the thickness is the job's: it stays unless the person says so"
    demo.settle()
    dialog.ranges.setFocus()
    demo.press("Space")
    assert "With these changes every variable is inside." in dialog.said.text()
    assert len(dialog.found[0].changes) == 3
    assert demo.wps is before, "nothing is changed before it is taken"
    dialog.take_button.setFocus()
    demo.press("Space")
    demo.settle()
    assert demo.desk.assessment().judgement.verdict == "inside"
    assert demo.place.model.sections[0].title == "Problems, all mended"
    assert demo.desk.assessment().judgement.supports == (("OST-R-03",), ("OST-R-03",))

    line = next(each for each in demo.place.model.lines if each.rung.variable == "preheat_c")
    demo.place.ladder.setCurrentIndex(demo.place.model.index(demo.place.model.row_of(line.rung.key)))
    demo.place.panel.rule_button.setFocus()
    demo.press("Space")  # read the rule
    demo.settle()
    assert demo.desk.place == "rulebook"
    assert demo.place.entry().id == "preheat_min"
    demo.press("Ctrl+Shift+K")
    demo.settle()
    demo.fill("A. Maker")
    demo.fill("shelf copy 3")
    demo.place.dialog.mark_button.setFocus()
    demo.press("Space")
    demo.settle()
    assert "Checked by A. Maker" in demo.place.panel.marks.text()

    target = tmp_path / "rules.pdf"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_args, **_more: (str(target), ""))
    demo.press("Ctrl+Shift+B")
    assert target.read_bytes().startswith(b"%PDF")

    demo.press("Alt+S")
    demo.settle()
    said = " ".join(item.text for page in demo.place.pages.pages for item in page.items if hasattr(item, "text"))
    assert "rules used were not compared with an owned copy of the code" in said
    assert "None of the" not in said.partition("Proof")[2], "one of them was"
