"""The Joint as the rest of the window knows it."""

from anlage.ui.kit.place import PlaceSpec

SPEC = PlaceSpec(
    id="joint",
    word="Joint",
    keys="Alt+J",
    question="What shape, how much metal?",
    kinds=("wps",),
    make="anlage.ui.places.joint.place:JointPlace",
    leaves="anlage.ui.places.joint.column:LEAVES",
    words="groove bevel preparation drawing",
)
