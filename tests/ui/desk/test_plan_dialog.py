"""Coupons planned in the window: for the works, for a table; a coupon is dragged to see what it would buy."""

import time

import pytest

from anlage.ui.desk.plan_dialog import PlanDialog

TABLE = """name,base,product,thickness,position,process,filler,impact,pwht
shell,A516-70,plate,10..30mm,1G,SMAW,E7018,no,none
liner,A240-304L,plate,3..6mm,1G,GTAW,ER308L,no,none
"""


def planned(person, dialog):
    end = time.monotonic() + 60
    while dialog.plan is None and time.monotonic() < end:
        person.settle()
        time.sleep(0.02)
    person.settle()
    assert dialog.plan is not None
    return dialog.plan


def texts(dialog):
    return [dialog.list.item(row).text() for row in range(dialog.list.count())]


@pytest.fixture
def dialog(demo, tmp_path):
    """The planner over a table of two joints."""
    demo.desk.run("plan")
    found = demo.shell.findChild(PlanDialog)
    found.stop()
    path = tmp_path / "joints.csv"
    path.write_text(TABLE, encoding="utf-8")
    found.take_table(path)
    yield found
    found.reject()


def test_a_table_is_planned_by_the_code_that_is_chosen(demo, dialog):
    plan = planned(demo, dialog)
    assert [each.covers for each in plan.coupons] in ([("shell",), ("liner",)], [("liner",), ("shell",)])
    assert dialog.state.text() == f"2 coupons of {plan.tried} possible; no fewer or cheaper ones do."
    assert "Covers shell." in " ".join(texts(dialog))
    assert "Tests: 2 tension" in texts(dialog)[0]
    assert dialog.more.text().startswith("One more coupon would open A")
    dialog.code.setCurrentIndex(dialog.code.findData("api-1104"))
    plan = planned(demo, dialog)
    assert plan.pack.code == "api-1104"
    assert any("is not covered" in each for each in texts(dialog))


def test_a_coupon_dragged_shows_what_it_would_buy_and_goes_back(demo, dialog):
    plan = planned(demo, dialog)
    number = next(n for n, each in enumerate(plan.coupons) if each.covers == ("shell",))
    name, before = plan.coupons[number].name, plan.coupons[number].thickness_mm
    dialog.map.resize(700, 500)
    demo.settle()
    picture = dialog.presenter.picture(180.0, 130.0)
    (spot,) = [item for item in picture.items if item.target == f"coupon/{name}" and hasattr(item, "kind")]
    dialog.presenter.take(f"coupon/{name}", spot.at)
    dialog.presenter.drag((spot.at[0] - 40.0, spot.at[1]), fine=False)
    dialog.presenter.release()
    shown = dialog.presenter.shown[number]
    assert shown.coupon.size.thickness_mm < plan.coupons[number].coupon.size.thickness_mm
    assert shown.covers == (), "too thin for the shell"
    assert "Covers none of the joints." in dialog.list.currentItem().text()
    assert dialog.plan.coupons[number].thickness_mm == before, "the plan stays"
    dialog.presenter.step(f"coupon/{name}", 2)
    assert dialog.presenter.shown[number].coupon.size.thickness_mm == shown.coupon.size.thickness_mm + 1.0
    demo.click(dialog.back_button)
    assert dialog.presenter.shown[number].thickness_mm == before
    assert not dialog.back_button.isEnabled()


def test_a_coupon_is_chosen_on_the_map_and_in_the_list(demo, dialog):
    plan = planned(demo, dialog)
    dialog.presenter.choose(f"coupon/{plan.coupons[1].name}")
    assert dialog.list.currentRow() == 1
    assert dialog.presenter.chosen_name == plan.coupons[1].name
    assert plan.coupons[1].coupon.words() in dialog.presenter.describe(f"coupon/{plan.coupons[1].name}")
    assert dialog.presenter.describe("joint/shell") == "shell"
    assert "<svg" in dialog.presenter.svg()


def test_costs_make_it_the_cheapest_and_a_wrong_table_is_told(demo, dialog, tmp_path):
    planned(demo, dialog)
    costs = tmp_path / "costs.csv"
    costs.write_text("what,unit,cost\ncoupon,each,100\nkg,kg,5\n", encoding="utf-8")
    dialog.take_costs(costs)
    assert planned(demo, dialog).cover.cost > 200
    costs.write_text("what,unit,cost\ngold,kg,5\n", encoding="utf-8")
    dialog.take_costs(costs)
    assert dialog.complaint.text().startswith("costs.csv, row 1: gold is no cost of a coupon")
    assert dialog.plan is not None, "what was planned stays"
    joints = tmp_path / "wrong.csv"
    joints.write_text(TABLE.replace("10..30mm", "thick"), encoding="utf-8")
    dialog.take_table(joints)
    assert "row 1" in dialog.complaint.text()


def test_planning_can_be_stopped(demo):
    demo.desk.run("plan")
    dialog = demo.shell.findChild(PlanDialog)
    assert dialog.joints, "the procedures of the works"
    assert dialog.state.text().startswith("Planning for ")
    demo.click(dialog.stop_button)
    assert dialog.state.text() == "Stopped: nothing is planned."
    assert dialog.plan is None
    assert dialog.map.presenter.picture(180.0, 130.0) is not None, "the joints are shown all the same"
    dialog.reject()
