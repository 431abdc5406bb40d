"""How values that share errors vary together.

References
----------
.. [1] JCGM 100:2008 (GUM), F.1.2.3: the covariance of two values is the sum over the errors that both carry.
"""

from collections.abc import Hashable, Sequence

import numpy as np
from numpy.typing import NDArray

from vallostasis.core.uncertainty.budget import Estimate


def joint_covariance(estimates: Sequence[Estimate]) -> NDArray[np.float64]:
    """Return the covariance of several values from the errors that they name.

    Parameters
    ----------
    estimates : sequence of Estimate
        Values with their errors. [m]

    Returns
    -------
    array, shape (n, n)
        Σ w_a·w_b·u² over the errors that both carry, F.1.2.3 [1]_ of the module. [m²]
    """
    names: dict[Hashable, int] = {}
    for one in estimates:
        for name in one.errors:
            names.setdefault(name, len(names))
    loads = np.zeros((len(estimates), len(names)))
    for row, one in enumerate(estimates):
        for name, (source, weight) in one.errors.items():
            loads[row, names[name]] = weight * source.sensitivity * source.standard
    covariance: NDArray[np.float64] = loads @ loads.T
    return covariance
