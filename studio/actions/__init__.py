"""One deed of a person a file: each evaluates first, then writes in one short transaction, and leaves a log line."""
