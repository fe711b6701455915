"""The stand view: the pattern sewn on a form, turned and looked at."""
