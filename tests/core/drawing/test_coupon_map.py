"""The map of planned coupons: each where it would be welded, within the map, no name over another."""

from itertools import combinations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anlage.core.drawing import Marker, Path
from anlage.core.drawing.qualified_map import Area, Spot, Ticks, coupon_map, thickness_at
from anlage.core.ranges import Interval

SIZE = (93.0, 137.0)
TICKS = Ticks("base metal thickness, mm", "outside diameter, mm", (), ())
WALLS = st.floats(1.5, 200)


def drawn(areas, spots):
    return coupon_map(areas, spots, TICKS, SIZE, lambda text, height: 0.5 * height * len(text))


def plates(picture):
    for item in picture.items:
        if isinstance(item, Path) and item.role == "plate":
            xs, ys = zip(*item.points, strict=True)
            yield min(xs), min(ys), max(xs), max(ys)


def handles(picture):
    return {item.target: item.at for item in picture.items if isinstance(item, Marker)}


@given(walls=st.lists(WALLS, min_size=1, max_size=5), joints=st.lists(st.tuples(WALLS, WALLS), max_size=5))
def test_no_name_hides_another(walls, joints):
    spots = [Spot(f"coupon/C{n}", f"C{n}", wall, None) for n, wall in enumerate(walls)]
    areas = [Area(f"joint/{n}", f"joint {n}", "wps", Interval(*sorted(ends)), None) for n, ends in enumerate(joints)]
    picture = drawn(areas, spots)
    for one, other in combinations(plates(picture), 2):
        apart = min(one[2], other[2]) <= max(one[0], other[0]) + 1e-9 or min(one[3], other[3]) <= max(one[1], other[1])
        assert apart or abs(one[1] - other[1]) >= 3.6 - 1e-9, (one, other)
    top = max(y for item in picture.items if isinstance(item, Path) and item.role == "axis" for _, y in item.points)
    assert all(plate[3] <= top + 1e-9 for plate in plates(picture)), "the scale's name stays free"


@given(wall=WALLS)
def test_a_coupon_lies_at_its_thickness(wall):
    (at,) = handles(drawn((), [Spot("coupon/C1", "C1", wall, None)])).values()
    assert thickness_at(at[0], SIZE) == pytest.approx(wall, rel=1e-6)


def test_a_pipe_coupon_lies_at_its_diameter():
    low, high = (drawn((), [Spot("coupon/C1", "C1", 8.0, od)]) for od in (60.3, 219.1))
    assert handles(low)["coupon/C1"][1] < handles(high)["coupon/C1"][1]
