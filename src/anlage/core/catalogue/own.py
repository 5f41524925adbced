"""Metals and fillers that a works adds to the catalogue: read in its columns, and refused where nobody could use them.

A row may leave out columns, never what says where it is from. No row may be called as one that ships: two rows of one
metal would be two truths.
"""

import csv
from collections.abc import Callable, Collection, Iterable, Mapping
from io import StringIO
from typing import Literal

from msgspec import Struct
from msgspec.structs import fields

from anlage.core.catalogue.catalogue import Catalogue
from anlage.core.catalogue.names import filler_key, metal_key
from anlage.core.catalogue.rows import ELEMENTS, AnyRow, BaseMetal, Filler, Row, read_rows
from anlage.core.errors import FormatError, UnknownNameError, closest

AT_THE_END = ("confidence", "weaker_fields", "source")


def _columns(row: type[Row], elements: Iterable[str]) -> tuple[str, ...]:
    own = [each.name for each in fields(row) if each.name not in (*AT_THE_END, "composition")]
    return (*own, *elements, *AT_THE_END)


METAL_COLUMNS = _columns(BaseMetal, ELEMENTS)
FILLER_COLUMNS = _columns(Filler, map(str.lower, ELEMENTS))
MOST_MPA = 2500.0  # no metal that is welded is specified stronger
MPA_PER_KSI = 6.894757
SAME_CLASS = 0.05  # a class of 60 ksi is one of 430 MPa, 3.8 % apart: the two systems round by themselves
# What a number of a filler can be at all, common practice, no source: those that ship lie well within.
PLAUSIBLE = {"density_g_cm3": (1.5, 12.0), "deposition_efficiency_percent": (30.0, 100.0)}
RESERVED = ("none", "no", "without")  # words by which a document says that it has no filler
LISTED_BY_CODE = ("d1_1_group",)  # the code lists its metals itself: what is not in its list is unlisted

Words = Mapping[str, Collection[str]]


class Iso15608Group(Struct, frozen=True, forbid_unknown_fields=True):
    """A group of ISO/TR 15608 and, where it is one of strength, the specified yield of its metals [MPa]."""

    id: str
    confidence: Literal["H", "M", "L"]
    yield_above_mpa: float = 0.0
    yield_to_mpa: float = MOST_MPA

    def holds(self, yield_mpa: float) -> bool:
        """Whether a metal of some specified yield can be of it."""
        return self.yield_above_mpa < yield_mpa <= self.yield_to_mpa


class MetalKind(Struct, frozen=True, forbid_unknown_fields=True):
    """A kind of metals, such as austenitic steel, and what each system calls it."""

    id: str
    p_numbers: frozenset[str]
    groups: frozenset[str]
    families: frozenset[str]


class FillerKind(Struct, frozen=True, forbid_unknown_fields=True):
    """F-Numbers, of all or of some A-Numbers, and the processes that such a filler is made for."""

    f_numbers: frozenset[str]
    processes: frozenset[str]
    a_numbers: frozenset[str] = frozenset()


class OwnKinds(Struct, frozen=True, forbid_unknown_fields=True):
    """What is stated of a metal or a filler in several systems, and has to agree."""

    source: str
    confidence: Literal["H", "M", "L"]
    kind: tuple[MetalKind, ...]
    filler: tuple[FillerKind, ...]


class OwnWords(Struct, frozen=True):
    """Of each column that has words of its own, all of them: `p_number`, `f_number`; and what has to agree of a row.

    `numbered` are P-Numbers with their groups, as the code lists them.
    """

    metals: Words
    fillers: Words
    groups: Mapping[str, Iso15608Group]
    kinds: OwnKinds
    numbered: frozenset[tuple[str, str]]


class Own(Struct, frozen=True):
    """What a works adds: base metals and fillers, each a row as in the shipped table."""

    base_metals: tuple[BaseMetal, ...] = ()
    fillers: tuple[Filler, ...] = ()


