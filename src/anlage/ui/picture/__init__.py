"""Pictures on screen: drawn from display lists, looked at nearer, dragged and typed into."""
