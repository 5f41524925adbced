"""The temperatures of a first draft: the least as what governs asks it, the most as is usual for the metal."""

from msgspec.structs import replace

from anlage.core.document import Proposed, with_, with_at
from anlage.session.heat.asks import Ask, PreheatView
from anlage.session.heat.preheat import preheat_view
from anlage.session.heat.preheat_picture import LEAST, MOST
from anlage.session.heat.scales import degrees_span
from anlage.session.judging.editions import SHIPPED, Codes
from anlage.session.proposal.draft import Drafted

REASON = "preheat/reason"
Taken = tuple[float, str, str]  # how hot [°C], why, how sure


def with_temperatures(found: Drafted, codes: Codes = SHIPPED) -> Drafted:
    """Return a draft in which least preheat and most between passes are proposed where neither is stated.

    `codes` are those of the works: a construction code asks what its rulebook makes of it.

    What is proposed rests on the drafted passes: their least heat input asks for the most preheat. Where no school
    holds, the construction code that asks most is taken, low in confidence while no contract names it.
    """
    wps, said = found.wps, found.said
    view = preheat_view(wps, codes)
    taken: dict[str, Taken] = {}
    if wps.preheat.minimum_c is None:
        least = _least(view)
        if isinstance(least, str):
            said = (*said, least) if least else said
        else:
            taken[LEAST] = least
    usual = view.usual_interpass
    if wps.preheat.interpass_maximum_c is None and usual is not None:
        taken[MOST] = usual[0], f"usual for this metal: {degrees_span(usual, 'si')}", "M"
    for path, (celsius, _, _) in taken.items():
        wps = with_at(wps, path, celsius)
    marks = {path: Proposed(reason=why, confidence=sure) for path, (_, why, sure) in taken.items()}
    if LEAST in taken and wps.preheat.reason is None:
        wps = with_at(wps, REASON, taken[LEAST][1])
        marks[REASON] = replace(marks[LEAST], reason="what the proposed preheat rests on")
    return replace(found, wps=with_(wps, proposed={**wps.proposed, **marks}), said=said)


def _least(view: PreheatView) -> Taken | str:
    """Return the preheat to take, or why there is none; "" where the metal wants none."""
    asked = _asked(view)
    if asked is None:
        hardens = any(each.preheat != "none" for each in view.wants)
        return "No preheat: no school of preheat holds here as far as it is stated; see Heat." if hardens else ""
    ask, why, sure = asked
    celsius, usual = ask.chosen_c, view.usual_interpass
    if celsius is None:
        return ""
    if usual is not None and celsius > usual[0]:
        over = f"{ask.word} asks {celsius:.0f} °C, over the {usual[0]:.0f} °C that are usual between passes"
        return f"No preheat: {over}; state hydrogen and certificate, see Heat."
    return celsius, why, sure


def _asked(view: PreheatView) -> tuple[Ask, str, str] | None:
    """Return what asks, why, and how sure that is."""
    if view.takes is not None:
        return view.takes, view.takes.reason, view.takes.confidence
    hardens = any(each.preheat != "none" for each in view.wants)
    codes = [each for each in view.asks if each.kind == "code" and each.high_c is not None]
    if not hardens or not codes:
        return None
    most = max(codes, key=lambda each: each.high_c or 0.0)
    return most, f"{most.reason}; no construction code is stated, and this one asks most", "L"
