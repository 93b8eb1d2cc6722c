import { sailings, type Sailing } from "../data";
import { t } from "../messages";

function SailingRow({ sailing }: { sailing: Sailing }) {
  const isFull = sailing.seats === 0;
  return (
    <li className={isFull ? "sailing sailing-full" : "sailing"}>
      <h2>
        {sailing.from} – {sailing.to}
      </h2>
      <p>{t("sailings.list.depature", { time: sailing.departs })}</p>
      <p>Arrives {sailing.arrives}</p>
      <p>{t("sailings.list.boat", { boat: sailing.boat })}</p>
      <p>{t("sailings.list.deck", { deck: sailing.deck })}</p>
      <p>{t("sailings.list.seats", { count: sailing.seats })}</p>
      <p className={`status status-${sailing.status}`}>{t(`sailings.status.${sailing.status}`)}</p>
      <a href="/passengers" title={`Book the ${sailing.boat} at ${sailing.departs}`}>
        {isFull ? "Join the waiting list" : "Book this sailing"}
      </a>
    </li>
  );
}

export function SailingsPage() {
  const island = "Ostrel";
  const fromHere = sailings.filter((sailing) => sailing.from === island);
  return (
    <section>
      <h1>{t("sailings.title", { island })}</h1>
      {fromHere.length === 0 ? (
        <p>{t("sailings.empty")}</p>
      ) : (
        <ul>
          {fromHere.map((sailing) => (
            <SailingRow key={sailing.id} sailing={sailing} />
          ))}
        </ul>
      )}
    </section>
  );
}
