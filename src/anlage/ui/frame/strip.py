"""The proof strip: how many variables are inside, outside and unproven, in shape and word, after every edit."""

from collections.abc import Callable, Iterator, Sequence

from PySide6.QtCore import QEvent, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QSizePolicy, QWidget

from anlage.session.judging.assessment import Assessment, code_words
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.look import font
from anlage.ui.kit.marks import MARK_PX, draw_mark
from anlage.ui.kit.reader import Reader

GAP_PX, APART_PX = 6, 20
LISTED = 12  # problems named on pointing at the strip
NAMED = (2, 3)  # codes: so many have room to be named
VERDICTS = ("inside", "outside", "unproven")


@guarded
class ProofStrip(QWidget):
    """Shows a proof; says in words what is missing where there is none.

    Signals
    -------
    asked(part) : the person wants to see what a part of it says: "judged", "missing", "waiting" or "since"
    """

    asked = Signal(str)

    def __init__(self, reader: Reader) -> None:
        super().__init__()
        self.reader = reader
        self.proof: Assessment | None = None
        self._sentences: Callable[[], Sequence[str]] = tuple
        self._waiting = self._since = ""
        self.setSizePolicy(QSizePolicy.Policy.Maximum, QSizePolicy.Policy.Fixed)
        reader.look_changed.connect(self.update)

    def show_proof(
        self, proof: Assessment | None, sentences: Callable[[], Sequence[str]] = tuple, waiting: str = ""
    ) -> None:
        """Show how the open procedure stands.

        Parameters
        ----------
        proof : how it stands
        sentences : says of each problem why, when it is asked for
        waiting : that texts were not taken over, and so are not judged; "" for none
        """
        self.proof, self._sentences, self._waiting = proof, sentences, waiting
        self.setAccessibleName("; ".join(text for _, text in self.parts()))
        self.updateGeometry()
        self.update()

    def show_since(self, sentence: str) -> None:
        """Show what the changes since the last revision ask for; "" for none."""
        if sentence != self._since:
            self._since = sentence
            self.setAccessibleName("; ".join(text for _, text in self.parts()))
            self.updateGeometry()
            self.update()

    def event(self, event: QEvent) -> bool:
        if event.type() == QEvent.Type.ToolTip:
            found = self._sentences()
            more = len(found) - LISTED
            since = [f"{self._since[0].upper()}{self._since[1:]}."] if self._since else []
            self.setToolTip("\n".join([*since, *found[:LISTED], *([f"and {more} more"] if more > 0 else [])]))
        return super().event(event)

    def parts(self) -> list[tuple[str, str]]:
        """Return what the strip says: verdict and text of each part, those that are none left out.

        What changed since the last revision has no verdict.
        """
        if self.proof is None:
            return []
        waiting = [("unproven", self._waiting)] if self._waiting else []
        missing = [("unproven", f"not judged: {self.proof.missing}")] if self.proof.missing else []
        told = list(self._told(self.proof))
        since = [("", self._since)] if self._since else []
        return [*missing, *told, *waiting, *since]

    def _told(self, proof: Assessment) -> Iterator[tuple[str, str]]:
        """Yield the counts of verdicts; of several codes the verdict by each, with how many are not inside."""
        if len(proof.parts) in NAMED:
            for each in proof.parts:
                counts = each.judgement.counts() if each.judgement else {}
                told = f"{counts.get(each.verdict, 0)} " if each.verdict != "inside" and each.judgement else ""
                yield each.verdict, f"{code_words(each)}: {told}{each.verdict}"
            return
        counts = proof.judgement.counts() if proof.judgement else {}
        yield from ((verdict, f"{counts[verdict]} {verdict}") for verdict in VERDICTS if counts.get(verdict))

    def sizeHint(self) -> QSize:
        return QSize(self._width(self.parts()), 28)

    def minimumSizeHint(self) -> QSize:
        """As wide as the verdicts: what changed is cut short where there is no room, and whole in the tip."""
        return QSize(self._width([each for each in self.parts() if each[0]]), 28)

    def _width(self, parts: Sequence[tuple[str, str]]) -> int:
        metrics = self.fontMetrics()
        widths = [(MARK_PX + GAP_PX if verdict else 0) + metrics.horizontalAdvance(text) for verdict, text in parts]
        return sum(widths) + APART_PX * max(len(widths) - 1, 0)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self.asked.emit(self._part_at(event.position().x()))

    def _part_at(self, x: float) -> str:
        """Return which part lies at a place: texts that wait, why nothing is judged, or verdicts."""
        right, metrics = 0, self.fontMetrics()
        for verdict, text in self.parts():
            right += (MARK_PX + GAP_PX if verdict else 0) + metrics.horizontalAdvance(text) + APART_PX
            if x < right - APART_PX / 2:
                if text in (self._waiting, self._since):
                    return "waiting" if text == self._waiting else "since"
                return "missing" if text.startswith("not judged") else "judged"
        return "judged"

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setFont(font())
        x = 0
        for verdict, text in self.parts():
            colour = self.reader.look.colour[verdict or "muted"]
            if verdict:
                draw_mark(painter, QRectF(x, (self.height() - MARK_PX) / 2, MARK_PX, MARK_PX), verdict, colour)
                x += MARK_PX + GAP_PX
            painter.setPen(colour)
            width = painter.fontMetrics().horizontalAdvance(text)
            # A verdict is never cut short: its width in whole pixels may be less than it needs.
            elided = painter.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, self.width() - x)
            shown = text if verdict else elided
            painter.drawText(QRectF(x, 0, width + 2, self.height()), int(Qt.AlignmentFlag.AlignVCenter), shown)
            x += width + APART_PX
