"""The normal density, by its formula: a finding is weighed against every cause, hundreds of times for a block.

References
----------
.. [1] JCGM 100:2008 (GUM), C.2.14: the normal distribution.
"""

from math import log, pi, sqrt

import numpy as np
from numpy.typing import ArrayLike, NDArray


def normal_density(value_m: ArrayLike, mean_m: ArrayLike, standard_m: ArrayLike) -> NDArray[np.float64]:
    """Return the density of a normal error, arrays that broadcast; standard above zero. [m], per metre. GUM [1]_."""
    value, mean, standard = (np.asarray(one, dtype=np.float64) for one in (value_m, mean_m, standard_m))
    found: NDArray[np.float64] = np.exp(-(((value - mean) / standard) ** 2) / 2) / (standard * sqrt(2 * pi))
    return found


def log_normal_density(value_m: float, mean_m: float, standard_m: float) -> float:
    """Return the logarithm of :func:`normal_density`, which stays finite far out; standard above zero. [m] GUM [1]_."""
    return -(((value_m - mean_m) / standard_m) ** 2) / 2 - log(standard_m * sqrt(2 * pi))
