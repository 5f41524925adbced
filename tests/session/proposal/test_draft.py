"""A first draft: what is not stated is proposed with its reason, what is unknown stays empty, what is stated stays."""

import pytest

from anlage.core.document import Proposed, at, with_, with_at
from anlage.core.errors import FormatError, InputError
from anlage.core.joint import faults
from anlage.core.procedure import Metal, Wps, sketch_of, with_deposit
from anlage.core.proposal import read_drafts, read_usual
from anlage.core.ranges import Interval
from anlage.core.transition import read_transitions
from anlage.data.drafts_table import drafts
from anlage.data.tables import catalogue, processes
from anlage.session.leaves.marks import proposed_sentences
from anlage.session.proposal.draft import drafted, proposals, size_texts, with_size
from anlage.session.weld.beads import bead_layout
from anlage.session.weld.places import goes


def stated(metal, product, thickness, position, *, other=None, progression=None, od=168.3):
    wps = with_at(Wps(), "metals/one/name", metal)
    for path, value in (("joint/product", product), ("joint/thickness_mm", thickness),
                        ("technique/position", position), ("technique/progression", progression)):  # fmt: skip
        wps = with_at(wps, path, value)
    if other:
        wps = with_at(wps, "metals/other", {"name": other})
    return with_at(wps, "joint/od_mm", od) if product == "pipe" else wps


def test_a_fixed_pipe_by_two_processes_is_drafted_whole():
    """The usual open root of pipe (common practice, no source)."""
    found = drafted(stated("A106-B", "pipe", 12.7, "6G"), ("GTAW", "SMAW"))
    root, fill = found.wps.deposits
    assert (root.process, root.filler, root.current_type, root.shielding_gas) == ("GTAW", "ER70S-2", "DCEN", "Ar")
    assert (fill.process, fill.filler, fill.current_type, fill.shielding_gas) == ("SMAW", "E7018", "DCEP", None)
    joint = found.wps.joint
    assert (joint.kind, joint.groove_angle_deg.nominal, joint.root_opening_mm.nominal) == ("single-v", 75, 3.2)
    assert joint.groove_angle_deg.span == Interval(70, 80)
    assert found.wps.technique.progression == "uphill"
    assert [each.role for each in found.wps.passes][:2] == ["root", "hot"]
    layout = bead_layout(found.wps)
    assert layout.laid_mm2 == pytest.approx(sum(each.room_mm2 for each in layout.fillings), rel=0.03)


def test_everything_proposed_is_marked_and_nothing_that_was_stated():
    start = with_at(stated("A106-B", "pipe", 12.7, "6G"), "technique/cleaning", "as the yard does it")
    done = drafted(start, ("GTAW", "SMAW")).wps
    assert done.technique.cleaning == "as the yard does it"
    assert "technique/cleaning" not in done.proposed
    for path, mark in done.proposed.items():
        assert at(done, path) is not None
        assert mark.reason
        assert mark.confidence in "HML"
    assert "deposits/d1/process" not in done.proposed, "it was asked for"
    assert {"joint/kind", "joint/root_opening_mm", "deposits/d1/filler", "technique/progression"} <= set(done.proposed)
    labels = [label for label, _, _ in proposals(done, "si")]
    assert len(labels) == len([path for path in done.proposed if not path.startswith("passes/")])
    assert any("of pass 1 to" in each for each in proposed_sentences(done))


def test_preheat_heat_treatment_and_code_are_not_proposed():
    done = drafted(stated("A335-P22", "pipe", 20.0, "5G")).wps
    assert (done.preheat.minimum_c, done.pwht.kind, done.header.code) == (None, None, None)


@pytest.mark.parametrize(
    ("metal", "other", "process", "filler"),
    [
        ("A36", None, "SMAW", "E7018"), ("A335-P11", None, "GTAW", "ER80S-B2"), ("A335-P91", None, "GTAW", "ER90S-B91"),
        ("A312-TP316L", None, "GTAW", "ER316L"), ("A240-S32205", None, "GTAW", "ER2209"),
        ("A36", "A240-304L", "SMAW", "E309L-16"), ("A240-304L", "A36", "GTAW", "ER309L"),
        ("B209-5083-O", None, "GMAW", "ER5183"),
        ("A572-65", None, "SMAW", "E8018-C3"), ("A106-B", "A335-P11", "SMAW", "E7018"),
        ("A240-304L", "A240-316L", "SMAW", None), ("A514-F", None, "SMAW", None),
        ("a steel of our own", None, "SMAW", None),
    ],
)  # fmt: skip
def test_fillers_go_with_the_metals_and_none_is_made_up(metal, other, process, filler):
    """Usual fillers by metal (common practice, no source)."""
    found = drafted(stated(metal, "plate", 10.0, "1G", other=other), (process,))
    assert {each.filler for each in found.wps.deposits} == {filler}
    assert any("No usual filler" in each for each in found.said) == (filler is None)


