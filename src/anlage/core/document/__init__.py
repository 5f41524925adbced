"""Documents: frozen values with paths to every leaf, written and read as JSON."""

from anlage.core.document.fields import (
    Dimension,
    NotNegative,
    Number,
    OpenSpan,
    Positive,
    PositiveSpan,
    Proposed,
    Span,
    Temperature,
    Text,
    ZeroSpan,
)
from anlage.core.document.ids import check_ids, mend_ids, next_id
from anlage.core.document.json_text import DocumentKind, as_it_is, read_mending, read_strict, write
from anlage.core.document.kept import forget_kept, kept, kept_of_parts
from anlage.core.document.model import Element, Part, at, fields_of, refusal, with_, with_at

__all__ = [
    "Dimension",
    "DocumentKind",
    "Element",
    "NotNegative",
    "Number",
    "OpenSpan",
    "Part",
    "Positive",
    "PositiveSpan",
    "Proposed",
    "Span",
    "Temperature",
    "Text",
    "ZeroSpan",
    "as_it_is",
    "at",
    "check_ids",
    "fields_of",
    "forget_kept",
    "kept",
    "kept_of_parts",
    "mend_ids",
    "next_id",
    "read_mending",
    "read_strict",
    "refusal",
    "with_",
    "with_at",
    "write",
]
