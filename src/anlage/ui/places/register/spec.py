"""The Register as the rest of the window knows it."""

from anlage.ui.kit.place import PlaceSpec

SPEC = PlaceSpec(
    id="register",
    word="Register",
    keys="Alt+G",
    question="What do we have, in which state, what is not covered?",
    make="anlage.ui.places.register.place:RegisterPlace",
    words="list WPS PQR documents map",
)
