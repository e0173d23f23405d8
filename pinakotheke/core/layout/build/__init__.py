"""From an answer to parts: compartments become boards, rails and fronts, cut to what they carry."""
