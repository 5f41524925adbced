"""The procedure qualification record: what was welded and measured on one coupon, and whether it was accepted."""

from typing import Annotated, Final, Literal

import msgspec
from msgspec import Meta

from anlage.core.document import (
    DocumentKind,
    Element,
    NotNegative,
    Number,
    Part,
    Positive,
    Proposed,
    Temperature,
    Text,
    check_ids,
    mend_ids,
    next_id,
    with_,
)
from anlage.core.errors import InputError
from anlage.core.procedure.parts import Header, Joint, Metals, Operation, Pwht, Technique, with_codes

FORMAT: Final = "anlage-pqr"
VERSION: Final = 2


class Recorded(Part):
    """Recorded values of one quantity: least, mean and most."""

    least: Number
    mean: Number
    most: Number

    def check(self) -> None:
        """Refuse values out of order."""
        if not self.least <= self.mean <= self.most:
            what = f"{self.least:g}, {self.mean:g}, {self.most:g} are not in order"
            raise InputError(what, where="recorded", mend="write least, mean and most")


class RecordedDeposit(Element):
    """One deposit of the coupon with what was recorded of it; heat input carries its basis."""

    process: Text | None = None
    filler: Text | None = None
    filler_diameter_mm: Positive | None = None
    deposit_analysis_percent: dict[str, Annotated[float, Meta(ge=0, le=100)]] = msgspec.field(default_factory=dict)
    thickness_mm: NotNegative | None = None
    max_pass_thickness_mm: Positive | None = None
    current_type: Literal["DCEP", "DCEN", "AC"] | None = None
    transfer_mode: Text | None = None
    shielding_gas: Text | None = None
    backing_gas: Text | None = None
    trailing_gas: Text | None = None
    current_a: Recorded | None = None
    voltage_v: Recorded | None = None
    travel_speed_mm_min: Recorded | None = None
    operation: Operation | None = None
    closed_chamber: Text | None = None
    electrodes: Text | None = None
    heat_input_kj_mm: Recorded | None = None
    heat_input_basis: Literal["arc_energy", "heat_input"] = "arc_energy"


class Result(Element):
    """One test of the coupon: kind, specimen, what was found, and whether it passed."""

    kind: Text = ""
    specimen: Text | None = None
    found: Text | None = None
    passed: bool | None = None


class Pqr(Part):
    """A record. Only an accepted one qualifies anything; `toughness_tested` says whether impact results exist."""

    format: Literal["anlage-pqr"] = FORMAT
    version: Literal[2] = VERSION
    header: Header = Header()
    metals: Metals = Metals()
    joint: Joint = Joint()
    preheat_least_c: Temperature | None = None
    interpass_most_c: Temperature | None = None
    pwht: Pwht = Pwht()
    technique: Technique = Technique()
    deposits: tuple[RecordedDeposit, ...] = ()
    results: tuple[Result, ...] = ()
    toughness_tested: bool | None = None
    state: Literal["open", "accepted", "rejected"] = "open"
    welded_on: Annotated[str, Meta(pattern=r"^\d{4}-\d\d-\d\d$")] | None = None
    welder: Text | None = None
    laboratory: Text | None = None
    proposed: dict[str, Proposed] = msgspec.field(default_factory=dict)
    ids: int = 0

    def check(self) -> None:
        """Refuse ids that come twice or were never given."""
        check_ids((*self.deposits, *self.results), self.ids)


PQR = DocumentKind(Pqr, FORMAT, VERSION, {1: with_codes}, mend=lambda raw: mend_ids(raw, ("deposits", "results")))


def with_recorded_deposit(pqr: Pqr, **recorded: object) -> tuple[Pqr, str]:
    """Return the record with one more deposit at the end, and the new id.

    Raises
    ------
    InputError : a recorded value cannot be of its field
    """
    element_id, ids = next_id("d", pqr.ids)
    deposit = RecordedDeposit.stated(id=element_id, **recorded)
    return with_(pqr, deposits=(*pqr.deposits, deposit), ids=ids), element_id


def without_recorded_deposit(pqr: Pqr, deposit_id: str) -> Pqr:
    """Return the record without a deposit.

    Raises
    ------
    InputError : there is no such deposit
    """
    kept = tuple(each for each in pqr.deposits if each.id != deposit_id)
    if len(kept) == len(pqr.deposits):
        raise InputError(f"{deposit_id} is no deposit", where="deposits", mend="name a deposit of this record")
    return with_(pqr, deposits=kept)
