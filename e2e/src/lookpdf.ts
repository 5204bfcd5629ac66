import { DESK, openBrowser, openPage, TestServer } from './browser';

const browser = await openBrowser();
const server = await TestServer.open();
for (const s of process.argv.slice(2)) {
  const page = await openPage(browser, DESK, { theme: 'dark' });
  await page.goto(server.at(`/plan/bramble-winter/${s}`));
  await new Promise(d => setTimeout(d, 3000));
  const pdf = await page.pdf({
    path: `/tmp/t/${s}.pdf`,
    format: 'letter',
    printBackground: true,
    preferCSSPageSize: false,
    margin: { top: '12mm', left: '12mm', right: '12mm', bottom: '12mm' },
  });
  console.log(
    s,
    (
      Buffer.from(pdf)
        .toString('latin1')
        .match(/\/Type \/Page\b/g) ?? []
    ).length,
    await page.evaluate(() => [
      document.documentElement.style.cssText,
      document.documentElement.dataset.theme,
    ]),
  );
}
await browser.close();
await server.stop();
process.exit(0);
