"""The Proof place: what was welded and measured on a coupon, and what it buys, key by key."""

from collections.abc import Sequence
from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from anlage.core.record import Pqr, Rows, with_recorded_deposit, with_row, without_recorded_deposit, without_row
from anlage.session.judging.asked_leaves import OF_FEW, asked_leaves, reads_pieces
from anlage.session.judging.evidence import evidence_of_document
from anlage.session.judging.groups import filler_words, metal_words
from anlage.session.leaves.table import RECORDED, field_of
from anlage.ui.kit.complaint import Complaint
from anlage.ui.kit.document import Document
from anlage.ui.kit.element_rows import ElementRows
from anlage.ui.kit.fields import ChoiceField, LeafField, Unit, field_for
from anlage.ui.kit.look import font
from anlage.ui.kit.place import Desk, Place
from anlage.ui.kit.scrolling import show_in
from anlage.ui.places.proof.bought_ladder import LADDER_PX, LEAST_LADDER_PX, BoughtLadder
from anlage.ui.places.proof.leaves import (
    AGAINST,
    CARD,
    CARD_OF,
    LINES,
    MEASURED,
    PIECES,
    RESULTS,
    RESULTS_OF_PIECES,
    WELDED,
)
from anlage.ui.places.proof.record_guard import RecordGuard

METALS = ("metals/one/name", "metals/other/name")


