"""The place that tells what is to be welded."""
