"""Where a weld lies to the welder: flat, horizontal, up, down or overhead, from the stated position and progression."""

from collections.abc import Callable
from typing import Final, cast

from msgspec import Struct

from anlage.core.catalogue import Filler
from anlage.core.document import with_at
from anlage.core.errors import InputError
from anlage.core.procedure import Wps
from anlage.core.proposal import Place
from anlage.session.leaves.marks import without_marks
from anlage.session.weld.positions import ALL, standings, stated_positions

LYING: Final = ("flat", "horizontal")
HARDEST_FIRST: Final = ("up", "down", "overhead", "horizontal", "flat")


class Whereabouts(Struct, frozen=True):
    """The place that settings are proposed for, all places that the weld goes through, and in a few words why."""

    place: Place
    all: tuple[Place, ...]
    why: str


def whereabouts(wps: Wps, *, downhill_filler: bool = False) -> Whereabouts:
    """Return where a weld lies: of several stated positions the hardest leads.

    Parameters
    ----------
    wps : the procedure; a position not stated is taken flat, a progression not stated uphill
    downhill_filler : whether the filler goes downhill alone, which then is the progression not stated
    """
    found, progression = _stated_places(wps), wps.technique.progression
    if not found:
        return Whereabouts("flat", ("flat",), "position not stated: taken flat")
    is_downhill = progression == "downhill" or (progression is None and downhill_filler)
    places = {each for steep in found for each in _passed_through(steep, is_downhill=is_downhill)}
    ordered = cast("tuple[Place, ...]", tuple(each for each in HARDEST_FIRST if each in places))
    way = {"up": " uphill", "down": " downhill"}.get(ordered[0], "")
    said = "" if progression in ("uphill", "downhill") or not way else ", progression not stated"
    return Whereabouts(ordered[0], ordered, f"{(wps.technique.position or '').strip()}{way}{said}")


def _stated_places(wps: Wps) -> set[str]:
    """Return the places of the stated positions: those of the product, and for *all* those of the kind of weld."""
    text, weld = wps.technique.position or "", "fillet" if wps.header.weld == "fillet" else "groove"
    rows = [row for row in standings() if row.product in (wps.joint.product, None) or wps.joint.product is None]
    if text.strip().casefold() == ALL:
        return {row.place for row in rows if row.weld == weld}
    tokens = stated_positions(text)
    return {row.place for row in rows if row.token in tokens}


def _passed_through(place: str, *, is_downhill: bool) -> tuple[str, ...]:
    """Return where a weld goes through at a place: upright in its progression, round a fixed pipe through all."""
    steep = ("down",) if is_downhill else ("up",)
    if place == "round":
        return steep if is_downhill else ("overhead", "up", "flat")
    return steep if place == "vertical" else (place,)


def is_lying(filler: Filler) -> bool:
    """Return whether a filler is for flat and horizontal welds alone."""
    return filler.positions == "flat-horizontal"


def goes(filler: Filler, place: str) -> bool:
    """Return whether a filler is meant for a place, by the positions and progressions of its classification."""
    if is_lying(filler) and place not in LYING:
        return False
    return place not in ("up", "down") or not filler.progression or place in filler.progression


def refuse_without(place: str, filler: Filler, others: Callable[[], str]) -> None:
    """Refuse a filler that is not for a place.

    Raises
    ------
    InputError : it is for flat and horizontal alone, or not for that progression
    """
    if goes(filler, place):
        return
    name = filler.classification
    named = others()
    mend = f"take {named}" if named else "take a filler meant for it"
    if is_lying(filler) and place not in LYING:
        what = f"{name} is for flat and horizontal welds alone"
        raise InputError(what, where="position", mend=f"{mend} there, or weld it flat")
    other = "uphill" if place == "down" else "downhill"
    what = f"{name} is not meant for {'downhill' if place == 'down' else 'uphill'}"
    raise InputError(what, where="progression", mend=f"weld it {other}, or {mend}")


def without_idle_progression(wps: Wps) -> Wps:
    """Return the procedure without a progression that was only proposed and has no use in its position any more."""
    path = "technique/progression"
    if path not in wps.proposed or whereabouts(wps).place in ("up", "down"):
        return wps
    return without_marks(with_at(wps, path, None), [path])
