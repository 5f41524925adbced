"""What a works adds to the catalogue, as a person reads it."""

from msgspec import Struct

from anlage.core.catalogue import Filler
from anlage.core.materials import Materials
from anlage.core.procedure import Metal
from anlage.session.judging.groups import metal_words
from anlage.session.works.materials import catalogue_of, names_of


class Added(Struct, frozen=True):
    """What a works adds, as a person reads it: its name, what it is to the codes, and how anybody knows."""

    name: str
    says: str
    source: str


def added(materials: Materials) -> tuple[Added, ...]:
    """Return all that a works adds, metals first.

    Raises
    ------
    FormatError : it cannot be read
    """
    whole = catalogue_of(materials)
    names = names_of(materials)
    metals = (
        Added(each.id, metal_words(Metal(name=each.id)), f"{each.source} ({each.confidence})")
        for each in whole.base_metals if each.id in names
    )  # fmt: skip
    fillers = (
        Added(each.classification, _filler_words(each), f"{each.source} ({each.confidence})")
        for each in whole.fillers if each.classification in names
    )  # fmt: skip
    return (*metals, *fillers)


def _filler_words(filler: Filler) -> str:
    f_number = f"F-No. {filler.f_number}" if filler.f_number else "no F-Number"
    a_number = f"A-No. {filler.a_number}" if filler.a_number else "no A-Number"
    return ", ".join((" and ".join(filler.processes), f_number, a_number))
