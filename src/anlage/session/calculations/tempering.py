"""`calc tempering`: what one or more holds add up to by Hollomon and Jaffe."""

from anlage.core.errors import InputError
from anlage.core.quantities import read
from anlage.core.results import Notice, Source
from anlage.core.thermal.tempering import CONSTANT, added_up, hollomon_jaffe
from anlage.data.tables import unit_table
from anlage.session.keyed.answer import Answer, number, shown_single
from anlage.session.keyed.arguments import Arguments

KEYS = ("temperature", "time", "reference", "constant")
IN_TURN_DIFFERS = 0.005


def answer(arguments: Arguments) -> Answer:
    """Answer `calc tempering`."""
    arguments.need("temperature", "time")
    temperatures = _each(arguments.text("temperature"), "temperature", "temperature")
    hours = _each(arguments.text("time"), "time", "hours")
    if len(temperatures) != len(hours):
        text = f"{len(hours)} times for {len(temperatures)} temperatures"
        raise InputError(text, where="time", mend="state one time for each temperature, with commas between")
    reference = arguments.single("reference", "temperature") if "reference" in arguments else max(temperatures)
    constant = arguments.single("constant", "ratio") if "constant" in arguments else CONSTANT
    found = added_up(tuple(zip(temperatures, hours, strict=True)), reference_c=reference, constant=constant)
    parameter = hollomon_jaffe(reference, found.hours, constant=constant)
    values = {
        "hollomon_jaffe": number(parameter),
        "equivalent_time_h": number(found.hours),
        "reference_c": number(reference),
        "constant": number(constant),
    }
    lines = [
        ("parameter (Hollomon-Jaffe)", f"{parameter:.3f} thousand"),
        ("equal to a hold of", f"{found.hours:.2f} h at {shown_single(reference, 'temperature')}"),
    ]
    notices = []
    if abs(found.in_turn_hours - found.hours) > IN_TURN_DIFFERS * found.hours:
        text = (
            f"taken one after the other the holds come to {found.in_turn_hours:.2f} h: the parameter does not add up"
            " exactly"
        )
        notices.append(Notice("tempering.in_turn", "time", text))
    return Answer(values, lines, [Source("parameter", "Hollomon and Jaffe 1945, from memory", "H")], notices)


def _each(text: str, key: str, kind: str) -> list[float]:
    found = []
    for part in text.split(","):
        value = read(part.strip(), kind, unit_table(), where=key, bare=None).interval
        if not value.is_single:
            raise InputError(f"{part.strip()} is a range", where=key, mend="state one value for each hold")
        found.append(value.low)
    return found
