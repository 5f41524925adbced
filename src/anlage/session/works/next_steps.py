"""What a procedure still lacks, in the order of the work: job, joint, deposits, passes, ranges, sheet."""

from collections.abc import Iterator

from msgspec import Struct

from anlage.core.procedure import Wps, drawable
from anlage.session.judging.assessment import Assessment
from anlage.session.leaves.draft import Working
from anlage.session.leaves.table import field_of
from anlage.session.leaves.text import leaf_value
from anlage.session.works.standing import Standing, waiting_texts

METAL = "metals/one/name"
ASKED = (
    ("header/number", "its number"), (METAL, "the base metal"), ("range/thickness_mm", "the thicknesses"),
    ("header/code", "the code"), ("technique/position", "the position"),
    ("header/impact", "whether impact tests are asked"),
    ("preheat/minimum_c", "the least preheat"), ("preheat/interpass_maximum_c", "the most between passes"),
    ("pwht/kind", "the heat treatment after welding, or none"),
)  # fmt: skip
OF_DEPOSIT = ("process", "filler", "filler_diameter_mm", "current_type")
OF_PASS = ("role", "current_a", "voltage_v", "travel_speed_mm_min")


class Step(Struct, frozen=True):
    """One thing to do next: the place that it is done at, what it is, and the leaf to type, "" for none."""

    place: str
    text: str
    path: str = ""


def next_steps(working: Working, assessment: Assessment, standing: Standing) -> tuple[Step, ...]:
    """Return what is still to be done, in the order of the work; nothing once it is issued as it is."""
    steps = [*_waiting(working), *_job(working.value), *_joint(working.value), *_weld(working.value)]
    steps += _judged(assessment)
    if not standing.is_issued:
        steps.append(Step("sheet", "Look at the sheet and issue it"))
    return tuple(steps)


def _waiting(working: Working) -> Iterator[Step]:
    if working.pending:
        path = next(iter(working.pending))
        yield Step("", f"{waiting_texts(len(working.pending))}: {field_of(path).label.lower()}", path)


def _job(wps: Wps) -> Iterator[Step]:
    for path, words in ASKED:
        if leaf_value(wps, path) in (None, "") and not (path == METAL and wps.metals.one.p_number):
            yield Step("job", f"State {words}", path)
    if wps.joint.product == "pipe" and wps.range.diameter_mm is None:
        yield Step("job", "State the diameters", "range/diameter_mm")


def _joint(wps: Wps) -> Iterator[Step]:
    if wps.joint.kind is None:
        yield Step("joint", "Choose the preparation", "joint/kind")
        return
    sketch = drawable(wps.joint)
    if sketch is None:
        yield Step("joint", "Mend the joint: its values cannot be together")
    elif sketch.incomplete:
        yield Step("joint", "State the dimensions of the joint that are only sketched")


def _weld(wps: Wps) -> Iterator[Step]:
    if not wps.deposits:
        yield Step("passes", "Add a deposit: process, filler, current")
        return
    for each in wps.deposits:
        lacking = next((name for name in OF_DEPOSIT if getattr(each, name) is None), "")
        if lacking and not (lacking.startswith("filler") and each.filler == "none"):
            path = f"deposits/{each.id}/{lacking}"
            name = each.process or "a deposit"
            yield Step("passes", f"State the {field_of(path).label.lower()} of {name}", path)
    if not wps.passes:
        yield Step("passes", "Lay the passes, or fill the joint with them")
    for number, one in enumerate(wps.passes, 1):
        lacking = next((name for name in OF_PASS if getattr(one, name) is None), "")
        if lacking:
            path = f"passes/{one.id}/{lacking}"
            yield Step("passes", f"State the {field_of(path).label.lower()} of pass {number}", path)
            return


def _judged(assessment: Assessment) -> Iterator[Step]:
    if assessment.judgement is None:
        return
    if assessment.missing:
        yield Step("ranges", "Weld a coupon, or enter what its tests found: no record counts yet")
    counts = assessment.judgement.counts()
    told = " and ".join(f"{counts[word]} {word}" for word in ("outside", "unproven") if counts[word])
    if told:
        yield Step("ranges", f"See what is not inside: {told}")
