"""The plan: which coupons cover all joints at least cost, why each is needed, and what stays uncovered and why."""

import math
import time
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from itertools import pairwise
from typing import Final

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.codes import Boxes, Demand, Pack, Stated
from anlage.core.codes.case import case_of
from anlage.core.codes.combine import jointly_covered, pairs_joined
from anlage.core.errors import AnlageError
from anlage.core.planner import Cover, least_cover
from anlage.core.planner.cover import SECONDS
from anlage.core.procedure import Wps
from anlage.core.ranges import Choices, Interval, Numbers, Range, numbers, without
from anlage.core.record import Pqr
from anlage.core.variables import spoken
from anlage.session.judging.evidence import evidence_of
from anlage.session.judging.records import coupon_of
from anlage.session.judging.statements import stated_of
from anlage.session.planner.candidates import PLATES_MM, Buyer, Coupon, Stopped, candidates, coupon_of_joint, is_tested
from anlage.session.planner.costs import cost_of
from anlage.session.planner.joints import Joint

POSITION: Final = "position"
LAID: Final = "deposit_thickness_mm"
THICKNESS, DIAMETER = "base_metal_thickness_mm", "diameter_mm"
MOVED: Final = 1e-4  # of cost: of two coupons that do as well, the one welded where the joint is
THINNEST_MM, THICKEST_MM = 1.0, 300.0  # of the map; common practice lies well inside
OPENED: Final = 1.5  # times the thickest joint: no coupon for what nobody welds; own choice
LEAST_OPENED: Final = 0.1  # of a logarithm: less is no gain worth a coupon; own choice
MOST_CANDIDATES: Final = 20_000  # own choice


class Element(Struct, frozen=True):
    """What one coupon has to cover at once: a joint, or a part of it where a code joins records over parts."""

    joint: Joint
    position: str
    part: Interval | None  # of its thickness
    sets: tuple[Mapping[str, Range], ...]  # of each deposit
    beside: tuple[frozenset[str], ...]
    demand: Demand


class Planned(Struct, frozen=True, kw_only=True):
    """One coupon of a plan: what it covers, what nothing else of the plan covers, and what it costs."""

    name: str
    coupon: Coupon
    covers: tuple[str, ...]
    needed_for: tuple[str, ...]
    cost: float
    thickness_mm: Interval | None
    diameter_mm: Interval | None


class Plan(Struct, frozen=True, kw_only=True):
    """A plan.

    Parameters
    ----------
    coupons : to be welded
    already : joints that a record covers, each with its number
    uncovered : joints that no coupon covers, each with why
    cover : how good it is
    tried : how many coupons might be welded
    seconds : that it took
    """

    pack: Pack
    coupons: tuple[Planned, ...]
    already: tuple[tuple[str, str], ...]
    uncovered: tuple[tuple[str, str], ...]
    said: tuple[str, ...]
    cover: Cover
    elements: tuple[Element, ...]
    tried: int
    seconds: float


class Planning(Struct, frozen=True, kw_only=True):
    """What a plan is made by: the code, the person's costs, records that are there, and how long it may take."""

    pack: Pack
    costs: Mapping[str, float] = {}
    records: Sequence[Pqr] = ()
    seconds: float = SECONDS


def planned(joints: Sequence[Joint], by: Planning, go_on: Callable[[], bool] = lambda: True) -> Plan | None:
    """Return the coupons that cover all joints that any coupon covers, at least cost; `None` where it was cancelled.

    Parameters
    ----------
    joints : to be covered
    by : code, costs, records
    go_on : asked between the steps; once it says no, nothing is returned
    """
    try:
        return _planned(joints, by, go_on)
    except Stopped:
        return None


