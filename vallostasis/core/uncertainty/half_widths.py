"""The standard uncertainty of what is known only between two bounds.

References
----------
.. [1] JCGM 100:2008, Evaluation of measurement data: Guide to the expression of uncertainty in
   measurement (GUM), 4.3.7.
"""

from math import sqrt

from vallostasis.core.errors import require_not_negative


def rectangular(half_width_m: float) -> float:
    """Standard uncertainty of a value known only to lie within ± a half width. [m]

    Raises
    ------
    OutOfDomain
        If the half width is negative or not finite.

    Notes
    -----
    u = a/√3, GUM 4.3.7 [1]_ of the module.
    """
    require_not_negative(half_width=half_width_m)
    return half_width_m / sqrt(3.0)
