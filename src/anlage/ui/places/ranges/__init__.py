"""The place that tells whether it is allowed, by which record and clause."""
