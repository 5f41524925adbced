"""The metals and fillers of a works file: counted by every verdict in it, by none outside, and gone when taken out."""

import pytest

from anlage.core.document import with_
from anlage.core.errors import FormatError, InputError, UnknownNameError
from anlage.core.materials import MATERIALS, Materials
from anlage.data.tables import catalogue, shipped_catalogue
from anlage.session.judging.assessment import Assessor
from anlage.session.kinds import PROCEDURE
from anlage.session.leaves.draft import Working
from anlage.session.works.added import added
from anlage.session.works.demo import demo_file
from anlage.session.works.marked_codes import codes_of_file
from anlage.session.works.materials import names_of, table_text, with_table, without
from anlage.session.works.open_works import OpenWorks
from anlage.session.works.register import Standpoint
from anlage.session.works.register_rows import RegisterRows
from anlage.store import Draft, open_works

NOW = "2026-11-29T12:00:00Z"
METAL = "id,p_number,p_group,smys_mpa,smts_mpa,confidence,source\nW-260,{},2,260,485,M,mill sheet\n"
FILLERS = "classification,processes,f_number,a_number,smts_mpa,confidence,source\nW-70X,SMAW,4,1,490,M,maker's sheet\n"


@pytest.fixture
def works(tmp_path):
    found = OpenWorks(demo_file(NOW, folder=tmp_path), now=lambda: NOW, told=pytest.fail)
    yield found
    found.close()


def add(works, text):
    works.mark(with_table(works.materials(), text), author="A. Maker")


def of_own_metal(works, number="OST-W-01"):
    """Return a procedure of the demo, made of a metal that only the works can know."""
    own = next(entry.id for entry in works.entries(PROCEDURE) if entry.number == number)
    read = works.read(own)[0].value
    one = with_(read.metals.one, name="W-260", certificate=None)
    return own, with_(read, metals=with_(read.metals, one=one))


def verdict(works, document, variable="p_number"):
    rungs = Assessor(works.records(), works.codes()).assess(document).judgement.rungs
    return next(each.verdict for each in rungs if each.variable == variable)


def test_a_metal_of_the_works_is_judged_by_the_groups_of_its_row_and_unknown_once_it_is_taken_out(works):
    _, document = of_own_metal(works)
    assert verdict(works, document) == "unproven"
    add(works, METAL.format("1"))
    assert verdict(works, document) == "inside"
    works.mark(without(works.materials(), "w260"), author="A. Maker")
    assert verdict(works, document) == "unproven"
    add(works, METAL.format("8"))
    assert verdict(works, document) == "outside"


def test_what_is_added_is_in_the_file_as_a_revision_and_no_document(works):
    before = works.all_entries()
    add(works, METAL.format("1"))
    add(works, FILLERS)
    assert works.all_entries() == before
    with open_works(works.path, read_only=True) as file:
        (own,) = [entry for entry in file.entries() if entry.kind == MATERIALS.format]
        assert [each.author for each in file.revisions(own.id)] == ["A. Maker", "A. Maker"]
        assert not file.verify()
    assert [(each.name, each.says, each.source) for each in added(works.materials())] == [
        ("W-260", "P-No. 1, Group 2 (less sure)", "mill sheet (M)"),
        ("W-70X", "SMAW, F-No. 4, A-No. 1", "maker's sheet (M)"),
    ]


def test_nobody_adds_anything(works):
    with pytest.raises(InputError):
        works.mark(with_table(works.materials(), FILLERS), author="")
    assert works.materials() == Materials()
    assert catalogue() is shipped_catalogue()


def test_one_works_is_at_hand_and_its_metals_are_no_others(works, tmp_path):
    add(works, METAL.format("1"))
    assert catalogue().base_metal("W-260")
    other = OpenWorks(tmp_path / "other.anlage", now=lambda: NOW, told=pytest.fail)
    assert catalogue().base_metal("W-260") is None
    other.close()
    codes_of_file(works.path)
    assert catalogue().base_metal("W-260")
    codes_of_file(None)
    assert catalogue().base_metal("W-260") is None


@pytest.mark.parametrize("spoilt", ["", "no JSON", '{"format": "anlage-materials", "version": 99}'])
def test_what_cannot_be_read_adds_nothing(works, spoilt):
    add(works, METAL.format("1"))
    _, document = of_own_metal(works)
    path = works.path
    works.close()
    with open_works(path, now=NOW) as file:
        (own,) = [entry for entry in file.entries() if entry.kind == MATERIALS.format]
        file.save_draft(own.id, Draft(spoilt, {}), now=NOW, number="materials")
    again = OpenWorks(path, now=lambda: NOW, told=pytest.fail)
    assert verdict(again, document) == "unproven"
    with pytest.raises(FormatError):
        again.materials()
    again.close()


def test_the_register_judges_again_when_a_metal_is_added(works):
    own, document = of_own_metal(works)
    works.save(own, Working(document))
    rows = RegisterRows(works, lambda: None)
    seen = Standpoint(system="si", today=NOW[:10])

    def row():
        found = rows.rows(seen, lambda: Assessor(works.records(), works.codes()))
        return next(each for each in found if each.id == own)

    before = row()
    add(works, METAL.format("1"))
    assert (before.verdict, row().verdict) == ("unproven", "inside")
    rows.close()


def test_a_table_of_a_spreadsheet_with_semicolons_and_decimal_commas_is_taken_as_meant():
    made = with_table(
        Materials(), "\ufeffid;p_number;smys_mpa;C;confidence;source\r\nW-1;1;355,5;0,18;M;sheet, page 2\r\n"
    )
    assert made.metals == 'id,p_number,smys_mpa,C,confidence,source\nW-1,1,355.5,0.18,M,"sheet, page 2"\n'


def test_rows_are_added_to_those_that_are_there_and_taken_out_one_by_one():
    made = with_table(with_table(Materials(), METAL.format("1")), "id,C,confidence,source\nW-2,0.2,L,guess\n")
    assert names_of(with_table(made, FILLERS)) == ("W-260", "W-2", "W-70X")
    assert table_text(made, "metals").splitlines()[0].startswith("id,spec,grade")
    assert names_of(without(made, "W-260")) == ("W-2",)
    assert without(without(made, "W-260"), "W-2") == Materials()
    with pytest.raises(UnknownNameError, match="W-260"):
        without(made, "W-261")
    with pytest.raises(FormatError, match="two rows are called so"):
        with_table(made, METAL.format("8"))
    with pytest.raises(FormatError, match="line 2"):
        with_table(made, "id,confidence,source\nW-3,maybe,x\n")
