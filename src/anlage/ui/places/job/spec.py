"""The Job as the rest of the window knows it."""

from anlage.ui.kit.place import PlaceSpec

SPEC = PlaceSpec(
    id="job",
    word="Job",
    keys="Alt+B",
    question="What is to be welded?",
    kinds=("wps",),
    make="anlage.ui.places.job.place:JobPlace",
    leaves="anlage.ui.places.job.statement:LEAVES",
    words="header code metal range demands number new",
)
