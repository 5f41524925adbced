"""The catalogue against the open-source library fluids (ASME B36.10M, B36.19M) and against itself."""

import math

import fluids
import pytest

from anlage.core.catalogue import Catalogue
from anlage.data.tables import catalogue

SCHEDULES = {
    "5", "10", "20", "30", "40", "60", "80", "100", "120", "140", "160", "STD", "XS", "XXS", "5S", "10S", "40S", "80S",
}  # fmt: skip


def test_every_pipe_agrees_with_fluids(shelves):
    differing = []
    for pipe in shelves.pipes:
        whole, _, part = pipe.nps.replace("-", " ").partition(" ")
        nps = sum(map(ratio, filter(None, (whole, part))))
        _, bore, od, wall = fluids.nearest_pipe(NPS=nps, schedule=pipe.schedule)
        ours = (pipe.bore_mm, pipe.od_mm, pipe.wall_mm)
        theirs = (bore * 1000, od * 1000, wall * 1000)
        if not all(math.isclose(a, b, abs_tol=0.011) for a, b in zip(ours, theirs, strict=True)):
            differing.append((pipe.nps, pipe.schedule, ours, theirs))
    assert differing == []
    assert len(shelves.pipes) == 370


def ratio(text):
    top, _, bottom = text.partition("/")
    return int(top) / int(bottom or 1)


def test_inch_and_metric_walls_agree(shelves):
    assert all(abs(pipe.wall_in * 25.4 - pipe.wall_mm) <= 0.013 for pipe in shelves.pipes)
    assert {pipe.schedule for pipe in shelves.pipes} <= SCHEDULES


def test_both_tables_of_metals_give_one_p_number(shelves):
    """ASME IX QW/QB-422 (H, M): the grades table and the excerpt of QW-422 name one P-Number and group for a metal."""
    differing = []
    for row in shelves.p_numbers:
        metal = shelves.metal_group(row.id)
        if metal.source != row.source and metal.group("p_number"):
            both = (metal.group("p_number"), metal.group("group_number")), (row.p_number, row.group_number)
            if both[0] != both[1]:
                differing.append((row.id, *both))
    assert differing == []


@pytest.mark.parametrize(
    ("classification", "f", "a"),
    [("E6010", "3", "1"), ("E7018", "4", "1"), ("E7018-A1", "4", "2"), ("E8018-B2", "4", "3"), ("E9018-B3", "4", "4"),
     ("E308L-16", "5", "8"), ("ER70S-6", "6", "1"), ("ER80S-D2", "6", "11"), ("ER310", "6", "9"), ("E71T-1M", "6", "1"),
     ("ER5356", "22", ""), ("ER4043", "23", ""), ("ERNiCr-3", "43", ""), ("ERTi-2", "51", ""), ("E6013", "2", "1")],
)  # fmt: skip
def test_f_and_a_numbers_of_qw_432_and_qw_442(classification, f, a, shelves):
    filler = shelves.filler(classification)
    assert (filler.f_number, filler.a_number) == (f, a)


@pytest.mark.parametrize(
    ("metal", "ce_iiw", "pcm"),
    [("A516-70", 0.480, 0.353), ("A106-B", 0.656, 0.418), ("A572-50", 0.485, 0.326), ("S275JR", 0.497, 0.312),
     ("S690QL", 1.114, 0.529), ("X65-PSL2", 0.653, 0.307)],
)  # fmt: skip
def test_carbon_equivalents_of_the_stored_limits(metal, ce_iiw, pcm, shelves):
    """IIW doc. IX-535-67 and Ito and Bessyo 1968 (H) on the stored compositions: a check of the cells themselves."""
    c = next(row for row in shelves.base_metals if row.id == metal).composition

    def x(element):
        return c.get(element, 0.0)

    iiw = x("C") + x("Mn") / 6 + (x("Cr") + x("Mo") + x("V")) / 5 + (x("Ni") + x("Cu")) / 15
    ito = x("C") + x("Si") / 30 + (x("Mn") + x("Cu") + x("Cr")) / 20 + x("Ni") / 60 + x("Mo") / 15 + x("V") / 10
    assert (iiw, ito + 5 * x("B")) == pytest.approx((ce_iiw, pcm), abs=6e-4)


def test_every_gas_sums_to_a_hundred_per_cent(shelves):
    assert all(sum(gas.components.values()) == pytest.approx(100) for gas in shelves.gases)


def test_strengths_and_ids_are_in_order(shelves: Catalogue):
    metals = shelves.base_metals
    assert len({metal.id for metal in metals}) == len(metals) == 177
    assert all(m.smys_mpa < m.smts_mpa <= (m.smts_max_mpa or m.smts_mpa) for m in metals if m.smys_mpa and m.smts_mpa)
    assert "Mn" not in next(metal for metal in metals if metal.id == "A36").composition


def test_every_row_says_where_it_comes_from(shelves):
    tables = (shelves.base_metals, shelves.p_numbers, shelves.fillers, shelves.filler_currents, shelves.gases,
              shelves.pipes, shelves.process_limits, shelves.tungsten)  # fmt: skip
    assert all(row.source and row.confidence in "HML" for table in tables for row in table)
    assert [len(table) for table in tables] == [177, 219, 124, 530, 32, 370, 22, 80]


# ASME BPVC IX QW-432 (F-Numbers) and QW-442 (A-Numbers of the usual deposit), from memory, H; "" where none is known.
NUMBERS = {
    "E7016-1": ("4", "1"), "E8016-B2": ("4", "3"), "E9016-B3": ("4", "4"), "E8016-C1": ("4", "10"),
    "E8015-B8": ("4", "5"), "E9015-B9": ("4", "5"), "ER90S-B9": ("6", "5"), "ER80S-B8": ("6", "5"),
    "ER308": ("6", "8"), "ER316": ("6", "8"), "ER385": ("6", ""), "ER70S-G": ("6", ""), "ER80S-G": ("6", ""),
    "ERNiCrMo-10": ("43", ""), "ERNiCrFe-7A": ("43", ""),
}  # fmt: skip


@pytest.mark.parametrize(("name", "numbers"), NUMBERS.items(), ids=list(NUMBERS))
def test_fillers_have_the_numbers_of_their_tables(name, numbers):
    filler = catalogue().filler(name)
    assert (filler.f_number, filler.a_number or "") == numbers


@pytest.mark.parametrize(
    "written", ["SFA-5.1 E7018", "A5.1 E7018", "AWS A5.1 E7018", "sfa 5.1: e7018 h4r", "AWS A5.1M E7018-H4"]
)
def test_a_filler_is_found_with_its_specification_before_it(written):
    assert catalogue().filler(written).classification == "E7018"
