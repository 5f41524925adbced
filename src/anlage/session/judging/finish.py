"""How the finished weld may look by the construction code of the job: cap and root as drawn, undercut and offset."""

import math
from collections.abc import Iterator
from typing import Final

from msgspec import Struct

from anlage.core.codes.asking import asked_of
from anlage.core.codes.box import Allowance
from anlage.core.codes.pack import Pack, Rule
from anlage.core.codes.verdict import Verdict
from anlage.core.document import Dimension
from anlage.core.drawing.cap_limit import CapLimit
from anlage.core.errors import AnlageError
from anlage.core.joint import faults, joint_metal
from anlage.core.procedure import Wps, sketch_of
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.core.ranges import Choices, Interval, Numbers, Range, is_any, is_none
from anlage.core.variables import spoken
from anlage.data.tables import unit_table
from anlage.session.judging.editions import SHIPPED, Codes
from anlage.session.judging.statements import demand_of
from anlage.session.leaves.set_text import set_text

DRAWN: Final = {"cap_mm": "reinforcement_mm", "root_cap_mm": "root_reinforcement_mm"}
LATER: Final = ("undercut_mm", "offset_mm")
WHEN: Final = {"wps": "as drawn", "fit-up": "at fit-up", "inspection": "at inspection"}
CONSTRUCTION: Final = "construction"


class Finish(Struct, frozen=True, kw_only=True):
    """One limit on the finished weld: what it is of, in words, when it is asked, and how what is drawn stands to it.

    `verdict` is `None` of what nobody draws: an undercut is measured, not planned. `most_mm` is the most that is surely
    allowed [mm], `None` where no number is.
    """

    variable: str
    allowed: str
    when: str
    clause: str
    confidence: str
    note: str
    stated: str = ""
    verdict: Verdict | None = None
    most_mm: float | None = None

    @property
    def words(self) -> str:
        """The limit in a sentence."""
        drawn = f"; {self.stated} is drawn, {self.verdict}" if self.verdict is not None and self.stated else ""
        doubt = "" if self.confidence == "H" else f", {self.confidence}"
        return f"{spoken(self.variable)} {self.allowed} {self.when} ({self.clause}{doubt}){drawn}"


def finish_limits(wps: Wps, codes: Codes = SHIPPED, system: System = "si") -> tuple[Finish, ...]:
    """Return what the construction code of a job asks of the finished weld; nothing where none is named or known.

    Parameters
    ----------
    wps : the procedure, with its `construction_code`
    codes : as the works has them
    system : the units of the reader
    """
    named = wps.header.construction_code
    if not named:
        return ()
    try:
        pack, _ = codes.edition_of(named, CONSTRUCTION)
    except AnlageError:
        return ()
    return tuple(_limits(wps, pack, system))


def limit_of_cap(wps: Wps, codes: Codes = SHIPPED, system: System = "si") -> CapLimit | None:
    """Return how high a cap surely may be by the construction code of a job, to be drawn; `None` where nobody says."""
    own = next((each for each in finish_limits(wps, codes, system) if each.variable == "cap_mm"), None)
    if own is None or own.most_mm is None or math.isinf(own.most_mm):
        return None
    most = show(own.most_mm, "length", system, unit_table())
    return CapLimit(own.most_mm, f"≤ {most}, {own.clause}", own.verdict == "outside")


def _limits(wps: Wps, pack: Pack, system: System) -> Iterator[Finish]:
    stated, demand = _facts(wps), demand_of(wps, pack)
    ranged = stated | _thicknesses(wps)
    both = bool(wps.joint.kind) and str(wps.joint.kind).startswith("double")
    for variable in (*DRAWN, *LATER):
        if variable == "root_cap_mm" and both:
            continue  # both of its sides are caps
        rules = [rule for rule in (*pack.rules, *pack.staged) if variable in rule.variables]
        asked = asked_of(pack, rules, stated, demand).get(variable)
        if asked is None or is_any(asked.sure):
            continue
        drawn = getattr(wps.joint, DRAWN[variable]) if variable in DRAWN else None
        over = asked if ranged == stated else asked_of(pack, rules, ranged, demand).get(variable, asked)
        yield _finish(variable, (asked, over), drawn, system)


