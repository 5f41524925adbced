"""What a good welder sets: settings proposed by process, filler, size, role and place, with their reason and doubt."""

from anlage.core.proposal.first_draft import DepositRow, DraftRow, Drafts, Facts, read_drafts
from anlage.core.proposal.melting import Melting, melting_of_rod, melting_of_stick, melting_of_wire
from anlage.core.proposal.settings import (
    Case,
    Fitted,
    Narrow,
    Proposal,
    Typed,
    as_typed,
    burn_off,
    fitted,
    narrowed,
    propose,
    refuse,
)
from anlage.core.proposal.tables import Circumstances, Place, Role, Usual, read_usual

__all__ = [
    "Case",
    "Circumstances",
    "DepositRow",
    "DraftRow",
    "Drafts",
    "Facts",
    "Fitted",
    "Melting",
    "Narrow",
    "Place",
    "Proposal",
    "Role",
    "Typed",
    "Usual",
    "as_typed",
    "burn_off",
    "fitted",
    "melting_of_rod",
    "melting_of_stick",
    "melting_of_wire",
    "narrowed",
    "propose",
    "read_drafts",
    "read_usual",
    "refuse",
]
