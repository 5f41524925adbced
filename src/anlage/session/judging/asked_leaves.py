"""Which leaves the codes of a document have a use for: a time between beads that one code limits, others never read."""

from functools import cache

from anlage.core.codes import Pack
from anlage.core.codes.asking import asks
from anlage.core.codes.kinds import Declared
from anlage.core.errors import AnlageError
from anlage.core.procedure import Header
from anlage.data.code_packs import code_pack
from anlage.data.tables import variables
from anlage.session.judging.pieces import is_told_apart

# Leaves that few codes ask for: whoever works by others need not see them.
OF_FEW = frozenset((
    "header/loading", "header/strength", "header/weld_class", "technique/root_to_second_min",
    "technique/second_to_rest_min", "technique/clamp",
    *(each.declared for each in variables().values() if each.declared),
))  # fmt: skip


def asked_leaves(header: Header) -> frozenset[str]:
    """Return those of `OF_FEW` that a code of a document asks for; all of them where one is not known or none named."""
    if not header.codes:
        return OF_FEW
    found: set[str] = set()
    for code in header.codes:
        pack = _pack_of(code)
        if pack is None:
            return OF_FEW
        found |= _of_pack(pack.code)
    return frozenset(found)


def reads_pieces(header: Header) -> bool:
    """Return whether a code of a document tells the test pieces of a record apart."""
    return any(pack is not None and is_told_apart(pack) for pack in map(_pack_of, header.codes))


def _pack_of(code: str) -> Pack | None:
    try:
        return code_pack(code.partition(":")[0].strip().lower())
    except AnlageError:
        return None


@cache
def _of_pack(code: str) -> frozenset[str]:
    pack = code_pack(code)
    rows = [variables()[name] for name in _read(pack) if name in variables()]
    stated = {where.leaf for row in rows for where in (row.wps, row.pqr) if where is not None}
    ranged = {name for rule in pack.rules if isinstance(rule.kind, Declared) for name in rule.variables}
    declared = {variables()[name].declared for name in ranged}
    return frozenset((stated | declared | {row.asked for row in rows}) & OF_FEW)


def _read(pack: Pack) -> set[str]:
    """Return every variable that a pack limits or reads, and every demand that it answers."""
    return {*pack.variables, *pack.answered, *(name for rule in pack.rules for name in asks(rule))}
