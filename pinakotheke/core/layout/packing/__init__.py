"""What goes where in a bay: what a thing asks, the limits and the trouble of a place, and the compiled fill of a wall."""