def read_own(metals: str, fillers: str, shipped: Catalogue, words: OwnWords) -> Own:
    """Return the metals and fillers of a works.

    Parameters
    ----------
    metals, fillers : CSV in the columns of the shipped tables, "" for none
    shipped : what they are added to
    words : what may be stated where not everything may

    Raises
    ------
    FormatError : a row cannot be read, does not say what it is or where that is from, or is called as another
    """
    own = Own(_read(metals, BaseMetal, METAL_COLUMNS, "base metals"), _read(fillers, Filler, FILLER_COLUMNS, "fillers"))
    for metal in own.base_metals:
        _check_words(metal, words.metals, metal.id)
        _check_metal(metal)
        _check_group(metal, words.groups)
        _check_kind(metal, words)
    for filler in own.fillers:
        _check_words(filler, words.fillers, filler.classification)
        _check_filler(filler)
        _check_number(filler, words.kinds)
    _check_names([each.id for each in own.base_metals], metal_key, lambda name: bool(shipped.metal_group(name)))
    _check_names([each.classification for each in own.fillers], filler_key, lambda name: bool(shipped.filler(name)))
    return own


def _read(text: str, row: type[AnyRow], columns: tuple[str, ...], where: str) -> tuple[AnyRow, ...]:
    """Return the rows of a table in which columns may be missing."""
    if not text.strip():
        return ()
    head, _, rest = text.lstrip("\ufeff\r\n").partition("\n")
    names = [name.strip() for name in next(csv.reader(StringIO(head)))]
    for name in names:
        if name not in columns:
            close = closest(name, columns)
            mend = f"write {close[0]}" if close else "name it as a saved table does, or leave it out"
            raise FormatError(f"no column {name or 'without a name'}", where=where, mend=mend)
    if twice := [name for name in names if names.count(name) > 1]:
        raise FormatError(f"two columns {twice[0]}", where=where, mend="leave one of them out")
    for number, line in enumerate(csv.reader(StringIO(rest)), 2):
        if len(line) > len(names):
            raise FormatError(
                f"{len(line)} cells under {len(names)} columns", where=f"{where} line {number}",
                mend="put a text with commas between quotes",
            )  # fmt: skip
    missing = [name for name in columns if name not in names]
    found = read_rows(f"{','.join([*names, *missing])}\n{rest}", row, where=where)
    key = "classification" if row is Filler else "id"
    for each in found:
        for needed in (key, "source"):
            if not getattr(each, needed).strip():
                name = getattr(each, key) or where
                raise FormatError(f"no {needed} is stated", where=name, mend="say what it is and where that is from")
    return found


def _check_words(row: BaseMetal | Filler, words: Words, name: str) -> None:
    for column, known in words.items():
        stated = getattr(row, column, "")
        for word in (stated,) if isinstance(stated, str) else stated:
            if word and word not in known:
                close = closest(word, known)
                mend = f"write {close[0]}" if close else "leave it blank"
                raise FormatError(f"no {column} {word}", where=name, mend=mend)


def _check_metal(metal: BaseMetal) -> None:
    for column in LISTED_BY_CODE:
        if getattr(metal, column):
            what = f"{column} is stated, and that code lists its metals itself"
            raise FormatError(what, where=metal.id, mend="leave it blank: the metal is unlisted there")
    _check_strengths((metal.smys_mpa, metal.smts_mpa, metal.smts_max_mpa), metal.id)
    _check_composition(metal.composition, metal.id)


def _check_filler(filler: Filler) -> None:
    name = filler.classification
    if not filler.processes:
        raise FormatError("no process is stated", where=name, mend="state it in processes")
    _check_strengths((filler.smys_mpa, filler.smts_mpa), name)
    _check_composition(filler.composition, name)
    for column, ksi, mpa in (("smts", filler.smts_ksi, filler.smts_mpa), ("smys", filler.smys_ksi, filler.smys_mpa)):
        if ksi is not None and mpa is not None and abs(ksi * MPA_PER_KSI / mpa - 1) > SAME_CLASS:
            what = f"{column} is {ksi:g} ksi, but {mpa:g} MPa is stated"
            raise FormatError(what, where=name, mend="state the two of one class, or one of them")
    for column, (least, most) in PLAUSIBLE.items():
        stated = getattr(filler, column)
        if stated is not None and not least <= stated <= most:
            raise FormatError(f"{column} is {stated:g}", where=name, mend=f"state {least:g} to {most:g}")


