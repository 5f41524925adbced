"""Look-up by the trade's names, search, "did you mean", and tables that are refused."""

import pytest

from anlage.core.catalogue import Gas, Vocabulary, read_rows, read_vocabulary
from anlage.core.errors import FormatError, UnknownNameError, closest


@pytest.mark.parametrize("name", [
    "A516-70", "SA-516 70", "sa516 gr. 70", "SA-516 Grade 70", "a516 70", "ASTM A516/A516M Gr 70", "asme SA-516 Gr.70",
    "ASTM A516/A516M, 70 [485]",
])  # fmt: skip
def test_a_metal_has_one_row_under_all_its_spellings(name, shelves):
    group = shelves.metal_group(name)
    assert (group.name, group.group("p_number"), group.group("group_number")) == ("A516-70", "1", "2")


@pytest.mark.parametrize(
    ("written", "row"),
    [("EN 10025-2:2019 S355J2+N", "S355J2"), ("DIN EN 10025 S355J2 + AR", "S355J2"), ("A240 TP304L", "A240-304L"),
     ("SA-240 Type 304L", "A240-304L"), ("A312-304L", "A312-TP304L"), ("ASTM A36", "A36"),
     ("EN 10088-2 / EN 10028-7 X5CrNi18-10", "1.4301"), ("EN AW-5083-O", "EN-AW-5083-O")],
)  # fmt: skip
def test_the_standard_and_the_delivery_before_and_after_a_grade_do_not_count(written, row, shelves):
    assert shelves.metal_group(written).name == row


@pytest.mark.parametrize("written", ["ASTM", "EN 10025-2", "S355J2+QT", "AISI 4130", "A516/A516M", "ASTM A5"])
def test_what_names_no_grade_is_found_nowhere(written, shelves):
    with pytest.raises(UnknownNameError):
        shelves.metal_group(written)


def test_a_metal_of_qw_422_alone_is_found_by_name_and_uns(shelves):
    assert shelves.metal_group("SA-335 P92").group("p_number") == "15E"
    assert shelves.metal_group("S31803").group("p_number") == "10H"


def test_a_metal_without_p_number_says_so(shelves):
    assert shelves.metal_group("S690QL").group("p_number") == ""


@pytest.mark.parametrize("name", ["E7018-H4R", "e7018 h8", "E7018R", "E7018-H16"])
def test_optional_designators_of_a_filler_do_not_count(name, shelves):
    assert shelves.filler(name).classification == "E7018"


def test_a_toughness_suffix_counts(shelves):
    assert shelves.filler("E7018-1H4R").classification == "E7018-1"


def test_a_stainless_covering_takes_the_row_of_its_sister_under_its_own_name(shelves):
    basic = shelves.filler("E308L-15")
    assert (basic.classification, basic.f_number) == ("E308L-15", "5")


@pytest.mark.parametrize("name", ["Ar-25CO2", "75Ar/25CO2", "75% Ar 25% CO2", "SG-AC-25", "25CO2-75Ar"])
def test_a_gas_is_found_by_id_designation_or_parts(name, shelves):
    assert shelves.gas(name).id == "Ar-25CO2"


@pytest.mark.parametrize("name", ["73Ar/27CO2", "Ar/CO2", "50% Ar", "argoon x", "75Ar/25CO2/99He"])
def test_a_mixture_of_other_parts_is_unknown(name, shelves):
    with pytest.raises(UnknownNameError, match="gas: no "):
        shelves.gas(name)


@pytest.mark.parametrize(
    ("nps", "schedule", "wall"),
    [
        ("4", "120", 11.13),
        ("NPS 4", "Sch 40", 6.02),
        ("1-1/2", "XS", 5.08),
        ("1 1/2", "xs", 5.08),
        ("1.5", "XS", 5.08),
        ("4.0", "40", 6.02),
        ("DN 100", "40", 6.02),
    ],
)
def test_a_pipe_is_found_as_the_trade_writes_it(nps, schedule, wall, shelves):
    assert shelves.pipe(nps, schedule).wall_mm == wall


