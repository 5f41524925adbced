"""The leaves that have their field at Proof: all that a record has."""

# Lines of the form: leaves that belong together.
LINES = (
    ("header/number", "welded_on"), ("header/title",), ("header/code", "header/units"),
    ("header/second_code", "header/third_code"),
    ("header/weld", "toughness_tested"),
    ("welder", "laboratory"), ("metals/one/name", "metals/other/name"), ("joint/kind", "joint/product"),
    ("joint/thickness_mm", "joint/od_mm"), ("preheat_least_c", "interpass_most_c"), ("pwht/kind", "pwht/temperature_c"),
    ("pwht/time_h", "technique/thermal_preparation"),
    ("technique/position", "technique/progression"), ("technique/runs", "technique/bead_technique"),
    ("joint/root_opening_mm", "joint/root_face_mm"), ("joint/groove_angle_deg", "joint/backing"),
    ("technique/back_gouging", "technique/peening"), ("joint/other_thickness_mm", "joint/leg_mm"),
    ("technique/root_to_second_min", "technique/clamp"), ("declared/thickness_mm", "declared/diameter_mm"),
    ("declared/root_opening_mm", "declared/root_face_mm"),
    ("declared/groove_angle_deg", "technique/second_to_rest_min"),
)  # fmt: skip
CARD = (
    ("process", "filler"), ("filler_diameter_mm", "thickness_mm"), ("max_pass_thickness_mm", "current_type"),
    ("shielding_gas", "backing_gas"), ("trailing_gas", "trailing_gas_flow_l_min"), ("operation", "waveform"),
    ("progression", "flow_range_l_min"), ("current_range_a", "voltage_range_v"), ("travel_range_mm_min",),
)  # fmt: skip
# What a record says of a deposit beside that, by its process.
WIRE = (("supplemental_filler", "filler_make"), ("output", "electrodes"), ("gas_flow_l_min", "oscillation"))
WIRE_GAS = (*WIRE, ("transfer_mode",))
CARD_OF = {
    "GMAW": WIRE_GAS, "MCAW": WIRE_GAS, "FCAW": WIRE,
    "SAW": (
        ("flux", "flux_type"), ("recrushed_slag", "supplemental_filler"), ("electrodes", "output"),
        ("travel_angle_deg", "work_angle_deg"), ("spacing_along_mm", "spacing_across_mm"),
        ("parallel_angle_deg", "oscillation"),
    ),
    "GTAW": (("closed_chamber", "electrodes"), ("filler_make", "hot_wire"), ("gas_flow_l_min", "oscillation")),
    "PAW": (("orifice_gas", "keyhole"), ("closed_chamber", "electrodes"), ("filler_make",)),
    "SMAW": (("filler_make",),),
}  # fmt: skip
AGAINST = (("override/verdict", "override/by"), ("override/reason",))
RESULTS = (("kind", 148), ("count", 48), ("specimen", 70), ("found", 116), ("passed", 80))
RESULTS_OF_PIECES = (("kind", 148), ("count", 40), ("piece", 44), ("specimen", 62), ("found", 90), ("passed", 80))
PIECES = (("mark", 56), ("position", 70), ("process", 84), ("filler_make", 130), ("heat_input_kj_mm", 64))
MEASURED = ("current_a", "voltage_v", "travel_speed_mm_min", "wire_speed_mm_min")
# What is read of a pass: by volts and amps, or what a source of controlled waveform shows.
WELDED = {
    "no": (
        ("current_a", 52), ("voltage_v", 46), ("travel_speed_mm_min", 56), ("bead_mm", 50), ("electrode_mm", 56),
        ("bead_area_mm2", 50),
    ),
    "yes": (("travel_speed_mm_min", 56), ("energy_j", 70), ("power_w", 60), ("bead_mm", 56)),
}  # fmt: skip
LEAVES = (
    *(path for line in LINES for path in line),
    *(f"deposits/*/{name}" for line in CARD for name in line),
    *dict.fromkeys(f"deposits/*/{name}" for lines in CARD_OF.values() for line in lines for name in line),
    *(f"deposits/*/{name}/*" for name in MEASURED),
    *(path for line in AGAINST for path in line),
    *(f"results/*/{name}" for name, _ in RESULTS_OF_PIECES),
    *(f"pieces/*/{name}" for name, _ in PIECES),
    *(f"welded/*/{name}" for name in dict.fromkeys(name for columns in WELDED.values() for name, _ in columns)),
)
