"""What the floor is told of temperatures: where they are read, with which crayons, why so hot, and how it is purged."""

from collections.abc import Iterator

from anlage.core.procedure import Wps
from anlage.core.quantities.units import System
from anlage.data.metal_tables import measuring
from anlage.session.heat.preheat_picture import crayon_sentence
from anlage.session.heat.purging import purge_plan

MM_PER_INCH = 25.4


def measuring_mm(wps: Wps) -> float:
    """Return how far from the groove edge a piece is read [mm]."""
    return measuring().from_groove_mm(wps.joint.thickness_mm or 0.0)


def reading_distance(wps: Wps, system: System) -> str:
    """Return how far from the groove edge a piece is read, as one reads it off a rule."""
    millimetres = measuring_mm(wps)
    return f"{millimetres:.0f} mm" if system == "si" else f"{millimetres / MM_PER_INCH:.1f} in"


def measuring_sentences(wps: Wps, system: System) -> tuple[str, ...]:
    """Return where the least and the most are read; nothing where neither or no thickness is stated."""
    least, most, thickness = wps.preheat.minimum_c, wps.preheat.interpass_maximum_c, wps.joint.thickness_mm
    if thickness is None or (least is None and most is None):
        return ()
    table, far = measuring(), reading_distance(wps, system)
    said = []
    if least is not None:
        place = "on the welder's side" if table.is_thin(thickness) else "or more, across from the heating"
        pause = f"{table.even_out_min(thickness):.1f} min after heating stops"
        said.append(f"Read the least {far} from the groove edge, {place}; on the heated face, {pause}.")
    if most is not None:
        said.append("Read the most right before each arc, on the hottest place beside the groove.")
    return tuple(said)


def heat_sentences(wps: Wps, system: System) -> Iterator[str]:
    """Yield what the floor is told of temperatures, on screen and on the sheet."""
    if crayons := crayon_sentence(wps, system):
        yield crayons
    yield from measuring_sentences(wps, system)


def purge_rows(wps: Wps) -> tuple[tuple[str, str], ...]:
    """Return the plan of a purge that is stated in part or in full, what is missing named; nothing where none is."""
    purge = wps.purge
    if all(each is None for each in (purge.length_mm, purge.volume_l, purge.flow_l_min, purge.target_ppm)):
        return ()
    plan = purge_plan(wps)
    rows = [(line.name, f"{line.text}, {line.note}" if line.note else line.text) for line in plan.lines]
    rows += [("Not stated", what) for _, what in plan.missing]
    return tuple(rows)