def _finish(variable: str, limits: tuple[Allowance, Allowance], drawn: Dimension | None, system: System) -> Finish:
    """Return a limit, of what is drawn and over the whole range of thickness; inside is only what holds for both."""
    asked, over = limits
    rules: tuple[Rule, ...] = tuple(each.rule for each in asked.rulings)
    allowed = set_text(variable, asked.sure, system)
    if asked.sure != asked.possible:
        perhaps = set_text(variable, asked.possible, system)
        allowed = f"unproven, at most {perhaps}" if is_none(asked.sure) else f"{allowed}, perhaps {perhaps}"
    if over.sure != asked.sure:
        allowed = f"{allowed}, over its range of thickness {set_text(variable, over.sure, system)}"
    own = Numbers((drawn.span,)) if drawn is not None else None
    verdict = asked.verdict(own) if own is not None else None
    if own is not None and verdict == "inside" and over.verdict(own) != "inside":
        verdict = "unproven"  # it is drawn for one thickness only
    parts = asked.sure.parts if isinstance(asked.sure, Numbers) else ()
    return Finish(
        variable=variable, allowed=allowed, when=WHEN[rules[0].stage], clause=asked.clause,
        confidence=asked.confidence, note=asked.note,
        stated=set_text(variable, own, system) if own is not None else "",
        verdict=verdict,
        most_mm=parts[-1].high if parts else None,
    )  # fmt: skip


def _facts(wps: Wps) -> dict[str, Range]:
    """Return what the limits hang on: both thicknesses, the widths of cap and root as drawn, product and loading."""
    joint = wps.joint
    thick = [each for each in (joint.thickness_mm, joint.other_thickness_mm) if each is not None]
    numbers: dict[str, float] = {}
    if joint.thickness_mm is not None:
        numbers |= {"thinner_member_mm": min(thick), "thicker_member_mm": max(thick)}
    sketch = sketch_of(joint)
    if sketch is not None and not sketch.incomplete and not faults(sketch.preparation):
        width = joint_metal(sketch.preparation).face_width_mm
        over = joint.cap_overlap_mm.nominal if joint.cap_overlap_mm is not None else 0.0
        if width > 0:
            numbers["face_width_mm"] = width + 2 * over
        if joint.root_opening_mm is not None and joint.root_opening_mm.nominal > 0:
            numbers["root_width_mm"] = joint.root_opening_mm.nominal
    found: dict[str, Range] = {name: Numbers((Interval.single(value),)) for name, value in numbers.items()}
    words = {"product": joint.product, "weld_class": wps.header.weld_class}
    return found | {name: Choices(frozenset((word,))) for name, word in words.items() if word}


def _thicknesses(wps: Wps) -> dict[str, Range]:
    """Return the thicknesses of both members over the whole range that the procedure is stated for."""
    joint, ranged = wps.joint, wps.range.thickness_mm
    if ranged is None or joint.thickness_mm is None:
        return {}
    other = joint.other_thickness_mm
    thin = (ranged.low, joint.thickness_mm, *([other] if other is not None else []))
    thick = (ranged.high, joint.thickness_mm, *([other] if other is not None else []))
    thinner = Interval(min(thin), max(ranged.high, min(thin)))
    return {
        "thinner_member_mm": Numbers((thinner,)),
        "thicker_member_mm": Numbers((Interval(min(thick), max(thick)),)),
    }


def finish_words(wps: Wps, codes: Codes = SHIPPED, system: System = "si") -> str:
    """Return all limits on the finished weld in a sentence, or that no contract names a code; "" where it has none."""
    if not wps.header.construction_code:
        return "Cap, root, undercut and offset: contract: not stated."
    found = finish_limits(wps, codes, system)
    if not found:
        return ""
    said = "; ".join(each.words for each in found)
    return f"{said[0].upper()}{said[1:]}."
