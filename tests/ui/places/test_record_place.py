"""The Proof place: a record entered by hand from a coupon, what it buys, and the procedure that it carries."""

import pytest
from PySide6.QtWidgets import QApplication

from anlage.core.codes.derive import Derivations
from anlage.core.record import Recorded
from anlage.session.judging.clashes.all_clashes import clashes_of
from tests.demo import RECORDS, following


def type_into(person, path, text):
    field = person.place.fields[path]
    field.setFocus()
    person.fill(text)


def choose(person, path, token):
    field = person.place.fields[path]
    field.activated.emit(field.findData(token))


@pytest.fixture
def accepted(demo):
    """Someone at an accepted record."""
    demo.press("Alt+O")
    return demo


@pytest.fixture
def proof(accepted):
    """Someone at an accepted record who was asked, and changes it."""
    accepted.click(accepted.place.guard.button)
    return accepted


def bought(person):
    QApplication.processEvents()
    return {row.title: row.text.replace("\u2009", " ") for row in person.place.buys.rows}


def test_proof_opens_the_record_that_carries_the_procedure_and_joint_leads_back(proof):
    assert proof.document.value.header.number == "OST-R-01"
    assert proof.desk.place == "proof"
    assert proof.shell.band.number.text() == "OST-R-01"
    proof.press("Alt+J")
    assert (proof.wps.header.number, proof.desk.place) == ("OST-W-01", "joint")


def test_an_accepted_record_asks_before_it_changes_and_says_what_rests_on_it(accepted):
    place, before = accepted.place, accepted.document.working
    assert place.guard.said.text() == "This record is accepted. OST-W-01 rests on it."  # OST-W-05 is not covered
    assert accepted.focus() is place, "nothing is selected"
    assert not any(field.hasSelectedText() for field in place.fields.values() if hasattr(field, "hasSelectedText"))
    accepted.type("17")
    type_into(accepted, "joint/thickness_mm", "17")
    accepted.press("Ctrl+Return", "Ctrl+Shift+Return")
    for button in (place.add, place.more, *place.results.buttons[accepted.document.value.results[0].id]):
        accepted.click(button)
    assert accepted.document.working is before
    accepted.click(place.guard.button)
    assert place.guard.isHidden()
    type_into(accepted, "joint/thickness_mm", "17")
    assert accepted.document.value.joint.thickness_mm == 17


def test_a_copy_of_a_record_has_none_of_its_results(accepted):
    accepted.press("Ctrl+Shift+D")
    copy = accepted.document.value
    assert (copy.header.number, copy.results, copy.welded, copy.welded_on) == (following(RECORDS), (), (), None)
    assert accepted.place.state.text().startswith("Open")


def test_a_coupon_is_made_from_the_procedure(demo):
    demo.find("weld a coupon")
    record, wps = demo.document.value, demo.desk.works.read(demo.desk.works.entries()[0].id)[0].value
    assert (demo.desk.place, record.header.number) == ("proof", following(RECORDS))
    assert (record.metals, record.joint, record.technique.position) == (wps.metals, wps.joint, "1G")
    assert [each.process for each in record.deposits] == [each.process for each in wps.deposits]
    assert len(record.welded) == len(wps.passes)
    assert demo.place.state.text().startswith("Open"), "nothing is measured yet"
    assert all(each.thickness_mm is None for each in record.deposits)


def test_what_a_record_buys_follows_every_key(proof):
    assert bought(proof)["Base metal thickness"] == "5..32 mm"
    type_into(proof, "joint/thickness_mm", "12")
    assert "deposits add up to 16 mm" in proof.place.buys.why
    type_into(proof, "deposits/d2/thickness_mm", "6.5")
    assert bought(proof)["Base metal thickness"] == "5..24 mm"
    assert bought(proof)["Deposit thickness, SMAW"] == "0..13 mm"
    proof.press("Ctrl+Z", "Ctrl+Z")
    assert bought(proof)["Base metal thickness"] == "5..32 mm"


