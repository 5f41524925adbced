"""Coupons that might be welded: what a joint is welded with, in every size, place and with or without impact tests.

What each buys comes from the boxes of the engine alone. Sizes are those that plates are sold in, with the ends of the
joints themselves; pipes are those of the catalogue.
"""

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from itertools import product
from typing import Final, TypeVar

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.codes import Boxes, Demand, Pack, cover_box
from anlage.core.codes import Coupon as CodeCoupon
from anlage.core.codes.conditions import concern
from anlage.core.codes.facts import Facts
from anlage.core.document import with_at
from anlage.core.errors import AnlageError
from anlage.core.procedure import Wps
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.core.record import Pqr, with_recorded_deposit, with_row
from anlage.data.tables import catalogue, unit_table
from anlage.session.judging.derivations import DERIVATIONS
from anlage.session.judging.records import coupon_of
from anlage.session.planner.joints import Joint

PLATES_MM: Final = (
    3.0, 4.0, 5.0, 6.0, 8.0, 10.0, 12.0, 15.0, 16.0, 18.0, 20.0, 25.0, 30.0, 35.0, 40.0, 45.0, 50.0, 60.0, 75.0, 80.0,
    100.0, 150.0, 200.0,
)  # as plates are commonly sold; own choice  # fmt: skip
ROOT_MM: Final = 4.0  # what the first of several processes lays of a coupon; own choice
CARRIED: Final = (
    "process", "filler", "current_type", "transfer_mode", "shielding_gas", "backing_gas", "trailing_gas", "operation",
    "closed_chamber", "electrodes", "waveform", "flux", "flux_type", "recrushed_slag", "supplemental_filler",
    "filler_make", "orifice_gas", "keyhole", "output", "hot_wire", "progression", "oscillation",
)  # fmt: skip
NEAR: Final = 0.01  # of a diameter: pipes are named by round ones; own choice
IMPACT: Final = "impact"


class Coupon(Struct, frozen=True, kw_only=True):
    """A coupon that might be welded, as the record that it would be, with the joint that it is welded like."""

    like: str
    wps: Wps  # of that joint
    size: "Size"
    pqr: Pqr
    is_moved: bool = False  # to another position than the joint's

    def words(self, system: System = "si", *, sized: bool = True) -> str:
        """Return what it is, in short, in the units of the reader; `sized` with its thickness and diameter."""
        metals = [each.name for each in (self.pqr.metals.one, self.pqr.metals.other) if each is not None and each.name]
        processes = "+".join(each.process or "" for each in self.pqr.deposits)
        size = _length(self.size.thickness_mm, system)
        if self.size.od_mm is not None:
            size = f"{size}, Ø {_length(self.size.od_mm, system)}"
        rest = [self.pqr.technique.position, "impact" if is_tested(self.pqr) else "", _treated(self.pqr)]
        return ", ".join(filter(None, (" to ".join(dict.fromkeys(metals)), processes, size if sized else "", *rest)))


def _length(value_mm: float, system: System) -> str:
    return show(value_mm, "length", system, unit_table())


def _treated(pqr: Pqr) -> str:
    return "" if pqr.pwht.kind in (None, "none") else "heat-treated"


def is_tested(pqr: Pqr) -> bool:
    """Return whether impact is tested on a coupon."""
    return any(each.kind == IMPACT for each in pqr.results)


def candidates(joints: Sequence[Joint], pack: Pack) -> Iterator[Coupon]:
    """Yield every coupon that might cover some of the joints, each once.

    Parameters
    ----------
    joints : to be covered
    pack : the code: where it has no rule on positions, one is as good as any
    """
    tested = sorted({bool(each.wps.header.impact) for each in joints})
    for joint in {_recipe(each.wps): each for each in reversed(joints)}.values():
        sizes, roots = _sizes(joint, joints), _roots(joint.wps)
        places = _that_matter(joint, pack, sizes[0], _places(joint, joints, pack)) if sizes else []
        for size, root, place, impact in product(sizes, roots, places, tested):
            try:
                yield coupon_of_joint(joint, pack, Size(*size, root, place), impact=impact)
            except AnlageError:
                continue  # such a coupon cannot be


def coupon_of_joint(joint: Joint, pack: Pack, size: "Size", *, impact: bool) -> Coupon:
    """Return a coupon that is welded like a joint, in a size.

    Raises
    ------
    InputError : it cannot be
    """
    pqr = coupon_like(joint.wps, pack, size, impact=impact)
    moved = size.position != joint.wps.technique.position
    return Coupon(like=joint.name, wps=joint.wps, size=size, pqr=pqr, is_moved=moved)


