"""Trousers: the crotch seam, the legs with their crease, and front and back as pieces."""
