"""A list of passes that fills a joint: beads, settings and travel speeds, proposed and to be proved."""

from collections.abc import Iterator, Mapping, Sequence
from typing import Any, Final

from msgspec import Struct

from anlage.core.beads import Proposed as ProposedBead
from anlage.core.beads import fill
from anlage.core.document import Proposed, fields_of, with_
from anlage.core.errors import InputError
from anlage.core.joint import Shape, faults
from anlage.core.procedure import (
    Deposit,
    Pass,
    Wps,
    moved_pass,
    sketch_of,
    with_deposit,
    with_element,
    with_passes,
    without_whole_passes,
)
from anlage.core.proposal import Circumstances, Proposal, fitted, narrowed
from anlage.core.ranges import Interval
from anlage.data.usual_table import usual_table
from anlage.session.leaves.marks import spans
from anlage.session.seam.part_passes import with_strip
from anlage.session.seam.seam_places import is_round
from anlage.session.weld.bead_areas import filler_of
from anlage.session.weld.bead_sizes import Plan, plan_of
from anlage.session.weld.beads import first_cap, joint_shape
from anlage.session.weld.places import without_idle_progression
from anlage.session.weld.usual import (
    SETTINGS,
    described,
    hot_over_root,
    proposal_for,
    refuse_there,
    stated_in,
    where_of,
)

LAID: Final = Proposed(reason="what the joint as drawn has room for", confidence="M")
WITHOUT: Final = "none"  # the filler of a weld of the edges alone
OFF: Final = 0.1  # a bead that its settings lay by more too small or too large is told of; own choice


class Filled(Struct, frozen=True):
    """A procedure with the passes that fill its joint, and what is to be said of them, each a sentence.

    `minded` is what of it somebody has to mind; `changes` whether passes that state something are replaced.
    """

    wps: Wps
    said: tuple[str, ...]
    minded: tuple[str, ...]
    changes: bool


def filled(wps: Wps, plan: Plan | None = None) -> Wps:
    """Return the procedure with its passes written anew so that they fill the joint; see `proposed_fill`."""
    return proposed_fill(wps, plan).wps


def proposed_fill(wps: Wps, plan: Plan | None = None) -> Filled:
    """Return the procedure with its passes written anew so that they fill the joint.

    Settings are those usual for process, filler, role and place; what passes of the same deposit state of their own
    is kept. Everything else is marked as proposed. Where nothing says how much a pass lays, its area is stated
    instead, and its speed is left open. Passes on a part of the way stay, before the cap.

    Parameters
    ----------
    wps : the procedure
    plan : which deposit lays what, and how large its beads are; `None`: as its own passes say, else as is usual

    Raises
    ------
    InputError : the joint is not stated in full, its values clash, it takes too many beads, or a filler, process or
        mode is not for the stated position
    """
    shape = _shape(wps)
    start = without_idle_progression(wps if wps.deposits else with_deposit(wps)[0])
    plan = plan or plan_of(start)
    _refuse_narrow(start, plan)
    for deposit in plan.deposits:
        refuse_there(start, deposit)
    beads = fill(shape, plan.sizes, over_land_mm=usual_table().root.over_land_mm)
    has_sides = len({each.side for each in shape.grooves} - {0}) > 1
    root = next((bead for bead in beads if bead.role == "root"), None)
    layings = [_Laying(start, plan, bead, root, has_sides=has_sides) for bead in beads]
    laid = [each.passed() for each in layings]
    parts = [each.id for each in start.passes if each.reach is not None]
    done = with_passes(without_whole_passes(start), [(home, stated) for home, stated, _ in laid])
    fresh = done.passes[len(parts) :]
    done = _marked(done, fresh, [marks for *_, marks in laid])
    if is_round(done):
        done = _with_sectors(done, fresh)
    for part in parts:  # they came to stand first
        done = moved_pass(done, part, first_cap(done) - 1)
    if not parts and _runs_low(done):
        done = with_strip(done)
    changes = any(each.reach is None and states_something(each) for each in start.passes)
    minded = (*_minded(start, done, plan, beads, shape), *_misfits(layings))
    return Filled(done, (*_said(start, done, plan), *minded), minded, changes)


def states_something(each: Pass) -> bool:
    """Return whether a pass states more than what it is and of which deposit."""
    return any(getattr(each, leaf) is not None for leaf in fields_of(Pass) if leaf not in ("id", "deposit", "role"))


def _shape(wps: Wps) -> Shape:
    sketch, shape = sketch_of(wps.joint), joint_shape(wps)
    if sketch is not None and (wrong := faults(sketch.preparation)):
        raise wrong[0]
    if sketch is None or shape is None or sketch.incomplete:
        mend = "state the preparation at Joint first"
        raise InputError("the joint is not stated in full", where="fill", mend=mend)
    return shape


