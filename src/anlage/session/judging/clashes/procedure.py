"""What a procedure can say twice."""

import math
from collections.abc import Iterable, Iterator

from anlage.core.joint import MAKES
from anlage.core.procedure import Pass, Wps
from anlage.core.ranges import Interval
from anlage.session.judging.clashes.clash import Check, Clash, Said, holds, is_day, slack


def _thickness_drawn(said: Said) -> Iterator[Clash]:
    wps: Wps = said.document
    stated, thicker = wps.range.thickness_mm, wps.range.thicker_member_mm
    drawn = {"joint/thickness_mm": wps.joint.thickness_mm, "joint/other_thickness_mm": wps.joint.other_thickness_mm}
    drawn |= {f"members/{each.id}/wall_mm": each.wall_mm for each in wps.members}
    known = {path: value for path, value in drawn.items() if value is not None}
    thickest = max(known.values(), default=0.0)
    for path, value in known.items():
        of_thicker = thicker is not None and len(known) > 1 and value == thickest and value > min(known.values())
        span, home = (thicker, "range/thicker_member_mm") if of_thicker else (stated, "range/thickness_mm")
        if span is not None and not holds(span, value):
            text = f"{said.length(value)} is drawn, but the procedure is stated for {said.span(span)}"
            variable = "thicker_member_mm" if of_thicker else "base_metal_thickness_mm"
            yield Clash((home, path), frozenset((variable,)), text)


def _diameter_drawn(said: Said) -> Iterator[Clash]:
    wps: Wps = said.document
    if (span := wps.range.diameter_mm) is None:
        return
    drawn = {"joint/od_mm": wps.joint.od_mm} | {f"members/{each.id}/od_mm": each.od_mm for each in wps.members}
    for path, value in drawn.items():
        if value is not None and not holds(span, value):
            text = f"a diameter of {said.length(value)} is drawn, but the procedure is stated for {said.span(span)}"
            yield Clash(("range/diameter_mm", path), frozenset(("diameter_mm",)), text)


def _deposits_laid(said: Said) -> Iterator[Clash]:
    """Yield the deposits whose stated thickness their own passes contradict, and those that do not make the joint."""
    wps: Wps = said.document
    for each in wps.deposits:
        laid = _laid([one for one in wps.passes if one.deposit == each.id])
        if each.thickness_mm is None or laid is None:
            continue
        home = f"deposits/{each.id}/thickness_mm"
        if laid.low > each.thickness_mm.high + slack(each.thickness_mm.high):
            text = (
                f"the passes lay {said.length(laid.low)}, but at most {said.length(each.thickness_mm.high)} is stated"
            )
        elif laid.high < each.thickness_mm.low - slack(each.thickness_mm.low):
            text = (
                f"the passes lay {said.length(laid.high)}, but at least {said.length(each.thickness_mm.low)} is stated"
            )
        else:
            continue
        leaves = (home, *(f"passes/{one.id}/thickness_mm" for one in wps.passes if one.deposit == each.id))
        yield Clash(leaves, frozenset(("deposit_thickness_mm",)), text, each.id)


