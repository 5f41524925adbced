"""Dials of the machines of a works, in words: for a pass and its sectors, at its volts, and why where none is."""

import pytest

from anlage.core.document import read_strict, with_, with_at
from anlage.core.machine import Calibrated, Machine, MachineHeader, with_reading
from anlage.core.procedure import WPS, with_element
from anlage.data.files import FOLDER
from anlage.session.seam.dial_picture import tap_sentences
from anlage.session.seam.dials import dial_lines, dial_sentences, read_current, wanted_sentences
from anlage.session.works.machines import brought

TODAY = "2026-11-23"


def procedure(current=(75, 105)):
    wps = read_strict((FOLDER / "demo/OST-W-01.json").read_text(encoding="utf-8"), WPS)
    return with_at(wps, f"passes/{wps.passes[0].id}/current_a", current)


def source(*rows, number="M4", **stated):
    found = Machine(header=MachineHeader(number=number))
    for dial, amps in rows:
        whole = {"tap": "medium", "meter": "K-2", "day": "2026-03-02", "voltage_v": 11.0, **stated}
        found, _ = with_reading(found, dial=dial, current_a=amps, **whole)
    return found


def works(*machines):
    return Calibrated(machines=machines, today=TODAY)


def said(wps, *machines):
    return [each.replace("\u2009", " ") for each in dial_sentences(wps, wps.passes[0].id, works(*machines), "si")]


def test_a_pass_is_set_on_every_machine_that_was_read_over_its_current():
    found = said(procedure(), source((20, 60), (80, 120)), source((2, 50), (8, 110), number="M5", lead_m=15))
    assert found == ["M4 tap medium dial 35..65 (meter K-2, 2026-03-02).",
                     "M5 tap medium with 15 m of leads dial 4.5..7.5 (meter K-2, 2026-03-02)."]  # fmt: skip


def test_a_deposit_that_names_its_machine_is_welded_with_that_one():
    wps = procedure()
    wps = with_at(wps, f"deposits/{wps.passes[0].deposit}/machine", "m 5")
    both = (source((20, 60), (80, 120)), source((2, 50), (8, 110), number="M5"))
    assert [each[:2] for each in said(wps, *both)] == ["M5"]
    assert said(wps, both[0]) == ["m 5 is no machine of the works: its dial is unproven as amps."]


def test_a_range_that_was_read_in_part_says_which_part():
    (text,) = said(procedure((90, 110)), source((20, 60), (80, 100)))
    assert text.startswith("M4 tap medium dial 65..80 for 90..100 A of it, the rest was not read")


@pytest.mark.parametrize(
    ("machine", "text"),
    [
        (source((20, 10), (80, 40)), "No tap was read over the current of this pass"),
        (source((20, 60), (80, 120), day="2025-03-02"), "out of date since 2026-03-02, unproven as amps"),
        (source((20, 60), (80, 120), voltage_v=24.0), "was read at 24 V, the pass runs at 10..12 V: unproven as amps"),
        (source((20, 60), (80, 120), voltage_v=None), "its volts were not read"),
        (source((20, 60), (50, 50), (80, 120)), "neither rises nor falls all along the dial"),
        (source(), "No machine of the works is calibrated"),
    ],
)  # fmt: skip
def test_what_proves_no_current_says_so(machine, text):
    (found,) = said(procedure(), machine)
    assert text in found


def test_a_wire_is_set_by_its_feed_and_a_pass_without_current_by_nothing():
    wps = procedure()
    wire = with_at(wps, f"deposits/{wps.passes[0].deposit}/process", "GMAW")
    assert said(wire, source((20, 60), (80, 120))) == ["The wire speed sets its current, no dial does."]
    assert said(with_at(wps, f"passes/{wps.passes[0].id}/current_a", None), source((20, 60))) == []


