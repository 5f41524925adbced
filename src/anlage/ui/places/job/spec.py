"""The Job as the rest of the window knows it."""

from anlage.ui.kit.place import PlaceCommand, PlaceSpec

_PLACE = "anlage.ui.places.job.place:JobPlace"

SPEC = PlaceSpec(
    id="job",
    word="Job",
    keys="Alt+B",
    question="What is to be welded?",
    kinds=("wps",),
    make=_PLACE,
    leaves="anlage.ui.places.job.statement:LEAVES",
    commands=(PlaceCommand("draft", "Draft what is not stated", "Ctrl+Shift+J", f"{_PLACE}.draft_it", "first draft"),),
    words="header code metal range demands number new",
)
