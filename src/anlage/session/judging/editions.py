"""The pack and edition that a document or a command names."""

from anlage.core.codes import Pack
from anlage.core.errors import UnknownNameError
from anlage.data.code_packs import code_pack


def edition_of(code: str) -> tuple[Pack, str]:
    """Return the pack and edition that `asme-ix` or `asme-ix:2019` names; the newest when none is named.

    Raises
    ------
    UnknownNameError : no such pack, or the pack serves no such edition
    """
    name, _, edition = code.partition(":")
    pack = code_pack(name.strip().lower())
    if edition and edition not in pack.editions:
        raise UnknownNameError(edition, pack.editions, where="code")
    return pack, edition or pack.editions[-1]
