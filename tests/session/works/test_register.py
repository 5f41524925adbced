"""The register: every document with its state and place, what is not covered, and the map of it."""

import math

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from anlage.core.drawing import Path, Text
from anlage.core.drawing.qualified_map import THICKNESS_MM, Area, qualified_map
from anlage.core.ranges import Interval
from anlage.session.judging.assessment import Assessor
from anlage.session.leaves.draft import typed
from anlage.session.works.demo import demo_file
from anlage.session.works.open_works import OpenWorks
from anlage.session.works.register import Standpoint, areas, ticks
from anlage.session.works.register_rows import RegisterRows
from anlage.store import open_works
from tests.demo import NUMBERS

NOW = "2026-11-23T12:00:00Z"
SIZE = (200.0, 140.0)


@pytest.fixture
def works(tmp_path):
    found = OpenWorks(demo_file(NOW, folder=tmp_path), now=lambda: NOW, told=pytest.fail)
    yield found
    found.close()


def read(works, system="si"):
    return RegisterRows(works, lambda: None).rows(Standpoint(system, NOW[:10]), lambda: Assessor(works.records()))


def test_procedures_and_records_say_number_state_and_verdict(works):
    found = {row.number: row for row in read(works)}
    assert list(found) == NUMBERS
    verdicts = {number: row.verdict for number, row in found.items()}
    outside, unproven = {f"OST-W-{number:02d}" for number in (2, 4, 5, 6, 7, 8, 9, 10, 11)}, {"OST-M-02"}
    assert {number for number, verdict in verdicts.items() if verdict == "outside"} == outside
    assert {number for number, verdict in verdicts.items() if verdict == "unproven"} == unproven
    assert found["OST-W-02"].said == "45 inside, 1 outside, 1 unproven"
    assert found["OST-R-01"].said.replace("\u2009", " ") == "allows 5..32 mm; P-Number 1+1"
    assert (found["OST-W-01"].state, found["OST-R-01"].state) == ("draft", "record, accepted")


def test_the_gap_is_what_is_stated_and_covered_by_none(works):
    found = {row.number: row for row in read(works)}
    (gap,) = found["OST-W-02"].gaps
    assert (gap.low, gap.high) == pytest.approx((13.1, 14))
    assert found["OST-W-01"].gaps == ()


def test_an_issued_procedure_shows_its_revision(works):
    own = works.entries()[0].id
    works.issue(own, works.read(own)[0], author="A. Author")
    assert read(works)[0].state == "revision 1"
    works.save(own, typed(works.read(own)[0], "header/title", "Other", "si"))
    works.flush()
    assert read(works)[0].state == "draft after 1"


def test_what_cannot_be_read_says_so_and_hides_nothing_else(tmp_path):
    path = demo_file(NOW, folder=tmp_path)
    with open_works(path) as file:
        file.add("anlage-wps", "{", now=NOW, number="OST-W-77")
        file.add("anlage-pqr", "{", now=NOW, number="OST-R-77")
    works = OpenWorks(path, now=lambda: NOW, told=pytest.fail)
    found = {row.number: row for row in read(works)}
    works.close()
    assert (found["OST-W-77"].state, found["OST-W-77"].verdict) == ("cannot be read", "unproven")
    assert "no JSON" in found["OST-W-77"].said
    assert found["OST-R-77"].state == "cannot be read"
    assert len(found) == len(NUMBERS) + 2


def test_a_search_finds_words_in_any_order(works):
    found = [row.number for row in read(works) if row.matches("outside heating")]
    assert found == ["OST-W-02"]


# The map -------------------------------------------------------------------------------------


def drawn(*found, system="si"):
    return qualified_map(found, ticks(system), SIZE, lambda text, height: 0.55 * height * len(text))


def boxes(picture, role):
    return [shapely.Polygon(i.points) for i in picture.items if isinstance(i, Path) and i.role == role and i.closed]


def test_equal_ratios_are_equally_far_apart():
    thin, thick = Area("a", "a", "pqr", Interval(4, 8), None), Area("b", "b", "pqr", Interval(40, 80), None)
    widths = [box.bounds[2] - box.bounds[0] for box in boxes(drawn(thin, thick), "pqr_area")]
    assert widths[0] == pytest.approx(widths[1])


def test_a_document_without_diameter_covers_every_diameter():
    (box,) = boxes(drawn(Area("a", "a", "pqr", Interval(4, 8), None)), "pqr_area")
    (limited,) = boxes(drawn(Area("a", "a", "pqr", Interval(4, 8), Interval(50, 100))), "pqr_area")
    assert box.contains(limited)


def test_a_gap_is_hatched_within_its_rectangle():
    area = Area("a", "a", "wps", Interval(4, 14), Interval(70, 170), (Interval(13.1, 14),))
    picture = drawn(area)
    (outline, *hatches) = [item for item in picture.items if item.role == "gap"]
    frame = shapely.Polygon(outline.points[:4]).buffer(1e-6)
    assert hatches
    assert all(frame.covers(shapely.LineString(item.points)) for item in hatches)


@given(st.lists(st.tuples(st.floats(0.1, 900), st.floats(0, 500), st.floats(1, 9000)), max_size=12))
def test_any_documents_make_a_map_whose_labels_do_not_cover_each_other(found):
    documents = [
        Area(str(n), f"W-{n}", "wps", Interval(low, low + more), Interval(od, od))
        for n, (low, more, od) in enumerate(found)
    ]
    picture = drawn(*documents)
    plates = boxes(picture, "plate")
    assert len(plates) == len(documents)
    assert shapely.union_all(plates).area == pytest.approx(sum(plate.area for plate in plates))
    assert all(
        math.isfinite(x) for item in picture.items if isinstance(item, Path) for point in item.points for x in point
    )


def test_the_marks_are_in_the_readers_units():
    texts = [item.text for item in drawn(system="us").items if isinstance(item, Text)]
    assert {"1/16", "1/2", "outside diameter, in"} <= set(texts)
    assert all(THICKNESS_MM[0] <= value <= THICKNESS_MM[1] for value, _ in ticks("us").thickness)


def test_the_chosen_document_is_marked(works):
    found = read(works)
    marks = [item.target for item in drawn(*areas(found, found[1].id)).items if item.role == "chosen"]
    assert marks == [found[1].id]


def test_of_very_many_documents_each_rectangle_is_drawn_once_and_the_chosen_one_named():
    many = [Area(str(n), f"W-{n}", "wps", Interval(5 + n % 7, 20), Interval(50, 100)) for n in range(2000)]
    chosen = Area("own", "W-own", "wps", Interval(5, 20), Interval(50, 100), chosen=True)
    picture = drawn(*many, chosen)
    assert len(boxes(picture, "wps_area")) == 8
    assert [item.text for item in picture.items if isinstance(item, Text) and item.role == "value"] == ["W-own"]
