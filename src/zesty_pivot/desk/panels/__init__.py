"""The panels at the right of the table: reading, tracing paper, walk, by hand."""
