import type { Book, Catalog } from "../../../catalog/book.js";
import { scriptOf } from "../../../locale/script.js";
import { defineRule } from "../../rule.js";
import { languageOf, spanInText, textNodesIn } from "../../text-parts.js";

/** Letters that look like those of a language and are others: what stands for them. */
const mistaken: Readonly<Record<string, ReadonlyMap<string, string>>> = {
  ro: new Map([
    ["ş", "ș"],
    ["ţ", "ț"],
    ["Ş", "Ș"],
    ["Ţ", "Ț"],
  ]),
  fa: new Map([
    ["ي", "ی"],
    ["ك", "ک"],
    ["ى", "ی"],
  ]),
};

/** Characters that only one way of writing Chinese has, each with what the other has; those that both have are left out. */
const simplified =
  "们這国國说說时時对對会會为為来來学學实實发發经經还還进進样樣问問关關开開门門间間车車东東书書长長无無业業两兩严嚴丽麗举舉乐樂习習买買乱亂争爭亏虧产產亲親亿億从從优優传傳伤傷债債儿兒兴興养養写寫军軍农農击擊则則刚剛创創删刪办辦务務动動劳勞单單卖賣卫衛厂廠厅廳历歷压壓变變号號听聽员員响響团團园園围圍图圖场場块塊坏壞坚堅报報处處备備头頭夹夾夺奪奖獎妇婦妈媽孙孫宁寧宝寶审審宽寬宾賓导導将將层層属屬岁歲岛島币幣帅帥师師帐帳带帶帮幫库庫应應庙廟废廢异異张張弹彈强強归歸录錄彻徹径徑态態总總恋戀恶惡戏戲战戰户戶执執扩擴扫掃扬揚扰擾护護担擔拟擬择擇挂掛挡擋挥揮损損换換据據摄攝摆擺摇搖数數断斷旧舊显顯晓曉暂暫术術机機杀殺杂雜权權条條极極构構枪槍标標栏欄树樹档檔桥橋检檢楼樓欢歡毁毀毕畢气氣汇匯汉漢沟溝没沒泪淚泽澤洁潔测測济濟浏瀏涨漲温溫游遊湾灣湿濕满滿滚滾灭滅灯燈灵靈炉爐点點烂爛烦煩烧燒热熱爱愛爷爺状狀犹猶独獨狱獄猎獵环環码碼础礎确確离離种種积積称稱稳穩窃竊竞競笔筆签簽简簡类類粮糧紧緊红紅约約级級纪紀纯純纲綱纳納纵縱纷紛纸紙线線组組细細终終绍紹结結绕繞绘繪给給络絡绝絕统統继繼绩績续續维維绿綠缓緩编編缘緣缩縮网網罗羅罚罰职職联聯聪聰肃肅肤膚胁脅胜勝脑腦脚腳脸臉艰艱艺藝节節荐薦药藥获獲虑慮补補装裝见見观觀规規视視览覽觉覺触觸计計订訂认認讨討让讓训訓议議记記讲講许許论論设設访訪证證评評识識诉訴词詞译譯试試诗詩话話该該详詳语語误誤请請诸諸读讀课課调調谁誰谈談谢謝贝貝负負责責败敗货貨质質购購贯貫贴貼贵貴贷貸费費贺賀资資赋賦赌賭赏賞赖賴赛賽赞贊赢贏赶趕趋趨跃躍践踐踪蹤转轉轮輪软軟轻輕载載较較辅輔辆輛辑輯输輸辞辭边邊达達迁遷过過迈邁运運远遠违違连連迟遲适適选選递遞逻邏遗遺邮郵邻鄰释釋鉴鑒针針钟鐘钢鋼钱錢铁鐵铜銅银銀链鏈销銷锁鎖错錯键鍵锦錦闪閃闭閉闲閒闻聞阅閱队隊阳陽阴陰阵陣阶階际際陆陸陈陳险險随隨隐隱难難雾霧静靜页頁顶頂项項顺順须須顾顧顿頓预預领領频頻题題颜顏额額风風飞飛饭飯饮飲馆館马馬驱驅驶駛验驗骗騙鱼魚鲜鮮鸟鳥鸡雞麦麥黄黃齐齊齿齒龙龍龟龜";

const toTraditional = new Map<string, string>();
const toSimplified = new Map<string, string>();
{
  const all = [...simplified];
  for (let at = 0; at + 1 < all.length; at += 2) {
    toTraditional.set(all[at] ?? "", all[at + 1] ?? "");
    toSimplified.set(all[at + 1] ?? "", all[at] ?? "");
  }
}

