"""Base metals, fillers, gases, pipes, process limits and the trade's vocabulary: loaded values, frozen."""

from anlage.core.catalogue.catalogue import GROUP_COLUMNS, Catalogue, MetalGroup, gas_composition
from anlage.core.catalogue.own import FILLER_COLUMNS, METAL_COLUMNS, Iso15608Group, Own, OwnKinds, OwnWords, read_own
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
    "FILLER_COLUMNS",
    "GROUP_COLUMNS",
    "METAL_COLUMNS",
    "BaseMetal",
    "Catalogue",
    "Filler",
    "FillerCurrent",
    "Gas",
    "Iso15608Group",
    "MetalGroup",
    "Own",
    "OwnKinds",
    "OwnWords",
    "PNumberRow",
    "PipeSize",
    "ProcessLimits",
    "Tungsten",
    "Vocabulary",
    "gas_composition",
    "read_own",
    "read_rows",
    "read_vocabulary",
]
