"""Which words a metal or filler may state that a works adds, and the catalogue with it."""

from collections.abc import Iterable
from functools import cache, lru_cache

from anlage.core.catalogue import Catalogue, OwnWords, read_own
from anlage.data.tables import shipped_catalogue, vocabulary


@cache
def own_words() -> OwnWords:
    """Return the words of each column that has words of its own: those of the trade, and those of what ships."""
    trade, shipped = vocabulary().tokens, shipped_catalogue()
    metals = {
        "p_number": trade["p_number"], "iso15608_group": trade["iso15608_group"],
        "p_group": _of(row.group_number for row in shipped.p_numbers),
        "family": _of(row.family for row in shipped.base_metals),
    }  # fmt: skip
    fillers = {
        "f_number": trade["f_number"], "a_number": trade["a_number"], "processes": trade["process"],
        "currents": trade["current"], "progression": _of(word for row in shipped.fillers for word in row.progression),
        "hydrogen_class": _of(row.hydrogen_class for row in shipped.fillers),
        "positions": _of(row.positions for row in shipped.fillers),
        "comp_basis": _of(row.comp_basis for row in shipped.fillers),
        "api1104_group": _of(row.api1104_group for row in shipped.fillers),
    }  # fmt: skip
    return OwnWords(metals, fillers)


def _of(words: Iterable[str]) -> tuple[str, ...]:
    return tuple(sorted(set(words) - {""}))


@lru_cache(maxsize=4)
def catalogue_adding(metals: str, fillers: str) -> Catalogue:
    """Return the shipped catalogue with the metals and fillers of two tables, CSV, "" for none; the same for the same.

    Raises
    ------
    FormatError : a row cannot be read, does not say what it is or where that is from, or is called as another
    """
    own = read_own(metals, fillers, shipped_catalogue(), own_words())
    return shipped_catalogue().adding(own.base_metals, own.fillers)
