"""Where each leaf has its field: on a place, or only beside the ladder."""

from collections.abc import Mapping
from fnmatch import fnmatchcase
from functools import lru_cache
from pkgutil import resolve_name

from anlage.session.judging.assessment import Assessment
from anlage.session.judging.ladder import leaf_of_rung
from anlage.session.leaves.draft import Working
from anlage.session.leaves.table import PARTS
from anlage.ui.places import place_specs

WHOLE = "ranges"  # the place of the ladder carries the worst of all


def verdicts_by_place(working: Working, assessment: Assessment) -> Mapping[str, str]:
    """Return the worst verdict on what is stated at each place, and on the whole for the ladder; none where inside.

    A text that was not taken over is unproven at the place of its field.
    """
    found: dict[str, str] = {}
    for rung in assessment.problems():  # outside first: the first one of a place is its worst
        home = home_of(leaf_of_rung(working.value, rung), "wps")
        if home:
            found.setdefault(home, rung.verdict)
        found.setdefault(WHOLE, rung.verdict)
    for path in working.pending:
        if home := home_of(path, "wps"):
            found.setdefault(home, "unproven")
    return found


@lru_cache(maxsize=512)
def home_of(path: str, kind: str) -> str:
    """Return the id of the place that has the field of a leaf of a kind of document; "" when none has.

    Examples
    --------
    >>> home_of("joint/root_face_mm", "wps"), home_of("passes/p1/current_a", "wps"), home_of("welder", "pqr")
    ('joint', 'passes', 'proof')
    >>> home_of("deposits/d1/tungsten", "wps")
    ''
    """
    parent, _, part = path.rpartition("/")
    path = parent if part in PARTS else path  # a tolerance, or the least of what was recorded, has its field beside
    for spec in place_specs():
        shows = kind in spec.kinds or not spec.kinds  # the rules are there whatever is in front
        if shows and spec.leaves and any(fnmatchcase(path, each) for each in resolve_name(spec.leaves)):
            return spec.id
    return ""
