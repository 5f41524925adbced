"""How high a cap may be by the construction code of the open procedure, for the pictures that show it."""

from collections.abc import Callable
from typing import TYPE_CHECKING

from anlage.ui.kit.document import Document
from anlage.ui.kit.loading import loaded

if TYPE_CHECKING:
    from anlage.core.drawing.cap_limit import CapLimit
    from anlage.session.judging.editions import Codes

_limit = loaded("anlage.session.judging.finish:limit_of_cap")


def cap_limit(document: Document, codes: "Callable[[], Codes]") -> "CapLimit | None":
    """Return how high a cap may be; `None` where no construction code is named, or it says nothing."""
    if not document.value.header.construction_code:
        return None
    found: CapLimit | None = _limit(document.value, codes(), document.system)
    return found
