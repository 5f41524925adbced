"""When garbage is looked for: not while everything loads, never in what was loaded, seldom while a command runs."""

import gc

SELDOM = 50_000  # things made: most commands are over before
_USUAL = gc.get_threshold()


def seldom() -> None:
    """Look for garbage seldom: a command that is over in a moment has none worth a twentieth of its time."""
    gc.set_threshold(SELDOM, *_USUAL[1:])


def load_quietly() -> None:
    """Look for no garbage while everything is loaded: what is made then stays."""
    gc.disable()


def settle() -> None:
    """Look for garbage again, but never in what was loaded: the pauses while something is dragged are shorter."""
    gc.freeze()
    gc.set_threshold(*_USUAL)
    gc.enable()
