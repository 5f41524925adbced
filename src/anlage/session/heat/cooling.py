"""How fast each pass cools and how hard it leaves the steel beside it, and the heat input in which both hold."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from functools import lru_cache

from msgspec import Struct

from anlage.core.document import kept
from anlage.core.errors import InputError
from anlage.core.joint import MAKES
from anlage.core.machine import Calibrated
from anlage.core.metal.analyses import FERROUS
from anlage.core.procedure import Wps
from anlage.core.ranges import Interval
from anlage.core.thermal.cooling import CoolingJoint, CoolingTime, cooling_time
from anlage.core.thermal.hardness import duren_hardness, yurioka_hardness
from anlage.data.metal_tables import cooling_joints, hardness_limits
from anlage.session.heat.meters import NO_MACHINES, metered
from anlage.session.heat.preheat import heat_inputs, thickest_mm
from anlage.session.heat.residual import counted_as_none, left_out, with_residuals
from anlage.session.weld.analyses import Side, sides_of

LEAST_KJ_MM, MOST_KJ_MM = 0.05, 12.0  # between which the band is looked for
HALVINGS = 18  # to a ten-thousandth of a kJ/mm
SOFT = "This metal does not harden: neither cooling time nor hardness is asked."
SCATTER_HV = 30.0  # of both models (M)
AMBIENT_C = 20.0
_band_kept: "tuple[tuple[object, ...], HeatBand] | None" = None


class PassCooling(Struct, frozen=True):
    """One pass: its heat input [kJ/mm], t8/5 from shortest to longest [s], hardness at the shortest [HV10]."""

    number: int
    pass_id: str
    heat_kj_mm: Interval
    t85_s: Interval
    yurioka_hv: float | None
    duren_hv: float | None
    between: bool


class HeatBand(Struct, frozen=True):
    """The heat input [kJ/mm] in which hardness and cooling hold; an end is `None` where nothing limits it."""

    least: float | None
    most: float | None
    why_least: str
    why_most: str


class CoolingView(Struct, frozen=True):
    """All that the view shows; `missing` says what it lacks."""

    passes: tuple[PassCooling, ...]
    band: HeatBand
    limit_hv: float | None
    limit_source: str
    window_s: tuple[float, float] | None
    missing: str
    sentences: tuple[str, ...]
    soft: bool = False  # no side hardens: nothing is asked
    doubts: tuple[str, ...] = ()  # what keeps a pass within the limit from being shown

    @property
    def verdict(self) -> tuple[str, str]:
        """Whether all passes cool and harden within what is allowed."""
        if self.missing:
            return "" if self.soft else "unproven", self.missing
        limit = self.limit_hv
        hard = [each for each in self.passes if limit is not None and (hardest(each) or 0.0) > limit]
        if hard:
            worst = max(hard, key=lambda each: hardest(each) or 0.0)
            text = f"Pass {worst.number} may leave {hardest(worst):.0f} HV10 beside it, over {self.limit_hv:.0f}"
            return "unproven", f"{text}: more preheat or more heat. An estimate, ± {SCATTER_HV:.0f} HV."
        if self.limit_hv is None:
            return "unproven", "No limit of hardness is known for this metal."
        if self.doubts:
            return "unproven", self.doubts[0]
        worst = max(self.passes, key=lambda each: hardest(each) or 0.0)
        said = f"Pass {worst.number} is estimated the hardest, {hardest(worst):.0f} HV10 ± {SCATTER_HV:.0f}"
        if (hardest(worst) or 0.0) + SCATTER_HV > self.limit_hv:
            return "unproven", f"{said}: {self.limit_hv:.0f} is within its scatter."
        return "inside", f"{said}, under {self.limit_hv:.0f}; tempering not counted."


@kept
def cooling_view(wps: Wps, works: Calibrated = NO_MACHINES) -> CoolingView:
    """Return how a procedure's passes cool; `works` says how far the meters of its machines may be off."""
    side, missing = _side(wps)
    limit, source = _limit(wps, side)
    span = _window(side) if side is not None else None
    if side is None or missing:
        return CoolingView((), HeatBand(None, None, "", ""), limit, source, span, missing, (), missing == SOFT)
    passes = tuple(_passes(wps, side))
    if not passes:
        lacking = "State current, volts and speed of the passes: then their cooling is worked out."
        return CoolingView((), HeatBand(None, None, "", ""), limit, source, span, lacking, ())
    doubts = (*_doubts(wps, side, passes, limit), *_by_meters(wps, side, works, limit))
    return CoolingView(
        passes,
        heat_band(wps),
        limit,
        source,
        span,
        "",
        (*_sentences(wps, side, passes), *_said_of_meters(wps, side, passes, works)),
        doubts=doubts,
    )


def heat_band(wps: Wps) -> HeatBand:
    """Return the heat input in which hardness and cooling hold; it hangs on metal, joint and preheat, on no pass."""
    global _band_kept  # noqa: PLW0603 - edits of passes leave it as it is
    parts = (wps.metals, wps.joint, wps.preheat, wps.pwht, wps.header)
    known = _band_kept
    if known is not None and all(a is b for a, b in zip(known[0], parts, strict=True)):
        return known[1]
    side, missing = _side(wps)
    if side is None or missing:
        found = HeatBand(None, None, "", "")
    else:
        found = _band(wps, side, _limit(wps, side)[0], _window(side))
    _band_kept = parts, found
    return found


