"""The calendar of the shop: who does what on which machine when, how sure each date is, and what a late part does."""