def _that_matter(
    joint: Joint, pack: Pack, size: tuple[float, float | None], places: list[str | None]
) -> list[str | None]:
    """Return some places; where a coupon buys the same in all of them, that of the joint alone."""
    own = joint.wps.technique.position
    bought = set()
    for place in places:
        try:
            coupon = coupon_of(coupon_like(joint.wps, pack, Size(*size, ROOT_MM, place), impact=False), pack)
        except AnlageError:
            return places
        box = cover_box(pack, coupon, Demand(units=joint.wps.header.units))
        bought.add(repr([{name: (each.sure, each.possible) for name, each in one.items()} for one in box.deposits]))
    return places if len(bought) > 1 else [own if own in places else next(iter(places), None)]


def _roots(wps: Wps) -> list[float]:
    """Return what the first of several processes may lay of a coupon: as usual, or as it is stated."""
    if len(wps.deposits) < 2:
        return [0.0]
    stated = wps.deposits[0].thickness_mm
    return sorted({ROOT_MM, *((stated.low, stated.high) if stated is not None and stated.low > 0 else ())})


def _recipe(wps: Wps) -> str:
    """Return what tells joints apart that are welded otherwise: all but their sizes and places."""
    deposits = [[str(getattr(each, name, "")) for name in CARRIED] for each in wps.deposits]
    sides = [each.name if each else None for each in (wps.metals.one, wps.metals.other)]
    heat = [_read_of(wps, each.id) for each in wps.deposits]
    return repr((sides, deposits, wps.joint.kind, wps.joint.product, wps.header.weld, str(wps.pwht), str(wps.preheat),
                 heat, wps.technique.progression))  # fmt: skip


def _places(joint: Joint, joints: Sequence[Joint], pack: Pack) -> list[str | None]:
    """Return where a coupon like a joint may be welded: as joints of its product are, one place at a time."""
    own = joint.wps.joint.product
    if "position" not in pack.variables or not any(rule.is_of_record for rule in pack.variables["position"]):
        return [joint.wps.technique.position]
    stated = [each.wps.technique.position for each in joints if each.wps.joint.product == own]
    single = [one.strip() for each in stated if each for one in each.replace(";", ",").split(",")]
    return list(dict.fromkeys(single)) or [None]


class Size(Struct, frozen=True):
    """How a coupon is made: thickness, outside diameter, what the first of several processes lays [mm], and where."""

    thickness_mm: float
    od_mm: float | None
    root_mm: float
    position: str | None


def _sizes(joint: Joint, joints: Sequence[Joint]) -> list[tuple[float, float | None]]:
    """Return the sizes of coupons that are welded like a joint."""
    spans = [each.wps.range.thickness_mm for each in joints]
    ends = {end for span in spans if span is not None for end in (span.low, span.high) if 0 < end < 1000}
    most = max(ends, default=0.0)
    thick = sorted({*ends, *(each for each in PLATES_MM if each <= most * 1.001)})
    if joint.wps.joint.product != "pipe":
        return [(each, None) for each in thick]
    return sorted({size for each in joints for size in _pipes_of(each.wps)}) or [(each, None) for each in thick]


def _pipes_of(wps: Wps) -> Iterator[tuple[float, float]]:
    """Yield wall and outside diameter of pipes that are made: the thinnest and the thickest pipe of a joint's range."""
    span = wps.range.diameter_mm
    if wps.joint.product != "pipe" or span is None:
        return
    if wps.joint.od_mm and wps.joint.thickness_mm:
        yield wps.joint.thickness_mm, wps.joint.od_mm
    low, high = span.low * (1 - NEAR), span.high * (1 + NEAR)
    made = sorted({each.od_mm for each in catalogue().pipes if low <= each.od_mm <= high})
    for od in dict.fromkeys((*made[:1], *made[-1:])):
        yield from ((each.wall_mm, od) for each in catalogue().pipes if each.od_mm == od)


