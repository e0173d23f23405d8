"""How much one person may lift, by the revised NIOSH lifting equation.

RWL = LC · HM · VM · DM · AM · FM · CM with LC 23 kg, HM = 25/H, VM = 1 − 0.003·|V − 75|, DM = 0.82 + 4.5/D,
AM = 1 − 0.0032·A; H, V, D in cm, A in degrees (Waters, Putz-Anderson, Garg: *Applications Manual for the Revised
NIOSH Lifting Equation*, DHHS (NIOSH) 94-110, 1994, from memory). It is about lifting by two hands while standing.
"""

from typing import Literal

Coupling = Literal["good", "fair", "poor"]
"""How well hands hold it: by handles or cut-outs; by its edges or what is loose; what sags or slips."""
LOAD_CONSTANT_KG = 23.0
WAIST_CM = 75.0
"""The height at which the equation asks for no correction: where a lift from a shelf ends, or begins."""
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


def coupling_multiplier(coupling: Coupling, height_cm: float) -> float:
    """CM: good 1.00; fair 0.95 below 75 cm, else 1.00; poor 0.90.

    >>> coupling_multiplier("fair", 30), coupling_multiplier("fair", 75), coupling_multiplier("poor", 120)
    (0.95, 1.0, 0.9)
    """
    if coupling == "fair":
        return 0.95 if height_cm < WAIST_CM else 1.0
    return {"good": 1.0, "poor": 0.9}[coupling]


def hands_out(depth_cm: float, height_cm: float) -> float:
    """How far before the ankles the hands are that hold something so deep, where nobody measures: H = 20 + W/2 from 25 cm
    up, 25 + W/2 below it (94-110, section 1.3, from memory).
    """
    return (20.0 if height_cm >= NEAREST_CM else 25.0) + depth_cm / 2


def shelf_lift(depth_cm: float, height_cm: float, coupling: Coupling) -> float:
    """Recommended weight in kg of something so deep lifted off, or up to, a place: the lesser of the two ends of the lift,
    at the place and at the waist. Higher than the equation goes counts as its highest.
    """
    travel = abs(min(height_cm, HIGHEST_CM) - WAIST_CM)
    return min(
        recommended_weight(hands_out(depth_cm, v), v, travel, coupling=coupling_multiplier(coupling, v))
        for v in (min(height_cm, HIGHEST_CM), WAIST_CM)
    )


def lifting_index(mass_kg: float, horizontal_cm: float, height_cm: float, travel_cm: float) -> float:
    """Mass over the recommended weight; above 1 the lift strains some, above 3 most. Infinite where none is safe."""
    limit = recommended_weight(horizontal_cm, height_cm, travel_cm)
    return mass_kg / limit if limit else float("inf")
