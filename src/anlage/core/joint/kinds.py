"""Every preparation by name: which members it joins, how their edges are cut, from how many sides, which dimensions.

Glossary
--------
family : how the members lie to each other: butt, tee, corner, lap, flare, pipe (round a pipe), surface (on one plate)
form : how the edges are cut: square, V, bevel, U, J, compound V; fillets have none
sides : 1 when welded from one side, 2 when from both
open : with a root opening and nothing behind it
"""

from collections.abc import Mapping
from types import MappingProxyType
from typing import Final, Literal, get_args

from msgspec import Struct

Kind = Literal[
    "square", "double-square", "square-backing",
    "single-v", "double-v", "v-backing",
    "single-bevel", "double-bevel", "bevel-backing",
    "single-u", "double-u", "u-backing",
    "single-j", "double-j", "j-backing",
    "compound-v", "double-compound-v", "compound-v-backing",
    "fillet", "double-fillet", "tee-bevel", "tee-double-bevel", "tee-bevel-backing", "tee-j", "tee-double-j",
    "corner-fillet", "corner-v", "corner-bevel", "corner-j",
    "lap-fillet", "double-lap-fillet",
    "flare-bevel", "flare-v",
    "socket", "slip-on", "branch-set-on", "branch-set-in", "tube-node",
    "plug", "slot", "cladding",
]  # fmt: skip
KINDS: Final[tuple[Kind, ...]] = get_args(Kind)
Family = Literal["butt", "tee", "corner", "lap", "flare", "pipe", "surface"]
Form = Literal[
    "square", "v", "bevel", "u", "j", "compound-v", "fillet", "socket", "slip-on", "branch-set-on", "branch-set-in",
    "plug", "slot", "cladding",
]  # fmt: skip


class Make(Struct, frozen=True):
    """What a kind is made of."""

    family: Family
    form: Form
    sides: int = 1
    backing: bool = False

    @property
    def is_open(self) -> bool:
        """Whether the root of a groove is open: welded from one side with nothing behind it."""
        return self.family in ("butt", "corner") and self.form != "fillet" and self.sides == 1 and not self.backing


def _butt(form: Form, *, single: Kind, double: Kind, backing: Kind) -> dict[Kind, Make]:
    return {single: Make("butt", form), double: Make("butt", form, 2), backing: Make("butt", form, 1, backing=True)}


MAKES: Final[Mapping[Kind, Make]] = MappingProxyType({
    **_butt("square", single="square", double="double-square", backing="square-backing"),
    **_butt("v", single="single-v", double="double-v", backing="v-backing"),
    **_butt("bevel", single="single-bevel", double="double-bevel", backing="bevel-backing"),
    **_butt("u", single="single-u", double="double-u", backing="u-backing"),
    **_butt("j", single="single-j", double="double-j", backing="j-backing"),
    **_butt("compound-v", single="compound-v", double="double-compound-v", backing="compound-v-backing"),
    "fillet": Make("tee", "fillet"),
    "double-fillet": Make("tee", "fillet", 2),
    "tee-bevel": Make("tee", "bevel"),
    "tee-double-bevel": Make("tee", "bevel", 2),
    "tee-bevel-backing": Make("tee", "bevel", 1, backing=True),
    "tee-j": Make("tee", "j"),
    "tee-double-j": Make("tee", "j", 2),
    "corner-fillet": Make("corner", "fillet"),
    "corner-v": Make("corner", "v"),
    "corner-bevel": Make("corner", "bevel"),
    "corner-j": Make("corner", "j"),
    "lap-fillet": Make("lap", "fillet"),
    "double-lap-fillet": Make("lap", "fillet", 2),
    "flare-bevel": Make("flare", "bevel"),
    "flare-v": Make("flare", "v"),
    "socket": Make("pipe", "socket"),
    "slip-on": Make("pipe", "slip-on"),
    "branch-set-on": Make("pipe", "branch-set-on"),
    "branch-set-in": Make("pipe", "branch-set-in"),
    "tube-node": Make("pipe", "fillet"),
    "plug": Make("surface", "plug"),
    "slot": Make("surface", "slot"),
    "cladding": Make("surface", "cladding"),
})  # fmt: skip

