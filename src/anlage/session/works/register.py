"""What a works has: every procedure and record with its state, where it lies on the map, and what is not covered."""

from collections.abc import Callable, Sequence
from pkgutil import resolve_name

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.codes import Demand
from anlage.core.drawing.qualified_map import Area, Ticks
from anlage.core.errors import AnlageError
from anlage.core.machine import Calibrated, Machine
from anlage.core.quantities import inch_text
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval, Numbers, is_any, without
from anlage.core.record import Pqr
from anlage.session.judging.assessment import Assessment, Assessor
from anlage.session.judging.evidence import evidence_of_document
from anlage.session.judging.record_ranges import ranges_of_record
from anlage.session.kinds import RECORD, SOURCE, kind_of_format
from anlage.session.leaves.draft import Working
from anlage.session.leaves.set_text import set_text
from anlage.session.seam.dials import tap_words
from anlage.session.works.filed import Opened
from anlage.session.works.since import fallen
from anlage.session.works.standing import standing_of, waiting_texts
from anlage.store import Entry, Revision

THICKNESS_MARKS_MM = (1, 2, 5, 10, 20, 50, 100, 200)
DIAMETER_MARKS_MM = (20, 50, 100, 200, 500, 1000, 2000)
THICKNESS_MARKS_IN = (1 / 16, 1 / 8, 1 / 4, 1 / 2, 1, 2, 4, 8)
DIAMETER_MARKS_IN = (1, 2, 4, 8, 16, 32, 64)


class RegisterRow(Struct, frozen=True, kw_only=True):
    """One document: id, kind (`wps`, `pqr`, `machine`), number, title, state in words, verdict, its place on the map.

    The verdict is "" while it is not known yet.
    """

    id: str
    kind: str
    number: str
    title: str
    state: str
    verdict: str
    said: str
    thickness_mm: Interval | None = None
    diameter_mm: Interval | None = None
    gaps: tuple[Interval, ...] = ()
    rests_on: tuple[str, ...] = ()  # the numbers of the records that cover a deposit of a procedure
    judged_by: tuple[str, ...] = ()  # of those that it is held against and that cover none
    fallen: str = ""  # why the last revision, inside when it was issued, is so no more

    def matches(self, text: str) -> bool:
        """Whether every word of a text stands in it."""
        own = f"{self.number} {self.title} {self.state} {self.verdict} {self.said} {self.fallen}".casefold()
        return all(word in own for word in text.casefold().split())

    def area(self, *, chosen: bool) -> Area:
        """Return its rectangle on the map."""
        return Area(self.id, self.number or "?", self.kind, self.thickness_mm, self.diameter_mm, self.gaps, chosen)


class Standpoint(Struct, frozen=True):
    """From where documents are looked at: in which units, on which day, and how long a calibration is taken to hold."""

    system: System
    today: str = ""
    months: int = 12


class Shown(Struct, frozen=True):
    """A document on its way into a row: its id, its draft, its revision in words, who judges it, and who reads it.

    `last` is the revision that was issued last.
    """

    id: str
    working: Working
    badge: str
    assessor: Assessor
    seen: Standpoint
    last: Revision | None = None


def row_of(
    entry: Entry, opened: Opened | AnlageError, last: Revision | None,
    assessor: Assessor, seen: Standpoint,
) -> RegisterRow:  # fmt: skip
    """Return a document as its row; one that cannot be read says so.

    Parameters
    ----------
    opened : what was read, and what had to be mended in it; or why it cannot be read
    last : the revision that was issued last
    """
    kind = kind_of_format(entry.kind)
    if isinstance(opened, AnlageError):
        return unread_row(entry, opened)
    working, notices = opened
    show: Callable[[Shown], RegisterRow] = resolve_name(kind.row)
    row = show(Shown(entry.id, working, standing_of(last, working).badge(), assessor, seen, last))
    if not (notices or working.pending):
        return row
    return _not_whole(row, entry, notices[0].text if notices else waiting_texts(len(working.pending)))


