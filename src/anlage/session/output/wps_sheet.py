"""The sheet of a procedure: what is stated, in both unit systems, with section, records, doubts and cautions."""

from collections.abc import Sequence

import rtoml
from msgspec import Struct

from anlage.core.beads import MOST_BEADS
from anlage.core.codes import Rung, Verdict
from anlage.core.document import at as leaf_at
from anlage.core.drawing import DisplayList, Measure, Text, fitted
from anlage.core.drawing.cap_limit import CapLimit
from anlage.core.drawing.page import MARGIN_MM, NOTE_MM, TITLE_MM, Column, Flow, broken
from anlage.core.drawing.section import section
from anlage.core.joint import dimensions_of
from anlage.core.machine import Calibrated
from anlage.core.procedure import Deposit, Pass, Wps, clashes, deposit_of_pass, drawable, pass_energy
from anlage.core.quantities import show, show_interval
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.data.files import text_of
from anlage.data.joint_tables import root_styles
from anlage.data.tables import processes, unit_table
from anlage.session.heat.meters import meter_sentences
from anlage.session.heat.sequence import Waits
from anlage.session.judging.assessment import Assessment
from anlage.session.judging.groups import deposit_words, metal_words
from anlage.session.judging.ladder import clause_of, lines, support_sentences
from anlage.session.judging.marks import overlay_sentences, unchecked, used
from anlage.session.leaves.marks import proposed_sentences
from anlage.session.leaves.pipe_names import true_pipe_name
from anlage.session.leaves.table import field_of
from anlage.session.leaves.text import shown
from anlage.session.output.sheet_heat import set_heat
from anlage.session.seam.change_over import change_overs
from anlage.session.seam.dials import dial_lines, superseded_sentences
from anlage.session.seam.sectors import SETTINGS
from anlage.session.seam.tacks import tack_sentences
from anlage.session.weld.advice import root_advice
from anlage.session.weld.figures import joint_figures
from anlage.session.weld.fill_notices import fill_notices
from anlage.session.weld.node import node_of, node_picture, node_sentences
from anlage.session.weld.picture_sheet import Sheet
from anlage.session.weld.pictures import bead_picture, with_cap_limit
from anlage.session.weld.transfer import transfer_sentences
from anlage.session.weld.usual import outdated_words, size_sentences
from anlage.session.weld.weld_symbol import symbol_picture
from anlage.session.works.standing import Standing

NONE = "–"
NO_MACHINES = Calibrated()
ORDER: dict[System, tuple[System, System]] = {"si": ("si", "us"), "us": ("us", "si")}
PICTURE_MM = (104.0, 56.0)
DEPOSIT_LEAVES = (
    "filler_diameter_mm", "thickness_mm", "current_type", "transfer_mode", "shielding_gas", "gas_flow_l_min",
    "backing_gas", "backing_flow_l_min", "trailing_gas", "tungsten", "cup_size_mm", "operation", "consumable_insert",
    "penetration_flux", "closed_chamber", "pulsing", "oscillation", "electrodes", "electrode_spacing", "machine",
    "flux", "flux_type", "recrushed_slag", "supplemental_filler", "filler_make", "orifice_gas", "orifice_flow_l_min",
    "keyhole", "contact_tube_mm", "output", "hot_wire", "progression", "maker_current_a", "travel_angle_deg",
    "work_angle_deg", "spacing_along_mm", "spacing_across_mm", "parallel_angle_deg",
)  # fmt: skip
TECHNIQUE_LEAVES = (
    "technique/position", "technique/progression", "technique/runs", "technique/bead_technique", "seam/weave_limit_mm",
    "technique/cleaning", "technique/back_gouging", "technique/thermal_preparation", "technique/peening",
    "technique/root_to_second_min", "technique/second_to_rest_min", "technique/clamp",
    "joint/backing", "joint/retainers", "preheat/minimum_c", "preheat/interpass_maximum_c", "preheat/maintenance",
    "pwht/kind", "pwht/temperature_c", "pwht/time_h",
)  # fmt: skip
AFTER_LEAVES = ("after/release_c", "after/release_h", "after/heating_rate_k_h", "after/cooling_rate_k_h")


class Stationery(Struct, frozen=True):
    """What a sheet is set on: `a4` or `letter`, what measures a text in the shipped font, a letterhead, "" for none."""

    paper: str
    measure: Measure
    letterhead: str = ""