def _refuse_narrow(wps: Wps, plan: Plan) -> None:
    """Refuse a weave limit that is narrower than a stringer."""
    limit = wps.seam.weave_limit_mm
    if limit is None:
        return
    for deposit, size in zip(plan.deposits, plan.sizes, strict=True):
        stringer = min(each.pitch_mm for each in (size, *(own for _, own in size.roles)))
        if limit < NARROW * stringer:
            what = f"{limit:g} mm is narrower than a stringer of {deposit.filler or 'the filler'}"
            mend = f"state {stringer:.0f} mm or more, or take a thinner filler"
            raise InputError(what, where="seam/weave_limit_mm", mend=mend)


NARROW = 0.75  # of the pitch of stringers, which lap each other: own choice


class _Laying:
    """One bead becoming a pass."""

    def __init__(self, wps: Wps, plan: Plan, bead: ProposedBead, root: ProposedBead | None, *, has_sides: bool) -> None:
        self.wps, self.deposit, self.bead, self.root, self.has_sides = (
            wps, plan.deposits[bead.deposit], bead, root, has_sides
        )  # fmt: skip
        self.narrow = plan.narrow.get(self.deposit.id)
        self.share = 1.0  # of its room that its settings lay

    def passed(self) -> tuple[str, dict[str, Any], Mapping[str, Proposed]]:
        """Return the deposit, what the pass states, and which of its leaves are only proposed."""
        bead = self.bead
        stated: dict[str, Any] = {
            "role": bead.role,
            "layer": "new" if bead.starts_layer else "beside",
            "bead": "weave" if bead.weave else "stringer",
            "side": (None, "first", "second")[bead.side] if self.has_sides else None,
            "thickness_mm": Interval.single(round(bead.height_mm, 1)),
            "note": self._note(),
        }
        proposal = self._proposal()
        own = {leaf: value for (leaf, role), value in stated_in(self.wps, self.deposit).items() if role == bead.role}
        if proposal is None:
            stated |= own | {"bead_area_mm2": Interval.single(round(bead.area_mm2, 2))}
            return self.deposit.id, stated, {"thickness_mm": LAID, "bead_area_mm2": LAID}
        found = fitted(proposal, bead.area_mm2, weave=bead.weave)
        self.share = found.area_mm2 / bead.area_mm2
        values = {
            "current_a": found.current_a, "voltage_v": proposal.voltage_v,
            "travel_speed_mm_min": found.travel_speed_mm_min, "wire_speed_mm_min": found.wire_speed_mm_min,
        }  # fmt: skip
        if self.deposit.filler_diameter_mm is None:  # nothing says what its settings lay
            stated["bead_area_mm2"] = Interval.single(round(bead.area_mm2, 2))
        typed = {leaf for leaf in SETTINGS if getattr(proposal.typed, leaf) is not None}
        mark = Proposed(reason=proposal.words, confidence=proposal.confidence)
        marks = {leaf: mark for leaf, value in values.items() if value is not None and leaf not in typed}
        marks["thickness_mm"] = LAID
        if "bead_area_mm2" in stated:
            marks["bead_area_mm2"] = LAID
        return self.deposit.id, stated | values, marks

    @property
    def proposal_is_free(self) -> bool:
        """Whether the speed of the bead is not stated by somebody."""
        return all(leaf != "travel_speed_mm_min" for leaf, _ in stated_in(self.wps, self.deposit))

    def _proposal(self) -> Proposal | None:
        """Return what is usual for the bead; the second pass over a thin root is held back."""
        found = described(self.deposit, self.bead.role, where_of(self.wps, self.deposit).place)
        if found is None or not found.known:
            return None
        hot, most = usual_table().hot, None
        if self.bead.role == "hot" and self.root is not None and self.root.height_mm < hot.thin_mm:
            most = self._root_current(hot.most)
        usual = proposal_for(self.wps, self.deposit, self.bead.role, most_a=most)
        return usual if usual is None or self.narrow is None else narrowed(usual, self.narrow)

    def _root_current(self, times: float) -> float | None:
        home = plan_of(self.wps).deposits[self.root.deposit] if self.root else None
        if home is None or home.process != self.deposit.process:
            return None
        proposal = proposal_for(self.wps, home, "root")
        return None if proposal is None else times * (proposal.band.low + proposal.band.high) / 2

    def _note(self) -> str | None:
        """Return the note of a pass of the same deposit and role."""
        own = (each for each in self.wps.passes if each.deposit == self.deposit.id and each.role == self.bead.role)
        return next((each.note for each in own if each.note), None)


def _marked(wps: Wps, fresh: Sequence[Pass], marks: Sequence[Mapping[str, Proposed]]) -> Wps:
    """Return the procedure with the leaves of new passes marked as proposed, marks of passes that are gone left out."""
    known = {each.id for each in wps.passes}
    kept = {
        path: mark
        for path, mark in wps.proposed.items()
        if not path.startswith("passes/") or path.split("/")[1] in known
    }
    for each, own in zip(fresh, marks, strict=True):
        kept |= {f"passes/{each.id}/{leaf}": mark for leaf, mark in own.items()}
    return with_(wps, proposed=kept)


