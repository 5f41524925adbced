"""Root styles: which land, gap and filler go together, and what to change where they do not."""

from collections.abc import Iterable, Mapping

import rtoml
from msgspec import Struct
from msgspec.structs import replace

from anlage.core.catalogue.filler_sizes import SAME_MM, FillerSize

MM_PER_IN = 25.4
CLOSE_MM = 0.1
FALLS_THROUGH_MM = 0.8  # a gap wider than the rod by more does not hold it; own choice
REFIT = "cut the tacks out and fit it up again"
EASE = f"with a thin disc where metal removal is allowed, else {REFIT}"
TACKED = {  # what can still be done once the joint is tacked, by the measure and whether it is under its window
    ("root_opening_mm", True): f"ease the gap {EASE}",
    ("root_opening_mm", False): REFIT,
    ("root_face_mm", True): f"less current there, else {REFIT}",
    ("root_face_mm", False): f"thin the land {EASE}",
}
NARROW_BEVEL_DEG, WIDE_BEVEL_DEG = 30.0, 37.5  # one side; common practice, no source


class RootStyle(Struct, frozen=True, kw_only=True):
    """One way to weld a root: windows of land, gap and filler [mm]; `None` where the style asks nothing of it.

    `by_clock` names parts of the clock of a fixed pipe, each with the style that it is welded by.
    """

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
    by_clock: tuple[tuple[str, str], ...] = ()


class RootStyles(Struct, frozen=True, kw_only=True):
    """All styles, by how much a spacer may be over the gap [mm], and the least backing by process [mm]."""

    styles: Mapping[str, RootStyle]
    spacer_over_mm: float
    spacer_source: str
    backing_mm: Mapping[str, float]
    backing_source: str


def read_root_styles(text: str) -> RootStyles:
    """Return the styles from their TOML text, inches made into millimetres."""
    table = rtoml.loads(text)
    styles = {}
    for row in table["style"]:
        spans = {
            f"{name}_mm": tuple(MM_PER_IN * end for end in row[name]) if name in row else None
            for name in ("land", "gap", "filler")
        }
        styles[row["id"]] = RootStyle(
            id=row["id"], name=row["name"], process=tuple(row["process"]), filler_in_gap=row.get("filler_in_gap", ""),
            backing=row.get("backing", False), note=row["note"], source=table["source"],
            confidence=row.get("confidence", table["confidence"]),
            by_clock=tuple((reach, own) for reach, own in row.get("by_clock", ())), **spans,  # type: ignore[arg-type]
        )  # fmt: skip
    backing = dict(table["backing_mm"])
    source = backing.pop("source")
    return RootStyles(
        styles=styles, spacer_over_mm=table["spacer"]["over_mm"], spacer_source=table["spacer"]["source"],
        backing_mm=backing, backing_source=source,
    )  # fmt: skip


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

    @property
    def off(self) -> float:
        """How far the value lies outside the window."""
        return max(self.window[0] - self.value, self.value - self.window[1], 0.0)


def misfits_when_tacked(root: Root, style: RootStyle) -> tuple[Misfit, ...]:
    """Return what of gap and land does not go with a style where they cannot be set any more, each measure once.

    Parameters
    ----------
    root : as it was measured; what was not measured is not judged
    style : how the root is to be welded

    Examples
    --------
    >>> from anlage.data.joint_tables import root_styles
    >>> (tight,) = misfits_when_tacked(Root(gap_mm=2.0, filler_mm=2.4), root_styles().styles["keyhole-dip"])
    >>> tight.mend
    'ease the gap with a thin disc where metal removal is allowed, else cut the tacks out and fit it up again'
    """
    found: dict[str, Misfit] = {}
    for each in misfits(root, style):
        key = (each.field, each.value < each.window[0])
        if key in TACKED and (each.field not in found or each.off > found[each.field].off):
            found[each.field] = Misfit(each.field, each.value, each.window, TACKED[key])
    return tuple(found.values())


def styles_that_go(root: Root, styles: Iterable[RootStyle]) -> tuple[RootStyle, ...]:
    """Return the styles that a root as measured can be welded by, in their order, whatever filler they take."""
    bare = replace(root, filler_mm=None)
    return tuple(
        style
        for style in styles
        if (root.process is None or root.process in style.process) and not misfits_when_tacked(bare, style)
    )


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


def spacers(gap_mm: float, sizes: Iterable[FillerSize], styles: RootStyles) -> tuple[FillerSize, ...]:
    """Return the rods that are spacers for a gap: of it or a little over, for tacks close it; none where none is made.

    Examples
    --------
    >>> from anlage.data.joint_tables import root_styles
    >>> sizes = (FillerSize(2.4, "3/32"), FillerSize(3.2, "1/8"), FillerSize(4.0, "5/32"), FillerSize(5.0, "3/16"))
    >>> [each.mm for each in spacers(3.175, sizes, root_styles())], spacers(6.0, sizes, root_styles())
    ([3.2, 4.0], ())
    """
    most = gap_mm + styles.spacer_over_mm
    found = (each for each in sizes if gap_mm - SAME_MM <= each.mm and each.judged_mm <= most + CLOSE_MM)
    return tuple(sorted(found, key=lambda each: each.mm))
