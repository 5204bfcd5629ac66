import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { contains, type Vec3 } from '@plate-fold/core/geometry';
import type { PlanDocument } from '@plate-fold/core/plan';
import { presentRig } from '@plate-fold/core/rig';
import { seenFrom, VIEWS } from '@plate-fold/core/scan';
import { phoneAxes, scannedUnderside, stlOf } from '@plate-fold/core/testing';
import { demo, demoPath } from '@plate-fold/demo';
import type { ElementHandle, Page } from 'puppeteer-core';
import { describe, expect } from 'vitest';
import { closePage, DESK, downloadsOf, openPage, PHONE, press, saved, says, storedPlan } from './browser';
import { it } from './fixtures';

type At = readonly [number, number, number];

/** Chooses in a list by its label. */
async function choose(page: Page, label: string, value: string): Promise<void> {
  const id = await page.$$eval(
    'label',
    (all, l) => all.find(x => x.textContent === l)?.getAttribute('for'),
    label,
  );
  await page.select(`select[id="${id}"]`, value);
}
/** Types a reading and adds it. */
async function read(page: Page, text: string): Promise<void> {
  const field = await page.waitForSelector('form[aria-label="Add a reading"] input[autocomplete="off"]');
  await field?.type(text);
  await page.keyboard.press('Enter');
  await page.waitForFunction(
    () =>
      (
        document.querySelector(
          'form[aria-label="Add a reading"] input[autocomplete="off"]',
        ) as HTMLInputElement
      ).value === '',
  );
}

describe('a tape net under the vehicle', () => {
  it('is typed on a phone, a misread tape is found and mended, and holes are where it puts them', {
    timeout: 180_000,
  }, async ({ browser, server }) => {
    const r = await fetch(server.at('/api/documents/pebble-tray'));
    const { rig } = ((await r.json()) as { document: { rig: { mounts: { id: string; at: At }[] } } })
      .document;
    const at = new Map(rig.mounts.map(m => [m.id, m.at]));
    const apart = (a: string, b: string): number =>
      Math.hypot(...(at.get(a) as At).map((x, k) => x - (at.get(b)?.[k] as number)));
    const page = await openPage(browser, PHONE);
    await page.goto(server.at('/plan/pebble-tray/rig'));
    await press(page, 'Survey', 'tab');
    await says(page, 'Measure from hole to hole');
    for (const point of ['h1lo', 'h1ro']) {
      await choose(page, 'Point', point);
      await press(page, 'Hold it where it is');
      await says(page, 'Let it go');
    }
    const inch = (mm: number): string => `${Math.round((mm / 25.4) * 16) / 16}`;
    // h2li is found from two held holes and from the two others, each of which is found from the held ones
    const taped: readonly (readonly [string, string])[] = [
      ['h1lo', 'h2lo'],
      ['h1ro', 'h2lo'],
      ['h1lo', 'h2ro'],
      ['h1ro', 'h2ro'],
      ['h2lo', 'h2ro'],
      ['h1lo', 'h2li'],
      ['h1ro', 'h2li'],
      ['h2lo', 'h2li'],
      ['h2ro', 'h2li'],
    ];
    for (const [from, to] of taped) {
      await choose(page, 'From', from);
      await choose(page, 'To', to);
      const wrong = from === 'h2lo' && to === 'h2li' ? 25.4 : 0;
      await read(page, inch(apart(from, to) + wrong));
    }
    await press(page, 'Height', 'radio');
    for (const point of ['h2lo', 'h2ro', 'h2li']) {
      await choose(page, 'Point', point);
      await read(page, inch(at.get(point)?.[2] as number));
    }
    await says(page, /h2lo to h2li reads 8 \d+\/16 in; all others say 7 13\/16 in/);
    await press(page, 'Take it as 7 13/16 in');
    await says(page, 'The readings agree within their doubts');
    await saved(page);
    const stored = await fetch(server.at('/api/documents/pebble-tray'));
    const { document } = (await stored.json()) as {
      document: { rig: { mounts: { id: string; at: At; sigma?: At }[]; survey: { distances: unknown[] } } };
    };
    expect(document.rig.survey.distances).toHaveLength(taped.length);
    const hole = document.rig.mounts.find(m => m.id === 'h2li')!;
    expect(hole.sigma?.every(s => s > 0.2 && s < 5)).toBe(true);
    hole.at.forEach((x, k) => {
      expect(Math.abs(x - (at.get('h2li')?.[k] as number))).toBeLessThan(4);
    });
    expect(page.faults).toEqual([]);
    await closePage(page);
  });

  it('of Bramble shows the tape that was misread on the map, and what to measure next fills the form', async ({
    browser,
    server,
  }) => {
    const page = await openPage(browser, DESK);
    await page.goto(server.at('/plan/bramble-winter/rig'));
    await press(page, 'Survey', 'tab');
    await says(page, /h3lo to h4ri reads 29 1\/8 in; all others say 28 3\/16 in/);
    await page.waitForSelector('[aria-label="Point h4ri"]');
    await page.locator('button ::-p-text(Tape from h4lo to h4ri)').click();
    expect(
      await page.$$eval('form[aria-label="Add a reading"] select', all =>
        all.map(s => (s as HTMLSelectElement).value),
      ),
    ).toEqual(['h4lo', 'h4ri']);
    await read(page, '18 7/8');
    await says(page, 'Readings, 33');
    await press(page, 'Take it out');
    await says(page, 'Readings, 32');
    const plan = await storedPlan(server, page, 'bramble-winter');
    expect(plan.id).toBe('bramble-winter');
    expect(page.faults).toEqual([]);
    await closePage(page);
  });
});

