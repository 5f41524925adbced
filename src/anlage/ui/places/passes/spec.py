"""The Passes as the rest of the window knows them."""

from anlage.ui.kit.place import PlaceCommand, PlaceSpec

_PLACE = "anlage.ui.places.passes.place:PassesPlace"

SPEC = PlaceSpec(
    id="passes",
    word="Passes",
    keys="Alt+P",
    question="What is laid, in what order, with what energy?",
    kinds=("wps",),
    make=_PLACE,
    leaves="anlage.ui.places.passes.leaves:LEAVES",
    commands=(
        PlaceCommand("add_pass", "Add a pass", "Ctrl+Return", f"{_PLACE}.add_pass"),
        PlaceCommand("copy_pass", "Duplicate the pass", "Ctrl+D", f"{_PLACE}.duplicate_pass"),
        PlaceCommand("remove_pass", "Remove the pass", "Ctrl+Del", f"{_PLACE}.remove_pass"),
        PlaceCommand("pass_up", "Move the pass up", "Alt+Up", f"{_PLACE}.move_pass_up"),
        PlaceCommand("pass_down", "Move the pass down", "Alt+Down", f"{_PLACE}.move_pass_down"),
        PlaceCommand("add_deposit", "Add a deposit", "Ctrl+Shift+Return", f"{_PLACE}.add_deposit"),
        PlaceCommand("remove_deposit", "Remove the deposit", "", f"{_PLACE}.remove_deposit"),
        PlaceCommand("fill_joint", "Fill the joint with passes", "Ctrl+Shift+F", f"{_PLACE}.fill_joint"),
        PlaceCommand(
            "confirm", "Confirm what is proposed", "Ctrl+Shift+Y", f"{_PLACE}.confirm_proposed", "accept settings"
        ),
        PlaceCommand("copy_down", "Copy the value down", "Alt+Shift+Down", f"{_PLACE}.copy_down", "fill down repeat"),
        PlaceCommand("stopwatch", "Travel speed by stopwatch", "F8", f"{_PLACE}.open_stopwatch"),
    ),
    words="beads layers amps volts deposit filler",
)
