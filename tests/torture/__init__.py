"""`make torture`: what nobody would do on purpose, by the thousand, from a seed. A small slice runs with the other tests."""
