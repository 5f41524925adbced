"""How the open document stands: worked out once a turn of the event loop, and shown wherever it is to be seen."""

from collections.abc import Mapping, Sequence
from functools import partial
from pkgutil import resolve_name
from typing import TYPE_CHECKING, Any

from PySide6.QtCore import QObject, QTimer, Signal

from anlage.session.kinds import PROCEDURE
from anlage.ui.desk import telling
from anlage.ui.desk.documents_desk import DocumentsDesk
from anlage.ui.desk.places_desk import PlacesDesk
from anlage.ui.desk.works_desk import WorksDesk
from anlage.ui.frame.shell import Shell
from anlage.ui.kit.loading import loaded

SINCE_MS = 150

if TYPE_CHECKING:
    from anlage.session.judging.assessment import Assessment, Assessor
    from anlage.ui.frame.strip import ProofStrip


class JudgingDesk(QObject):
    """Judges the document in front.

    Signals
    -------
    told(text) : something must not be missed
    asked(part) : the person wants to see what a part of the strip says
    """

    told = Signal(str)
    asked = Signal(str)

    def __init__(
        self, works: WorksDesk, documents: DocumentsDesk, places: PlacesDesk, shell: Shell, parent: QObject
    ) -> None:
        super().__init__(parent)
        self._works, self._documents, self._places, self._shell = works, documents, places, shell
        self.strip: ProofStrip | None = None
        self.not_saved: Mapping[str, Exception] = {}  # by document, why
        self._assessed: tuple[tuple[Any, Assessor], Assessment] | None = None  # the last one, and of what
        self._later = QTimer(self, interval=SINCE_MS, singleShot=True)  # what the changes cost, once typing rests
        self._later.timeout.connect(self._tell_since)
        self._since: tuple[tuple[Any, Assessor], Assessment] | None = None  # how the last revision stands, by whom
        self._timer = QTimer(self, interval=0, singleShot=True)  # once a turn of the event loop, however many edits
        self._timer.timeout.connect(self._judge_now)

    def say(self, text: str) -> None:
        """Tell a sentence that must not be missed."""
        self.told.emit(text)

    def soon(self) -> None:
        """Judge what is so by then in the next turn of the event loop."""
        self._timer.start()

    def assessment(self) -> "Assessment | None":
        """Return how the procedure in front stands by its code; `None` where no procedure is in front."""
        document = self._documents.document
        if document is None or self._documents.kind is not PROCEDURE:
            return None
        asked = (document.value, self._works.assessor())
        if self._assessed is None or any(a is not b for a, b in zip(self._assessed[0], asked, strict=True)):
            self._assessed = (asked, asked[1].assess(asked[0]))
            self._works.tell_refused()
        return self._assessed[1]

    @telling.told
    def _judge_now(self) -> None:
        """Show in the band, on the place bar and at the place in front how the open document stands."""
        works, document = self._works.works, self._documents.document
        if works is None or document is None:
            if self.strip is not None:
                self.strip.show_proof(None)
            self._shell.places.show_verdicts({})
            return
        system = self._shell.reader.system
        document.tell_clashes(
            loaded("anlage.session.judging.clashes.all_clashes:complaints_of")(document.value, system)
        )
        if self._documents.kind is PROCEDURE and not self._works.is_ready(document.value):
            self._show_state("being judged…")
            return
        assessment = self.assessment()
        if self.strip is None and assessment is not None:
            self.strip = loaded("anlage.ui.frame.strip:ProofStrip")(self._shell.reader)
            self.strip.asked.connect(self.asked)
            self._shell.band.proof_row.addWidget(self.strip)
        if self.strip is not None:
            waiting = len(document.working.pending)
            said = loaded("anlage.session.works.standing:waiting_texts")(waiting) if waiting else ""
            self.strip.show_proof(assessment, partial(self._problems, assessment), said)
            self._later.start()
        verdicts: Mapping[str, str] = {}
        if assessment is None:
            kind = self._documents.kind
            assert kind is not None, "a document is in front"
            self._show_state(resolve_name(kind.state)(document.value, self._works.standpoint(system)))
        else:
            self._show_state(works.badge(document.document_id, document.working))
            verdicts = loaded("anlage.ui.desk.homes:verdicts_by_place")(document.working, assessment)
            if self._places.front is not None:
                self._places.front.show_proof(assessment)
        self._shell.places.show_verdicts(verdicts)

    @telling.told
    def _tell_since(self) -> None:
        """Show in the strip what the changes since the last revision ask for."""
        works, document = self._works.works, self._documents.document
        if self.strip is None or works is None or document is None:
            return
        said = ""
        if self._documents.kind is PROCEDURE and self._works.knows_records:
            last = next(reversed(works.revisions(document.document_id)), None)
            find = loaded("anlage.session.works.since:since_sentence")
            said = find(last, document.value, self._assess, self._shell.reader.system) if last else ""
        self.strip.show_since(said)

    def _assess(self, wps: Any) -> "Assessment":
        """Return how a procedure stands; what was issued is judged once, as long as what it rests on is the same."""
        document, now = self._documents.document, self.assessment()
        if document is not None and wps is document.value and now is not None:
            return now
        judge = self._works.assessor()
        if self._since is None or self._since[0][0] != wps or self._since[0][1] is not judge:
            self._since = ((wps, judge), judge.assess(wps))
        return self._since[1]

    def _show_state(self, text: str) -> None:
        document = self._documents.document
        assert document is not None, "a document is in front"
        self._shell.band.state.setText("not saved" if document.document_id in self.not_saved else text)

    def _problems(self, assessment: "Assessment | None") -> Sequence[str]:
        document = self._documents.document
        if assessment is None or document is None:
            return ()
        say = loaded("anlage.session.judging.ladder:problem_sentences")
        found: tuple[str, ...] = say(document.value, assessment, self._shell.reader.system)
        return found
