"""The Qt application: the only code that imports PyQt6."""
