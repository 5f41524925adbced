"""Issuing a procedure: what speaks against it is shown, and what is issued for all that carries its reason."""

from collections.abc import Sequence

from msgspec import Struct

from anlage.core.codes import Verdict
from anlage.core.document import with_
from anlage.core.errors import InputError
from anlage.core.procedure import Revision as Said
from anlage.core.procedure import Wps
from anlage.core.quantities.units import System
from anlage.session.judging.assessment import Assessment
from anlage.session.judging.ladder import lines
from anlage.session.leaves.draft import Working
from anlage.session.leaves.marks import proposed_sentences
from anlage.session.weld.usual import outdated_words
from anlage.session.works.open_works import OpenWorks
from anlage.session.works.standing import waiting_texts
from anlage.store import Revision


class Saying(Struct, frozen=True):
    """Who issues a revision, what changed with it, and why it is issued although something is amiss."""

    author: str
    change: str = ""
    reason: str = ""


class Against(Struct, frozen=True):
    """What speaks against issuing a procedure as it is.

    `outside` and `unproven` say so of each variable and of its heat, in a sentence; `bare` says what a reader of the
    sheet would miss altogether: no passes, no verdict; `waiting` that texts stand in fields that were not taken over;
    `proposed` what nobody has confirmed. `revision` is the number that it would be issued under, `verdict` how it
    stands as a whole.
    """

    revision: int = 1

    outside: tuple[str, ...] = ()
    unproven: tuple[str, ...] = ()
    bare: tuple[str, ...] = ()
    waiting: str = ""
    proposed: tuple[str, ...] = ()
    verdict: Verdict = "unproven"

    @property
    def needs_change(self) -> bool:
        """Whether somebody has to say what changed: from the second revision on."""
        return self.revision > 1

    @property
    def needs_reason(self) -> bool:
        """Whether it is issued only with a reason that is printed."""
        return bool(self.outside or self.bare)

    def words(self) -> str:
        """Return in the fewest words what speaks against it; "" for nothing."""
        counts = ((len(self.outside), "outside"), (len(self.unproven), "unproven"))
        said = [*self.bare, *(f"{count} {word}" for count, word in counts if count), self.waiting]
        said.append("settings only proposed" if self.proposed else "")
        return ", ".join(filter(None, said))


def against(
    working: Working, issued: Sequence[Revision], assessment: Assessment, system: System,
    heat: Sequence[tuple[Verdict, str, str]] = (),
) -> Against:  # fmt: skip
    """Return what speaks against issuing a procedure as it is, after the revisions that were issued of it.

    `heat` is what of its preheat and heat treatment is not shown to hold: verdict, what it is of, and why.
    """
    wps: Wps = working.value
    bare = [] if wps.passes else ["no passes are stated"]
    if assessment.missing:
        bare.append(f"not judged: {assessment.missing}")
    said: dict[str, list[str]] = {"outside": [], "unproven": []}
    for line in lines(wps, assessment, system):
        if line.is_problem:
            said[line.rung.verdict].append(f"{line.title}: {line.reason}")
    for verdict, word, why in heat:
        said[verdict].append(f"{word}: {why}")
    waiting = waiting_texts(len(working.pending)) if working.pending else ""
    return Against(
        len(issued) + 1,
        tuple(said["outside"]),
        tuple(said["unproven"]),
        tuple(bare),
        waiting,
        tuple(filter(None, (outdated_words(wps), *proposed_sentences(wps)))),
        assessment.verdict,
    )


def issue(works: OpenWorks, document_id: str, working: Working, found: Against, saying: Saying) -> Revision:
    """Store a procedure as its next revision, with what changed and why it is issued although something is amiss.

    Raises
    ------
    InputError : as `OpenWorks.issue`; or nobody says what changed since the last one, or why it is issued all the same
    FormatError : it could not be saved
    """
    change, reason = saying.change.strip(), saying.reason.strip()
    if found.needs_reason and not reason:
        raise InputError(f"why it is issued with {found.words()} is not said", where="reason", mend="type the reason")
    if found.needs_change and not change:
        raise InputError("what changed since the last revision is not said", where="change", mend="type it")
    why = reason if found.needs_reason else None
    said = Said.stated(change=change or None, reason=why, verdict=found.verdict)
    return works.issue(document_id, working, author=saying.author, body=with_(working.value, revision=said))
