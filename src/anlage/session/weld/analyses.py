"""What the metals of a procedure are made of: by certificate, else as usual, else the most that is specified."""

from msgspec import Struct

from anlage.core.catalogue import BaseMetal
from anlage.core.document import kept
from anlage.core.errors import InputError, UnknownNameError
from anlage.core.metal.analyses import Analysis, deposit_of, specified_of, typical_of
from anlage.core.metal.certificate import Certificate, read_certificate
from anlage.core.procedure import Deposit, Metal, Wps
from anlage.data.metal_tables import typical_analyses
from anlage.data.tables import catalogue


class Side(Struct, frozen=True):
    """One side of a joint: the leaf of its metal, its name, the catalogue's row, what it is made of, its strength."""

    path: str
    name: str
    metal: BaseMetal | None
    analysis: Analysis | None
    certificate: Certificate | None

    @property
    def family(self) -> str:
        """Its family, "" where the catalogue does not know it."""
        return self.metal.family if self.metal else ""

    @property
    def basis(self) -> str:
        """What its composition rests on, in words."""
        if self.analysis is None:
            return "composition not known: state its certificate"
        if self.certificate is not None:
            heat = f", heat {self.certificate.heat}" if self.certificate.heat else ""
            return f"by its certificate{heat}"
        if self.analysis.basis == "typical":
            return "a typical analysis: state its certificate"
        return "the most that its specification allows: state its certificate"


@kept
def sides_of(wps: Wps) -> tuple[Side, ...]:
    """Return the sides of a joint that are different metals, the first side first."""
    sides = [_side("metals/one", wps.metals.one)]
    if wps.metals.other is not None and wps.metals.other != wps.metals.one:
        sides.append(_side("metals/other", wps.metals.other))
    return tuple(sides)


def filler_analysis(deposit: Deposit) -> Analysis | None:
    """Return the typical analysis of what a deposit's filler lays; `None` where it is not known."""
    if not deposit.filler:
        return None
    try:
        found = deposit_of(catalogue().filler(deposit.filler))
    except UnknownNameError:
        return None
    return found if found.composition else None


def _side(path: str, stated: Metal) -> Side:
    metal = catalogue().base_metal(stated.name) if stated.name else None
    certificate = None
    if stated.certificate:
        try:
            certificate = read_certificate(stated.certificate)
        except InputError:
            certificate = None  # a document from elsewhere: its field says what is wrong
    name = metal.id if metal else stated.name or ""
    if certificate is not None:
        analysis: Analysis | None = Analysis(name, certificate.composition, "certificate", "mill certificate", "H")
    elif metal is None:
        analysis = None
    else:
        analysis = typical_of(metal, typical_analyses()) or specified_of(metal)
    return Side(path, name, metal, analysis, certificate)
