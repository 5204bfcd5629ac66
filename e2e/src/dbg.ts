import { chosen, DESK, openBrowser, openPage, press, says, TestServer, words } from './browser';

const browser = await openBrowser();
const server = await TestServer.open();
const p2 = await openPage(browser, DESK, { units: 'metric' });
await p2.goto(server.at('/plan/pebble-tray/cover'));
const radios = () =>
  p2.evaluate(() =>
    [...document.querySelectorAll('[role=radio][aria-checked=true]')].map(
      e => e.getAttribute('aria-label') ?? e.textContent,
    ),
  );
await press(p2, 'Plate A, engine and transmission');
await new Promise(d => setTimeout(d, 500));
console.log(await radios());
await press(p2, 'Aluminum 6061-T6', 'radio');
await new Promise(d => setTimeout(d, 500));
console.log(await radios());
await press(p2, 'Use this sheet for every plate');
await new Promise(d => setTimeout(d, 500));
console.log(await radios());
await press(p2, 'Plate B, side skirt, left');
await new Promise(d => setTimeout(d, 500));
console.log(await radios(), await words(p2));
process.exit(0);
