"""The Rulebook place: what does the code say, and who checked it? Rules by clause, one of them with its examples."""

from collections.abc import Mapping
from pathlib import Path
from typing import TYPE_CHECKING

from PySide6.QtCore import QModelIndex, Qt
from PySide6.QtGui import QShowEvent
from PySide6.QtWidgets import QAbstractItemView, QHBoxLayout, QLabel, QListView, QPushButton, QVBoxLayout, QWidget

from anlage.core.errors import AnlageError
from anlage.core.rulebook import Rulebook
from anlage.data.installed_codes import code_choices
from anlage.session.output.checking_list import checking_list
from anlage.session.output.printed import Printed, write_pdf
from anlage.session.output.wps_sheet import Stationery
from anlage.session.rulebook.entries import ExampleLine, RuleEntry, RulesOfCode, example_lines, rules_of
from anlage.session.rulebook.filters import WHICH, Filter
from anlage.session.rulebook.marking import Signing, checked, corrected, rules_with, taken_back, written_now
from anlage.session.rulebook.values import Place as ValuePlace
from anlage.session.rulebook.values import keys_with, values_of
from anlage.ui.kit.fields import ListBox
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.list_row import ITEM_ROLE
from anlage.ui.kit.loading import loaded
from anlage.ui.kit.look import measure
from anlage.ui.kit.place import Desk, Place
from anlage.ui.kit.text_line import TextLine
from anlage.ui.places.rulebook.correction import Correction
from anlage.ui.places.rulebook.rule_list import LIST_PX, RuleDelegate, RuleModel
from anlage.ui.places.rulebook.rule_panel import RulePanel

if TYPE_CHECKING:
    from anlage.ui.places.rulebook.check_dialog import CheckDialog
    from anlage.ui.places.rulebook.correct_dialog import CorrectDialog

ANY_PROCESS = "Every process"


