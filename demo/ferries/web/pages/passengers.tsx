import { t } from "../messages";

const ageGroups = [
  { id: "adult", label: "Adult, 16 and over" },
  { id: "child", label: "Child under 16" },
];

export function PassengersPage() {
  const passenger = { name: "Ines", seat: "C14" };
  const adults = 2;
  const bikes = 1;
  return (
    <section>
      <h1>{t("passengers.title")}</h1>
      <p>
        Hello {passenger.name}, seat {passenger.seat} is yours for the next ten minutes.
      </p>
      <p>
        {t("passengers.adults", { count: adults })}, {t("passengers.bikes", { count: bikes })}
      </p>
      <label>
        {t("passengers.name", { number: 1 })}
        <input name="passenger-1" />
      </label>
      <select name="age">
        {ageGroups.map((group) => (
          <option key={group.id} value={group.id}>
            {group.label}
          </option>
        ))}
      </select>
      <p>
        {bikes} {bikes === 1 ? "bike" : "bikes"} on deck
      </p>
      <button type="button">Add a bike</button>
    </section>
  );
}
