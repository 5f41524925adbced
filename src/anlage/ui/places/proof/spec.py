"""The Proof as the rest of the window knows it."""

from anlage.ui.kit.place import PlaceCommand, PlaceSpec

_PLACE = "anlage.ui.places.proof.place:ProofPlace"

SPEC = PlaceSpec(
    id="proof",
    word="Proof",
    keys="Alt+O",
    question="What was welded on the coupon, and what does it buy?",
    kinds=("pqr",),
    make=_PLACE,
    leaves="anlage.ui.places.proof.leaves:LEAVES",
    commands=(
        PlaceCommand("add_recorded", "Add a deposit", "Ctrl+Shift+Return", f"{_PLACE}.add_deposit"),
        PlaceCommand("add_result", "Add a test", "Ctrl+Return", f"{_PLACE}.add_result"),
    ),
    words="PQR record coupon tests results qualification",
)