@guarded
class RulebookPlace(Place):
    """List and filters on the left, the chosen rule on the right."""

    def __init__(self, desk: Desk) -> None:
        super().__init__()
        self.desk, self.reader = desk, desk.reader
        self.rules: RulesOfCode | None = None
        self.chosen = ""  # id of the rule
        self.model, self.list, self.panel = RuleModel(), QListView(), RulePanel(desk.reader)
        self.search, self.said, self.lost = TextLine(), QLabel(), QLabel()
        self.code, self.process, self.which = (ListBox(desk.reader) for _ in range(3))
        self.list_button = QPushButton("Save a checking list…")
        self.dialog: CheckDialog | CorrectDialog | None = None
        self._lay_out()
        self.search.textChanged.connect(self.show_rules)
        for box in (self.process, self.which):
            box.currentIndexChanged.connect(self.show_rules)
        self.code.currentIndexChanged.connect(self.refresh)
        self.list.selectionModel().currentChanged.connect(self._on_current)
        self.list_button.clicked.connect(self.ask_for_list)
        self.panel.check_asked.connect(self.ask_to_check)
        self.panel.correct_asked.connect(self.ask_to_correct)
        self.panel.taken_back.connect(self.take_back)
        self.reader.units_changed.connect(self.refresh)
        self.reader.look_changed.connect(self.list.viewport().update)

    def _lay_out(self) -> None:
        self.search.setPlaceholderText("Clause, word or variable")
        self.search.setAccessibleName("Search the rules")
        self.list.setModel(self.model)
        self.list.setItemDelegate(RuleDelegate(self.reader, self.list))
        self.list.setAccessibleName("Rules")
        self.list.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        for box, name in ((self.code, "Code"), (self.process, "Process"), (self.which, "Which rules")):
            box.setAccessibleName(name)
        for code, word in code_choices().items():
            self.code.addItem(word, code)
        for key, word in WHICH.items():
            self.which.addItem(word, key)
        self.said.setProperty("tone", "muted")
        self.lost.setProperty("tone", "outside")
        self.lost.setWordWrap(True)
        head, filters = QHBoxLayout(), QHBoxLayout()
        for row in (head, filters):
            row.setSpacing(8)
        head.addWidget(self.code, 1)
        head.addWidget(self.list_button)
        for box in (self.process, self.which):
            filters.addWidget(box, 1)
        left = QVBoxLayout()
        left.setContentsMargins(0, 0, 0, 0)
        left.addLayout(head)
        left.addWidget(self.search)
        left.addLayout(filters)
        left.addWidget(self.list, 1)
        left.addWidget(self.said)
        left.addWidget(self.lost)
        column = QWidget()
        column.setFixedWidth(LIST_PX)
        column.setLayout(left)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(16, 12, 16, 12)
        layout.setSpacing(16)
        layout.addWidget(column)
        layout.addWidget(self.panel, 1)

    # What is shown ---------------------------------------------------------------------------

    def showEvent(self, event: QShowEvent) -> None:
        super().showEvent(event)
        own = next(iter(self.desk.rules.codes_in_front()), "")
        if self.rules is None and self.code.findData(own) > 0:
            self.code.setCurrentIndex(self.code.findData(own))
        self.refresh()

    def refresh(self) -> None:
        """Read the rules anew: as they are marked now."""
        if not self.isVisible():
            return
        try:
            self.rules = rules_of(self.code.currentData(), self.desk.rules.codes())
        except AnlageError as fault:
            self.rules = None
            self.lost.setText(str(fault))
        else:
            gone = self.rules.lost()
            self.lost.setText(f"Marked, but not in the code any more: {', '.join(gone)}." if gone else "")
            self._offer_processes(sorted(self.rules.pack.processes))
        self.lost.setVisible(bool(self.lost.text()))
        self.show_rules()

    def _offer_processes(self, processes: list[str]) -> None:
        offered = [ANY_PROCESS, *processes]
        if [self.process.itemText(n) for n in range(self.process.count())] == offered:
            return
        self.process.blockSignals(True)  # noqa: FBT003 - the rules are shown once all are there
        self.process.clear()
        for name in offered:
            self.process.addItem(name, "" if name == ANY_PROCESS else name)
        self.process.blockSignals(False)  # noqa: FBT003

    def show_rules(self) -> None:
        """Show the rules that search and filters let through, and keep the chosen one."""
        entries = self.rules.entries(self.reader.system) if self.rules else ()
        wanted = Filter(self.search.text(), self.process.currentData() or "", self.which.currentData())
        found = tuple(each for each in entries if wanted.takes(each))
        done, total = sum(bool(each.checks) for each in entries), len(entries)
        self.said.setText(f"{len(found)} of {total} rules; {done} checked in edition {self.rules.edition}."
                          if self.rules else "")  # fmt: skip
        self.list_button.setEnabled(bool(found))
        self.model.show_entries(found)
        row = self.model.row_of(self.chosen)
        self.list.setCurrentIndex(self.model.index(row if row >= 0 else 0) if found else QModelIndex())
        self._show_chosen()

    def entry(self) -> RuleEntry | None:
        """Return the chosen rule."""
        entry: RuleEntry | None = self.list.currentIndex().data(ITEM_ROLE)
        return entry

    def _on_current(self, current: QModelIndex, _previous: QModelIndex) -> None:
        if current.isValid():
            self.chosen = current.data(ITEM_ROLE).id
        self._show_chosen()

    def _show_chosen(self) -> None:
        if self.rules is not None:
            self.panel.show_rule(self.rules, self.entry(), can_mark=self.desk.rules.can_mark())
        else:
            self.panel.hide()

    def begin(self) -> None:
        """Put the keyboard on the list."""
        self.list.setFocus(Qt.FocusReason.OtherFocusReason)

    def go_to(self, path: str) -> bool:
        """Choose a rule by its id, `rules/t_base`, or by code and id; return whether it is there."""
        code, _, self.chosen = path.partition("/")[2].rpartition(" ")
        shown = str(self.code.currentData() or "").partition(":")[0]
        if code and shown != code and (row := self.code.findData(self._as_named(code))) >= 0:
            self.code.setCurrentIndex(row)
        if self.model.row_of(self.chosen) < 0:
            self.search.clear()
            self.process.setCurrentIndex(0)
            self.which.setCurrentIndex(0)
        self.show_rules()
        self.list.scrollTo(self.list.currentIndex(), QAbstractItemView.ScrollHint.PositionAtCenter)
        return self.model.row_of(self.chosen) >= 0

    def _as_named(self, code: str) -> str:
        """Return a code with the edition that the document in front names, where it names it."""
        named = self.desk.rules.codes_in_front()
        return next((each for each in named if each.partition(":")[0] == code), code)

    # What is done with a rule ----------------------------------------------------------------

    def _in_hand(self) -> tuple[RulesOfCode, RuleEntry] | None:
        """Return the chosen rule with its code; `None` where none is, or nothing can be written."""
        entry = self.entry()
        if self.rules is None or entry is None:
            self.desk.mention("No rule is chosen.")
        elif not self.desk.rules.can_mark():
            self.desk.mention("The works file is open for reading only.")
        else:
            return self.rules, entry
        return None

    def _signing(self, by: str, copy: str = "") -> Signing:
        return Signing(by=by, on=self.desk.clocks.now(), copy=copy)

    def _mark(self, book: Rulebook, by: str) -> None:
        self.desk.rules.mark(book, by)
        self.refresh()

    def ask_to_check(self) -> None:
        """Ask who laid the chosen rule beside which copy, and mark it checked."""
        if (found := self._in_hand()) is None:
            return
        rules, entry = found
        last = rules.book.checks[-1].copy if rules.book and rules.book.checks else ""
        make = loaded("anlage.ui.places.rulebook.check_dialog:CheckDialog")

        def mark(by: str, copy: str) -> None:
            self._mark(checked(rules, entry.id, self._signing(by, copy)), by)

        self._ask(make(entry, rules.edition, (self.desk.settings.author, last), mark, self.window()))

    def ask_to_correct(self) -> None:
        """Ask for other values of the chosen rule, and put them in its place."""
        if (found := self._in_hand()) is None:
            return
        rules, entry = found
        if entry.is_clause:
            self.desk.mention("Specimens, and how records combine, are checked here and not corrected.")
            return
        now, shipped = written_now(rules, entry.id)
        values = values_of(now)
        if not values:
            self.desk.mention("The rule has no value of its own: it asks that something is stated.")
            return

        def keys(texts: Mapping[ValuePlace, str]) -> str:
            return keys_with(shipped, now, texts)

        def preview(texts: Mapping[ValuePlace, str]) -> tuple[ExampleLine, ...]:
            made, pack = rules_with(rules, entry.id, keys(texts))
            return tuple(line for rule in made for line in example_lines(rule, pack, self.reader.system))

        def put(texts: Mapping[ValuePlace, str], by: str, reason: str) -> None:
            self._mark(corrected(rules, entry.id, keys(texts), reason, self._signing(by)), by)

        make = loaded("anlage.ui.places.rulebook.correct_dialog:CorrectDialog")
        reason = entry.overlay.reason if entry.overlay else ""
        correction = Correction(entry, values, self.desk.settings.author, reason, preview, put)
        self._ask(make(correction, self.reader, self.window()))

    def _ask(self, dialog: "CheckDialog | CorrectDialog") -> None:
        self.dialog = dialog
        dialog.finished.connect(self._on_asked)
        dialog.open()

    def _on_asked(self, _answer: int) -> None:
        """Give the keyboard back to the list."""
        self.dialog = None
        self.window().activateWindow()
        self.begin()

    def take_back(self, overlay: bool) -> None:  # noqa: FBT001 - what a signal says
        """Take the overlay of the chosen rule back, or its check; both stay in the revisions of the rulebook."""
        if (found := self._in_hand()) is None:
            return
        rules, entry = found
        own = entry.overlay.by if overlay and entry.overlay else entry.checks[-1].by
        try:
            self._mark(taken_back(rules, entry.id, overlay=overlay), self.desk.settings.author or own)
        except AnlageError as refusal:
            self.desk.say(str(refusal))

    # On paper --------------------------------------------------------------------------------

    def ask_for_list(self) -> None:
        """Let the person choose where the shown rules go as a checking list, and write it there."""
        if self.rules is None or not self.model.entries:
            self.desk.mention("No rule is shown.")
            return
        name = f"{self.rules.pack.name} {self.rules.edition} checking list"
        path = loaded("anlage.ui.picture.printing:ask_for_pdf")(self, "Save the checking list", name)
        if path is not None:
            self.save_list(path)

    def save_list(self, path: Path) -> None:
        """Write the shown rules as a checking list, and say where it is."""
        assert self.rules is not None, "rules are shown"
        settings = self.desk.settings
        on = Stationery(settings.paper, measure, settings.letterhead)
        pages = checking_list(self.rules, self.model.entries, on, self.reader.system)
        title = f"{self.rules.pack.name} {self.rules.edition} checking list"
        try:
            write_pdf(path, Printed(pages, title, settings.signature, self.desk.clocks.now()))
        except AnlageError as refusal:
            self.desk.say(str(refusal))
        else:
            self.desk.mention(f"{len(self.model.entries)} rules are written to {path}.")