def coupon_like(wps: Wps, pack: Pack, size: Size, *, impact: bool) -> Pqr:
    """Return the record of a coupon that is welded as a procedure says, in a size and place, all its tests passed.

    Raises
    ------
    InputError : it cannot be
    """
    thickness, joint = size.thickness_mm, wps.joint
    pqr = Pqr(header=wps.header, metals=wps.metals, joint=joint, technique=wps.technique,
              pwht=wps.pwht, preheat_least_c=wps.preheat.minimum_c,
              interpass_most_c=wps.preheat.interpass_maximum_c)  # fmt: skip
    pqr = with_at(with_at(pqr, "joint/thickness_mm", thickness), "joint/od_mm", size.od_mm)
    pqr = with_at(with_at(pqr, "header/codes", (pack.code,)), "technique/position", size.position)
    left = thickness
    for place, each in enumerate(wps.deposits):
        last = place == len(wps.deposits) - 1
        laid = left if last else min(size.root_mm if place == 0 else ROOT_MM, left / 2)
        left -= laid
        own = {name: getattr(each, name) for name in CARRIED if hasattr(each, name)}
        own["max_pass_thickness_mm"] = _thickest_pass(wps, each.id, laid)
        pqr, _ = with_recorded_deposit(pqr, **own, thickness_mm=laid, **_read_of(wps, each.id),
                                       filler_diameter_mm=_one(each.filler_diameter_mm))  # fmt: skip
    for kind, count in tests_of(pqr, pack).items():
        pqr, _ = with_row(pqr, "results", kind=kind, count=count, passed=True)
    if impact:
        pqr, _ = with_row(pqr, "results", kind=IMPACT, count=2, passed=True)
    return pqr


def _thickest_pass(wps: Wps, deposit: str, laid: float) -> float | None:
    """Return how thick the thickest pass of a coupon is: as stated, never more than the deposit."""
    spans = [each.thickness_mm for each in wps.passes if each.deposit == deposit]
    known = [span.high for span in spans if span is not None]
    return min(max(known), laid) if known and len(known) == len(spans) else None


def _one(span: Interval | None) -> float | None:
    return span.low if span is not None and span.is_single else None


def _read_of(wps: Wps, deposit: str) -> dict[str, object]:
    """Return what would be read of a deposit welded in the middle of its ranges, and as hot as its hottest pass."""
    own = [each for each in wps.passes if each.deposit == deposit]
    found: dict[str, object] = {}
    for name in ("current_a", "voltage_v", "travel_speed_mm_min"):
        spans = [span for each in own if (span := getattr(each, name)) is not None]
        if spans and len(spans) == len(own):
            found[name] = {"mean": (min(s.low for s in spans) + max(s.high for s in spans)) / 2}
    heats = [DERIVATIONS["wps", "arc_energy"](wps, each) for each in own]
    known = [each for each in heats if each is not None]
    if known and len(known) == len(heats):
        found["heat_input_kj_mm"] = {"mean": max(each.high for each in known)}
        found = {name: each for name, each in found.items() if name == "heat_input_kj_mm"}
    return found


def tests_of(pqr: Pqr, pack: Pack) -> Mapping[str, int]:
    """Return the tests that a code asks of a coupon, by kind; none where it cannot be told."""
    coupon = coupon_of(pqr, pack)
    facts = Facts(coupon.joint, {}, coupon.clashes)
    found: dict[str, int] = {}
    held = [row for row in pack.specimens if concern(row.when, (), facts, pqr.header.units).applies]
    replaced = {other for row in held for other in row.instead}
    for row in held:
        if row.id not in replaced:
            for kind, count in row.any_of[0].items():
                found[kind] = found.get(kind, 0) + count if row.is_added else max(count, found.get(kind, 0))
    return found


Value = TypeVar("Value")


class Stopped(Exception):  # noqa: N818 - nothing is wrong
    """Whoever asked does not wait any longer."""


class Buyer:
    """What coupons buy under the demands of joints, each box worked out once.

    What a code lets a what-if take for granted is taken so of a coupon that does not say it.

    Parameters
    ----------
    pack : the code
    coupons : as the records that they would be
    go_on : asked between them; once it says no, `Stopped` is raised
    """

    def __init__(self, pack: Pack, coupons: Sequence[Pqr], go_on: Callable[[], bool] = lambda: True) -> None:
        self.pack, self._go_on = pack, go_on
        self._coupons = [
            _as_planned(coupon_of(pqr, pack), number, pack) for number, pqr in enumerate(self._each(coupons), 1)
        ]
        self._boxes: dict[Demand, Boxes] = {}

    def boxes(self, demand: Demand) -> Boxes:
        """Return what all coupons buy under a demand."""
        if demand not in self._boxes:
            self._boxes[demand] = Boxes([cover_box(self.pack, each, demand) for each in self._each(self._coupons)])
        return self._boxes[demand]

    def _each(self, values: Iterable[Value]) -> Iterator[Value]:
        for each in values:
            if not self._go_on():
                raise Stopped
            yield each


def _as_planned(coupon: CodeCoupon, number: int, pack: Pack) -> CodeCoupon:
    said = coupon.joint.keys() | frozenset[str]().union(*(each.keys() for each in coupon.deposits))
    assumed = {fact: each.value for fact, each in pack.assumed.items() if fact not in said}
    tested = True if coupon.hardness_tested is None else coupon.hardness_tested
    return replace(coupon, name=f"C{number}", assumed=assumed, hardness_tested=tested)