class ProofPlace(Place):
    """The form of a record on the left, what it buys on the right."""

    def __init__(self, document: Document, desk: Desk) -> None:
        super().__init__()
        self.document, self.desk = document, desk
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.guard = RecordGuard(document, desk)
        self.guard.opened.connect(self._on_opened)
        self._own: dict[str, LeafField | ChoiceField] = {}
        self.cards: dict[str, QFrame] = {}
        self._lines_of: dict[str, tuple[tuple[str, ...], ...]] = {}  # what each shows of its process
        self._words: dict[str, QLabel] = {}  # what metals and fillers are to the codes, by the first leaf of their line
        self._of_few: dict[tuple[str, ...], list[QWidget]] = {}  # lines that only some codes have a use for
        self.welded: dict[tuple[str, str], ElementRows] = {}  # the passes as read, by deposit and kind of source
        self.buys = BoughtLadder(document, desk.rules)
        self.add, self.form = QPushButton("Add a deposit"), QWidget()
        self.add.clicked.connect(self.add_deposit)
        self.state = QLabel()
        self.state.setWordWrap(True)
        deeds = ("Remove", partial(self._remove, "results"))
        self._tests = tuple(ElementRows(document, "results", each, (deeds,)) for each in (RESULTS, RESULTS_OF_PIECES))
        self.pieces = ElementRows(document, "pieces", PIECES, (("Remove", partial(self._remove, "pieces")),))
        self.more, self.another = QPushButton("Add a test"), QPushButton("Add a test piece")
        self.another.setToolTip("One more piece of this record: other position, heat or make; its tests name its mark")
        self.more.clicked.connect(self.add_result)
        self.another.clicked.connect(self.add_piece)
        self._column = QVBoxLayout(self.form)
        self._column.setContentsMargins(0, 0, 12, 0)
        grid = QGridLayout()
        grid.setHorizontalSpacing(8)
        grid.setVerticalSpacing(4)
        for column in (1, 4):
            grid.setColumnStretch(column, 1)
        for place, paths in enumerate(LINES):
            self._line(grid, 2 * place, paths, self)
        self._column.addLayout(grid)
        self._column.addWidget(self.add, 0, Qt.AlignmentFlag.AlignLeft)
        self._lay_out_tests()
        self._column.addStretch(1)
        self._lay_out_sides()
        document.changed.connect(self.refresh)
        document.reader.units_changed.connect(self.buys.refresh)
        self.refresh()

    @property
    def results(self) -> ElementRows:
        """The rows of tests; with the piece that each was cut from, where there are several."""
        return self._tests[bool(self.document.value.pieces)]

    def _on_opened(self) -> None:
        self.refresh()
        self.fields["header/title"].setFocus(Qt.FocusReason.OtherFocusReason)

    def _show_guard(self) -> None:
        """Show whether the record can be typed in."""
        self.guard.refresh()
        can_write = self.guard.lets_change
        for field in self.fields.values():
            if isinstance(field, LeafField):
                field.setReadOnly(not can_write)
            else:
                field.setEnabled(can_write)
        kinds = (self.results, self.pieces, *self.welded.values())
        rows = (each for kind in kinds for each in kind.buttons.values())
        for button in (
            self.add,
            self.more,
            self.another,
            *self._card_buttons(),
            *(button for row in rows for button in row),
        ):
            button.setEnabled(can_write)

    def _edit(self, value: Pqr, text: str) -> bool:
        """Make a record the open one, unless it is accepted and nobody was asked yet; return whether it is."""
        if not self.guard.lets_change:
            self.guard.button.setFocus(Qt.FocusReason.OtherFocusReason)
            return False
        self.document.edit(value, text)
        return True

    def _card_buttons(self) -> list[QPushButton]:
        return [button for card in self.cards.values() for button in card.findChildren(QPushButton)]

    def _lay_out_sides(self) -> None:
        scroll = self.scroll = QScrollArea()
        scroll.setWidget(self.form)
        scroll.setWidgetResizable(True)
        scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        buys = QScrollArea()
        buys.setWidget(self.buys)
        buys.setWidgetResizable(True)
        buys.setMinimumWidth(LEAST_LADDER_PX)
        buys.setMaximumWidth(LADDER_PX)
        buys.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        sides = QHBoxLayout()
        sides.setSpacing(16)
        sides.addWidget(scroll, 9)
        sides.addWidget(buys, 5)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(16, 12, 16, 12)
        layout.setSpacing(10)
        layout.addWidget(self.guard)
        layout.addLayout(sides, 1)

    def _lay_out_tests(self) -> None:
        against = QGridLayout()
        against.setHorizontalSpacing(8)
        for column in (1, 4):
            against.setColumnStretch(column, 1)
        for place, paths in enumerate(AGAINST):
            self._line(against, 2 * place, paths, self)
        buttons = QHBoxLayout()
        buttons.addWidget(self.more)
        buttons.addWidget(self.another)
        buttons.addStretch(1)
        for title, widgets in (("Tests", (self.state, self.pieces, *self._tests)), ("A verdict against the tests", ())):
            head = QLabel(title)
            head.setFont(font("title", strong=True))
            self._column.addSpacing(8)
            self._column.addWidget(head)
            for widget in widgets:
                side = Qt.AlignmentFlag.AlignLeft if widget is not self.state else Qt.AlignmentFlag(0)
                self._column.addWidget(widget, 0, side)
            if widgets:
                self._column.addLayout(buttons)
        self._column.addLayout(against)

    def _line(self, grid: QGridLayout, row: int, paths: Sequence[str], owner: QWidget) -> None:
        for place, path in enumerate(paths):
            label, field = QLabel(field_of(path).label), field_for(self.document, path)
            label.setProperty("tone", "muted")
            self._own[path] = field
            field.setMinimumWidth(70)
            grid.addWidget(label, row, 3 * place)
            grid.addWidget(field, row, 3 * place + 1, 1, 5 if len(paths) == 1 else 1)
            if field.field.kind:
                grid.addWidget(Unit(self.document, path), row, 3 * place + 2)
        Complaint(self.document, paths, owner)
        if all(self._own[path].field.path in OF_FEW for path in paths):
            items = (grid.itemAtPosition(row, column) for column in range(6))
            widgets = (item.widget() for item in items if item is not None)
            self._of_few[tuple(paths)] = [each for each in widgets if each is not None]
        if any(path in paths for path in METALS) or any(path.endswith("/filler") for path in paths):
            words = self._words[paths[0]] = QLabel()
            words.setProperty("tone", "muted")
            words.setFont(font("note"))
            grid.addWidget(words, row + 1, 0, 1, 6)

    def _show_words(self) -> None:
        """Show under metals and fillers what they are to the codes."""
        pqr = self.document.value
        fillers = {f"deposits/{each.id}/": each.filler for each in pqr.deposits}
        for path, label in tuple(self._words.items()):
            if path in METALS:
                sides = [each for each in (pqr.metals.one, pqr.metals.other) if each is not None]
                said = "; ".join(
                    f"{each.name}: {words}" for each in sides if each.name and (words := metal_words(each))
                )
            else:
                own = next((filler for start, filler in fillers.items() if path.startswith(start)), None)
                said = f"{own}: {words}" if (words := filler_words(own)) else ""
            label.setText(said)
            label.setVisible(bool(said))

    def _show_asked(self, gone_to: str = "") -> None:
        """Show what the code of the record has a use for, what is stated, and what was asked for by its name."""
        asked = asked_leaves(self.document.value.header)
        for paths, widgets in self._of_few.items():
            is_asked = gone_to in paths or any(
                own.field.path in asked or self.document.text(own.path) or own.hasFocus()
                for own in (self._own[path] for path in paths)
            )
            for widget in widgets:
                widget.setVisible(is_asked)

    def refresh(self) -> None:
        """Show a card for every deposit there is, and what the record buys now."""
        self._show_cards()
        self._show_welded()
        for rows in self._tests:
            rows.show_elements([each.id for each in self.document.value.results] if rows is self.results else [])
            rows.setVisible(rows is self.results)
        self.pieces.show_elements([each.id for each in self.document.value.pieces])
        self.another.setVisible(bool(self.document.value.pieces) or reads_pieces(self.document.value.header))
        self._show_guard()
        self._show_asked()
        self._show_words()
        evidence = evidence_of_document(self.document.value, self.desk.rules.codes())
        words = evidence.remark or evidence.words()
        self.state.setText(f"{words[0].upper()}{words[1:]}.")
        self.buys.refresh()

    def _show_cards(self) -> None:
        """Show a card for every deposit there is; the keyboard stays in its field where that is made anew."""
        lines = {each.id: CARD_OF.get(each.process or "", ()) for each in self.document.value.deposits}
        focus = next((path for path, field in self.fields.items() if field.hasFocus()), "")
        gone_or_other = [own for own in self.cards if own not in lines or self._lines_of[own] != lines[own]]
        for gone in gone_or_other:
            self._put_away(gone)
        for place, deposit_id in enumerate(lines):
            if deposit_id not in self.cards:
                self._lines_of[deposit_id] = lines[deposit_id]
                self.cards[deposit_id] = self._card(deposit_id)
                self._column.insertWidget(1 + place, self.cards[deposit_id])
        if gone_or_other and focus in self.fields:
            self.fields[focus].setFocus(Qt.FocusReason.OtherFocusReason)

    def _put_away(self, gone: str) -> None:
        """Take the card of a deposit away, with everything that lies on it."""
        card, home = self.cards.pop(gone), f"deposits/{gone}/"
        self._column.removeWidget(card)
        card.hide()
        card.deleteLater()
        self.welded = {key: rows for key, rows in self.welded.items() if key[0] != gone}
        self._own = {path: field for path, field in self._own.items() if not path.startswith(home)}
        self._words = {path: word for path, word in self._words.items() if not path.startswith(home)}
        self._of_few = {paths: row for paths, row in self._of_few.items() if not paths[0].startswith(home)}

    def _show_welded(self) -> None:
        """Show the passes as read of each deposit, by current and voltage or as a waveform is measured."""
        waveforms = {each.id: "yes" if each.waveform == "yes" else "no" for each in self.document.value.deposits}
        for (deposit_id, waveform), rows in self.welded.items():
            is_shown = waveform == waveforms[deposit_id]
            ids = [each.id for each in self.document.value.welded if each.deposit == deposit_id]
            rows.show_elements(ids if is_shown else [])
            rows.setVisible(is_shown)

    @property
    def fields(self) -> dict[str, LeafField | ChoiceField]:
        """Every field that is shown, by its leaf."""
        rows = (self.results, self.pieces, *self.welded.values())
        return {**self._own, **{path: field for each in rows for path, field in each.fields.items()}}

    def _card(self, deposit_id: str) -> QFrame:
        card = QFrame(self.form, objectName="panel")
        grid = QGridLayout(card)
        grid.setContentsMargins(10, 8, 10, 8)
        grid.setHorizontalSpacing(8)
        grid.setVerticalSpacing(4)
        for column in (1, 3, 4):
            grid.setColumnStretch(column, 1)
        lines = (*CARD, *self._lines_of[deposit_id])
        for place, names in enumerate(lines):
            self._line(grid, 2 * place, [f"deposits/{deposit_id}/{name}" for name in names], card)
        row = 2 * len(lines)
        for column, head in enumerate(RECORDED):
            label = QLabel(head)
            label.setProperty("tone", "muted")
            label.setFont(font("note"))
            grid.addWidget(label, row, (1, 3, 4)[column])
        for place, name in enumerate(MEASURED, 1):
            self._measured(grid, row + 2 * place, f"deposits/{deposit_id}/{name}", card)
        for waveform, columns in WELDED.items():
            rows = ElementRows(self.document, "welded", columns, (("Remove", partial(self._remove, "welded")),))
            self.welded[deposit_id, waveform] = rows
            grid.addWidget(rows, row + 8, 0, 1, 6, Qt.AlignmentFlag.AlignLeft)
        read = QPushButton("Add a pass as read")
        read.setToolTip("What was read of one pass together: only that says for sure how hot a pass was")
        read.clicked.connect(partial(self.add_welded, deposit_id))
        grid.addWidget(read, row + 9, 0, 1, 6, Qt.AlignmentFlag.AlignLeft)
        remove = QPushButton("Remove this deposit")
        remove.clicked.connect(partial(self.remove_deposit, deposit_id))
        grid.addWidget(remove, row + 10, 0, 1, 6, Qt.AlignmentFlag.AlignLeft)
        return card

    def _measured(self, grid: QGridLayout, row: int, path: str, owner: QWidget) -> None:
        label = QLabel(field_of(path).label)
        label.setProperty("tone", "muted")
        grid.addWidget(label, row, 0)
        paths = [f"{path}/{part}" for part in RECORDED]
        for column, leaf in zip((1, 3, 4), paths, strict=True):
            field = self._own[leaf] = LeafField(self.document, leaf)
            field.setMinimumWidth(60)
            field.setAccessibleName(f"{field.field.label}, {leaf.rpartition('/')[2]}")
            grid.addWidget(field, row, column)
        grid.addWidget(Unit(self.document, path), row, 5)
        Complaint(self.document, paths, owner)

    def add_deposit(self) -> None:
        """Add a deposit, and put the keyboard at its process."""
        pqr, own = with_recorded_deposit(self.document.value)
        if self._edit(pqr, "Add a deposit") and f"deposits/{own}/process" in self.fields:
            self.fields[f"deposits/{own}/process"].setFocus(Qt.FocusReason.ShortcutFocusReason)

    def add_result(self) -> None:
        """Add a test, and put the keyboard at its kind."""
        pqr, own = with_row(self.document.value, "results", kind="tension")
        if self._edit(pqr, "Add a test"):
            self.go_to(f"results/{own}/kind")

    def add_piece(self) -> None:
        """Add a test piece, and put the keyboard at its position."""
        count = len(self.document.value.pieces) + 2
        pqr, own = with_row(self.document.value, "pieces", mark=f"P{count}")
        if self._edit(pqr, "Add a test piece"):
            self.go_to(f"pieces/{own}/position")

    def add_welded(self, deposit_id: str) -> None:
        """Add a pass as read to a deposit, and put the keyboard at the first that is read of it."""
        pqr, own = with_row(self.document.value, "welded", deposit=deposit_id)
        if self._edit(pqr, "Add a pass as read"):
            self.go_to(next(path for path in self.fields if path.startswith(f"welded/{own}/")))

    def _remove(self, of: Rows, element_id: str) -> None:
        self._edit(without_row(self.document.value, of, element_id), "Remove a row")

    def remove_deposit(self, deposit_id: str) -> None:
        """Take a deposit out."""
        self._edit(without_recorded_deposit(self.document.value, deposit_id), "Remove a deposit")

    def begin(self) -> None:
        """Put the keyboard on the record with nothing selected: Tab goes to its first field."""
        self.setFocus(Qt.FocusReason.OtherFocusReason)

    def go_to(self, path: str) -> bool:
        """Put the keyboard into the field of a leaf; return whether it is here."""
        found = self.fields.get(path)
        if found is not None:
            self._show_asked(path)
            found.setFocus(Qt.FocusReason.ShortcutFocusReason)
            show_in(self.scroll, found)
        return found is not None
