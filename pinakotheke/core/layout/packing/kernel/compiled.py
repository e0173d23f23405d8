"""How the kernel is compiled, and its randomness: the *minimal standard* generator x ← 48271·x mod (2³¹ − 1) (Park and
Miller 1988, Communications of the ACM 31; multiplier of 1993; from memory), so that the compiled and the plain form take
the same steps.
"""

from typing import Any

from numba import njit

from ..columns import (
    MODULUS,
    MULTIPLIER,
)

# Without numba's count of references nothing can be allocated here, and a move takes a third of the time: the count is
# atomic, was kept at every call, and both cores kept it of the same arrays.
HOW: Any = {"nogil": True, "error_model": "numpy", "_nrt": False}
jit: Any = njit(**HOW, no_cpython_wrapper=True, no_cfunc_wrapper=True)  # type: ignore[call-overload]


@jit
def next_random(state):
    """The next state of the generator."""
    return (state * MULTIPLIER) % MODULUS
