"""Which records are worth a closer look: what is found without comparing each in everything is what comparing finds."""

from hypothesis import given
from hypothesis import strategies as st

from anlage.core.codes import Boxes, Candidate, Demand, cover_box, judge
from anlage.core.ranges import choices
from anlage.data.code_packs import code_pack
from tests.builders import coupon, deposit, metals, wps

SPARE = frozenset(("base_metal_thickness_mm", "deposit_thickness_mm", "group_number"))


@st.composite
def coupons(draw):
    """A record of one or two deposits with something left out now and then."""
    thickness = draw(st.integers(3, 60))
    processes = draw(st.sampled_from((("SMAW",), ("GTAW",), ("GTAW", "SMAW"))))
    laid = [deposit(each, t=thickness / len(processes)) for each in processes]
    for own in laid:
        own.pop(draw(st.sampled_from(("position", "f_number", "a_number"))), None)
    number, groups = draw(st.sampled_from(("1", "3", "8"))), draw(st.sampled_from((("1", "1"), ("1", "2"), ("2", "2"))))
    return coupon(thickness, *laid, name=f"R{draw(st.integers(0, 10**6))}", **metals(number, groups=groups))


def all_sets(stated):
    laid = stated.deposits[0]
    return {**stated.joint, **laid.sets, **laid.passes[0].sets, "process": choices(laid.process)}


@given(st.lists(coupons(), min_size=1, max_size=8), coupons(), st.integers(2, 80), st.booleans())
def test_what_is_found_is_what_comparing_each_in_everything_finds(recorded, like, thickness, impact):
    pack, demand = code_pack("asme-ix"), Demand(impact=impact)
    sets = all_sets(wps(like, thickness))
    beside = frozenset(variable for variable in pack.optional if variable not in sets)
    boxes = [cover_box(pack, each, demand) for each in recorded]
    every = [(box, index, order) for order, box in enumerate(boxes) for index in range(len(box.deposits))]
    alike = [each for each in every if each[0].deposits[each[1]]["process"].verdict(sets["process"]) != "outside"]
    compared = sorted((Candidate.of(box, n, sets, order, beside) for box, n, order in alike or every),
                      key=lambda each: each.rank)  # fmt: skip
    found = Boxes(boxes)
    best = found.best(sets, beside)
    assert (best.rank, best.outside, best.unproven) == (compared[0].rank, compared[0].outside, compared[0].unproven)
    near = [(each.rank, each.index) for each in compared if each.inside_but_for(SPARE)]
    assert [(each.rank, each.index) for each in found.near(sets, beside, SPARE)] == near
    covering = [each.rank for each in compared if each.covers]
    first = found.first(sets, beside)
    assert (first and first.rank) == (covering[0] if covering else None)


def test_without_a_record_nothing_is_found():
    assert Boxes([]).best({}, frozenset()) is None
    assert Boxes([]).near({}, frozenset(), SPARE) == []


@given(st.lists(st.tuples(st.integers(3, 40), st.integers(2, 40)), min_size=2, max_size=12), st.integers(20, 90))
def test_of_records_that_cover_together_none_can_be_left_out(made, most):
    pack = code_pack("asme-ix")
    recorded = [
        coupon(max(thick, laid), deposit(t=min(thick, laid)), name=f"R{n}") for n, (thick, laid) in enumerate(made)
    ]
    stated = wps(recorded[0], (3, most), {"deposit_thickness_mm": (0, most / 3)}, thicker_member_mm=10)
    boxes = [cover_box(pack, each, Demand()) for each in recorded]
    found = judge(pack, stated, boxes)
    (names,) = found.supports
    if found.verdict != "inside" or len(names) < 2:
        return
    used = [box for box in boxes if box.record in names]
    assert judge(pack, stated, used).verdict == "inside"
    for left_out in used:
        assert judge(pack, stated, [box for box in used if box is not left_out]).verdict != "inside"
