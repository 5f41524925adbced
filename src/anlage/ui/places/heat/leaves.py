"""The leaves that have their field at Heat, by view."""

PREHEAT = ("header/construction_code", "preheat/hydrogen", "preheat/restraint", "preheat/reason")
SEQUENCE = ("piece/half_width_mm", "piece/beyond_mm", "piece/ambient_c", "piece/stop_s")
AFTER = ("after/release_c", "after/release_h", "after/heating_rate_k_h", "after/cooling_rate_k_h")
PURGE = ("purge/length_mm", "purge/volume_l", "purge/flow_l_min", "purge/target_ppm", "purge/mixing")
VIEW_OF = {
    path: view
    for view, paths in (("preheat", PREHEAT), ("sequence", SEQUENCE), ("after", AFTER), ("purge", PURGE))
    for path in paths
}
LEAVES = (*PREHEAT, *SEQUENCE, *AFTER, *PURGE)
