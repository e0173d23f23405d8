"""Mechanics: beams, plates, shelves, fasteners and what tips over, without knowing what is built of them.

Units throughout: N, mm, N/mm², so second moments are mm⁴, section moduli mm³, moments N·mm and deflections mm.
"""