def _planned(joints: Sequence[Joint], by: Planning, go_on: Callable[[], bool]) -> Plan:
    start = time.perf_counter()
    elements, refused = _elements(joints, by.pack)
    left, already = _without_covered(elements, by)
    wanted = tuple({id(each.joint): each.joint for each in left}.values())
    coupons: list[Coupon] = []
    for each in candidates(wanted, by.pack):
        coupons.append(each)
        if not go_on():
            raise Stopped
        if len(coupons) >= MOST_CANDIDATES:
            break
    buyer = Buyer(by.pack, [each.pqr for each in coupons], go_on)
    left = _in_parts(left, buyer)
    covers: list[set[int]] = [set() for _ in coupons]
    for number, element in enumerate(left):
        for place in covering(element, buyer.boxes(element.demand)):
            covers[place].add(number)
        if not go_on():
            raise Stopped
    costs = [cost_of(each.pqr, by.costs) + (MOVED if each.is_moved else 0.0) for each in coupons]
    cover = least_cover([frozenset(each) for each in covers], costs, len(left), seconds=by.seconds)
    worked = _Worked(left, coupons, covers, costs, buyer)
    found = tuple(worked.planned(place, n, cover.chosen) for n, place in enumerate(cover.chosen, 1))
    bare: dict[str, list[Element]] = {}
    for n in cover.uncovered:
        bare.setdefault(_why(left[n], buyer), []).append(left[n])
    uncovered = (*refused, *((name, why) for why, own in bare.items() for name in _named(own)))
    said = (*_said(joints), *_not_joined(left, cover, [each.coupon.pqr for each in found], by))
    return Plan(
        pack=by.pack, coupons=found, already=already, uncovered=uncovered, said=said, cover=cover,
        elements=tuple(left),
        tried=len(coupons), seconds=time.perf_counter() - start,
    )  # fmt: skip


def moved(plan: Plan, number: int, thickness_mm: float) -> Planned | None:
    """Return what a coupon of a plan would buy and cover in another thickness; `None` where it cannot be made so."""
    own = plan.coupons[number]
    joint, size = Joint(own.coupon.like, own.coupon.wps), replace(own.coupon.size, thickness_mm=thickness_mm)
    try:
        coupon = coupon_of_joint(joint, plan.pack, size, impact=is_tested(own.coupon.pqr))
    except AnlageError:
        return None
    buyer = Buyer(plan.pack, [coupon.pqr])
    held = [each for each in plan.elements if covering(each, buyer.boxes(each.demand))]
    demand = plan.elements[0].demand
    area = bought_area(buyer.boxes(held[0].demand if held else demand), 0)
    return replace(own, coupon=coupon, covers=_named(held), thickness_mm=area[0], diameter_mm=area[1])


def openings(plan: Plan) -> tuple[tuple[Coupon, Interval], ...]:
    """Return of further coupons welded like those of a plan what thicknesses each would open, the most first.

    Thicknesses are weighed by how many times the least goes into the most, as the map shows them.
    """
    found: dict[str, tuple[float, Coupon, Interval]] = {}
    for number, own in enumerate(plan.coupons):
        if own.thickness_mm is None:
            continue
        like = own.coupon.words(sized=False)
        known = [
            each.thickness_mm
            for each in plan.coupons
            if each.thickness_mm is not None and each.coupon.words(sized=False) == like
        ]
        most = OPENED * max(each.joint.wps.range.thickness_mm.high for each in plan.elements)  # type: ignore[union-attr]
        for thick in (each for each in PLATES_MM if each <= most):
            other = moved(plan, number, thick)
            if other is None or other.thickness_mm is None:
                continue
            further = without(numbers([other.thickness_mm]), numbers(known))
            for span in further.parts if isinstance(further, Numbers) else ():
                share = math.log(min(span.high, THICKEST_MM) / max(span.low, THINNEST_MM))
                if share > (found[like][0] if like in found else LEAST_OPENED):
                    found[like] = share, other.coupon, Interval(span.low, span.high)
    ranked = sorted(found.values(), key=lambda each: -each[0])
    return tuple((coupon, span) for _, coupon, span in ranked)


def that_count(records: Iterable[Pqr], pack: Pack) -> tuple[Pqr, ...]:
    """Return the records that count by a code; one that contradicts itself carries nothing."""
    found = []
    for record in records:
        try:
            state = evidence_of(record, pack, coupon_of(record, pack)).state
        except AnlageError:
            continue
        if state == "accepted":
            found.append(record)
    return tuple(found)


def covering(element: Element, boxes: Boxes) -> frozenset[int]:
    """Return the boxes that hold everything that an element states, every deposit by one of theirs."""
    found: frozenset[int] | None = None
    for sets, beside in zip(element.sets, element.beside, strict=True):
        spare = boxes.variables - sets.keys()  # what is not stated is set as the coupon is welded
        own = frozenset(order for order, _ in boxes.places_inside(sets, beside, spare))
        found = own if found is None else found & own
    return found or frozenset()


