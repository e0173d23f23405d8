"""How modules may stand in a space: a run filled, candidates of every family, steps to their neighbours."""
