"""Jobs, and all that the studio holds, carried out as open JSON and back in."""
