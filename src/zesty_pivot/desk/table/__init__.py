"""The cutting table: what lies on it, the ring round a pivot, and the hands that move them."""
