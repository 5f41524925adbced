"""Letters that no text has: found, taken out, and never in what is told."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anlage.core.document import read_mending, read_strict, write
from anlage.core.errors import LONGEST, AnlageError, FormatError
from anlage.core.letters import has_odd, one_line, without_odd
from anlage.core.procedure import WPS, Wps


@given(st.text())
def test_what_is_left_is_text(text):
    left = without_odd(text)
    assert not has_odd(left)
    left.encode()
    assert all(each in "\t\n\r" or ord(each) >= 32 for each in left)


@given(st.text(st.characters(exclude_categories=("Cc", "Cs", "Cn"))))
def test_text_is_left_as_it_is(text):
    assert without_odd(text) == text


@given(st.text(), st.text(), st.text())
def test_a_refusal_is_one_line_whatever_it_tells_of(what, where, mend):
    said = str(AnlageError(what, where=where, mend=mend))
    said.encode()
    assert len(said.splitlines()) <= 1
    assert len(said) <= 3 * LONGEST


@pytest.mark.parametrize(
    ("text", "line"), [("a\nb", "a b"), ("5\u2009mm", "5\u2009mm"), ("\ud800", "\ufffd"), ("\x1b[2J", "\ufffd[2J")]
)
def test_a_line_keeps_narrow_spaces_and_shows_where_something_odd_was(text, line):
    assert one_line(text, 40) == line


@pytest.mark.parametrize("odd", ["\\u0000", "\\u001b", "\\ud800", "\x7f"])
@pytest.mark.parametrize("place", ["header/title", "passes/0/note", "key"])
def test_the_strict_door_refuses_and_the_mending_door_replaces(odd, place):
    raw = json.loads(write(Wps()))
    raw["deposits"], raw["ids"] = [{"id": "d1"}], 2
    raw["passes"] = [{"id": "p2", "deposit": "d1", "note": "sound"}]
    text = json.dumps(raw)
    where = {"header/title": '"title": ""', "passes/0/note": '"note": "sound"', "key": '"ids"'}[place]
    text = text.replace(where, where[:-1] + odd + '"')
    with pytest.raises(FormatError, match=r"leave out the letter|no such key"):
        read_strict(text, WPS)
    value, notices = read_mending(text, WPS)
    assert not has_odd(write(value))
    assert "which was replaced" in notices[0].text