def test_a_record_of_two_codes_is_shut_by_the_one_that_accepts_it(accepted):
    proof, before = accepted, len(accepted.place.buys.rows)
    proof.document.type_text("header/second_code", "aws-d1.1")
    proof.settle()
    assert proof.place.state.text().startswith("Open: accepted by ASME IX; open by AWS D1.1")
    assert proof.place.guard.said.text().startswith("This record is accepted by ASME IX.")
    assert "What stands under a code it proves once that accepts it." in proof.place.buys.why
    assert len(proof.place.buys.rows) > before
    assert "AWS D1.1 Base metal thickness" in proof.place.buys.accessibleDescription()
    proof.place.buys.grab()


def test_a_record_is_entered_by_hand_and_carries_a_procedure(demo):
    demo.desk.open_document(demo.desk.works.entries()[1].id)
    QApplication.processEvents()
    demo.press("Ctrl+Shift+R")
    assert demo.document.value.header.number == following(RECORDS)
    assert demo.place.buys.why == "State the code: without it nothing is worked out."
    choose(demo, "header/code", "asme-ix")
    choose(demo, "header/weld", "groove")
    choose(demo, "toughness_tested", "no")
    type_into(demo, "metals/one/name", "A106-B")
    choose(demo, "joint/kind", "single-v")
    for path, text in (("joint/thickness_mm", "7.5"), ("preheat_least_c", "22"), ("technique/position", "6G")):
        type_into(demo, path, text)
    choose(demo, "pwht/kind", "none")
    for process, filler, thickness, gas in (("GTAW", "ER70S-2", "3", "Ar"), ("SMAW", "E7018", "4.5", "")):
        demo.click(demo.place.add)
        own = f"deposits/{demo.document.value.deposits[-1].id}"
        choose(demo, f"{own}/process", process)
        for leaf, text in (
            ("filler", filler),
            ("thickness_mm", thickness),
            ("shielding_gas", gas),
            ("max_pass_thickness_mm", "2.5"),
        ):
            type_into(demo, f"{own}/{leaf}", text)
        choose(demo, f"{own}/operation", "manual")
        for leaf in ("backing_gas", "trailing_gas"):
            type_into(demo, f"{own}/{leaf}", "none")
    said = "The record is open: results not recorded. What stands here it proves once it is accepted."
    assert demo.place.buys.why == said
    for kind, count in (("tension", "2"), ("face bend", "2"), ("root bend", "2")):
        demo.click(demo.place.more)
        own = f"results/{demo.document.value.results[-1].id}"
        choose(demo, f"{own}/kind", kind)
        type_into(demo, f"{own}/count", count)
        choose(demo, f"{own}/passed", "yes")
    assert demo.place.buys.why == ""
    assert bought(demo)["Base metal thickness"] == "1.5..15 mm"
    demo.press("Alt+R")
    QApplication.processEvents()
    assert demo.wps.header.number == "OST-W-02"
    assert [text for _, text in demo.desk.strip.parts()] == ["46 inside", "1 unproven"]
    demo.document.type_text("technique/peening", "none")
    QApplication.processEvents()
    assert demo.place.supports.text() == "GTAW rests on {0}; SMAW rests on {0}.".format(following(RECORDS))


def test_recorded_values_are_typed_number_by_number(proof):
    for part, text in (("least", "90"), ("most", "150")):
        type_into(proof, f"deposits/d1/current_a/{part}", text)
    assert proof.document.value.deposits[0].current_a == Recorded(least=90, mean=112, most=150)
    type_into(proof, "deposits/d1/current_a/mean", "200")
    assert proof.place.fields["deposits/d1/current_a/mean"].property("mark") == "pending"
    assert "not in order" in proof.place.fields["deposits/d1/current_a/mean"].toolTip()


def test_a_deposit_comes_and_goes_with_its_card(proof):
    proof.click(proof.place.add)
    own = proof.document.value.deposits[-1].id
    assert own in proof.place.cards
    proof.place.remove_deposit(own)
    assert own not in proof.place.cards
    proof.press("Ctrl+Z")
    assert own in proof.place.cards


def test_half_typed_text_of_a_record_survives_closing(proof, open_person):
    type_into(proof, "preheat_least_c", "about 85")
    own = proof.document.document_id
    path = proof.desk.works.path
    proof.shell.close()
    again = open_person(path)
    again.desk.open_document(own)
    assert again.place.fields["preheat_least_c"].text() == "about 85"


