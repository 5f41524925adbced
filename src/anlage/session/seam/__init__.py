"""Along the seam: places, starts and stops, tacks, sectors, stations, the stopwatch."""
