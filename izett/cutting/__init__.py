"""From the checked pattern to cloth: cloths, sums, the lay plan, lists of what is cut and bought."""
