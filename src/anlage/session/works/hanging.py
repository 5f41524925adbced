"""What hangs on a record: the procedures that are inside by it, and how each would stand if it proved nothing."""

from collections.abc import Sequence

from msgspec import Struct

from anlage.core.errors import AnlageError
from anlage.core.procedure import Wps
from anlage.core.quantities.units import System
from anlage.session.judging.assessment import Assessment, Assessor
from anlage.session.judging.ladder import problem_sentences
from anlage.session.works.open_works import OpenWorks
from anlage.session.works.standing import as_draft, issued_value


class Hanging(Struct, frozen=True):
    """A procedure, or its last revision, that is inside by a record: what it is called, and why it would not be."""

    name: str
    why: str


def hanging_on(works: OpenWorks, record_id: str, system: System) -> tuple[Hanging, ...]:
    """Return the procedures that would not be inside any more if a record proved nothing; drafts and last revisions.

    Parameters
    ----------
    record_id : of the record in its works file
    """
    records, codes = works.records(), works.codes()
    now, then = Assessor(records, codes), Assessor([each for each in records if each[0] != record_id], codes)
    found = []
    for name, wps in _states(works):
        if _is_inside(now.assess(wps)) and not _is_inside(without := then.assess(wps)):
            why = next(iter(problem_sentences(wps, without, system)), without.missing)
            found.append(Hanging(name, without.missing or why))
    return tuple(found)


def hanging_sentences(found: Sequence[Hanging], number: str) -> tuple[str, ...]:
    """Return what hangs on a record, a sentence each."""
    if not found:
        return (f"No procedure is inside by {number} alone: if it proved nothing, all would stand as they do.",)
    return tuple(f"{each.name} would not be inside: {each.why}" for each in found)


def _states(works: OpenWorks) -> Sequence[tuple[str, Wps]]:
    found = []
    for entry in works.entries():
        last = next(reversed(works.revisions(entry.id)), None)
        issued = issued_value(last.body, "wps") if last is not None else None
        if last is not None and issued is not None:
            found.append((f"{entry.number} revision {last.number}", as_draft(issued)))
        try:
            draft = works.read(entry.id)[0].value
        except AnlageError:
            continue  # what cannot be read is inside by nothing
        if issued is None or as_draft(issued) != draft:
            found.append((entry.number or "a procedure without a number", draft))
    return found


def _is_inside(proof: Assessment) -> bool:
    return proof.verdict == "inside"
