"""Speed, as ratios measured in one run on one machine: against a 60 Hz frame, and against a start of Python.

Absolute times change from machine to machine and hour to hour; what is printed is what a change can move.
"""

import json
import os
import statistics
import subprocess
import sys
import time
import tomllib
from collections.abc import Callable
from typing import Any

from msgspec.structs import replace

from anlage.core.beads import Laid, Layout, layout
from anlage.core.codes import (
    Coupon,
    Demand,
    Stated,
    StatedDeposit,
    StatedPass,
    cover_box,
    read_pack,
)
from anlage.core.document import Dimension, read_strict, with_at, write
from anlage.core.heat import arc_energy, over_range
from anlage.core.joint import Preparation, joint_metal, shape_of
from anlage.core.procedure import Joint, Wps, with_deposit, with_pass
from anlage.core.ranges import Interval, Numbers, between, choices
from anlage.data.code_packs import code_pack, pack_names
from anlage.data.files import FOLDER
from anlage.data.installed_codes import code_folders, pack_files
from anlage.session.heat.cooling import cooling_view
from anlage.session.heat.cooling_picture import cooling_picture
from anlage.session.heat.preheat import preheat_view
from anlage.session.heat.preheat_curves import preheat_curves
from anlage.session.heat.purging import purge_plan
from anlage.session.judging.assessment import Assessor
from anlage.session.judging.boxes import BoxKeeper, Record
from anlage.session.judging.records import coupon_of
from anlage.session.kinds import PROCEDURE, RECORD, Kind
from anlage.session.metals.together import together
from anlage.session.planner.candidates import candidates
from anlage.session.planner.joints import joints_of
from anlage.session.planner.plan import Planning, planned
from anlage.session.proposal.fill import filled
from anlage.session.weld.picture_sheet import Sheet
from anlage.session.works.clerk import Clerk
from anlage.session.works.filed import Filed
from anlage.session.works.register import Standpoint
from anlage.store import Draft, Entry

FRAME_S = 1 / 60
DOCUMENTS, JOINTS = 1000, 200
EDITS, PASSES, RECORDS, STARTS = 200, 40, 20, 9
REAL_CODES = ("asme-ix", "aws-d1.1", "api-1104", "iso-15614-1-l1", "iso-15614-1-l2")
SETTINGS = ("current_a", "voltage_v", "travel_speed_mm_min")
LIBRARIES, AGAINST = "import argparse, json, tomllib", "start with argparse, json, tomllib"
ADDRESSED = ("joint_type", "backing", "root_opening_mm", "position", "gas_flow_l_min", "amps", "tungsten", "cleaning",
             "backing_gas", "trailing_gas", "waveform", "retainers", "consumable_insert", "penetration_flux",
             "preheat_maintenance", "pulsing", "bead_technique", "cup_size", "back_gouging", "peening")  # fmt: skip


def record(number: int) -> Record:
    """Return one of the records: a coupon of GTAW root and SMAW fill, each a little thicker than the last."""
    thickness = 8.0 + 2 * number
    joint = {
        "base_metal_thickness_mm": thickness, "p_number": "1+1", "p_numbers": frozenset("1"),
        "group_number": f"1-{1 + number % 2}+1-{1 + number % 2}", "pwht": "none", "preheat_c": 60.0 + 5 * number,
        "interpass_c": 180.0 + 5 * number, "progression": "uphill", "bead_technique": "stringer", "runs": "multi",
        "coupon_weld": "groove", "heat_input_measure": "energy",
    }  # fmt: skip
    shared = {"filler_present": "with", "a_number": "1", "pass_thickness_mm": 3.0, "operation": "manual"}
    heat = 1.5 + number / 20
    root = {"process": "GTAW", "deposit_thickness_mm": 4.0, "f_number": "6", "filler_classification": "ER70S-2",
            "product_form": "bare", "shielding_gas": "Ar", "current_type": "DCEN", "heat_input_kj_mm": 1.4}  # fmt: skip
    fill = {"process": "SMAW", "deposit_thickness_mm": thickness - 4, "f_number": "4", "filler_diameter_mm": 3.2,
            "filler_classification": "E7018", "current_type": "DCEP", "heat_input_kj_mm": heat}  # fmt: skip
    deposits = ({**shared, **root}, {**shared, **fill})
    coupon = Coupon(name=f"PQR-{number}", joint=joint, deposits=deposits, toughness_tested=True)
    return Record(f"PQR-{number}@1", coupon)


def energy_of(volts: Interval, amps: Interval, speed_mm_min: Interval) -> Numbers:
    """Return the arc energy of a pass over its whole stated range, as a set."""
    speed = Interval(speed_mm_min.low / 60, speed_mm_min.high / 60)
    return Numbers((over_range(arc_energy, rising={"volts": volts, "amps": amps}, falling={"speed": speed}).interval,))


