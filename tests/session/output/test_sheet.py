"""The sheet: everything stated, both unit systems, doubts and cautions; the PDF alike to the byte; issuing."""

import base64
import hashlib
import re
import subprocess
import sys
import zlib

import pytest
from msgspec.structs import replace

from anlage.core.document import read_strict, with_at, write
from anlage.core.drawing import Marker, Path, Text
from anlage.core.drawing.page import FOOT_MM, MARGIN_MM, PAPERS, Column, Flow, broken
from anlage.core.errors import InputError
from anlage.core.machine import Calibrated
from anlage.core.procedure import WPS, HoldPoint, Wps, with_element
from anlage.core.ranges import Interval
from anlage.core.record import PQR
from anlage.data.files import text_of
from anlage.formats.pdf import pdf
from anlage.session.heat.sequence import PassWait, Waits, Worked
from anlage.session.judging.assessment import Assessor
from anlage.session.judging.finish import limit_of_cap
from anlage.session.leaves.draft import Working, typed
from anlage.session.leaves.pipe_names import with_pipe
from anlage.session.output.wps_sheet import NO_MACHINES, Floor, Stationery, sheet
from anlage.session.works.demo import demo_file
from anlage.session.works.open_works import OpenWorks
from anlage.session.works.standing import Standing
from anlage.store import open_works

NOW = "2026-11-23T12:00:00Z"
DRAFT = Standing("ab" * 32)


def measure(text, height):
    return 0.55 * height * len(text)


@pytest.fixture(scope="module")
def judge():
    return Assessor([(n, read_strict(text_of(f"demo/OST-R-{n}.json"), PQR)) for n in ("01", "02")])


def procedure(number="01"):
    return read_strict(text_of(f"demo/OST-W-{number}.json"), WPS)


def pages(judge, wps, standing=DRAFT, paper="a4", works=NO_MACHINES):
    return sheet(wps, judge.assess(wps), standing, Stationery(paper, measure), Floor(works))


def words(found):
    return " ".join(i.text for page in found for i in page.items if isinstance(i, Text)).replace("\u2009", " ")


def test_the_floor_is_told_crayons_places_and_the_purge(judge):
    wps = with_at(procedure(), "preheat/reason", "AWS D1.1 hydrogen control: group D")
    said = words(pages(judge, wps))
    for expected in (
        "Why this preheat: AWS D1.1 hydrogen control: group D.", "Crayons: 100 °C must melt, 250 °C must not",
        "Read the least 50 mm from the groove edge",
    ):  # fmt: skip
        assert expected in said
    assert "Purge" not in said
    said = words(pages(judge, with_at(wps, "purge/target_ppm", 100.0)))
    assert "Purge" in said
    assert "the flow" in said
    assert "nobody enters a pit or a vessel" in said


def test_a_sheet_says_everything_in_both_systems(judge):
    said = words(pages(judge, procedure()))
    for expected in (
        "OST-W-01 Penstock shell, longitudinal seam", "A516-70", "18 mm (0.709 in)", "80 °C (176 °F)", "95..115",
        "0.71..1.38 kJ/mm", "(18.1..35.1 kJ/in)", "ASME IX, newest, limits in the SI column", "EWLa-1.5, 2.4 mm",
        "GTAW rests on OST-R-01", "None of the 38 rules used was compared with an owned copy of the code",
        "Local codes, the contract and a qualified welding engineer decide", "Approved", "page 1 of",
    ):  # fmt: skip
        assert expected in re.sub(" +", " ", said), expected


def test_problems_and_what_is_not_judged_are_printed(judge):
    said = words(pages(judge, procedure("02")))
    assert "Base metal thickness: outside. 4..14 mm is stated; OST-R-02 allows 1.5..13.1 mm: 2 × 6.55 mm" in said
    empty = words(pages(judge, Wps()))
    assert "Not judged: no code is stated." in empty
    assert "The joint is not stated in full: it is not drawn." in empty


def test_only_what_is_issued_is_called_so(judge):
    assert "draft, not issued" in words(pages(judge, procedure()))
    issued = Standing("ab" * 32, 3, is_issued=True, author="A. Author", issued_at=NOW)
    assert "revision 3, issued 2026-11-23 by A. Author" in words(pages(judge, procedure(), issued))
    assert Standing("ab", 3).words() == "draft after revision 3, not issued"


