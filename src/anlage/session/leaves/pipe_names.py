"""Pipes by one text, nominal size and schedule together."""

import re
from functools import cache

from anlage.core.catalogue.rows import PipeSize
from anlage.core.document import with_at
from anlage.core.errors import UnknownNameError
from anlage.core.procedure import Joint
from anlage.data.tables import catalogue
from anlage.session.leaves.documents import AnyDocument

_NAME = re.compile(
    r"""\s*(?:nps\s*)?(?P<nps>(?:dn\s*)?[\d/. -]*\d)\s*(?:in\b|")?  # 4, DN 100, 1-1/2 in
        \s*(?:sch(?:edule)?\.?)?\s+(?P<schedule>\w+)\s*""",
    re.IGNORECASE | re.VERBOSE,
)


@cache
def pipe_names() -> tuple[str, ...]:
    """Return every pipe as it can be typed: `4 sch 40`."""
    return tuple(f"{pipe.nps} sch {pipe.schedule}" for pipe in catalogue().pipes)


def pipe_named(text: str) -> PipeSize | None:
    """Return the pipe that a text names; `None` when no such pipe is in the table.

    Examples
    --------
    >>> pipe_named("4 sch 40").od_mm, pipe_named("NPS 1-1/2 80").wall_mm, pipe_named("4 sch 41")
    (114.3, 5.08, None)
    """
    match = _NAME.fullmatch(text[:60])
    if match is None:
        return None
    try:
        return catalogue().pipe(match["nps"].strip(), match["schedule"])
    except UnknownNameError:
        return None


def true_pipe_name(joint: Joint) -> str:
    """Return the nominal size and schedule that a joint's diameter and wall were taken from; "" once they are others.

    Examples
    --------
    >>> true_pipe_name(Joint(od_mm=114.3, thickness_mm=6.02, pipe_size="4 sch 40")), true_pipe_name(Joint(od_mm=110))
    ('4 sch 40', '')
    """
    pipe = pipe_named(joint.pipe_size) if joint.pipe_size else None
    same = pipe is not None and joint.od_mm == pipe.od_mm and joint.thickness_mm == pipe.wall_mm
    return joint.pipe_size or "" if same else ""


def with_pipe(value: AnyDocument, text: str) -> AnyDocument | None:
    """Return a document with the diameter and wall of the pipe that a text names; `None` where no such is known."""
    pipe = pipe_named(text)
    if pipe is None:
        return None
    value = with_at(value, "joint/od_mm", pipe.od_mm)
    value = with_at(value, "joint/thickness_mm", pipe.wall_mm)
    return with_at(value, "joint/pipe_size", text.strip())
