"""Commands of the command line, a subject a module."""
