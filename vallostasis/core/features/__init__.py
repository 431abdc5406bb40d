"""The catalogue of what can be measured, where on a part, and on which parts."""
