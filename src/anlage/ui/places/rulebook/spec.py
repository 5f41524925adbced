"""The Rulebook as the rest of the window knows it."""

from anlage.ui.kit.place import PlaceCommand, PlaceSpec

_PLACE = "anlage.ui.places.rulebook.place:RulebookPlace"

SPEC = PlaceSpec(
    id="rulebook",
    word="Rulebook",
    keys="Alt+L",
    question="What does the code say, and who checked it?",
    make=_PLACE,
    leaves="anlage.ui.places.rulebook.leaves:LEAVES",
    commands=(
        PlaceCommand("check_rule", "Mark the rule checked…", "Ctrl+Shift+K", f"{_PLACE}.ask_to_check", "sign compare"),
        PlaceCommand("correct_rule", "Correct the rule…", "Ctrl+Shift+L", f"{_PLACE}.ask_to_correct", "overlay value"),
        PlaceCommand("checking_list", "Save a checking list…", "Ctrl+Shift+B", f"{_PLACE}.ask_for_list", "rules pdf"),
    ),
    words="rules code clause standard checked overlay",
)