def _deposits_of_joint(said: Said) -> Iterator[Clash]:
    wps: Wps = said.document
    joint, spans = wps.joint, [each.thickness_mm for each in wps.deposits]
    if (
        wps.header.weld != "groove"
        or not joint.kind
        or MAKES[joint.kind].family != "butt"
        or joint.thickness_mm is None
    ):
        return
    thickness = min(joint.thickness_mm, joint.other_thickness_mm or joint.thickness_mm)
    least = sum(span.low for span in spans if span is not None)
    most = math.fsum(math.inf if span is None else span.high for span in spans)
    crown = joint.reinforcement_mm.span.high if joint.reinforcement_mm else 0.0
    laid = _laid(wps.passes)
    text = ""
    if not spans:
        return
    if most < thickness - slack(thickness):
        text = f"the deposits add up to at most {said.length(most)} in a joint of {said.length(thickness)}"
    elif least > thickness + slack(thickness):
        text = f"the deposits add up to at least {said.length(least)} in a joint of {said.length(thickness)}"
    elif laid is not None and laid.high < thickness - slack(thickness):
        text = f"all passes lay {said.length(laid.high)} in a joint of {said.length(thickness)}"
    elif laid is not None and laid.low > thickness + crown + slack(thickness) + 1.0:
        text = f"all passes lay {said.length(laid.low)} in a joint of {said.length(thickness)}"
    if text:
        leaves = ("joint/thickness_mm", *(f"deposits/{each.id}/thickness_mm" for each in wps.deposits))
        yield Clash(leaves, frozenset(("deposit_thickness_mm",)), text)


def _laid(passes: Iterable[Pass]) -> Interval | None:
    """Return the least and most that passes can add up to through the thickness, layer by layer.

    Beads beside each other are one layer; a bead of which nobody says where it lies may be either. `None` where
    nothing is laid, or a pass does not state its thickness.
    """
    least = most = least_here = most_here = 0.0  # of all layers, and of the one that is being laid
    seen = False
    for each in passes:
        if each.reach is not None or each.role == "buttering":
            continue
        if each.thickness_mm is None:
            return None
        low, high = each.thickness_mm.low, each.thickness_mm.high
        if not seen or each.layer == "new":
            least, most, least_here, most_here = least + low, most + high, low, high
        elif each.layer == "beside":
            least, most = least + max(low - least_here, 0.0), most + max(high - most_here, 0.0)
            least_here, most_here = max(low, least_here), max(high, most_here)
        else:
            least, most = least + max(low - least_here, 0.0), most + high
            least_here, most_here = max(low, least_here), high
        seen = True
    return Interval(least, max(most, least)) if seen else None


def _beads(said: Said) -> Iterator[Clash]:
    wps: Wps = said.document
    stated, laid = wps.technique.bead_technique, [each for each in wps.passes if each.bead is not None]
    woven = [each for each in laid if each.bead == "weave"]
    if stated == "stringer" and woven:
        number = wps.passes.index(woven[0]) + 1
        text = f"stringers are stated, but pass {number} is woven"
        leaves = ("technique/bead_technique", *(f"passes/{each.id}/bead" for each in woven))
    elif stated == "weave" and len(laid) == len(wps.passes) > 0 and not woven:
        text = "weaving is stated, but every pass is a stringer"
        leaves = ("technique/bead_technique", *(f"passes/{each.id}/bead" for each in laid))
    else:
        return
    yield Clash(leaves, frozenset(("bead_technique",)), text)


def _runs(said: Said) -> Iterator[Clash]:
    wps: Wps = said.document
    whole = [each for each in wps.passes if each.reach is None and each.role not in ("buttering", "strip")]
    second = sum(each.side == "second" or (each.side is None and each.role == "back") for each in whole)
    most = max(second, len(whole) - second)
    if not whole or not wps.technique.runs or (most > 1) == (wps.technique.runs == "multi"):
        return
    text = (
        f"one pass a side is stated, but {most} are laid on one"
        if most > 1
        else "several passes a side are stated, but one is laid"
    )
    yield Clash(("technique/runs", f"passes/{whole[0].id}/role"), frozenset(("runs",)), text)


def _days_of_readings(said: Said) -> Iterator[Clash]:
    for each in said.document.readings:
        if each.day and not is_day(each.day):
            text = f"{each.day} is no day of the calendar"
            yield Clash((f"readings/{each.id}/day",), frozenset(), text, "", "write it as 2026-04-14")


OF_WPS: tuple[Check, ...] = (
    _thickness_drawn,
    _diameter_drawn,
    _deposits_laid,
    _deposits_of_joint,
    _beads,
    _runs,
    _days_of_readings,
)
