"""Root style and standard detail of a joint, and what is to be said of them, beside the dimensions."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QFocusEvent
from PySide6.QtWidgets import QGridLayout, QLabel, QPushButton, QWidget

from anlage.session.leaves.presence import applies
from anlage.session.weld.advice import advice, details_for, styles_for, with_detail
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import NOT_STATED, ChoiceField
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.look import font

MOST = 6  # sentences shown at once


@guarded
class NamedChoice(ChoiceField):
    """A list whose words follow the joint, looked up when it is first entered; another name stays readable."""

    def __init__(self, document: Document, path: str, offer: object) -> None:
        self._offer = offer
        self._shown: tuple[tuple[str, str], ...] = ()
        self._entered = False
        super().__init__(document, path, choices=())

    def refresh(self) -> None:
        """Offer what goes with the joint, and show what is chosen."""
        assert callable(self._offer)
        chosen = self.document.text(self.path)
        offered = tuple(self._offer()) if self._entered or chosen else ()
        if chosen and chosen not in {value for _, value in offered}:
            offered = (*offered, (chosen, chosen))
        if offered != self._shown or not self.count():
            self._shown = offered
            self.clear()
            for said, value in ((NOT_STATED, ""), *offered):
                self.addItem(said, value)
        self.setCurrentIndex(max(self.findData(chosen), 0))

    def enter(self) -> None:
        """Look up what can be chosen."""
        self._entered = True
        self.refresh()

    def focusInEvent(self, event: QFocusEvent) -> None:
        self.enter()
        super().focusInEvent(event)

    def showPopup(self) -> None:
        self.enter()
        super().showPopup()


class JointAdvice(QWidget):
    """Chooses root style and detail, and says what does not go together."""

    def __init__(self, document: Document, parent: QWidget) -> None:
        super().__init__(parent)
        self.document = document
        self.style_label, self.detail_label = QLabel("Root style"), QLabel("Standard detail")
        for label in (self.style_label, self.detail_label):
            label.setProperty("tone", "muted")
        self.style_choice = NamedChoice(
            document, "joint/root_style", lambda: [(each.name, each.id) for each in styles_for(document.value.joint)]
        )
        self.detail = NamedChoice(
            document, "joint/detail", lambda: [(each.id, each.id) for each in details_for(document.value.joint)]
        )
        self.take = QPushButton("Take its dimensions")
        self.take.setEnabled(document.can_write)
        self.take.clicked.connect(self.take_dimensions)
        self.sentences = [QLabel(self) for _ in range(MOST)]
        grid = QGridLayout(self)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setHorizontalSpacing(6)
        grid.setVerticalSpacing(5)
        grid.setColumnStretch(1, 1)
        grid.addWidget(self.style_label, 0, 0)
        grid.addWidget(self.style_choice, 0, 1)
        grid.addWidget(self.detail_label, 1, 0)
        grid.addWidget(self.detail, 1, 1)
        grid.addWidget(self.take, 2, 1, Qt.AlignmentFlag.AlignLeft)
        for row, sentence in enumerate(self.sentences, 3):
            sentence.setWordWrap(True)
            sentence.setFont(font("note"))
            grid.addWidget(sentence, row, 0, 1, 2)
        document.changed.connect(self.refresh)
        document.reader.units_changed.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Say what is to be said of the joint now."""
        wps = self.document.value
        joint = wps.joint
        has_style = (joint.kind is not None and applies(wps, "joint/root_style")) or joint.root_style is not None
        has_detail = (joint.kind is not None and applies(wps, "joint/detail")) or joint.detail is not None
        for widget in (self.style_label, self.style_choice):
            widget.setVisible(has_style)
        for widget in (self.detail_label, self.detail):
            widget.setVisible(has_detail)
        self.take.setVisible(bool(joint.detail) and joint.detail in {each.id for each in details_for(joint)})
        found = advice(self.document.value, self.document.system)[:MOST]
        for place, label in enumerate(self.sentences):
            label.setVisible(place < len(found))
            if place < len(found):
                each = found[place]
                label.setText(each.text)
                label.setToolTip(each.origin)
                label.setProperty("tone", "muted" if each.good else "unproven")
                label.style().polish(label)

    def take_dimensions(self) -> None:
        """State the dimensions and tolerances of the chosen detail, as one step."""
        wps = self.document.value
        if wps.joint.detail:
            self.document.edit(with_detail(wps, wps.joint.detail), f"Take over {wps.joint.detail}")
