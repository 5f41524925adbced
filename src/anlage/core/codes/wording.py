"""What a rule says, as one short fingerprint: a check of it holds for these words alone."""

from collections.abc import Mapping
from typing import Any

import msgspec

PROSE = frozenset({"title", "note", "source", "confidence"})  # says nothing that a verdict hangs on
LETTERS = 16


class Wording:
    """A rule as it is written; its fingerprint is taken when it is asked for, and a start asks for none."""

    __slots__ = ("_said", "_sets", "_table")

    def __init__(self, table: Mapping[str, Any], sets: Mapping[str, list[str]]) -> None:
        self._table, self._sets, self._said = table, sets, ""

    @property
    def said(self) -> str:
        """Its fingerprint."""
        self._said = self._said or said_by(self._table, self._sets)
        return self._said

    def __eq__(self, other: object) -> bool:
        """Whether another rule says the same."""
        return self is other or (isinstance(other, Wording) and self.said == other.said)

    def __hash__(self) -> int:
        """Return the hash of what it says."""
        return hash(self.said)


def said_by(table: Mapping[str, Any], sets: Mapping[str, list[str]]) -> str:
    """Return the fingerprint of a rule as it is written, with the lists that it names in place of their names.

    Examples
    --------
    >>> one = {"id": "r", "kind": "map", "map": {"a": "@both"}, "note": "of one wording"}
    >>> other = {"id": "r", "kind": "map", "map": {"a": ["b", "c"]}, "note": "of another"}
    >>> said_by(one, {"both": ["b", "c"]}) == said_by(other, {}), said_by(one, {"both": ["b"]}) == said_by(other, {})
    (True, False)
    """
    from hashlib import sha256  # noqa: PLC0415 - loaded when a check or an overlay is held to its rule: a start needs none

    decides = {key: _spelled(value, sets) for key, value in table.items() if key not in PROSE}
    return sha256(msgspec.json.encode(decides, order="sorted")).hexdigest()[:LETTERS]


def _spelled(value: Any, sets: Mapping[str, list[str]]) -> Any:
    if isinstance(value, Mapping):
        return {str(key): _spelled(each, sets) for key, each in value.items()}
    if isinstance(value, list):
        return [_spelled(each, sets) for each in value]
    if isinstance(value, str) and value.startswith("@"):
        return sets.get(value[1:], value)
    return value