/** The letters that stand for others in a locale; undefined where none do. */
function mistakenIn(
  locale: string,
): { readonly letters: ReadonlyMap<string, string>; readonly least: number } | undefined {
  const language = languageOf(locale);
  const own = mistaken[language];
  if (own) return { letters: own, least: 1 };
  if (language !== "zh") return undefined;
  // A name may be written the other way, so one character says nothing.
  const script = /^zh(?:$|-(?:Han[st]|CN|SG|MY|TW|HK|MO)\b)/.test(locale) ? scriptOf(locale) : undefined;
  return script === "Hant"
    ? { letters: toTraditional, least: 2 }
    : script === "Hans"
      ? { letters: toSimplified, least: 2 }
      : undefined;
}

/** Whether plain `zh` is mostly the other Chinese: beside a locale of the simplified one. */
function isOtherBeside(locale: string, { sourceLocale, targetLocales }: Book): boolean {
  const others = [sourceLocale, ...targetLocales];
  return locale === "zh" && others.some((one) => one !== "zh" && /^zh-(?:Hans|CN|SG)/.test(one));
}

/** So many texts with letters of the other Chinese, and so many times as many as with its own, are a catalog in that. */
const leastOther = 20;
const timesOther = 4;

const inOther = new WeakMap<Catalog, boolean>();

/** Whether nearly all texts of a catalog in Chinese are in the characters that its locale does not have: said once. */
function isInOther(catalog: Catalog): boolean {
  const known = inOther.get(catalog);
  if (known !== undefined) return known;
  const found = mistakenIn(catalog.locale);
  let [other, own] = [0, 0];
  if (found && found.least > 1) {
    const proper = found.letters === toSimplified ? toTraditional : toSimplified;
    for (let at = 0; at < catalog.table.size; at++) {
      const letters = [...catalog.table.textAt(at)];
      if (letters.some((letter) => found.letters.has(letter))) other++;
      else if (letters.some((letter) => proper.has(letter))) own++;
    }
  }
  const isOther = other >= leastOther && other >= own * timesOther;
  inOther.set(catalog, isOther);
  return isOther;
}

export const textLetter = defineRule({
  id: "text/letter",
  level: "warning",
  summary:
    "Letters of another language that look like this one's: cedillas in Romanian, Arabic letters in Persian, the other Chinese.",
  why: "Searches do not find such words, fonts may lack the letters, and readers of traditional characters notice simplified ones at once. Of Chinese characters two different ones are needed, since names are written as their owners do.",
  messages: {
    mistaken: { message: '"{letter}" is not a letter of {locale}', remedy: 'write "{meant}"' },
    chinese: {
      message: "{letters} are not written so in {locale}",
      remedy: "check whether the text was made for another locale",
    },
    catalog: {
      message: "nearly all texts are in {script} characters, and {locale} is written in {own} ones",
      remedy: "name the locale by its script, such as {meant}, or translate the texts",
    },
  },
  examples: {
    bad: [
      { locale: "ro", source: "Save and close", target: "Salvează şi închide", fixed: "Salvează și închide" },
      { locale: "ro", source: "🎉 Saved", target: "🎉 Aţi salvat", fixed: "🎉 Ați salvat" },
      { locale: "fa", source: "Your boat", target: "قايق شما", fixed: "قایق شما" },
      { locale: "zh-TW", source: "Open the settings", target: "打开设置页面" },
    ],
    good: [
      { locale: "ro", source: "Save and close", target: "Salvează și închide" },
      { locale: "tr", source: "Boats", target: "Gemiler ve şehir" },
      { locale: "zh-TW", source: "Open the settings", target: "開啟設定頁面" },
    ],
  },
  looks: "beside",
  needs: ["script", "extra"],
  file(context, catalog) {
    const { locale, file } = catalog;
    if (isOtherBeside(locale, context.book) || !isInOther(catalog)) return;
    const isTraditional = scriptOf(locale) === "Hant";
    const [script, own, meant] = isTraditional
      ? ["simplified", "traditional", "zh-Hans"]
      : ["traditional", "simplified", "zh-Hant"];
    context.reportFile(file, "catalog", { script, own, locale, meant });
  },
  entry(view, { book }) {
    const found = mistakenIn(view.locale);
    if (!found || isOtherBeside(view.locale, book) || isInOther(view.catalog)) return;
    const { letters, least } = found;
    const met = new Set([...view.message.facts.text].filter((letter) => letters.has(letter)));
    if (met.size < least) return;
    if (least > 1) {
      view.report("chinese", { letters: [...met].slice(0, 4).join(" "), locale: view.locale });
      return;
    }
    for (const node of textNodesIn(view.message.nodes)) {
      const letter = [...node.value].find((one) => letters.has(one));
      if (letter === undefined) continue;
      const index = node.value.indexOf(letter);
      const meant = letters.get(letter) ?? "";
      const span = spanInText(node, index, letter.length);
      view.report(
        "mistaken",
        { letter, locale: view.locale, meant },
        { span, fix: span && span.end - span.start === 1 ? meant : undefined },
      );
      return;
    }
  },
});
