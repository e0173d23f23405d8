"""What is told of a design: its ledger, its cost, its sense, why a part is so, how two of them differ."""
