"""`calc ferrite`: equivalents, ferrite and solidification of a stainless deposit."""

from anlage.core.metal.composition import ELEMENTS
from anlage.session.keyed.answer import Answer
from anlage.session.keyed.arguments import Arguments
from anlage.session.keyed.composition import stated_composition
from anlage.session.keyed.ferrite import ferrite_answer, lines_of

KEYS = (*ELEMENTS, "lines")


def answer(arguments: Arguments) -> Answer:
    """Answer `calc ferrite`."""
    stated = stated_composition(arguments, "C", "Cr", "Ni")
    return ferrite_answer(stated, lines_of(arguments.text("lines")) if "lines" in arguments else None)
