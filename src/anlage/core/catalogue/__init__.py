"""Base metals, fillers, gases, pipes, process limits and the trade's vocabulary: loaded values, frozen."""

from anlage.core.catalogue.catalogue import GROUP_COLUMNS, Catalogue, MetalGroup, gas_composition
from anlage.core.catalogue.rows import (
    BaseMetal,
    Filler,
    FillerCurrent,
    Gas,
    PipeSize,
    PNumberRow,
    ProcessLimits,
    Tungsten,
    read_rows,
)
from anlage.core.catalogue.vocabulary import Vocabulary, read_vocabulary

__all__ = [
    "GROUP_COLUMNS",
    "BaseMetal",
    "Catalogue",
    "Filler",
    "FillerCurrent",
    "Gas",
    "MetalGroup",
    "PNumberRow",
    "PipeSize",
    "ProcessLimits",
    "Tungsten",
    "Vocabulary",
    "gas_composition",
    "read_rows",
    "read_vocabulary",
]
