"""Ids of the elements of a document: unique, and never used again, also after the element is gone."""

import re

_ID = re.compile(r"([a-z]+)(\d+)")


def next_id(prefix: str, used: int) -> tuple[str, int]:
    """Return a new id and the count of ids given so far, which the document keeps.

    Examples
    --------
    >>> next_id("p", 7)
    ('p8', 8)
    """
    return f"{prefix}{used + 1}", used + 1


def number_of(element_id: str) -> int:
    """Return the number inside an id, 0 when it is not one of ours."""
    match = _ID.fullmatch(element_id)
    return int(match[2]) if match else 0