class Floor(Struct, frozen=True):
    """What the floor is told that does not stand in the procedure itself.

    `works` are the machines as they are known on the day of the sheet, `waits` how long to wait between passes, or why
    that is not known; `None` where nothing was worked out. `amiss` is what of its heat, cap and root is not shown to
    hold: verdict, what it is of, and why. `finish` says how the finished weld may look, `caps` how high it may stand.
    """

    works: Calibrated = NO_MACHINES
    waits: Waits | str | None = None
    amiss: tuple[tuple[Verdict, str, str], ...] = ()
    finish: str = ""
    caps: CapLimit | None = None


NOTHING_TOLD = Floor()


def sheet(
    wps: Wps, proof: Assessment, standing: Standing, on: Stationery, floor: Floor = NOTHING_TOLD
) -> tuple[DisplayList, ...]:
    """Return the pages of a procedure.

    Parameters
    ----------
    wps : the procedure
    proof : how it stands by its code
    standing : whether it is issued, and its hash
    on : paper, letterhead and font
    floor : machines and waits
    """
    flow = Flow(on.paper, on.measure)
    if on.letterhead:
        flow.text(on.letterhead, role="print_strong")
        flow.skip(1.5)
    _head(flow, wps, standing)
    _joint(flow, wps, floor.caps)
    if floor.finish:
        flow.text(floor.finish, height_mm=NOTE_MM)
    _facts(flow, "Base metal and range", [(path, wps) for path in RANGE_LEAVES])
    _groups(flow, wps)
    for deposit in wps.deposits:
        _deposit(flow, wps, deposit)
    _passes(flow, wps, floor.caps)
    _dials(flow, wps, floor.works)
    if proposed := proposed_sentences(wps):
        flow.text(f"Only proposed, confirmed by nobody: {' '.join(proposed)}", role="print_strong")
    if words := outdated_words(wps):
        flow.text(words, role="print_strong")
    after = [path for path in AFTER_LEAVES if leaf_at(wps, path) is not None]
    _facts(flow, "Technique and temperature", [(path, wps) for path in (*TECHNIQUE_LEAVES, *after)])
    set_heat(flow, wps, floor.waits)
    flow.heading("Proof")
    if floor.amiss:
        flow.text("Of its heat, cap and root, by the schools and the construction code of the job:")
    for verdict, word, why in floor.amiss:
        flow.text(f"{word}: {verdict}. {why}", indent_mm=4.0)
    _proof(flow, wps, proof)
    _cautions(flow)
    _signatures(flow)
    foot = f"{wps.header.number or 'no number'}   {standing.words()}   SHA-256 {standing.sha256[:16]}…"
    return flow.pages(foot)


def _groups(flow: Flow, wps: Wps) -> None:
    """Set what the base metals are to the codes."""
    sides = [each for each in (wps.metals.one, wps.metals.other) if each is not None]
    for each in sides:
        if words := metal_words(each):
            flow.text(f"{each.name or 'as stated'}: {words}", height_mm=NOTE_MM)


RANGE_LEAVES = (
    "metals/one/name", "metals/other/name", "range/thickness_mm", "range/thicker_member_mm", "range/diameter_mm",
    "header/weld", "header/impact", "header/hardness", "header/loading", "header/strength",
    "header/weld_class",
)  # fmt: skip


def both(interval: Interval, kind: str, first: System = "si") -> str:
    """Return an interval in both unit systems, that of the case before the other, once where they are the same."""
    one, other = (show_interval(interval, kind, system, unit_table()) for system in ORDER[first])
    return one if one == other else f"{one} ({other})"


def _said(wps: Wps, path: str) -> str:
    """Return what a leaf states, in both systems with units, that of the case first, as a word, or a dash."""
    text, field = shown(wps, path, "si"), field_of(path)
    if not text:
        return NONE
    if not field.kind:
        return field.say(text)
    one, other = (f"{shown(wps, path, system)} {field.unit(system)}" for system in ORDER[wps.header.units])
    return one if one == other else f"{one} ({other})"


