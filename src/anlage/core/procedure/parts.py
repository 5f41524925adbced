"""The parts that a procedure and a record have in common: what is joined, how it is prepared, by which code."""

from typing import Annotated, Any, Literal

from msgspec import Meta

from anlage.core.document import (
    Dimension,
    Element,
    NotNegative,
    Part,
    Positive,
    PositiveSpan,
    Span,
    Temperature,
    Text,
    ZeroSpan,
)
from anlage.core.joint import Kind

Units = Literal["si", "us"]
Weld = Literal["groove", "fillet", "partial", "repair"]
Product = Literal["plate", "pipe"]
PwhtClass = Literal["none", "above-utt", "below-ltt", "between", "above-utt-then-below-ltt", "solution", "range"]
Progression = Literal["uphill", "downhill", "none"]
YesNo = Literal["yes", "no"]
FluxType = Literal["neutral", "active", "alloy"]
Supplemental = Literal["none", "cold wire", "hot wire", "powder"]
PlasmaMode = Literal["melt-in", "keyhole", "combined"]
Loading = Literal["static", "cyclic"]
Strength = Literal["matching", "one class lower", "lower"]
WeldClass = Literal["A", "B", "C"]
Output = Literal["constant-current", "constant-voltage"]
Operation = Literal["manual", "semiautomatic", "machine", "automatic"]


class Header(Part):
    """Which document this is, and the demands that every later check follows.

    `codes` are packs with or without edition, `asme-ix` or `asme-ix:2021`, the first of them the leading one;
    `construction_code` is that of the job, for preheat, heat treatment, cap and fit-up; `units` is the system in which
    the code's limits are judged; `impact`, `hardness` and `sour_service` are demands of the job, `loading` how the
    structure is loaded, `strength` what the weld metal has to be beside the base metal,
    `weld_class` what a failure of the weld would do, from A, critical, to C.
    """

    number: Text = ""
    title: Text = ""
    codes: tuple[Text, ...] = ()
    construction_code: Text | None = None
    units: Units = "si"
    weld: Weld | None = "groove"
    impact: bool | None = None
    hardness: bool | None = None
    sour_service: bool | None = None
    loading: Loading | None = None
    strength: Strength | None = None
    weld_class: WeldClass | None = None
    application: Text | None = None

    @property
    def code(self) -> str | None:
        """The leading code, `None` while none is stated."""
        return self.codes[0] if self.codes else None


def with_codes(raw: dict[str, Any]) -> dict[str, Any]:
    """Return a raw document of version 1 as one of version 2: its one code the first of several."""
    header = raw.get("header")
    if isinstance(header, dict) and "code" in header:
        code = header["code"]
        codes = {"codes": [] if code is None else [code], "construction_code": None}
        renamed = {key: value for name, own in header.items() for key, value in (
            codes.items() if name == "code" else ((name, own),)
        )}  # fmt: skip
        return raw | {"header": renamed}
    return raw


class Metal(Part):
    """One side of the joint: a name of the catalogue, or its group; `certificate` is what that of its mill says."""

    name: Text | None = None
    p_number: Text | None = None
    group_number: Text | None = None
    certificate: Text | None = None


class Metals(Part):
    """Both sides of the joint; `other` is `None` when both are `one`.

    `dilution` is the share of the weld that is molten base metal, where it is known better than by the process.
    """

    one: Metal = Metal()
    other: Metal | None = None
    dilution: Annotated[float, Meta(ge=0, le=1)] | None = None


class Joint(Part):
    """The preparation as drawn, each dimension with its tolerance [mm, °]; which ones a kind has, `dimensions_of` says.

    `pipe_size` is the nominal size and schedule that diameter and wall were taken from, `10 sch 60`.
    `detail` is the standard detail that the preparation is meant to be, `root_style` how its root is to be welded.
    """

    kind: Kind | None = None
    product: Product | None = None
    thickness_mm: Positive | None = None
    other_thickness_mm: Positive | None = None
    flush: Literal["root", "face", "centre"] | None = None
    taper: Annotated[float, Meta(ge=0, le=20)] | None = None
    counterbore_mm: NotNegative | None = None
    od_mm: Positive | None = None
    pipe_size: Text | None = None
    run_od_mm: Positive | None = None
    root_opening_mm: Dimension | None = None
    root_face_mm: Dimension | None = None
    groove_angle_deg: Dimension | None = None
    second_depth_mm: Dimension | None = None
    second_angle_deg: Dimension | None = None
    radius_mm: Dimension | None = None
    break_height_mm: Dimension | None = None
    upper_angle_deg: Dimension | None = None
    leg_mm: Dimension | None = None
    second_leg_mm: Dimension | None = None
    member_angle_deg: Dimension | None = None
    hole_mm: Dimension | None = None
    slot_length_mm: Dimension | None = None
    fill_depth_mm: Dimension | None = None
    width_mm: Dimension | None = None
    layer_mm: Dimension | None = None
    reinforcement_mm: Dimension | None = None
    cap_overlap_mm: Dimension | None = None
    root_reinforcement_mm: Dimension | None = None
    buttering_mm: Dimension | None = None
    seam_length_mm: Positive | None = None
    backing_form: Literal["bar", "ceramic"] | None = None
    backing_mm: Positive | None = None
    detail: Text | None = None
    root_style: Text | None = None
    backing: Text | None = None
    retainers: Text | None = None


