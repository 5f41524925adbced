"""What is the same for every procedure: who writes, on what paper, read in which units, at which rates."""

from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFormLayout, QPushButton, QWidget

from anlage.session.machine.settings import MOST_MONTHS, TEXT_PERCENTS, is_months
from anlage.session.takes.takes import rate_fields
from anlage.ui.kit.dialog import Question
from anlage.ui.kit.fields import ListBox
from anlage.ui.kit.text_line import TextLine

if TYPE_CHECKING:
    from anlage.ui.desk.desk import WindowDesk

TITLE = "Settings"
TEXTS = (
    ("author", "Your name", "who issues revisions, and writes sheets"),
    ("role", "Your role", "stands behind the name on what you issue"),
    ("letterhead", "Letterhead", "stands over every sheet: the firm, its address"),
)
PAPER = {"a4": "A4", "letter": "Letter"}
UNITS = {"si": "mm, °C", "us": "in, °F"}
THEMES = {"light": "light", "dark": "dark"}


class SettingsDialog(Question):
    """Each setting is kept at once; the window shows it where it can."""

    def __init__(self, desk: "WindowDesk") -> None:
        super().__init__(TITLE, desk.shell)
        self.desk = desk
        self.setMinimumWidth(520)
        self.fields: dict[str, QWidget] = {}
        form = QFormLayout()
        form.setHorizontalSpacing(16)
        self._texts(form)
        self._lists(form)
        self._months(form)
        self._rates(form)
        self.column.addLayout(form)
        close = QPushButton("Close")
        close.clicked.connect(self.accept)
        self.add_foot(close)
        self.fields["author"].setFocus()

    def _texts(self, form: QFormLayout) -> None:
        for name, label, hint in TEXTS:
            field = self.fields[name] = TextLine(str(getattr(self.desk.settings, name)))
            field.setPlaceholderText(hint)
            field.setAccessibleName(label)
            field.textChanged.connect(lambda text, name=name: self.desk.keep(**{name: text.strip()}))
            form.addRow(label, field)

    def _lists(self, form: QFormLayout) -> None:
        reader, settings = self.desk.reader, self.desk.settings
        sizes = {percent: f"{percent} %, from the next start" for percent in TEXT_PERCENTS}
        for name, label, choices, now in (
            ("paper", "Paper", PAPER, settings.paper), ("units", "Units", UNITS, reader.system),
            ("theme", "Theme", THEMES, reader.look.theme), ("text_percent", "Text size", sizes, settings.text_percent),
        ):  # fmt: skip
            box = self.fields[name] = ListBox(reader)
            box.setAccessibleName(label)
            for value, said in choices.items():
                box.addItem(said, value)
            box.setCurrentIndex(max(box.findData(now), 0))
            box.activated.connect(lambda _index, name=name, box=box: self._choose(name, box.currentData()))
            form.addRow(label, box)

    def _choose(self, name: str, value: object) -> None:
        self.desk.keep(**{name: value})
        if name == "units":
            self.desk.reader.use_units(self.desk.settings.units)
        elif name == "theme":
            self.desk.reader.use_theme(self.desk.settings.theme)
        self.desk.refresh_place()

    def _months(self, form: QFormLayout) -> None:
        label = "A calibration holds, months"
        field = self.fields["calibration_months"] = TextLine(str(self.desk.settings.calibration_months))
        field.setAlignment(Qt.AlignmentFlag.AlignRight)
        field.setAccessibleName(label)
        field.textChanged.connect(self._month)
        form.addRow(label, field)

    def _month(self, text: str) -> None:
        """Keep for how long a calibration holds; a text that is no such number is marked, and the one before stays."""
        text = text.strip()
        months = int(text) if text.isascii() and text.isdecimal() and len(text) < 5 else 0
        if is_months(months):
            self.desk.keep(calibration_months=months)
            self.desk.refresh_place()
        _mark(self.fields["calibration_months"], "" if is_months(months) else f"Write 1 to {MOST_MONTHS}")

    def _rates(self, form: QFormLayout) -> None:
        rates = self.desk.settings.rates
        for name, label, times in rate_fields(self.desk.reader.system):
            field = self.fields[name] = TextLine(f"{rates[name] / times:.6g}" if name in rates else "")
            field.setAlignment(Qt.AlignmentFlag.AlignRight)
            field.setAccessibleName(label)
            field.textChanged.connect(lambda text, name=name, times=times: self._rate(name, text, times))
            form.addRow(label, field)

    def _rate(self, name: str, text: str, times: float) -> None:
        """Keep a rate as typed; a text that is no rate is marked, and the rate before it stays."""
        field, rates = self.fields[name], dict(self.desk.settings.rates)
        text = text.strip().replace(",", ".")
        number = float(text) if text.replace(".", "", 1).isdecimal() else None
        bad = bool(text) and number is None
        if not bad:
            rates.pop(name, None)
            if number is not None:
                rates[name] = number * times
            self.desk.keep(rates=rates)
            self.desk.refresh_place()
        _mark(field, "Write a number, such as 62.5" if bad else "")


def _mark(field: QWidget, fault: str) -> None:
    """Mark a field whose text is not kept, and say why; "" where it is."""
    field.setProperty("mark", "pending" if fault else "")
    field.setToolTip(fault)
    field.style().unpolish(field)
    field.style().polish(field)


def ask(desk: "WindowDesk") -> SettingsDialog:
    """Show the settings."""
    dialog = SettingsDialog(desk)
    dialog.open()
    return dialog
