"""Every unit factor against the open-source library pint, which carries NIST SP 811 and CODATA values (H)."""

import pint
import pytest

from anlage.core.quantities import parse
from anlage.data.tables import unit_table

# How pint spells the units that the trade spells otherwise.
SPELLED = {
    "°C": "degC", "°F": "degF", "°": "degree", "l": "liter", "l/min": "liter/minute", "m³": "m**3", "ft³": "ft**3",
    "in³": "in**3", "mm²": "mm**2", "cm²": "cm**2", "in²": "in**2", "m³/h": "m**3/hour", "ft³/h": "ft**3/hour",
    "h": "hour",
    "mm/min": "mm/minute", "cm/min": "cm/minute", "m/min": "m/minute", "in/min": "in/minute", "ft/min": "ft/minute",
    "m/h": "m/hour", "in/s": "in/s", "min": "minute", "ksi": "kip/in**2", "psi": "pound_force/in**2", "%": "percent",
    "lb": "pound", "°F difference": "delta_degF", "K difference": "delta_degC",
    "ml/100 g": "milliliter/hectogram",
}  # fmt: skip
CASES = [(kind, name) for kind, table in unit_table().items() for name in table.unit_names if name]


@pytest.fixture(scope="module")
def registry():
    return pint.UnitRegistry(autoconvert_offset_to_baseunit=True)


def spelled(kind, name):
    if kind == "temperature_difference":
        return SPELLED[f"{name} difference"]
    return SPELLED.get(name, name)


@pytest.mark.parametrize(("kind", "name"), CASES, ids=lambda part: part)
def test_a_unit_converts_as_pint_has_it(kind, name, registry, units):
    base = spelled(kind, units[kind].base)
    theirs = registry.Quantity(3.25, spelled(kind, name)).to(base).magnitude
    assert parse(f"3.25 {name}", kind, units).low == pytest.approx(theirs, rel=1e-9)


@pytest.mark.parametrize(
    ("expression", "kind", "pints"),
    [("3/8 in - 1/16 in", "length", "3/8*inch - 1/16*inch"), ("5 ft 3 in", "length", "5*foot + 3*inch"),
     ("2 × 3.2 mm + 1/8 in", "length", "2*3.2*mm + 1/8*inch"), ("12 m/min / 2", "speed", "12*m/minute/2")],
)  # fmt: skip
def test_arithmetic_agrees_with_pint(expression, kind, pints, registry, units):
    theirs = registry.parse_expression(pints).to(spelled(kind, units[kind].base)).magnitude
    assert parse(expression, kind, units).low == pytest.approx(theirs, rel=1e-9)
