"""The procedure qualification record: what was welded and measured on one coupon, and whether it was accepted."""

from typing import Annotated, Any, Final, Literal

import msgspec
from msgspec import Meta

from anlage.core.document import (
    DocumentKind,
    Element,
    NotNegative,
    Number,
    OpenSpan,
    Part,
    Positive,
    PositiveSpan,
    Proposed,
    Temperature,
    Text,
    ZeroSpan,
    as_it_is,
    check_ids,
    mend_ids,
    next_id,
    with_,
)
from anlage.core.errors import InputError
from anlage.core.procedure.parts import (
    FluxType,
    Header,
    Joint,
    Metals,
    Operation,
    Output,
    PlasmaMode,
    Progression,
    Pwht,
    Supplemental,
    Technique,
    YesNo,
    with_codes,
)
from anlage.core.ranges import Interval

FORMAT: Final = "anlage-pqr"
VERSION: Final = 8
LISTS: Final = ("deposits", "results", "welded", "pieces")


class Recorded(Part):
    """Recorded values of one quantity: least, mean and most; `None` where one was not written down."""

    least: Number | None = None
    mean: Number | None = None
    most: Number | None = None

    def check(self) -> None:
        """Refuse values out of order."""
        known = [each for each in (self.least, self.mean, self.most) if each is not None]
        if known != sorted(known):
            what = f"{', '.join(f'{each:g}' for each in known)} are not in order"
            raise InputError(what, where="recorded", mend="write least, mean and most")

    @property
    def span(self) -> Interval | None:
        """From least to most, an end that was not written down at the mean; `None` without a mean: nobody knows it."""
        if self.mean is None:
            return None
        return Interval(
            self.mean if self.least is None else self.least, self.mean if self.most is None else self.most
        )  # fmt: skip


class RecordedDeposit(Element):
    """One deposit of the coupon with what was recorded of it; heat input carries its basis.

    Ranges are what the procedure of the coupon declares, where a code qualifies what is declared.
    """

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
    trailing_gas_flow_l_min: Positive | None = None
    current_a: Recorded | None = None
    voltage_v: Recorded | None = None
    travel_speed_mm_min: Recorded | None = None
    operation: Operation | None = None
    closed_chamber: Text | None = None
    electrodes: Text | None = None
    waveform: YesNo | None = None
    flux: Text | None = None
    flux_type: FluxType | None = None
    recrushed_slag: YesNo | None = None
    supplemental_filler: Supplemental | None = None
    filler_make: Text | None = None
    orifice_gas: Text | None = None
    keyhole: PlasmaMode | None = None
    progression: Progression | None = None
    current_range_a: PositiveSpan | None = None
    voltage_range_v: PositiveSpan | None = None
    travel_range_mm_min: PositiveSpan | None = None
    flow_range_l_min: PositiveSpan | None = None
    output: Output | None = None
    gas_flow_l_min: Positive | None = None
    wire_speed_mm_min: Recorded | None = None
    hot_wire: YesNo | None = None
    oscillation: Text | None = None
    travel_angle_deg: Number | None = None
    work_angle_deg: Number | None = None
    spacing_along_mm: NotNegative | None = None
    spacing_across_mm: NotNegative | None = None
    parallel_angle_deg: Number | None = None
    heat_input_kj_mm: Recorded | None = None
    heat_input_basis: Literal["arc_energy", "heat_input"] = "arc_energy"


class Declared(Part):
    """The ranges that a record declares of itself, where its code qualifies what is declared and welded within."""

    thickness_mm: OpenSpan | None = None
    diameter_mm: OpenSpan | None = None
    root_opening_mm: ZeroSpan | None = None
    root_face_mm: ZeroSpan | None = None
    groove_angle_deg: ZeroSpan | None = None


class WeldedPass(Element):
    """One pass of the coupon: what was read of it belongs together.

    `energy_j` and `power_w` are what a source of controlled waveform shows, over the length of the bead; `electrode_mm`
    is the length of electrode that it took, `bead_area_mm2` its section.
    """

    deposit: Text | None = None
    current_a: Positive | None = None
    voltage_v: Positive | None = None
    travel_speed_mm_min: Positive | None = None
    energy_j: Positive | None = None
    power_w: Positive | None = None
    bead_mm: Positive | None = None
    electrode_mm: Positive | None = None
    bead_area_mm2: Positive | None = None


