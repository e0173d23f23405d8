"""A design bent by hand: commands, rows that stand otherwise, a history played again."""
