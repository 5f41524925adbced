"""What a record gives by a code: every allowed set, from its recorded facts alone."""

from anlage.core.codes import Demand, cover_box
from anlage.core.record import Pqr
from anlage.core.results import Notice
from anlage.session.judging.editions import SHIPPED, Codes
from anlage.session.judging.records import coupon_of
from anlage.session.judging.what_if import WhatIf, bought


def ranges_of_record(code: str, pqr: Pqr, demand: Demand, codes: Codes = SHIPPED) -> WhatIf:
    """Return what a record gives by a code under a demand: its recorded facts alone, nothing taken for granted.

    Raises
    ------
    InputError : the record contradicts itself
    UnknownNameError : no such pack or edition
    """
    pack, edition = codes.edition_of(code)
    box = cover_box(pack, coupon_of(pqr, pack), demand)
    because = (Notice("record.empty", "impact", box.empty_because),) if box.empty_because else ()
    return WhatIf(pack, edition, demand, tuple(bought(pack, box)), because, ())
