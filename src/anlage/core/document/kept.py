"""Answers kept for the value they were worked out from, as long as it is that very value: documents never change."""

from collections.abc import Callable
from functools import wraps
from threading import Lock
from typing import Concatenate, ParamSpec, TypeVar

Value = TypeVar("Value")
Found = TypeVar("Found")
Others = ParamSpec("Others")
KEPT = 6  # the draft, what it was before, and stations or designs beside it
PARTS = 2048  # of documents, whose answers are kept
_time = [0]  # how often everything was forgotten


def kept(
    function: Callable[Concatenate[Value, Others], Found],
) -> Callable[Concatenate[Value, Others], Found]:
    """Return a function that gives its last few answers again for the same value and equal others.

    A value is compared with `is`, so that a large document costs nothing to look up. Threads may ask at once: each
    looks in a list that never changes, and the answers of both are kept.

    Examples
    --------
    >>> @kept
    ... def length(words):
    ...     print("counted")
    ...     return len(words)
    >>> words = ["root", "cap"]
    >>> length(words), length(words)
    counted
    (2, 2)
    """
    answers: tuple[tuple[Value, object, Found], ...] = ()
    adding = Lock()

    @wraps(function)
    def answer(value: Value, /, *others: Others.args, **named: Others.kwargs) -> Found:
        nonlocal answers
        rest = (others, named, _time[0])
        for one, asked, found in answers:
            if one is value and asked == rest:
                return found
        found = function(value, *others, **named)
        with adding:
            answers = (*answers[-(KEPT - 1) :], (value, rest, found))
        return found

    return answer


def kept_of_parts(
    function: Callable[Concatenate[Value, Others], Found],
) -> Callable[Concatenate[Value, Others], Found]:
    """Return a function that gives its last answer for each of many parts of documents again, for equal others.

    As `kept`, where the parts come by the hundred: an edit leaves all but one of them the very same.

    Examples
    --------
    >>> @kept_of_parts
    ... def length(words, more):
    ...     print("counted")
    ...     return len(words) + more
    >>> words = ["root", "cap"]
    >>> length(words, 1), length(words, 1), length(words, 2)
    counted
    counted
    (3, 3, 4)
    """
    answers: dict[int, tuple[Value, object, Found]] = {}

    @wraps(function)
    def answer(value: Value, /, *others: Others.args, **named: Others.kwargs) -> Found:
        rest = (others, named, _time[0])
        known = answers.get(id(value))
        if known is not None and known[0] is value and known[1] == rest:
            return known[2]
        found = function(value, *others, **named)
        if len(answers) >= PARTS:
            answers.clear()
        answers[id(value)] = (value, rest, found)  # holds the value, so that its id is no other's
        return found

    return answer


def forget_kept() -> None:
    """Let every answer be worked out anew: what a document names means something else from now on."""
    _time[0] += 1
