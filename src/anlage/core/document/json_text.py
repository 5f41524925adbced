"""Documents as JSON text: one writer, and two doors to read by.

The strict door takes a text that is exactly a document of the present version, or of a past one that migrates. The
mending door opens what it can and lists what it changed; a flaw in a file is a record, not an exception.
"""

import json
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any, Generic

from pydantic import ValidationError

from anlage.core.document.model import AnyPart, Part, refusal
from anlage.core.errors import FormatError, InputError, shortened
from anlage.core.results import Notice

LARGEST = 20_000_000  # characters; a procedure of a thousand passes has half a million
MOST_MENDS = 10_000

Raw = dict[str, Any]


@dataclass(frozen=True)
class DocumentKind(Generic[AnyPart]):
    """One kind of document: its model, its `format`, the present `version`, and the step up from each past one."""

    model: type[AnyPart]
    format: str
    version: int
    migrations: Mapping[int, Callable[[Raw], Raw]] = field(default_factory=dict)
    mend: Callable[[Raw], list[Notice]] = lambda _: []  # mends what no single field is at fault for

    def schema(self) -> Raw:
        """Return the published JSON Schema."""
        schema = self.model.model_json_schema(mode="serialization")
        return {
            "$schema": "https://json-schema.org/draft/2020-12/schema",
            "$id": f"{self.format}-{self.version}",
        } | schema


def write(document: Part) -> str:
    """Return a document as JSON text: the keys in the order of the model, one trailing newline."""
    return json.dumps(document.model_dump(mode="json"), ensure_ascii=False, allow_nan=False, indent=1) + "\n"


def read_strict(text: str, kind: DocumentKind[AnyPart], *, where: str = "document") -> AnyPart:
    """Return the document that `text` is.

    Raises
    ------
    FormatError : the text is no JSON, another format, of a newer version, or a value cannot be
    """
    raw = _raw(text, kind, where)
    try:
        return kind.model.model_validate(raw)
    except ValidationError as faults:
        fault = refusal(faults)
        raise FormatError(f"{fault.where}: {fault.what}", where=where, mend=fault.mend) from faults


def read_mending(
    text: str, kind: DocumentKind[AnyPart], *, where: str = "document"
) -> tuple[AnyPart, tuple[Notice, ...]]:
    """Return what of `text` can be read, and a notice for everything left out, in the document's order.

    Raises
    ------
    FormatError : the text is no JSON, another format, or of a newer version: nothing can be read of it
    """
    raw = _raw(text, kind, where)
    notices: dict[str, Notice] = {}
    for _ in range(MOST_MENDS):
        for notice in kind.mend(raw):
            notices.setdefault(notice.where, notice)
        try:
            return kind.model.model_validate(raw), tuple(notices.values())
        except ValidationError as faults:
            for fault in reversed(faults.errors(include_url=False)):
                notice = _mended(raw, fault)
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


def _mended(raw: Raw, fault: Any) -> Notice:
    """Take out of `raw` what a fault names, or state it as not stated; return what was done."""
    path: list[Any] = [step for step in fault["loc"] if isinstance(step, str | int)]
    if not path:
        raise FormatError(str(fault["msg"]), where="document", mend="take the file from a backup")
    holder, key = _holder(raw, path)
    place = "/".join(map(str, path))
    value = shortened(repr(holder.get(key) if isinstance(holder, dict) else holder[key])) if _has(holder, key) else ""
    if isinstance(holder, list):
        del holder[key]
    elif fault["type"] == "missing" or not _has(holder, key):
        return _drop(raw, path, place)
    elif fault["type"] == "extra_forbidden":
        del holder[key]
        return Notice("document.unknown_key", place, f"{place} is no key of this format and was left out")
    elif holder[key] is None:
        del holder[key]
    else:
        holder[key] = None
    return Notice("document.value_left_out", place, f"{place} was {value} and was left out")


def _drop(raw: Raw, path: list[Any], place: str) -> Notice:
    """Take out the nearest whole part that cannot do without what is missing."""
    while path:
        holder, key = _holder(raw, path)
        if _has(holder, key):
            del holder[key]
            return Notice("document.part_left_out", place, f"{place} is missing; its part was left out")
        path = path[:-1]
    raise FormatError(f"{place} is missing", where="document", mend="take the file from a backup")


def _holder(raw: Raw, path: Iterable[Any]) -> tuple[Any, Any]:
    *steps, key = path
    holder: Any = raw
    for step in steps:
        if not _has(holder, step):
            break
        holder = holder[step]
    return holder, key


def _has(holder: Any, key: Any) -> bool:
    if isinstance(holder, list):
        return isinstance(key, int) and -len(holder) <= key < len(holder)
    return isinstance(holder, dict) and key in holder
