"""A list of beads that fills a joint: layers as high as the filler lays them, beads as wide, the cap over the edges.

The sizes of stringers follow from the electrode: 2.25 diameters apart and 0.85 diameters high, which reproduces the
bead counts of common practice (no source); a weave spreads the same metal over the whole width.
"""

import math
from collections.abc import Sequence
from typing import NamedTuple

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.beads.ground import Frame, area_under, flat_slab, ground_of, walk_of
from anlage.core.errors import InputError
from anlage.core.joint import Groove, Shape

PITCH_OF_DIAMETER, HEIGHT_OF_DIAMETER = 2.25, 0.85
THINNEST_WEAVE = 0.4  # of the electrode's diameter
UNDER_SURFACE_MM = 25.4 / 16  # fill stops here, so that the cap has an edge to follow; common practice, no source
LEAST_LAYER = 0.35  # of a layer's height: less room than this is left to the cap
LEAST_BEAD = 0.8  # of a stringer's section: what a closed groove's narrow layer is made up to; own choice
LARGEST_BEAD = 1.4  # of a stringer's section: a layer of more than so much is split; own choice
ONE_BEAD = 1.3  # a groove of no more than this many stringers takes one bead
SLIVER = 0.6  # of a layer: so little is laid with it; own choice
MORE = 1.15  # a layer may be raised by so much so that one bead more has its room; own choice
EDGE_OF_CAP = 1.15  # how much wider the outer beads of a cap come out than its share: they thin out at the edge
CLOSE_MM = 1e-6
MOST_BEADS = 400  # nobody lists more one by one; own choice


class Size(Struct, frozen=True, kw_only=True):
    """How a deposit's beads come out.

    Parameters
    ----------
    pitch_mm, height_mm : distance of stringers lying side by side, and height of their layer
    reach_mm : how high over the root this deposit goes; `None`: to the surface, or as many layers as it lays
    layers : how many layers it lays before the next one takes over; 0: the cap alone; `None`: two of an open root,
        else one
    weave : whether its fill and cap are woven over the whole width
    weave_limit_mm : widest bead; `None`: no limit set
    least_mm2, most_mm2 : sections that its settings lay inside their windows; `None`: no limit known
    is_fixed : whether its settings lay one section alone
    roles : how beads of some roles come out otherwise
    """

    pitch_mm: float
    height_mm: float
    reach_mm: float | None = None
    layers: int | None = None
    weave: bool = False
    weave_limit_mm: float | None = None
    least_mm2: float = 0.0
    most_mm2: float | None = None
    is_fixed: bool = False
    roles: tuple[tuple[str, "Size"], ...] = ()

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

    def of(self, role: str) -> "Size":
        """Return how beads of a role come out."""
        return next((size for name, size in self.roles if name == role), self)

    def layer_mm(self, width_mm: float) -> float:
        """Return how high a layer of this width comes out."""
        if not self.weave:
            return self.height_mm
        least = THINNEST_WEAVE * self.height_mm / HEIGHT_OF_DIAMETER
        return min(max(self.area_mm2 / max(width_mm, 1e-6), least), self.height_mm)

    def count(self, width_mm: float, area_mm2: float) -> int:
        """Return how many beads share a layer of this width and area.

        As many as their pitch says, but none smaller or larger than its settings lay, and none wider than the limit.
        """
        if self.is_fixed:
            return max(1, round(area_mm2 / self.area_mm2))
        wanted = 1 if self.weave else max(1, round(width_mm / self.pitch_mm))
        if self.least_mm2 > 0:
            wanted = max(1, min(wanted, int(area_mm2 / self.least_mm2 + CLOSE_MM)))
        if self.most_mm2 is not None:
            wanted = max(wanted, math.ceil(area_mm2 / self.most_mm2 - CLOSE_MM))
        return wanted

    def least_count(self, width_mm: float, top_mm: float) -> int:
        """Return how many beads it takes at least that none is wider than the limit, at its surface too.

        Parameters
        ----------
        width_mm, top_mm : of the layer half way up and at its surface, where the outer beads lie out over the walls
        """
        if self.weave_limit_mm is None:
            return 1
        over = (top_mm - width_mm) / 2
        return max(1, math.ceil(width_mm / max(self.weave_limit_mm - over, self.weave_limit_mm / 2) - CLOSE_MM))


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


