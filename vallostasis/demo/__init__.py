"""The invented shop: seeded generators with a hidden truth, one deliberate mistake for each job."""