class Pwht(Part):
    """Heat treatment after welding: class, temperature range [°C], time at temperature [h]."""

    kind: PwhtClass | None = None
    temperature_c: Span | None = None
    time_h: PositiveSpan | None = None


class After(Part):
    """What follows the last pass, apart from the heat treatment's own hold.

    Hydrogen release straight from the weld, held so hot [°C] for so long [h], and how fast a heat treatment is heated
    and cooled [K/h] above the temperature at which its code lets it go freely.
    """

    release_c: Span | None = None
    release_h: PositiveSpan | None = None
    heating_rate_k_h: PositiveSpan | None = None
    cooling_rate_k_h: PositiveSpan | None = None


class Technique(Part):
    """What a procedure states in words, beside the numbers.

    `root_to_second_min` is the most time from the end of the root bead to the start of the second, `second_to_rest_min`
    from there to the start of the others [min]; `clamp` what lines up a pipe.
    """

    position: Text | None = None
    progression: Progression | None = None
    runs: Literal["single", "multi"] | None = None
    bead_technique: Literal["stringer", "weave"] | None = None
    cleaning: Text | None = None
    back_gouging: Text | None = None
    thermal_preparation: Text | None = None
    peening: Text | None = None
    root_to_second_min: Positive | None = None
    second_to_rest_min: Positive | None = None
    clamp: Literal["internal", "external", "none"] | None = None


class Seam(Part):
    """How a seam is gone along: tacks and welders round a pipe, where stops may not lie or must, their stagger.

    `marks` hold for every pass that names none of its own. `weave_limit_mm` is the widest bead that the contract lets
    be woven [mm]; `metal_removal` says whether discs and grinders are allowed once it is tacked; `member_order` says in
    which order the members of a tube node are welded, the squarest first unless stated.
    """

    tacks: Literal["2", "3", "4"] | None = None
    welders: Literal["1", "2"] | None = None
    stop_rule: Literal["free", "downhill"] | None = None
    marks: Text | None = None
    stagger_mm: Positive | None = None
    weave_limit_mm: Positive | None = None
    metal_removal: YesNo | None = None
    member_order: Literal["square", "listed"] | None = None


class NodeMember(Element):
    """One more member of a tube node [mm, °]; what is not stated of its size is that of the first, the joint itself."""

    name: Text | None = None
    od_mm: Positive | None = None
    wall_mm: Positive | None = None
    angle_deg: Annotated[float, Meta(ge=0, le=180)] | None = None
    turn_deg: Annotated[float, Meta(ge=-360, le=360)] | None = None
    along_mm: Annotated[float, Meta(ge=-10000, le=10000)] | None = None


class Tack(Element):
    """One tack: where it sits, its length [mm], whether it goes through or bridges the gap, how each end is dressed.

    The first end is the one met first going clockwise round a pipe, or from the start along a plate.
    """

    place: Text | None = None
    length_mm: Positive | None = None
    form: Literal["through", "bridge"] | None = None
    first_end: Literal["feathered", "whole"] | None = None
    second_end: Literal["feathered", "whole"] | None = None


class Station(Element):
    """Fit-up measured at one place of the seam [mm]: where, root opening, root face, mismatch of the members."""

    place: Text | None = None
    gap_mm: NotNegative | None = None
    land_mm: NotNegative | None = None
    mismatch_mm: NotNegative | None = None


class Sector(Element):
    """A part of the way of a pass with settings of its own: by the clock or along the seam, with its technique."""

    of: str
    reach: Text | None = None
    current_a: PositiveSpan | None = None
    voltage_v: PositiveSpan | None = None
    travel_speed_mm_min: PositiveSpan | None = None
    technique: Text | None = None


class Reading(Element):
    """One reading of a machine's calibration: range tap and dial, and what a meter read there [A, V] on a day."""

    machine: Text | None = None
    tap: Text | None = None
    dial: NotNegative | None = None
    current_a: Positive | None = None
    voltage_v: Positive | None = None
    meter: Text | None = None
    day: Text | None = None


