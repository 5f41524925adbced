"""An engineer's own table of ferrite lines, read off at the weld."""

import os

import pytest

from anlage.core.document import read_strict
from anlage.core.errors import AnlageError
from anlage.core.procedure import WPS
from anlage.data.files import FOLDER
from anlage.session.metals.own_lines import own_figures, require_lines
from anlage.session.metals.together import together


@pytest.fixture(scope="module")
def found():
    wps = read_strict((FOLDER / "demo" / "OST-W-06.json").read_text(), WPS, where="demo")
    return together(wps)


def test_the_number_lies_between_the_lines_of_the_table(found, tmp_path):
    table = tmp_path / "mine.csv"
    table.write_text("fn,cr_eq,ni_eq\n0,10,20\n0,40,20\n30,10,0\n30,40,0\n")
    (figure,) = own_figures(found, str(table))
    number = float(figure.text.removesuffix(" FN"))
    assert 0 < number < 30
    assert figure.note.startswith("mine.csv, between its lines")
    table.write_text("fn,cr_eq,ni_eq\n0,10,1\n0,40,1\n30,10,0\n30,40,0\n")
    os.utime(table, (1, 1))  # read again once it was changed
    assert next(own_figures(found, str(table))).text == "beyond the lines"


def test_a_table_that_is_gone_or_none_says_so(found, tmp_path):
    (gone,) = own_figures(found, str(tmp_path / "gone.csv"))
    assert gone.text == "not read"
    bad = tmp_path / "bad.csv"
    bad.write_text("x,y\n1,2\n")
    with pytest.raises(AnlageError, match="begin with the line fn,cr_eq,ni_eq"):
        require_lines(str(bad))
    assert next(own_figures(found, str(bad))).text == "not read"
    assert not list(own_figures(found, ""))
