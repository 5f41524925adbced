"""The Job place: what is to be welded? The job as sentences whose words are fields, the position drawn beside them."""

from collections.abc import Sequence
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QPushButton, QScrollArea, QVBoxLayout, QWidget

from anlage.session.judging.assessment import Assessment
from anlage.session.judging.groups import metal_words
from anlage.session.leaves.table import field_of
from anlage.session.works.next_steps import Step, next_steps
from anlage.ui.kit.complaint import Complaint
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import ChoiceField, LeafField, Unit, field_for
from anlage.ui.kit.flow import FlowWidget
from anlage.ui.kit.heading import heading
from anlage.ui.kit.loading import loaded
from anlage.ui.kit.look import font
from anlage.ui.kit.place import Desk, Place
from anlage.ui.kit.scrolling import show_in
from anlage.ui.picture.view import PictureView
from anlage.ui.places.job.presenter import PositionPresenter
from anlage.ui.places.job.statement import ABSENT, HEAD, HEATED, MORE, OF_FEW, PIPE, SENTENCES, THIRD
from anlage.ui.places.job.words import word_for

if TYPE_CHECKING:
    from anlage.session.proposal.draft import Drafted
    from anlage.ui.places.job.draft_dialog import DraftDialog

MOST_STEPS, STEP_PX = 5, 27


