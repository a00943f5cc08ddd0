"""Tracing: shapes read from pictures. A photo of a piece among printed sheets, a scan, or a diagram."""
