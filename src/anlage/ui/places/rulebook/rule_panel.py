"""The chosen rule: own words, worked examples, doubt, who checked it against which copy, and what was corrected."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QScrollArea, QVBoxLayout, QWidget

from anlage.session.judging.reasons import capital
from anlage.session.rulebook.entries import CONFIDENCES, RuleEntry, RulesOfCode
from anlage.ui.kit.heading import heading
from anlage.ui.kit.look import font
from anlage.ui.kit.reader import Reader
from anlage.ui.places.rulebook.examples_view import ExamplesView


class RulePanel(QWidget):
    """One rule, scrolled where it is long; what is done with it at its foot.

    Signals
    -------
    check_asked(), correct_asked() : the person wants to mark it checked, or to correct it
    taken_back(overlay) : the person takes the overlay back, or the check
    """

    check_asked = Signal()
    correct_asked = Signal()
    taken_back = Signal(bool)

    def __init__(self, reader: Reader) -> None:
        super().__init__()
        self.reader = reader
        self.title, self.facts, self.says, self.doubt, self.marks = (QLabel() for _ in range(5))
        self.title.setFont(font("title", strong=True))
        for label in (self.title, self.facts, self.says, self.doubt, self.marks):
            label.setWordWrap(True)
            label.setTextFormat(Qt.TextFormat.PlainText)
            label.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        for label in (self.facts, self.doubt):
            label.setProperty("tone", "muted")
        self.examples, self.shipped = ExamplesView(reader), ExamplesView(reader)
        self.now_head, self.shipped_head = heading("What it makes of a coupon"), heading("As it ships")
        self.check_button = QPushButton("Mark checked…")
        self.correct_button = QPushButton("Correct it…")
        self.check_back, self.overlay_back = QPushButton("Take the check back"), QPushButton("Take the correction back")
        self._lay_out()
        self.check_button.clicked.connect(self.check_asked)
        self.correct_button.clicked.connect(self.correct_asked)
        self.check_back.clicked.connect(lambda: self.taken_back.emit(False))  # noqa: FBT003 - not the overlay
        self.overlay_back.clicked.connect(lambda: self.taken_back.emit(True))  # noqa: FBT003 - the overlay

    def _lay_out(self) -> None:
        inner = QWidget(objectName="panel")
        column = QVBoxLayout(inner)
        column.setContentsMargins(20, 14, 20, 14)
        column.setSpacing(8)
        for widget in (self.title, self.facts, self.says, self.marks):
            column.addWidget(widget)
        column.addSpacing(6)
        for widget in (self.now_head, self.examples, self.shipped_head, self.shipped, self.doubt):
            column.addWidget(widget)
        column.addStretch(1)
        self.scroll = QScrollArea()
        self.scroll.setWidget(inner)
        self.scroll.setWidgetResizable(True)
        self.scroll.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.scroll.setAccessibleName("The chosen rule")
        foot = QHBoxLayout()
        foot.setSpacing(8)
        for button in (self.check_button, self.correct_button, self.check_back, self.overlay_back):
            foot.addWidget(button)
        foot.addStretch(1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(self.scroll, 1)
        layout.addLayout(foot)

    def show_rule(self, rules: RulesOfCode, entry: RuleEntry | None, *, can_mark: bool) -> None:
        """Show a rule of a code; none where there is none."""
        self.setVisible(entry is not None)
        if entry is None:
            return
        system = self.reader.system
        self.title.setText(f"{entry.clause}   {entry.title}")
        self.facts.setText(entry.head)
        said = [f"{capital(each)}." for each in (entry.concerns, entry.note) if each]
        self.says.setText("\n".join(said))
        self.says.setVisible(bool(said))
        self.marks.setText("\n".join(_marks(rules, entry)))
        self.examples.show_lines(rules.examples(entry, system))
        overlaid = entry.overlay is not None
        of_itself = any(not rule.is_of_record for rule in entry.rules)
        head = "What it says" if entry.is_clause else "What it asks" if of_itself else "What it makes of a coupon"
        self.now_head.setText(f"{head}, as corrected" if overlaid else head)
        self.shipped_head.setVisible(overlaid)
        self.shipped.setVisible(overlaid)
        self.shipped.show_lines(rules.examples(entry, system, as_shipped=True) if overlaid else ())
        self.doubt.setText(f"Confidence {CONFIDENCES[entry.confidence]}. Source: {entry.rule.source}. "
                           f"Rule {entry.id}, {entry.rule.file} line {entry.rule.line}.")  # fmt: skip
        self.check_button.setText("Check it anew…" if entry.checks else "Mark checked…")
        for button, wanted in (
            (self.check_button, True), (self.correct_button, not entry.is_clause),
            (self.check_back, bool(entry.checks)), (self.overlay_back, overlaid),
        ):  # fmt: skip
            button.setVisible(wanted)
            button.setEnabled(can_mark)


def _marks(rules: RulesOfCode, entry: RuleEntry) -> list[str]:
    """Return who checked and corrected a rule, and which checks do not count."""
    found = []
    if entry.overlay is not None:
        found.append(f"Corrected by {entry.overlay.by} on {entry.overlay.on[:10]}: {entry.overlay.reason}")
    checks = [(f"{each.by} on {each.on[:10]}", each) for each in entry.checks]
    found += [f"Checked by {who} against {each.copy}, edition {each.edition}." for who, each in checks]
    found += [f"The check by {each.by} on {each.on[:10]} does not count: {why}." for each, why in entry.stale]
    if not entry.checks:
        found.append(f"Nobody has compared it with a copy of edition {rules.edition} yet.")
    return found
