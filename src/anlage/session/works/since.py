"""What became of a procedure since it was issued: by its own changes, and by what it rests on."""

from collections.abc import Callable

from anlage.core.errors import InputError
from anlage.core.procedure import Wps
from anlage.core.quantities.units import System
from anlage.session.judging.assessment import Assessment
from anlage.session.judging.change_cost import changes_between
from anlage.session.judging.ladder import problem_sentences
from anlage.session.works.differences import differences
from anlage.session.works.standing import as_draft, issued_value
from anlage.store import Revision

ASKING = ("requalify", "unproven")
Assess = Callable[[Wps], Assessment]


def since_sentence(last: Revision | None, wps: Wps, assess: Assess, system: System) -> str:
    """Return how many changes were made since the last revision and what they ask for; "" where there are none.

    Parameters
    ----------
    last : the revision that was issued last
    wps : the procedure as it is now
    assess : says how a procedure stands
    """
    issued = issued_value(last.body, "wps") if last is not None else None
    if last is None or issued is None or as_draft(issued) == as_draft(wps):
        return ""
    count = len(differences(as_draft(issued), as_draft(wps), system))
    said = f"since revision {last.number}: {count} change{'' if count == 1 else 's'}"
    try:
        found = changes_between(as_draft(issued), wps, assess)
    except InputError:
        return said
    # Where a changed variable fails, others fail with it as another record is the nearest now: those are no changes.
    told_of = [each for each in found if each.changed and each.consequence in ASKING] or found
    records, open_ones = (sum(each.consequence == kind for each in told_of) for kind in ASKING)
    told = [f"{records} need{'s' if records == 1 else ''} a new record"] if records else []
    told += [f"{open_ones} {'is' if open_ones == 1 else 'are'} unproven"] if open_ones else []
    return ", ".join([said, *(told or ["all still covered"])])


def fallen(last: Revision | None, assess: Assess, system: System = "si") -> str:
    """Return why a revision that was inside when it was issued is so no more; "" where it is, or never was.

    What it rests on may be another since: a record, a rule, a correction of one.
    """
    issued = issued_value(last.body, "wps") if last is not None else None
    if last is None or not isinstance(issued, Wps) or issued.revision.verdict != "inside":
        return ""
    wps = as_draft(issued)
    proof = assess(wps)
    verdict = proof.verdict
    if verdict == "inside":
        return ""
    why = next(iter(problem_sentences(wps, proof, system)), proof.missing)
    return f"revision {last.number} was inside when it was issued and is {verdict} now: {why}"
