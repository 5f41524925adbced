"""Documents: frozen values with paths to every leaf, written and read as JSON."""

from anlage.core.document.fields import (
    Dimension,
    Positive,
    PositiveSpan,
    Span,
    Temperature,
    Text,
    ZeroSpan,
)
from anlage.core.document.ids import next_id, number_of
from anlage.core.document.json_text import DocumentKind, read_mending, read_strict, write
from anlage.core.document.model import Element, Part, at, refusal, with_, with_at

__all__ = [
    "Dimension",
    "DocumentKind",
    "Element",
    "Part",
    "Positive",
    "PositiveSpan",
    "Span",
    "Temperature",
    "Text",
    "ZeroSpan",
    "at",
    "next_id",
    "number_of",
    "read_mending",
    "read_strict",
    "refusal",
    "with_",
    "with_at",
    "write",
]
