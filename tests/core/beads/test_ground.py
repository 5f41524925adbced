"""The surface a bead is laid on: levels hold what is asked for, whatever lies there already; frames keep every area."""

import math
from itertools import pairwise

import pytest
import shapely
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from anlage.core.beads.ground import Frame, Slab, area_under, crowned_slab, flat_slab, under
from anlage.core.joint import KINDS, Groove, area_and_centroid, shape_of
from tests.strategies import preparations

steps = st.floats(0.2, 6.0)


@st.composite
def grounds(draw):
    """A groove with heaps at its bottom: two walls that rise to the mouth, bumps between them."""
    left = sorted((draw(st.floats(0.5, 30.0)) for _ in range(draw(st.integers(1, 4)))), reverse=True)
    right = sorted(draw(st.floats(0.5, 30.0)) for _ in range(draw(st.integers(1, 4))))
    lowest = min(left[-1], right[0])
    heaps = [draw(st.floats(0.0, lowest)) for _ in range(draw(st.integers(1, 6)))]
    heights = [30.0, *left, *heaps, *right, 30.0]
    x, points = 0.0, []
    for height in heights:
        points.append((x, height - 30.0))
        x += draw(st.sampled_from((0.0, 1.0))) * draw(steps)
    assume(points[-1][0] > 1.0)
    return tuple(points)


def held_by(ground, level):
    """Area between a ground and a level by shapely."""
    box = shapely.box(ground[0][0], min(y for _, y in ground) - 1.0, ground[-1][0], level)
    metal = shapely.Polygon([*ground, (ground[-1][0], -99.0), (ground[0][0], -99.0)])
    return box.difference(metal).area


@given(grounds(), st.floats(0.01, 0.999))
def test_a_level_holds_the_area_that_is_asked_for(ground, share):
    whole = area_under(ground, 0.0)[0]
    level, slab = flat_slab(ground, share * whole)
    assert area_under(ground, level)[0] == pytest.approx(share * whole, rel=1e-7, abs=1e-7)
    assert slab.area_mm2 == pytest.approx(share * whole, rel=1e-7, abs=1e-7)
    assert held_by(ground, level) == pytest.approx(share * whole, rel=1e-6, abs=1e-6)
    assert all(lower <= upper + 1e-12 for _, lower, upper in slab.nodes)


@given(grounds())
def test_more_than_a_groove_holds_is_level_with_its_mouth(ground):
    level, slab = flat_slab(ground, 2 * area_under(ground, 0.0)[0] + 1.0)
    assert level == 0.0
    assert slab.area_mm2 == pytest.approx(area_under(ground, 0.0)[0])


@given(grounds(), st.floats(-29.0, 0.0))
def test_what_lies_under_a_level_and_its_area_agree(ground, level):
    points = under(ground, level)
    area = sum((x2 - x1) * (2 * level - y1 - y2) / 2 for (x1, y1), (x2, y2) in pairwise(points))
    assert area == pytest.approx(area_under(ground, level)[0], abs=1e-7)
    assert area == pytest.approx(held_by(ground, level), abs=1e-6)


@given(grounds(), st.floats(0.5, 8.0), st.floats(0.05, 0.95))
def test_a_slab_is_cut_where_a_share_of_it_is_reached(ground, crown, share):
    end = ground[-1][0]
    top = [(end * n / 12, 4 * crown * (n / 12) * (1 - n / 12)) for n in range(13)]
    slab = crowned_slab(ground, top)
    assert slab.area_mm2 == pytest.approx(area_under(ground, 0.0)[0] + area_of(top), rel=1e-6)
    at = slab.place(share * slab.area_mm2)
    lower, upper = slab.between(slab.nodes[0][0], at)
    assert area_of(upper) - area_of(lower) == pytest.approx(share * slab.area_mm2, rel=1e-6, abs=1e-9)


def area_of(line):
    return sum((x2 - x1) * (y1 + y2) / 2 for (x1, y1), (x2, y2) in pairwise(line))


def test_a_level_in_a_v_is_worked_by_hand():
    """A V of 60° with a mouth 20 mm wide: 10/tan 30° deep; a quarter of its metal reaches half its depth."""
    depth = 10 / math.tan(math.radians(30))
    ground = ((0.0, 0.0), (10.0, -depth), (20.0, 0.0))
    level, slab = flat_slab(ground, 10 * depth / 4)
    assert level == pytest.approx(-depth / 2)
    assert slab.nodes[0][0] == pytest.approx(5.0)
    assert slab.nodes[-1][0] == pytest.approx(15.0)


@pytest.mark.parametrize("kind", KINDS)
@settings(max_examples=15)
@given(data=st.data())
def test_a_frame_brings_every_outline_back_with_its_area(kind, data):
    shape = shape_of(data.draw(preparations(kind)))
    for groove in shape.grooves:
        frame = Frame.of(groove)
        inside = [frame.inward(point) for point in groove.outline]
        back = frame.outline(inside)
        assert math.dist(frame.inward(groove.mouth[0]), (0.0, 0.0)) < 1e-9
        assert [c for point in back for c in point] == pytest.approx(
            [c for point in dict.fromkeys(groove.outline) for c in point], abs=1e-6
        )
        assert abs(area_and_centroid(groove.outline)[0]) == pytest.approx(abs(area_of([*inside, inside[0]])), abs=1e-6)


def test_the_frame_of_a_leaning_mouth_keeps_upright_walls_upright():
    mouth = ((0.0, 10.0), (8.0, 12.0))
    groove = Groove(outline=((0.0, 0.0), (8.0, 2.0), (8.0, 12.0), (0.0, 10.0)), mouth=mouth, lean=0.25)
    frame = Frame.of(groove)
    assert [frame.inward(point) for point in groove.outline] == [(0.0, -10.0), (8.0, -10.0), (8.0, 0.0), (0.0, 0.0)]
    below = Groove(outline=groove.outline, mouth=((8.0, 2.0), (0.0, 0.0)), side=2, lean=0.25)
    assert [Frame.of(below).inward(point) for point in groove.outline] == [(8.0, 0.0), (0.0, 0.0), (0.0, -10.0),
                                                                          (8.0, -10.0)]  # fmt: skip


def test_a_slab_without_height_has_its_ends_where_they_are():
    slab = Slab([(0.0, 0.0, 0.0), (2.0, 0.0, 0.0)], level=True)
    assert (slab.area_mm2, slab.place(0.0), slab.place(1.0)) == (0.0, 0.0, 2.0)