def unread_row(entry: Entry, fault: AnlageError) -> RegisterRow:
    """Return the row of a document that cannot be read, with why."""
    return replace(waiting_row(entry, str(fault)), state="cannot be read", verdict="unproven")


def waiting_row(entry: Entry, said: str) -> RegisterRow:
    """Return the row of a document of which no more is known yet than its name."""
    kind = kind_of_format(entry.kind).id
    return RegisterRow(id=entry.id, kind=kind, number=entry.number, title=entry.title, state="", verdict="", said=said)


def _not_whole(row: RegisterRow, entry: Entry, said: str) -> RegisterRow:
    """Return the row of a document of which something is not read or not taken over: found by its name, never green."""
    verdict = "outside" if row.verdict == "outside" else "unproven"
    return replace(row, number=row.number or entry.number, title=row.title or entry.title, verdict=verdict, said=said)


def procedure_row(shown: Shown) -> RegisterRow:
    """Return a procedure as the rectangle that it is stated for, with what nothing covers."""
    own, wps, proof = shown.id, shown.working.value, shown.assessor.assess(shown.working.value)
    state, header = shown.badge, wps.header
    verdict = proof.verdict
    counts = proof.judgement.counts() if proof.judgement else {}
    told = [f"{count} {name}" for name, count in counts.items() if count]
    said = ", ".join([*([f"not judged: {proof.missing}"] if proof.missing else []), *told])
    return RegisterRow(
        id=own, kind="wps", number=header.number, title=header.title, state=state, verdict=verdict, said=said,
        thickness_mm=wps.range.thickness_mm, diameter_mm=wps.range.diameter_mm, gaps=_gaps(proof),
        rests_on=(covering := _covering(proof)),
        judged_by=tuple(each for each in proof.judgement.records() if each not in covering) if proof.judgement else (),
        fallen=fallen(shown.last, shown.assessor.assess, shown.seen.system),
    )  # fmt: skip


def _covering(proof: Assessment) -> tuple[str, ...]:
    """Return the records that cover a deposit, in the order of their names."""
    supports = proof.judgement.supports if proof.judgement is not None else ()
    return tuple(sorted({record for records in supports for record in records}))


def resting_sentence(rows: Sequence[RegisterRow], row: RegisterRow) -> str:
    """Return which records a procedure rests on, or which procedures rest on a record; "" for none."""
    if row.kind != RECORD.id:
        rests = f"Rests on {', '.join(row.rests_on)}." if row.rests_on else ""
        judged = f"Held against {', '.join(row.judged_by)}, which does not cover it." if row.judged_by else ""
        return " ".join(filter(None, (rests, judged)))
    resting = [each.number for each in rows if row.number and row.number in each.rests_on]
    still = any(each.kind == "wps" and not each.verdict for each in rows)
    said = f"{', '.join(resting)} {'rests' if len(resting) == 1 else 'rest'} on it." if resting else ""
    return f"{said} Some procedures are still being judged.".strip() if still else said


def fallen_sentence(rows: Sequence[RegisterRow]) -> str:
    """Return which issued procedures are no longer inside, and why the first is not; "" for none."""
    found = [row for row in rows if row.fallen]
    if not found:
        return ""
    head = "1 issued procedure is" if len(found) == 1 else f"{len(found)} issued procedures are"
    numbers = ", ".join(row.number for row in found)
    return f"{head} no longer inside: {numbers}. {found[0].number}: {found[0].fallen}"


def _gaps(proof: Assessment) -> tuple[Interval, ...]:
    """Return the stated base metal thicknesses that nothing allows."""
    rungs = proof.judgement.rungs if proof.judgement else ()
    for rung in rungs:
        if rung.variable == "base_metal_thickness_mm" and isinstance(rung.stated, Numbers):
            outside = without(rung.stated, rung.possible)
            return outside.parts if isinstance(outside, Numbers) else ()
    return ()


