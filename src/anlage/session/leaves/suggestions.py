"""What a field offers while someone types: names of the catalogue and words of the vocabulary."""

from collections.abc import Sequence
from functools import lru_cache

from anlage.core.catalogue import Catalogue
from anlage.core.catalogue.names import metal_key
from anlage.data.tables import catalogue, vocabulary
from anlage.session.leaves.table import Field


def suggestions(field: Field) -> tuple[str, ...]:
    """Return the words that a field offers, none for free text."""
    if field.catalogue:
        return _names(field.catalogue, catalogue())
    if field.vocabulary and field.shape == "text":
        return tuple(vocabulary().tokens[field.vocabulary])
    return ()


def matching(words: Sequence[str], text: str) -> tuple[str, ...]:
    """Return the words that a text could become, those that begin with it first; blanks and dashes do not count.

    Examples
    --------
    >>> matching(("A335-P11", "A335-P1", "A36"), "SA-335 P1"), matching(("E7018", "E7018-1"), "701")
    (('A335-P11', 'A335-P1'), ('E7018', 'E7018-1'))
    """
    sought = metal_key(text)
    if not sought:
        return ()
    keys = [(metal_key(word), word) for word in words]
    beginning = [word for key, word in keys if key.startswith(sought)]
    return (*beginning, *(word for key, word in keys if sought in key and not key.startswith(sought)))


@lru_cache(maxsize=16)
def _names(table: str, known: Catalogue) -> tuple[str, ...]:
    rows = getattr(known, table)
    key = "classification" if table == "fillers" else "id"
    return tuple(dict.fromkeys(getattr(row, key) for row in rows))
