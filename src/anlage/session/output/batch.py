"""Several sheets in one go."""

from collections.abc import Sequence

from anlage.core.errors import AnlageError
from anlage.session.judging.assessment import Assessor
from anlage.session.output.printed import Desired, Printed, printed
from anlage.session.works.open_works import OpenWorks
from anlage.session.works.revisions import read_revision, standing_of_revision


def sheets_of(
    works: OpenWorks, ids: Sequence[str], desired: Desired, *, issued: bool
) -> tuple[tuple[Printed, ...], tuple[str, ...]]:
    """Return the sheets of some procedures, and what could not be made, each with its reason.

    Parameters
    ----------
    works : the open works file
    ids : the procedures, in their order
    desired : how sheets are made
    issued : take the revision that was issued last; else the draft as it is
    """
    judge, made, refused = Assessor(works.records(), works.codes()), [], []
    numbers = {entry.id: entry.number for entry in works.entries()}
    for own in ids:
        name = numbers.get(own) or "a procedure without a number"
        try:
            last = next(reversed(works.revisions(own)), None) if issued else None
            if issued and last is None:
                refused.append(f"{name} was never issued")
                continue
            if last is not None:
                value = read_revision(last, "wps")
                standing = standing_of_revision(last, value)
            else:
                working, _ = works.read(own)
                value, standing = working.value, works.standing(own, working)
            made.append(printed(value, judge.assess(value), standing, desired))
        except AnlageError as fault:
            refused.append(f"{name}: {fault}")
    return tuple(made), tuple(refused)
