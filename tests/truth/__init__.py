"""Hidden truths, read as people read them, held against what the core says of them.

A truth is drawn (a block, a bore, a gauge, its zero, a person, temperatures), readings are made from it with the errors
that its gauge is said to have, and every ± and every verdict that comes back is compared with the truth.
"""
