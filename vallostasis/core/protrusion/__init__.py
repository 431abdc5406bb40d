"""Protrusion of the liners: plane, rules, and the stack of parts that predicts it."""
