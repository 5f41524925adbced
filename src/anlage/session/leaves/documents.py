"""Whatever document is typed in."""

from typing import TypeVar

from anlage.core.machine import Machine
from anlage.core.procedure import Wps
from anlage.core.record import Pqr

AnyDocument = TypeVar("AnyDocument", Wps, Pqr, Machine)
SomeDocument = Wps | Pqr | Machine
