"""Ids of the elements of a document: unique, and never used again, also after the element is gone."""

import re
from collections.abc import Iterable
from typing import Any

from anlage.core.errors import InputError, shortened
from anlage.core.results import Notice

_ID = re.compile(r"([a-z]+)(\d{1,9})")


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


def check_ids(elements: Iterable[Any], given: int) -> None:
    """Refuse ids that come twice, or that the document's count of ids given does not reach.

    Raises
    ------
    InputError : an id comes twice, or was never given
    """
    seen: set[str] = set()
    for element in elements:
        if element.id in seen:
            raise InputError(f"the id {element.id} comes twice", where="ids", mend="give each its own id")
        seen.add(element.id)
    highest = max(map(number_of, seen), default=0)
    if highest > given:
        raise InputError(f"{given} ids are given and {highest} is in use", where="ids", mend=f"write {highest}")


def mend_ids(raw: dict[str, Any], lists: Iterable[str]) -> list[Notice]:
    """Leave out of the named lists of a raw document what has no id of its own, and raise the count of ids given."""
    notices: list[Notice] = []
    seen: set[str] = set()
    for name in lists:
        if name in raw and not isinstance(raw[name], list):
            text = f"{name} was {shortened(repr(raw.pop(name)))} and was left out"
            notices.append(Notice.of("document.value_left_out", name, text))
        kept = []
        for place, element in enumerate(raw.get(name, ())):
            own = element.get("id") if isinstance(element, dict) else None
            if isinstance(own, str) and own not in seen:
                seen.add(own)
                kept.append(element)
            else:
                text = f"{name}/{place} has no id of its own and was left out"
                notices.append(Notice.of("document.part_left_out", f"{name}/{place}", text))
        if name in raw:
            raw[name] = kept
    highest = max(map(number_of, seen), default=0)
    given = raw.get("ids", 0)
    if not isinstance(given, int) or given < highest:
        raw["ids"] = highest
        text = f"ids was {shortened(repr(given))} though {highest} is the highest in use"
        notices.append(Notice.of("document.ids_raised", "ids", text))
    return notices