def _window(side: Side) -> tuple[float, float] | None:
    """Return the t8/5 that makers of such steel recommend [s]."""
    window = hardness_limits().window(side.metal.smys_mpa) if side.metal and side.metal.smys_mpa else None
    return (window.low, window.high) if window else None


def _doubts(wps: Wps, side: Side, passes: Sequence[PassCooling], limit: float | None) -> Iterator[str]:
    """Yield what is not known of some pass or side, and what its analysis leaves out where that matters."""
    judged = {each.pass_id for each in passes}
    if left := [number for number, each in enumerate(wps.passes, 1) if each.id not in judged]:
        yield f"Nothing is known of pass {', '.join(map(str, left))}: state current, volts and speed."
    if silent := [each.number for each in passes if hardest(each) is None]:
        yield f"Neither model speaks of pass {', '.join(map(str, silent))}."
    for other in sides_of(wps):
        if other.family in FERROUS and not _is_known(other):
            yield f"Nothing is known of {other.name or 'the other side'}: state its certificate."
    if not left_out(side) or limit is None:
        return
    harder = [(hardest(each) or 0.0, each.number) for each in _passes(wps, with_residuals(side))]
    most, number = max(harder, default=(0.0, 0))
    if most + SCATTER_HV > limit:
        said = f"Within {limit:.0f} HV10 only if {counted_as_none(left_out(side))}"
        yield f"{said}; else pass {number} may leave {most:.0f} HV10 ± {SCATTER_HV:.0f}."


def widened_heats(wps: Wps, works: Calibrated) -> dict[str, Interval]:
    """Return the heat input of every pass with its meters off both ways, where that is known [kJ/mm]."""
    off = metered(wps, works)
    return {own: off[own].widened(heat) if own in off else heat for own, heat in heat_inputs(wps).items()}


def _by_meters(wps: Wps, side: Side, works: Calibrated, limit: float | None) -> Iterator[str]:
    """Yield the pass that may be over the limit once its meters are off."""
    off = metered(wps, works)
    if not off or limit is None:
        return
    harder = [(hardest(each) or 0.0, each) for each in _passes(wps, side, widened_heats(wps, works))]
    most, worst = max(harder, key=lambda each: each[0])
    if most + SCATTER_HV > limit and worst.pass_id in off:
        said = f"Heat input is known to {off[worst.pass_id].text}"
        yield f"{said}: with it pass {worst.number} may leave {most:.0f} HV10 ± {SCATTER_HV:.0f}, over {limit:.0f}."


def _said_of_meters(wps: Wps, side: Side, passes: Sequence[PassCooling], works: Calibrated) -> Iterator[str]:
    """Yield what the meters of the machines make of the heat input, and of the pass that cools fastest."""
    off = metered(wps, works)
    ranked = sorted((each for each in passes if each.pass_id in off), key=lambda each: each.t85_s.low)
    if not ranked:
        return
    wide = {each.pass_id: each.t85_s for each in _passes(wps, side, widened_heats(wps, works))}
    own = ranked[0]
    span = wide.get(own.pass_id, own.t85_s)
    text = f"t8/5 of pass {own.number} is then {span.low:.1f} to {span.high:.1f} s"
    yield f"Heat input is known to {off[own.pass_id].text}; {text}."


def _is_known(side: Side) -> bool:
    return side.analysis is not None and {"C", "Mn"} <= set(side.analysis.composition)


def hardest(each: PassCooling) -> float | None:
    """Return the harder of both models [HV10]; `None` where neither speaks."""
    return max((value for value in (each.yurioka_hv, each.duren_hv) if value is not None), default=None)


def joint_of(wps: Wps) -> CoolingJoint:
    """Return the shape factors that stand for a joint: of a run between others in a groove, else of a fillet."""
    make = MAKES[wps.joint.kind] if wps.joint.kind else None
    if make is None or make.form != "fillet":
        return cooling_joints()["butt"]
    return cooling_joints()["corner" if make.family == "corner" else "tee"]


def temperatures(wps: Wps) -> tuple[float, float]:
    """Return the coldest and the hottest that a pass starts at [°C]."""
    least = AMBIENT_C if wps.preheat.minimum_c is None else wps.preheat.minimum_c
    most = wps.preheat.interpass_maximum_c
    return least, max(least, least if most is None else most)


def _side(wps: Wps) -> tuple[Side | None, str]:
    """Return the side that hardens most, or what is missing."""
    sides = [side for side in sides_of(wps) if side.family in FERROUS]
    if not sides:
        every = sides_of(wps)
        text = SOFT if every and all(side.family for side in every) else "Name the base metal."
        return None, text
    known = [side for side in sides if _is_known(side)]
    if not known:
        return None, "State the certificate: hardness hangs on carbon and manganese."
    if thickest_mm(wps) is None:
        return None, "State the thickness: cooling hangs on it."
    return max(known, key=lambda side: _hardness(side, 5.0) or 0.0), ""