def test_the_window_opens_again_at_the_record_that_was_open(proof, open_person):
    path = proof.desk.works.path
    proof.shell.close()
    again = open_person(path, **proof.kept[-1]._asdict())
    assert again.document.value.header.number == "OST-R-01"
    assert again.desk.place == "proof"


def test_a_record_put_away_proves_nothing_until_it_is_brought_back(proof):
    proof.desk.run("delete")
    QApplication.processEvents()
    assert proof.wps.header.number == "OST-W-01"
    assert [text for _, text in proof.desk.strip.parts()] != ["47 inside"]
    proof.press("Ctrl+Shift+Backspace", "Alt+J")
    QApplication.processEvents()
    assert [text for _, text in proof.desk.strip.parts()] == ["47 inside"]


def test_job_data_passes_and_sheet_are_those_of_the_procedure_behind_the_record(proof):
    proof.press("Alt+O", "Ctrl+J")
    assert proof.focus() is proof.place.fields["header/number"]
    proof.press("Alt+S")
    assert (proof.wps.header.number, proof.desk.place) == ("OST-W-01", "sheet")
    proof.press("Alt+O")
    proof.press("Ctrl+Shift+D")
    assert proof.document.value.header.number == following(RECORDS)


def test_without_any_record_proof_makes_one(person):
    person.press("Alt+O")
    assert person.document.value.header.number == "PQR-001"
    person.press("Alt+P")
    assert person.wps.header.number == "WPS-001"


def test_every_field_of_a_record_can_be_found(proof):
    proof.find("laboratory")
    assert proof.focus() is proof.place.fields["laboratory"]
    proof.find("ost-w-02")
    assert proof.wps.header.number == "OST-W-02"


def test_a_record_that_contradicts_itself_is_told_when_a_procedure_is_judged(proof):
    type_into(proof, "joint/thickness_mm", "9")
    proof.press("Alt+J")
    QApplication.processEvents()
    assert "A record proves nothing as it stands: deposit: deposits add up to 16 mm" in proof.shell.notice.text.text()


# Evidence ------------------------------------------------------------------------------------


def test_a_test_taken_away_opens_the_record_and_undo_brings_it_back(proof):
    (side_bends,) = [each.id for each in proof.document.value.results if each.kind == "side bend"]
    proof.place.results.buttons[side_bends][0].click()
    proof.settle()
    assert proof.place.state.text() == "Open: 4 side bends of QW-451.1 not recorded as passed."
    assert proof.shell.band.state.text() == "record, open"
    proof.press("Alt+R")
    proof.settle()
    assert "OST-R-01 supports nothing, it is open: 4 side bends" in proof.place.supports.text()
    proof.press("Alt+O", "Ctrl+Z")
    proof.settle()
    assert proof.place.state.text() == "Accepted."


def test_a_failed_test_rejects_and_an_override_needs_name_and_reason(proof):
    (own, *_) = [each.id for each in proof.document.value.results]
    choose(proof, f"results/{own}/passed", "no")
    assert proof.place.state.text() == "Rejected: tension T1 failed."
    choose(proof, "override/verdict", "accepted")
    assert proof.place.state.text() == "Rejected: tension T1 failed."
    type_into(proof, "override/by", "A. Author")
    type_into(proof, "override/reason", "retest passed")
    assert proof.place.state.text() == "Accepted by A. Author against its results: retest passed."
    proof.press("Alt+R")
    proof.settle()
    assert "OST-R-01 was accepted by A. Author" in proof.place.supports.text()
    assert all("retest passed" in line.reason for line in proof.place.model.lines)


def test_passes_as_read_are_typed_beside_their_deposit(proof):
    proof.place.add_welded("d1")
    proof.settle()
    own = proof.document.value.welded[-1].id
    assert proof.focus() is proof.place.fields[f"welded/{own}/current_a"]
    for text in ("100", "10.5", "70"):
        proof.fill(text)
    found = proof.document.value.welded[-1]
    assert (found.deposit, found.current_a, found.voltage_v, found.travel_speed_mm_min) == ("d1", 100, 10.5, 70)
    type_into(proof, f"welded/{own}/current_a", "400")
    proof.settle()
    fault = proof.place.fields[f"welded/{own}/current_a"]
    assert fault.property("mark") == "clash"
    assert "lies beyond the least and most" in fault.toolTip()
    assert proof.place.fields["deposits/d1/current_a/most"].property("mark") == "clash"


