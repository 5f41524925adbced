"""The Ranges as the rest of the window knows them."""

from anlage.ui.kit.place import PlaceSpec

SPEC = PlaceSpec(
    id="ranges",
    word="Ranges",
    keys="Alt+R",
    question="Is it allowed, by which record and clause?",
    kinds=("wps",),
    make="anlage.ui.places.ranges.place:RangesPlace",
    words="qualification variables ladder verdict",
)
