"""What a code lists of base metals by thickness, and what it counts by classes: at each edge, and over a range."""

import msgspec
import pytest

from anlage.core.catalogue import MetalGroup
from anlage.core.codes.classes import WrittenClasses, read_classes
from anlage.core.codes.listed_metals import NO_SIDES, Sides, read_listing
from anlage.core.ranges import Interval, Numbers
from anlage.data.tables import unit_table

ROWS = [
    {"metals": ["A", "B"], "is": {"group": "I", "special": "yes"}, "confidence": "H", "to": 20.0},
    {"metals": ["A", "B"], "is": {"group": "II"}, "confidence": "H", "above": 20.0},
    {"metals": ["C"], "is": {"group": "II"}, "confidence": "M", "to": {"si": 65.0, "us": 2.5}},
    {"metals": ["D"], "is": {"group": "III"}, "confidence": "L"},
]
A, C, D, OTHER = (MetalGroup(name, {}, "H", "invented for a test") for name in ("A", "C", "D", "E"))
WALLS = [
    {"variable": "wall_group", "of": "wall", "step": {"si": 0.1}, "rows": [
        {"is": "thin", "below": {"si": 4.8, "us": 0.188}},
        {"is": "middle", "from": {"si": 4.8, "us": 0.188}, "to": {"si": 19.1, "us": 0.75}},
        {"is": "thick", "above": {"si": 19.1, "us": 0.75}},
    ]},
    {"variable": "strength_group", "of": "yield", "rows": [
        {"is": "A", "to": 290.5}, {"is": "B", "above": 290.5, "below": 447.5}, {"is": "C-", "from": 447.5, "own": True},
    ]},
]  # fmt: skip


def thick(one, other=None, units="si"):
    """Both sides of a joint, each as thick as stated, or from one number to another."""
    return Sides(*(each and Interval(*each) for each in (one, other or one)), units)


def said(metals, sides, column="group", form="pair", otherwise=""):
    return read_listing(ROWS, unit_table()).fact(column, form, otherwise, metals, sides)


@pytest.mark.parametrize(
    ("sides", "expected"),
    [
        (thick((20, 20)), "I+I"),
        (thick((20.1, 20.1)), "II+II"),
        (thick((20, 20), (25, 25)), "II+I"),
        (thick((20, 30), (20, 20)), frozenset({"I+I", "II+I"})),  # a procedure that reaches over the line is both
        (NO_SIDES, frozenset({"I+I", "II+I", "II+II"})),  # and one whose thickness nobody states may be all
    ],
)
def test_a_steel_is_of_the_group_of_its_thickness_on_each_side(sides, expected):
    assert said((A, A), sides) == expected


def test_a_steel_beyond_the_thickness_it_is_listed_for_has_no_group():
    assert said((C, C), thick((65, 65))) == "II+II"
    assert said((C, C), thick((65.1, 65.1))) is None
    assert said((C, A), thick((64, 64))) == "II+II"
    assert said((C, C), thick((64, 64), units="us")) is None  # 2.5 in, and so 63.5, in the other column


def test_a_word_nobody_is_sure_of_is_no_fact_even_where_the_unlisted_have_one():
    assert said((D, D), thick((10, 10))) is None
    assert said((D, D), thick((10, 10)), otherwise="none") is None
    assert said((OTHER, A), thick((10, 10)), otherwise="none") == "none+I"


def test_a_listed_metal_is_named_where_the_code_says_something_of_it_or_not_at_all():
    assert said((A, C), thick((10, 10)), "special", "names") == "A"
    assert said((A, A), thick((30, 30)), "special", "names") is None
    assert said((A, OTHER), thick((10, 10)), form="unlisted") == "A+E"
    assert said((A, C), thick((90, 90)), form="unlisted") is None


def test_a_row_without_metals_is_refused():
    with pytest.raises(msgspec.ValidationError, match="metals"):
        read_listing([{"metals": [], "is": {"group": "I"}, "confidence": "H"}], unit_table())


def classes():
    written = msgspec.convert(WALLS, tuple[WrittenClasses, ...])
    kinds = {"wall": "length", "yield": "stress"}
    return {each.variable: each for each in read_classes(written, kinds.get, unit_table())}


@pytest.mark.parametrize(
    ("wall", "units", "expected"),
    [
        ((4.7, 4.7), "si", {"thin"}),
        ((4.78, 4.78), "si", {"middle"}),  # 0.188 in is 4.8 mm to a code that rounds to the tenth
        ((4.78, 4.78), "us", {"middle"}),
        ((4.76, 4.76), "us", {"thin"}),  # and is not rounded in the other column
        ((19.05, 19.05), "si", {"middle"}),
        ((19.16, 19.16), "si", {"thick"}),
        ((3, 20), "si", {"thin", "middle", "thick"}),
        ((19.1, float("inf")), "si", {"middle", "thick"}),
    ],
)
def test_a_number_is_of_each_class_that_it_reaches_into(wall, units, expected):
    assert classes()["wall_group"].tokens(Numbers((Interval(*wall),)), units) == expected


def test_where_each_number_is_a_class_of_its_own_a_range_has_none():
    strength = classes()["strength_group"]
    assert strength.tokens(Numbers((Interval(448, 448),)), "si") == {"C-448"}
    assert strength.tokens(Numbers((Interval(400, 448),)), "si") == frozenset()
    assert strength.tokens(Numbers((Interval(290, 360),)), "si") == {"A", "B"}
