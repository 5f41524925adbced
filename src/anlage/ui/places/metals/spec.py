"""The Metals as the rest of the window knows them."""

from anlage.ui.kit.place import PlaceCommand, PlaceSpec

_PLACE = "anlage.ui.places.metals.place:MetalsPlace"

SPEC = PlaceSpec(
    id="metals",
    word="Metals",
    keys="Alt+T",
    question="Do these go together?",
    kinds=("wps",),
    make=_PLACE,
    leaves="anlage.ui.places.metals.leaves:LEAVES",
    commands=(
        PlaceCommand(
            "certificate", "Read a mill certificate from CSV…", "Ctrl+Shift+A", f"{_PLACE}.ask_for_certificate",
            "certificate heat number composition import",
        ),
        PlaceCommand(
            "ferrite_lines", "Read an own table of ferrite lines…", "", f"{_PLACE}.ask_for_lines",
            "ferrite number diagram WRC lines import",
        ),
        PlaceCommand(
            "own_materials", "Metals and fillers of this works…", "", f"{_PLACE}.ask_for_own",
            "add own metal filler grade catalogue import table",
        ),
    ),
    words="composition carbon equivalent ferrite dilution stainless dissimilar strength match",
)  # fmt: skip
