"""The statement of a job: sentences whose words are its fields."""

# Each line is one sentence: words stand as they are, a word with a slash in it is the field of that leaf.
SENTENCES = (
    ("Join", "metals/one/name", "to", "metals/other/name"),
    ("as a", "header/weld", "in", "joint/product", "from", "range/thickness_mm", "thick,", "outside diameters",
     "range/diameter_mm", "in position", "technique/position", "going", "technique/progression"),
    ("by", "header/code", "and by", "header/second_code", "and", "header/third_code", "with limits in the",
     "header/units"),
    ("Impact tests are", "header/impact", "a hardness limit is", "header/hardness", "sour service is",
     "header/sour_service"),
    ("Preheat to at least", "preheat/minimum_c", "between passes at most", "preheat/interpass_maximum_c",
     "and afterwards", "preheat/maintenance"),
    ("Heat treatment after welding:", "pwht/kind", "at", "pwht/temperature_c", "for", "pwht/time_h"),
)  # fmt: skip
THIRD = ("and", "header/third_code")  # of the third sentence: said behind a second code
HEATED = ("at", "pwht/temperature_c", "for", "pwht/time_h")  # of the last sentence: said of what is heat-treated
PIPE = ("outside diameters", "range/diameter_mm")  # of the second sentence: said of pipe alone
# What is stated less often, two to a line.
MORE = (
    ("header/application",), ("header/loading", "header/strength"), ("header/weld_class",), ("technique/cleaning",),
    ("range/thicker_member_mm", "seam/weave_limit_mm"),
    ("technique/runs", "technique/bead_technique"), ("technique/peening", "technique/thermal_preparation"),
    ("technique/back_gouging", "joint/backing"), ("joint/retainers",),
    ("technique/root_to_second_min", "technique/second_to_rest_min"), ("technique/clamp",),
)  # fmt: skip
# Of these: what few codes ask for, shown with a code that does.
OF_FEW = (
    "header/loading", "header/strength", "header/weld_class", "technique/root_to_second_min",
    "technique/second_to_rest_min", "technique/clamp",
)  # fmt: skip
HEAD = ("header/number", "header/title")
# What an empty field says, where it is not its label.
ABSENT = {
    "metals/other/name": "the same", "pwht/temperature_c": "temperature", "pwht/time_h": "time",
    "preheat/minimum_c": "preheat", "preheat/interpass_maximum_c": "interpass", "preheat/maintenance": "nothing said",
    "header/code": "which code?", "header/second_code": "no other", "header/third_code": "no other",
    "joint/product": "plate or pipe?", "header/weld": "which weld?",
    "header/impact": "required?", "header/hardness": "required?", "header/sour_service": "required?",
    "pwht/kind": "which, or none?", "technique/progression": "up or down?", "range/thickness_mm": "thickness",
    "range/diameter_mm": "diameter",
}  # fmt: skip
LEAVES = (
    *HEAD,
    *(word for sentence in SENTENCES for word in sentence if "/" in word and word != "joint/product"),
    *(path for line in MORE for path in line),
)