class Deposit(Element):
    """The passes that share process, filler classification and transfer mode.

    `flux` and `filler_make` are trade names, which bind where nothing is classified; `keyhole` is how a plasma arc
    melts; `contact_tube_mm` its distance to the work; `output` the characteristic of the source; `machine` its number;
    `progression` which way it is laid where that is not the way of the whole; `maker_current_a` what the maker of the
    filler gives for this size. Of an electrode led by a machine: `travel_angle_deg` is how it leans along the seam,
    forward above 0, `work_angle_deg` across it; of several `spacing_along_mm`, `spacing_across_mm` and
    `parallel_angle_deg` how they stand to each other.
    """

    process: Text | None = None
    filler: Text | None = None
    filler_diameter_mm: PositiveSpan | None = None
    thickness_mm: ZeroSpan | None = None
    current_type: Literal["DCEP", "DCEN", "AC"] | None = None
    transfer_mode: Text | None = None
    shielding_gas: Text | None = None
    gas_flow_l_min: PositiveSpan | None = None
    backing_gas: Text | None = None
    backing_flow_l_min: PositiveSpan | None = None
    trailing_gas: Text | None = None
    trailing_gas_flow_l_min: PositiveSpan | None = None
    tungsten: Text | None = None
    cup_size_mm: Positive | None = None
    operation: Operation | None = None
    consumable_insert: Text | None = None
    penetration_flux: Text | None = None
    closed_chamber: Text | None = None
    waveform: YesNo | None = None
    pulsing: Text | None = None
    oscillation: Text | None = None
    electrodes: Text | None = None
    electrode_spacing: Text | None = None
    machine: Text | None = None
    flux: Text | None = None
    flux_type: FluxType | None = None
    recrushed_slag: YesNo | None = None
    supplemental_filler: Supplemental | None = None
    filler_make: Text | None = None
    orifice_gas: Text | None = None
    orifice_flow_l_min: PositiveSpan | None = None
    keyhole: PlasmaMode | None = None
    contact_tube_mm: PositiveSpan | None = None
    output: Output | None = None
    hot_wire: YesNo | None = None
    progression: Progression | None = None
    maker_current_a: PositiveSpan | None = None
    travel_angle_deg: Span | None = None
    work_angle_deg: Span | None = None
    spacing_along_mm: ZeroSpan | None = None
    spacing_across_mm: ZeroSpan | None = None
    parallel_angle_deg: Span | None = None


class Pass(Element):
    """One pass: the deposit it belongs to and its settings over their whole stated range.

    `reach` names the part of the seam that a pass is laid on, such as a strip bead; `None` is all of it.
    `bead_area_mm2` overrides what the settings would deposit; `heat_input_kj_mm` is what a source of controlled
    waveform shows; `run_out_ratio` the length of bead of a length of electrode; `layer` says whether the bead starts a
    layer or lies beside the one before it, where the layout should not choose; `marks` are its own stops that must be,
    in place of those of the seam, or `none`.
    """

    deposit: str
    role: Literal["root", "hot", "fill", "strip", "cap", "back", "buttering"] | None = None
    reach: Text | None = None
    current_a: PositiveSpan | None = None
    voltage_v: PositiveSpan | None = None
    travel_speed_mm_min: PositiveSpan | None = None
    wire_speed_mm_min: PositiveSpan | None = None
    thickness_mm: PositiveSpan | None = None
    bead_area_mm2: PositiveSpan | None = None
    heat_input_kj_mm: PositiveSpan | None = None
    run_out_ratio: PositiveSpan | None = None
    side: Literal["first", "second"] | None = None
    layer: Literal["new", "beside"] | None = None
    bead: Literal["stringer", "weave"] | None = None
    marks: Text | None = None
    note: Text | None = None


class HoldPoint(Element):
    """Where nobody goes on until someone has signed: before a pass, or at the end when `before` is `None`."""

    before: str | None = None
    what: Text = ""
    signed_by: Text | None = None


class Preheat(Part):
    """Least temperature before the arc and most between passes [°C], and what the choice rests on.

    `hydrogen` is what the deposit gives off: a class such as `H5`, or ml per 100 g; `restraint` how much the joint is
    held; `reason` why this preheat was chosen.
    """

    minimum_c: Temperature | None = None
    interpass_maximum_c: Temperature | None = None
    maintenance: Text | None = None
    hydrogen: Text | None = None
    restraint: Literal["low", "medium", "high"] | None = None
    reason: Text | None = None


class Piece(Part):
    """The piece as it heats up: from the middle of the weld to its edge, the plate beyond the seam [mm], the air [°C].

    `beyond_mm` is `None` where nothing is said: the plate is then taken to go on. `stop_s` is the time between the end
    of a pass and the next arc, without waiting.
    """

    half_width_mm: Positive | None = None
    beyond_mm: NotNegative | None = None
    ambient_c: Temperature | None = None
    stop_s: ZeroSpan | None = None


class Purge(Part):
    """How the root is purged: between dams [mm], or a volume [l]; flow, and the oxygen that may be left [ppm]."""

    length_mm: Positive | None = None
    volume_l: Positive | None = None
    flow_l_min: PositiveSpan | None = None
    target_ppm: Positive | None = None
    mixing: Annotated[float, Meta(gt=0, le=1)] | None = None
