import { openBrowser, openPage, TestServer } from './browser';

const browser = await openBrowser();
const server = await TestServer.open();
const [, , ...asks] = process.argv;
for (const ask of asks) {
  const [name = '', path = '', w = '1280', h = '800', theme = 'light', act = ''] = ask.split('|');
  const page = await openPage(browser, { width: Number(w), height: Number(h) });
  await page.evaluateOnNewDocument((t: string) => {
    const v = JSON.parse(localStorage.getItem('plate-fold view') ?? '{}');
    localStorage.setItem('plate-fold view', JSON.stringify({ ...v, theme: t }));
  }, theme);
  await page.goto(server.at(path));
  await new Promise(d => setTimeout(d, 2500));
  if (act) await page.evaluate(act).catch(e => console.log(String(e)));
  if (act) await new Promise(d => setTimeout(d, 1500));
  await page.screenshot({ path: `/tmp/t/${name}.png` as `${string}.png` });
  console.log(name, page.faults);
  await page.browserContext().close();
}
await browser.close();
await server.stop();
process.exit(0);
