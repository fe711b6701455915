"""How a garment is put together: what is sewn before what, and with what."""
