"""Mill certificates as people type them and as tables have them; what is not understood is told, never guessed."""

import pytest

from anlage.core.errors import FormatError, InputError
from anlage.core.metal.certificate import read_certificate, read_certificates, written


@pytest.mark.parametrize(
    ("text", "shares"),
    [("C 0.17 Mn 1.42", {"C": 0.17, "Mn": 1.42}), ("c=0,17; mn: 1,42 %", {"C": 0.17, "Mn": 1.42}),
     ("C0.17 B 4 ppm", {"C": 0.17, "B": 0.0004}), ("Heat 48213: C 0.17, Si 0.35", {"C": 0.17, "Si": 0.35}),
     ("Rp0.2 355 C 0.1", {"C": 0.1})],
)  # fmt: skip
def test_what_people_type(text, shares):
    assert read_certificate(text).composition == pytest.approx(shares)


def test_heat_and_strength_stand_with_the_elements():
    found = read_certificate("Heat 48-213/A: C 0.17 Mn 1.42 ReH 371 MPa Rm 522")
    assert (found.heat, found.yield_mpa, found.tensile_mpa) == ("48-213/A", 371, 522)
    assert read_certificate(written(found)) == found


@pytest.mark.parametrize(
    ("text", "words"),
    [("C 0.17 Xy 3", "Xy: is no element"), ("C 0.17 C 0.18", "C: is stated twice"), ("ReH 371", "names no element"),
     ("nonsense", "not understood"), ("C 0.17 and more", "not understood"), ("C 120", "no share"),
     ("C 0.2 ReH 37100", "no strength"), ("Cr 60 Ni 60", "adds up"), ("", "names no element"),
     ("C 0.17 MPa", "no unit of a share")],
)  # fmt: skip
def test_what_is_no_certificate(text, words):
    with pytest.raises(InputError, match=words):
        read_certificate(text)


def test_a_table_of_heats_tells_each_line_that_it_cannot_read():
    text = "heat,C,Mn,B [ppm],ReH,colour\nA1,0.17,1.42,4,371,red\nA2,x,1.4,,,\n\nA3,0.2,1.1,,,\nA4,0.2,90,20,,\n"
    found, faults = read_certificates(text, where="heats.csv")
    assert [(each.heat, each.composition.get("B")) for each in found] == [("A1", 0.0004), ("A3", None), ("A4", 0.002)]
    assert faults == ("heats.csv: column colour is not known and was left out", "heats.csv line 3: C: x is no number")


@pytest.mark.parametrize("text", ["", "one,two\n1,2\n"])
def test_a_table_without_elements_is_refused(text):
    with pytest.raises(FormatError, match="names no elements"):
        read_certificates(text, where="heats.csv")
