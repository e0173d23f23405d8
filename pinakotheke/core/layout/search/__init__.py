"""Who lives where, and on what: the search of a whole wall at once."""