@pytest.mark.parametrize("paper", sorted(PAPERS))
def test_nothing_lies_outside_the_margins_of_its_paper(judge, paper):
    width, height = PAPERS[paper]
    for page in pages(judge, procedure(), paper=paper):
        assert page.high == (width, height)
        for item in page.items:
            points = item.points if isinstance(item, Path) else [item.at]
            for x, y in points:
                assert MARGIN_MM - 1 <= x <= width - MARGIN_MM + 1
                assert FOOT_MM - 10 <= y <= height - MARGIN_MM + 1
        assert not [item for item in page.items if isinstance(item, Marker) and item.kind == "handle"]


def test_a_long_procedure_goes_on_over_pages_and_repeats_its_heads(judge):
    wps = procedure()
    many = tuple(replace(wps.passes[2], id=f"p{n}") for n in range(100, 160))
    found = pages(judge, replace(wps, passes=many, ids=200))
    assert len(found) >= 3
    heads = [sum(isinstance(i, Text) and i.text == "Travel speed" for i in page.items) for page in found]
    assert sum(heads) >= 2


def test_a_table_keeps_numbers_at_the_right_and_text_in_its_column():
    flow = Flow("a4", measure)
    flow.table([Column("n", 1), Column("value", 1, numbers=True)], [("1", "12.5"), ("2", "7")])
    (page,) = flow.pages("foot")
    numbers = [item for item in page.items if isinstance(item, Text) and item.text in ("12.5", "7")]
    assert len({item.at[0] for item in numbers}) == 1
    assert {item.anchor for item in numbers} == {"end"}


def test_a_word_too_wide_stands_alone():
    assert broken("a extraordinarily b", 5.0, 1.0, lambda text, _: len(text)) == ["a", "extraordinarily", "b"]


# PDF -----------------------------------------------------------------------------------------