def wps(edit: int) -> Stated:
    """Return the whole WPS as after an edit: joint, all 40 passes' energy, and what else it states."""
    joint_metal(Preparation(kind="single-v", thickness_mm=14, root_opening_mm=3, root_face_mm=1, groove_angle_deg=60))
    passes = [
        StatedPass(f"pass-{n}", {
            "heat_input_kj_mm": energy_of(Interval(22, 25), Interval(100, 120 + edit % 7), Interval(90 + n, 150 + n)),
            "pass_thickness_mm": between(2, 3),
        })
        for n in range(PASSES)
    ]  # fmt: skip
    shared = {"filler_present": choices("with"), "a_number": choices("1"), "operation": choices("manual")}
    root = {
        "f_number": choices("6"),
        "filler_classification": choices("ER70S-2"),
        "product_form": choices("bare"),
        "shielding_gas": choices("Ar"),
        "current_type": choices("DCEN"),
        "deposit_thickness_mm": between(0, 4),
    }
    fill = {"f_number": choices("4"), "filler_classification": choices("E7018"), "current_type": choices("DCEP"),
            "filler_diameter_mm": between(2.4, 3.2), "deposit_thickness_mm": between(0, 12)}  # fmt: skip
    joint = {name: choices("stated") for name in ADDRESSED} | {
        "base_metal_thickness_mm": between(6, 14 + edit % 5), "thicker_member_mm": between(6, 14),
        "p_number": choices("1+1"), "group_number": choices("1-1+1-2"), "pwht": choices("none"),
        "preheat_c": between(50, 200), "interpass_c": between(50, 220), "weld": choices("groove"),
        "progression": choices("uphill"), "runs": choices("multi"),
    }  # fmt: skip
    deposits = (
        StatedDeposit("GTAW", {**shared, **root}, tuple(passes[:4])),
        StatedDeposit("SMAW", {**shared, **fill}, tuple(passes[4:])),
    )
    return Stated(joint, deposits)


BEADS = 120


def double_u(edit: int) -> Preparation:
    """Return a heavy double-U, one of its dimensions dragged on by every edit."""
    return Preparation(
        kind="double-u", thickness_mm=80.0, root_opening_mm=2.0 + 0.01 * edit, root_face_mm=3.0,
        groove_angle_deg=20.0, radius_mm=6.0, reinforcement_mm=2.0,
    )  # fmt: skip


