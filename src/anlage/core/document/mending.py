"""Mending a raw document: what cannot be is left out, part by part, and everything left out is told."""

from collections.abc import Mapping
from functools import cache
from types import NoneType, UnionType
from typing import Annotated, Any, Union, get_args, get_origin

import msgspec

from anlage.core.document.model import Part, annotations_of
from anlage.core.errors import InputError, shortened
from anlage.core.letters import REPLACEMENT, has_odd, without_odd
from anlage.core.results import Notice

Raw = dict[str, Any]


class _WithoutWhatItNeedsError(Exception):
    """A part lacks a field that it cannot do without: the path of that field."""


def without_odd_letters(raw: Any, notices: list[Notice], path: str = "") -> Any:
    """Return a raw document without letters that no text has, which are replaced; every place of one is told."""
    if isinstance(raw, str) and has_odd(raw):
        place = path.strip("/")
        text = f"{shortened(place, 100)} held a letter that no text has, which was replaced"
        notices.append(Notice.of("document.odd_letter", place, text))
        return without_odd(raw, REPLACEMENT)
    if isinstance(raw, list):
        return [without_odd_letters(each, notices, f"{path}/{n}") for n, each in enumerate(raw)]
    if not isinstance(raw, dict):
        return raw
    return {
        without_odd_letters(key, notices, f"{path}/{key}"): without_odd_letters(each, notices, f"{path}/{key}")
        for key, each in raw.items()
    }


def without_flaws(raw: Raw, kind: type[Part]) -> tuple[Raw, list[Notice]]:
    """Return a raw document without what cannot be in it, and a notice for everything left out, in its order.

    Raises
    ------
    InputError : the document lacks what it cannot do without
    """
    notices: list[Notice] = []
    try:
        return _part(raw, kind, "", notices), notices
    except _WithoutWhatItNeedsError as lacking:
        raise InputError(f"{lacking} is missing", where="document", mend="take the file from a backup") from lacking


def _part(raw: Raw, kind: type[Part], path: str, notices: list[Notice]) -> Raw:
    notes, needed, mended = annotations_of(kind), _needed(kind), {}
    for name, value in raw.items():
        place = f"{path}/{name}" if path else name
        if name not in notes:
            text = f"{shortened(place, 100)} is no key of this format and was left out"
            notices.append(Notice.of("document.unknown_key", place, text))
            continue
        fits, kept = _value(value, notes[name], place, notices)
        if fits:
            mended[name] = kept
        elif name not in needed and _may_be_none(notes[name]):
            mended[name] = None
    for name in needed:
        if name not in mended:
            place = f"{path}/{name}" if path else name
            raise _WithoutWhatItNeedsError(place)
    return mended


def _value(value: Any, note: Any, place: str, notices: list[Notice]) -> tuple[bool, Any]:
    """Return whether a value can be kept, and what is kept of it; what is not is told."""
    part, element = _held(note)
    before = len(notices)
    try:
        if part is not None and isinstance(value, dict):
            value = _part(value, part, place, notices)
        elif element is not None and isinstance(value, list):
            return True, _elements(value, element, place, notices)
        msgspec.convert(value, note)
    except _WithoutWhatItNeedsError as lacking:
        del notices[before:]
        notices.append(
            Notice.of("document.part_left_out", str(lacking), f"{lacking} is missing; its part was left out")
        )
        return False, None
    except msgspec.ValidationError:
        text = f"{shortened(place, 100)} was {shortened(repr(value))} and was left out"
        notices.append(Notice.of("document.value_left_out", place, text))
        return False, None
    return True, value


def _elements(raw: list[Any], kind: type[Part], path: str, notices: list[Notice]) -> list[Any]:
    kept = []
    for place, element in enumerate(raw):
        fits, mended = _value(element, kind, f"{path}/{place}", notices)
        if fits:
            kept.append(mended)
    return kept


@cache
def _held(note: Any) -> tuple[type[Part] | None, type[Part] | None]:
    """Return the part that a field holds, or that its list holds, where it does."""
    for each in _plain(note):
        if isinstance(each, type) and issubclass(each, Part):
            return each, None
        inner = next(iter(get_args(each)), None) if get_origin(each) is tuple else None
        if isinstance(inner, type) and issubclass(inner, Part):
            return None, inner
    return None, None


def _plain(note: Any) -> tuple[Any, ...]:
    return get_args(note) if get_origin(note) in (Union, UnionType) else (note,)


@cache
def _may_be_none(note: Any) -> bool:
    return NoneType in _plain(note) and get_origin(note) is not Annotated


@cache
def _needed(kind: type[Part]) -> Mapping[str, None]:
    """Return the fields that a part cannot do without."""
    return {each.name: None for each in msgspec.structs.fields(kind) if each.required}