# Dimensions by what they are dimensions of, in the order they are asked for. What is in no `NEEDED` may be left out.
EDGE: Final[Mapping[Form, tuple[str, ...]]] = MappingProxyType({
    "square": ("root_opening_mm",),
    "v": ("root_opening_mm", "root_face_mm", "groove_angle_deg"),
    "bevel": ("root_opening_mm", "root_face_mm", "groove_angle_deg"),
    "u": ("root_opening_mm", "root_face_mm", "groove_angle_deg", "radius_mm"),
    "j": ("root_opening_mm", "root_face_mm", "groove_angle_deg", "radius_mm"),
    "compound-v": ("root_opening_mm", "root_face_mm", "groove_angle_deg", "break_height_mm", "upper_angle_deg"),
    "fillet": ("leg_mm", "second_leg_mm", "root_opening_mm"),
    "socket": ("leg_mm", "root_opening_mm"),
    "slip-on": ("leg_mm", "root_opening_mm"),
    "branch-set-on": ("root_opening_mm", "root_face_mm", "groove_angle_deg", "leg_mm"),
    "branch-set-in": ("root_opening_mm", "root_face_mm", "groove_angle_deg", "leg_mm"),
    "plug": ("hole_mm", "fill_depth_mm"),
    "slot": ("hole_mm", "slot_length_mm", "fill_depth_mm"),
    "cladding": ("width_mm", "layer_mm"),
})  # fmt: skip
OPTIONAL: Final = frozenset({
    "other_thickness_mm", "second_depth_mm", "second_angle_deg", "second_leg_mm", "member_angle_deg",
    "reinforcement_mm", "root_reinforcement_mm", "cap_overlap_mm", "fill_depth_mm", "buttering_mm",
})  # fmt: skip
"""Dimensions that need not be stated: the joint is whole without them."""


def is_on_run(kind: Kind) -> bool:
    """Return whether a kind sits on a run of pipe, whose diameter it takes too."""
    return kind == "tube-node" or MAKES[kind].form.startswith("branch")


def dimensions_of(kind: Kind) -> tuple[str, ...]:
    """Return the dimensions that a kind has beside thickness and diameter, in the order they are asked for.

    Examples
    --------
    >>> dimensions_of("double-u")[:4]
    ('root_opening_mm', 'root_face_mm', 'groove_angle_deg', 'radius_mm')
    """
    make = MAKES[kind]
    if make.family == "flare":
        return ("radius_mm", "reinforcement_mm")
    found = list(EDGE[make.form])
    if make.sides == 2 and make.form not in ("fillet", "square"):
        found += ["second_depth_mm", *([] if make.form == "square" else ["second_angle_deg"])]
    if make.form == "fillet" and make.family in ("tee", "pipe"):
        found.append("member_angle_deg")
    if make.family == "tee" and make.form != "fillet":
        found.append("leg_mm")
    if make.form not in ("plug", "slot", "cladding", "branch-set-on", "branch-set-in"):
        found.append("reinforcement_mm")
    if make.family in ("butt", "corner") and make.form != "fillet":
        found += ["cap_overlap_mm", *(["root_reinforcement_mm"] if make.is_open else [])]
    if make.family == "butt" and make.sides == 1 and make.form in ("v", "bevel"):
        found.append("buttering_mm")
    return tuple(found)


def needed(kind: Kind) -> frozenset[str]:
    """Return the dimensions without which nothing can be worked out; thickness is always among them."""
    make = MAKES[kind]
    optional = set(OPTIONAL)
    if make.backing or make.family == "flare":
        optional.add("root_face_mm")
    if make.form in ("fillet", "socket", "slip-on"):
        optional.add("root_opening_mm")
    if make.family == "tee" and make.form != "fillet":
        optional.add("leg_mm")
    if make.form.startswith("branch"):
        optional.add("leg_mm")
    return frozenset({"thickness_mm", *dimensions_of(kind)}) - optional