def record_row(shown: Shown) -> RegisterRow:
    """Return a record as the rectangle of base metal that it allows; of any diameter where its code sets none."""
    own, pqr, system = shown.id, shown.working.value, shown.seen.system
    header, thickness, diameter = pqr.header, None, None
    said = "no code is stated"
    if header.code is not None:
        try:
            demand = Demand(units=header.units, impact=header.impact)
            ranges = ranges_of_record(header.code, pqr, demand, shown.assessor.codes)
        except AnlageError as fault:
            said = str(fault)
        else:
            allowed = {each.variable: each.allowance.sure for each in ranges.variables if each.allowance}
            thickness = _hull(allowed.get("base_metal_thickness_mm"))
            diameter = _hull(allowed.get("diameter_mm"))
            said = "; ".join(
                f"{name} {set_text(variable, allowed[variable], system)}"
                for variable, name in (("base_metal_thickness_mm", "allows"), ("p_number", "P-Number"))
                if variable in allowed
            )
    evidence = evidence_of_document(pqr, shown.assessor.codes)
    if evidence.reason:
        said = evidence.reason
    verdict = {"accepted": "inside", "rejected": "outside"}.get(evidence.state, "unproven")
    return RegisterRow(
        id=own, kind="pqr", number=header.number, title=header.title,
        state=f"record, {evidence.state}", verdict=verdict, said=said,
        thickness_mm=thickness, diameter_mm=diameter,
    )  # fmt: skip


def machine_row(shown: Shown) -> RegisterRow:
    """Return a machine with the taps that prove a current today, and why the others do not; it lies on no map."""
    machine, seen = shown.working.value, shown.seen
    taps = Calibrated(machines=(machine,), today=seen.today, months=seen.months).taps()
    good = [each for each in taps if not each.why_not]
    words = [(each, tap_words(each, seen.system) or "its dial") for each in taps]
    said = [f"{name}: {each.why_not}" if each.why_not else f"{name} until {each.until}" for each, name in words]
    return RegisterRow(
        id=shown.id, kind=SOURCE.id, number=machine.header.number, title=machine.header.title,
        state=machine_state(machine, seen),
        verdict="inside" if good and len(good) == len(taps) else "unproven",
        said="; ".join(said) or "no reading: its dials are unproven as amps",
    )  # fmt: skip


def record_state(pqr: Pqr, _seen: Standpoint) -> str:
    """Return in few words whether a record counts."""
    return f"record, {evidence_of_document(pqr).state}"


def machine_state(machine: Machine, seen: Standpoint) -> str:
    """Return in few words how many taps of a machine are in date."""
    taps = Calibrated(machines=(machine,), today=seen.today, months=seen.months).taps()
    good = sum(not each.why_not for each in taps)
    return f"machine, {good} of {len(taps)} taps in date" if taps else "machine, not calibrated"


def _hull(values: object) -> Interval | None:
    if not isinstance(values, Numbers) or is_any(values) or not values.parts:
        return None
    return Interval(max(values.parts[0].low, 0.0), min(values.parts[-1].high, 1e6))


def ticks(system: System) -> Ticks:
    """Return the marks of the map in the reader's units."""
    if system == "si":
        thickness = tuple((float(mark), f"{mark}") for mark in THICKNESS_MARKS_MM)
        diameter = tuple((float(mark), f"{mark}") for mark in DIAMETER_MARKS_MM)
        return Ticks("base metal thickness, mm", "outside diameter, mm", thickness, diameter)
    thickness = tuple((mark * 25.4, inch_text(mark * 25.4)) for mark in THICKNESS_MARKS_IN)
    diameter = tuple((mark * 25.4, inch_text(mark * 25.4)) for mark in DIAMETER_MARKS_IN)
    return Ticks("base metal thickness, in", "outside diameter, in", thickness, diameter)


def areas(found: Sequence[RegisterRow], chosen: str) -> tuple[Area, ...]:
    """Return the rectangles of the rows that are judged; a machine welds any thickness."""
    judged = (row for row in found if row.verdict and row.kind != SOURCE.id)
    return tuple(row.area(chosen=row.id == chosen) for row in judged)
