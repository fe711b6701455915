"""Words in many scripts."""

# A word in each of the scripts that people use the program in, and the font that must write it.
WORDS = {
    "Łódź Čeština": "Hanken Grotesk",
    "Ελληνικά": "Noto Sans",
    "Кириллица": "Noto Sans",
    "前後": "Droid Sans Fallback",
    "かな": "Droid Sans Fallback",
    "עברית": "Noto Sans Hebrew",
    "العربية": "Noto Sans Arabic",
    "Հայերեն": "Noto Sans Armenian",
    "ქართული": "Noto Sans Georgian",
    "ไทย": "Noto Sans Thai",
    "हिन्दी": "Noto Sans Devanagari",
}