def _head(flow: Flow, wps: Wps, standing: Standing) -> None:
    header = wps.header
    flow.text("Welding procedure specification", height_mm=NOTE_MM, role="print_muted")
    flow.text(f"{header.number or 'no number'}   {header.title}".strip(), height_mm=TITLE_MM, role="print_strong")
    flow.skip(1.5)
    flow.rule()
    column = "US" if header.units == "us" else "SI"
    named = " and ".join(field_of("header/code").say(each) for each in header.codes)
    code = f"{named}, limits in the {column} column" if named else "not stated"
    flow.pairs([
        ("State", standing.words()), ("Code", code),
        ("Job", header.application or NONE), ("SHA-256", f"{standing.sha256[:32]} {standing.sha256[32:]}"),
        *([("Link in the chain", f"{standing.link[:32]} {standing.link[32:]}")] if is_linked(standing) else ()),
    ])  # fmt: skip
    if standing.change:
        flow.text(f"What changed: {standing.change}")
    if standing.reason:
        flow.text(f"Issued although not everything is inside: {standing.reason}", role="print_strong")


def is_linked(standing: Standing) -> bool:
    """Return whether what is printed can be proved by the chain: a revision as issued, and of a file that has one."""
    return standing.is_issued and bool(standing.link)


def _joint(flow: Flow, wps: Wps, caps: CapLimit | None) -> None:
    flow.heading("Joint")
    sketch = drawable(wps.joint)
    if sketch is None or sketch.incomplete:
        why = "cannot be as stated" if clashes(wps.joint) else "is not stated in full"
        flow.text(f"The joint {why}: it is not drawn.", role="print_muted")
    else:
        flow.room(PICTURE_MM[1] + 8)
        flow.skip(3.0)

        def say(value: float, kind: str) -> str:
            return show(value, kind, wps.header.units, unit_table())

        def make(scale: float) -> DisplayList:
            return section(sketch, scale=scale, show=say, measure=flow.measure, caps=caps)

        picture = fitted(make, *PICTURE_MM)
        flow.picture(picture, x_mm=MARGIN_MM)
        beside_mm = _beside(flow, wps)
        flow.skip(max((picture.high[1] - picture.low[1]) * picture.scale, beside_mm) + 3.0)
        _symbol(flow, wps)
    stated = dimensions_of(wps.joint.kind) if wps.joint.kind else ()
    rows = [(field_of(f"joint/{name}").label, _toleranced(wps, name)) for name in stated if getattr(wps.joint, name)]
    thick = [("Thickness", _said(wps, "joint/thickness_mm")), ("Outside diameter", _said(wps, "joint/od_mm"))]
    flow.pairs([*thick, *_pipe(wps), *rows, *_root(wps)])
    for each in root_advice(wps, wps.header.units):
        flow.text(each.text, height_mm=NOTE_MM, role="print_muted")
    _node(flow, wps)


def _pipe(wps: Wps) -> list[tuple[str, str]]:
    """Return the nominal size and schedule, while diameter and wall are its own."""
    name = true_pipe_name(wps.joint)
    return [("Pipe", name)] if name else []


def _root(wps: Wps) -> list[tuple[str, str]]:
    """Return how the root is to be welded, where it is stated."""
    paths = ("joint/root_style", "joint/detail", "joint/backing_form", "joint/backing_mm")
    found = [(field_of(path).label, _said(wps, path)) for path in paths if _said(wps, path) != NONE]
    names = {each.id: each.name for each in root_styles().styles.values()}
    return [(label, names.get(said, said)) for label, said in found]


def _node(flow: Flow, wps: Wps) -> None:
    """Set a node of tubes: its picture, every member in its weld order, and what is to be minded."""
    node = node_of(wps)
    if node is None:
        return
    flow.room(PICTURE_MM[1] + 22)  # the heading stays with its picture
    flow.heading("Node of tubes, in the order of its welds")
    picture = node_picture(wps, "", Sheet(*PICTURE_MM, wps.header.units, flow.measure))
    assert picture is not None, "the node can be made"
    flow.skip(3.0)
    flow.picture(picture, x_mm=MARGIN_MM)
    flow.skip((picture.high[1] - picture.low[1]) * picture.scale + 3.0)
    names = ("Diameter", "Wall", "Angle", "Turn", "Along the run", "Weld")
    columns = (Column("", 0.5), Column("Member", 1.8), *(Column(name, 2.0, numbers=True) for name in names))
    rows = []
    for number, each in enumerate(node.members, 1):
        tube = each.tube
        lengths = (tube.od_mm, tube.wall_mm, tube.along_mm, each.weld.length_mm)
        od, wall, along, weld = (both(Interval.single(value), "length", wps.header.units) for value in lengths)
        rows.append((str(number), each.name, od, wall, f"{tube.angle_deg:g}°", f"{tube.turn_deg:g}°", along, weld))
    flow.table(columns, rows)
    for sentence in node_sentences(wps, wps.header.units):
        flow.text(sentence, height_mm=NOTE_MM)


