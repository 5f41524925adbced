"""Root styles: which land, gap and filler go together, and what to change where they do not."""

from collections.abc import Mapping

import tomli
from msgspec import Struct

MM_PER_IN = 25.4
CLOSE_MM = 0.1
FALLS_THROUGH_MM = 0.8  # a gap wider than the rod by more does not hold it; own choice
NARROW_BEVEL_DEG, WIDE_BEVEL_DEG = 30.0, 37.5  # one side; common practice, no source


class RootStyle(Struct, frozen=True, kw_only=True):
    """One way to weld a root: windows of land, gap and filler [mm]; `None` where the style asks nothing of it."""

    id: str
    name: str
    process: tuple[str, ...]
    land_mm: tuple[float, float]
    gap_mm: tuple[float, float]
    filler_mm: tuple[float, float] | None
    filler_in_gap: str
    backing: bool
    note: str
    source: str
    confidence: str


class RootStyles(Struct, frozen=True, kw_only=True):
    """All styles, how much a gap closes on tacking [mm], and the least backing by process [mm]."""

    styles: Mapping[str, RootStyle]
    closing_mm: tuple[float, float]
    backing_mm: Mapping[str, float]
    backing_source: str


def read_root_styles(text: str) -> RootStyles:
    """Return the styles from their TOML text, inches made into millimetres."""
    table = tomli.loads(text)
    styles = {}
    for row in table["style"]:
        spans = {
            f"{name}_mm": tuple(MM_PER_IN * end for end in row[name]) if name in row else None
            for name in ("land", "gap", "filler")
        }
        styles[row["id"]] = RootStyle(
            id=row["id"], name=row["name"], process=tuple(row["process"]), filler_in_gap=row.get("filler_in_gap", ""),
            backing=row.get("backing", False), note=row["note"], source=table["source"],
            confidence=table["confidence"], **spans,  # type: ignore[arg-type]
        )  # fmt: skip
    backing = dict(table["backing_mm"])
    source = backing.pop("source")
    return RootStyles(
        styles=styles, closing_mm=tuple(table["closing"]["mm"]), backing_mm=backing, backing_source=source
    )


class Root(Struct, frozen=True, kw_only=True):
    """A root as far as it is stated: land, gap and bevel of one side [mm, °], filler [mm], process."""

    land_mm: float | None = None
    gap_mm: float | None = None
    bevel_deg: float | None = None
    filler_mm: float | None = None
    process: str | None = None


class Misfit(Struct, frozen=True):
    """What does not fit a style: the field, the value and its window [mm], and what to do."""

    field: str
    value: float
    window: tuple[float, float]
    mend: str


def misfits(root: Root, style: RootStyle) -> tuple[Misfit, ...]:
    """Return what in a root does not go with a style, each with what to do about it.

    Parameters
    ----------
    root : what is stated; what is not stated is not judged
    style : how the root is to be welded
    """
    found = []
    for field, value, window, mends in (
        ("root_face_mm", root.land_mm, style.land_mm, ("thicken the land", "grind the land thinner")),
        ("root_opening_mm", root.gap_mm, style.gap_mm, ("open the gap", "close the gap")),
        ("filler_diameter_mm", root.filler_mm, style.filler_mm, ("take a thicker filler", "take a thinner filler")),
    ):
        if value is None or window is None:
            continue
        if value < window[0] - CLOSE_MM:
            found.append(Misfit(field, value, window, mends[0]))
        elif value > window[1] + CLOSE_MM:
            found.append(Misfit(field, value, window, mends[1]))
    return (*found, *_filler_in_gap(root, style), *_bevel(root, style))


def _filler_in_gap(root: Root, style: RootStyle) -> list[Misfit]:
    if root.gap_mm is None or root.filler_mm is None:
        return []
    window = (root.filler_mm, root.filler_mm + FALLS_THROUGH_MM)
    if style.filler_in_gap == "holds" and root.gap_mm > root.filler_mm + FALLS_THROUGH_MM:
        return [Misfit("root_opening_mm", root.gap_mm, window, "close the gap: the rod would fall through it")]
    if style.filler_in_gap == "passes" and root.gap_mm < root.filler_mm:
        return [Misfit("root_opening_mm", root.gap_mm, window, "open the gap: the rod does not pass it")]
    return []


def _bevel(root: Root, style: RootStyle) -> list[Misfit]:
    """Land and gap are one decision with the bevel: a narrow one wants a wider gap and a thinner land."""
    if style.backing or root.bevel_deg is None or root.gap_mm is None or root.land_mm is None:
        return []
    middle = sum(style.gap_mm) / 2
    window = (NARROW_BEVEL_DEG, WIDE_BEVEL_DEG + 2.5)
    if root.bevel_deg < NARROW_BEVEL_DEG and root.gap_mm <= middle:
        return [
            Misfit("groove_angle_deg", root.bevel_deg, window, "open the gap and thin the land, or widen the bevel")
        ]
    if root.bevel_deg > WIDE_BEVEL_DEG + 2.5 and root.land_mm == 0 and root.gap_mm >= style.gap_mm[1]:
        return [
            Misfit("groove_angle_deg", root.bevel_deg, window, "leave a land or close the gap, or narrow the bevel")
        ]
    return []


def spacer_mm(gap_mm: float, styles: RootStyles) -> tuple[float, float]:
    """Return the spacer to set so that a gap is left after tacking [mm]: least and most."""
    return gap_mm + styles.closing_mm[0], gap_mm + styles.closing_mm[1]
