"""The Passes place: what is laid, in what order, with what energy? Bead map, operating window, pass table."""

from functools import partial
from typing import TYPE_CHECKING, cast

from PySide6.QtCore import QPoint, QSize, Qt
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QPushButton, QToolButton, QVBoxLayout, QWidget

from anlage.core.document import fields_of
from anlage.core.errors import AnlageError
from anlage.core.procedure import moved_pass, with_deposit, with_pass, without_deposit, without_pass
from anlage.core.quantities import show
from anlage.data.tables import unit_table
from anlage.session.draft.widths import fill_within
from anlage.session.leaves.marks import with_marks_of
from anlage.session.proposal.fill import Filled
from anlage.session.seam.heat import heat_span
from anlage.session.weld.fill_notices import fill_notices
from anlage.session.weld.usual import outdated_words
from anlage.ui.kit.cap_limit import cap_limit
from anlage.ui.kit.document import Document
from anlage.ui.kit.heat_scale import HeatScale
from anlage.ui.kit.icons import icon
from anlage.ui.kit.loading import loaded
from anlage.ui.kit.place import Desk, Place
from anlage.ui.kit.tabs import View, Views
from anlage.ui.picture.editor import PictureEditor
from anlage.ui.picture.view import PictureView
from anlage.ui.places.passes.deposits import DepositStrip
from anlage.ui.places.passes.hero import Hero
from anlage.ui.places.passes.leaves import OF_VIEW, VIEW_OF
from anlage.ui.places.passes.presenters import BeadPresenter, WindowPresenter
from anlage.ui.places.passes.selection import Selection
from anlage.ui.places.passes.table import MOST_ROWS, PassTable

if TYPE_CHECKING:
    from collections.abc import Sequence

    from anlage.core.drawing.operating_window import HeatLimit
    from anlage.session.judging.assessment import Assessment
    from anlage.ui.places.passes.fill_dialog import FillDialog
    from anlage.ui.places.passes.sectors_view import SectorsView
    from anlage.ui.places.passes.stations_view import StationsView
    from anlage.ui.places.passes.stops_view import StopsView
    from anlage.ui.places.passes.stopwatch import Stopwatch
    from anlage.ui.places.passes.tacks_view import TacksView

    SeamView = StopsView | TacksView | StationsView | SectorsView

BEADS = "beads"
SEAM_VIEWS = (
    ("stops", "Starts and stops", "stops_view:StopsView"), ("tacks", "Tacks and strips", "tacks_view:TacksView"),
    ("fit-up", "Fit-up", "stations_view:StationsView"), ("sectors", "Sectors and dials", "sectors_view:SectorsView"),
)  # fmt: skip
FEW_ROWS = 5  # of the table beside a view along the seam
SENTENCES = 3  # shown at once under the picture