def _with_sectors(wps: Wps, fresh: Sequence[Pass]) -> Wps:
    """Return the procedure with sectors for passes round a fixed pipe whose proposed current follows the clock."""
    homes = {each.id: each for each in wps.deposits}
    for each in fresh:
        path = f"passes/{each.id}/current_a"
        where = where_of(wps, homes[each.deposit])
        if path not in wps.proposed or each.current_a is None or where.place not in ("up", "down"):
            continue
        at = Circumstances(process=homes[each.deposit].process or "", place=where.place, role=each.role or "")
        for row in usual_table().sector:
            low, high = each.current_a.low + row.low, each.current_a.high - row.high
            if not at.hold(row.when) or low >= high:
                continue
            wps, own = with_element(
                wps, "sectors", of=each.id, reach=row.reach, current_a=(low, high), technique=row.technique
            )
            mark = Proposed(reason=f"{row.why}: {usual_table().source}", confidence=row.confidence)
            marks = {f"sectors/{own}/{leaf}": mark for leaf in ("current_a", "technique")}
            wps = with_(wps, proposed={**wps.proposed, **marks})
    return wps


def _runs_low(wps: Wps) -> bool:
    """Return whether the fill runs low near 3 and 9 o'clock: downhill round a pipe, with something under the cap."""
    return (
        is_round(wps)
        and wps.technique.progression == "downhill"
        and any(each.role == "cap" for each in wps.passes)
        and len(wps.passes) > 2
    )


# What is said of a fill ----------------------------------------------------------------------


def _name(deposit: Deposit) -> str:
    return " ".join(filter(None, (deposit.process, deposit.filler))) or "A deposit not stated"


def _said(start: Wps, done: Wps, plan: Plan) -> Iterator[str]:
    """Yield where each deposit went, and how hot the second pass is over the root."""
    for deposit in plan.deposits:
        numbers = [n for n, each in enumerate(done.passes, 1) if each.deposit == deposit.id]
        if numbers:
            yield f"{_name(deposit)}, {where_of(start, deposit).why}: pass {spans(numbers)}."
    if ratio := hot_over_root(done):
        yield f"Second pass over root current: {ratio:.2f}; usual {usual_table().hot.usual}."


def _minded(start: Wps, done: Wps, plan: Plan, beads: Sequence[ProposedBead], shape: Shape) -> Iterator[str]:
    """Yield what is to be minded: a deposit that lays nothing, settings that stay empty, what is seldom done."""
    homes = {each.deposit for each in done.passes}
    for deposit in plan.deposits:
        if deposit.id not in homes:
            name = _name(deposit)
            yield f"{name} lays nothing: the joint is full before it. Give its passes a role, or take it out."
            continue
        yield from _of_settings(deposit, _name(deposit), where_of(start, deposit).place)
        yield from _seldom(deposit, [bead for bead in beads if plan.deposits[bead.deposit] is deposit], shape)


def _misfits(layings: Sequence[_Laying]) -> Iterator[str]:
    """Yield which filler has no usual setting for the beads that a joint has room for."""
    told: set[tuple[str, str]] = set()
    for each in layings:
        word = "large" if each.share < 1 - OFF else "small" if each.share > 1 + OFF else ""
        if word and each.proposal_is_free and (each.deposit.id, word) not in told:
            told.add((each.deposit.id, word))
            other = "thicker" if word == "large" else "thinner"
            yield f"No usual setting of {_name(each.deposit)} lays a bead so {word}: take a {other} filler there."


def _of_settings(deposit: Deposit, name: str, place: str) -> list[str]:
    found = described(deposit, "fill", place)
    if found is None or not found.known:
        what = "has no usual settings here" if found is None else "is not in the catalogue"
        if not deposit.filler:
            what = "has no filler stated"
        elif deposit.filler.casefold() == WITHOUT:
            name, what = f"{deposit.process or 'A deposit'} without filler", "has no usual settings here"
        return [f"{name} {what}: current, voltage and speed stay empty."]
    return [f"Settings of {found.taken_as}, the nearest that is described."] if found.taken_as else []


def _seldom(deposit: Deposit, beads: Sequence[ProposedBead], shape: Shape) -> list[str]:
    """Return what of a deposit's passes is seldom done, with what is done instead."""
    filler = filler_of(deposit)
    is_open = any(groove.root is not None for groove in shape.grooves)
    said = []
    for row in usual_table().seldom:
        for role in dict.fromkeys(bead.role for bead in beads):
            at = Circumstances(
                process=deposit.process or "", family=filler.family if filler else "",
                filler=filler.classification if filler else "", mode=deposit.transfer_mode or "", role=role,
            )  # fmt: skip
            if at.hold(row.when) and (is_open or not row.open) and (len(beads) > 1 or not row.multi):
                said.append(f"{row.what[0].upper()}{row.what[1:]}. {row.mend[0].upper()}{row.mend[1:]}.")
                break
    return said
