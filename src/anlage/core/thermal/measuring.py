"""Where temperatures of a piece are read, and how long heat evens out before they mean something."""

from msgspec import Struct

from anlage.core.toml_rows import whole_table


class Measuring(Struct, frozen=True, forbid_unknown_fields=True):
    """The places of a standard: lengths [mm] from the groove edge, and the pause after heating [min per mm]."""

    source: str
    confidence: str
    thin_to_mm: float
    per_thickness: float
    near_mm: float
    far_mm: float
    even_out_min_per_mm: float

    def is_thin(self, thickness_mm: float) -> bool:
        """Return whether a piece counts as thin: its place follows its thickness."""
        return thickness_mm <= self.thin_to_mm

    def from_groove_mm(self, thickness_mm: float) -> float:
        """Return how far from the groove edge a piece is read [mm]."""
        return min(self.per_thickness * thickness_mm, self.near_mm) if self.is_thin(thickness_mm) else self.far_mm

    def even_out_min(self, thickness_mm: float) -> float:
        """Return how long heating has stopped before the heated face is read [min]."""
        return self.even_out_min_per_mm * thickness_mm


def read_measuring(text: str) -> Measuring:
    """Return the places written in `text` (TOML)."""
    return whole_table(text, Measuring, where="measuring.toml")
