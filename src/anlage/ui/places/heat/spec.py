"""The Heat as the rest of the window knows it."""

from anlage.ui.kit.place import PlaceCommand, PlaceSpec

_PLACE = "anlage.ui.places.heat.place:HeatPlace"

SPEC = PlaceSpec(
    id="heat",
    word="Heat",
    keys="Alt+H",
    question="How hot before, between and after each pass?",
    kinds=("wps",),
    make=_PLACE,
    leaves="anlage.ui.places.heat.leaves:LEAVES",
    commands=(
        PlaceCommand("take_preheat", "Take the preheat that governs", "Ctrl+Shift+G", f"{_PLACE}.take_governing",
                     "preheat choose school code"),
    ),
    words="preheat interpass temperature wait crayon purge oxygen cooling",
)  # fmt: skip
