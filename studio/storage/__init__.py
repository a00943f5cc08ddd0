"""Where the work is kept: faults of the storage in words, backups, what is deleted for good, who may open it."""
