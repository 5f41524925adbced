"""Documents as JSON text: one writer, and two doors to read by.

The strict door takes a text that is exactly a document of the present version, or of a past one that migrates. The
mending door opens what it can and lists what it changed; a flaw in a file is a record, not an exception.
"""

import inspect
import json
import math
import re
from collections.abc import Callable, Mapping
from typing import Any, Generic

import msgspec
from msgspec import Struct, field

from anlage.core.document.fields import LARGEST as LARGEST_NUMBER
from anlage.core.document.mending import without_flaws, without_odd_letters
from anlage.core.document.model import OPEN_ENDS, AnyPart, Part, fields_of, refusal
from anlage.core.errors import FormatError, InputError, shortened
from anlage.core.letters import ODD
from anlage.core.ranges import Interval
from anlage.core.results import Notice

LARGEST = 20_000_000  # characters; a procedure of a thousand passes has half a million
MAY_BE_ODD = re.compile(f"{ODD.pattern}|\\\\u(00[01789]|d[89a-f]|fff)", re.IGNORECASE)
MOST_MENDS = 12  # rounds: mending one part can leave another without its home

Raw = dict[str, Any]


class DocumentKind(Struct, Generic[AnyPart], frozen=True):
    """One kind of document: its model, its `format`, the present `version`, and the step up from each past one."""

    model: type[AnyPart]
    format: str
    version: int
    migrations: Mapping[int, Callable[[Raw], Raw]] = field(default_factory=dict)
    mend: Callable[[Raw], list[Notice]] = lambda _: []  # mends what no single field is at fault for

    def schema(self) -> Raw:
        """Return the published JSON Schema."""
        schema = msgspec.json.schema(self.model)
        parts = schema["$defs"]
        parts.pop(Interval.__name__, None)  # written as a pair of numbers
        own = parts.pop(self.model.__name__)
        head = {
            "$schema": "https://json-schema.org/draft/2020-12/schema",
            "$id": f"{self.format}-{self.version}",
        }
        found: Raw = _tidied(head | own | {"$defs": parts})
        return found


def as_it_is(raw: Raw) -> Raw:
    """Return a raw document of a past version as one of the next, which can only state more."""
    return raw


def write(document: Part) -> str:
    """Return a document as JSON text: the keys in the order of the model, one trailing newline."""
    return json.dumps(_plain(document), ensure_ascii=False, allow_nan=False, indent=1) + "\n"


def _plain(value: Any) -> Any:
    """Return a value as JSON has it: a range as its two ends, a part as its keys in their order."""
    if isinstance(value, Part):
        return {name: _plain(getattr(value, name)) for name in fields_of(type(value))}
    if isinstance(value, Interval):  # an end that is not stated is null
        low = None if value.low_open else value.low
        return [low, None if value.high_open else value.high]
    if isinstance(value, tuple):
        return [_plain(each) for each in value]
    return {key: _plain(each) for key, each in value.items()} if isinstance(value, dict) else value


_SPAN: Raw = {"type": "array", "items": {"type": "number"}, "minItems": 2, "maxItems": 2}
_OPEN_SPAN: Raw = _SPAN | {"items": {"type": ["number", "null"]}}


def _tidied(schema: Any) -> Any:
    """Return a schema with ranges as files have them, and without bounds that say only that infinity is no number."""
    if isinstance(schema, list):
        return [_tidied(each) for each in schema]
    if not isinstance(schema, dict):
        return schema
    if schema.get("$ref") == f"#/$defs/{Interval.__name__}":
        return _OPEN_SPAN if OPEN_ENDS in schema else _SPAN
    bounds = ("minimum", "maximum")
    return {
        key: inspect.cleandoc(each) if key == "description" else _tidied(each)
        for key, each in schema.items()
        if not (key in bounds and isinstance(each, float) and abs(each) == LARGEST_NUMBER)
    }


def read_strict(text: str, kind: DocumentKind[AnyPart], *, where: str = "document") -> AnyPart:
    """Return the document that `text` is.

    Raises
    ------
    FormatError : the text is no JSON, another format, of a newer version, or a value cannot be
    """
    raw = _with_open_ends(_raw(text, kind, where))
    for odd in _without_odd_letters(text, raw)[1]:
        raise FormatError(odd.where, where=where, mend="leave out the letter that no text has")
    try:
        return msgspec.convert(raw, kind.model)
    except msgspec.ValidationError as found:
        fault = refusal(found, raw)
        raise FormatError(f"{fault.where}: {fault.what}", where=where, mend=fault.mend) from found


