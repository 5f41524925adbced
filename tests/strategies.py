"""Hypothesis strategies that several tests draw from."""

from hypothesis import strategies as st

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
