"""The place that tells where a machine is set for a current."""
