"""The Ranges place: is it allowed, by which record and clause? The ladder, and beside it the chosen rung."""

from collections.abc import Sequence
from typing import TYPE_CHECKING

from PySide6.QtCore import (
    QModelIndex,
    Qt,
)
from PySide6.QtGui import QHideEvent, QShowEvent
from PySide6.QtWidgets import (
    QAbstractItemView,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QVBoxLayout,
)

from anlage.session.judging.assessment import Assessment
from anlage.session.judging.ladder import Line, lines, support_sentences
from anlage.session.judging.mending import LOCKED, Mending, mendings
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import ListBox
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.loading import loaded
from anlage.ui.kit.look import font
from anlage.ui.kit.place import Desk, Place
from anlage.ui.places.ranges.ladder import LINE_ROLE, LadderModel, LadderView, RungDelegate, Section
from anlage.ui.places.ranges.rung_panel import RungPanel

if TYPE_CHECKING:
    from anlage.ui.places.ranges.mend_dialog import MendDialog

ALL, PROBLEMS, INSIDE = "", "problems", "inside"
FILTER_PX = 148
FILTERS = ((ALL, "All variables"), (PROBLEMS, "Problems"))  # and the categories of the pack


@guarded
class RangesPlace(Place):
    """Ladder on the left, the chosen rung on the right."""

    def __init__(self, document: Document, desk: Desk) -> None:
        super().__init__()
        self.document, self.desk = document, desk
        self.model = LadderModel()
        self.chosen = ""  # id of the rung, kept while rungs come and go
        self._order: list[str] = []  # of the rungs while they are looked at: one that is mended keeps its place
        self._showing = False
        self._problems: set[str] = set()  # since the ladder was opened
        self._folded: set[str] = set()  # sections whose rungs are folded away
        self.supports, self.filter, self.ladder = QLabel(), ListBox(document.reader), LadderView()
        self.mend = QPushButton("Bring it inside…")
        self.mend.setToolTip("The fewest changes that bring it inside, against each record (Shift+F7)")
        self.mend.clicked.connect(self.show_mendings)
        self.mend_dialog: MendDialog | None = None
        self.empty = QLabel(self)
        self.panel = RungPanel(document, desk.home_of)
        self._lay_out()
        self.filter.currentIndexChanged.connect(self.refresh)
        self.ladder.selectionModel().currentChanged.connect(self._on_current)
        self.ladder.activated.connect(self._on_activated)
        self.ladder.fold_asked.connect(self.fold)
        self.panel.field_asked.connect(desk.go_to)
        self.panel.rule_asked.connect(desk.rules.read)
        self.panel.left.connect(self.refresh)
        document.reader.units_changed.connect(self.refresh)
        document.reader.look_changed.connect(self.ladder.viewport().update)

    def _lay_out(self) -> None:
        self.supports.setProperty("tone", "muted")
        self.supports.setWordWrap(True)
        self.empty.setProperty("tone", "muted")
        self.empty.setFont(font("title"))
        self.empty.setWordWrap(True)
        self.empty.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.filter.setAccessibleName("Which variables are shown")
        self.filter.setMinimumWidth(FILTER_PX)
        for wanted, word in FILTERS:
            self.filter.addItem(word, wanted)
        self.ladder.setModel(self.model)
        self.ladder.setItemDelegate(RungDelegate(self.document, self.ladder))
        self.ladder.setAccessibleName("Ladder of variables")
        self.ladder.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.ladder.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        head = QHBoxLayout()
        head.addWidget(self.supports, 1)
        head.addWidget(self.mend)
        head.addWidget(self.filter)
        left = QVBoxLayout()
        left.setSpacing(8)
        left.addLayout(head)
        left.addWidget(self.ladder, 1)
        left.addWidget(self.empty, 1)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(16, 12, 16, 14)
        layout.setSpacing(16)
        layout.addLayout(left, 1)
        layout.addWidget(self.panel)

    @property
    def proof(self) -> Assessment:
        """How the procedure stands as it is now."""
        return self.desk.assessment() or Assessment(None, "")

    def show_proof(self, assessment: Assessment) -> None:
        """Show how the open procedure stands."""
        self.refresh()

    def refresh(self) -> None:
        """Show the rungs that the filter lets through, and keep the chosen one; worked out when looked at."""
        if not self.isVisible():
            return
        self._offer_categories()
        every = self._in_order(lines(self.document.value, self.proof, self.document.system))
        found = self._let_through(every)
        said = "; ".join(support_sentences(self.document.value, self.proof))
        self.supports.setText(f"{said[0].upper()}{said[1:]}." if said else "")
        self.empty.setText("" if found else self._why_empty())
        self.empty.setVisible(not found)
        self.mend.setVisible(self.document.can_write and bool(self.proof.problems()))
        self.ladder.setVisible(bool(found))
        typing = self.panel.field is not None and self.panel.field.hasFocus()
        row = self._show_rungs(found, typing=typing)
        if typing:  # the rung being mended stays beside the ladder until the keyboard leaves it, also when it is inside
            self.panel.show_line(next((line for line in every if line.rung.key == self.chosen), self.panel.line))
            return
        chosen = (line for line in found if line.rung.key == self.chosen)
        line = self.model.line_at(row) or next(chosen, None) or next(iter(found), None)
        self.chosen = line.rung.key if line else self.chosen
        self.panel.show_line(line)

    def _let_through(self, every: tuple[Line, ...]) -> tuple[Line, ...]:
        """Return the rungs that the filter lets through; beside a problem by one code, what the others say of it."""
        wanted = self.filter.currentData()
        if wanted != PROBLEMS:
            return tuple(line for line in every if wanted in (ALL, line.rung.category))
        beside = {line.rung.id for line in every if line.is_problem} if self.proof.parts else frozenset[str]()
        return tuple(
            line for line in every if line.is_problem or line.rung.key in self._problems or line.rung.id in beside
        )

    def _show_rungs(self, found: tuple[Line, ...], *, typing: bool) -> int:
        """Put rungs into the ladder and return the row that is the current one then, below 0 for none."""
        self._showing = True
        head = self.model.section_at(self.ladder.currentIndex().row()) if self._is_on_head() else None
        self.model.show_sections(self._sections(found))
        row = self._row_of_head(head.key) if head else self.model.row_of(self.chosen)
        if row < 0 and not typing:
            rows = (self.model.row_of(line.rung.key) for line in found)
            row = next((each for each in rows if each >= 0), 0)
        self.ladder.setCurrentIndex(self.model.index(row) if found and row >= 0 else QModelIndex())
        self._showing = False
        return row

    def _sections(self, found: tuple[Line, ...]) -> list[Section]:
        """Return the rungs by section: what is a problem, or was one since the ladder was opened, then by category."""
        several, pack = bool(self.proof.parts), self.proof.pack
        shared = {line.rung.id for line in found if line.rung.key in self._problems}
        is_problem = {
            line.rung.key: line.rung.id in shared if several else line.rung.key in self._problems for line in found
        }
        problems = [line for line in found if is_problem[line.rung.key]]
        mended = sum(not line.is_problem for line in problems if line.rung.key in self._problems)
        done = "all mended" if not any(line.is_problem for line in problems) else f"{mended} mended"
        titled = [(PROBLEMS, f"Problems, {done}" if mended else "Problems", problems)]
        others = [line for line in found if not is_problem[line.rung.key]]
        if several:  # each code has categories of its own
            titled.append((INSIDE, "Inside by every code that has a rule for it", others))
        for each in pack.categories if pack and not several else ():
            own = [line for line in others if line.rung.category == each.id]
            titled.append((each.id, f"{each.word.capitalize()} variables", own))
        return [Section(key, title, own, key in self._folded) for key, title, own in titled if own]

    def fold(self, key: str, folded: bool) -> None:  # noqa: FBT001 - what a signal says
        """Fold the rungs of a section away, or show them; its head keeps the keyboard."""
        self._folded = self._folded | {key} if folded else self._folded - {key}
        self._showing = True
        self.model.show_sections([each._replace(folded=each.key in self._folded) for each in self.model.sections])
        self.ladder.setCurrentIndex(self.model.index(self._row_of_head(key)))
        self._showing = False

    def _is_on_head(self) -> bool:
        row = self.ladder.currentIndex().row()
        return row >= 0 and self.model.line_at(row) is None

    def _row_of_head(self, key: str) -> int:
        rows = range(self.model.rowCount())
        return next((r for r in rows if self.model.line_at(r) is None and self.model.section_at(r).key == key), -1)  # type: ignore[union-attr]

    def _in_order(self, every: tuple[Line, ...]) -> tuple[Line, ...]:
        """Return the rungs in their order since the ladder was opened; those that came since stand first."""
        if not self._order:
            self._order = [line.rung.key for line in every]
            self._problems = {line.rung.key for line in every if line.is_problem}
        self._problems |= {line.rung.key for line in every if line.is_problem}
        places = {own: place for place, own in enumerate(self._order)}
        return tuple(sorted(every, key=lambda line: places.get(line.rung.key, -1)))

    def next_problem(self) -> None:
        """Go to the next rung that is not inside, round from the last to the first."""
        rows = range(self.model.rowCount())
        here = self.ladder.currentIndex().row()
        if self.proof.problems() and PROBLEMS in self._folded:
            self.fold(PROBLEMS, folded=False)
            rows = range(self.model.rowCount())
        around = [(row, self.model.line_at(row)) for row in (*rows[here + 1 :], *rows[: here + 1])]
        ahead = [row for row, line in around if line is not None and line.is_problem]
        if ahead:
            self.ladder.setFocus(Qt.FocusReason.ShortcutFocusReason)
            self.ladder.setCurrentIndex(self.model.index(ahead[0]))
        else:
            self.desk.mention(self._why_no_problem())

    def show_mendings(self) -> None:
        """Show the fewest changes that bring the procedure inside, against each record."""
        if not self.proof.problems() or not self.document.can_write:
            self.desk.mention(self._why_no_problem())
            return
        make = loaded("anlage.ui.places.ranges.mend_dialog:MendDialog")
        dialog: MendDialog = make(self._mendings, self._take, self.window())
        self.mend_dialog = dialog
        dialog.finished.connect(self._on_mended)
        dialog.open()

    def _on_mended(self, _answer: int) -> None:
        """Give the keyboard back to the ladder."""
        self.mend_dialog = None
        self.window().activateWindow()
        self.begin()

    def _mendings(self, ranges_too: bool, kept: Sequence[str]) -> Sequence[Mending]:  # noqa: FBT001 - of a check box
        locked = (*(("metals",) if ranges_too else LOCKED), *kept)
        return mendings(self.document.value, self.desk.assess, self.document.system, locked)

    def _take(self, mending: Mending) -> None:
        count = len(mending.changes)
        self.document.edit(mending.wps, f"{count} change{'s' if count > 1 else ''} by {', '.join(mending.records)}")
        self.refresh()

    def _why_no_problem(self) -> str:
        if self.proof.missing:
            return f"Not judged: {self.proof.missing}."
        hidden = len(self.proof.problems())
        if hidden:
            return f"None of these is a problem; {hidden} that the list leaves out {'is' if hidden == 1 else 'are'}."
        return "Every variable is inside."

    def hideEvent(self, event: QHideEvent) -> None:
        super().hideEvent(event)
        self._order = []  # looked at anew, problems stand first

    def _offer_categories(self) -> None:
        """Offer the categories of the code that the procedure is judged by."""
        pack = None if self.proof.parts else self.proof.pack  # each code has categories of its own
        offered = [*FILTERS, *((each.id, each.word.capitalize()) for each in (pack.categories if pack else ()))]
        if [self.filter.itemData(n) for n in range(self.filter.count())] == [wanted for wanted, _ in offered]:
            return
        before = self.filter.currentData()
        self.filter.blockSignals(True)  # noqa: FBT003 - what is wanted stays the same
        self.filter.clear()
        for wanted, word in offered:
            self.filter.addItem(word, wanted)
        self.filter.setCurrentIndex(max(self.filter.findData(before), 0))
        self.filter.blockSignals(False)  # noqa: FBT003

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        self.refresh()

    def _why_empty(self) -> str:
        if not self.proof.missing:
            return "Nothing here: no variable is of this kind."
        if self.proof.judgement is not None:
            return f"Not judged: {self.proof.missing}. Weld a coupon, or enter what its tests found, at Proof (Alt+O)."
        where = "at Passes (Alt+P)" if "deposit" in self.proof.missing else "at the Job (Ctrl+J)"
        return f"Not judged: {self.proof.missing}. State it {where}."

    def begin(self) -> None:
        """Put the keyboard on the ladder."""
        self.ladder.setFocus(Qt.FocusReason.OtherFocusReason)

    def _on_current(self, current: QModelIndex, _previous: QModelIndex) -> None:
        line = current.data(LINE_ROLE)
        if line is not None and not self._showing:
            self.chosen = line.rung.key
            self.panel.show_line(line)

    def _on_activated(self, index: QModelIndex) -> None:
        """Go into the field beside the ladder: the rung is mended where its reason stands."""
        if index.isValid() and self.panel.field is not None:
            self.panel.field.setFocus(Qt.FocusReason.ShortcutFocusReason)
