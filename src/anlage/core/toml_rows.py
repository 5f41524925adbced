"""Rows of a TOML table as typed values by their id, and whole TOML texts as one value."""

from collections.abc import Mapping
from types import MappingProxyType
from typing import Any, TypeVar

import msgspec
import rtoml

from anlage.core.errors import FormatError

AnyRow = TypeVar("AnyRow", bound=msgspec.Struct)


def rows_by_id(text: str, table: str, row: type[AnyRow], *, where: str) -> Mapping[str, AnyRow]:
    """Return the rows of one array of tables by their `id`, in their order.

    Raises
    ------
    FormatError : a row is not what it has to be, or an id comes twice
    """
    try:
        rows: list[Any] = msgspec.convert(rtoml.loads(text)[table], list[row])  # type: ignore[valid-type]
    except msgspec.ValidationError as fault:
        raise FormatError(str(fault), where=where, mend="mend the row") from fault
    found = {each.id: each for each in rows}
    if len(found) < len(rows):
        raise FormatError(f"a {table} comes twice", where=where, mend=f"keep one row a {table}")
    return MappingProxyType(found)


def whole_table(text: str, kind: type[AnyRow], *, where: str) -> AnyRow:
    """Return a whole TOML text as one typed value.

    Raises
    ------
    FormatError : it is no TOML, or a row is not what it has to be
    """
    try:
        return msgspec.convert(rtoml.loads(text), kind)
    except (msgspec.ValidationError, rtoml.TomlParsingError) as fault:
        raise FormatError(str(fault), where=where, mend="mend the row") from fault
