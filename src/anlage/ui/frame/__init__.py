"""What stands round the places: band, place bar, notice line, palette, the job, the empty window."""