class PassesPlace(Place):
    """Bead map, operating window, deposits and pass table."""

    def __init__(self, document: Document, desk: Desk) -> None:
        super().__init__()
        self.document, self.desk = document, desk
        self.proof: Assessment | None = None  # how the procedure stood when it was last told
        self.selection = Selection(document)
        self.views = Views(document, (View(BEADS, "Beads", self._beads), *(
            View(name, word, self._along_seam(name, make)) for name, word, make in SEAM_VIEWS
        )))  # fmt: skip
        window = WindowPresenter(document, self.selection, self.limits)
        self.window_view = PictureView(window, document.reader, "Operating window")
        self.window_view.setMinimumHeight(200)
        self.editors = [PictureEditor(view, document) for view in (self.bead_view, self.window_view)]
        self.table = PassTable(document, self.selection)
        self.table.refused.connect(desk.say)
        self.selection.follow()
        self.deposits = DepositStrip(document)
        self.add_button = QPushButton("Add a deposit")
        self.add_button.setToolTip("Process, filler and current of more passes (Ctrl+Shift+Return)")
        self.add_button.setEnabled(document.can_write)
        self.add_button.clicked.connect(self.add_deposit)
        self.scale = HeatScale(document.reader, lambda: heat_span(document.value), self._energy)
        self.seam_scale = HeatScale(document.reader, self._seam_heat, self._energy)
        self.hero = Hero(document, self.selection, desk)
        self.fill = QLabel()
        self.fill.setProperty("tone", "muted")
        self.stopwatch: Stopwatch | None = None
        self._kind = document.value.joint.kind
        self.tools: dict[str, QToolButton] = {}
        self._lay_out()
        self.views.turned.connect(self._on_turned)
        document.changed.connect(self.refresh)
        document.reader.units_changed.connect(self.refresh)
        document.reader.look_changed.connect(self._draw_icons)
        self.selection.changed.connect(self.refresh)
        self._draw_icons()
        self._on_turned(BEADS)

    @property
    def bead_view(self) -> PictureView:
        """The map of the beads."""
        return cast("PictureView", self.views.view(BEADS))

    def _beads(self, document: Document) -> QWidget:
        beads = BeadPresenter(document, self.selection, partial(cap_limit, document, self.desk.rules.codes))
        return PictureView(beads, document.reader, "Bead map", beads.matters)

    def _along_seam(self, name: str, make: str) -> loaded:
        view = loaded(f"anlage.ui.places.passes.{make}")
        beside = (self.desk,) if name == "sectors" else ()  # what the machines give is of the works
        return cast("loaded", lambda document: view(document, self.selection, *beside))

    def _lay_out(self) -> None:
        left, right = QVBoxLayout(), QVBoxLayout()
        left.setSpacing(6)
        left.addWidget(self.views, 1)
        left.addWidget(self.fill)
        left.addWidget(self.seam_scale)
        right.addWidget(self.hero)
        right.addWidget(self.window_view, 1)
        right.addWidget(self.scale)
        pictures = QHBoxLayout()
        pictures.setSpacing(16)
        pictures.addLayout(left, 4)
        self.beside = QWidget()
        self.beside.setLayout(right)
        right.setContentsMargins(0, 0, 0, 0)
        pictures.addWidget(self.beside, 5)
        foot = QHBoxLayout()
        foot.setSpacing(6)
        foot.addWidget(self.deposits, 1)
        foot.addLayout(self._tools())
        layout = QVBoxLayout(self)
        layout.setContentsMargins(16, 10, 16, 12)
        layout.setSpacing(8)
        layout.addLayout(pictures, 1)
        layout.addLayout(foot)
        layout.addWidget(self.table)

    def _tools(self) -> QGridLayout:
        tools = QGridLayout()
        tools.setSpacing(6)
        commands = (
            ("add", "Add a pass (Ctrl+Return)", self.add_pass),
            ("copy", "Duplicate the pass (Ctrl+D)", self.duplicate_pass),
            ("remove", "Remove the pass (Ctrl+Del)", self.remove_pass),
            ("up", "Move the pass up (Alt+Up)", self.move_pass_up),
            ("down", "Move the pass down (Alt+Down)", self.move_pass_down),
            ("fill", "Fill the joint with passes (Ctrl+Shift+F)", self.fill_joint),
            ("stopwatch", "Travel speed by stopwatch (F8)", self.open_stopwatch),
        )
        for place, (name, tip, do) in enumerate(commands):
            button = self.tools[name] = QToolButton()
            button.setIconSize(QSize(18, 18))
            button.setToolTip(tip)
            button.setAccessibleName(tip.partition(" (")[0])
            button.setEnabled(self.document.can_write)
            button.clicked.connect(do)
            tools.addWidget(button, place // 4, place % 4)
        tools.addWidget(self.add_button, 2, 0, 1, 4)
        tools.setRowStretch(3, 1)
        return tools

    def _draw_icons(self) -> None:
        for name, button in self.tools.items():
            button.setIcon(icon(name, self.document.reader.look.colour["ink"]))

    def _seam_heat(self) -> tuple[float, float] | None:
        """Return the span of the scale of the picture in front, beside the beads."""
        if self.views.in_front == BEADS:
            return None
        return cast("SeamView", self.views.front()).picture.presenter.heat()

    def _energy(self, value: float) -> str:
        return show(value, "heat_input", self.document.system, unit_table())

    def refresh(self) -> None:
        """Show what the document says now; the beads of another preparation are looked at anew."""
        if self._kind != self.document.value.joint.kind:
            self._kind = self.document.value.joint.kind
            self.bead_view.lens.as_at_first()
        self.views.refresh()
        if self.views.in_front != BEADS:
            self.seam_scale.update()
            return
        self.window_view.refresh()
        self.scale.update()
        self.hero.refresh()
        wps, system = self.document.value, self.document.system
        said = [each.text for each in fill_notices(wps, system)[:SENTENCES]]
        if proposed := sum(path.startswith("passes/") for path in wps.proposed):
            said.append(f"{proposed} settings are only proposed (grey): type others, or confirm them (Ctrl+Shift+Y).")
        if words := outdated_words(wps):
            said.insert(0, f"{words.removesuffix('.')} (Ctrl+Shift+F).")
        self.fill.setText("\n".join(said))

    def _on_turned(self, view: str) -> None:
        """Give the view in front its room: one along the seam needs that of window, deposits and tools."""
        others = (self.beside, self.deposits, self.fill, self.add_button, *self.tools.values())
        for widget in others:
            widget.setVisible(view == BEADS)
        self.seam_scale.setVisible(view != BEADS)
        self.table.show_at_most(MOST_ROWS if view == BEADS else FEW_ROWS)
        self.refresh()

    def show_proof(self, assessment: "Assessment") -> None:
        """Draw how much heat the records allow into the operating window."""
        before, self.proof = self.limits(), assessment
        if self.limits() != before:
            self.window_view.refresh()

    def limits(self) -> "Sequence[HeatLimit]":
        """Return the arc energies that the records allow, that of the chosen pass named."""
        find = loaded("anlage.session.judging.heat_limits:heat_limits")
        found: Sequence[HeatLimit] = find(self.document.value, self.proof, self.document.system, self.selection.pass_id)
        band = loaded("anlage.session.heat.cooling_picture:cooling_limits")
        cooled: Sequence[HeatLimit] = band(self.document.value, self.selection.pass_id, self.document.system)
        return (*(found if self.proof else ()), *cooled)

    def begin(self) -> None:
        """Put the keyboard where the work starts: in the table."""
        self.table.setFocus(Qt.FocusReason.OtherFocusReason)

    def go_to(self, path: str) -> bool:
        """Put the keyboard on a leaf; return whether it is on this place."""
        kind, _, rest = path.partition("/")
        owner, _, leaf = rest.partition("/")
        if kind == "passes" and leaf not in OF_VIEW:
            self.selection.choose(owner)
            self.table.edit_leaf(leaf)
            return True
        fields: dict[str, QWidget] = {}
        if kind == "passes":
            self.selection.choose(owner)
        elif leaf in OF_VIEW:
            self.selection.choose(next((each.id for each in self.document.value.passes if each.deposit == owner), ""))
        view = OF_VIEW.get(leaf, VIEW_OF.get(kind))
        if view:
            self.views.show_view(view)
            fields = dict(cast("SeamView", self.views.front()).fields)
        elif kind == "deposits" and owner in self.deposits.cards:
            fields = {f"deposits/{owner}/{name}": each for name, each in self.deposits.cards[owner].fields.items()}
        if path not in fields:
            return False
        fields[path].setFocus(Qt.FocusReason.ShortcutFocusReason)
        return True

    def picture(self) -> str:
        """Return the name of the picture in front."""
        view = self.views.in_front
        if view == "fit-up":
            chosen = cast("StationsView", self.views.front()).chosen
            return f"fit-up/{chosen}" if chosen else BEADS
        if view == "sectors":
            return f"sectors/{self.selection.pass_id}" if self.selection.pass_id else BEADS
        return BEADS if view == BEADS else "stops"  # starts and stops, tacks and strips: one picture

    # Commands --------------------------------------------------------------------------------

    def add_pass(self) -> None:
        """Add a pass after the chosen one, to the same deposit; the first pass brings the first deposit."""
        wps, chosen = self.document.value, self.selection.chosen
        home = chosen.deposit if chosen else wps.deposits[-1].id if wps.deposits else ""
        if not home:
            wps, home = with_deposit(wps)
        wps, _ = with_pass(wps, home, after=chosen.id if chosen else None)
        self.document.edit(wps, "Add a pass")
        self.table.edit_leaf("role")

    def duplicate_pass(self) -> None:
        """Add a pass after the chosen one that states the same."""
        chosen = self.selection.chosen
        if chosen is None:
            return
        stated = {name: getattr(chosen, name) for name in fields_of(type(chosen)) if name not in ("id", "deposit")}
        wps, copy = with_pass(self.document.value, chosen.deposit, after=chosen.id, **stated)
        wps = with_marks_of(wps, chosen.id, copy)
        self.document.edit(wps, f"Duplicate pass {self.selection.row + 1}")

    def remove_pass(self) -> None:
        """Take the chosen pass out."""
        if self.selection.chosen is not None:
            number = self.selection.row + 1
            self.document.edit(without_pass(self.document.value, self.selection.pass_id), f"Remove pass {number}")

    def move_pass_up(self) -> None:
        """Move the chosen pass up in the order."""
        self._move_pass(-1)

    def move_pass_down(self) -> None:
        """Move the chosen pass down in the order."""
        self._move_pass(1)

    def _move_pass(self, places: int) -> None:
        row = self.selection.row
        if row >= 0 and 0 <= row + places < len(self.document.value.passes):
            wps = moved_pass(self.document.value, self.selection.pass_id, row + places)
            self.document.edit(wps, f"Move pass {row + 1}")

    def copy_down(self) -> None:
        """Copy the topmost selected value of the table down."""
        self.table.copy_down()

    def fill_joint(self) -> None:
        """Write passes that fill the joint; where passes are there already, show first what would change."""
        try:
            found = fill_within(self.document.value, self.desk.assess)
        except AnlageError as fault:
            self.desk.say(str(fault))
            return
        if not found.changes:
            self._take_fill(found)
            return
        make = loaded("anlage.ui.places.passes.fill_dialog:FillDialog")
        self.fill_dialog: FillDialog = make(self.document, found, lambda: self._take_fill(found), self.window())
        self.fill_dialog.finished.connect(self._on_fill_left)
        self.fill_dialog.open()

    def _on_fill_left(self) -> None:
        """Give the keyboard back to the table."""
        self.window().activateWindow()
        self.table.setFocus(Qt.FocusReason.OtherFocusReason)

    def _take_fill(self, found: Filled) -> None:
        self.document.edit(found.wps, "Fill the joint")
        if found.minded:
            self.desk.say(" ".join(found.minded))
            return
        said = f"{len(found.wps.passes)} passes fill the joint; the settings are usual ones, to be proved."
        self.desk.mention(f"{said} {found.said[0]}")

    def confirm_proposed(self) -> None:
        """Let the settings that are only proposed be the person's own: the selected ones, else all."""
        count = len(self.document.value.proposed)
        self.table.confirm()
        left = len(self.document.value.proposed)
        said = f"{count - left} settings are yours now." if left < count else "Nothing here is only proposed."
        self.desk.mention(said)

    def add_deposit(self) -> None:
        """Add a deposit with its first pass, and put the keyboard at its process."""
        wps, home = with_deposit(self.document.value)
        wps, _ = with_pass(wps, home)
        self.document.edit(wps, "Add a deposit")
        self.go_to(f"deposits/{home}/process")

    def remove_deposit(self) -> None:
        """Take the deposit of the chosen pass out, with all its passes."""
        chosen = self.selection.chosen
        if chosen is None:
            return
        self.document.edit(without_deposit(self.document.value, chosen.deposit), "Remove a deposit")

    def may_go(self) -> bool:
        """Not while the stopwatch runs or holds times."""
        return self.stopwatch is None or not self.stopwatch.has_times

    def open_stopwatch(self) -> None:
        """Show the stopwatch for the chosen pass."""
        if self.selection.chosen is None:
            return
        if self.stopwatch is None:
            make = loaded("anlage.ui.places.passes.stopwatch:Stopwatch")
            self.stopwatch = make(self.document, self.selection, self.desk.clocks.seconds, self)
            self.stopwatch.put_away.connect(self._on_put_away)
        self.stopwatch.adjustSize()
        corner = self.table.geometry().topRight() - QPoint(self.stopwatch.width() + 8, self.stopwatch.height() + 8)
        self.stopwatch.move(corner)
        self.stopwatch.show()
        self.stopwatch.raise_()
        self.stopwatch.way.setFocus(Qt.FocusReason.ShortcutFocusReason)

    def _on_put_away(self) -> None:
        if self.stopwatch is not None:
            self.stopwatch.hide()
        self.table.edit_leaf("travel_speed_mm_min")
