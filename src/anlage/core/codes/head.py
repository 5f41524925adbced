"""The head of a code pack: identity, categories, demands, named sets, what is derived, how records combine."""

import re
from collections.abc import Callable, Iterable, Iterator, Mapping
from typing import Annotated, Any

import msgspec
import rtoml
from msgspec import Meta, Struct

from anlage.core.codes.a_number import read_a_numbers
from anlage.core.codes.classes import Classes, WrittenClasses, read_classes
from anlage.core.codes.derive import Derivation, Derivations, HeatTreatment, read_lower_transformations
from anlage.core.codes.listed_metals import Listing, read_listing
from anlage.core.codes.names import Names
from anlage.core.codes.pack import Category, DemandKind
from anlage.core.codes.written import (
    WrittenBorrow,
    WrittenHead,
    WrittenPairs,
    WrittenTolerance,
    WrittenUnion,
    fault_of,
)
from anlage.core.errors import FormatError, InputError, closest

FILE = "pack.toml"
_ROW_TABLES = ("rule", "specimens", "detail")  # in any file
_TABLES = {"pack", "combination", "category", "demand", "sets", "derive", "heat_treatment", "words", "tolerance",
           "class",
           *_ROW_TABLES}  # fmt: skip
_NEEDED = ("code", "name", "title", "editions", "processes", "source")


class PackText(Struct, frozen=True):
    """One file of a pack: its name, its lines, and what they say."""

    name: str
    lines: tuple[str, ...]
    starts: tuple[int, ...]  # the line of every row, table by table
    before: Mapping[str, int]  # how many of the starts stand before those of a table
    raw: Mapping[str, Any]

    @classmethod
    def of(cls, name: str, text: str) -> "PackText":
        """Return a file of a pack.

        Raises
        ------
        FormatError : the text is no TOML
        """
        try:
            raw = rtoml.loads(text)
        except (rtoml.TomlParsingError, RecursionError) as fault:
            raise FormatError(f"no TOML: {fault}", where=name, mend="mend the line") from fault
        lines = tuple(text.splitlines())
        heads = [(n, line.lstrip()) for n, line in enumerate(lines, 1) if "[[" in line]
        starts: list[int] = []
        before = {}
        for table in _ROW_TABLES:
            before[table] = len(starts)
            starts += [n for n, line in heads if line.startswith(f"[[{table}]]")]
        return cls(name, lines, tuple(starts), before, raw)

    def rows(self, table: str) -> Iterator[tuple[int, Any]]:
        """Yield the rows of a table, each with which of the starts is its own."""
        found = self.raw.get(table, [])
        yield from enumerate(found if isinstance(found, list) else [found], self.before[table])

    def line(self, key: str = "", *, rule: int | None = None) -> int:
        """Return the line of a key or else of a word in a rule, or of the rule itself; without one, in the file."""
        start = 1 if rule is None or rule >= len(self.starts) else self.starts[rule]  # rules may stand inline
        if not key:
            return start
        following = [n for n in self.starts if rule is not None and n > start]
        end = min(following, default=len(self.lines) + 1)
        name = re.escape(key)
        headed = rf"^\[+{name}\]"
        keyed, quoted = rf"(?:^|[\s{{,\"'.]){name}[\"']?\s*[=.]", rf"[\"']{name}[\"']"
        found = (n for way in (headed, keyed, quoted) for n in range(start, end) if re.search(way, self.lines[n - 1]))
        return next(found, start)

    def fault(self, what: str, mend: str, key: str = "", *, rule: int | None = None) -> FormatError:
        """Return a refusal that names file and line."""
        return FormatError(what, where=f"{self.name} line {self.line(key, rule=rule)}", mend=mend)

    def only(self, table: Mapping[str, Any], allowed: Iterable[str], of: str, *, rule: int | None = None) -> None:
        """Refuse what is no table, or one with a key that it cannot have.

        Raises
        ------
        FormatError : it is none, or there is such a key
        """
        known = sorted(set(allowed))
        if not isinstance(table, dict):
            raise self.fault(
                f"{of} is {table}", f"write {{{known[0]} = …}}; known are {', '.join(known)}", of, rule=rule
            )
        for key in table:
            if key not in known:
                close = closest(key, known)
                mend = f"write {close[0]}" if close else f"known are {', '.join(known)}"
                raise self.fault(f"{of} has no key {key}", mend, key, rule=rule)


