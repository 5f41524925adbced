"""The waits that were worked out last: given again for all that they hang on, whatever else was edited since."""

from collections.abc import Callable
from threading import Lock
from typing import Any

from anlage.core.machine import Calibrated
from anlage.core.procedure import Wps
from anlage.session.heat.meters import NO_MACHINES, metered
from anlage.session.heat.sequence import GIVEN_UP, Waits, asked_of, waits_of

KEPT = 8
_adding = Lock()
_known: tuple[tuple[Any, Waits | str], ...] = ()


def known_waits(wps: Wps, works: Calibrated = NO_MACHINES) -> Waits | str | None:
    """Return the waits of a procedure where they were worked out before, or why there are none; else `None`."""
    own = _hangs_on(wps, works)
    return next((answer for each, answer in _known if each == own), None)


def worked_out(
    wps: Wps, works: Calibrated = NO_MACHINES, goes_on: Callable[[float], bool] = lambda _share: True
) -> Waits | str | None:
    """Return the waits of a procedure, run where they are not known yet; `None` where something of it is missing.

    Takes seconds: never on the thread of the window.
    """
    global _known  # noqa: PLW0603 - what was worked out is the same for whoever asks
    if asked_of(wps).missing:
        return None
    found = known_waits(wps, works)
    if found is None:
        found = waits_of(wps, goes_on, works)
        if found != GIVEN_UP:
            with _adding:
                _known = (*_known[-(KEPT - 1) :], (_hangs_on(wps, works), found))
    return found


def _hangs_on(wps: Wps, works: Calibrated) -> Any:
    preheat = wps.preheat.minimum_c, wps.preheat.interpass_maximum_c
    parts = (wps.joint, wps.metals, wps.piece, wps.purge, wps.seam, wps.deposits, wps.passes, wps.sectors, wps.members)
    return preheat, *parts, dict(metered(wps, works))