def _symbol(flow: Flow, wps: Wps) -> None:
    """Set the weld symbol under the section."""
    found = symbol_picture(wps, wps.header.units, flow.measure)
    assert found is not None, "the section was drawn"
    height = found.high[1] - found.low[1]
    flow.room(height + 8)
    flow.picture(found, x_mm=MARGIN_MM)
    whose = "ISO 2553, system A" if wps.header.units == "si" else "AWS A2.4"
    at = (MARGIN_MM + found.high[0] - found.low[0] + 6, flow.y - height / 2)
    flow.put(Text(role="print_muted", at=at, text=f"weld symbol after {whose}", height_mm=NOTE_MM, anchor="start"))
    flow.skip(height + 3.0)


def _bead_map(flow: Flow, wps: Wps, caps: CapLimit | None) -> None:
    """Set the bead map over the table of passes, with what its hatches mean and how far it fills the joint."""
    sketch = drawable(wps.joint)
    if sketch is None or sketch.incomplete or not wps.passes:
        return
    bare = bead_picture(wps, "", Sheet(*PICTURE_MM, wps.header.units, flow.measure), heated=False)
    picture = with_cap_limit(bare, wps, caps)
    if picture is None:
        flow.text(f"Over {MOST_BEADS} beads: they are not drawn.", role="print_muted")
        return
    flow.room(PICTURE_MM[1] + 8)
    flow.skip(3.0)
    flow.picture(picture, x_mm=MARGIN_MM)
    x, y = MARGIN_MM + PICTURE_MM[0] + 10, flow.y - 4.0
    names = dict.fromkeys(each.process for each in wps.deposits if each.process)
    texts = [f"{name}: {processes()[name].hatch}" if name in processes() else name for name in names]
    for notice in fill_notices(wps, wps.header.units):
        texts += broken(notice.text, 60.0, NOTE_MM, flow.measure)
    for text in texts:
        flow.put(Text(role="print", at=(x, y), text=text, height_mm=NOTE_MM, anchor="start"))
        y -= 4.2
    flow.skip(max((picture.high[1] - picture.low[1]) * picture.scale, flow.y - y) + 3.0)


def _beside(flow: Flow, wps: Wps) -> float:
    """Set the figures of the joint to the right of its section; return how far down they reach [mm]."""
    x, y = MARGIN_MM + PICTURE_MM[0] + 10, flow.y - 4.0
    one, other = ORDER[wps.header.units]
    for figure, again in zip(joint_figures(wps, one), joint_figures(wps, other), strict=True):
        same = figure.text == again.text
        name = figure.name if figure.name == again.name else f"{figure.name} ({again.name.rpartition(', ')[2]})"
        said = figure.text if same else f"{figure.text} ({again.text})"
        for text, role in ((name, "print_muted"), (said, "print")):
            flow.put(Text(role=role, at=(x, y), text=text, height_mm=2.3, anchor="start"))
            y -= 4.8
        y -= 1.6
    return flow.y - y


def _toleranced(wps: Wps, name: str) -> str:
    dimension, kind = getattr(wps.joint, name), field_of(f"joint/{name}").kind
    nominal = both(Interval.single(dimension.nominal), kind, wps.header.units)
    return nominal if dimension.span.is_single else f"{nominal}, from {both(dimension.span, kind, wps.header.units)}"


def _facts(flow: Flow, title: str, leaves: list[tuple[str, Wps]]) -> None:
    flow.heading(title)
    flow.pairs([(field_of(path).label, _said(wps, path)) for path, wps in leaves])


