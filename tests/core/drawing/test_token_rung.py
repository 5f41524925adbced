"""A rung of words: stated words first and filled in, those that are not allowed barred, the others as boxes."""

import pytest

from anlage.core.drawing import Path, Text
from anlage.core.drawing.token_rung import token_rung, tokens_of_rung
from anlage.core.ranges import ANY, NONE, all_but, between, choices


def measure(text, height):
    return len(text) * height * 0.5


def drawn(stated, sure, possible=None, width=100.0):
    tokens = tokens_of_rung(stated, sure, possible or sure, str.lower)
    items = token_rung(tokens, sure, width, measure).items
    roles = [item.role for item in items if isinstance(item, Path)]
    return list(zip(roles, [item.text for item in items if isinstance(item, Text)], strict=False)), items


def test_the_stated_word_is_filled_and_stands_before_the_others():
    found, _ = drawn(choices("GMAW"), choices("FCAW", "GMAW", "MCAW"))
    assert found == [("token_stated", "gmaw"), ("token_allowed", "fcaw"), ("token_allowed", "mcaw")]


def test_a_stated_word_that_is_not_allowed_is_barred():
    found, _ = drawn(choices("A", "B"), choices("B", "C"))
    assert found == [("token_barred", "a"), ("token_stated", "b"), ("token_allowed", "c")]


def test_what_is_perhaps_allowed_is_told_apart():
    found, _ = drawn(choices("A"), choices("A"), choices("A", "B"))
    assert found == [("token_stated", "a"), ("token_possible", "b")]


def test_anything_and_all_but_some_are_said_in_words():
    for sure, said in ((ANY, "any is allowed"), (all_but("B"), "any but B")):
        _, items = drawn(choices("A"), sure)
        assert items[-1].text == said


def test_what_is_not_stated_leaves_the_allowed_words():
    found, _ = drawn(None, choices("A", "B"))
    assert found == [("token_allowed", "a"), ("token_allowed", "b")]


def test_what_has_no_room_is_counted():
    _, items = drawn(choices("WORD1"), choices(*(f"WORD{n}" for n in range(9))), width=40.0)
    boxes = sum(isinstance(item, Path) for item in items)
    assert items[-1].text == f"+{9 - boxes}"
    assert max(x for item in items if isinstance(item, Path) for x, _ in item.points) <= 40.0


@pytest.mark.parametrize(
    ("stated", "sure"), [(between(1, 2), between(0, 3)), (None, ANY), (between(1, 2), ANY), (None, NONE)]
)
def test_numbers_and_what_names_no_word_have_no_boxes(stated, sure):
    assert tokens_of_rung(stated, sure, sure) == ()
