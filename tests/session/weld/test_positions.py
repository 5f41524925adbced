"""Positions as drawn: every one of the vocabulary stands as its standard says."""

import math

import pytest

from anlage.core.drawing import Marker, Path
from anlage.core.drawing.position import Wanted, chart
from anlage.core.procedure import Header, Joint, Technique, Wps
from anlage.data.tables import vocabulary
from anlage.formats.font import measure
from anlage.session.weld.picture_sheet import Sheet
from anlage.session.weld.positions import offered, position_picture, standings, stated_positions, with_position

SHEET = Sheet(140.0, 160.0, "si", measure)


def test_every_position_of_the_vocabulary_stands_somewhere():
    assert {each.token for each in standings()} == set(vocabulary().tokens["position"])
    assert len({each.target + each.weld for each in standings()}) == len(standings())


@pytest.mark.parametrize("each", standings(), ids=lambda each: each.target)
def test_a_position_stands_in_directions_of_length_one_and_its_weld_lies_across_the_way_to_it(each):
    assert math.hypot(*each.along) == pytest.approx(1, abs=1e-3)
    assert math.hypot(*each.out) == pytest.approx(1, abs=1e-3)
    if each.product == "plate":
        assert sum(a * b for a, b in zip(each.along, each.out, strict=True)) == pytest.approx(0, abs=1e-9)


@pytest.mark.parametrize(
    ("token", "product", "way"),
    [  # ASME BPVC IX QW-461: where the weld looks, and which way its line lies; from memory
        ("1G", "plate", "up"), ("2G", "plate", "level"), ("3G", "plate", "level"), ("4G", "plate", "down"),
        ("2F", "plate", "up"), ("4F", "plate", "down"),
    ],
)  # fmt: skip
def test_overhead_is_welded_from_below_and_flat_from_above(token, product, way):
    (each,) = [one for one in standings() if (one.token, one.product) == (token, product)]
    assert (each.out[1] > 0.5, each.out[1] < -0.5) == (way == "up", way == "down")
    assert (abs(each.along[1]) > 0.9) == (token in ("3G", "3F"))


@pytest.mark.parametrize("size", [(40.0, 60.0), (140.0, 160.0), (300.0, 80.0), (26.0, 26.0)])
@pytest.mark.parametrize("progression", ["", "uphill", "downhill", "none"])
def test_every_position_can_be_drawn_at_every_size(size, progression):
    for each in standings():
        rows = [one for one in standings() if one.weld == each.weld]
        picture = chart(rows, Wanted((each.token,), progression), size)
        assert all(math.isfinite(x + y) for item in picture.items if isinstance(item, Path) for x, y in item.points)


def way(wps):
    """The end of the arrow that says which way the weld goes, and the point before it."""
    picture = position_picture(wps, SHEET)
    (head,) = [item for item in picture.items if isinstance(item, Marker) and item.role == "chosen_arrow"][-1:]
    return head.direction_deg


@pytest.mark.parametrize(("position", "product"), [("3G", "plate"), ("5G", "pipe"), ("6G", "pipe")])
def test_the_arrow_goes_the_way_that_is_stated(position, product):
    for progression, rises in (("uphill", True), ("downhill", False)):
        wps = Wps(joint=Joint(product=product), technique=Technique(position=position, progression=progression))
        assert (math.sin(math.radians(way(wps))) > 0) == rises


def test_what_is_offered_follows_plate_pipe_and_kind_of_weld():
    assert [each.target for each in offered(Wps(joint=Joint(product="pipe")))] == [
        "pipe/1G", "pipe/2G", "pipe/5G", "pipe/6G",
    ]  # fmt: skip
    assert {each.weld for each in offered(Wps(header=Header(weld="fillet")))} == {"fillet"}
    assert len(offered(Wps())) == 8


def test_a_chosen_position_leaves_a_stated_product_alone():
    wps = with_position(Wps(joint=Joint(product="pipe")), "plate/3G")
    assert (wps.joint.product, wps.technique.position) == ("pipe", "3G")
    assert stated_positions("1G and 2G; 4G, xx") == ("1G", "2G", "4G")


@pytest.mark.parametrize(
    ("position", "said"),
    [(None, "Choose how the joint stands."), ("5F", "5F is none of this weld and product."),
     ("PB and 3G", "2F and 3G are none of this weld and product.")],
)  # fmt: skip
def test_a_position_that_the_weld_cannot_have_is_told_where_it_would_be_drawn(position, said):
    wps = Wps(header=Header(weld="groove"), joint=Joint(product="pipe"), technique=Technique(position=position))
    assert [item.text for item in position_picture(wps, SHEET).items if getattr(item, "role", "") == "tick"] == [said]
