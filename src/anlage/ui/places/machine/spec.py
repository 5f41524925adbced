"""The Machine as the rest of the window knows it."""

from anlage.ui.kit.place import PlaceCommand, PlaceSpec

_PLACE = "anlage.ui.places.machine.place:MachinePlace"

SPEC = PlaceSpec(
    id="machine",
    word="Machine",
    keys="Alt+M",
    question="Where is it set for a current, and who read that?",
    kinds=("machine",),
    make=_PLACE,
    leaves="anlage.ui.places.machine.leaves:LEAVES",
    commands=(
        PlaceCommand("add_reading", "Add a reading", "Ctrl+Return", f"{_PLACE}.add_reading", "calibration meter"),
    ),
    words="power source dial tap calibration meter amps",
)