class Head(Struct, frozen=True, kw_only=True):
    """What a pack says of itself, apart from its rules."""

    text: PackText
    pack: WrittenHead
    categories: tuple[Category, ...]
    demands: tuple[DemandKind, ...]
    sets: Mapping[str, list[str]]
    derive: Derivations
    combination: tuple[WrittenUnion | WrittenPairs | WrittenBorrow, ...]
    tolerances: Mapping[str, Mapping[str, WrittenTolerance]]  # of details, by name and dimension


def read_head(texts: Mapping[str, PackText], names: Names) -> Head:
    """Return the head of a pack from its files.

    Raises
    ------
    FormatError : there is none, or something in it is missing or not what it has to be; file and line are named
    """
    if FILE not in texts:
        raise FormatError("it has no head", where=FILE, mend="write [pack] into it")
    text = texts[FILE]
    text.only(text.raw, _TABLES, "a pack")
    head = text.raw.get("pack", {})
    for key in _NEEDED:
        if isinstance(head, dict) and not head.get(key):
            raise text.fault(f"[pack] has no {key}", f"state {key}")
    pack: WrittenHead = _converted(text, "pack", WrittenHead, {})
    return Head(
        text=text,
        pack=pack,
        categories=_converted(text, "category", Annotated[tuple[Category, ...], Meta(min_length=1)], []),
        demands=_converted(text, "demand", tuple[DemandKind, ...], []),
        sets=_converted(text, "sets", dict[str, list[str]], {}),
        derive=_derivations(text, texts, pack, names),
        tolerances=_converted(text, "tolerance", dict[str, dict[str, WrittenTolerance]], {}),
        combination=_converted(text, "combination", tuple[WrittenUnion | WrittenPairs | WrittenBorrow, ...], []),
    )


def _converted(text: PackText, key: str, kind: Any, otherwise: Any) -> Any:
    table = text.raw.get(key, otherwise)
    what, own = fault_of(table, kind)
    if what:
        raise text.fault(f"[{key}] {own}: {what}" if own else f"[{key}]: {what}", "mend it", own or key)
    return msgspec.convert(table, kind)


def _derivations(text: PackText, texts: Mapping[str, PackText], pack: WrittenHead, names: Names) -> Derivations:
    rows = _converted(text, "derive", tuple[Derivation, ...], [])
    treatment: HeatTreatment | None = _converted(text, "heat_treatment", HeatTreatment | None, None)
    analysis = next((row.analysis for row in rows if row.analysis), "")
    limits = treatment.limits if treatment else ""
    return Derivations(
        rows,
        treatment,
        _table(text, texts, limits, read_lower_transformations),
        _table(text, texts, analysis, read_a_numbers),
        _table(text, texts, pack.metals, lambda rows: read_listing(rows, names.units)) or Listing(),
        _classes(text, names),
        _converted(text, "words", dict[str, dict[str, tuple[str, ...]]], {}),
    )


def _classes(text: PackText, names: Names) -> tuple[Classes, ...]:
    written = _converted(text, "class", tuple[WrittenClasses, ...], [])
    try:
        return tuple(read_classes(written, names.kind, names.units))
    except InputError as fault:
        raise text.fault(fault.what, fault.mend, "class") from fault


def _table(text: PackText, texts: Mapping[str, PackText], name: str, read: Callable[[Any], Any]) -> Any:
    """Return the rows of a table beside the head; none where it names no table."""
    if not name:
        return ()
    if name not in texts:
        raise text.fault(f"there is no table {name}", "put it beside pack.toml", name)
    try:
        return read(texts[name].raw.get("row"))
    except (msgspec.ValidationError, InputError) as fault:
        raise texts[name].fault(str(fault), "mend the row") from fault
