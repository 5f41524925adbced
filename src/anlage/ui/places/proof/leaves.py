"""The leaves that have their field at Proof: all that a record has."""

# Lines of the form: leaves that belong together.
LINES = (
    ("header/number", "state"), ("header/title",), ("header/code", "header/units"), ("header/weld", "toughness_tested"),
    ("welded_on", "welder"), ("laboratory",), ("metals/one/name", "metals/other/name"), ("joint/kind", "joint/product"),
    ("joint/thickness_mm", "joint/od_mm"), ("preheat_least_c", "interpass_most_c"), ("pwht/kind", "pwht/temperature_c"),
    ("pwht/time_h",),
    ("technique/position", "technique/progression"), ("technique/runs", "technique/bead_technique"),
    ("technique/peening", "technique/thermal_preparation"),
)  # fmt: skip
CARD = (
    ("process", "filler"), ("filler_diameter_mm", "thickness_mm"), ("max_pass_thickness_mm", "current_type"),
    ("shielding_gas", "backing_gas"), ("trailing_gas", "operation"),
)  # fmt: skip
MEASURED = ("current_a", "voltage_v", "travel_speed_mm_min")
LEAVES = (
    *(path for line in LINES for path in line),
    *(f"deposits/*/{name}" for line in CARD for name in line),
    *(f"deposits/*/{name}/*" for name in MEASURED),
)