def _deposit(flow: Flow, wps: Wps, deposit: Deposit) -> None:
    flow.heading(f"Deposit: {deposit.process or 'process not stated'} {deposit.filler or ''}".strip())
    stated = [f"deposits/{deposit.id}/{name}" for name in DEPOSIT_LEAVES if getattr(deposit, name) is not None]
    if numbers := deposit_words(deposit.process, deposit.filler, deposit.shielding_gas):
        flow.text(f"{deposit.filler or deposit.process}: {numbers}", height_mm=NOTE_MM)
    if stated:
        flow.pairs([(field_of(path).label, _said(wps, path)) for path in stated])
    else:
        flow.text("Nothing is stated.", role="print_muted")


def _passes(flow: Flow, wps: Wps, caps: CapLimit | None) -> None:
    flow.heading("Passes")
    _bead_map(flow, wps, caps)
    fed = any(each.wire_speed_mm_min for each in wps.passes)  # a wire is set by its feed
    columns = (
        Column("", 0.5), Column("Pass", 0.9), Column("Deposit", 2.0), Column("A", 1.2, numbers=True),
        Column("V", 1.0, numbers=True), *([Column("Wire speed", 2.6, numbers=True)] if fed else ()),
        Column("Travel speed", 2.6, numbers=True), Column("Arc energy U·I/v", 3.0, numbers=True),
        Column("Thickness", 2.2, numbers=True),
    )  # fmt: skip
    rows, first = [], wps.header.units
    for number, each in enumerate(wps.passes, 1):
        energy, home = pass_energy(each), deposit_of_pass(wps, each)

        def said(leaf: str, owner: str = each.id) -> str:
            return shown(wps, f"passes/{owner}/{leaf}", "si") or NONE

        rows.append((
            str(number), _what(each), f"{home.process or ''} {home.filler or ''}".strip(), said("current_a"),
            said("voltage_v"),
            *([both(each.wire_speed_mm_min, "speed", first) if each.wire_speed_mm_min else NONE] if fed else ()),
            both(each.travel_speed_mm_min, "speed", first) if each.travel_speed_mm_min else NONE,
            both(energy.interval, "heat_input", first) if energy else NONE,
            both(each.thickness_mm, "length", first) if each.thickness_mm else NONE,
        ))  # fmt: skip
    flow.table(columns, rows)
    flow.text(
        "Arc energy over the whole stated range, without thermal efficiency.", height_mm=NOTE_MM, role="print_muted"
    )
    for sentence in size_sentences(wps, first):
        flow.text(sentence, height_mm=NOTE_MM)
    for number, each in enumerate(wps.passes, 1):
        for sentence in transfer_sentences(wps, each, first):
            flow.text(f"Pass {number}: {sentence}", height_mm=NOTE_MM)
    _tacks(flow, wps)
    _sectors(flow, wps)
    _seam(flow, wps)


SEAM_LEAVES = ("seam/stop_rule", "seam/stagger_mm", "seam/marks", "seam/metal_removal", "seam/tacks", "seam/welders")


def _seam(flow: Flow, wps: Wps) -> None:
    """Set where electrodes may start and stop, and where nobody goes on until someone has signed."""
    rows = [(field_of(path).label, _said(wps, path)) for path in SEAM_LEAVES if _said(wps, path) != NONE]
    rows += [(f"Marked stops of pass {n}", each.marks) for n, each in enumerate(wps.passes, 1) if each.marks]
    if rows:
        flow.heading("Starts and stops")
        flow.pairs(rows)
    if changes := change_overs(wps, wps.header.units):
        flow.heading("Change-overs")
        for change in changes:
            flow.text(change.text)
    if wps.hold_points:
        flow.heading("Hold points")
        numbers = {each.id: n for n, each in enumerate(wps.passes, 1)}
        for each in wps.hold_points:
            where = f"before pass {numbers[each.before]}" if each.before in numbers else "at the end"
            flow.pairs([(f"{each.what or 'Hold'}, {where}", "signed: ____________________")], columns=1)


def _what(each: Pass) -> str:
    """Return what a pass is, and where it is laid when it does not go all the way."""
    return ", ".join(filter(None, (each.role, each.reach))) or NONE


def _tacks(flow: Flow, wps: Wps) -> None:
    if not wps.tacks:
        return
    flow.heading("Tacks")
    columns = (Column("At", 2.0), Column("Length", 2.0, numbers=True), Column("Kind", 1.4), Column("First end", 1.4),
               Column("Second end", 1.4))  # fmt: skip
    leaves = ("place", "length_mm", "form", "first_end", "second_end")
    flow.table(columns, [tuple(_said(wps, f"tacks/{each.id}/{leaf}") for leaf in leaves) for each in wps.tacks])
    for sentence in tack_sentences(wps, "si"):
        flow.text(sentence, height_mm=NOTE_MM)


