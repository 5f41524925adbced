"""How far meters may be off, carried to heat input, preheat, cooling and waits; none is shown where none is stated."""

import pytest

from anlage.core.document import read_mending, read_strict, with_
from anlage.core.machine import MACHINE, Calibrated
from anlage.core.procedure import WPS
from anlage.data.files import FOLDER
from anlage.session.heat.cooling import cooling_view, widened_heats
from anlage.session.heat.meters import NO_MACHINES, meter_sentences, metered, off_words
from anlage.session.heat.preheat import heat_inputs, preheat_view
from anlage.session.heat.section_of import section_case
from anlage.session.heat.sequence import waits_of
from anlage.session.heat.sequence_words import stated_sentences
from anlage.session.leaves.text import with_text


@pytest.fixture(scope="module")
def feeder():
    return read_strict((FOLDER / "demo" / "OST-W-02.json").read_text(), WPS, where="demo")


@pytest.fixture(scope="module")
def engine():
    return read_strict((FOLDER / "demo" / "OST-M-01.json").read_text(), MACHINE, where="demo")


def works(engine, **tolerances):
    told = {f"{name}_tolerance": tolerances.get(name) for name in ("current", "voltage", "speed")}
    return Calibrated(machines=(with_(engine, **told),))


def test_every_pass_of_a_machine_with_a_stated_meter_has_a_spread(feeder, engine):
    off = metered(feeder, works(engine, current="5 A", voltage="1 %", speed="3 %"))
    assert off.keys() == {each.id for each in feeder.passes}
    root = off[feeder.passes[0].id]
    assert root.spread.expanded == pytest.approx(2 * ((5 / 85) ** 2 / 3 + (0.01**2 + 0.03**2) / 3) ** 0.5)
    assert root.text == "± 7.7 % by the meters of OST-M-01 (95 of 100)"
    assert "7.7 %" in off_words(feeder, feeder.passes[0].id, works(engine, current="5 A", voltage="1 %", speed="3 %"))


@pytest.mark.parametrize("tolerances", [{}, {"current": "good"}, {"current": "5 V"}])
def test_none_is_shown_where_none_is_stated(feeder, engine, tolerances):
    own = works(engine, **tolerances)
    assert not metered(feeder, own)
    assert not list(meter_sentences(feeder, own))
    assert off_words(feeder, feeder.passes[0].id, own) == ""
    assert preheat_view(feeder, works=own) == preheat_view(feeder)
    assert cooling_view(feeder, own) == cooling_view(feeder)
    assert not metered(feeder, NO_MACHINES)


def test_a_meter_of_which_nothing_is_stated_is_told(feeder, engine):
    said = list(meter_sentences(feeder, works(engine, current="2.5 %")))
    assert said == [
        "Heat input is known to ± 2.9 % by the meters of OST-M-01 (95 of 100; voltage and speed not stated, not in it)."
    ]


def test_a_pass_that_another_machine_welds_or_that_lacks_a_setting_has_none(feeder, engine):
    own = works(engine, current="2.5 %")
    deposit, first = feeder.deposits[0].id, feeder.passes[0].id
    other = with_text(feeder, f"deposits/{deposit}/machine", "OST-M-77", "si")
    assert metered(other, own).keys() == {each.id for each in feeder.passes if each.deposit != deposit}
    assert first not in metered(with_text(feeder, f"passes/{first}/voltage_v", "", "si"), own)


def test_preheat_that_is_enough_only_if_the_meters_read_true_is_not_shown(feeder, engine):
    wps = feeder
    leaves = {
        "metals/one/certificate": "Heat 1: C 0.12 Mn 1.6 Si 0.2 Cr 0.1 Mo 0.3 V 0.01 Ni 0.1 Cu 0.1",
        "preheat/hydrogen": "H8", "preheat/restraint": "low", "range/thickness_mm": "5..40", "joint/thickness_mm": "40",
    }  # fmt: skip
    for each in wps.passes:
        leaves |= {f"passes/{each.id}/{name}": text for name, text in
                   (("current_a", "100"), ("voltage_v", "24"), ("travel_speed_mm_min", "120"))}  # fmt: skip
    for path, text in leaves.items():
        wps = with_text(wps, path, text, "si")
    takes = preheat_view(wps).takes
    assert takes.id == "en1011_2_cet"  # of the schools that hold the one that hangs on heat input
    wps = with_text(wps, "preheat/minimum_c", f"{takes.high_c:.1f}", "si")
    assert preheat_view(wps).verdict()[0] == "inside"
    off = preheat_view(wps, works=works(engine, current="10 %", voltage="2 %", speed="5 %"))
    assert off.unstated == ("the meters read true",)
    verdict, sentence = off.verdict()
    assert verdict == "unproven"
    assert "only if the meters read true, which nothing shows" in sentence
    assert takes.high_c < off.worst.high_c < takes.high_c + 12


def test_cooling_says_what_they_make_of_the_fastest_pass(feeder, engine):
    own = works(engine, current="5 A", voltage="1 %", speed="3 %")
    plain, off = cooling_view(feeder), cooling_view(feeder, own)
    assert off.sentences[:-1] == plain.sentences
    assert "t8/5 of pass 3 is then" in off.sentences[-1]
    heats, wide = heat_inputs(feeder), widened_heats(feeder, own)
    for each in feeder.passes:
        share = metered(feeder, own)[each.id].spread.expanded
        assert wide[each.id].low == pytest.approx(heats[each.id].low * (1 - share))
        assert wide[each.id].high == pytest.approx(heats[each.id].high * (1 + share))


def test_the_waits_are_a_wider_range(feeder, engine):
    own = works(engine, current="5 A", voltage="1 %", speed="3 %")
    plain, off = section_case(feeder, "long"), section_case(feeder, "long", own)
    assert all(b.heat_j_mm > a.heat_j_mm * 1.05 for a, b in zip(plain.sources, off.sources, strict=True))
    waits, wider = waits_of(feeder), waits_of(feeder, works=own)
    assert wider.passes[-1].wait_s.high > waits.passes[-1].wait_s.high
    assert wider.passes[-1].before_c.low < waits.passes[-1].before_c.low
    assert stated_sentences(wider, "si")[-1].startswith("Heat input is known to")


def test_machines_written_before_open_by_both_doors():
    raw = (FOLDER / "demo" / "OST-M-02.json").read_text()
    assert '"version": 1' in raw
    found = read_strict(raw, MACHINE)
    assert (found.current_tolerance, found.voltage_tolerance, found.speed_tolerance) == (None, None, None)
    assert read_mending(raw, MACHINE) == (found, ())


@pytest.mark.parametrize(("text", "kept"), [("2,5 %", "2,5 %"), ("1 % of 500 A", "1 % of 500 A"), ("", None)])
def test_a_tolerance_stays_as_it_is_typed(engine, text, kept):
    assert with_text(engine, "current_tolerance", text, "si").current_tolerance == kept
