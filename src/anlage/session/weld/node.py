"""The node of tubes of a procedure: its members in their weld order, what their welds take, how they are cut."""

from collections.abc import Callable, Iterator

from msgspec import Struct

from anlage.core.document import with_
from anlage.core.drawing import DisplayList, fitted
from anlage.core.drawing.tube_node import Drawn, cope_patterns, tube_node
from anlage.core.errors import InputError
from anlage.core.joint import (
    RUN,
    Tube,
    TubeWeld,
    cope,
    faults,
    joint_metal,
    legs,
    node_faults,
    other_ways,
    tube_welds,
    weld_order,
)
from anlage.core.procedure import Wps, sketch_of, with_element
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.data.joint_tables import joint_limits
from anlage.data.tables import unit_table
from anlage.session.weld.picture_sheet import Sheet

FIRST = "First member"
ADDED_DEG = 45.0  # the usual lean; own choice


class Set(Struct, frozen=True):
    """One member: the leaf it is stated at, what it is called, its tube and its weld."""

    target: str
    name: str
    tube: Tube
    weld: TubeWeld


class Node(Struct, frozen=True):
    """A node in its weld order, with the size of its fillets [mm, mm²·mm]."""

    run_od_mm: float
    members: tuple[Set, ...]
    leg_product_mm2: float
    capped: float

    @property
    def length_mm(self) -> float:
        """All welds together."""
        return sum(each.weld.length_mm for each in self.members)

    @property
    def volume_mm3(self) -> float:
        """Metal of all welds, with their convexity."""
        return self.capped * self.leg_product_mm2 * sum(each.weld.fillet_mm for each in self.members)


def stated_members(wps: Wps) -> tuple[tuple[str, str, Tube], ...]:
    """Return the members as they are listed: leaf, name and tube; nothing unless the joint is a node stated in full."""
    sketch = sketch_of(wps.joint) if wps.joint.kind == "tube-node" else None
    if sketch is None or sketch.incomplete or faults(sketch.preparation):
        return ()
    p = sketch.preparation
    assert p.od_mm is not None, "a node that is stated in full has a member"
    found = [("joint/od_mm", FIRST, Tube(od_mm=p.od_mm, wall_mm=p.thickness_mm, angle_deg=p.member_angle_deg))]
    for n, each in enumerate(wps.members, 2):
        tube = Tube(
            od_mm=each.od_mm or p.od_mm, wall_mm=each.wall_mm or p.thickness_mm,
            angle_deg=90.0 if each.angle_deg is None else each.angle_deg, turn_deg=each.turn_deg or 0.0,
            along_mm=each.along_mm or 0.0,
        )  # fmt: skip
        found.append((f"members/{each.id}", each.name or f"Member {n}", tube))
    return tuple(found)


def member_faults(wps: Wps) -> tuple[InputError, ...]:
    """Return what is impossible in the node, by its members as they are listed."""
    stated = stated_members(wps)
    return node_faults(wps.joint.run_od_mm or 0.0, [tube for *_, tube in stated]) if stated else ()


class Way(Struct, frozen=True):
    """Another way to set a member that cannot stand where it is stated: its words, and the procedure with it so."""

    words: str
    changed: Wps


def ways_out(wps: Wps) -> tuple[Way, ...]:
    """Return how the first member that lies in another can stand instead, the likeliest first; none when all stand."""
    stated = stated_members(wps)
    tubes = [tube for *_, tube in stated]
    for n in range(1, len(tubes)):
        if not node_faults(wps.joint.run_od_mm or 0.0, tubes[: n + 1]):
            continue
        name, tube = stated[n][1], tubes[n]
        return tuple(
            Way(
                f"Lean {name} the other way, {way.angle_deg:g}°"
                if way.angle_deg != tube.angle_deg
                else f"Turn {name} to {way.turn_deg:g}° round the run",
                _with_way(wps, n - 1, way),
            )
            for way in other_ways(tubes, n)
            if not node_faults(wps.joint.run_od_mm or 0.0, [*tubes[:n], way])
        )
    return ()


def _with_way(wps: Wps, n: int, way: Tube) -> Wps:
    members = list(wps.members)
    turn = way.turn_deg if way.turn_deg or members[n].turn_deg is not None else None
    members[n] = with_(members[n], angle_deg=way.angle_deg, turn_deg=turn)
    return with_(wps, members=tuple(members))


def with_member(wps: Wps) -> Wps:
    """Return the procedure with one more member that leans, the size of the first one, where it stands in no other."""
    changed, _ = with_element(wps, "members", angle_deg=ADDED_DEG)
    ways = () if member_faults(wps) else ways_out(changed)
    return ways[0].changed if ways else changed


