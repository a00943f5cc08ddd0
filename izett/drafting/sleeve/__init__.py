"""The one-piece set-in sleeve: its cap, the solving of the cap to an armhole, its piece and seams."""
