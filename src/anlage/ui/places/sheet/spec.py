"""The Sheet as the rest of the window knows it."""

from anlage.ui.kit.place import PlaceCommand, PlaceSpec

_PLACE = "anlage.ui.places.sheet.place:SheetPlace"

SPEC = PlaceSpec(
    id="sheet",
    word="Sheet",
    keys="Alt+S",
    question="What goes on the floor?",
    kinds=("wps",),
    make=_PLACE,
    leaves="anlage.ui.places.sheet.leaves:LEAVES",
    commands=(
        PlaceCommand("issue", "Issue revision…", "", f"{_PLACE}.issue"),
        PlaceCommand("print", "Print the sheet…", "Ctrl+P", f"{_PLACE}.ask_to_print", "paper printer"),
        PlaceCommand("pdf", "Save sheet as PDF…", "Ctrl+E", f"{_PLACE}.ask_for_pdf"),
    ),
    words="print issue revision PDF",
)
