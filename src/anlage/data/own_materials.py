"""Which words a metal or filler may state that a works adds, and the catalogue with it."""

from collections.abc import Iterable, Mapping
from functools import cache, lru_cache

from anlage.core.catalogue import Catalogue, Iso15608Group, OwnKinds, OwnWords, read_own
from anlage.core.toml_rows import rows_by_id, whole_table
from anlage.data.files import text_of
from anlage.data.tables import shipped_catalogue, vocabulary

KINDS = "own_materials.toml"


@cache
def iso15608_groups() -> Mapping[str, Iso15608Group]:
    """Return the groups of ISO/TR 15608 by their number."""
    name = "iso15608_groups.toml"
    return rows_by_id(text_of(name), "group", Iso15608Group, where=name)


@cache
def own_words() -> OwnWords:
    """Return the words of each column that has words of its own: those of the trade, and those of what ships."""
    trade, shipped = vocabulary().tokens, shipped_catalogue()
    metals = {
        "p_number": trade["p_number"], "iso15608_group": tuple(iso15608_groups()),
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
    numbered = frozenset(
        (*((row.p_number, row.group_number) for row in shipped.p_numbers),
         *((row.p_number, row.p_group) for row in shipped.base_metals))
    )  # fmt: skip
    kinds = whole_table(text_of(KINDS), OwnKinds, where=KINDS)
    return OwnWords(metals, fillers, iso15608_groups(), kinds, numbered)


def _of(words: Iterable[str]) -> tuple[str, ...]:
    return tuple(sorted(set(words) - {""}))


@lru_cache(maxsize=4)
def catalogue_adding(metals: str, fillers: str) -> Catalogue:
    """Return the shipped catalogue with the metals and fillers of two tables, CSV, "" for none; the same for the same.

    Raises
    ------
    FormatError : a row cannot be read, does not say what it is or where that is from, or is called as another
    """
    if not metals and not fillers:
        return shipped_catalogue()
    own = read_own(metals, fillers, shipped_catalogue(), own_words())
    return shipped_catalogue().adding(own.base_metals, own.fillers)
