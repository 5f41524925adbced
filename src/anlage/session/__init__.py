"""What the window and the command line share: open packs, kept boxes, answers to what-if questions."""
