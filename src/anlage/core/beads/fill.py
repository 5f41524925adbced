"""A list of beads that fills a joint: layers as high as the filler lays them, beads as wide, the cap over the edges.

The sizes of stringers follow from the electrode: 2.25 diameters apart and 0.85 diameters high, which reproduces the
bead counts of common practice (no source); a weave spreads the same metal over the whole width.
"""

import math
from collections.abc import Sequence

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.beads.ground import area_under, flat_slab, ground_of
from anlage.core.errors import InputError
from anlage.core.joint import Groove, Shape

PITCH_OF_DIAMETER, HEIGHT_OF_DIAMETER = 2.25, 0.85
THINNEST_WEAVE = 0.4  # of the electrode's diameter
UNDER_SURFACE_MM = 25.4 / 16  # fill stops here, so that the cap has an edge to follow; common practice, no source
LEAST_LAYER = 0.35  # of a layer's height: less room than this is left to the cap
LEAST_BEAD = 0.8  # of a stringer's section: what a closed groove's narrow layer is made up to; own choice
LARGEST_BEAD = 1.7  # of a stringer's section: a layer of more than so much is split; own choice
ONE_BEAD = 1.3  # a groove of no more than this many stringers takes one bead
CLOSE_MM = 1e-6
MOST_BEADS = 400  # nobody lists more one by one; own choice


class Size(Struct, frozen=True, kw_only=True):
    """How a deposit's beads come out.

    Parameters
    ----------
    pitch_mm, height_mm : distance of stringers lying side by side, and height of their layer
    reach_mm : how high over the root this deposit goes; `None`: to the surface
    weave : whether its fill and cap are woven over the whole width
    weave_limit_mm : widest weave; `None`: no limit set
    """

    pitch_mm: float
    height_mm: float
    reach_mm: float | None = None
    weave: bool = False
    weave_limit_mm: float | None = None

    @classmethod
    def of_electrode(cls, diameter_mm: float, **others: object) -> "Size":
        """Return the sizes usual for an electrode or rod.

        Examples
        --------
        >>> Size.of_electrode(3.2).pitch_mm
        7.2
        """
        return cls(
            pitch_mm=PITCH_OF_DIAMETER * diameter_mm,
            height_mm=HEIGHT_OF_DIAMETER * diameter_mm,
            **others,  # type: ignore[arg-type]
        )

    @classmethod
    def of_area(cls, area_mm2: float, **others: object) -> "Size":
        """Return the sizes of a bead whose section is known, in the proportion of stringers.

        Examples
        --------
        >>> Size.of_area(20).pitch_mm, Size.of_area(20).height_mm
        (7.28, 2.75)
        """
        high = math.sqrt(area_mm2 * HEIGHT_OF_DIAMETER / PITCH_OF_DIAMETER)
        return cls(pitch_mm=area_mm2 / high, height_mm=high, **others)  # type: ignore[arg-type]

    @property
    def area_mm2(self) -> float:
        """Section of one stringer."""
        return self.pitch_mm * self.height_mm

    def layer_mm(self, width_mm: float) -> float:
        """Return how high a layer of this width comes out."""
        if not self.weave:
            return self.height_mm
        least = THINNEST_WEAVE * self.height_mm / HEIGHT_OF_DIAMETER
        return min(max(self.area_mm2 / max(width_mm, 1e-6), least), self.height_mm)

    def count(self, width_mm: float) -> int:
        """Return how many beads share a layer of this width."""
        if self.weave:
            return 1 if self.weave_limit_mm is None else max(1, math.ceil(width_mm / self.weave_limit_mm - 1e-9))
        return max(1, round(width_mm / self.pitch_mm))


class Proposed(Struct, frozen=True, kw_only=True):
    """One bead of a proposal: which deposit lays it, what for, how large, and where it lies."""

    deposit: int
    role: str
    area_mm2: float
    height_mm: float
    width_mm: float
    side: int
    starts_layer: bool
    weave: bool


def fill(shape: Shape, sizes: Sequence[Size]) -> tuple[Proposed, ...]:
    """Return beads that fill a joint: root, hot, fill to 1/16 in under the surface, cap; both sides by turns.

    Parameters
    ----------
    shape : the joint
    sizes : how the beads of each deposit come out, in the order the deposits are used; at least one

    Returns
    -------
    tuple of Proposed : in welding order; their areas are the room of groove, cap and root

    Raises
    ------
    InputError : it takes more beads than anybody lists one by one

    Validity
    --------
    A proposal to start from: sizes are common practice (no source), not a limit of any code.
    """
    sides: dict[int, list[list[Proposed]]] = {}
    room = sum(area_under(ground_of(groove), 0.0)[0] for groove in shape.grooves)
    if room > 4 * MOST_BEADS * max(size.area_mm2 for size in sizes):  # told at once, without laying them
        raise _too_many()
    for groove in sorted(shape.grooves, key=lambda each: (each.side, each.reinforcing)):
        layers = _groove(groove, sizes)
        if sum(map(len, layers)) > MOST_BEADS:
            raise _too_many()
        under = sides.setdefault(groove.side, [])
        if groove.reinforcing and under:  # what was the cap of the groove is covered now
            under[-1] = [replace(bead, role="fill") if bead.role == "cap" else bead for bead in under[-1]]
            layers[0] = [replace(bead, role="cap") if bead.role == "root" else bead for bead in layers[0]]
        under.extend(layers)
    first, second = sides.get(1, []), sides.get(2, [])
    ordered = [*sides.get(0, []), *first[:2]]
    rest = [(n / max(len(first) - 2, 1), 0, layer) for n, layer in enumerate(first[2:])]
    rest += [((n + 0.5) / max(len(second), 1) - 1e-9, 1, layer) for n, layer in enumerate(second)]
    ordered += [layer for *_, layer in sorted(rest, key=lambda each: each[:2])]
    found = tuple(bead for layer in ordered for bead in layer)
    if len(found) > MOST_BEADS:
        raise _too_many()
    return found