def test_how_many_specimens_is_a_whole_number(proof):
    own = proof.document.value.results[0].id
    type_into(proof, f"results/{own}/count", "2.5")
    assert proof.place.fields[f"results/{own}/count"].property("mark") == "pending"
    assert "whole number" in proof.place.fields[f"results/{own}/count"].toolTip()
    type_into(proof, f"results/{own}/count", "2")
    assert proof.document.value.results[0].count == 2


def test_groups_and_numbers_stand_under_metals_and_fillers(proof):
    words = {label.text() for label in proof.place._words.values()}
    assert "A516-70: P-No. 1, Group 2, ISO/TR 15608 group 11.1, D1.1 group II" in words
    assert {"ER70S-2: SFA-5.18, F-No. 6, A-No. 1", "E7018: SFA-5.1, F-No. 4, A-No. 1"} <= words
    type_into(proof, "metals/other/name", "SA-335 P11")
    assert any("SA-335 P11: P-No. 4" in label.text() for label in proof.place._words.values())


def test_the_card_of_a_deposit_has_the_fields_of_its_process(proof):
    own = proof.document.value.deposits[1].id
    assert f"deposits/{own}/flux" not in proof.place.fields
    process = proof.place.fields[f"deposits/{own}/process"]
    process.setFocus()
    choose(proof, f"deposits/{own}/process", "SAW")
    proof.settle()
    assert proof.focus() is proof.place.fields[f"deposits/{own}/process"]
    type_into(proof, f"deposits/{own}/flux", "Flux 12")
    choose(proof, f"deposits/{own}/flux_type", "neutral")
    laid = proof.document.value.deposits[1]
    assert (laid.flux, laid.flux_type) == ("Flux 12", "neutral")
    proof.press("Ctrl+Z", "Ctrl+Z", "Ctrl+Z")
    proof.settle()
    assert proof.document.value.deposits[1].process == "SMAW"
    assert f"deposits/{own}/flux" not in proof.place.fields


def test_what_few_codes_ask_for_is_shown_with_a_code_that_does(proof):
    fields = proof.place.fields
    current = f"deposits/{proof.document.value.deposits[0].id}/current_range_a"

    def shown(*paths):
        proof.settle()
        return [fields[path].isVisibleTo(proof.place) for path in paths]

    assert shown("technique/clamp", "declared/thickness_mm", current) == [False, False, False]
    proof.document.type_text("header/code", "api-1104")
    assert shown("technique/clamp", "declared/thickness_mm", current) == [True, True, True]
    proof.document.type_text("declared/thickness_mm", "5..9")
    proof.document.type_text("header/code", "asme-ix")
    assert shown("technique/clamp", "declared/thickness_mm", current) == [False, True, False]
    proof.desk.go_to("technique/clamp")
    assert shown("technique/clamp") == [True]


def test_a_test_piece_is_added_where_a_code_tells_pieces_apart(proof):
    place = proof.place
    assert not place.another.isVisibleTo(place)
    proof.document.type_text("header/code", "iso-15614-1-l2")
    proof.settle()
    assert place.another.isVisibleTo(place)
    proof.click(place.another)
    proof.settle()
    (piece,) = proof.document.value.pieces
    assert piece.mark == "P2"
    assert proof.focus() is place.fields[f"pieces/{piece.id}/position"]
    proof.fill("3G")
    type_into(proof, f"pieces/{piece.id}/heat_input_kj_mm", "1,8")
    tested = proof.document.value.results[0].id
    type_into(proof, f"results/{tested}/piece", "P2")
    (piece,) = proof.document.value.pieces
    assert (piece.position, piece.heat_input_kj_mm) == ("3G", 1.8)
    assert proof.document.value.results[0].piece == "P2"
    type_into(proof, f"results/{tested}/piece", "P3")
    proof.settle()
    assert "the record has no test piece P3" in " ".join(
        each.text for each in clashes_of(proof.document.value, Derivations())
    )
    proof.document.type_text("header/code", "asme-ix")
    proof.settle()
    assert place.pieces.isVisibleTo(place), "what is stated stays in sight"
    proof.click(place.pieces.buttons[piece.id][0])
    assert proof.document.value.pieces == ()
    assert not place.another.isVisibleTo(place)
