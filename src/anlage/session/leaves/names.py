"""How a leaf is called where it stands alone: in the list of steps that can be undone."""

from anlage.core.machine import Machine
from anlage.core.procedure import Wps
from anlage.session.leaves.documents import SomeDocument
from anlage.session.leaves.table import PARTS, field_of


def named(value: SomeDocument, path: str) -> str:
    """Return how a leaf is called where it stands alone: in the list of steps that can be undone.

    Examples
    --------
    >>> named(Wps(), "joint/root_face_mm/plus")
    'Root face, plus'
    """
    steps = path.split("/")
    part = f", {steps[-1]}" if steps[-1] in PARTS else ""
    label = f"{field_of(path).label}{part}"
    if steps[0] == "passes" and isinstance(value, Wps):
        number = next((n for n, each in enumerate(value.passes, 1) if each.id == steps[1]), "?")
        return f"{label} of pass {number}"
    if steps[0] in ("sectors", "readings"):
        return f"{label} of a {steps[0][:-1]}"
    if steps[0] == "members" and isinstance(value, Wps):
        name = next((each.name for each in value.members if each.id == steps[1]), None)
        return f"{label} of {name or 'a new member'}"
    if steps[0] in ("stations", "tacks"):
        place = next((each.place for each in getattr(value, steps[0]) if each.id == steps[1]), None)
        return f"{label} at {place or f'a new {steps[0][:-1]}'}"
    if steps[0] == "deposits" and not isinstance(value, Machine):
        process = next((each.process for each in value.deposits if each.id == steps[1]), None)
        return f"{label} of the {process or 'new'} deposit"
    return label