def test_equal_pages_give_equal_bytes_in_another_process_too(judge):
    data = pdf(pages(judge, procedure()), title="OST-W-01")
    assert data == pdf(pages(judge, procedure()), title="OST-W-01")
    code = (
        "import sys, hashlib; sys.path.insert(0, '.')\n"
        "from tests.session.output.test_sheet import *\n"
        "judge = Assessor([(n, read_strict(text_of(f'demo/OST-R-{n}.json'), PQR)) for n in ('01', '02')])\n"
        "print(hashlib.sha256(pdf(pages(judge, procedure()), title='OST-W-01')).hexdigest())"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stdout.strip() == hashlib.sha256(data).hexdigest()


def test_a_pdf_has_its_pages_in_true_size_and_the_font_inside(judge):
    data = pdf(pages(judge, procedure(), paper="letter"), title="OST-W-01")
    assert data.startswith(b"%PDF-")
    box = re.search(rb"/MediaBox \[ 0 0 ([\d.]+) ([\d.]+) \]", data)
    assert [float(side) for side in box.groups()] == pytest.approx([612, 792], abs=0.1)  # Letter in points
    assert len(re.findall(rb"/Type /Page\b", data)) == len(pages(judge, procedure(), paper="letter"))
    assert b"/FontFile2" in data


def test_the_section_in_a_pdf_is_drawn_as_lines_not_as_an_image(judge):
    data = pdf(pages(judge, procedure()), title="x")
    assert b"/Subtype /Image" not in data
    drawn = max(content(part).count(b" l ") for part in re.findall(rb"stream\r?\n(.*?)endstream", data, re.S))
    assert drawn > 20


def content(part):
    """A stream of a page as its drawing commands; "" for a font or a map."""
    try:
        return zlib.decompress(base64.a85decode(part.strip().removesuffix(b"~>")))
    except (ValueError, zlib.error):
        return b""


# Issuing -------------------------------------------------------------------------------------


@pytest.fixture
def works(tmp_path):
    found = OpenWorks(demo_file(NOW, folder=tmp_path), now=lambda: NOW, told=pytest.fail)
    yield found
    found.close()


def test_an_issued_procedure_is_its_revision_until_it_is_edited_and_again_when_stepped_back(works):
    own = works.entries()[0].id
    working, _ = works.read(own)
    revision = works.issue(own, working, author="A. Author")
    standing = works.standing(own, working)
    assert (standing.is_issued, standing.revision, standing.sha256) == (True, 1, revision.sha256)
    edited = typed(working, "joint/thickness_mm", "19", "si")
    assert works.standing(own, edited).words() == "draft after revision 1, not issued"
    assert works.standing(own, working).is_issued
    assert works.issue(own, edited, author="B. Author").number == 2


def test_the_issued_bytes_are_those_of_the_draft_and_verify_finds_them_intact(works):
    own = works.entries()[0].id
    working, _ = works.read(own)
    revision = works.issue(own, working, author="A. Author")
    assert hashlib.sha256(write(working.value).encode()).hexdigest() == revision.sha256
    works.flush()
    with open_works(works.path, read_only=True) as file:
        assert file.verify() == ()


@pytest.mark.parametrize(
    ("path", "text", "line"),
    [
        (
            "joint/thickness_mm",
            "18 furlongs",
            "joint/thickness_mm: 1 text was not taken over; finish or empty it first",
        ),
        ("joint/root_face_mm", "30", "joint/root_face_mm: 30 mm is not less than the thickness"),
        ("header/number", "", "number: it has no number; state one in the job"),
        ("header/number", "OST-W-02", "number: OST-W-02 is another document's; choose another number"),
    ],
)
def test_what_is_not_finished_is_not_issued(works, path, text, line):
    own = works.entries()[0].id
    working, _ = works.read(own)
    with pytest.raises(InputError) as refused:
        works.issue(own, typed(working, path, text, "si"), author="A. Author")
    assert str(refused.value).startswith(line)
    assert works.revisions(own) == ()


def test_nobody_issues_without_a_name(works):
    own = works.entries()[0].id
    with pytest.raises(InputError, match=r"^author: nobody issues it"):
        works.issue(own, works.read(own)[0], author=" ")


def test_a_changed_leaf_changes_the_hash_on_the_sheet(works):
    own = works.entries()[0].id
    working, _ = works.read(own)
    other = Working(with_at(working.value, "header/title", "Other"))
    assert works.standing(own, working).sha256 != works.standing(own, other).sha256


def test_sectors_and_dials_are_printed_for_the_floor(judge):
    wps = procedure()
    wps, _ = with_element(wps, "sectors", of=wps.passes[0].id, reach="first 300 mm", current_a=[100, 110])
    for dial, amps in ((10, 60), (90, 200)):
        wps, _ = with_element(wps, "readings", machine="M4", tap="low", dial=dial, current_a=amps, meter="K-2",
                              day="2026-10-05")  # fmt: skip
    said = words(pages(judge, wps, works=Calibrated(today="2026-11-23")))
    assert "Dials, by what is in date on 2026-11-23" in said
    assert "Settings by sector" in said
    assert "first 300 mm 100..110 A" in said
    assert "1: M4 tap low dial 30..41 (meter K-2, 2026-10-05, its volts were not read)." in said
    assert "weld symbol after ISO 2553, system A" in said
    assert "SMAW: rising lines" in said


def test_a_node_of_tubes_is_set_with_its_members_in_the_order_of_their_welds(judge):
    found = pages(judge, procedure("03"))
    said = words(found)
    _, _, under = said.partition("Node of tubes, in the order of its welds")
    rows = [under.index(text) for text in ("76.1 mm", "63.5 mm", "45° 0°", "135° 0°")]
    assert rows == sorted(rows)
    assert "lies under Right diagonal: weld it and look at it" in under
    assert "(90°)" in said  # the first member's angle, which is not stated
    page = next(page for page in found if "Node of tubes" in words([page]))
    assert any(isinstance(item, Path) and item.role == "weld_line" for item in page.items)  # heading beside its picture


def test_the_sheet_names_the_rules_that_are_less_sure_and_only_those(judge):
    wps = procedure()
    said = re.sub(r"\s+", " ", words(pages(judge, wps)))
    named = re.search(r"Less sure than the others: ([^.]*(?:\.\d+[^.]*)*)\.", said)
    confidences = {}
    for rung in judge.assess(wps).judgement.rungs:
        confidences.setdefault(rung.clause, set()).add(rung.confidence)
    less = {clause for clause, found in confidences.items() if found - {"H"}}
    sure = {clause for clause, found in confidences.items() if found == {"H"}}
    assert less
    assert sure
    assert all(clause in named[1] for clause in less)
    assert set(named[1].split(", ")).isdisjoint(clause for clause in sure if "," not in clause)


# What a floor needs to know ------------------------------------------------------------------


def told(judge, wps):
    return " | ".join(item.text for page in pages(judge, wps) for item in page.items if isinstance(item, Text))


def test_the_sheet_names_groups_and_numbers_of_metals_and_fillers(judge):
    said = told(judge, procedure())
    assert "A516-70: P-No. 1, Group 2" in said
    assert "ER70S-2: ISO 4063 141, SFA-5.18, F-No. 6, A-No. 1" in said
    assert "E7018: ISO 4063 111, SFA-5.1, F-No. 4, A-No. 1" in said


def test_the_units_of_the_case_stand_first(judge):
    metric, inch = procedure(), with_at(procedure(), "header/units", "us")
    assert "18 mm (0.709 in)" in told(judge, metric).replace("\u2009", " ")
    assert "0.709 in (18 mm)" in told(judge, inch).replace("\u2009", " ")
    assert "3/32 in (2.4 mm)" in told(judge, inch).replace("\u2009", " ")


def test_the_pipe_is_named_while_it_is_true(judge):
    wps = with_pipe(with_at(procedure(), "joint/product", "pipe"), "10 sch 60")
    assert "10 sch 60" in told(judge, wps)
    assert "10 sch 60" not in told(judge, with_at(wps, "joint/thickness_mm", 13.0))


def test_root_style_spacer_stops_and_hold_points_are_on_it(judge):
    wps = with_at(with_at(procedure(), "joint/root_style", "open-root"), "seam/stagger_mm", 25.0)
    hold = HoldPoint(id=f"h{wps.ids + 1}", what="Root seen from inside", before=wps.passes[1].id)
    wps = replace(wps, hold_points=(hold,), ids=wps.ids + 1)
    said = told(judge, wps)
    assert "Spacer for the tacks" in said
    assert "Stagger" in said
    assert "Root seen from inside, before pass 2" in said


def test_what_is_done_between_two_processes_is_a_line_of_its_own(judge):
    assert "Before pass 4: shut off Ar and bleed its hose; take off the torch" in told(judge, procedure())
    assert "Change-overs" not in told(judge, Wps())


def test_a_letterhead_stands_over_it(judge):
    wps = procedure()
    found = sheet(wps, judge.assess(wps), DRAFT, Stationery("a4", measure, "Ostrel works"))
    assert found[0].items[0].text == "Ostrel works"


def test_the_floor_is_told_how_long_to_wait_or_that_nobody_worked_it_out(judge):
    wps = procedure("02")
    assessed = judge.assess(wps)

    def said(waits):
        return words(sheet(wps, assessed, DRAFT, Stationery("a4", measure), Floor(waits=waits)))

    passes = tuple(PassWait(n, f"p{n}", Interval(0, 60.0 * n), None) for n in range(1, 5))
    told = said(Waits(passes, Interval(1200, 1800), Worked(wps), ()))
    assert "Wait before pass 1 up to 1.0 min, before pass 2 up to 2.0 min" in told
    assert "Seam of 444 mm; read at the start of each lap" in told
    assert "Waits between passes: not worked out for this sheet." in said(None)
    assert "Waits between passes: The section cannot be run" in said("The section cannot be run: why.")
    bare = with_at(wps, "piece/half_width_mm", None)
    assert "Waits" not in words(sheet(bare, assessed, DRAFT, Stationery("a4", measure)))


def test_what_follows_the_last_pass_is_told_and_nothing_of_what_is_not_stated(judge):
    said = words(pages(judge, procedure("05")))
    for expected in (
        "Heat treatment at 690..745 °C",
        "Heat treatment for 1 h",
        "Hydrogen release 250..300 °C",
        "80..120 K/h",
    ):
        assert expected in said
    assert "Release for" not in words(pages(judge, procedure("01")))


def test_how_high_a_cap_may_be_is_drawn_over_section_and_bead_map(judge):
    wps = procedure("11")
    assessed = judge.assess(wps)
    limit = limit_of_cap(wps)
    assert limit is not None
    assert limit.is_exceeded

    def said(caps):
        return words(sheet(wps, assessed, DRAFT, Stationery("a4", measure), Floor(caps=caps)))

    assert limit.text not in said(None)
    assert said(limit).count("≤ 1.89 mm, 502") == 2