def _check_strengths(strengths: tuple[float | None, ...], name: str) -> None:
    stated = [each for each in strengths if each is not None]
    if stated != sorted(stated) or any(not 0 < each <= MOST_MPA for each in stated):
        what = f"strengths {', '.join(f'{each:g}' for each in stated)} MPa"
        raise FormatError(what, where=name, mend="state yield, then tensile strength, each the higher")


def _check_composition(shares: Mapping[str, float], name: str) -> None:
    if any(share < 0 for share in shares.values()) or sum(shares.values()) > 100:
        raise FormatError("shares add up to no composition", where=name, mend="state per cent by mass")


def _check_group(metal: BaseMetal, groups: Mapping[str, Iso15608Group]) -> None:
    """Refuse a yield that is none of the stated group: one of the two is wrong, and both are judged by."""
    group, stated = groups.get(metal.iso15608_group), metal.smys_mpa
    if group is not None and stated is not None and not group.holds(stated):
        what = f"a yield of {stated:g} MPa is none of group {group.id}"
        raise FormatError(what, where=metal.id, mend="state the group of that yield, or the yield of that group")


def _check_kind(metal: BaseMetal, words: OwnWords) -> None:
    """Refuse a metal that is of one kind by one system and of another by the next, or of no group of its P-Number.

    Every system is judged by, each by another code: none of them may say what the others contradict.
    """
    said = {
        "p_number": (metal.p_number, {each.id for each in words.kinds.kind if metal.p_number in each.p_numbers}),
        "iso15608_group": (
            metal.iso15608_group,
            {each.id for each in words.kinds.kind if metal.iso15608_group.partition(".")[0] in each.groups},
        ),
        "family": (metal.family, {each.id for each in words.kinds.kind if metal.family in each.families}),
    }
    known = [(column, word, kinds) for column, (word, kinds) in said.items() if kinds]
    if known and not set.intersection(*(kinds for _, _, kinds in known)):
        what = ", ".join(f"{column} {word} is {' or '.join(sorted(kinds))}" for column, word, kinds in known)
        raise FormatError(what, where=metal.id, mend="state one kind of metal")
    if metal.p_group and (metal.p_number, metal.p_group) not in words.numbered:
        what = f"p_group {metal.p_group} is none of P-{metal.p_number}" if metal.p_number else "p_group has no p_number"
        raise FormatError(what, where=metal.id, mend="state both as the code lists them, or leave the group blank")


def _check_number(filler: Filler, kinds: OwnKinds) -> None:
    """Refuse an F-Number that is none of the processes, or of the analysis, that the filler is stated for."""
    for kind in kinds.filler:
        if filler.f_number in kind.f_numbers and not kind.a_numbers and not set(filler.processes) <= kind.processes:
            what = f"F-{filler.f_number} is no filler for {', '.join(sorted({*filler.processes} - kind.processes))}"
            raise FormatError(what, where=filler.classification, mend="state the F-Number of that process")
        if filler.a_number in kind.a_numbers and filler.f_number and filler.f_number not in kind.f_numbers:
            what = f"A-{filler.a_number} is no analysis of F-{filler.f_number}"
            raise FormatError(what, where=filler.classification, mend="state the two that go together")


def _check_names(names: Iterable[str], key_of: Callable[[str], str], is_known: Callable[[str], bool]) -> None:
    seen: set[str] = set()
    for name in names:
        if key_of(name) in seen:
            raise FormatError("two rows are called so", where=name, mend="leave one of them out")
        if name.strip().casefold() in RESERVED:
            raise FormatError(f"{name} says that there is none", where=name, mend="name it otherwise")
        seen.add(key_of(name))
        try:
            known = is_known(name)
        except UnknownNameError:
            known = False
        if known:
            raise FormatError("the catalogue has one called so", where=name, mend="leave it out, or name it otherwise")
