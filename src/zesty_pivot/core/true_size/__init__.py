"""True size without paper: on a screen whose pixels were measured, or thrown on a mat by a projector."""
