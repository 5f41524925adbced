"""Standard details of preparations, and how a joint deviates from one."""

import math
from collections.abc import Mapping, Sequence
from typing import Any

import rtoml
from msgspec import Struct

from anlage.core.joint.kinds import Kind
from anlage.core.joint.preparation import Preparation

FIELDS = ("root_opening_mm", "root_face_mm", "groove_angle_deg", "radius_mm")


class Detail(Struct, frozen=True, kw_only=True):
    """One standard detail: its kinds and processes, thickness range [mm], and the range of each dimension.

    `drawn` is what the figure says, `allowed` what a drawing may depart to; `of_thickness` is an opening in
    plate thicknesses.
    """

    id: str
    kinds: tuple[Kind, ...]
    process: tuple[str, ...]
    thickness_mm: tuple[float, float]
    drawn: Mapping[str, tuple[float, float]]
    allowed: Mapping[str, tuple[float, float]]
    of_thickness: float | None
    positions: str
    back_gouged: bool
    note: str
    source: str
    confidence: str


class Deviation(Struct, frozen=True):
    """One way a joint departs from a detail: the field, its value and what the detail allows."""

    field: str
    value: float
    allowed: tuple[float, float]


def read_details(text: str) -> Mapping[str, Detail]:
    """Return the details by id from their TOML text."""
    table = rtoml.loads(text)
    return {row["id"]: _detail(row, table["tolerance"].get(row.get("tolerance"), {})) for row in table["detail"]}


def _detail(row: dict[str, Any], tolerance: Mapping[str, Sequence[float]]) -> Detail:
    drawn, allowed, share = {}, {}, None
    for field in FIELDS:
        span = row.get(field)
        if isinstance(span, str):
            share = {"T": 1.0, "T/2": 0.5}[span]
            span = None
        if span is None:
            continue
        minus, plus = tolerance.get(field, (0, 0))
        drawn[field] = (float(span[0]), float(span[1]))
        allowed[field] = (max(span[0] - minus, 0.0), span[1] + plus)
    return Detail(
        id=row["id"], kinds=tuple(row["kinds"]), process=tuple(row["process"]),
        thickness_mm=tuple(row.get("thickness_mm", (0.0, math.inf))), drawn=drawn, allowed=allowed, of_thickness=share,
        positions=row["positions"], back_gouged=row.get("back_gouged", False), note=row.get("note", ""),
        source=row["source"], confidence=row["confidence"],
    )  # fmt: skip


def deviations(p: Preparation, detail: Detail) -> tuple[Deviation, ...]:
    """Return every dimension of a joint that lies outside what a detail allows a drawing; none when it conforms.

    Parameters
    ----------
    p : a joint of one of the detail's kinds
    detail : the standard detail
    """
    limits = {"thickness_mm": detail.thickness_mm, **detail.allowed}
    if detail.of_thickness is not None:
        opening = detail.of_thickness * p.thickness_mm
        limits["root_opening_mm"] = (opening, opening + 2.0)
    found = []
    for field, (low, high) in limits.items():
        value = getattr(p, field)
        if not low - 1e-6 <= value <= high + 1e-6:
            found.append(Deviation(field, value, (low, high)))
    return tuple(found)


def taken_over(detail: Detail, thickness_mm: float) -> dict[str, tuple[float, float, float]]:
    """Return the dimensions that a detail states: nominal, minus and plus as it allows them.

    The nominal is the least the figure draws; a wide range is its plus.
    """
    found = {}
    for field, (low, high) in detail.drawn.items():
        top = detail.allowed[field][1]
        nominal = low if math.isinf(high) or low == high else (low + high) / 2
        plus = 0.0 if math.isinf(top) else top - nominal
        found[field] = (nominal, nominal - detail.allowed[field][0], plus)
    if detail.of_thickness is not None:
        found["root_opening_mm"] = (detail.of_thickness * thickness_mm, 0.0, 2.0)
    return found
