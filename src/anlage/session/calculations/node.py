"""`anlage calc node`: a node of tubes, the weld of every member in its order."""

from collections.abc import Iterator
from functools import partial
from typing import Any

from anlage.core.errors import InputError
from anlage.core.joint import RUN, STEEL_G_CM3, Tube, TubeWeld, node_faults, tube_welds, weld_order
from anlage.core.quantities import parse
from anlage.core.results import Source
from anlage.data.tables import unit_table
from anlage.session.keyed.answer import Answer, number, shown_single
from anlage.session.keyed.arguments import Arguments

KEYS = ("run_od", "od", "wall", "angle", "turn", "along", "leg", "order")
LISTED = {"od": "length", "wall": "length", "angle": "angle", "turn": "angle", "along": "length"}
ORDERS = ("square", "listed")


def answer(arguments: Arguments) -> Answer:
    """Answer `calc node`."""
    arguments.need("run_od", "od", "wall", "leg")
    run, leg = arguments.single("run_od", "length"), arguments.single("leg", "length")
    tubes = _tubes(arguments)
    for fault in node_faults(run, tubes):
        raise fault
    order = arguments.text("order") if "order" in arguments else "square"
    if order not in ORDERS:
        raise InputError(f"{order} is no order", where="order", mend=f"take one of {', '.join(ORDERS)}")
    places = weld_order(tubes) if order == "square" else tuple(range(len(tubes)))
    welds = tube_welds(run, tuple(tubes[n] for n in places))
    members = [_member(n, weld, places, leg) for n, weld in zip(places, welds, strict=True)]
    lines = [line for member in members for line in _lines(member)]
    whole = sum(weld.length_mm for weld in welds)
    mass = sum(weld.volume_mm3(leg) for weld in welds) * STEEL_G_CM3 * 1e-6
    lines += [("all welds", shown_single(whole, "length")), ("weld metal", f"{mass:.3f} kg")]
    sources = [
        Source("length_mm", "geometry: where the outsides of the tubes meet", "H"),
        Source("weld order", "squarest first, those leaning tie into it (common practice, no source)", "M"),
        Source("weld_metal_kg", "fillets of equal legs without convexity; steel 7.85 g/cm³", "H"),
    ]
    return Answer(
        {"members": members, "length_mm": number(whole), "weld_metal_kg": number(mass)}, lines, sources
    )  # fmt: skip


def _tubes(arguments: Arguments) -> list[Tube]:
    count = max(len(arguments.text(key).split(",")) for key in LISTED if key in arguments)
    columns = {key: arguments.each(key, count, partial(_one, key=key), what="members") for key in LISTED}
    return [
        Tube(
            od_mm=od or 0.0, wall_mm=wall or 0.0, angle_deg=90.0 if angle is None else angle, turn_deg=turn or 0.0,
            along_mm=along or 0.0,
        )
        for od, wall, angle, turn, along in zip(*columns.values(), strict=True)
    ]  # fmt: skip


def _member(n: int, weld: TubeWeld, places: tuple[int, ...], leg_mm: float) -> dict[str, Any]:
    """Return what the answer says of the weld of one member."""
    return {
        "member": n + 1, "length_mm": number(weld.length_mm),
        "onto_mm": {_name(k, places, RUN): number(length) for k, length in weld.onto_mm.items()},
        "hidden_mm": {_name(k, places, RUN): number(length) for k, length in weld.hidden_mm.items()},
        "dihedral_deg": [number(end) for end in weld.dihedral_deg],
        "weld_metal_kg": number(weld.volume_mm3(leg_mm) * STEEL_G_CM3 * 1e-6),
    }  # fmt: skip


def _lines(member: dict[str, Any]) -> Iterator[tuple[str, str]]:
    """Yield the lines of the table for one member: its length, on what, and what of it has to be welded first."""
    on = ", ".join(f"{shown_single(length or 0.0, 'length')} on {name}" for name, length in member["onto_mm"].items())
    yield f"member {member['member']}", f"{shown_single(member['length_mm'], 'length')}: {on}"
    for name, length in member["hidden_mm"].items():
        yield f"  under {name}", f"{shown_single(length or 0.0, 'length')}, weld it first"


def _one(text: str, key: str) -> float:
    found = parse(text, LISTED[key], unit_table(), where=key)
    if not found.is_single:
        raise InputError(f"{text} is a range", where=key, mend="state one value for each member")
    return found.low


def _name(place: int, places: tuple[int, ...], run: int) -> str:
    return "the run" if place == run else f"member {places[place] + 1}"
