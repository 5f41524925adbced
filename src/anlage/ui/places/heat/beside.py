"""What the views of Heat ask beside the document: the codes and the machines, as the works file has them."""

from collections.abc import Callable
from typing import TYPE_CHECKING, NamedTuple

if TYPE_CHECKING:
    from anlage.core.machine import Calibrated
    from anlage.session.judging.editions import Codes


class Beside(NamedTuple):
    """Both as they are now."""

    codes: "Callable[[], Codes]"
    machines: "Callable[[], Calibrated]"
