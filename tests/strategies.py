"""Hypothesis strategies that several tests draw from."""

from hypothesis import strategies as st

from anlage.core.joint import KINDS, MAKES, Preparation, dimensions_of
from anlage.core.ranges import ANY, NONE, Choices, Interval, numbers

# A coarse grid, so that ends meet often: that is where an algebra of intervals goes wrong.
GRID = st.integers(-6, 6).map(float)
TOKENS = st.frozensets(st.sampled_from("abcde"), max_size=5)


@st.composite
def intervals(draw):
    low, high = sorted((draw(GRID), draw(GRID)))
    absent_low, absent_high = draw(st.booleans()) and draw(st.booleans()), draw(st.booleans()) and draw(st.booleans())
    low, high = (float("-inf") if absent_low else low), (float("inf") if absent_high else high)
    single = low == high
    return Interval(low, high, not single and draw(st.booleans()), not single and draw(st.booleans()))


number_sets = st.lists(intervals(), max_size=4).map(numbers)
choice_sets = st.builds(Choices, TOKENS, st.booleans())
extremes = st.sampled_from((ANY, NONE))
same_kind = st.one_of(
    st.tuples(*[st.one_of(number_sets, extremes)] * 3), st.tuples(*[st.one_of(choice_sets, extremes)] * 3)
)
# Half steps hit the inside of every gap of the grid.
probes = [n / 2 for n in range(-14, 15)] + [-1e9, 1e9]
words = [*"abcde", "z"]


@st.composite
def preparations(draw, kind=None, *, od=False):
    """A preparation of a kind, or of any, without faults."""
    kind = kind or draw(st.sampled_from(KINDS))
    make = MAKES[kind]
    thick = draw(st.floats(3, 60))
    land = draw(st.sampled_from((0.0, 0.8, 1.5)))
    depth = (thick - land) / make.sides
    second = draw(st.none() | st.floats(0.3, 0.7)) if make.sides == 2 and make.form != "square" else None
    shallow = depth if second is None else (thick - land) * min(second, 1 - second)
    angle = draw(st.floats(5, 60))
    stated = {
        "kind": kind,
        "thickness_mm": thick,
        "root_opening_mm": draw(st.floats(0.1, 8) | st.just(0.0)),
        "root_face_mm": land,
        "groove_angle_deg": angle,
        "second_depth_mm": None if second is None else (thick - land) * second,
        "radius_mm": shallow * draw(st.floats(0.1, 0.9)),
        "break_height_mm": shallow * draw(st.floats(0.1, 0.9)),
        "upper_angle_deg": draw(st.floats(5, 60)),
        "leg_mm": thick * draw(st.floats(0.2, 1)),
        "second_leg_mm": draw(st.none() | st.floats(0.2, 1).map(lambda share: share * thick)),
        "member_angle_deg": draw(st.floats(60, 135)),
        "hole_mm": thick * draw(st.floats(0.5, 3)),
        "width_mm": thick * draw(st.floats(0.5, 5)),
        "layer_mm": thick * draw(st.floats(0.1, 0.5)),
        "reinforcement_mm": draw(st.sampled_from((0.0, 1.5, 3.0))),
        "cap_overlap_mm": draw(st.sampled_from((0.0, 1.6))),
        "buttering_mm": draw(st.sampled_from((0.0, 0.0, 5.0))),
        "root_reinforcement_mm": draw(st.sampled_from((0.0, 1.0))),
    }
    if make.form == "square":  # without an opening there is nothing to fill
        stated["root_opening_mm"] = max(stated["root_opening_mm"], 0.3)
    if make.family == "flare":
        stated["radius_mm"] = thick * draw(st.floats(1, 4))
    if make.form in ("fillet", "socket", "slip-on"):
        leg = min(stated["leg_mm"], stated["second_leg_mm"] or 99)
        stated["root_opening_mm"] = min(stated["root_opening_mm"], 0.3 * leg)
        stated["reinforcement_mm"] = min(stated["reinforcement_mm"], 0.6 * leg)  # no fillet bulges as far as its leg
    if make.form == "slot":
        stated["slot_length_mm"] = stated["hole_mm"] * draw(st.floats(1, 5))
    if make.family == "pipe" or od:
        stated["od_mm"] = draw(st.floats(2.5, 40)) * thick
        stated["run_od_mm"] = stated["od_mm"] * draw(st.floats(1, 5))
    own = {"kind", "thickness_mm", "od_mm", "run_od_mm", *dimensions_of(kind)}
    return Preparation(**{name: value for name, value in stated.items() if name in own})
