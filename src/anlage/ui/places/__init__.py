"""The places, a folder each, in the order of the work; none knows another."""

from importlib import import_module

from anlage.ui.kit.place import PlaceSpec

NAMES = ("register", "job", "joint", "metals", "heat", "passes", "ranges", "rulebook", "proof", "machine", "sheet")


def place_specs() -> tuple[PlaceSpec, ...]:
    """Return every place as the rest of the window knows it."""
    return tuple(import_module(f"anlage.ui.places.{name}.spec").SPEC for name in NAMES)
