import { islands } from "../data";
import { t } from "../messages";

export function SearchPage() {
  const found = 3;
  return (
    <section>
      <h1>{t("search.title")}</h1>
      <form method="get" action="/sailings">
        <label>
          {t("search.form.from")}
          <input name="from" placeholder="Island or quay" autoComplete="off" list="islands" />
        </label>
        <button type="button" className="swap" aria-label="Swap the two islands">
          ⇄
        </button>
        <label>
          {t("search.form.to")}
          <select name="to">
            {islands.map((island) => (
              <option key={island} value={island}>
                {island}
              </option>
            ))}
          </select>
        </label>
        <label>
          {t("search.form.date")}
          <input name="day" type="date" />
        </label>
        <label>
          <input type="checkbox" name="bikes" /> Only sailings with room for bikes
        </label>
        <button type="submit">{t("search.form.submit")}</button>
      </form>
      <p className="results">{t("search.results", { count: found })}</p>
    </section>
  );
}
