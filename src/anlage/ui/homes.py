"""Where each leaf has its field: on a place, in the job panel, or only beside the ladder."""

from anlage.core.procedure import Wps
from anlage.session.judging.assessment import Proof
from anlage.session.judging.ladder import leaf_of_rung
from anlage.ui.deposits import CARD
from anlage.ui.job_panel import LINES
from anlage.ui.joint_place import SINGLE, TOLERANCED
from anlage.ui.pass_model import COLUMNS

_JOB = {path for line in LINES for path in line}
_JOINT = {f"joint/{name}" for name in (*SINGLE, *TOLERANCED, "root_style", "detail")}
_PASS = {column.leaf for column in COLUMNS if column.leaf} | {"reach"}
_CARD = {name for name, *_ in CARD}


def verdicts_by_place(wps: Wps, proof: Proof) -> dict[str, str]:
    """Return the worst verdict on what is stated at each place, and on the whole for the ladder; none where inside."""
    found: dict[str, str] = {}
    for rung in proof.problems():  # outside first: the first one of a place is its worst
        home = home_of(leaf_of_rung(wps, rung))
        if home in ("joint", "passes"):
            found.setdefault(home, rung.verdict)
        found.setdefault("ranges", rung.verdict)
    return found


def home_of(path: str) -> str:
    """Return `job`, or the id of the place that has the field of a leaf; "" when none has.

    Examples
    --------
    >>> home_of("joint/root_face_mm"), home_of("passes/p1/current_a"), home_of("deposits/d1/tungsten")
    ('joint', 'passes', '')
    """
    kind, _, rest = path.partition("/")
    leaf = rest.partition("/")[2]
    if path in _JOB:
        return "job"
    if path in _JOINT or kind == "members" or path == "seam/member_order":
        return "joint"
    if kind in ("seam", "tacks", "stations", "sectors", "readings"):
        return "passes"
    return "passes" if (kind == "passes" and leaf in _PASS) or (kind == "deposits" and leaf in _CARD) else ""