def node_of(wps: Wps) -> Node | None:
    """Return the node in its weld order; `None` unless it is stated in full and possible."""
    stated = stated_members(wps)
    if not stated or member_faults(wps) or wps.joint.run_od_mm is None:
        return None
    sketch = sketch_of(wps.joint)
    assert sketch is not None, "a stated node has a sketch"
    tubes = tuple(tube for *_, tube in stated)
    order = tuple(range(len(tubes))) if wps.seam.member_order == "listed" else weld_order(tubes)
    welds = tube_welds(wps.joint.run_od_mm, tuple(tubes[n] for n in order))
    members = tuple(Set(*stated[n], weld) for n, weld in zip(order, welds, strict=True))
    metal = joint_metal(sketch.preparation)
    one, two = legs(sketch.preparation)
    return Node(wps.joint.run_od_mm, members, one * two, metal.whole_area_mm2 / metal.groove_area_mm2)


def node_sentences(wps: Wps, system: System) -> tuple[str, ...]:
    """Return what each member's weld comes to in its order, what a later member covers, and where it is no fillet."""
    wrong = member_faults(wps)
    if wrong:
        return tuple(f"{each}." for each in wrong)
    node = node_of(wps)
    if node is None:
        return ("State leg, walls and both diameters first; then the welds of the node are worked out.",)

    def say(length: float) -> str:
        return show(length, "length", system, unit_table())

    said = []
    names = {RUN: "the run", **{n: each.name for n, each in enumerate(node.members)}}
    for n, each in enumerate(node.members):
        weld = each.weld
        parts = [f"{say(length)} on {names[k]}" for k, length in sorted(weld.onto_mm.items())]
        onto = f", {', '.join(parts)}" if len(parts) > 1 else f" on {names[next(iter(weld.onto_mm))]}"
        said.append(f"{n + 1}. {each.name}: {say(weld.length_mm)} of weld{onto}.")
        said += [
            f"{n + 1}. {say(length)} of it lies under {names[k]}: weld it and look at it before that one is set."
            for k, length in sorted(weld.hidden_mm.items())
        ]
        said += [f"{n + 1}. {sentence}" for sentence in _angle_sentences(weld, say)]
    return tuple(said)


def _angle_sentences(weld: TubeWeld, say: Callable[[float], str]) -> Iterator[str]:
    """Yield where surfaces meet too sharp or too blunt for a fillet."""
    limits, (sharp, blunt) = joint_limits(), weld.dihedral_deg
    none, least, most = (limits[name] for name in ("no_credit_deg", "fillet_least_deg", "fillet_most_deg"))
    if sharp < none.value:
        yield (
            f"Surfaces meet at {sharp:.0f}°: under {none.value:g}° it counts for nothing without a test "
            f"({none.origin})."
        )
    elif sharp < least.value - 1e-6:
        where = say(weld.sharp_mm(least.value))
        yield (
            f"{where} lie under {least.value:g}°, down to {sharp:.0f}°: no fillet, a loss at the root ({least.origin})."
        )
    if blunt > most.value:
        yield f"Surfaces meet at up to {blunt:.0f}°, over {most.value:g}°: judge it as a groove ({most.origin})."


def node_picture(wps: Wps, chosen: str, sheet: Sheet) -> DisplayList | None:
    """Return the node from its side; `None` unless it is stated in full and possible."""
    node = node_of(wps)
    if node is None:
        return None
    drawn = [
        Drawn(each.target, str(n), each.name, each.tube, each.weld, chosen=each.target == chosen)
        for n, each in enumerate(node.members, 1)
    ]  # fmt: skip

    def make(scale: float) -> DisplayList:
        return tube_node(node.run_od_mm, drawn, scale=scale, measure=sheet.measure)

    return fitted(make, sheet.width_mm, sheet.height_mm)


def _size(tube: Tube, system: System) -> str:
    od, wall = (show(value, "length", system, unit_table()) for value in (tube.od_mm, tube.wall_mm))
    return f"{od} × {wall}, {show(tube.angle_deg, 'angle', system, unit_table())}"


def cope_picture(wps: Wps, sheet: Sheet, target: str = "", *, true_size: bool = False) -> DisplayList | None:
    """Return the pattern that a member is cut by, or those of all, at true size or as large as the sheet lets them be.

    `None` without a possible node.
    """
    node = node_of(wps)
    if node is None:
        return None
    tubes = tuple(each.tube for each in node.members)
    patterns = []
    for n, each in enumerate(node.members):
        if target in ("", each.target):
            pattern = cope(node.run_od_mm, tubes, n)
            around, gap = (
                show(value, "length", sheet.system, unit_table()) for value in (pattern.points[-1][0], pattern.gap_mm)
            )
            notes = (f"{around} round the outside", f"outer edge stands off up to {gap}")
            patterns.append((f"{n + 1}  {each.name}, {_size(each.tube, sheet.system)}", notes, pattern))
    if not patterns:
        return None

    def make(scale: float) -> DisplayList:
        return cope_patterns(patterns, scale=scale, measure=sheet.measure)

    return make(1.0) if true_size else fitted(make, sheet.width_mm, sheet.height_mm)
