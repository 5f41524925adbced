"""Which leaves a document has, and which of them its joint has a use for."""

from anlage.core.errors import UnknownNameError
from anlage.core.joint import KINDS, MAKES, dimensions_of, is_on_run
from anlage.session.leaves.documents import SomeDocument
from anlage.session.leaves.text import leaf_value

_DIMENSIONS = frozenset(name for kind in KINDS for name in dimensions_of(kind))
_SIMPLE = ("thickness_mm", "root_opening_mm", "root_face_mm", "groove_angle_deg", "reinforcement_mm")


def has_leaf(value: SomeDocument, path: str) -> bool:
    """Return whether a leaf belongs to this kind of document; an element that is gone has none."""
    if path.startswith("metals/other") and hasattr(value, "metals"):
        return True
    try:
        leaf_value(value, path)
    except UnknownNameError:
        return False
    return True


def applies(value: SomeDocument, path: str) -> bool:
    """Return whether a document has a leaf, and its joint too: only a pipe has a diameter, only a V a root face."""
    if not has_leaf(value, path):
        return False
    if not hasattr(value, "joint"):
        return True
    joint, (head, _, rest) = value.joint, path.partition("/")
    leaf = rest.partition("/")[0]
    if leaf == "member_order":
        return joint.kind == "tube-node"
    if head == "seam":
        return leaf in ("stagger_mm", "marks", "weave_limit_mm", "metal_removal") or (
            joint.product == "pipe" and joint.od_mm is not None
        )
    if head != "joint" or joint.kind is None:
        return head != "joint" or leaf in ("kind", "product", *_SIMPLE) or (leaf == "od_mm" and joint.product == "pipe")
    make = MAKES[joint.kind]
    unequal = joint.other_thickness_mm not in (None, joint.thickness_mm)
    own = {
        "od_mm": joint.product == "pipe" or make.family == "pipe",
        "run_od_mm": is_on_run(joint.kind),
        "seam_length_mm": not (joint.product == "pipe" or make.family == "pipe" or make.form in ("plug", "slot")),
        "product": make.family == "butt",
        "flush": unequal and make.family == "butt",
        "taper": unequal and make.family == "butt",
        "counterbore_mm": unequal and make.family == "butt" and joint.flush in ("face", "centre"),
        "backing_form": make.backing,
        "backing_mm": make.backing,
        "other_thickness_mm": joint.kind != "cladding",
        "root_style": make.backing or make.is_open,
        "detail": make.family in ("butt", "tee", "corner") and make.form not in ("fillet", "compound-v"),
    }
    return own.get(leaf, leaf not in _DIMENSIONS or leaf in dimensions_of(joint.kind))