def test_an_open_root_of_carbon_steel_by_electrodes_alone_takes_two_of_them():
    done = drafted(stated("A106-B", "pipe", 12.7, "5G"), ("SMAW",)).wps
    assert [each.filler for each in done.deposits] == ["E6010", "E7018"]
    down = drafted(stated("A106-B", "pipe", 9.5, "5G", progression="downhill")).wps
    assert [(each.filler, each.filler_diameter_mm.low) for each in down.deposits] == [("E6010", 3.2), ("E6010", 4.0)]
    assert (down.joint.root_style, down.seam.stop_rule, down.seam.tacks) == ("downhill", "downhill", "2")


def test_what_deposits_state_already_is_filled_in_and_kept():
    start, _ = with_deposit(stated("A36", "plate", 16.0, "2G"), process="FCAW", filler="E71T-1C")
    done = drafted(start).wps
    (own,) = done.deposits
    assert (own.filler, own.shielding_gas, own.current_type, own.filler_diameter_mm.low) == (
        "E71T-1C",
        "CO2",
        "DCEP",
        1.2,
    )
    assert {path for path in done.proposed if path.startswith("deposits/")} == {
        f"deposits/d1/{leaf}" for leaf in ("shielding_gas", "gas_flow_l_min", "current_type", "filler_diameter_mm",
                                           "operation", "supplemental_filler")
    }  # fmt: skip


def test_a_wire_that_shields_itself_gets_no_gas_and_its_polarity():
    """Self-shielded wires run on negative polarity (common practice, no source)."""
    start, _ = with_deposit(stated("A36", "plate", 16.0, "3G"), process="FCAW", filler="E71T-8")
    (own,) = drafted(start).wps.deposits
    assert (own.shielding_gas, own.gas_flow_l_min, own.current_type) == ("none", None, "DCEN")


@pytest.mark.parametrize(("position", "mode"), [("1G", "spray"), ("2G", "spray"), ("3G", "short"), ("4G", "short")])
def test_a_metal_cored_wire_sprays_only_where_its_puddle_lies(position, mode):
    """Spray is for flat and horizontal (common practice, no source)."""
    found = drafted(stated("A572-50", "plate", 22.0, position), ("MCAW",))
    assert [each.transfer_mode for each in found.wps.deposits] == [mode]
    assert found.wps.passes
    assert [each.operation for each in found.wps.deposits] == ["semiautomatic"]


def test_no_pass_of_a_submerged_arc_is_laid_uphill_whatever_its_wire():
    found = drafted(stated("A572-50", "plate", 22.0, "3G"), ("SAW",))
    assert not found.wps.passes
    assert any("flux and slag fall away" in each for each in found.said)


@pytest.mark.parametrize("process", ["SMAW", "GMAW", "FCAW"])
def test_a_groove_on_a_bar_is_drafted_without_a_root_face(process):
    """A V on backing has a feather edge (AWS D1.1 B-U2a, from memory, M)."""
    joint = drafted(stated("A36", "plate", 22.0, "1G"), (process,)).wps.joint
    assert (joint.kind, joint.root_face_mm.nominal) == ("v-backing", 0.0)


@pytest.mark.parametrize(
    ("leaf", "words"), [("joint/product", "plate or pipe"), ("joint/thickness_mm", "the thickness")]
)
def test_what_a_draft_hangs_on_is_asked_for(leaf, words):
    wps = with_at(stated("A36", "plate", 10.0, "1G"), leaf, None)
    with pytest.raises(InputError, match=f"{words} is not stated; state it"):
        drafted(wps)


@pytest.mark.parametrize("metal", catalogue().base_metals, ids=lambda row: row.id)
def test_every_metal_of_the_catalogue_is_drafted_or_says_what_is_missing(metal):
    for product, position in (("plate", "1G"), ("plate", "3G"), ("pipe", "6G"), ("pipe", "2G")):
        for thickness in (2.5, 9.0, 22.0):
            found = drafted(stated(metal.id, product, thickness, position))
            sketch = sketch_of(found.wps.joint)
            assert sketch is not None
            assert not faults(sketch.preparation)
            known = catalogue().filler_rows()
            assert all(each.filler is None or each.filler in known for each in found.wps.deposits)
            assert found.wps.passes
            for each in found.wps.passes:
                home = next(one for one in found.wps.deposits if one.id == each.deposit)
                assert (each.current_a is None) == (home.filler is None)