/** The segment of a JPEG that tells a focal length as if on 35 mm film (Exif 2.3: tag 0xA405 in the IFD that tag 0x8769 leads to). */
function exifSegment(mm: number): Buffer {
  const tiff = Buffer.alloc(44);
  tiff.write('II', 0, 'latin1');
  tiff.writeUInt16LE(42, 2);
  tiff.writeUInt32LE(8, 4);
  tiff.writeUInt16LE(1, 8);
  tiff.writeUInt16LE(0x8769, 10);
  tiff.writeUInt16LE(4, 12);
  tiff.writeUInt32LE(1, 14);
  tiff.writeUInt32LE(26, 18);
  tiff.writeUInt16LE(1, 26);
  tiff.writeUInt16LE(0xa405, 28);
  tiff.writeUInt16LE(3, 30);
  tiff.writeUInt32LE(1, 32);
  tiff.writeUInt16LE(mm, 36);
  const head = Buffer.alloc(4);
  head.writeUInt16BE(0xffe1, 0);
  head.writeUInt16BE(2 + 6 + tiff.length, 2);
  return Buffer.concat([head, Buffer.from('Exif\0\0', 'latin1'), tiff]);
}

describe('photos of the underside', () => {
  it('are added on a phone, marked by finger, set up from the marks, and laid under the map', {
    timeout: 180_000,
  }, async ({ browser, server }) => {
    const page = await openPage(browser, PHONE);
    const folder = await downloadsOf(page);
    const torn = join(folder, 'torn.jpg');
    await writeFile(torn, 'no picture at all');
    await page.goto(server.at('/plan/bramble-winter/rig'));
    await press(page, 'Survey', 'tab');
    const before = (await (await fetch(server.at('/api/documents/bramble-winter'))).json()) as {
      document: {
        rig: {
          survey: {
            photos: { id: string; name: string; marks: { point: string; px: readonly [number, number] }[] }[];
          };
        };
      };
    };
    const known = before.document.rig.survey.photos.find(p => p.id === 'survey-rear')!;
    await says(page, known.name);
    await page.locator(`button ::-p-text(${known.name})`).click();
    await press(page, 'Remove the photo');
    await page.waitForFunction(n => !document.body.innerText.includes(n), {}, known.name);
    const upload = async (path: string): Promise<void> => {
      const input = await page.waitForSelector('input[aria-label="Photo of the underside"]');
      await (input as ElementHandle<HTMLInputElement>).uploadFile(path);
    };
    await upload(torn);
    await says(page, 'cannot read that file as a picture. Nothing was added.');
    const picture = join(folder, 'under the belly.png');
    await writeFile(
      picture,
      await readFile(demoPath('bramble').replace('.platefold.json', '.survey-rear.png')),
    );
    await upload(picture);
    await says(page, '0 marks, at least 4 wanted');
    const drawing = await page.waitForSelector('svg[aria-label="Photo under the belly"]');
    await drawing?.evaluate(e => e.scrollIntoView({ block: 'center' }));
    // the picture is nearer than whole, so that a finger is fine enough
    const image = async (): Promise<{ x: number; y: number; k: number }> =>
      (await page.$eval('svg[aria-label="Photo under the belly"] image', e => {
        const r = e.getBoundingClientRect();
        return { x: r.left, y: r.top, k: r.width / 1000 };
      })) as { x: number; y: number; k: number };
    const inTurn = known.marks.slice(0, 6);
    await choose(page, 'Mark on it', inTurn[0]?.point ?? '');
    for (const { point, px } of inTurn) {
      await choose(page, 'Mark on it', point);
      await drawing?.evaluate(e => e.scrollIntoView({ block: 'center' }));
      const { x, y, k } = await image();
      const to = [x + px[0] * k, y + px[1] * k] as const;
      const finger = await page.touchscreen.touchStart(to[0] - 20, to[1] + 30);
      await finger.move(to[0] - 8, to[1] + 9);
      await page.waitForSelector('svg[aria-label="Photo under the belly"] clipPath');
      await finger.move(to[0], to[1]);
      await finger.end();
      await page.waitForSelector(`[aria-label="Mark of ${point}"]`);
    }
    await says(page, /6 marks, off \d+\.\d px/);
    await saved(page);
    const plan = (await (await fetch(server.at('/api/documents/bramble-winter'))).json()) as typeof before;
    const made = plan.document.rig.survey.photos.find(p => p.name === 'under the belly')!;
    for (const { point, px } of inTurn) {
      const mark = made.marks.find(m => m.point === point)!;
      expect(Math.hypot(mark.px[0] - px[0], mark.px[1] - px[1]), point).toBeLessThan(4);
    }
    // the server has the picture itself
    const kept = await fetch(server.at(`/api/documents/bramble-winter/photos/${made.id}`));
    expect(kept.headers.get('content-type')).toBe('image/jpeg');
    // a mark that is nudged by keys, and one that is taken off
    const first = `[aria-label="Mark of ${inTurn[0]?.point}"]`;
    await page.$eval(first, e => (e as SVGElement).focus());
    await page.keyboard.press('ArrowRight');
    await page.$eval(first, e => (e as SVGElement).focus());
    await page.keyboard.press('Delete');
    await says(page, /5 marks, off/);
    await press(page, 'Back to the map');
    await page
      .locator('section[aria-label="Under the map"] [role="radio"] ::-p-text(under the belly)')
      .click();
    await page.waitForSelector('[data-ground]');
    // a picture whose file tells its lens: 26 mm on film, of 43.27 mm across, is 751 of 1250 px across
    const plain = Buffer.from(await kept.arrayBuffer());
    const told = join(folder, 'told.jpg');
    await writeFile(told, Buffer.concat([plain.subarray(0, 2), exifSegment(26), plain.subarray(2)]));
    await upload(told);
    await says(page, 'Focal length held at 751 px, as its file tells');
    expect(page.faults).toEqual([]);
    await closePage(page);
  });
});