class JobPlace(Place):
    """Sentences, what is stated less often and what is still to be done on the left, the position on the right."""

    def __init__(self, document: Document, desk: Desk) -> None:
        super().__init__()
        self.document, self.desk = document, desk
        self.fields: dict[str, LeafField | ChoiceField] = {}
        self.steps: list[QPushButton] = []
        self._shown_steps: tuple[Step, ...] = ()
        self._assessment = Assessment(None, "")  # as it was told last: judging by many records takes its time
        self._of_pipe: list[QWidget] = []
        self._of_heated: list[QWidget] = []
        self._of_third: list[QWidget] = []
        self._of_few: list[tuple[Sequence[str], list[QWidget]]] = []  # lines that only some codes have a use for
        self._asked: frozenset[str] = frozenset()  # of those leaves: what the codes of the job ask for
        self._gone_to = ""  # a field that was asked for is shown, whatever the job has a use for
        self.groups = QLabel()
        self.groups.setProperty("tone", "muted")
        self.groups.setWordWrap(True)
        self.view = PictureView(PositionPresenter(document), document.reader, "Positions")
        self.view.setMinimumHeight(220)
        self._next = QVBoxLayout()
        self.draft_button = QPushButton("Draft it")
        self.draft_button.setToolTip("Propose joint, deposits and passes for what is stated (Ctrl+Shift+J)")
        self.draft_button.setEnabled(document.can_write)
        self.draft_button.clicked.connect(self.draft_it)
        self._lay_out()
        document.changed.connect(self.refresh)
        document.reader.units_changed.connect(self.refresh)
        self.refresh()

    def _lay_out(self) -> None:
        form = QWidget()
        column = QVBoxLayout(form)
        column.setContentsMargins(0, 0, 16, 0)
        column.setSpacing(8)
        column.addLayout(self._head())
        for place, sentence in enumerate(SENTENCES):
            column.addWidget(self._sentence(sentence))
            if place == 0:
                column.addWidget(self.groups)
        column.addSpacing(6)
        column.addWidget(heading("Stated less often"))
        column.addLayout(self._more())
        column.addStretch(1)
        Complaint(self.document, tuple(self.fields), form)
        scroll = self.scroll = QScrollArea()
        scroll.setWidget(form)
        scroll.setWidgetResizable(True)
        scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        right = QVBoxLayout()
        right.setSpacing(6)
        right.addWidget(self.view, 1)
        next_row = QHBoxLayout()
        next_row.addWidget(heading("Next"), 1)
        next_row.addWidget(self.draft_button)
        right.addLayout(next_row)
        self._next.setSpacing(2)
        self._next.setContentsMargins(0, 0, 0, 0)
        self._next.setAlignment(Qt.AlignmentFlag.AlignTop)
        room = QWidget()
        room.setLayout(self._next)
        room.setFixedHeight(MOST_STEPS * STEP_PX)  # the picture stays where it is while steps come and go
        right.addWidget(room)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(16, 12, 16, 12)
        layout.setSpacing(16)
        layout.addWidget(scroll, 6)
        layout.addLayout(right, 5)

    def _head(self) -> QHBoxLayout:
        row = QHBoxLayout()
        row.setSpacing(8)
        for path, share in zip(HEAD, (2, 5), strict=True):
            field = self.fields[path] = field_for(self.document, path)
            field.setFont(font("title", strong=True))
            assert isinstance(field, LeafField)
            field.setPlaceholderText(field.field.label)
            row.addWidget(field, share)
        return row

    def _sentence(self, words: Sequence[str]) -> FlowWidget:
        line = FlowWidget()
        for word in words:
            if "/" not in word:
                label = QLabel(word)
                label.setFont(font("title"))
                made: list[QWidget] = [label]
            else:
                field = self.fields[word] = word_for(self.document, word, ABSENT.get(word, ""))
                made = [self._with_unit(field, word)] if field.field.kind else [field]
            for widget in made:
                line.flow.addWidget(widget)
            if word in PIPE:
                self._of_pipe += made
            elif word in HEATED:
                self._of_heated += made
            elif word in THIRD and THIRD[1] in words:
                self._of_third += made
        return line

    def _with_unit(self, field: QWidget, path: str) -> QWidget:
        """Return a field with its unit, which goes with it into the next line."""
        pair = QWidget()
        row = QHBoxLayout(pair)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(4)
        row.addWidget(field)
        row.addWidget(Unit(self.document, path))
        return pair

    def _more(self) -> QGridLayout:
        grid = QGridLayout()
        grid.setHorizontalSpacing(8)
        grid.setVerticalSpacing(4)
        for column in (1, 4):
            grid.setColumnStretch(column, 1)
        for line, paths in enumerate(MORE):
            for place, path in enumerate(paths):
                label, field = QLabel(field_of(path).label), field_for(self.document, path)
                label.setProperty("tone", "muted")
                field.setMinimumWidth(70)
                self.fields[path] = field
                grid.addWidget(label, 2 * line, 3 * place)
                grid.addWidget(field, 2 * line, 3 * place + 1, 1, 5 if len(paths) == 1 and not field.field.kind else 1)
                if field.field.kind:
                    grid.addWidget(Unit(self.document, path), 2 * line, 3 * place + 2)
            if set(paths) <= set(OF_FEW):
                places = ((2 * line, column) for column in range(6))
                items = (grid.itemAtPosition(*each) for each in places)
                widgets = (item.widget() for item in items if item is not None)
                self._of_few.append((paths, [each for each in widgets if each is not None]))
        return grid

    def refresh(self) -> None:
        """Show what the document says now."""
        metals = self.document.value.metals
        sides = [each for each in (metals.one, metals.other) if each is not None]
        said = [f"{each.name or 'as stated'}: {words}" for each in sides if (words := metal_words(each))]
        self.draft_button.setVisible(not self.document.value.passes)
        self.groups.setText("\n".join(said))
        self.groups.setVisible(bool(said))
        self._show_asked(self._gone_to)
        self.view.refresh()
        self._show_steps()

    def _show_asked(self, gone_to: str) -> None:
        """Show what the job has a use for: diameters of pipe, temperature and time of what is heat-treated."""
        wps = self.document.value
        for widget in self._of_pipe:
            widget.setVisible(wps.joint.product != "plate" or wps.range.diameter_mm is not None or gone_to in PIPE)
        for widget in self._of_third:
            widget.setVisible(len(wps.header.codes) > 1 or gone_to in THIRD)
        stated = wps.pwht.temperature_c is not None or wps.pwht.time_h is not None
        for widget in self._of_heated:
            widget.setVisible(wps.pwht.kind not in (None, "none") or stated or gone_to in HEATED)
        for paths, widgets in self._of_few:
            is_asked = gone_to in paths or any(
                path in self._asked or self.document.text(path) or self.fields[path].hasFocus() for path in paths
            )
            for widget in widgets:
                widget.setVisible(is_asked)

    def show_proof(self, assessment: Assessment) -> None:
        """Show what is still to be done."""
        self._assessment = assessment
        self._asked = loaded("anlage.session.judging.asked_leaves:asked_leaves")(self.document.value.header)
        self._show_asked(self._gone_to)
        self._show_steps()

    def _show_steps(self) -> None:
        standing = self.desk.standing(self.document, hashed=False)
        steps = next_steps(self.document.working, self._assessment, standing)[:MOST_STEPS]
        if steps == self._shown_steps and self.steps:
            return
        self._shown_steps = steps
        for button in self.steps:
            self._next.removeWidget(button)
            button.hide()
            button.deleteLater()
        self.steps = []
        for step in steps or (Step("", f"Nothing: it is revision {standing.revision} as issued."),):
            button = QPushButton(step.text)
            button.setProperty("flat", True)  # noqa: FBT003 - a property of the stylesheet
            button.setProperty("link", bool(steps))
            button.clicked.connect(lambda _checked=False, step=step: self._go(step))
            self._next.addWidget(button, 0, Qt.AlignmentFlag.AlignLeft)
            self.steps.append(button)

    def _go(self, step: Step) -> None:
        if step.path:
            self.desk.go_to(step.path)
        elif step.place:
            self.desk.go(step.place)

    def draft_it(self) -> None:
        """Show what a draft of all that is not stated would be."""
        make = loaded("anlage.ui.places.job.draft_dialog:DraftDialog")
        self.draft_dialog: DraftDialog = make(self.document, self.desk.rules.codes(), self._take_draft, self)
        self.draft_dialog.finished.connect(self._on_draft_left)
        self.draft_dialog.open()

    def _take_draft(self, found: "Drafted") -> None:
        self.document.edit(found.wps, "Draft it")
        count = len(found.wps.proposed)
        self.desk.mention(f"{count} leaves are proposed: look at Joint and Passes, type others or confirm them.")

    def _on_draft_left(self) -> None:
        """Give the keyboard back to the window."""
        self.window().activateWindow()
        self.begin()

    def begin(self) -> None:
        """Put the keyboard on the base metal while none is stated, else on the picture."""
        metal = self.fields["metals/one/name"]
        is_new = not self.document.text("metals/one/name")
        (metal if is_new else self.view).setFocus(Qt.FocusReason.OtherFocusReason)

    def go_to(self, path: str) -> bool:
        """Put the keyboard into the field of a leaf; return whether it is here."""
        found = self.fields.get(path)
        self._gone_to = path
        self._show_asked(path)
        if found is not None:
            found.setFocus(Qt.FocusReason.ShortcutFocusReason)
            show_in(self.scroll, found)
        return found is not None

    def picture(self) -> str:
        """Return the name of the picture in front."""
        return "position"