@pytest.mark.parametrize(
    ("ask", "message"),
    [
        (lambda c: c.filler("E7081"), "filler: no E7081; take E7018 or add it to those of your works"),
        (lambda c: c.metal_group("SA-516 72"), "base: no SA-516 72; take "),
        (lambda c: c.pipe("4", "41"), "schedule: no 41; take "),
        (lambda c: c.pipe("99", "40"), "nps: no 99; "),
        (lambda c: c.filler("x" * 5000), "filler: no xxxx"),
    ],
)
def test_an_unknown_name_offers_the_closest(ask, message, shelves):
    with pytest.raises(UnknownNameError) as refusal:
        ask(shelves)
    assert str(refusal.value).startswith(message)
    assert len(str(refusal.value)) < 300


def test_two_characters_that_changed_places_are_the_likeliest_slip():
    assert closest("E7081", ["E7018", "E7028", "E7018-1"]) == ("E7018",)
    assert closest("nothing like it", ["E7018"]) == ()


def test_search_finds_all_words_and_puts_names_first(shelves):
    found = shelves.search("2205")
    assert found[0].id == "A240-S32205"
    assert {"E9018-B3", "ER90S-B3"} <= {getattr(row, "classification", "") for row in shelves.search("B3")}
    assert shelves.search("  ") == ()


def test_a_row_names_its_weaker_fields(shelves):
    filler = shelves.filler("E7018")
    assert (filler.confidence_of("f_number"), filler.confidence_of("composition")) == ("H", "M")
    assert shelves.filler("E9010-P1").confidence_of("a_number") == "unknown"


def test_the_usual_settings_are_found_by_size(shelves):
    assert shelves.filler_current("E7018", 3.2).diameter_in == "1/8"
    assert shelves.filler_current("E7018", 9.9) is None


GAS = (
    "id,aws_a5_32_1997,iso_14175_group,iso_14175_designation,role,processes,flow_min_l_min,flow_max_l_min,ar_pct,"
    "confidence\nAr,SG-A,I1,I1,shielding,GTAW,7,20,{ar},{confidence}\n"
)


@pytest.mark.parametrize(
    ("ar", "confidence", "message"),
    [("ninety", "H", "gases.csv line 2: Ar 'ninety' is not a number"), ("nan", "H", "not a number"),
     ("100", "", "gases.csv line 2: the row has no confidence; write H, M or L")],
)  # fmt: skip
def test_a_row_at_fault_is_refused_with_its_line(ar, confidence, message):
    with pytest.raises(FormatError) as refusal:
        read_rows(GAS.format(ar=ar, confidence=confidence), Gas, where="gases.csv")
    assert message in str(refusal.value)


def test_a_table_without_a_column_is_refused():
    with pytest.raises(FormatError, match=r"gases.csv: no column .*iso_14175_group.*; add it to the header row"):
        read_rows("id,confidence\nAr,H\n", Gas, where="gases.csv")


@pytest.mark.parametrize(
    ("topic", "word", "token"),
    [("process", "TIG", "GTAW"), ("process", "111", "SMAW"), ("position", "pf", "3G"),
     ("progression", "Vertical Up", "uphill"), ("current", "DC+", "DCEP"), ("current", "dc-", "DCEN"),
     ("pwht", "normalize and temper", "above-utt-then-below-ltt"),
     ("joint", "V", "single-v"), ("answer", "Yes", "yes")],
)  # fmt: skip
def test_a_word_of_the_trade_has_one_token(topic, word, token, words: Vocabulary):
    assert words.token(topic, word) == token


def test_an_unknown_word_lists_the_tokens(words):
    with pytest.raises(UnknownNameError, match="current: no DCXX; take one of DCEP, DCEN, AC"):
        words.token("current", "DCXX")


def test_a_spelling_of_two_tokens_is_refused():
    with pytest.raises(FormatError, match=r"v.toml: UP means two tokens of progression"):
        read_vocabulary('[progression]\nuphill = ["up"]\nupward = ["UP"]', where="v.toml")
