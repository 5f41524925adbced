"""The verdict on a WPS from several records: best record, combination, joined pairs, a root from another record."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from msgspec.structs import replace

from anlage.core.codes import Demand, cover_box, judge
from anlage.core.codes.verdict import verdict_within
from anlage.core.ranges import Interval, between, fits, numbers
from anlage.data.code_packs import code_pack
from tests.builders import BASE, coupon, deposit, failing, judged, metals, verdict, wps

THICK, THIN = coupon(30, name="thick"), coupon(8, name="thin")


def test_one_record_that_contains_everything_is_named(asme):
    judgement = judged(asme, wps(THICK, (6, 55)), THIN, THICK)
    assert (judgement.verdict, judgement.supports) == ("inside", (("thick",),))
    assert {rung.records for rung in judgement.rungs} == {("thick",)}


def test_two_records_cover_together_what_neither_covers_alone(asme):
    stated = wps(THICK, (2, 55), {"deposit_thickness_mm": (0, 10)}, thicker_member_mm=10)
    assert verdict(asme, stated, THICK) == verdict(asme, stated, THIN) == "outside"
    judgement = judged(asme, stated, THICK, THIN)
    assert (judgement.verdict, set(judgement.supports[0])) == ("inside", {"thick", "thin"})


def test_a_hole_in_the_product_of_two_records_is_not_covered(asme):
    # Over 16 mm only the record with a thin deposit serves, and it allows 6 mm of it, not 10.
    shallow = coupon(30, deposit(t=3), name="shallow")
    stated = wps(THICK, (2, 55), {"deposit_thickness_mm": (0, 10)}, thicker_member_mm=10)
    assert verdict(asme, stated, shallow, THIN) == "outside"


def test_a_deposit_as_thick_as_its_metal_is_no_void(asme):
    """Through the whole metal: only a record that allows both the metal and the deposit carries it."""
    shallow, hot = (
        coupon(30, deposit(t=3), name="shallow"),
        coupon(14, deposit(t=14, pass_thickness_mm=13.5), name="hot"),
    )
    stated = wps(shallow, (10, 18), {"deposit_thickness_mm": (18, 18)}, thicker_member_mm=10)
    judgement = judged(asme, stated, shallow, hot)
    assert (judgement.verdict, judgement.supports) == ("outside", ((),))


def test_records_of_another_metal_carry_nothing_however_little_is_stated(asme):
    others = [coupon(30, name=f"P3-{n}", **metals("3")) for n in range(2)]
    stated = wps(coupon(30, **metals("8")), (2, 7), {"deposit_thickness_mm": (7, 7)}, thicker_member_mm=7)
    judgement = judged(asme, stated, *others)
    assert (judgement.verdict, judgement.supports) == ("outside", ((),))
    assert "p_number" in failing(judgement)


def test_what_would_be_more_deposit_than_metal_is_no_hole_in_a_groove(asme):
    # Below 5 mm only the thin record serves, to 16 mm of deposit: more than the metal is thick, in any groove.
    stated = wps(THICK, (2, 55), {"deposit_thickness_mm": (0, 50)}, thicker_member_mm=10)
    assert verdict(asme, stated, THICK, THIN) == "inside"
    over = wps(THICK, (2, 55), {"deposit_thickness_mm": (0, 50)}, thicker_member_mm=10, weld="repair")
    assert verdict(asme, over, THICK, THIN, weld="repair") == "outside", "a build-up has no groove to lie in"


def test_records_that_differ_in_another_variable_are_never_mixed(asme):
    other = coupon(8, deposit(t=8, f_number="3", filler_classification="E6010"), name="other")
    stated = wps(THICK, (2, 55), {"deposit_thickness_mm": (0, 10)}, thicker_member_mm=10)
    assert verdict(asme, stated, THICK, other) == "outside"


def test_without_a_cover_the_best_record_has_fewest_outside_then_fewest_unproven_then_is_newest(asme):
    stated = wps(THICK, (6, 80), {"deposit_thickness_mm": (0, 10)}, thicker_member_mm=10, preheat_c=20)
    cold = coupon(30, name="cold", preheat_c=20.0)
    twin = coupon(30, name="twin", preheat_c=20.0)
    assert judged(asme, stated, THICK, twin, cold).rungs[0].records == ("twin",)


def test_one_variable_outside_is_worse_than_many_unproven(asme):
    bare = coupon(30, {"process": "SMAW", "deposit_thickness_mm": 30.0}, name="bare")
    for variable in ("preheat_c", "pwht"):
        del bare.joint[variable]
    wrong = coupon(30, deposit(t=30, f_number="3"), name="wrong")
    judgement = judged(asme, wps(THICK, 30), wrong, bare)
    assert (judgement.verdict, judgement.rungs[0].records) == ("unproven", ("bare",))


def test_like_pairs_of_two_groups_join_to_the_unlike_pair(asme):  # QW-403.5
    first, second = (coupon(20, name=f"group {g}", **metals("1", groups=(g, g))) for g in "12")
    stated = wps(first, 20, group_number="1-2+1-1")
    assert verdict(asme, stated, first, impact=True) == "outside"
    judgement = judged(asme, stated, first, second, impact=True)
    assert (judgement.verdict, judgement.supports) == ("inside", (("group 1", "group 2"),))


def test_like_pairs_of_different_p_numbers_do_not_join(asme):
    one, four = coupon(20, **metals("1")), coupon(20, **metals("4"))
    stated = wps(one, 20, p_number="4+1", group_number="4-1+1-1")
    assert verdict(asme, stated, one, four, impact=True) == "outside"
    pairs = replace(asme.combination.pairs[0], variables=("group_number", "p_number"), across=True)
    across = replace(asme.combination, pairs=(pairs,))
    lenient = replace(asme, combination=across)
    assert verdict(lenient, stated, one, four, impact=True) == "inside", "where a code says so"
    other = replace(four, joint={**four.joint, "preheat_c": 300.0})
    assert verdict(lenient, stated, one, other, impact=True) == "outside", "they agree in all else"


def test_a_record_that_says_its_metals_twice_joins_with_none(asme):
    first, second = (coupon(20, name=f"group {g}", **metals("1", groups=(g, g))) for g in "12")
    joint = {name: fact for name, fact in second.joint.items() if name != "group_number"}
    unclear = replace(second, joint=joint, clashes={"group_number": "said twice"})
    stated = wps(first, 20, group_number="1-2+1-1")
    assert judged(asme, stated, first, unclear, impact=True).verdict != "inside"


def test_a_root_from_another_record_is_laid_in_thicker_metal(asme):  # QW-200.4(b)
    root = coupon(14, deposit("GTAW", t=14), name="root")
    fill = coupon(40, deposit("SMAW", t=40), name="fill")
    both = coupon(60, deposit("GTAW", t=5), deposit("SMAW", t=55))
    stated = wps(both, 60, {"deposit_thickness_mm": 5, "root_only": True}, {"deposit_thickness_mm": 55})
    judgement = judged(asme, stated, root, fill)
    assert judgement.verdict == "inside"
    filled = wps(both, 60, {"deposit_thickness_mm": 5}, {"deposit_thickness_mm": 55})
    assert verdict(asme, filled, root, fill) == "outside", "root passes alone"
    shallow = coupon(14, deposit("GTAW", t=2), deposit("SMAW", t=12), name="shallow")
    assert verdict(asme, stated, shallow, fill) == "outside", "5 mm are more than twice its own 2 mm"
    assert judgement.supports == (("root", "fill"), ("fill",))
    thin_root = coupon(12, deposit("GTAW", t=12), name="thin root")
    assert verdict(asme, stated, thin_root, fill) == "outside"
    too_deep = wps(both, 60, {"deposit_thickness_mm": 30, "root_only": True}, {"deposit_thickness_mm": 30})
    assert failing(judged(asme, too_deep, root, fill))[0] == "base_metal_thickness_mm"


def test_a_root_borrows_thickness_from_a_thicker_record_of_another_process_only(asme):
    root = coupon(40, deposit("GTAW", t=40), name="root")
    thin_fill = coupon(8, deposit("SMAW", t=8), name="thin fill")
    both = coupon(6, deposit("GTAW", t=3), deposit("SMAW", t=3))
    stated = wps(both, (2, 6), {"deposit_thickness_mm": 3, "root_only": True}, {"deposit_thickness_mm": 3})
    assert verdict(asme, stated, root, thin_fill) == "outside"  # a thinner record lends nothing
    cellulosic = {"f_number": "3", "filler_classification": "E6010"}
    first, second = coupon(14, deposit(t=14, **cellulosic)), coupon(40, deposit(t=40))
    same_process = coupon(60, deposit(t=5, **cellulosic), deposit(t=55))
    assert verdict(asme, wps(same_process, 60, {"root_only": True}, {}), first, second) == "outside"


def test_a_record_treated_above_transformation_keeps_its_limit_as_a_root(asme):
    treated = {"pwht": "above-utt", "pwht_temperature_c": 910.0, "pwht_time_h": 1.0}
    root, fill = coupon(14, deposit("GTAW", t=14), **treated), coupon(40, deposit("SMAW", t=40), **treated)
    both = coupon(40, deposit("GTAW", t=5), deposit("SMAW", t=35), **treated)
    assert verdict(asme, wps(both, 40, {"root_only": True}, {}), root, fill) == "outside"


def test_deposits_that_rest_on_one_deposit_of_a_record_count_together(asme):  # QW-404.30
    record = coupon(16, deposit(t=10), name="one")
    both = coupon(24, deposit(t=12), deposit(t=12, filler_diameter_mm=4.0))
    for laid, expected in ((10, "inside"), (12, "outside")):
        stated = wps(both, 24, {"deposit_thickness_mm": (0, laid)}, {"deposit_thickness_mm": (0, laid)})
        judgement = judged(asme, stated, record)
        assert judgement.verdict == expected
    told = [rung for rung in judgement.rungs if rung.verdict == "outside"]
    assert [rung.id for rung in told] == ["deposit_thickness_mm.SMAW-1", "deposit_thickness_mm.SMAW-2"]
    assert (told[0].together.labels, told[0].together.laid) == (("SMAW-1", "SMAW-2"), Interval(0, 24))
    assert judgement.supports == ((), ())


def test_another_record_shares_the_load(asme):
    record, other = (coupon(16, deposit(t=10), name=name) for name in ("one", "other"))
    both = coupon(24, deposit(t=12), deposit(t=12))
    stated = wps(both, 24, {"deposit_thickness_mm": (0, 12)}, {"deposit_thickness_mm": (0, 12)})
    judgement = judged(asme, stated, record, other)
    assert judgement.verdict == "inside"
    assert sorted(judgement.supports) == [("one",), ("other",)]


def test_without_any_record_nothing_is_proven(asme):
    assert judged(asme, wps(THICK, 20)).verdict == "unproven"


def test_a_value_not_stated_is_unproven_and_says_so(asme):
    stated = wps(THICK, 20)
    del stated.joint["preheat_c"]
    judgement = judged(asme, stated, THICK)
    rung = next(rung for rung in judgement.rungs if rung.id == "preheat_c")
    assert (judgement.verdict, rung.verdict, rung.reason) == ("unproven", "unproven", "the WPS does not state preheat")


def test_outside_beats_unproven(asme):
    stated = wps(THICK, 90)
    del stated.joint["preheat_c"]
    assert verdict(asme, stated, THICK) == "outside"


def test_a_rung_names_gap_clause_and_worst_pass(asme):
    stated = wps(THICK, 20, passes=3)
    hot = stated.deposits[0].passes[1].sets
    stated.deposits[0].passes[1].sets.update({**hot, "heat_input_kj_mm": between(1.0, 2.0)})
    judgement = judged(asme, stated, THICK, impact=True)
    (rung,) = [rung for rung in judgement.rungs if rung.verdict == "outside"]
    assert (rung.id, rung.clause, rung.because) == ("heat_input_kj_mm.SMAW", "QW-409.1", "impact")
    assert rung.gap == pytest.approx(-0.5)


def test_repeated_processes_are_numbered_in_order_of_deposit(asme):
    twice = coupon(30, deposit(t=10), deposit(t=20))
    ids = {rung.id for rung in judged(asme, wps(twice, 30), twice).rungs}
    assert {"f_number.SMAW-1", "f_number.SMAW-2"} <= ids


# Properties ----------------------------------------------------------------------------------

thicknesses = st.floats(1, 170).map(lambda t: round(t, 1))
numbers_p = st.sampled_from(("1", "3", "4", "5A", "8", "15E"))


@st.composite
def records(draw):
    """A complete record of one or two deposits, and whether impact is demanded."""
    t = draw(thicknesses)
    share = draw(st.sampled_from((1.0, 0.25, 0.5)))
    processes = draw(st.permutations(tuple(BASE)))
    shares = [share] if share == 1.0 else [share, 1 - share]
    laid = [
        deposit(process, t=t * part, pass_thickness_mm=min(t * part, draw(st.sampled_from((3.0, 12.0, 20.0)))))
        for process, part in zip(processes, shares, strict=False)
    ]
    treatment = {"pwht": draw(st.sampled_from(("none", "above-utt"))), "pwht_temperature_c": 900.0, "pwht_time_h": 1.0}
    groups = draw(st.sampled_from((("1", "1"), ("1", "2"), ("2", "2"))))
    return coupon(t, *laid, **treatment, **metals(draw(numbers_p), groups=groups)), draw(st.booleans())


@given(records(), st.sampled_from(("si", "us")))
def test_a_record_covers_a_wps_identical_to_its_coupon(case, units):
    record, impact = case
    same = wps(record, record.joint["base_metal_thickness_mm"])
    judgement = judged(code_pack("asme-ix"), same, record, impact=impact, units=units)
    assert (judgement.verdict, failing(judgement)) == ("inside", [])


spans = st.tuples(st.floats(1, 60), st.floats(0, 60)).map(lambda low_width: (low_width[0], sum(low_width)))


@given(st.lists(records(), min_size=1, max_size=4), records(), spans)
def test_adding_a_record_never_removes_coverage(cases, more, span):
    pack = code_pack("asme-ix")
    first = cases[0][0]
    laid = [{"deposit_thickness_mm": 5}] * len(first.deposits)
    stated = wps(first, span, *laid, thicker_member_mm=span)
    before, impact = [record for record, _ in cases], more[1]
    if verdict(pack, stated, *before, impact=impact) == "inside":
        assert verdict(pack, stated, more[0], *before, impact=impact) == "inside"
        assert verdict(pack, stated, *before, more[0], impact=impact) == "inside"


@given(st.lists(records(), min_size=1, max_size=3), spans, st.floats(0, 30), st.floats(0, 30))
def test_widening_a_stated_set_never_turns_outside_into_inside(cases, span, down, up):
    pack, coupons = code_pack("asme-ix"), [record for record, _ in cases]
    wider = (max(0.1, span[0] - down), span[1] + up)
    laid = [{"deposit_thickness_mm": 3}] * len(coupons[0].deposits)
    narrow, wide = (wps(coupons[0], each, *laid, thicker_member_mm=10) for each in (span, wider))
    order = ("outside", "unproven", "inside")
    assert order.index(verdict(pack, wide, *coupons)) <= order.index(verdict(pack, narrow, *coupons))
    assert fits(between(*span), numbers([*between(*wider).parts]))


def test_only_the_variables_whose_sets_changed_are_judged_again(asme, monkeypatch):
    records = [coupon(16), coupon(20, name="OTHER")]
    boxes = [cover_box(asme, each, Demand()) for each in records]
    judge(asme, wps(records[0], 14), boxes)
    judged = []

    def counted(stated, sure, possible):
        judged.append(stated)
        return verdict_within(stated, sure, possible)

    monkeypatch.setattr("anlage.core.codes.box.verdict_within", counted)
    first = judge(asme, wps(records[0], 14), boxes)
    assert judged == []
    again = judge(asme, wps(records[0], 15), boxes)
    assert 0 < len(judged) <= 6 * len(boxes)  # thickness in its three variables, not the fifty others
    assert first.verdict == again.verdict == "inside"
    assert judge(asme, wps(records[0], 500), boxes).verdict == "outside"


def test_what_one_pass_does_not_state_its_deposit_does_not_state(asme):
    """One pass without a travel speed leaves the heat input of its deposit open, however sound the others are."""
    record = coupon(16)
    stated = wps(record, 16, passes=2)
    assert judged(asme, stated, record, impact=True).verdict == "inside"
    (laid,) = stated.deposits
    first, second = laid.passes
    half = replace(laid, passes=(first, replace(second, sets={})))
    found = judged(asme, replace(stated, deposits=(half,)), record, impact=True)
    rung = next(each for each in found.rungs if each.variable == "heat_input_kj_mm")
    assert (found.verdict, rung.verdict, rung.stated) == ("unproven", "unproven", None)


def test_of_records_that_all_cover_the_newest_is_rested_on(asme):
    newer, older = coupon(16, name="NEWER"), coupon(16, name="OLDER")
    assert judged(asme, wps(newer, 14), newer, older).supports == (("NEWER",),)
    assert judged(asme, wps(newer, 14), older, newer).supports == (("OLDER",),)


@pytest.mark.parametrize(
    ("metals", "high", "expected"),
    [
        (("1",), 720, "below-ltt"), (("1",), 725, None), (("5B",), 800, "below-ltt"), (("1", "5B"), 720, "below-ltt"),
        (("1", "5B"), 760, None), (("8",), 1100, "range"), (("1", "8"), 700, None), (("15E",), 700, None),
    ],
)  # fmt: skip
def test_a_heat_treatment_is_below_the_lower_transformation_of_both_metals(asme, metals, high, expected):
    if metals == ("15E",) and any("15E" in row.p_numbers for row in asme.derive.lower_transformations):
        expected = "below-ltt"
    assert asme.derive.heat_treatment_class(Interval(600, high), frozenset(metals)) == expected


# Adding a record -----------------------------------------------------------------------------

THICKNESSES = (4.0, 8.0, 14.0, 20.0, 40.0)
LAYERS = st.tuples(st.sampled_from(("SMAW", "GTAW")), st.sampled_from((0.3, 0.5, 1.0)), st.sampled_from(("3", "4")))
COUPONS = st.tuples(
    st.sampled_from(THICKNESSES),
    st.lists(LAYERS, min_size=1, max_size=2),
    st.sampled_from(("1+1", "4+4")),
    st.sampled_from((True, None, False)),
    st.sampled_from(({}, {"p_number": "said twice"}, {"preheat_c": "said twice"})),
)


def made(number, drawn):
    """A record, whole or with something left out or said twice."""
    thickness, layers, pair, tested, clashes = drawn
    share = 1 / max(sum(part for _, part, _ in layers), 1)
    laid = [
        deposit(process, t=thickness * part * share, **({"f_number": f} if process == "SMAW" else {}))
        for process, part, f in layers
    ]
    found = coupon(thickness, *laid, name=f"R{number}", tested=tested, p_number=pair)
    joint = {name: fact for name, fact in found.joint.items() if name not in clashes}
    return replace(found, joint=joint, clashes=clashes)


@given(st.lists(COUPONS, min_size=1, max_size=4), COUPONS, st.booleans(), st.sampled_from((0.5, 0.9, 1.5)))
@settings(max_examples=200, deadline=None)
def test_a_record_more_never_takes_coverage_away(drawn, more, impact, share):
    pack = code_pack("asme-ix")
    records = [made(number, each) for number, each in enumerate(drawn)]
    like = made(8, (*drawn[0][:3], True, {}))  # what the first record would cover, were it whole
    thickness = drawn[0][0]
    laid = [{"deposit_thickness_mm": (0, share * each["deposit_thickness_mm"])} for each in like.deposits]
    stated = wps(like, (thickness * 0.8, thickness), *laid)
    before = judged(pack, stated, *records, impact=impact)
    for place in (0, len(records)):
        after = judged(pack, stated, *records[:place], made(9, more), *records[place:], impact=impact)
        assert not (before.verdict == "inside" and after.verdict != "inside"), failing(after)
        carried = sum(bool(each) for each in before.supports)
        assert sum(bool(each) for each in after.supports) >= carried


@given(st.lists(COUPONS, min_size=1, max_size=4), st.sampled_from(THICKNESSES))
@settings(max_examples=100, deadline=None)
def test_a_clash_is_never_inside_whatever_the_records(drawn, thickness):
    pack = code_pack("asme-ix")
    records = [made(number, each) for number, each in enumerate(drawn)]
    stated = replace(wps(coupon(thickness), thickness), clashes={"preheat_c": "said twice"})
    judgement = judged(pack, stated, *records)
    assert judgement.verdict != "inside"
    assert all(rung.verdict == "unproven" for rung in judgement.rungs if rung.variable == "preheat_c")