def test_each_sector_has_its_dial():
    wps, _ = with_element(procedure(), "sectors", of=procedure().passes[0].id, reach="6 to 4", current_a=[95, 105])
    assert said(wps, source((20, 60), (80, 120)))[1] == "6 to 4: M4 tap medium dial 55..65 (meter K-2, 2026-03-02)."


def test_passes_that_are_set_alike_stand_in_one_line_and_every_doubt_once():
    wps = read_strict((FOLDER / "demo/OST-W-02.json").read_text(encoding="utf-8"), WPS)
    plain = with_(wps, sectors=(), deposits=tuple(with_(each, machine=None) for each in wps.deposits))
    old = source((20, 60), (80, 120), number="M9", day="2024-01-01")
    found = [each.replace("\u2009", " ") for each in dial_lines(plain, works(source((20, 60), (80, 120)), old))]
    assert found[0].startswith("Passes 1 to 2: M4 tap medium dial 45..65")
    assert sum("M9" in each for each in found) == 1
    named = tuple(with_(each, machine="M4") for each in plain.deposits)
    assert not any("M9" in each for each in dial_lines(with_(plain, deposits=named), works(old, source((20, 60)))))


# Readings that stand in a procedure of an earlier version -------------------------------------


def earlier(name="Set 4"):
    wps = procedure()
    for dial, amps in ((20, 60), (80, 120)):
        wps, _ = with_element(wps, "readings", machine=name, tap="C", dial=dial, current_a=amps, meter="K-2",
                              voltage_v=11.0, day="2026-03-02")  # fmt: skip
    return wps


def test_they_count_where_the_works_does_not_know_the_machine():
    assert said(earlier()) == ["Set 4 tap C dial 35..65 (meter K-2, 2026-03-02)."]
    assert said(with_at(earlier(), "readings", ())) == [
        "No machine of the works is calibrated: a dial setting is unproven as amps."
    ]


def test_of_a_machine_that_the_works_knows_they_do_not_count_and_the_sheet_says_so():
    (found,) = said(earlier(), source((2, 50), (8, 110), number="SET 4"))
    assert found.startswith("SET 4 tap medium dial 4.5..7.5")


def test_they_are_brought_to_the_works_once():
    wps, new = brought(earlier(), works(source((2, 50), number="M4")))
    assert wps.readings == ()
    assert [(each.header.number, len(each.readings)) for each in new] == [("Set 4", 2)]
    assert said(wps, *new) == ["Set 4 tap C dial 35..65 (meter K-2, 2026-03-02)."]
    more, _ = with_reading(new[0], dial=3)
    assert more.readings[-1].id not in {each.id for each in new[0].readings}
    nameless = brought(earlier(None), works())
    assert nameless == (earlier(None), ()), "a machine without a number cannot be kept"


# A machine by itself --------------------------------------------------------------------------


def test_a_wanted_current_is_read_as_people_write_it():
    taps = works(source((20, 60), (80, 120))).taps()
    assert wanted_sentences(taps, read_current("90..110 A"), "si") == ("tap medium dial 50..70",)
    assert wanted_sentences(taps, read_current("110..140"), "si")[0].startswith("tap medium dial 70..80 for 110..120")
    assert wanted_sentences(taps, read_current("200"), "si") == ("No tap is proven over it.",)
    assert read_current("  ") is None


def test_each_tap_says_what_it_gives_or_why_it_does_not():
    found = source((20, 60), (80, 120))
    found, _ = with_reading(found, tap="high", dial=3)
    found, _ = with_reading(found, tap="medium", dial=3)
    sentences = [(verdict, text.replace("\u2009", " ")) for verdict, text in tap_sentences(works(found).taps(), "si")]
    assert sentences == [
        ("inside", "tap medium: 60..120 A over dial 20..80, meter K-2, 2026-03-02, in date until 2027-03-02."
                   " Readings that do not count: 1 without dial, amps, meter or day."),
        ("unproven", "tap high: no reading says dial, amps, meter and day."),
    ]  # fmt: skip
