"""What metals and fillers are to the codes: their groups and numbers, beside the field where they are typed."""

from anlage.core.catalogue import GROUP_COLUMNS, MetalGroup
from anlage.core.errors import UnknownNameError
from anlage.core.procedure import Metal
from anlage.data.tables import catalogue
from anlage.session.judging.metals import group_of, is_without
from anlage.session.leaves.iso_numbers import iso_number

# Column of the catalogue, and how the trade says it. Codes whose groups the catalogue does not know are not named.
SAID = (
    ("p_number", "P-No. {}"), ("group_number", "Group {}"), ("iso15608_group", "ISO/TR 15608 group {}"),
    ("d1_1_group", "D1.1 group {}"),
)  # fmt: skip


def metal_words(metal: Metal) -> str:
    """Return the groups of a metal in every code that the catalogue knows, "" while none is stated.

    Examples
    --------
    >>> metal_words(Metal(name="SA-335 P11"))
    'P-No. 4, Group 1, ISO/TR 15608 group 5.1'
    >>> metal_words(Metal(name="SA-36"))  # AWS D1.1 has two groups of it, split at 20 mm
    'P-No. 1, Group 1, ISO/TR 15608 group 1.1, D1.1 group I or II by thickness'
    >>> metal_words(Metal(name="Unobtainium"))
    'not in the catalogue: nothing is known of it'
    """
    group = group_of(metal)
    if group is None:
        return "not in the catalogue: nothing is known of it" if metal.name else ""
    said = ", ".join(form.format(found) for column, form in SAID if (found := _in_system(metal, group, column)))
    if metal.name and not is_named(metal.name):
        said = f"{said}, as stated; the catalogue does not know the name" if said else "nothing is known of it"
    return said if group.confidence == "H" or not said else f"{said} (less sure)"


def _in_system(metal: Metal, group: MetalGroup, column: str) -> str:
    """Return the group of a metal in a system: every one that it has by its thickness, which its name does not say."""
    own = catalogue().base_metal(metal.name or "")
    if own is None or own.id != group.name:
        return group.group(column)
    thicker = (each for each in catalogue().base_metals if each.id.startswith(f"{own.id}-T") and each.spec == own.spec)
    found = dict.fromkeys((group.group(column), *(getattr(each, GROUP_COLUMNS[column]) for each in thicker)))
    return f"{' or '.join(found)} by thickness" if len(found) > 1 else group.group(column)


def is_named(name: str) -> bool:
    """Return whether the catalogue has a metal of this name."""
    try:
        return bool(catalogue().metal_group(name))
    except UnknownNameError:
        return False


def deposit_words(process: str | None, filler: str | None, gas: str | None) -> str:
    """Return what a deposit is to the codes: its number by ISO 4063, and its filler's specification and numbers.

    Examples
    --------
    >>> deposit_words("GMAW", "ER70S-6", "Ar-18CO2")
    'ISO 4063 135, SFA-5.18, F-No. 6, A-No. 1'
    """
    number = iso_number(process, filler, gas)
    return ", ".join(filter(None, (f"ISO 4063 {number}" if number else "", filler_words(filler))))


def filler_words(name: str | None) -> str:
    """Return the specification and the numbers of a filler, "" while none is stated.

    Examples
    --------
    >>> filler_words("ER80S-B2"), filler_words("E7O18")
    ('SFA-5.28, F-No. 6, A-No. 3', 'not in the catalogue: nothing is known of it')
    """
    if not name or is_without(name):
        return ""
    try:
        found = catalogue().filler(name)
    except UnknownNameError:
        return "not in the catalogue: nothing is known of it"
    sfa = found.aws_spec.replace("AWS A", "SFA-")
    parts = (sfa, found.f_number and f"F-No. {found.f_number}", found.a_number and f"A-No. {found.a_number}")
    return ", ".join(filter(None, parts))
