"""Marks of what is only proposed: gone with the leaf, with an edit of it, or once somebody confirms it."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from typing import Any

from anlage.core.document import Proposed, at, with_
from anlage.core.errors import AnlageError
from anlage.session.leaves.documents import AnyDocument
from anlage.session.leaves.names import named
from anlage.session.leaves.presence import has_leaf
from anlage.session.leaves.table import LISTS, field_of, fields


def after_edit(before: Any, after: AnyDocument) -> AnyDocument:
    """Return a document after an edit without the marks of leaves that it changed; the very same one for none.

    A mark that the edit itself brought, of a new proposal, stays.
    """
    if not after.proposed or after is before:
        return after
    gone = set(_gone(before, after))
    return without_marks(after, gone) if gone else after


def without_marks(value: AnyDocument, paths: Iterable[str]) -> AnyDocument:
    """Return a document in which some leaves are not only proposed any more: somebody stands for them."""
    gone = set(paths)
    kept = {path: mark for path, mark in value.proposed.items() if path not in gone}
    return value if len(kept) == len(value.proposed) else with_(value, proposed=kept)


def _gone(before: Any, after: Any) -> Iterator[str]:
    """Yield the marked leaves that are gone, or that differ under a mark that was there before."""
    heads = {path.split("/", 1)[0] for path in after.proposed}
    others = {head: _differing(before, after, head) for head in heads}
    old: Mapping[str, Proposed] = before.proposed
    for path, mark in after.proposed.items():
        head, _, rest = path.partition("/")
        if head in LISTS and rest.partition("/")[0] not in others[head]:
            continue
        if not others[head]:
            continue
        try:
            now = at(after, path)
        except AnlageError:
            yield path
            continue
        if old.get(path) is mark and (now is None or now != at(before, path)):
            yield path


def _differing(before: Any, after: Any, head: str) -> set[str]:
    """Return the elements of a list that are other objects, gone ones among them; of another part "" for itself."""
    one, other = getattr(before, head), getattr(after, head)
    if one is other:
        return set()
    if head not in LISTS:
        return {""}
    known = {each.id: each for each in one}
    now = {each.id: each for each in other}
    marked = {path.split("/")[1] for path in after.proposed if path.startswith(f"{head}/")}
    return {each for each in marked if each not in now or known.get(each) is not now[each]}


def with_marks_of(value: AnyDocument, one: str, other: str) -> AnyDocument:
    """Return a procedure in which a pass made after another one is proposed where that one is."""
    found = {path: mark for path, mark in value.proposed.items() if path.startswith(f"passes/{one}/")}
    copies = {f"passes/{other}/{path.rpartition('/')[2]}": mark for path, mark in found.items()}
    kept = {path: mark for path, mark in copies.items() if at(value, path) is not None}
    return with_(value, proposed={**value.proposed, **kept}) if kept else value


def known_marks(value: AnyDocument) -> tuple[str, ...]:
    """Return the leaves that are only proposed, without what a file marks that is no leaf of the document."""
    return tuple(path for path in value.proposed if _pattern(path) in fields() and has_leaf(value, path))


def _pattern(path: str) -> str:
    head, _, rest = path.partition("/")
    return f"{head}/*/{rest.partition('/')[2]}" if head in LISTS else path


def proposed_sentences(value: AnyDocument) -> tuple[str, ...]:
    """Return what is only proposed, a sentence for leaves that are so of the same passes, in their order."""
    numbers = {each.id: n for n, each in enumerate(getattr(value, "passes", ()), 1)}
    passes: dict[str, list[int]] = {}
    others: list[str] = []
    for path in known_marks(value):
        head, _, rest = path.partition("/")
        owner, _, leaf = rest.partition("/")
        if head == "passes" and owner in numbers:
            passes.setdefault(field_of(f"passes/*/{leaf}").label, []).append(numbers[owner])
        else:
            others.append(named(value, path))
    alike: dict[str, list[str]] = {}
    for label, own in passes.items():
        alike.setdefault(spans(sorted(own)), []).append(label)
    others += [f"{_listed(labels)} of pass {own}" for own, labels in alike.items()]
    return tuple(f"{each[0].upper()}{each[1:]}." for each in others)


def _listed(words: list[str]) -> str:
    *before, last = [word.lower() for word in words]
    return f"{', '.join(before)} and {last}" if before else last


def spans(numbers: Sequence[int]) -> str:
    """Return rising numbers in words.

    Examples
    --------
    >>> spans([1, 2, 3, 7])
    '1 to 3, 7'
    """
    found: list[list[int]] = []
    for n in numbers:
        if found and n == found[-1][1] + 1:
            found[-1][1] = n
        else:
            found.append([n, n])
    return ", ".join(f"{a}" if a == b else f"{a} to {b}" for a, b in found)