def laid_out(edit: int, count: int = BEADS) -> Layout:
    """Return the beads of the double-U after an edit: shape and layout anew, beads by turns on both sides."""
    joint = double_u(edit)
    area = joint_metal(joint).whole_area_mm2 / count
    beads = [Laid(key=str(n), area_mm2=area, side=1 + (n // 10) % 2) for n in range(count)]
    return layout(shape_of(joint), beads)


def bead_report() -> None:
    """Measure the layout against a frame, against the same unions by shapely, and how it grows with the beads."""
    import shapely

    frames(laid_out)
    median, most = frames(laid_out)
    report(f"{BEADS}-bead double-U laid out while a dimension is dragged, median", median, "60 Hz frame")
    report("the same, 95 of 100 edits within", most, "60 Hz frame")
    outlines = [bead.outline for bead in laid_out(0).beads]
    union, _ = frames(lambda _: shapely.union_all([shapely.Polygon(outline) for outline in outlines]))
    report("the same against shapely uniting the same beads", median / union, "shapely's union")
    twice, _ = frames(lambda edit: laid_out(edit, 2 * BEADS))
    report("twice as many beads", twice / median, "120 beads")


def proposed(edit: int) -> Wps:
    """Return a 40 mm double-V with its opening dragged on by every edit, filled by one electrode."""
    wps = Wps(joint=Joint(kind="double-v", product="plate", thickness_mm=40.0))
    stated = {"root_opening_mm": 3.0 + 0.01 * edit, "root_face_mm": 2.0, "groove_angle_deg": 60.0,
              "second_depth_mm": 19.0, "reinforcement_mm": 2.0}  # fmt: skip
    for name, value in stated.items():
        wps = with_at(wps, f"joint/{name}", Dimension(nominal=value))
    wps, _ = with_deposit(wps, process="SMAW", filler="E7018", filler_diameter_mm=(3.2, 3.2))
    return filled(wps)


def proposal_report() -> None:
    """Measure a full proposal: beads, settings, marks."""
    passes = len(proposed(0).passes)
    median, most = frames(proposed)
    report(f"full proposal for a 40 mm double-V, {passes} passes, median", median, "60 Hz frame")
    report("the same, 95 of 100 within", most, "60 Hz frame")


def closed_form_report() -> None:
    """Measure every closed form of heat and metals after an edit of a pass: what both places show, curves with it."""
    demo = read_strict((FOLDER / "demo" / "OST-W-01.json").read_text(encoding="utf-8"), PROCEDURE.core)
    passes = tuple(
        replace(demo.passes[n % len(demo.passes)], id=f"p{n + 1}") for n in range(PASSES)
    )  # fmt: skip
    long = replace(demo, passes=passes, ids=PASSES + demo.ids)
    sheet = Sheet(150.0, 100.0, "si", lambda text, height: 0.5 * height * len(text))

    def edited(edit: int) -> None:
        last = replace(passes[-1], travel_speed_mm_min=Interval(60.0, 80.0 + 0.1 * edit))
        after = replace(long, passes=(*passes[:-1], last))
        preheat_view(after)
        for over in ("length", "heat_input"):
            preheat_curves(after, over, sheet)
        cooling_view(after)
        cooling_picture(after, sheet)
        together(after)
        purge_plan(after)

    median, most = frames(edited)
    report(f"preheat, cooling, metals and purge of a {PASSES}-pass WPS, median", median, "60 Hz frame")
    report("the same, 95 of 100 edits within", most, "60 Hz frame")


def many_documents(count: int) -> tuple[list[Filed], list[str], list[str]]:
    """Return so many procedures and records, each a little other than the last, with the ids of both."""
    filed, ids = [], {kind.id: [] for kind in (PROCEDURE, RECORD)}
    texts = [path.read_text(encoding="utf-8") for path in sorted((FOLDER / "demo").glob("*.json"))]
    for kind in (PROCEDURE, RECORD):
        models = [read_strict(text, kind.core) for text in texts if json.loads(text)["format"] == kind.format]
        for number in range(count):
            model = models[number % len(models)]
            other = with_at(model, "joint/thickness_mm", (model.joint.thickness_mm or 10.0) * (0.8 + number % 97 / 200))
            entry = Entry(f"{kind.id}{number}", kind.format, f"{kind.letter}-{number}", "", 0, deleted=False)
            filed.append(Filed(entry, Draft(write(other), {})))
            ids[kind.id].append(entry.id)
    return filed, ids["wps"], ids["pqr"]


def register_report() -> None:
    """Measure the judging of a whole Register against one procedure checked against twenty records."""
    filed, procedures, records = many_documents(DOCUMENTS)
    some = [each for each in filed if each.entry.id in {procedures[0], *records[:RECORDS]}]

    def judged(documents: list[Filed], ids: list[str]) -> float:
        clerk, start = Clerk(), time.perf_counter()
        clerk.take(documents, [each.entry.id for each in documents], {})
        clerk.rows(ids, Standpoint("si", "2026-11-23"))
        return time.perf_counter() - start

    judged(some, procedures[:1])  # loads the pack
    one = statistics.median(judged(some, procedures[:1]) for _ in range(STARTS))
    what = f"Register of {DOCUMENTS} procedures and {DOCUMENTS} records judged for the first time"
    report(what, judged(filed, [*procedures, *records]) / one, f"one procedure by {RECORDS} records")


def demo(number: str, kind: Kind) -> Any:
    """Return a document of the demo."""
    return read_strict((FOLDER / "demo" / f"{number}.json").read_text(encoding="utf-8"), kind.core)


def five_codes() -> tuple[Assessor, Wps]:
    """Return a procedure of many passes and who judges it by any of five codes, with as many records of each."""
    seam = demo("OST-W-11", PROCEDURE)
    while len(seam.passes) < PASSES:
        last = seam.passes[-1]
        named = {name: getattr(last, name) for name in SETTINGS}
        seam, _ = with_pass(seam, seam.deposits[0].id, role="cap", side="second", layer="beside", **named)
    own = with_at(demo("OST-R-05", RECORD), "header/codes", REAL_CODES)
    records = [with_at(with_at(own, "header/number", f"R-{n}"), "preheat_least_c", 90.0 + n) for n in range(RECORDS)]
    return Assessor([(str(n), each) for n, each in enumerate(records)]), seam


def pack_report() -> None:
    """Measure how long a pack takes to be read against its bare text, and a procedure by several codes at once."""
    files = pack_files(code_folders()["asme-ix"])
    read_pack(files, names=pack_names())
    rounds = [(timed(lambda: [tomllib.loads(text) for text in files.values()]),
               timed(lambda: read_pack(files, names=pack_names()))) for _ in range(STARTS)]  # fmt: skip
    bare, whole = (statistics.median(times) for times in zip(*rounds, strict=True))
    report(
        f"one pack of {len(code_pack('asme-ix').rules)} rules read and checked",
        whole / bare,
        "tomllib.loads of its files",
    )
    judge, seam = five_codes()
    seam = with_at(seam, "header/codes", REAL_CODES)
    first = seam.passes[0].id

    def edited(edit: int) -> None:
        judge.assess(with_at(seam, f"passes/{first}/current_a", Interval(235.0, 265.0 + edit)))

    edited(0)
    median, most = frames(edited)
    what = (
        f"edit of a {PASSES}-pass WPS, {len(REAL_CODES)} codes, {RECORDS} records of each, from the document on, median"
    )
    report(what, median, "60 Hz frame")
    report("the same, 95 of 100 edits within", most, "60 Hz frame")


def planner_report() -> None:
    """Measure a plan over many joints against one box."""
    metals, wall = ("A516-70", "A106-B", "A240-304L", "P355GH"), ((3, 6), (5, 12), (10, 25), (20, 60), (8, 40))
    joints = joints_of([
        {"name": f"J{n}", "base": metals[n % 4], "product": "plate", "position": "1G", "filler": "ER308L",
         "process": "GTAW", "thickness": f"{wall[n % 5][0] + n % 7}..{wall[n % 5][1] + 7 + n % 11}mm", "impact": "no"}
        for n in range(JOINTS)
    ])  # fmt: skip
    pack = code_pack("asme-ix")
    first = next(candidates(joints, pack))
    coupon = coupon_of(first.pqr, pack)
    box = min(timed(lambda: cover_box(pack, coupon, Demand())) for _ in range(STARTS))
    seconds = timed(lambda: planned(joints, Planning(pack=pack)))
    report(f"coupons planned for {JOINTS} joints, candidates and least cover", seconds / box, "one box built")


def timed(work: Callable[[], object]) -> float:
    """Return how long something takes [s]."""
    start = time.perf_counter()
    work()
    return time.perf_counter() - start


def frames(work: Callable[[int], object]) -> tuple[float, float]:
    """Return the median and the 95th of 100 of `work`, in frames."""
    times = []
    for edit in range(EDITS):
        start = time.perf_counter()
        work(edit)
        times.append(time.perf_counter() - start)
    times.sort()
    return statistics.median(times) / FRAME_S, times[int(0.95 * EDITS)] / FRAME_S


def start_s(words: list[str]) -> float:
    """Return how long a process of this Python takes from start to end."""
    start = time.perf_counter()
    subprocess.run([sys.executable, *words], check=True, capture_output=True)
    return time.perf_counter() - start


def report(what: str, ratio: float, against: str) -> None:
    """Print one line."""
    print(f"{what:<66} {ratio:6.2f} × {against}")


def main() -> None:
    """Measure and print."""
    os.environ.pop("PYTHONDONTWRITEBYTECODE", None)  # caches of compiled Python are kept as on any machine in use
    pack, demand = code_pack("asme-ix"), Demand(impact=True)
    records = [record(number) for number in range(RECORDS)]
    kept = BoxKeeper(pack)
    median, most = frames(lambda edit: kept.judge(wps(edit), records, demand))
    report(f"edit of a {PASSES}-pass WPS, one pack, {RECORDS} records, boxes kept, median", median, "60 Hz frame")
    report("the same, 95 of 100 edits within", most, "60 Hz frame")
    median, most = frames(lambda edit: BoxKeeper(pack).judge(wps(edit), records, demand))
    report("the same with all boxes rebuilt, median", median, "60 Hz frame")
    report("the same, 95 of 100 edits within", most, "60 Hz frame")
    median, _ = frames(lambda edit: cover_box(pack, records[edit % RECORDS].coupon, demand))
    report("one box rebuilt (a record edited), median", median, "60 Hz frame")
    pack_report()
    planner_report()
    bead_report()
    proposal_report()
    closed_form_report()
    register_report()
    calc = ["-m", "anlage", "calc", "heat-input", "process=SMAW", "volts=22..26", "amps=110", "speed=4..6in/min"]
    coupon = ["-m", "anlage", "coupon", "--code", "asme-ix", "process=SMAW", "thickness=14mm"]
    rounds = [(start_s(["-c", LIBRARIES]), start_s(calc), start_s(coupon)) for _ in range(STARTS)]
    bare, calc_s, coupon_s = (statistics.median(times) for times in zip(*rounds, strict=True))
    report(f"anlage calc heat-input, medians of {STARTS} interleaved starts", calc_s / bare, AGAINST)
    report("anlage coupon, the same", coupon_s / bare, AGAINST)


if __name__ == "__main__":
    main()
