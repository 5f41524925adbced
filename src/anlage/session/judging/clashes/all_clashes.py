"""The one place that reconciles what a document states twice: two statements that disagree prove nothing.

Each check looks at two or more leaves of one document. Where they disagree every variable that hangs on them counts
as not stated, by a procedure, or not recorded, by a record, and one sentence says so at each of the leaves.
"""

from collections.abc import Callable, Iterable, Iterator, Mapping
from typing import Any

from anlage.core.codes.derive import Derivations
from anlage.core.document import kept
from anlage.core.errors import AnlageError, InputError
from anlage.core.procedure import Wps
from anlage.core.quantities.units import System
from anlage.core.record import Pqr
from anlage.session.judging.clashes.clash import Clash, Said
from anlage.session.judging.clashes.procedure import OF_WPS
from anlage.session.judging.clashes.record import OF_PQR
from anlage.session.judging.clashes.shared import OF_BOTH
from anlage.session.judging.editions import edition_of

_CHECKS: Mapping[type, tuple[Callable[[Said], Iterator[Clash]], ...]] = {
    Wps: (*OF_BOTH, *OF_WPS), Pqr: (*OF_BOTH, *OF_PQR),
}  # fmt: skip


@kept
def clashes_of(document: Any, derive: Derivations, system: System = "si") -> tuple[Clash, ...]:
    """Return every contradiction in a procedure or record.

    Parameters
    ----------
    document : a `Wps` or a `Pqr`; what a code has nothing to do with has none
    derive : what its code derives of metals and heat treatments; without a code `Derivations()`
    system : the units that the sentences are said in
    """
    said = Said(document, derive, system)
    return tuple(clash for check in _CHECKS.get(type(document), ()) for clash in check(said))


def complaints_of(document: Any, system: System) -> dict[str, InputError]:
    """Return what a document says twice and not alike, by every leaf that takes part."""
    try:
        code = getattr(document.header, "code", None)
        derive = edition_of(code)[0].derive if code else Derivations()
    except AnlageError:
        derive = Derivations()
    found: dict[str, InputError] = {}
    for clash in clashes_of(document, derive, system):
        for leaf in clash.leaves:
            found.setdefault(leaf, InputError(clash.text, where=leaf, mend=clash.mend))
    return found


def sentences(clashes: Iterable[Clash], deposit: str = "") -> dict[str, str]:
    """Return the variables that clash in the joint, or in one deposit, each with its sentence."""
    return {variable: each.text for each in clashes if each.deposit == deposit for variable in sorted(each.variables)}