def _hardness(side: Side, seconds: float) -> float | None:
    assert side.analysis is not None
    found = (yurioka_hardness(side.analysis.composition, seconds), duren_hardness(side.analysis.composition, seconds))
    return max((each.hv for each in found if each is not None), default=None)


def _passes(wps: Wps, side: Side, heats: Mapping[str, Interval] | None = None) -> Iterator[PassCooling]:
    assert side.analysis is not None
    heats = heat_inputs(wps) if heats is None else heats
    for number, each in enumerate(wps.passes, 1):
        if each.id not in heats:
            continue
        span, between = _times(wps, heats[each.id])
        if span is None:
            continue
        models = (
            yurioka_hardness(side.analysis.composition, span.low),
            duren_hardness(side.analysis.composition, span.low),
        )
        first, second = (None if model is None else model.hv for model in models)
        yield PassCooling(number, each.id, heats[each.id], span, first, second, between)


def _times(wps: Wps, heat: Interval) -> tuple[Interval | None, bool]:
    """Return t8/5 from the least heat on the coldest joint to the most on the hottest [s]; whether it is between."""
    thickness, (cold, hot), joint = thickest_mm(wps), temperatures(wps), joint_of(wps)
    assert thickness is not None
    try:
        short, long = _cooled(heat.low, thickness, cold, joint.id), _cooled(heat.high, thickness, hot, joint.id)
    except InputError:
        return None, False
    return Interval(short.shortest_s, max(long.longest_s, short.shortest_s)), short.series_low_s is not None


@lru_cache(maxsize=4096)
def _cooled(heat: float, thickness_mm: float, preheat_c: float, joint: str) -> CoolingTime:
    return cooling_time(heat, thickness_mm=thickness_mm, preheat_c=preheat_c, joint=cooling_joints()[joint])


def _limit(wps: Wps, side: Side | None) -> tuple[float | None, str]:
    limits = hardness_limits()
    if wps.header.sour_service:
        return limits.sour.most, limits.sour.source
    group = side.metal.iso15608_group if side and side.metal else ""
    treated = wps.pwht.kind not in (None, "none")
    return (limits.of(group, treated=treated) if group else None), limits.source


def _band(wps: Wps, side: Side, limit: float | None, window: tuple[float, float] | None) -> HeatBand:
    """Return the heat input in which the coldest pass is not too hard and the hottest does not cool too slowly."""
    least, why_least = None, ""
    if limit is not None:
        least = _crossing(lambda q: (_hard_at(wps, side, q) or 0.0) <= limit)
        why_least = f"{limit:.0f} HV10"
    most, why_most = None, ""
    if window is not None:
        most = _crossing(lambda q: _slow_at(wps, q) > window[1])
        why_most = f"t8/5 {window[1]:.0f} s"
    return HeatBand(least, most, why_least, why_most)


def _hard_at(wps: Wps, side: Side, heat: float) -> float | None:
    thickness = thickest_mm(wps)
    assert thickness is not None
    try:
        found = _cooled(heat, thickness, temperatures(wps)[0], joint_of(wps).id)
    except InputError:
        return None
    return _hardness(side, found.shortest_s)


def _slow_at(wps: Wps, heat: float) -> float:
    thickness = thickest_mm(wps)
    assert thickness is not None
    try:
        return _cooled(heat, thickness, temperatures(wps)[1], joint_of(wps).id).longest_s
    except InputError:
        return 0.0


def _crossing(holds: Callable[[float], bool]) -> float | None:
    """Return the least heat from which on something holds; `None` where it always holds, or never."""
    low, high = LEAST_KJ_MM, MOST_KJ_MM
    if holds(low) or not holds(high):
        return None
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        low, high = (low, middle) if holds(middle) else (middle, high)
    return high


def hardness_curves(wps: Wps, heats: Sequence[float]) -> tuple[tuple[float | None, float | None], ...]:
    """Return the hardness by both models over heat inputs [kJ/mm], on the coldest joint [HV10]."""
    side, _ = _side(wps)
    found: list[tuple[float | None, float | None]] = []
    for heat in heats:
        span = None if side is None else _times(wps, Interval.single(heat))[0]
        if side is None or side.analysis is None or span is None:
            found.append((None, None))
            continue
        steel = side.analysis.composition
        models = (yurioka_hardness(steel, span.low), duren_hardness(steel, span.low))
        first, second = (None if model is None else model.hv for model in models)
        found.append((first, second))
    return tuple(found)


def _sentences(wps: Wps, side: Side, passes: tuple[PassCooling, ...]) -> Iterator[str]:
    yield f"{side.name}: {side.basis}."
    cold, hot = temperatures(wps)
    joint = joint_of(wps).title.capitalize()
    yield f"Shortest: least heat at {cold:.0f} °C; longest: most heat at {hot:.0f} °C. {joint}."
    if any(each.between for each in passes):
        yield "Between thin and thick plate the shorter time of the image series counts."
    yield "One pass beside fresh steel: later passes temper it, and are not counted."
