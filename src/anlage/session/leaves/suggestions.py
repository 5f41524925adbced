"""What a field offers while someone types: names of the catalogue and words of the vocabulary."""

from functools import cache

from anlage.data.tables import catalogue, vocabulary
from anlage.session.leaves.table import Field


def suggestions(field: Field) -> tuple[str, ...]:
    """Return the words that a field offers, none for free text."""
    if field.catalogue:
        return _names(field.catalogue)
    if field.vocabulary and field.shape == "text":
        return tuple(vocabulary().tokens[field.vocabulary])
    return ()


@cache
def _names(table: str) -> tuple[str, ...]:
    rows = getattr(catalogue(), table)
    key = "classification" if table == "fillers" else "id"
    return tuple(dict.fromkeys(getattr(row, key) for row in rows))
