import { formatPrice, sailings, type Sailing } from "../data";
import { t } from "../messages";

function findSailing(id: string): Sailing {
  const found = sailings.find((sailing) => sailing.id === id);
  if (!found) throw new Error(`unknown sailing ${id}`);
  return found;
}

export function BasketPage() {
  const chosen = [findSailing("s1"), findSailing("s2")];
  const total = chosen.reduce((sum, sailing) => sum + sailing.fare, 0);
  if (chosen.length === 0) return <p>{t("basket.empty")}</p>;
  return (
    <section>
      <h1>{t("basket.title")}</h1>
      <ul>
        {chosen.map((sailing) => (
          <li key={sailing.id}>
            {sailing.boat} {formatPrice(sailing.fare)}
            <button
              type="button"
              aria-label={t("basket.remove", { boat: sailing.boat, time: sailing.departs })}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      <p className="total">{t("basket.total", { price: formatPrice(total) })}</p>
      <p>
        Please read <a href="/fares">the fare rules</a> before you pay.
      </p>
      <button type="submit">{t("basket.pay")}</button>
    </section>
  );
}
