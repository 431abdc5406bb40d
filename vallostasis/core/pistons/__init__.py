"""Pistons in their holes: clearance by two methods that have to agree, marks, ring gaps once the bore is frozen."""
