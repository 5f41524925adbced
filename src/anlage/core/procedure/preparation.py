"""From the joint as a document to a preparation that can be drawn and measured, stated or only sketched."""

from typing import Any, Final

from msgspec.structs import replace

from anlage.core.document import Dimension, kept
from anlage.core.errors import InputError
from anlage.core.joint import MAKES, Kind, Preparation, Sketch, dimensions_of, faults, is_on_run, joint_metal, needed
from anlage.core.procedure.parts import Joint

# A picture must have some shape where nothing is stated yet. These are proportions of a picture, never values of a
# joint: what is drawn from them is marked unstated and no result is worked out from it.
PICTURE_THICKNESS_MM: Final = 12.0
PICTURE_OF_THICKNESS: Final = {
    "root_opening_mm": 0.25, "root_face_mm": 0.125, "reinforcement_mm": 0.0, "radius_mm": 0.3, "break_height_mm": 0.25,
    "leg_mm": 0.6, "hole_mm": 1.6, "slot_length_mm": 4.0, "width_mm": 3.0, "layer_mm": 0.25,
}  # fmt: skip
PICTURE_ANGLES: Final = {"groove_angle_deg": 60.0, "upper_angle_deg": 20.0}
PICTURE_BEVEL_DEG: Final = 40.0
PICTURE_FLARE: Final = 2.0  # outside bend radius of the picture, in thicknesses


@kept
def sketch_of(joint: Joint) -> Sketch | None:
    """Return the joint as far as it is stated, the rest as proportions of a picture; `None` before a kind is chosen.

    The ghosts are the tightest and the widest fit-up that the tolerances allow, where any are stated.
    """
    if joint.kind is None:
        return None
    names = dimensions_of(joint.kind)
    numbers = {name: _number(getattr(joint, name)) for name in ("thickness_mm", *names)}
    stated = {name: number for name, number in numbers.items() if number is not None}
    picture = _picture(joint.kind, stated.get("thickness_mm", PICTURE_THICKNESS_MM))
    given: dict[str, Any] = {**_around(joint), **picture, **stated}
    found = Preparation(kind=joint.kind, **given)
    lacking = not needed(joint.kind) <= set(stated) or (_needs_od(joint) and joint.od_mm is None)
    incomplete = lacking or (is_on_run(joint.kind) and joint.run_od_mm is None)
    unstated = {name for name in ("thickness_mm", *names) if name not in stated}
    return Sketch(found, frozenset(unstated), incomplete, _ghosts(joint, found))


def _needs_od(joint: Joint) -> bool:
    return joint.product == "pipe" or (joint.kind is not None and MAKES[joint.kind].family == "pipe")


def _around(joint: Joint) -> dict[str, Any]:
    """Return what a preparation takes besides its dimensions, as far as it is stated."""
    found: dict[str, Any] = {
        "od_mm": joint.od_mm if _needs_od(joint) else None,
        "run_od_mm": joint.run_od_mm if joint.kind and is_on_run(joint.kind) else None,
        "other_thickness_mm": joint.other_thickness_mm,
        "taper": joint.taper,
        "counterbore_mm": joint.counterbore_mm or 0.0,
        "backing_mm": joint.backing_mm,
        "ceramic": joint.backing_form == "ceramic",
    }
    return found | ({"flush": joint.flush} if joint.flush else {})


def _picture(kind: Kind, thickness_mm: float) -> dict[str, float]:
    """Return the proportions of a picture for everything that a kind needs."""
    make, wanted = MAKES[kind], needed(kind)
    sizes = {name: share * thickness_mm for name, share in PICTURE_OF_THICKNESS.items()}
    angles = dict(PICTURE_ANGLES)
    if make.form in ("bevel", "j", "branch-set-on", "branch-set-in"):
        angles["groove_angle_deg"] = PICTURE_BEVEL_DEG
    if make.form in ("u", "j"):
        angles["groove_angle_deg"] /= 2
        sizes["radius_mm"] = (0.14 if make.sides == 2 else 0.3) * thickness_mm
    if make.form == "compound-v" and make.sides == 2:
        sizes["break_height_mm"] /= 2
    if make.family == "flare":
        sizes["radius_mm"] = PICTURE_FLARE * thickness_mm
    return {"thickness_mm": thickness_mm} | {n: v for n, v in (sizes | angles).items() if n in wanted}


def _number(stated: Dimension | float | None) -> float | None:
    return stated.nominal if isinstance(stated, Dimension) else stated


def _ghosts(joint: Joint, nominal: Preparation) -> tuple[Preparation, ...]:
    """Return the tightest and the widest joint, tightest first; none when no tolerance is stated.

    Each dimension goes to that end of its tolerance which takes less metal for the tightest, more for the widest.
    """
    stated = {
        name: value for name in dimensions_of(nominal.kind) if isinstance(value := getattr(joint, name), Dimension)
    }
    toleranced = {name: value for name, value in stated.items() if not value.span.is_single}
    if not toleranced or faults(nominal):
        return ()

    def area(**changed: float) -> float | None:
        each = replace(nominal, **changed)  # lengths and angles alone, never the kind
        return None if faults(each) else joint_metal(each).whole_area_mm2

    tight: dict[str, float] = {}
    wide: dict[str, float] = {}
    for name, value in toleranced.items():
        low, high = area(**{name: value.span.low}), area(**{name: value.span.high})
        rising = low is None or high is None or low <= high
        tight[name], wide[name] = (value.span.low, value.span.high) if rising else (value.span.high, value.span.low)
    corners = (replace(nominal, **ends) for ends in (tight, wide))
    return tuple(each for each in corners if not faults(each))


def clashes(joint: Joint) -> dict[str, InputError]:
    """Return what is impossible together in a joint: the fault by the path of every leaf that takes part in it."""
    sketch = sketch_of(joint)
    if sketch is None:
        return {}
    found: dict[str, InputError] = {}
    for fault in faults(sketch.preparation):
        if not sketch.unstated.issuperset(fault.fields):
            taking_part = [
                name for name in fault.fields if getattr(joint, name) is not None or name in fault.fields[:1]
            ]
            found |= {f"joint/{name}": fault for name in taking_part if f"joint/{name}" not in found}
    return found


def drawable(joint: Joint) -> Sketch | None:
    """Return the joint as a sketch that can be drawn; `None` when no kind is chosen or its values clash."""
    sketch = sketch_of(joint)
    return None if sketch is None or faults(sketch.preparation) else sketch
