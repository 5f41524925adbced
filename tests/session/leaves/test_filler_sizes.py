"""3/32 in, 2.4 mm and 2.38125 mm are one size everywhere: in fields, on the sheet, for the judge."""

import pytest

from anlage.core.procedure import Wps, with_deposit
from anlage.core.ranges import Interval, Numbers
from anlage.core.record import Pqr, RecordedDeposit
from anlage.data.tables import catalogue
from anlage.session.judging.mapper import facts_of, sets_of
from anlage.session.leaves.set_text import set_text
from anlage.session.leaves.text import shown, with_text

PATH = "deposits/d1/filler_diameter_mm"


@pytest.fixture
def wps():
    return with_deposit(Wps(), process="SMAW", filler="E7018")[0]


@pytest.mark.parametrize(("text", "system"), [("3/32 in", "si"), ("2,4", "si"), ("2.38125 mm", "us"), ("3/32", "us")])
def test_a_size_is_shown_and_judged_as_one_by_whatever_name_it_was_typed(wps, text, system):
    stated = with_text(wps, PATH, text, system)
    assert (shown(stated, PATH, "si"), shown(stated, PATH, "us")) == ("2.4", "3/32")
    (size,) = sets_of(stated, "deposit", stated.deposits[0])["filler_diameter_mm"].parts
    assert (size.low, size.high) == pytest.approx((2.38125, 2.38125))
    record = with_text(Pqr(deposits=(RecordedDeposit(id="d1"),), ids=1), PATH, text, system)
    assert facts_of(record, "deposit", record.deposits[0])["filler_diameter_mm"] == pytest.approx(2.38125)


@pytest.mark.parametrize("text", ["1/4 in", "6.4 mm"])
def test_a_quarter_of_an_inch_is_within_a_quarter_of_an_inch_by_either_name(wps, text):
    stated = with_text(wps, PATH, text, "si")
    (size,) = sets_of(stated, "deposit", stated.deposits[0])["filler_diameter_mm"].parts
    assert size.high <= 6.35
    assert set_text("filler_diameter_mm", Numbers((size,)), "si").replace("\u2009", " ") == "6.4 mm"
    assert set_text("filler_diameter_mm", Numbers((size,)), "us").replace("\u2009", " ") == "1/4 in"


def test_a_range_of_sizes_and_a_size_that_nobody_sells(wps):
    both = with_text(wps, PATH, "3/32..1/8 in", "si")
    assert (shown(both, PATH, "si"), shown(both, PATH, "us")) == ("2.4..3.2", "3/32..1/8")
    odd = with_text(wps, PATH, "2.5", "si")
    assert (shown(odd, PATH, "si"), odd.deposits[0].filler_diameter_mm) == ("2.5", Interval(2.5, 2.5))


def test_no_two_sizes_share_a_length_but_one_in_millimetres_sold_under_two_names():
    sizes = catalogue().filler_sizes
    assert len(sizes) > 12
    for one in sizes:
        for other in sizes:
            near = abs(one.inch_mm - other.inch_mm) < 0.01 or abs(one.mm - other.inch_mm) < 0.01
            assert one == other or one.mm == other.mm or not near
