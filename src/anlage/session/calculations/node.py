"""`anlage calc node`: a node of tubes, the weld of every member in its order."""

from functools import partial
from typing import Any

from anlage.core.errors import InputError
from anlage.core.joint import RUN, STEEL_G_CM3, Tube, node_faults, tube_welds, weld_order
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
    count = max(len(arguments.text(key).split(",")) for key in LISTED if key in arguments)
    columns = {key: arguments.each(key, count, partial(_one, key=key), what="members") for key in LISTED}
    tubes = [
        Tube(
            od_mm=od or 0.0, wall_mm=wall or 0.0, angle_deg=90.0 if angle is None else angle, turn_deg=turn or 0.0,
            along_mm=along or 0.0,
        )
        for od, wall, angle, turn, along in zip(*columns.values(), strict=True)
    ]  # fmt: skip
    for fault in node_faults(run, tubes):
        raise fault
    order = arguments.text("order") if "order" in arguments else "square"
    if order not in ORDERS:
        raise InputError(f"{order} is no order", where="order", mend=f"take one of {', '.join(ORDERS)}")
    places = weld_order(tubes) if order == "square" else tuple(range(count))
    welds = tube_welds(run, tuple(tubes[n] for n in places))
    members: list[dict[str, Any]] = []
    lines = []
    for n, weld in zip(places, welds, strict=True):
        onto = {_name(k, places, RUN): number(length) for k, length in weld.onto_mm.items()}
        hidden = {_name(k, places, RUN): number(length) for k, length in weld.hidden_mm.items()}
        metal = weld.volume_mm3(leg) * STEEL_G_CM3 * 1e-6
        members.append({
            "member": n + 1, "length_mm": number(weld.length_mm), "onto_mm": onto, "hidden_mm": hidden,
            "dihedral_deg": [number(end) for end in weld.dihedral_deg], "weld_metal_kg": number(metal),
        })  # fmt: skip
        on = ", ".join(f"{shown_single(length or 0.0, 'length')} on {name}" for name, length in onto.items())
        lines.append((f"member {n + 1}", f"{shown_single(weld.length_mm, 'length')}: {on}"))
        lines += [
            (f"  under {name}", f"{shown_single(length or 0.0, 'length')}, weld it first")
            for name, length in hidden.items()
        ]
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


def _one(text: str, key: str) -> float:
    found = parse(text, LISTED[key], unit_table(), where=key)
    if not found.is_single:
        raise InputError(f"{text} is a range", where=key, mend="state one value for each member")
    return found.low


def _name(place: int, places: tuple[int, ...], run: int) -> str:
    return "the run" if place == run else f"member {places[place] + 1}"
