"""A whole draft: what is usual, within what the code allows one procedure, with the temperatures that govern."""

from collections.abc import Sequence

from anlage.core.procedure import Wps
from anlage.session.draft.temperatures import with_temperatures
from anlage.session.draft.widths import fill_within
from anlage.session.judging.assessment import Assessor
from anlage.session.judging.editions import SHIPPED, Codes
from anlage.session.proposal.draft import Drafted, drafted


def whole_draft(wps: Wps, processes: Sequence[str] = (), codes: Codes = SHIPPED) -> Drafted:
    """Return a procedure in which what is not stated is proposed, as far as it is known.

    Parameters
    ----------
    wps, processes : as in `drafted`
    codes : those of the works: a construction code asks what its rulebook makes of it

    Raises
    ------
    InputError : product or thickness is not stated
    """
    assess = Assessor((), codes).assess  # no record: a draft is proved by none yet
    return with_temperatures(drafted(wps, processes, lambda each: fill_within(each, assess)), codes)
