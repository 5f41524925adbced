"""What the chooser of preparations offers: families, forms drawn as themselves, and the ways to weld a form."""

import msgspec
from msgspec import Struct

from anlage.core.joint import KINDS, MAKES, Family, Kind, Sketch
from anlage.core.procedure import Joint, drawable


def chooser_sketch(joint: Joint, kind: Kind) -> Sketch:
    """Return a preparation with the values of a joint as far as they fit it, else with those of a picture."""
    sketch = drawable(msgspec.structs.replace(joint, kind=kind)) or drawable(Joint(kind=kind))
    assert sketch is not None, kind
    return sketch


class Offer(Struct, frozen=True):
    """What the chooser offers: the families, the kinds of one family, and the other ways to weld the chosen form."""

    families: tuple[Family, ...]
    kinds: tuple[Kind, ...]
    ways: tuple[tuple[str, Kind], ...]


WAYS = {(1, False): "One side", (2, False): "Both sides", (1, True): "On backing"}


def offer_of(family: Family, kind: Kind | None) -> Offer:
    """Return what the chooser offers in a family: each form once, welded as the chosen kind where it can be.

    Examples
    --------
    >>> offer_of("butt", "double-v").kinds[1:3]
    ('double-v', 'double-bevel')
    """
    make = MAKES[kind] if kind else None
    forms: dict[str, list[Kind]] = {}
    for each in KINDS:
        if MAKES[each].family == family:
            forms.setdefault(MAKES[each].form, []).append(each)

    def alike(each: Kind) -> bool:
        return make is not None and (MAKES[each].sides, MAKES[each].backing) == (make.sides, make.backing)

    kinds = tuple(next((each for each in row if alike(each)), row[0]) for row in forms.values())
    own = forms.get(make.form, []) if make and make.family == family else []
    ways = tuple((WAYS[MAKES[each].sides, MAKES[each].backing], each) for each in own)
    return Offer(FAMILIES, kinds, ways if len(ways) > 1 else ())


FAMILIES: tuple[Family, ...] = ("butt", "tee", "corner", "lap", "flare", "pipe", "surface")
FAMILY_WORDS = {"butt": "Butt", "tee": "T", "corner": "Corner", "lap": "Lap", "flare": "Flare", "pipe": "Pipe",
                "surface": "Plug"}  # fmt: skip