def held_by(joint: Joint, buyer: Buyer) -> bool:
    """Return whether the engine holds a joint inside by all coupons of a buyer, in everything that it states.

    Each deposit by one of them, or by several together where the code joins records so.
    """
    pack = buyer.pack
    elements, _ = _elements([joint], pack, in_whole=True)
    if not elements:
        return False
    whole = elements[0]
    boxes = buyer.boxes(whole.demand)
    for sets, beside in zip(whole.sets, whole.beside, strict=True):
        unstated = beside | (boxes.variables - sets.keys())
        near = boxes.near(sets, unstated, pack.combination.spare)
        alone = boxes.first(sets, unstated) is not None
        if not (alone or jointly_covered(pack, near, sets) or pairs_joined(pack, near, sets)):
            return False
    return True


def _elements(
    joints: Sequence[Joint], pack: Pack, *, in_whole: bool = False
) -> tuple[list[Element], list[tuple[str, str]]]:
    """Return what has to be covered, and the joints that contradict themselves or that the code does not know."""
    elements, refused = [], []
    joins = not in_whole and any(POSITION in union.variables for union in pack.combination.unions)
    for joint in joints:
        stated = stated_of(_answered(joint.wps, pack), pack)
        case = case_of(pack, stated, Boxes(()))
        clashes = [text for each in case.clashes for text in each.values()]
        unknown = [each.process for each in stated.deposits if each.process not in pack.processes]
        if clashes or unknown:
            refused.append((joint.name, clashes[0] if clashes else f"{pack.name} has no rules for {unknown[0]}"))
            continue
        elements += _split(joint, stated, tuple(case.sets), tuple(case.beside), joins=joins)
    return elements, refused


def _answered(wps: Wps, pack: Pack) -> Wps:
    """Return a joint in which a demand that nobody stated is not made: a plan says so."""
    header = wps.header
    asked: dict[str, bool | str] = {
        name: False for name in ("impact", "hardness", "sour_service") if getattr(header, name) is None
    }
    if "loading" in {each.id for each in pack.demands}:
        asked |= {} if header.loading else {"loading": "static"}
        asked |= {} if header.strength else {"strength": "matching"}
    return replace(wps, header=replace(header, **asked)) if asked else wps


def _split(
    joint: Joint, stated: Stated, sets: tuple[dict[str, Range], ...], beside: tuple[frozenset[str], ...], *, joins: bool
) -> list[Element]:
    position = stated.joint.get(POSITION)
    tokens = sorted(position.tokens) if isinstance(position, Choices) and not position.but else []
    if not joins or len(tokens) < 2:
        return [Element(joint, "", None, sets, beside, stated.demand)]
    return [
        Element(joint, token, None, _with(sets, POSITION, Choices(frozenset((token,)))), beside, stated.demand)
        for token in tokens
    ]


def _with(sets: tuple[Mapping[str, Range], ...], variable: str, own: Range) -> tuple[Mapping[str, Range], ...]:
    return tuple({**each, variable: own} if variable in each else each for each in sets)


def _in_parts(elements: Sequence[Element], buyer: Buyer) -> list[Element]:
    """Return elements whose thickness no one coupon holds in parts between the ends of what coupons buy."""
    if not any(THICKNESS in union.variables for union in buyer.pack.combination.unions):
        return list(elements)
    found: list[Element] = []
    for element in elements:
        stated = element.sets[0].get(THICKNESS)
        boxes = buyer.boxes(element.demand)
        if covering(element, boxes) or not isinstance(stated, Numbers) or len(stated.parts) != 1:
            found.append(element)
            continue
        whole = stated.parts[0]
        spans = [bought_area(boxes, place)[0] for place in range(len(boxes.boxes))]
        ends = sorted({end for span in spans if span is not None for end in (span.low, span.high)
                       if whole.low < end < whole.high})  # fmt: skip
        for low, high in pairwise((whole.low, *ends, whole.high)):
            part = Interval(low, high)
            found.append(
                replace(
                    element,
                    part=part,
                    sets=_with(_with(element.sets, THICKNESS, numbers([part])), LAID, numbers([Interval(0.0, high)])),
                )
            )
    return found


