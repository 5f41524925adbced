"""`calc pipe`: a pipe by nominal size and schedule."""

from anlage.core.results import Source
from anlage.data.tables import catalogue
from anlage.session.keyed.answer import Answer, number, shown, shown_single
from anlage.session.keyed.arguments import Arguments
from anlage.session.keyed.words import label_of

KEYS = ("nps", "schedule")


def answer(arguments: Arguments) -> Answer:
    """Answer `calc pipe`."""
    arguments.need("nps", "schedule")
    pipe = catalogue().pipe(arguments.text("nps"), arguments.text("schedule"))
    found = {"od_mm": pipe.od_mm, "wall_mm": pipe.wall_mm, "bore_mm": pipe.bore_mm}
    values = {name: number(value) for name, value in found.items()}
    inches = {"od_mm": f"{pipe.od_in:g}", "wall_mm": f"{pipe.wall_in:.3f}"}
    lines = [("pipe", f"NPS {pipe.nps}, DN {pipe.dn}, schedule {pipe.schedule}")]
    for name, value in found.items():
        inch = inches.get(name)
        lines.append((label_of(name), f"{shown_single(value, 'length')}  ({inch} in)" if inch else shown(name, value)))
    return Answer(values, lines, [Source("pipe size", pipe.source, pipe.confidence)])
