import { rich, t } from "../messages";

export function FaresPage() {
  return (
    <section>
      <h1>{t("fares.title")}</h1>
      <p>{t("fares.children", { age: 6 })}</p>
      <p>{t("fares.checkIn", { minutes: 20 })}</p>
      <p>{t("fares.loyalty", { trip: 3 })}</p>
      <p>{rich("fares.terms", { terms: (children) => <a href="/conditions">{children}</a> })}</p>
      <img src="/img/heron.jpg" alt="The Heron leaving Ostrel at dawn" width="640" height="360" />
    </section>
  );
}