def _too_many() -> InputError:
    what = f"it takes more than {MOST_BEADS} beads, which are not laid one by one"
    return InputError(what, where="fill", mend="state a larger filler, a wider weave or a smaller groove")


def _groove(groove: Groove, sizes: Sequence[Size]) -> list[list[Proposed]]:
    """Return the layers of one groove."""
    ground = ground_of(groove)
    bottom = min(y for _, y in ground)
    floor = bottom + (groove.root_cap_mm if groove.root else 0.0)
    whole = area_under(ground, 0.0)[0]
    is_open = groove.root is not None and groove.root_cap_mm + math.dist(*groove.root) > 0
    level, laid, deposit, own = floor, 0.0, _first_deposit(groove, len(sizes)), 0
    layers: list[list[Proposed]] = []
    last_fill = -UNDER_SURFACE_MM if -floor > 3 * UNDER_SURFACE_MM else LEAST_LAYER * floor
    if groove.side == 0:
        last_fill = 0.0
    if whole + groove.cap_area_mm2 <= ONE_BEAD * sizes[-1].area_mm2:
        last_fill = floor  # one bead fills it
    while last_fill - level > LEAST_LAYER * sizes[deposit].height_mm:
        size, place = sizes[deposit], len(layers)
        high = size.layer_mm(area_under(ground, level + 0.5 * size.height_mm)[1])
        end = last_fill if size.reach_mm is None else min(floor + size.reach_mm, last_fill)
        top = level + (end - level) / max(1, round((end - level) / high))
        if not is_open and not size.weave:  # the tip of a corner is no bead: a layer is at least most of one
            wanted = laid + LEAST_BEAD * size.area_mm2
            top = min(max(top, flat_slab(ground, wanted)[0]), max(last_fill, top))
        area, width = area_under(ground, top)[0] - laid, area_under(ground, (level + top) / 2)[1]
        alone = is_open and place < 2
        role = (
            "fill"
            if place > 1 or groove.reinforcing or groove.surfacing
            else _first_roles(groove, is_open=is_open)[place]
        )
        role = role if groove.side else "buttering"
        count = 1 if alone else size.count(width)
        if not (alone or size.weave):
            count = max(count, math.ceil(area / (LARGEST_BEAD * size.area_mm2) - CLOSE_MM))
        one = _One(deposit, role, area, top - level, width, weave=size.weave and not alone)
        layers.append(_layer(groove, one, min(count, MOST_BEADS + 1)))
        if sum(map(len, layers)) > MOST_BEADS:
            return layers
        laid, level, own = laid + area, top, own + 1
        done = end - level < CLOSE_MM if size.reach_mm is not None else own >= (2 if is_open and not deposit else 1)
        if done and deposit + 1 < len(sizes):
            deposit, own = deposit + 1, 0
    area = whole - laid + groove.cap_area_mm2
    if area > CLOSE_MM:
        size, width = sizes[deposit], ground[-1][0] - ground[0][0]
        role = "buttering" if groove.side == 0 else "cap" if layers else "root"
        one = _One(deposit, role, area, groove.cap_mm - level, width, weave=size.weave)
        layers.append(_layer(groove, one, size.count(width) if layers else 1))
    return layers


def _first_deposit(groove: Groove, deposits: int) -> int:
    """Return which deposit starts a groove: what lays the root starts neither the second side nor a reinforcement."""
    if groove.reinforcing:
        return deposits - 1
    return min(1, deposits - 1) if groove.side == 2 else 0


def _first_roles(groove: Groove, *, is_open: bool) -> tuple[str, str]:
    if groove.side == 2:
        return "back", "fill"
    return ("root", "hot") if is_open else ("root", "fill")


class _One(Struct, frozen=True):
    """A layer before it is split."""

    deposit: int
    role: str
    area: float
    high: float
    width: float
    weave: bool


def _layer(groove: Groove, one: _One, count: int) -> list[Proposed]:
    return [
        Proposed(
            deposit=one.deposit, role=one.role, area_mm2=one.area / count, height_mm=one.high,
            width_mm=one.width / count, side=groove.side, starts_layer=n == 0, weave=one.weave,
        )
        for n in range(count)
    ]  # fmt: skip