def _without_covered(elements: Sequence[Element], by: Planning) -> tuple[list[Element], tuple[tuple[str, str], ...]]:
    """Return the elements that no record covers, and those that one does, with its number."""
    if not by.records:
        return list(elements), ()
    buyer = Buyer(by.pack, by.records)
    left, already = [], []
    for element in elements:
        found = sorted(covering(element, buyer.boxes(element.demand)))
        if found:
            already.append((element.joint.name, by.records[found[0]].header.number))
        else:
            left.append(element)
    return left, tuple(dict.fromkeys(already))


class _Worked(Struct, frozen=True):
    """All that a plan was worked out of."""

    left: Sequence[Element]
    coupons: Sequence[Coupon]
    covers: Sequence[set[int]]
    costs: Sequence[float]
    buyer: Buyer

    def planned(self, place: int, number: int, chosen: Sequence[int]) -> Planned:
        """Return one coupon out of those that are chosen."""
        others = set[int]().union(*(self.covers[each] for each in chosen if each != place))
        own = sorted(self.covers[place])
        thickness, diameter = bought_area(self.buyer.boxes(self.left[own[0]].demand), place)
        return Planned(
            name=f"C{number}", coupon=self.coupons[place], covers=_named([self.left[n] for n in own]),
            needed_for=_named([self.left[n] for n in own if n not in others]), cost=self.costs[place],
            thickness_mm=thickness, diameter_mm=diameter,
        )  # fmt: skip


def _named(elements: Sequence[Element]) -> tuple[str, ...]:
    """Return what elements are called, the parts of one joint together."""
    found: dict[str, list[Element]] = {}
    for each in elements:
        found.setdefault(each.joint.name, []).append(each)
    names = []
    for name, own in found.items():
        places = dict.fromkeys(each.position for each in own if each.position)
        spans = numbers([each.part for each in own if each.part is not None]).parts
        parts = [*places, *(f"{span.low:g} to {span.high:g} mm" for span in spans)]
        names.append(f"{name} ({', '.join(parts)})" if parts else name)
    return tuple(names)


def bought_area(boxes: Boxes, place: int) -> tuple[Interval | None, Interval | None]:
    """Return the thicknesses and diameters that a coupon surely buys in all its deposits."""
    box = boxes.boxes[place]
    spans = []
    for variable in (THICKNESS, DIAMETER):
        found = [own[variable].sure for own in box.deposits if variable in own]
        known = [each.parts for each in found if isinstance(each, Numbers) and each.parts]
        low = max((parts[0].low for parts in known), default=None)
        high = min((parts[-1].high for parts in known), default=None)
        spans.append(Interval(low, high) if low is not None and high is not None and low <= high else None)
    return spans[0], spans[1]


def _why(element: Element, buyer: Buyer) -> str:
    """Return what keeps the nearest coupon from covering an element."""
    boxes = buyer.boxes(element.demand)
    words: list[str] = []
    for sets, beside in zip(element.sets, element.beside, strict=True):
        best = boxes.best(sets, beside)
        if best is None:
            return "no coupon can be welded like it"
        failing = [name for name in (*best.outside, *best.unproven) if name in sets]
        words += [f"{spoken(name)} {'outside' if name in best.outside else 'unproven'}" for name in failing]
    return (
        f"by the nearest coupon: {', '.join(dict.fromkeys(words))}"
        if words
        else "no one coupon covers all its deposits"
    )


def _not_joined(left: Sequence[Element], cover: Cover, coupons: Sequence[Pqr], by: Planning) -> Iterator[str]:
    """Yield the joints all of whose parts are covered, and which the code does not hold by these coupons together."""
    bare = {id(left[n].joint) for n in cover.uncovered}
    buyer = Buyer(by.pack, [*coupons, *by.records])
    for joint in {id(each.joint): each.joint for each in left if id(each.joint) not in bare}.values():
        if not held_by(joint, buyer):
            why = f"{by.pack.name} is not known to join these records over it"
            yield f"Every part of {joint.name} is covered, but {why}."


def _said(joints: Sequence[Joint]) -> tuple[str, ...]:
    """Return what was taken for granted of the joints."""
    unsaid = [each.name for each in joints if each.wps.header.impact is None]
    if not unsaid:
        return ()
    return (
        f"Impact is not stated of {', '.join(unsaid[:6])}{' and others' if len(unsaid) > 6 else ''}: not demanded.",
    )
