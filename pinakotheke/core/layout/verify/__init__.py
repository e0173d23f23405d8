"""The proof of a design, apart from the search that made it."""
