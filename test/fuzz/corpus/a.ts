import { t } from "./texts";
enum State { Open = "open", Late = "Running late" }
export class Desk {
  label = "Check-in desk";
  constructor(private log = console.log) {}
  say(n: number) { this.log("debug line"); alert("Boat " + n + " is late"); return t("a.b", { n }); }
}
switch (location.hash) { case "#x": document.title = 'Fares'; break; default: throw new Error(`No page ${location.hash}`); }
