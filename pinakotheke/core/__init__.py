"""The job's rules and arithmetic: pure functions over frozen models.

Lengths are millimetres, masses kilograms, forces newtons, money `Decimal`. In a space, x runs along the back
wall from its left end, y out from that wall, z up from the finished floor. A part's (x, y, z) is its left, back,
lower corner. Stages import in the order of the work: house, survey, inventory, systems, layout, checks, materials.
"""
