import type { Literal } from "../../source/model.js";
import type { OwnHabits } from "../own-habits.js";
import type { Habits } from "../../source/languages/habits.js";
import { type Evidence, type Place } from "../company.js";

export type EvidenceSource = (
  literal: Literal,
  habits: Habits,
  own: OwnHabits | undefined,
  place: Place,
) => Evidence | readonly Evidence[] | undefined;
