"""How long to purge before a tack, before the root and after grinding into it, and what is wanted of the oxygen."""

from msgspec import Struct

from anlage.core.document import kept
from anlage.core.errors import InputError
from anlage.core.procedure import Wps
from anlage.core.purge import Oxygen, oxygen_left, purge_time, purged_volume, thumb_time
from anlage.session.weld.analyses import sides_of

GAS_PPM = 5.0  # high-purity argon holds 5 to 10 (M)
POOR_MIXING = 0.5
FLOOR_MIN = 2.0  # after grinding into a joint, shops say; never less (common practice, no source)
USUAL_PPM = {"austenitic": (50, 100), "duplex": (50, 250), "nickel": (100, 500), "titanium": (20, 50)}  # M
WANTS_FROM_CR = 2.0  # % chromium in the root: from there on a root is purged (common practice)


class PurgeLine(Struct, frozen=True):
    """A row: what, how much, and what to say of it."""

    name: str
    text: str
    note: str = ""


class PurgePlan(Struct, frozen=True):
    """The plan of a purge: its rows, what is missing, and the cautions."""

    needed: str
    lines: tuple[PurgeLine, ...]
    missing: tuple[tuple[str, str], ...]
    cautions: tuple[str, ...]


CAUTIONS = (
    "Argon settles and displaces air: nobody enters a pit or a vessel that was purged before the air is measured.",
    "An oxygen meter at the vent decides; flame, thread and feel of cold gas prove nothing.",
    "Torch and purge never share one flowmeter; read the flow at the piece when several hang on one supply.",
    "Gas in low, out high, through a small vent; less flow for the tie-in, and purging goes on for 6 to 10 mm of weld.",
)


@kept
def purge_plan(wps: Wps) -> PurgePlan:
    """Return the plan of a procedure's purge."""
    needed, usual = _needed(wps)
    purge, missing = wps.purge, []
    volume, thumb = _space(wps)
    if volume is None:
        missing.append(("purge/length_mm", "the length between dams, or the volume"))
    if purge.flow_l_min is None:
        missing.append(("purge/flow_l_min", "the flow"))
    if purge.target_ppm is None:
        missing.append(
            (
                "purge/target_ppm",
                f"the oxygen that may be left; usual {usual}" if usual else "the oxygen that may be left",
            )
        )
    lines: list[PurgeLine] = []
    if volume is not None:
        lines.append(PurgeLine("Volume", f"{volume:.3g} l"))
    if volume is not None and purge.flow_l_min is not None and purge.target_ppm is not None:
        lines += _times(wps, volume, thumb)
    return PurgePlan(needed, tuple(lines), tuple(missing), CAUTIONS)


def _times(wps: Wps, volume: float, thumb: tuple[float, float] | None) -> list[PurgeLine]:
    purge = wps.purge
    assert purge.flow_l_min is not None
    assert purge.target_ppm is not None
    mixing, flow = purge.mixing or 1.0, purge.flow_l_min.low
    try:
        root = purge_time(volume, flow_l_min=flow, oxygen=Oxygen(purge.target_ppm, gas_ppm=GAS_PPM), mixing=mixing)
        poor = purge_time(volume, flow_l_min=flow, oxygen=Oxygen(purge.target_ppm, gas_ppm=GAS_PPM), mixing=POOR_MIXING)
    except InputError as fault:
        return [PurgeLine("Before the root", "no number", f"{fault.what}; {fault.mend}")]
    changes = f"{root.volume_changes:.1f} volume changes to {purge.target_ppm:g} ppm"
    said = f"{changes} at {flow:g} l/min; {GAS_PPM:g} ppm in the gas"
    slowest = poor if purge.mixing is None else root
    again = max(root.mixing_min, FLOOR_MIN), max(slowest.mixing_min, FLOOR_MIN)
    mixed = f"; the longer where only {POOR_MIXING:g} of the gas mixes" if purge.mixing is None else ""
    lines = [
        PurgeLine("Before the root", _minutes(root.mixing_min, slowest.mixing_min), f"{said}{mixed}"),
        PurgeLine("At the very least", _minutes(root.plug_min), "one volume, were nothing mixed"),
        PurgeLine("Again after grinding through", _minutes(*again), f"from air; never under {FLOOR_MIN:g} min"),
    ]
    if thumb is not None:
        minutes = thumb_time(thumb[0], length_mm=thumb[1], flow_l_min=flow)
        left = oxygen_left(minutes * flow / volume, gas_ppm=GAS_PPM, mixing=mixing)
        note = f"which leaves {left:,.0f} ppm: never call it ready"
        lines.append(PurgeLine("By the rule of thumb", _minutes(minutes), note))
    return lines


def _space(wps: Wps) -> tuple[float | None, tuple[float, float] | None]:
    """Return the volume that is purged [l], and bore and length where it is a bore [mm]."""
    purge, joint = wps.purge, wps.joint
    if purge.volume_l is not None:
        return purge.volume_l, None
    if joint.product == "pipe" and joint.od_mm and joint.thickness_mm and purge.length_mm:
        bore = joint.od_mm - 2 * joint.thickness_mm
        if bore > 0:
            return purged_volume(bore, purge.length_mm), (bore, purge.length_mm)
    return None, None


def purged_l(wps: Wps) -> float | None:
    """Return the volume that is purged [l]; `None` while it is not stated."""
    return _space(wps)[0]


def _needed(wps: Wps) -> tuple[str, str]:
    """Return whether the root wants a purge, in a sentence, and what oxygen is usual."""
    usual = [USUAL_PPM[side.family] for side in sides_of(wps) if side.family in USUAL_PPM]
    chromium = max((s.analysis.composition.get("Cr", 0.0) for s in sides_of(wps) if s.analysis), default=0.0)
    if usual:
        low, high = min(each[0] for each in usual), min(each[1] for each in usual)
        text = (
            f"This root is purged: usual {low} to {high} ppm of oxygen for this metal (M); the contract's level rules."
        )
        return text, f"{low} to {high} ppm"
    if chromium >= WANTS_FROM_CR:
        return f"With {chromium:.1f} % chromium the root is purged, else it burns to scale.", ""
    return "This root needs no purge; one that is stated is planned all the same.", ""


def _minutes(value: float, most: float | None = None) -> str:
    return f"{value:.1f} min" if most is None or most == value else f"{value:.1f} to {most:.1f} min"
