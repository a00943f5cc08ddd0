"""The knit family: what a dartless top draws."""
