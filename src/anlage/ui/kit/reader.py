"""How the person at the window reads: units and theme, which change nothing in any document."""

from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, Signal

from anlage.ui.kit.look import Look

if TYPE_CHECKING:  # part of the first paint: nothing heavy may be loaded for it
    from anlage.core.quantities.units import System
    from anlage.data.look import Theme


class Reader(QObject):
    """The units and the look of a window.

    Signals
    -------
    units_changed() : values are to be shown in the other system
    look_changed() : the theme is another one
    """

    units_changed = Signal()
    look_changed = Signal()

    def __init__(self, system: "System" = "si", theme: "Theme" = "light") -> None:
        super().__init__()
        self.system: System = system
        self.look = Look.of(theme)

    def use_units(self, system: "System") -> None:
        """Show values in a system."""
        if system != self.system:
            self.system = system
            self.units_changed.emit()

    def use_theme(self, theme: "Theme") -> None:
        """Draw in a theme."""
        if theme != self.look.theme:
            self.look = Look.of(theme)
            self.look_changed.emit()

    def switch_units(self) -> None:
        """Read in the other unit system."""
        self.use_units("us" if self.system == "si" else "si")

    def switch_theme(self) -> None:
        """Draw in the other theme."""
        self.use_theme("dark" if self.look.theme == "light" else "light")