def read_mending(
    text: str, kind: DocumentKind[AnyPart], *, where: str = "document"
) -> tuple[AnyPart, tuple[Notice, ...]]:
    """Return what of `text` can be read, and a notice for everything left out, in the document's order.

    Raises
    ------
    FormatError : the text is no JSON, another format, or of a newer version: nothing can be read of it
    """
    raw, odd = _without_odd_letters(text, _with_open_ends(_raw(text, kind, where)))
    notices: dict[str, Notice] = {each.where: each for each in odd}
    for _ in range(MOST_MENDS):
        for notice in kind.mend(raw):
            notices.setdefault(notice.where, notice)
        try:
            return msgspec.convert(raw, kind.model), tuple(notices.values())
        except msgspec.ValidationError:
            raw, told = _without_flaws(raw, kind, where)
            for notice in told:
                notices.setdefault(notice.where, notice)
    raise FormatError("nothing sensible is left after mending", where=where, mend="take the file from a backup")


def _raw(text: str, kind: DocumentKind[Any], where: str) -> Raw:
    if len(text) > LARGEST:
        raise FormatError(f"{len(text)} characters are no {kind.format}", where=where, mend="take another file")
    try:
        raw = json.loads(text, parse_constant=_no_constant, object_pairs_hook=_no_twins)
    except InputError as fault:
        raise FormatError(fault.what, where=where, mend=fault.mend) from fault
    except (ValueError, RecursionError) as fault:  # no JSON, a number of thousands of digits, brackets without end
        line = getattr(fault, "lineno", None)
        place = f"line {line}: " if line else ""
        raise FormatError(f"{place}no JSON", where=where, mend="take a file that Anlage wrote") from fault
    if not isinstance(raw, dict) or raw.get("format") != kind.format:
        found = shortened(str(raw.get("format"))) if isinstance(raw, dict) else "none"
        raise FormatError(f"the format is {found}", where=where, mend=f"take a file of format {kind.format}")
    return _migrated(raw, kind, where)


def _with_open_ends(raw: Any) -> Any:
    """Return a raw document with ranges of which one end is null as ranges without it, where their field has such."""
    if isinstance(raw, dict):
        return {key: _with_open_ends(each) for key, each in raw.items()}
    if not isinstance(raw, list):
        return raw
    if len(raw) == 2 and None in raw and raw != [None, None]:
        low, high = raw
        return [low, math.inf] if high is None else [0.0, high, True]
    return [_with_open_ends(each) for each in raw]


def _without_odd_letters(text: str, raw: Raw) -> tuple[Raw, list[Notice]]:
    notices: list[Notice] = []
    if MAY_BE_ODD.search(text):
        raw = without_odd_letters(raw, notices)
    return raw, notices


def _migrated(raw: Raw, kind: DocumentKind[Any], where: str) -> Raw:
    version = raw.get("version")
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        raise FormatError(f"{version!r:.20} is no version", where=where, mend="write the version as a number")
    if version > kind.version:
        what = f"version {version} is newer than {kind.version}, the newest this Anlage knows"
        raise FormatError(what, where=where, mend="open it with a newer Anlage")
    while version < kind.version:
        raw = kind.migrations[version](raw)
        version += 1
        raw["version"] = version
    return raw


def _no_constant(name: str) -> float:
    raise InputError(f"{name} is no number of JSON", where="document", mend="write null for what is not stated")


def _no_twins(pairs: list[tuple[str, Any]]) -> Raw:
    found: Raw = {}
    for key, value in pairs:
        if key in found:
            raise InputError(f"the key {shortened(key)} comes twice", where="document", mend="keep one of them")
        found[key] = value
    return found


def _without_flaws(raw: Raw, kind: DocumentKind[Any], where: str) -> tuple[Raw, list[Notice]]:
    try:
        return without_flaws(raw, kind.model)
    except InputError as fault:
        raise FormatError(fault.what, where=where, mend=fault.mend) from fault
