# texts
TEXTS = {
    "a": "x",  # one
    'b': {"c": f"{d}", "e": "f" "g"},
    "h": ["i", """j
k"""],
}