def fill(shape: Shape, sizes: Sequence[Size], *, over_land_mm: float = 0.0) -> tuple[Proposed, ...]:
    """Return beads that fill a joint: root, hot, fill to 1/16 in under the surface, cap; both sides by turns.

    Parameters
    ----------
    shape : the joint
    sizes : how the beads of each deposit come out, in the order the deposits are used; at least one
    over_land_mm : how much an open root stands over its land at least [mm]

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
        layers = _groove(groove, sizes, over_land_mm)
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


def _groove(groove: Groove, sizes: Sequence[Size], over_land_mm: float) -> list[list[Proposed]]:
    """Return the layers of one groove: of every deposit as many as it says, none left out where there is room."""
    wanted = _Filling(groove, sizes, over_land_mm).layers()
    used = {bead.deposit for layer in wanted for bead in layer}
    first = _first_deposit(groove, len(sizes))
    if len(used) == len(sizes) - first or any(size.reach_mm is not None for size in sizes):
        return wanted
    hasty = [size if size.layers == 0 else replace(size, layers=1) for size in sizes]
    other = _Filling(groove, hasty, over_land_mm).layers()
    return other if len({bead.deposit for layer in other for bead in layer}) > len(used) else wanted


class _Next(NamedTuple):
    """The layer that comes next: of which size and role, whether it is one bead, and up to where its deposit goes."""

    size: Size
    role: str
    alone: bool
    end: float


class _Filling:
    """A groove while it is filled, layer by layer."""

    def __init__(self, groove: Groove, sizes: Sequence[Size], over_land_mm: float) -> None:
        self.groove, self.sizes = groove, sizes
        self.ground = ground_of(groove)
        self.floor = min(y for _, y in self.ground) + (groove.root_cap_mm if groove.root else 0.0)
        self.whole = area_under(self.ground, 0.0)[0]
        self.is_open = groove.root is not None and groove.root_cap_mm + math.dist(*groove.root) > 0
        self.root_top = self.floor + land_of(groove) + over_land_mm if self.is_open and over_land_mm else -math.inf
        self.deposit = _first_deposit(groove, len(sizes))
        self.laid, self.level, self.own = 0.0, self.floor, 0
        self.caps = next((n for n, size in enumerate(sizes) if size.layers == 0), None)

    def layers(self) -> list[list[Proposed]]:
        """Return all layers."""
        found: list[list[Proposed]] = []
        self._skip_caps()
        last_fill = self._last_fill()
        while last_fill - self.level > LEAST_LAYER * self._size(len(found)).height_mm:
            layer = self._fill_layer(len(found), last_fill)
            if layer is None:
                break
            found.append(layer)
            if sum(map(len, found)) > MOST_BEADS:
                return found
        if self.whole - self.laid + self.groove.cap_area_mm2 > CLOSE_MM:
            found.append(self._cap_layer(is_only=not found))
        return found

    def _last_fill(self) -> float:
        """Return the level under which the fill stays, so that the cap has an edge to follow."""
        if self.groove.side == 0:
            return 0.0
        if self.whole + self.groove.cap_area_mm2 <= ONE_BEAD * self._one_bead_mm2():
            return self.floor  # one bead fills it
        return -UNDER_SURFACE_MM if -self.floor > 3 * UNDER_SURFACE_MM else LEAST_LAYER * self.floor

    def _one_bead_mm2(self) -> float:
        cap = self.sizes[-1].of("cap")
        return cap.area_mm2 if cap.most_mm2 is None else min(cap.area_mm2, cap.most_mm2)

    def _role(self, place: int) -> str:
        if not self.groove.side:
            return "buttering"
        if place > 1 or self.groove.reinforcing or self.groove.surfacing:
            return "fill"
        return _first_roles(self.groove, is_open=self.is_open)[place]

    def _size(self, place: int) -> Size:
        return self.sizes[self.deposit].of(self._role(place))

    def _fill_layer(self, place: int, last_fill: float) -> list[Proposed] | None:
        """Return the next layer under the cap; `None` where what is left is the cap's."""
        reach = self.sizes[self.deposit].reach_mm
        end = last_fill if reach is None else min(self.floor + reach, last_fill)
        layer = _Next(self._size(place), self._role(place), self.is_open and place < 2, end)
        top = self._in_whole_beads(layer, self._rough_top(layer, last_fill), last_fill)
        area, width = self._slab(top)
        left = self.whole + self.groove.cap_area_mm2 - self.laid - area
        if layer.role == "fill" and place and left < self._cap_size().least_mm2:
            return None
        count = self._beads_in(layer, top)
        weave = layer.size.weave and not layer.alone
        one = _One(self.deposit, layer.role, area, top - self.level, width, weave=weave)
        self.laid, self.level, self.own = self.laid + area, top, self.own + 1
        self._hand_over(end)
        return _layer(self.groove, one, min(count, MOST_BEADS + 1))

    def _rough_top(self, layer: _Next, last_fill: float) -> float:
        """Return the level that a layer reaches by its size, without a sliver over it and not under its least."""
        size = layer.size
        if layer.alone and size.most_mm2 is not None:  # one bead, as large as its settings lay it
            top = flat_slab(self.ground, self.laid + size.area_mm2)[0]
        else:
            top = self._top(size, layer.end, last_fill)
        if layer.role == "root":
            top = max(top, self.root_top)
        is_sliver = not size.is_fixed and 0 < layer.end - top < SLIVER * (top - self.level)
        if is_sliver and self._slab(layer.end)[0] <= (size.most_mm2 or math.inf):
            top = layer.end  # no sliver is left to another layer of the same deposit
        least = flat_slab(self.ground, self.laid + size.least_mm2)[0] if size.least_mm2 else top
        return max(min(top, last_fill), min(least, 0.0))

    def _in_whole_beads(self, layer: _Next, top: float, last_fill: float) -> float:
        """Return the level a little higher or lower, where that lets whole beads lie in the layer."""
        size, (area, width) = layer.size, self._slab(top)
        if layer.alone or (size.weave and not size.is_fixed):
            return top
        if size.is_fixed:  # so much that whole beads of that section lie in it
            return min(flat_slab(self.ground, self.laid + size.count(width, area) * size.area_mm2)[0], 0.0)
        wanted = max(1, round(width / size.pitch_mm)) * size.least_mm2  # as many as lie side by side
        return min(flat_slab(self.ground, self.laid + wanted)[0], last_fill) if area < wanted < MORE * area else top

    def _beads_in(self, layer: _Next, top: float) -> int:
        """Return how many beads a layer is laid in."""
        size, (area, width) = layer.size, self._slab(top)
        count = 1 if layer.alone else size.count(width, area)
        if layer.role != "root":
            count = max(count, size.least_count(width, area_under(self.ground, top)[1]))
        if layer.alone or size.weave or size.is_fixed:
            return count
        return max(count, math.ceil(area / (LARGEST_BEAD * size.area_mm2) - CLOSE_MM))

    def _top(self, size: Size, end: float, last_fill: float) -> float:
        """Return the level of the next layer: whole layers up to the end, each at least of one bead."""
        high = size.layer_mm(area_under(self.ground, self.level + 0.5 * size.height_mm)[1])
        top = self.level + (end - self.level) / max(1, round((end - self.level) / high))
        least = size.least_mm2
        if not self.is_open and not size.weave:  # the tip of a corner is no bead: a layer is at least most of one
            least = max(least, LEAST_BEAD * size.area_mm2)
        if least > 0:
            top = min(max(top, flat_slab(self.ground, self.laid + least)[0]), max(last_fill, top))
        return top

    def _slab(self, top: float) -> tuple[float, float]:
        return area_under(self.ground, top)[0] - self.laid, area_under(self.ground, (self.level + top) / 2)[1]

    def _hand_over(self, end: float) -> None:
        """Let the next deposit take over where this one has laid what it lays."""
        size = self.sizes[self.deposit]
        usual = 2 if self.is_open and not self.deposit else 1
        layers = usual if size.layers is None else size.layers
        done = end - self.level < CLOSE_MM if size.reach_mm is not None else self.own >= layers
        if done and self.deposit + 1 < len(self.sizes):
            before = self.deposit
            self.deposit += 1
            self._skip_caps()
            if self.sizes[self.deposit].layers == 0:
                self.deposit = before
            else:
                self.own = 0

    def _skip_caps(self) -> None:
        while self.sizes[self.deposit].layers == 0 and self.deposit + 1 < len(self.sizes):
            self.deposit += 1

    def _cap_size(self) -> Size:
        role = "buttering" if self.groove.side == 0 else "cap"
        return self.sizes[self._cap_deposit()].of(role)

    def _cap_deposit(self) -> int:
        if self.groove.side == 0 or self.caps is None:
            return self.deposit
        return self.caps

    def _cap_layer(self, *, is_only: bool) -> list[Proposed]:
        deposit, size = self._cap_deposit(), self._cap_size()
        area, width = self.whole - self.laid + self.groove.cap_area_mm2, self.ground[-1][0] - self.ground[0][0]
        role = "buttering" if self.groove.side == 0 else "root" if is_only else "cap"
        one = _One(deposit, role, area, self.groove.cap_mm - self.level, width, weave=size.weave)
        count = max(size.count(width, area), size.least_count(EDGE_OF_CAP * width, EDGE_OF_CAP * width))
        is_one = is_only and (size.most_mm2 is None or area <= size.most_mm2)
        return _layer(self.groove, one, 1 if is_one else count)


def land_of(groove: Groove) -> float:
    """Return how far the walls of an open root go up from it before they lean apart [mm]; 0 where they do at once."""
    if groove.root is None:
        return 0.0
    frame, walk = Frame.of(groove), walk_of(groove)
    points = [frame.inward(point) for point in walk]
    ends = [frame.inward(point) for point in groove.root]
    heights = []
    for x, y in ends:
        beside = [py - y for px, py in points if abs(px - x) < CLOSE_MM and py > y + CLOSE_MM]
        heights.append(min(beside, default=0.0))
    return min(heights)


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
