"""The place that tells what goes on the floor."""