class Piece(Element):
    """One more test piece of a record, welded as the first but for what it states; its heat it has of its own.

    `process` says which deposits its make and heat are of; without one, of all. The heat is in the basis that the
    deposit's own is recorded in.
    """

    mark: Text | None = None
    position: Text | None = None
    process: Text | None = None
    filler_make: Text | None = None
    heat_input_kj_mm: Positive | None = None


class Result(Element):
    """Tests of one kind: how many specimens, which, what was found, and whether they passed.

    `piece` is the mark of the test piece that they were cut from; without one, the first.
    """

    kind: Text = ""
    count: Annotated[int, Meta(ge=1, le=1000)] = 1
    specimen: Text | None = None
    found: Text | None = None
    passed: bool | None = None
    piece: Text | None = None


class Override(Part):
    """A verdict on a record against what its results say: it counts with a name and a reason only."""

    verdict: Literal["accepted", "rejected"] | None = None
    by: Text | None = None
    reason: Text | None = None


class Pqr(Part):
    """A record. What it proves hangs on its results; `toughness_tested` says no where there are no impact results."""

    format: Literal["anlage-pqr"] = FORMAT
    version: Literal[8] = VERSION
    header: Header = Header()
    metals: Metals = Metals()
    joint: Joint = Joint()
    preheat_least_c: Temperature | None = None
    interpass_most_c: Temperature | None = None
    pwht: Pwht = Pwht()
    technique: Technique = Technique()
    declared: Declared = Declared()
    deposits: tuple[RecordedDeposit, ...] = ()
    welded: tuple[WeldedPass, ...] = ()
    results: tuple[Result, ...] = ()
    pieces: tuple[Piece, ...] = ()
    toughness_tested: bool | None = None
    override: Override = Override()
    welded_on: Annotated[str, Meta(pattern=r"^\d{4}-\d\d-\d\d$")] | None = None
    welder: Text | None = None
    laboratory: Text | None = None
    proposed: dict[str, Proposed] = msgspec.field(default_factory=dict)
    ids: int = 0

    def check(self) -> None:
        """Refuse ids that come twice or were never given."""
        check_ids([element for name in LISTS for element in getattr(self, name)], self.ids)


def _with_evidence(raw: dict[str, Any]) -> dict[str, Any]:
    """Return a raw record of version 2 as one of version 3: its results say whether it is accepted, no choice does."""
    rejected = raw.get("state") == "rejected"
    kept = {name: each for name, each in raw.items() if name != "state"}
    return kept | {"override": {"verdict": "rejected" if rejected else None, "by": None, "reason": None}}


_MIGRATIONS: Final = {1: with_codes, 2: _with_evidence, 3: as_it_is, 4: as_it_is, 5: as_it_is, 6: as_it_is, 7: as_it_is}
PQR = DocumentKind(Pqr, FORMAT, VERSION, _MIGRATIONS, mend=lambda raw: mend_ids(raw, LISTS))


Rows = Literal["results", "welded", "pieces"]
_ROWS: Final[dict[str, tuple[str, type[Element]]]] = {
    "results": ("r", Result), "welded": ("w", WeldedPass), "pieces": ("t", Piece),
}  # fmt: skip


def with_row(pqr: Pqr, into: Rows, **stated: object) -> tuple[Pqr, str]:
    """Return the record with one more result, welded pass or test piece at the end, and the new id.

    Raises
    ------
    InputError : a stated value cannot be of its field
    """
    letter, kind = _ROWS[into]
    element_id, ids = next_id(letter, pqr.ids)
    element = kind.stated(id=element_id, **stated)
    return with_(pqr, **{into: (*getattr(pqr, into), element), "ids": ids}), element_id


def without_row(pqr: Pqr, of: Rows, element_id: str) -> Pqr:
    """Return the record without a result, welded pass or piece; the very same one when there is none of that id."""
    return with_(pqr, **{of: tuple(each for each in getattr(pqr, of) if each.id != element_id)})


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
