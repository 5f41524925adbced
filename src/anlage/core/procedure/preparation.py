"""From the joint as a document to a preparation that can be drawn and measured, stated or only sketched."""

from dataclasses import replace
from typing import Final

from anlage.core.document import Dimension
from anlage.core.errors import InputError
from anlage.core.joint import Preparation, Sketch, faults
from anlage.core.procedure.parts import Joint

# A picture must have some shape where nothing is stated yet. These are proportions of a picture, never values of a
# joint: what is drawn from them is marked unstated and no result is worked out from it.
PICTURE_THICKNESS_MM: Final = 12.0
PICTURE_OF_THICKNESS: Final = {"root_opening_mm": 0.25, "root_face_mm": 0.125, "reinforcement_mm": 0.0}
PICTURE_ANGLE_DEG: Final = 60.0
DIMENSIONS: Final = ("root_opening_mm", "root_face_mm", "groove_angle_deg", "reinforcement_mm")
TIGHTER_WHEN_MORE: Final = "root_face_mm"  # a thick root face closes the joint; all else opens it


def sketch_of(joint: Joint) -> Sketch | None:
    """Return the joint as far as it is stated, the rest as proportions of a picture; `None` before a kind is chosen.

    The ghosts are the tightest and the widest fit-up that the tolerances allow, where any are stated.
    """
    if joint.kind is None:
        return None
    numbers = {name: _number(getattr(joint, name)) for name in ("thickness_mm", *DIMENSIONS)}
    stated = {name: number for name, number in numbers.items() if number is not None}
    needed = {"thickness_mm", "root_opening_mm"}
    picture = _picture(stated.get("thickness_mm", PICTURE_THICKNESS_MM))
    if joint.kind.endswith("backing"):
        picture["root_face_mm"] = 0.0  # what it is on backing unless stated
    if joint.kind in ("square", "square-backing"):
        picture |= {"root_face_mm": 0.0, "groove_angle_deg": 0.0}
        stated = {name: number for name, number in stated.items() if name not in ("root_face_mm", "groove_angle_deg")}
    else:
        needed |= {"groove_angle_deg"} | ({"root_face_mm"} if picture["root_face_mm"] else set())
    is_pipe = joint.product == "pipe"
    found = Preparation(kind=joint.kind, od_mm=joint.od_mm if is_pipe else None, **{**picture, **stated})
    incomplete = not needed <= set(stated) or (is_pipe and joint.od_mm is None)
    return Sketch(found, frozenset(picture) - set(stated), incomplete, _ghosts(joint, found))


def _picture(thickness_mm: float) -> dict[str, float]:
    sizes = {name: share * thickness_mm for name, share in PICTURE_OF_THICKNESS.items()}
    return {"thickness_mm": thickness_mm, "groove_angle_deg": PICTURE_ANGLE_DEG, **sizes}


def _number(stated: Dimension | float | None) -> float | None:
    return stated.nominal if isinstance(stated, Dimension) else stated


def _ghosts(joint: Joint, nominal: Preparation) -> tuple[Preparation, ...]:
    """Return the tightest and the widest joint, tightest first; none when no tolerance is stated."""
    stated = {name: value for name in DIMENSIONS if isinstance(value := getattr(joint, name), Dimension)}
    shown = ("root_opening_mm",) if nominal.is_square else ("root_opening_mm", "root_face_mm", "groove_angle_deg")
    toleranced = {name: value for name, value in stated.items() if name in shown and not value.span.is_single}
    if not toleranced:
        return ()

    def corner(*, wide: bool) -> Preparation:
        ends = {n: v.span.high if wide == (n != TIGHTER_WHEN_MORE) else v.span.low for n, v in toleranced.items()}
        return replace(nominal, **ends)  # type: ignore[arg-type]  # lengths and an angle alone, never the kind

    return tuple(each for each in (corner(wide=False), corner(wide=True)) if not faults(each))


FIELD_OF_FAULT: Final = {
    "thickness": ("thickness_mm",),
    "root_opening": ("root_opening_mm",),
    "root_face": ("root_face_mm", "thickness_mm"),
    "reinforcement": ("reinforcement_mm",),
    "angle": ("groove_angle_deg",),
    "od": ("od_mm", "thickness_mm"),
}


def clashes(joint: Joint) -> dict[str, InputError]:
    """Return what is impossible together in a joint: the fault by the path of every leaf that takes part in it."""
    sketch = sketch_of(joint)
    if sketch is None:
        return {}
    found: dict[str, InputError] = {}
    for fault in faults(sketch.preparation):
        fields = FIELD_OF_FAULT[fault.where]
        if not sketch.unstated.issuperset(fields):
            found |= {f"joint/{name}": fault for name in fields if f"joint/{name}" not in found}
    return found
