"""A family that nobody sells: what adding one takes."""
