"""How much one person may lift, by the revised NIOSH lifting equation.

RWL = LC · HM · VM · DM · AM · FM · CM with LC 23 kg, HM = 25/H, VM = 1 − 0.003·|V − 75|, DM = 0.82 + 4.5/D,
AM = 1 − 0.0032·A; H, V, D in cm, A in degrees (Waters, Putz-Anderson, Garg: *Applications Manual for the Revised
NIOSH Lifting Equation*, DHHS (NIOSH) 94-110, 1994, from memory). It is about lifting by two hands while standing.
"""

LOAD_CONSTANT_KG = 23.0
NEAREST_CM = 25.0
FARTHEST_CM = 63.0
HIGHEST_CM = 175.0
TWISTED_MOST = 135.0


def recommended_weight(horizontal_cm: float, height_cm: float, travel_cm: float, twist: float = 0,
                       frequency: float = 1.0, coupling: float = 1.0) -> float:  # fmt: skip
    """Recommended weight limit in kg of a lift that begins or ends `height_cm` up, hands `horizontal_cm` out.

    Beyond what the equation covers (farther out than 63 cm, higher than 175 cm, twisted by more than 135°) it is 0;
    nearer than 25 cm counts as 25 cm, and so does less travel.

    >>> round(recommended_weight(25, 75, 25), 1), recommended_weight(70, 75, 25)
    (23.0, 0.0)
    """
    if horizontal_cm > FARTHEST_CM or not 0 <= height_cm <= HIGHEST_CM or twist > TWISTED_MOST:
        return 0.0
    out = NEAREST_CM / max(horizontal_cm, NEAREST_CM)
    up = 1 - 0.003 * abs(height_cm - 75)
    travel = min(0.82 + 4.5 / max(travel_cm, NEAREST_CM), 1.0)
    return LOAD_CONSTANT_KG * out * up * travel * (1 - 0.0032 * twist) * frequency * coupling


def lifting_index(mass_kg: float, horizontal_cm: float, height_cm: float, travel_cm: float) -> float:
    """Mass over the recommended weight; above 1 the lift strains some, above 3 most. Infinite where none is safe."""
    limit = recommended_weight(horizontal_cm, height_cm, travel_cm)
    return mass_kg / limit if limit else float("inf")
