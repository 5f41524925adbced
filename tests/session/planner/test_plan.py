"""Coupons planned for joints: every plan is judged again joint by joint, and none has a coupon too many."""

from itertools import combinations

import pytest

from anlage.core.codes import Boxes, cover_box
from anlage.core.errors import InputError
from anlage.data.code_packs import code_pack
from anlage.session.judging.records import coupon_of
from anlage.session.planner import plan as planning
from anlage.session.planner.candidates import Buyer, candidates
from anlage.session.planner.costs import cost_of, costs_of
from anlage.session.planner.joints import joints_of
from anlage.session.planner.plan import Planning, held_by, planned
from tests.vessels import seam_record

ROWS = (
    {"name": "header", "base": "A106-B", "product": "pipe", "thickness": "4..10mm", "od": "60..168mm",
     "position": "6G", "process": "GTAW", "filler": "ER70S-2"},
    {"name": "line", "base": "A106-B", "product": "pipe", "thickness": "8..16mm", "od": "168..323mm",
     "position": "5G", "process": "GTAW,SMAW", "filler": "ER70S-2,E7018"},
    {"name": "shell", "base": "A516-70", "product": "plate", "thickness": "10..30mm", "position": "1G",
     "process": "SMAW", "filler": "E7018"},
    {"name": "skirt", "base": "A516-70", "product": "plate", "thickness": "30..60mm", "position": "1G",
     "process": "SMAW", "filler": "E7018"},
    {"name": "cold", "base": "A516-70", "product": "plate", "thickness": "10..30mm", "position": "1G",
     "process": "SMAW", "filler": "E7018", "impact": "yes"},
    {"name": "liner", "base": "A240-304L", "product": "plate", "thickness": "3..6mm", "position": "1G",
     "process": "GTAW", "filler": "ER308L"},
)  # fmt: skip
CODES = ("asme-ix", "iso-15614-1-l2", "aws-d1.1")


def plan_of(code, rows=ROWS, **by):
    return planned(joints_of(rows), Planning(pack=code_pack(code), **by))


@pytest.mark.parametrize("code", CODES)
def test_every_joint_that_is_covered_is_inside_by_the_planned_coupons(code):
    pack, found = code_pack(code), plan_of(code)
    bare = {name.partition(" (")[0] for name, _ in found.uncovered}
    assert {"header", "line", "shell", "skirt", "cold"} - bare, "some are covered"
    for joint in joints_of(ROWS):
        if joint.name not in bare:
            assert held_by(joint, Buyer(pack, [each.coupon.pqr for each in found.coupons])), joint.name
            assert not held_by(joint, Buyer(pack, []))
    assert not any("not known to join" in each for each in found.said)


@pytest.mark.parametrize("code", CODES)
@pytest.mark.parametrize("names", [("header", "line", "shell"), ("shell", "skirt"), ("shell", "cold", "liner")])
def test_no_fewer_of_its_coupons_do(code, names):
    """By trying every smaller choice of all coupons that might be welded; each buys at most what the engine says."""
    rows = [row for row in ROWS if row["name"] in names]
    joints, pack = joints_of(rows), code_pack(code)
    found = plan_of(code, rows)
    assert found.cover.is_optimal
    elements, _ = planning._elements(joints, pack)
    every = list(candidates(joints, pack))
    buyer = Buyer(pack, [each.pqr for each in every])
    elements = planning._in_parts(elements, buyer)
    held = [planning.covering(each, buyer.boxes(each.demand)) for each in elements]
    covers = {frozenset(n for n, own in enumerate(held) if place in own) for place in range(len(every))}
    worth = [each for each in covers if each and not any(each < other for other in covers)]
    asked = frozenset().union(*worth)
    fewest = next(size for size in range(1, len(worth) + 1)
                  if any(asked <= frozenset().union(*choice) for choice in combinations(worth, size)))  # fmt: skip
    assert len(found.coupons) == fewest


def test_a_cold_shell_needs_a_coupon_of_its_own_thickness_by_asme():
    """ASME BPVC IX QW-403.6: with impact no thinner than the coupon, or 16 mm (H, from memory)."""
    found = plan_of("asme-ix", [row for row in ROWS if row["name"] == "cold"])
    assert len(found.coupons) == 2, "10 to 30 mm by one that is thin and one that is thick"
    assert all("impact" in each.coupon.words() for each in found.coupons)
    assert found.uncovered == ()


def test_what_each_coupon_is_needed_for_nothing_else_covers():
    found = plan_of("asme-ix")
    for each in found.coupons:
        assert each.needed_for, each.name
        assert set(each.covers)
    assert found.said[0].startswith("Impact is not stated of header, line, shell, skirt")


