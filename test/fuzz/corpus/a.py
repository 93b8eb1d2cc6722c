"""Docs."""
from tkinter import Label
MESSAGES = {"late": "The boat is late"}
class Desk:
    title: str = "Check-in desk"
    def say(self, n, name):
        if n == 1: raise ValueError(f"Unknown boat {name!r} at {n:>3}")
        flash("There {} {} boats".format("is" if n == 1 else "are", n)); print('debug %s' % name)
        return Label(self, text=f"{n} boat{'s' if n != 1 else ''}" """ and 'more' """)
