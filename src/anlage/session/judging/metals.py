"""The groups of the metals that a document joins, by name or as stated, and whether its filler is known."""

from anlage.core.catalogue import MetalGroup
from anlage.core.errors import UnknownNameError
from anlage.core.procedure import Metal, Metals
from anlage.data.tables import catalogue


def metals_of(metals: Metals) -> tuple[MetalGroup, ...]:
    """Return the groups of both sides of a joint; none when one of them is not stated or not known."""
    found = [group_of(each) for each in (metals.one, metals.other or metals.one)]
    return tuple(each for each in found if each is not None) if None not in found else ()


def group_of(metal: Metal) -> MetalGroup | None:
    """Return the group of a metal: by its name, and as stated where the catalogue says nothing of it.

    What is stated against the name is a clash, told apart; `None` when neither is known.
    """
    stated = {"p_number": metal.p_number or "", "group_number": metal.group_number or ""}
    if metal.name:
        try:
            known = catalogue().metal_group(metal.name)
        except UnknownNameError:
            pass
        else:
            return known if known.group("p_number") or not metal.p_number else _as_stated(stated)
    return _as_stated(stated) if metal.p_number else None


def _as_stated(groups: dict[str, str]) -> MetalGroup:
    return MetalGroup(f"P-{groups['p_number']}", groups, "H", "as stated")


def is_known_filler(name: str | None) -> bool:
    """Return whether the catalogue has a filler, or the weld is said to be without."""
    if not name:
        return False
    try:
        return name.casefold() == "none" or bool(catalogue().filler(name))
    except UnknownNameError:
        return False


def is_without(name: str | None) -> bool:
    """Return whether a weld is said to be without filler metal."""
    return (name or "").casefold() == "none"