def _sectors(flow: Flow, wps: Wps) -> None:
    """Set the settings by sector."""
    numbers = {each.id: n for n, each in enumerate(wps.passes, 1)}
    rows = []
    for sector in wps.sectors:
        stated = [_said(wps, f"sectors/{sector.id}/{leaf}") for leaf in SETTINGS]
        rows.append((str(numbers[sector.of]), sector.reach or NONE, *stated, sector.technique or NONE))
    if rows:
        flow.heading("Settings by sector")
        columns = (Column("", 0.5), Column("Sector", 2.0), Column("Current", 1.4), Column("Voltage", 1.4),
                   Column("Travel speed", 2.6), Column("Technique", 2.6))  # fmt: skip
        flow.table(columns, rows)


def _dials(flow: Flow, wps: Wps, works: Calibrated) -> None:
    """Set where the machines are set for each pass; nothing where nobody keeps their readings."""
    named = any(each.machine for each in wps.deposits)
    if not (works.machines or wps.readings or named) or not wps.passes:
        return
    flow.heading(f"Dials, by what is in date on {works.today}" if works.today else "Dials")
    for line in (*dial_lines(wps, works), *superseded_sentences(wps, works), *meter_sentences(wps, works)):
        flow.text(line, height_mm=NOTE_MM)


def _proof(flow: Flow, wps: Wps, proof: Assessment) -> None:
    if proof.missing:
        flow.text(f"Not judged: {proof.missing}.", role="print_strong")
    if proof.judgement is None:
        return
    counts = proof.judgement.counts()
    supports = "; ".join(support_sentences(wps, proof))
    counted = ", ".join(f"{count} {verdict}" for verdict, count in counts.items())
    flow.text(f"{counted}. {supports[:1].upper()}{supports[1:]}.")
    ladder = lines(wps, proof, wps.header.units)
    for line in ladder:
        if line.is_problem:
            clause = f" ({told})" if (told := clause_of(line)) else ""
            flow.text(f"{line.title}: {line.rung.verdict}. {line.reason}{clause}", indent_mm=4.0)
    doubtful = sorted({clause_of(line) for line in ladder if line.rung.confidence != "H"})
    doubt = f" Less sure than the others: {', '.join(doubtful)}." if doubtful else ""
    flow.text(f"{_checks_said(proof.judgement.rungs)}{doubt}", role="print_muted")
    for rule in used(proof.judgement.rungs):
        for sentence in overlay_sentences((rule,)):
            flow.text(f"{rule.clause}, {rule.title}, is not as shipped. {sentence}.", indent_mm=4.0)
    for pack in (each.pack for each in proof.by_code if each.pack is not None and each.pack.papers):
        flow.text(f"The packet of {pack.name} holds: {'; '.join(pack.papers)}.", indent_mm=4.0)
    flow.text("Assumed: weld metal of 7.85 g/cm³, cap as a parabola over the face.", role="print_muted")


def _checks_said(rungs: Sequence[Rung]) -> str:
    """Return how many of the rules used somebody checked, and the clauses of the others."""
    every, left = used(rungs), unchecked(rungs)
    if not left:
        return f"All {len(every)} rules used were compared with an owned copy of the code."
    if len(left) == len(every):
        return f"None of the {len(every)} rules used was compared with an owned copy of the code."
    clauses = "; ".join(sorted({rule.clause for rule in left}))
    return f"{len(left)} of the {len(every)} rules used were not compared with an owned copy of the code: {clauses}."


def _cautions(flow: Flow) -> None:
    table = rtoml.loads(text_of("cautions.toml"))
    flow.heading("Cautions")
    for caution in table["always"]:
        flow.text(caution, height_mm=NOTE_MM)
    flow.skip(1.0)
    flow.text(table["defers"], height_mm=NOTE_MM, role="print_strong")


def _signatures(flow: Flow) -> None:
    """Leave lines to sign on: a name that was typed is no signature."""
    flow.room(44.0)
    for role in ("Prepared", "Reviewed", "Approved"):
        flow.skip(7.0)
        flow.pairs([(role, "______________________________"), ("Date", "__________________")])
