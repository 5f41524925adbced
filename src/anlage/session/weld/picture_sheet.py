"""What pictures of a weld are drawn on."""

from msgspec import Struct

from anlage.core.drawing import Measure
from anlage.core.quantities.units import System


class Sheet(Struct, frozen=True):
    """What a picture is drawn on: room on paper [mm], the reader's units, and how texts are measured."""

    width_mm: float
    height_mm: float
    system: System
    measure: Measure