def test_what_no_coupon_covers_is_told_with_why():
    """API 1104 joins no records over walls: a range over two groups of walls is covered by none (H)."""
    found = plan_of("api-1104", [{**ROWS[0], "thickness": "4..10mm"}])
    assert found.coupons == ()
    assert found.uncovered == (("header", "by the nearest coupon: wall group outside"),)


def test_a_joint_of_a_process_that_the_code_does_not_know():
    found = plan_of("aws-d17.1", [{**ROWS[2], "process": "SMAW"}])
    assert found.uncovered == (("shell", "AWS D17.1 has no rules for SMAW"),)


def test_what_a_record_covers_already_is_not_planned_again():
    record = seam_record("SMAW", {"filler": "E7018", "current_type": "DCEP"}, header__codes=("iso-15614-1-l2",),
                         metals__one__name="A516-70")  # fmt: skip
    rows = [{**ROWS[2], "thickness": "8..20mm"}, ROWS[5]]
    found = plan_of("iso-15614-1-l2", rows, records=[record])
    assert found.already == (("shell", "SR-1"),)
    assert [each.covers for each in found.coupons] == [("liner",)]


def test_the_cheapest_are_not_always_the_fewest():
    dear = costs_of([{"what": "coupon", "unit": "each", "cost": "1"}, {"what": "kg", "unit": "kg", "cost": "100"}])
    rows = [{**ROWS[2], "thickness": "5..8mm"}, {**ROWS[3], "thickness": "5..100mm"}]
    cheap, few = (plan_of("asme-ix", rows, costs=costs) for costs in (dear, {}))
    assert len(few.coupons) == 1
    assert cheap.cover.cost <= cost_of(few.coupons[0].coupon.pqr, dear) + 1e-6


@pytest.mark.parametrize(
    ("row", "where"),
    [({"what": "gold", "unit": "kg", "cost": "1"}, "row 1"), ({"what": "kg", "unit": "h", "cost": "1"}, "row 1"),
     ({"what": "kg", "unit": "kg", "cost": "much"}, "row 1"), ({"what": "kg", "unit": "kg", "cost": "-1"}, "row 1")],
)  # fmt: skip
def test_a_cost_that_cannot_be_is_refused(row, where):
    with pytest.raises(InputError, match=where):
        costs_of([row])


@pytest.mark.parametrize(
    ("change", "said"),
    [({"thickness": ""}, "no thickness"), ({"base": ""}, "no base metal"), ({"process": ""}, "no process"),
     ({"filler": "E7018,E6010,E6011"}, "fillers for"), ({"thickness": "thick"}, "row 1"),
     ({"colour": "red"}, "no column"), ({"process": "glue"}, "row 1")],
)  # fmt: skip
def test_a_joint_that_cannot_be_read_is_refused_with_its_row(change, said):
    with pytest.raises(Exception, match=said):
        joints_of([{**ROWS[2], **change}])


def test_it_can_be_cancelled():
    asked = iter([True, False])
    assert planned(joints_of(ROWS), Planning(pack=code_pack("asme-ix")), lambda: next(asked, False)) is None


def test_a_coupon_is_welded_where_the_joint_is_where_it_makes_no_difference():
    found = plan_of("asme-ix", [ROWS[2], {**ROWS[3], "position": "3G"}])
    assert {each.coupon.pqr.technique.position for each in found.coupons} <= {"1G", "3G"}
    alone = plan_of("asme-ix", [ROWS[2]])
    assert [each.coupon.pqr.technique.position for each in alone.coupons] == ["1G"]


def test_a_planned_coupon_is_a_record_as_the_engine_reads_it():
    (each, *_) = plan_of("asme-ix").coupons
    pack = code_pack("asme-ix")
    box = cover_box(pack, coupon_of(each.coupon.pqr, pack), planning._elements(joints_of(ROWS[:1]), pack)[0][0].demand)
    assert Boxes([box]).boxes == (box,)
    assert {one.kind for one in each.coupon.pqr.results} & {"tension", "face bend", "side bend"}


def test_parts_that_a_code_does_not_join_are_told(monkeypatch):
    """If the engine would not hold the coupons together, the plan says so instead of calling it covered."""
    monkeypatch.setattr(planning, "jointly_covered", lambda *_: None)
    found = plan_of("asme-ix", [row for row in ROWS if row["name"] == "cold"])
    assert found.said[-1] == "Every part of cold is covered, but ASME IX is not known to join these records over it."
