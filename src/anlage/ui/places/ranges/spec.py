"""The Ranges as the rest of the window knows them."""

from anlage.ui.kit.place import PlaceCommand, PlaceSpec

_PLACE = "anlage.ui.places.ranges.place:RangesPlace"

SPEC = PlaceSpec(
    id="ranges",
    word="Ranges",
    keys="Alt+R",
    question="Is it allowed, by which record and clause?",
    kinds=("wps",),
    make=_PLACE,
    commands=(
        PlaceCommand("next_problem", "Next problem", "F7", f"{_PLACE}.next_problem", "outside unproven error"),
        PlaceCommand("mend", "What would bring it inside", "Shift+F7", f"{_PLACE}.show_mendings", "fix change suggest"),
    ),
    words="qualification variables ladder verdict",
)
