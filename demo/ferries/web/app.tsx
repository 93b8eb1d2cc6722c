import { Notice } from "./components/notice";
import { t } from "./messages";
import { BasketPage } from "./pages/basket";
import { FaresPage } from "./pages/fares";
import { PassengersPage } from "./pages/passengers";
import { SailingsPage } from "./pages/sailings";
import { SearchPage } from "./pages/search";

export const pages = {
  search: SearchPage,
  sailings: SailingsPage,
  passengers: PassengersPage,
  basket: BasketPage,
  fares: FaresPage,
};
export type PageName = keyof typeof pages;

export function App({ page }: { page: PageName }) {
  const Page = pages[page];
  return (
    <div className="site">
      <header className="site-header">
        <a href="/" className="logo">
          {t("common.title")}
        </a>
        <p className="tagline">{t("common.tagline")}</p>
        <nav>
          <a href="/search">{t("common.nav.search")}</a>
          <a href="/sailings">{t("common.nav.sailings")}</a>
          <a href="/basket">{t("common.nav.basket")}</a>
        </nav>
      </header>
      <main>
        <Notice kind="weather" />
        <Page />
      </main>
      <footer>{t("common.footer.help", { phone: "555 0147" })}</footer>
    </div>
  );
}
