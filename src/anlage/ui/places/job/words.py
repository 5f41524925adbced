"""Fields that stand in a sentence: as wide as what they say, underlined like a word to fill in."""

from PySide6.QtCore import QSize
from PySide6.QtGui import QFontMetrics

from anlage.session.leaves.table import field_of
from anlage.ui.kit.document import Document
from anlage.ui.kit.fields import NOT_STATED, ChoiceField, LeafField
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.look import font

LEAST_PX, MOST_PX, ROOM_PX = 34, 330, 16


@guarded
class WordField(LeafField):
    """A leaf as a word of a sentence."""

    def __init__(self, document: Document, path: str, absent: str = "") -> None:
        super().__init__(document, path)
        self.setFont(font("title"))
        self.setProperty("inline", True)  # noqa: FBT003 - a property of the stylesheet
        self.setPlaceholderText(absent or self.field.label.lower())
        self.textChanged.connect(self.updateGeometry)

    def sizeHint(self) -> QSize:
        text = self.text() or self.placeholderText()
        width = QFontMetrics(self.font()).horizontalAdvance(text) + ROOM_PX
        return QSize(min(max(width, LEAST_PX), MOST_PX), super().sizeHint().height())

    def minimumSizeHint(self) -> QSize:
        return QSize(LEAST_PX, super().minimumSizeHint().height())


@guarded
class WordChoice(ChoiceField):
    """A leaf of a few words as a word of a sentence; one that is not stated says what is wanted."""

    def __init__(self, document: Document, path: str, absent: str = "") -> None:
        super().__init__(document, path)
        self.setFont(font("title"))
        self.setProperty("inline", True)  # noqa: FBT003 - a property of the stylesheet
        if not self.field.required and self.itemText(0) == NOT_STATED:
            self.setItemText(0, absent or self.field.label.lower())
        self.currentIndexChanged.connect(self._on_index)
        self._on_index()

    def _on_index(self) -> None:
        """Say in muted ink what is wanted, while nothing is stated."""
        absent = self.currentData() == ""
        if absent != self.property("absent"):
            self.setProperty("absent", absent)
            self.style().unpolish(self)
            self.style().polish(self)
        self.updateGeometry()

    def sizeHint(self) -> QSize:
        width = QFontMetrics(self.font()).horizontalAdvance(self.currentText()) + ROOM_PX + 22
        return QSize(min(max(width, LEAST_PX + 22), MOST_PX), super().sizeHint().height())

    def minimumSizeHint(self) -> QSize:
        return QSize(LEAST_PX, super().minimumSizeHint().height())


def word_for(document: Document, path: str, absent: str = "") -> WordField | WordChoice:
    """Return the kind of word that a leaf needs."""
    if field_of(path).shape == "choice":
        return WordChoice(document, path, absent)
    return WordField(document, path, absent)
