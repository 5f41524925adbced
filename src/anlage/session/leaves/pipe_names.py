"""Pipes by one text, nominal size and schedule together."""

import re
from functools import cache

from anlage.core.catalogue.rows import PipeSize
from anlage.core.errors import UnknownNameError
from anlage.data.tables import catalogue

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
