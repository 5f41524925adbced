"""Several test pieces of one record by ISO 15614-1 level 2: position, heat and make, as each kind of test shows them.

Source: ISO 15614-1:2017, 8.4.2, 8.4.4 and 8.4.7, from memory, H; the pieces are made up. Another code, which knows of
one piece alone, learns nothing from the tests of others.
"""

import pytest

from anlage.core.document import with_at
from anlage.core.record import with_row
from anlage.data.code_packs import code_pack
from anlage.session.judging.clashes.all_clashes import clashes_of
from anlage.session.judging.evidence import evidence_of_document
from anlage.session.judging.records import coupon_of
from tests.frames import judged
from tests.vessels import WITH_IMPACT, seam, seam_record

L2 = "iso-15614-1-l2"
ENERGY = 250 * 28 * 60 / 380 / 1000  # kJ/mm, read of the first piece
K = 0.8  # 135, EN 1011-1
HOT = 1.8
TOUGH = {"header__impact": True, "header__hardness": True}


def with_piece(record, cut, *, mark="P2", **stated):
    """The record with one more test piece, from which tests of a kind were cut."""
    record, _ = with_row(record, "pieces", mark=mark, **stated)
    for each in record.results:
        if each.kind in cut:
            record = with_at(record, f"results/{each.id}/piece", mark)
    return record


def cold(results=WITH_IMPACT, **leaves):
    return seam_record(results=results, technique__position="2G", **leaves)


def rung(wps, record, variable):
    return next(each for each in judged(wps, record).rungs if each.variable == variable)


def in_place(position, record, **settings):
    return rung(seam(technique__position=position, settings=settings, **TOUGH), record, "position").verdict


def test_impact_of_the_hottest_and_hardness_of_the_coldest_piece_free_the_position():
    """The reference's own example: impact of PF, hardness of PC (H)."""
    record = with_piece(cold(), {"impact"}, position="3G", heat_input_kj_mm=HOT)
    assert in_place("4G", record) == "inside"
    assert in_place("1G", record) == "inside"


@pytest.mark.parametrize(
    ("cut", "stated"),
    [({"hardness"}, {"heat_input_kj_mm": HOT}), ({"impact", "hardness"}, {"heat_input_kj_mm": HOT}), ({"impact"}, {}),
     ({"impact"}, {"heat_input_kj_mm": ENERGY - 0.3}), ({"impact"}, {"heat_input_kj_mm": HOT, "process": "SAW"})],
)  # fmt: skip
def test_pieces_that_do_not_tell_hot_and_cold_apart_free_no_position(cut, stated):
    assert in_place("4G", with_piece(cold(), cut, position="3G", **stated)) == "unproven"


def test_one_piece_covers_where_it_was_welded_alone():
    assert in_place("2G", cold()) == "inside"
    assert in_place("4G", cold()) == "unproven"


def test_where_impact_was_tested_counts_not_where_the_first_piece_was_welded():
    both = with_piece(cold(), {"impact", "hardness"}, position="3G", heat_input_kj_mm=HOT)
    assert in_place("2G", both) == "unproven"


def test_heat_is_that_of_the_piece_that_each_test_was_cut_from():
    record = with_piece(cold(), {"impact"}, position="3G", heat_input_kj_mm=HOT)
    own = rung(seam(**TOUGH), record, "heat_input_kj_mm").sure.parts[0]
    assert (own.low, own.high) == pytest.approx((0.75 * K * ENERGY, 1.25 * K * HOT))
    alone = rung(seam(**TOUGH), cold(), "heat_input_kj_mm").sure.parts[0]
    assert (alone.low, alone.high) == pytest.approx((0.75 * K * ENERGY, 1.25 * K * ENERGY))


def test_a_piece_whose_heat_nobody_recorded_shows_none():
    record = with_piece(cold(), {"impact"}, position="3G")
    assert rung(seam(**TOUGH), record, "heat_input_kj_mm").verdict == "unproven"


def covered(make, record):
    wps = seam("SMAW", {"filler_make": make}, header__impact=True)
    return rung(wps, record, "filler_make").verdict


def test_another_make_is_shown_by_one_more_piece_with_impact():
    """8.4.4, covered electrodes (H)."""
    first = seam_record("SMAW", {"filler": "E7018", "filler_make": "rod 3"}, results=(*WITH_IMPACT, ("impact", 1)))
    assert covered("Rod 3", first) == "inside"
    assert covered("rod 4", first) == "outside"
    last = first.results[-1].id
    second, _ = with_row(first, "pieces", mark="P2", filler_make="Rod 4")
    assert covered("rod 4", second) == "outside"  # no impact test was cut from it
    second = with_at(second, f"results/{last}/piece", "p2")
    assert covered("rod 4", second) == "inside"
    assert covered("rod 3", second) == "inside"
    failed = with_at(second, f"results/{last}/passed", False)  # noqa: FBT003 - a leaf
    assert evidence_of_document(failed).state == "rejected"


@pytest.mark.parametrize("leaf", ["piece", "mark"])
def test_a_mark_typed_wrongly_proves_nothing(leaf):
    record = with_piece(cold(), {"impact"}, position="3G", heat_input_kj_mm=HOT)
    tested = next(each.id for each in record.results if each.piece)
    if leaf == "piece":
        record = with_at(record, f"results/{tested}/piece", "P3")
    else:
        record, _ = with_row(record, "pieces", mark="P 2", position="5G")
    assert {"pieces", "results"} & {leaf.partition("/")[0] for each in clashes_of(record, code_pack(L2).derive)
                                    for leaf in each.leaves}  # fmt: skip
    assert in_place("4G", record) == "unproven"


def test_a_code_that_knows_of_one_piece_learns_nothing_from_others():
    """By ASME BPVC IX impact of a hotter piece would buy heat that the coupon of the record never had."""
    record = with_piece(cold(), {"impact"}, position="3G", heat_input_kj_mm=HOT)
    pack = code_pack("asme-ix")
    assert coupon_of(cold(), pack).toughness_tested is True
    assert coupon_of(record, pack).toughness_tested is None
