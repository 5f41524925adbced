"""Every text that a field can hold comes back from every file that is written of it."""

import csv
import io
from xml.etree import ElementTree

import ezdxf
import openpyxl
from hypothesis import given, settings
from hypothesis import strategies as st

from anlage.core.document import Dimension, read_strict, write
from anlage.core.letters import has_odd, without_odd
from anlage.core.procedure import WPS, Joint, Wps, with_deposit, with_pass
from anlage.formats.tables import STARTS_FORMULA, Table, as_csv
from anlage.formats.xlsx import as_xlsx
from anlage.session.leaves.draft import Working, typed
from anlage.session.output.pictures import picture_file
from anlage.session.output.tables import table_file

JOINT = Joint(
    kind="single-v", product="plate", thickness_mm=12.0, root_opening_mm=Dimension.stated(nominal=3.0),
    root_face_mm=Dimension.stated(nominal=1.0), groove_angle_deg=Dimension.stated(nominal=60.0),
)  # fmt: skip
WHOLE, _ = with_deposit(Wps(joint=JOINT), process="SMAW", filler="E7018")
WHOLE, _ = with_pass(WHOLE, WHOLE.deposits[0].id)
LEAVES = ("header/number", "header/title", "metals/one/name", "deposits/d1/filler", "passes/p2/note")
texts = st.text(max_size=30) | st.sampled_from(
    ("=1+1", "\n=1+1", "\r\n@x", "\t+1", "-2", "a\x00b", "\ud800", "\ufffe", "]]>", "<&\"'>", "{\\H", "%%c", "^J",
     "\u2028", "a\nb")
)  # fmt: skip


def measure(text, height):
    return 0.5 * height * len(text)


@given(st.lists(texts, min_size=len(LEAVES), max_size=len(LEAVES)))
def test_every_text_comes_back(stated):
    working = Working(WHOLE)
    for path, text in zip(LEAVES, stated, strict=True):
        working = typed(working, path, text, "si")
    wps = working.value
    assert not has_odd(write(wps))
    assert read_strict(write(wps), WPS) == wps
    note = wps.passes[0].note or ""
    rows = list(csv.reader(io.StringIO(table_file(wps, ".csv", "si", {}).decode("utf-8-sig"), newline="")))
    assert rows[1][-1] in (note, f"'{note}")
    assert not any(cell.startswith(STARTS_FORMULA) for row in rows for cell in row)
    sheet = openpyxl.load_workbook(io.BytesIO(table_file(wps, ".xlsx", "si", {}))).worksheets[0]
    cells = [cell for row in sheet.iter_rows() for cell in row]
    assert all(cell.data_type != "f" for cell in cells)
    (told,) = [cell.value or "" for cell in cells if cell.row == 2 and cell.column == sheet.max_column] or [""]
    assert told.lstrip("'") == note.replace("\r\n", "\n").replace("\r", "\n").lstrip("'") or not note


@given(texts.map(without_odd))
def test_no_cell_is_a_formula_whatever_stands_in_it(text):
    table = Table("T", ("head",), ((text,),))
    (_, (cell,)) = csv.reader(io.StringIO(as_csv(table).decode("utf-8-sig"), newline="")) if text else ((), ("",))
    assert cell in (text, f"'{text}")
    assert not cell.startswith(("=", "+", "-", "@", "\t", "\r", "\n"))
    read = openpyxl.load_workbook(io.BytesIO(as_xlsx([table]))).worksheets[0].cell(2, 1)
    assert read.data_type != "f"


@settings(max_examples=25)
@given(st.lists(texts, min_size=len(LEAVES), max_size=len(LEAVES)))
def test_every_picture_is_whole(stated):
    working = Working(WHOLE)
    for path, text in zip(LEAVES, stated, strict=True):
        working = typed(working, path, text, "si")
    for name in ("section", "beads", "symbol"):
        ElementTree.fromstring(picture_file(working.value, name, ".svg", "si", measure))  # noqa: S314 - our own
        drawn = ezdxf.read(io.StringIO(picture_file(working.value, name, ".dxf", "si", measure).decode()))
        assert not drawn.audit().has_errors