describe('a scan of the underside', () => {
  it('is laid on by points, gives a part its outline and a hole its place, and plates are held against it', {
    timeout: 240_000,
  }, async ({ browser, server }) => {
    const { rig } = demo('heron');
    const own = phoneAxes(0.4);
    const mesh = scannedUnderside(rig, own);
    const page = await openPage(browser, DESK, { units: 'metric' });
    const folder = await downloadsOf(page);
    const [file, torn] = [join(folder, 'heron belly.stl'), join(folder, 'torn.ply')];
    await writeFile(file, stlOf(mesh));
    await writeFile(torn, 'ply\nformat ascii 1.0\nelement vertex 1\nend_header\n');
    await page.goto(server.at('/plan/heron-autumn/rig'));
    await press(page, 'Survey', 'tab');
    const input = (await page.waitForSelector(
      'input[aria-label="Scan of the underside"]',
    )) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(torn);
    await says(page, /torn\.ply (has no triangles|is torn).*Nothing was changed/);
    await input.uploadFile(file);
    await says(page, /heron belly: [\d,]+ triangles/);
    await says(page, 'Which of these shows the underside?');
    // y is up on a phone: the first side looks up along it
    await page.locator('button[aria-label^="Side 1"]').click();
    await says(page, 'Mark on the scan');
    const view = VIEWS[0]!;
    const seen = seenFrom(mesh, view, 1800)!;
    const label = 'svg[aria-label="Scan heron belly"]';
    const holes = rig.mounts.filter(m => (m.normal?.[2] ?? -1) < -0.9);
    // far apart from one another
    const far = [holes[0]!, holes.at(-1)!, holes[Math.floor(holes.length / 2)]!, holes[3]!];
    for (const [i, m] of far.entries()) {
      const p = own(m.at);
      const dot = (a: Vec3): number => a[0] * p[0] + a[1] * p[1] + a[2] * p[2];
      const px = [
        (dot(view.right) - seen.from[0]) / seen.step + 0.5,
        (dot(view.down) - seen.from[1]) / seen.step + 0.5,
      ] as const;
      await choose(page, 'Mark on the scan', m.id);
      if (i === 0) {
        await page.waitForSelector(label);
        await press(page, 'Nearer');
        await press(page, 'Whole picture');
      }
      const box = (await page.$eval(`${label} image`, e => {
        const r = e.getBoundingClientRect();
        return { x: r.left, y: r.top, w: r.width };
      })) as { x: number; y: number; w: number };
      const k = box.w / seen.width;
      await page.mouse.move(box.x + px[0] * k + 9, box.y + px[1] * k - 7);
      await page.mouse.down();
      await page.mouse.move(box.x + px[0] * k, box.y + px[1] * k, { steps: 3 });
      await page.mouse.up();
      await page.waitForSelector(`[aria-label="Mark of ${m.id}"]`);
      if (i === 1) await says(page, 'Line it up');
    }
    // a finger's width of a pixel is some 10 mm of a vehicle that is shown whole
    await says(page, /The points are off by \d+(\.\d)? mm/);
    await press(page, 'Line it up');
    await says(page, 'heron belly, lined up on 4 points');
    await page
      .locator('section[aria-label="Under the map"] [role="radio"] ::-p-text(scan heron belly)')
      .click();
    await page.waitForSelector('[data-ground]');
    // a hole's place and a part's outline from the middle of the map
    const taken = async (what: string): Promise<void> => {
      await page.select('section[aria-label="Scan"] select', what);
      const map = await page.waitForSelector('svg[aria-label="Map of the survey"] rect.cursor-crosshair');
      const at = (await map!.boundingBox())!;
      await page.mouse.click(at.x + at.width / 2, at.y + at.height / 2);
      await page.waitForFunction(
        () => (document.querySelector('section[aria-label="Scan"] select') as HTMLSelectElement).value === '',
      );
    };
    const [hole] = rig.mounts;
    const part = rig.components.find(c => c.kind === 'transmission')!;
    await taken(`hole ${hole?.id}`);
    await taken(`part ${part.id}`);
    await saved(page);
    const plan = (await (await fetch(server.at('/api/documents/heron-autumn'))).json()) as {
      document: PlanDocument;
    };
    // what the scan has there is the lowest thing of the vehicle there
    const [x, y, z] = plan.document.rig.mounts.find(m => m.id === hole?.id)!.at;
    const over = [...presentRig(rig).members, ...presentRig(rig).components].filter(m =>
      contains(m.footprint, [x, y]),
    );
    expect(Math.abs(z - Math.min(...over.map(m => m.zBottom)))).toBeLessThan(8);
    const found = plan.document.rig.components.find(c => c.id === part.id)!;
    expect(contains(found.footprint, [x, y])).toBe(true);
    expect(Math.abs(found.zBottom - z)).toBeLessThan(8);
    expect(plan.document.rig.scan).toMatchObject({ mmPerUnit: 1000 });
    expect(plan.document.rig.scan?.pairs).toHaveLength(4);
    const kept = await fetch(server.at(`/api/documents/heron-autumn/scans/${plan.document.rig.scan?.id}`));
    expect(kept.status).toBe(200);
    // and a plate against it
    await page.goto(server.at('/plan/heron-autumn/cover'));
    await press(page, 'Plate A, engine and front differential');
    await says(page, /To the scan\s*−?\d+(\.\d)?\s*mm/);
    // what was scanned is seen under the plates
    await press(page, 'Scan');
    await page.waitForSelector('svg[aria-label="Map of the underside"] image[data-ground]');
    await press(page, 'Scan');
    await page.waitForFunction(() => !document.querySelector('image[data-ground]'));
    expect(page.faults).toEqual([]);
    await closePage(page);
  });
});
