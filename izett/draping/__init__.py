"""Shapes that come from outside the draft: draped, wrapped, traced or imported, trued into pieces like any other."""
