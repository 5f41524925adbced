"""Preparations of a joint: square and single-V, open or on backing, in plate or round a pipe.

Glossary
--------
groove angle : included angle of a V; the bevel angle is half of it
root face (land), root opening (gap) : as in AWS A3.0
section : the cut across the weld, root at height 0, plate surface at height `thickness`, centred on the root opening
"""

import math
from dataclasses import dataclass
from typing import Literal

from anlage.core.errors import InputError

Kind = Literal["square", "square-backing", "single-v", "v-backing"]
KINDS: tuple[Kind, ...] = ("square", "square-backing", "single-v", "v-backing")

Point = tuple[float, float]


@dataclass(frozen=True, slots=True, kw_only=True)
class Preparation:
    """One preparation as stated; `faults` tells what is impossible in it, alone or together.

    Parameters
    ----------
    kind : square or single-V, open or on backing
    thickness_mm : thickness of both members [mm]
    root_opening_mm : root opening [mm]
    root_face_mm : root face [mm]; 0 on backing unless stated
    groove_angle_deg : included groove angle [°]; a square joint has none
    reinforcement_mm : height of the cap over the surface [mm]
    od_mm : outside diameter [mm] of a pipe; `None` for plate
    """

    kind: Kind
    thickness_mm: float
    root_opening_mm: float
    root_face_mm: float = 0.0
    groove_angle_deg: float = 0.0
    reinforcement_mm: float = 0.0
    od_mm: float | None = None

    @property
    def is_square(self) -> bool:
        """Whether its faces are square to the plate."""
        return self.kind in ("square", "square-backing")

    @property
    def face_width_mm(self) -> float:
        """Width of the groove at the plate surface [mm]."""
        if self.is_square:
            return self.root_opening_mm
        depth = self.thickness_mm - self.root_face_mm
        return self.root_opening_mm + 2 * depth * math.tan(math.radians(self.groove_angle_deg / 2))

    @property
    def groove_outline(self) -> tuple[Point, ...]:
        """Corners of the area to fill, counter-clockwise from the lower left [mm]."""
        half, wide, top = self.root_opening_mm / 2, self.face_width_mm / 2, self.thickness_mm
        if self.is_square:
            return ((-half, 0.0), (half, 0.0), (half, top), (-half, top))
        land = self.root_face_mm
        if half == 0:  # the root faces touch: nothing to fill between them
            return ((0.0, land), (wide, top), (-wide, top))
        return ((-half, 0.0), (half, 0.0), (half, land), (wide, top), (-wide, top), (-half, land))


@dataclass(frozen=True, slots=True)
class Sketch:
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


def faults(preparation: Preparation) -> tuple[InputError, ...]:
    """Return everything that is impossible in a preparation, in the order of its fields.

    Examples
    --------
    >>> thick = Preparation(kind="single-v", thickness_mm=6, root_opening_mm=2, root_face_mm=8, groove_angle_deg=60)
    >>> [str(fault) for fault in faults(thick)]
    ['root_face: 8 mm is not less than the thickness of 6 mm; state a thinner root face, or take a square joint']
    """
    p = preparation
    found = [
        *_number_faults("thickness", p.thickness_mm, zero=False),
        *_number_faults("root_opening", p.root_opening_mm, zero=True),
        *_number_faults("root_face", p.root_face_mm, zero=True),
        *_number_faults("reinforcement", p.reinforcement_mm, zero=True),
    ]
    if not p.is_square:
        found += _angle_faults(p)
        if p.root_face_mm >= p.thickness_mm > 0:
            what = f"{p.root_face_mm:g} mm is not less than the thickness of {p.thickness_mm:g} mm"
            mend = "state a thinner root face, or take a square joint"
            found.append(InputError(what, where="root_face", mend=mend))
    if p.od_mm is not None:
        found += _pipe_faults(p.od_mm, p.thickness_mm)
    return tuple(found)


def _number_faults(where: str, value: float, *, zero: bool) -> list[InputError]:
    if (value >= 0 if zero else value > 0) and value < math.inf:
        return []
    bound = "0 or more" if zero else "above 0"
    return [InputError(f"{value:g} mm is not {bound}", where=where, mend=f"state a length {bound}")]


def _angle_faults(p: Preparation) -> list[InputError]:
    if not 0 < p.groove_angle_deg < 180:
        what = f"{p.groove_angle_deg:g}° is no groove angle"
        return [
            InputError(what, where="angle", mend="state an included angle above 0 and below 180 deg, such as 60deg")
        ]
    return []


def _pipe_faults(od_mm: float, thickness_mm: float) -> list[InputError]:
    if od_mm > 2 * thickness_mm:
        return []
    what = f"{od_mm:g} mm leaves no bore in a wall of {thickness_mm:g} mm"
    return [InputError(what, where="od", mend="state the outside diameter of the pipe")]
