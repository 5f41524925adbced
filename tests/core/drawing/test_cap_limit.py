"""The line of a limited cap: as high over the surface as the limit says, over each cap, flagged where it is passed."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from msgspec.structs import replace

from anlage.core.document import Dimension, with_at
from anlage.core.drawing import Path, Text
from anlage.core.drawing.cap_limit import CapLimit, cap_lines
from anlage.core.joint import Preparation, shape_of
from anlage.core.procedure import drawable
from anlage.core.quantities import show
from anlage.data.tables import unit_table
from anlage.session.judging.finish import limit_of_cap
from anlage.session.weld.picture_sheet import Sheet
from anlage.session.weld.pictures import section_picture
from tests.vessels import seam

V = Preparation(
    kind="single-v", thickness_mm=14, root_opening_mm=2.5, root_face_mm=1.5, groove_angle_deg=60, reinforcement_mm=2
)


def lines(limit, **changed):
    shape = shape_of(replace(V, **changed))
    return shape, tuple(cap_lines(shape, limit))


@given(most=st.floats(0.2, 12))
def test_line_stands_off_the_surface_by_the_limit(most):
    shape, drawn = lines(CapLimit(most, "most"))
    own = next(item for item in drawn if isinstance(item, Path))
    (mouth,) = [groove.mouth for groove in shape.grooves if groove.cap]
    surface, cap = mouth[0][1], max((point[1] for point in shape.grooves[0].cap), key=lambda y: abs(y - mouth[0][1]))
    assert [abs(y - surface) for _, y in own.points] == pytest.approx([most, most])
    assert (own.points[0][1] > surface) == (cap > surface)
    assert min(x for x, _ in own.points) < mouth[0][0] < mouth[-1][0] < max(x for x, _ in own.points)


def test_both_caps_of_a_double_groove_and_one_word():
    _, drawn = lines(CapLimit(3, "≤ 3 mm"), kind="double-v")
    assert sum(isinstance(item, Path) for item in drawn) == 2
    assert [item.text for item in drawn if isinstance(item, Text)] == ["≤ 3 mm"]


def test_no_line_without_a_cap():
    assert not lines(CapLimit(3, "≤ 3 mm"), reinforcement_mm=0.0)[1]


@pytest.mark.parametrize(("cap", "role"), [(2.0, "limit_other"), (4.5, "gap")])
def test_drawn_by_the_construction_code_of_the_job(cap, role):
    wps = with_at(
        seam(header__construction_code="b31.3", joint__kind="single-v"),
        "joint/reinforcement_mm", Dimension(nominal=cap),
    )  # fmt: skip
    limit, sketch = limit_of_cap(wps), drawable(wps.joint)
    assert limit is not None
    assert sketch is not None
    sheet = Sheet(120, 90, "si", lambda text, height: height * len(text) / 2)
    found = section_picture(sketch, sheet, limit)
    said = [item for item in found.items if isinstance(item, Text) and item.text == limit.text]
    assert limit.text == show(4.0, "length", "si", unit_table()).join(("≤ ", ", Table 341.3.2"))
    assert [item.role for item in found.items if isinstance(item, Path) and item.target == said[0].target
            and item.role in {"limit_other", "gap"}] == [role]  # fmt: skip