@pytest.mark.parametrize("metal", ["A106-B", "X65-PSL2", "A36", "A240-316L", "A335-P11", "B209-5083-O"])
@pytest.mark.parametrize("process", ["SMAW", "GTAW", "GMAW", "FCAW"])
@pytest.mark.parametrize(
    ("position", "progression"), [("5G", "downhill"), ("3G", "downhill"), ("4G", None), ("6G", "uphill")]
)
def test_no_filler_is_drafted_that_does_not_go_there(metal, process, position, progression):
    product = "pipe" if position[0] in "56" else "plate"
    found = drafted(stated(metal, product, 9.0, position, progression=progression), (process,))
    place = {"downhill": "down", "uphill": "up", None: "overhead"}[progression]
    fillers = [catalogue().filler(each.filler) for each in found.wps.deposits if each.filler]
    assert all(goes(each, place) for each in fillers)


def test_pipe_of_more_strength_downhill_takes_its_own_cellulosic_electrode():
    down = drafted(stated("X65-PSL2", "pipe", 9.5, "5G", progression="downhill")).wps
    assert {each.filler for each in down.deposits} == {"E8010-P1"}


@pytest.mark.parametrize("weld", ["partial", "repair"])
def test_a_joint_of_another_kind_of_weld_is_not_drafted_as_a_full_groove(weld):
    found = drafted(with_at(stated("A36", "plate", 12.0, "1G"), "header/weld", weld))
    assert found.wps.joint.kind is None
    assert any("choose it at Joint" in each for each in found.said)


def test_a_mark_of_what_is_no_leaf_is_passed_over():
    """As a damaged file may have it."""
    mark = Proposed(reason="x", confidence="L")
    odd = dict.fromkeys(("passes/p9/current_a", "passes/d1/nonsense", "nowhere", "joint/kind", "deposits/d1", ""), mark)
    wps = with_(with_deposit(stated("A36", "plate", 12.0, "1G"))[0], proposed=odd)
    assert proposed_sentences(wps) == ("Preparation.",)
    assert [label for label, _, _ in proposals(wps, "si")] == ["Preparation"]


def test_the_table_names_what_the_catalogue_has():
    table, known = drafts(), catalogue().filler_rows()
    for row in (*table.filler, *table.pair):
        assert row.take in known
        assert set(row.when.process) & set(known[row.take].processes)
    for row in table.deposit:
        for gas in (row.gas, row.backing_gas):
            assert gas in ("", "none") or catalogue().gas(gas)
    assert {each for way in table.ways for each in way} <= set(processes())
    families = {row.family for row in catalogue().base_metals}
    for rows in (table.process, table.joint, table.filler, table.deposit, table.word):
        for row in rows:
            assert all(any(each.startswith(family) for each in families) for family in row.when.family)
            assert set(row.when.uns) <= {each.uns_or_en for each in catalogue().base_metals}


def test_a_size_is_typed_as_a_thickness_or_a_pipe():
    wps = with_at(Wps(), "metals/one/name", "A106-B")
    pipe = with_size(wps, "5 sch 40", "", "si")
    assert (pipe.joint.product, pipe.joint.od_mm, pipe.joint.thickness_mm) == ("pipe", 141.3, 6.55)
    assert size_texts(pipe, "si") == ("5 sch 40", "")
    plate = with_size(wps, "12,7", "", "si")
    assert (plate.joint.thickness_mm, size_texts(plate, "si")) == (12.7, ("12.7", ""))
    with pytest.raises(InputError, match="thick"):
        with_size(wps, "thick", "", "si")


@pytest.mark.parametrize(
    ("read", "text", "said"),
    [
        (read_drafts, "title = 1", "Expected `str`, got `int`"),
        (read_drafts, "title = ", "at line 1 column 9"),
        (read_usual, 'title = "x"\nspeed = 3', "Object contains unknown field `speed`"),
        (read_transitions, 'title = "x"', "missing required field"),
    ],
)
def test_a_table_that_is_not_what_it_claims_is_refused_in_one_line(read, text, said):
    with pytest.raises(FormatError) as fault:
        read(text)
    assert said in str(fault.value)
    assert str(fault.value).endswith("; mend the row")


@pytest.mark.parametrize(
    ("one", "other", "filler"),
    [("A516-70", "A572-50", "E7018"), ("A572-50", "A36", "E7018"), ("A516-70", "S690QL", None)],
)
def test_two_plain_steels_take_the_filler_that_is_usual_for_each(one, other, filler):
    """Of steels that differ the filler goes with both (common practice, no source); of a stronger one none is known."""
    start = with_at(stated(one, "plate", 20.0, "1G"), "metals/other", Metal(name=other))
    assert [each.filler for each in drafted(start, ("SMAW",)).wps.deposits] == [filler]
