"""Preparations of a joint as values: one kind with its dimensions, and a sketch of what is stated so far.

Glossary
--------
groove angle : included angle of V, U and compound V; the bevel angle (one side) of bevel and J
root face (land), root opening (gap) : as in AWS A3.0
section : the cut across the weld, root at height 0, plate surface at height `thickness`, centred on the root opening
"""

from msgspec import Struct

from anlage.core.joint.kinds import MAKES, Kind, Make

Point = tuple[float, float]


class Preparation(Struct, frozen=True, kw_only=True):
    """One preparation as stated; `faults` tells what is impossible in it, alone or together.

    Parameters
    ----------
    kind : the name of the preparation
    thickness_mm : thickness of the (left, standing, upper, or branch) member [mm]
    other_thickness_mm : thickness of the other member [mm]; `None`: the same
    root_opening_mm : root opening [mm]; of a fillet the gap between the members
    root_face_mm : root face [mm]; 0 on backing unless stated
    groove_angle_deg : groove angle [°], included for V and U, one side for bevel and J; a square joint has none
    second_depth_mm : depth of the second side of a double preparation [mm]; `None`: both sides equal
    second_angle_deg : groove angle of the second side [°]; `None`: as the first
    radius_mm : root radius of U and J, outside bend radius of a flare [mm]
    break_height_mm : height over the root face at which a compound V changes its angle [mm]
    upper_angle_deg : included angle of a compound V above that [°]
    leg_mm : leg of a fillet along the lower member [mm]; of a reinforcing fillet both
    second_leg_mm : leg along the other member [mm]; `None`: equal legs
    member_angle_deg : angle between the members on the welded side [°]
    reinforcement_mm : height of the cap over the surface, of a fillet its convexity [mm]
    cap_overlap_mm : how far the cap reaches over each edge of the groove [mm]
    root_reinforcement_mm : height of an open root beyond the lower surface [mm]
    buttering_mm : thickness of the layer laid on the left face before the joint is made [mm]
    hole_mm : diameter of a plug, width of a slot [mm]
    slot_length_mm : length of a slot over all [mm]
    fill_depth_mm : how high a plug or slot is filled [mm]; `None`: flush
    width_mm, layer_mm : width and height of a cladding [mm]
    flush : where members of different thickness are flush: at the root, at the face, or centred
    taper : run of the transition per rise, 4 for 1 in 4; `None`: no transition stated
    counterbore_mm : straight bore of the thicker member from its edge to where its transition starts [mm]
    backing_mm : thickness of the backing bar [mm]; `None`: not stated
    ceramic : whether the backing is ceramic, with a recess for the root
    mismatch_mm : how much higher the right member of a butt joint lies than the left one, as measured [mm]
    od_mm : outside diameter [mm] of a pipe, of the branch at a branch; `None` for plate
    run_od_mm : outside diameter [mm] of the run that a branch sits on
    """

    kind: Kind
    thickness_mm: float
    other_thickness_mm: float | None = None
    root_opening_mm: float = 0.0
    root_face_mm: float = 0.0
    groove_angle_deg: float = 0.0
    second_depth_mm: float | None = None
    second_angle_deg: float | None = None
    radius_mm: float = 0.0
    break_height_mm: float = 0.0
    upper_angle_deg: float = 0.0
    leg_mm: float = 0.0
    second_leg_mm: float | None = None
    member_angle_deg: float = 90.0
    reinforcement_mm: float = 0.0
    cap_overlap_mm: float = 0.0
    root_reinforcement_mm: float = 0.0
    buttering_mm: float = 0.0
    hole_mm: float = 0.0
    slot_length_mm: float = 0.0
    fill_depth_mm: float | None = None
    width_mm: float = 0.0
    layer_mm: float = 0.0
    flush: str = "root"
    taper: float | None = None
    counterbore_mm: float = 0.0
    backing_mm: float | None = None
    ceramic: bool = False
    mismatch_mm: float = 0.0
    od_mm: float | None = None
    run_od_mm: float | None = None

    @property
    def make(self) -> Make:
        """What the kind is made of."""
        return MAKES[self.kind]

    @property
    def prepared_mm(self) -> float:
        """Thickness at the edges [mm]: in a butt joint a thicker member is brought down to the thinner one."""
        other = self.other_thickness_mm
        if other is None:
            return self.thickness_mm
        if self.make.form == "branch-set-in":  # the hole in the run is what is prepared
            return other
        return min(self.thickness_mm, other) if self.make.family == "butt" else self.thickness_mm

    @property
    def depths_mm(self) -> tuple[float, float]:
        """Depth of the groove from the first and from the second side [mm], root face taken off."""
        room = self.prepared_mm - self.root_face_mm
        if self.make.sides == 1:
            return room, 0.0
        second = room / 2 if self.second_depth_mm is None else self.second_depth_mm
        return room - second, second

    @property
    def wall_angles_deg(self) -> tuple[float, float]:
        """Angle of one prepared edge from the upright [°], on the first and on the second side."""
        share = 0.5 if self.make.form in ("v", "u", "compound-v") else 1.0
        second = self.groove_angle_deg if self.second_angle_deg is None else self.second_angle_deg
        return self.groove_angle_deg * share, second * share


def drawn_default(p: Preparation, name: str) -> float:
    """Return what an optional dimension amounts to where it is not stated.

    Examples
    --------
    >>> drawn_default(Preparation(kind="fillet", thickness_mm=10, leg_mm=6), "second_leg_mm")
    6
    """
    return {
        "other_thickness_mm": p.thickness_mm,
        "second_depth_mm": p.depths_mm[1],
        "second_angle_deg": p.groove_angle_deg,
        "second_leg_mm": p.leg_mm,
        "member_angle_deg": p.member_angle_deg,
        "fill_depth_mm": p.thickness_mm,
    }.get(name, 0.0)


class Sketch(Struct, frozen=True):
    """A preparation as far as it is stated.

    Parameters
    ----------
    preparation : what is drawn; a dimension in `unstated` has the proportion of a picture, not a value
    unstated : names of the dimensions that are not stated
    incomplete : whether one of them is needed before anything can be worked out
    ghosts : the tightest and the widest fit-up, where tolerances are stated
    """

    preparation: Preparation
    unstated: frozenset[str] = frozenset()
    incomplete: bool = False
    ghosts: tuple[Preparation, ...] = ()
