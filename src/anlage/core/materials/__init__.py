"""What a works adds to the catalogue of metals and fillers, as a document."""

from anlage.core.materials.materials import MATERIALS, Materials

__all__ = ["MATERIALS", "Materials"]
