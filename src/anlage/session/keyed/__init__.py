"""Questions as `key=value` and their answers: what calculations and the command line have in common."""
