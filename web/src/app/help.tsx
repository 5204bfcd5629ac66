import { EXPLAINED, type Explained } from '@plate-fold/core/explain';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { GlossaryDrawing } from './glossary-drawing';
import { GLOSSARY, GUIDE } from './guide';
import { STAGES } from './stages';

/** How the figures are computed, as it is told beside each of them too. */
const METHODS = Object.entries(EXPLAINED as Readonly<Record<string, Explained>>);

function Section({ id, title, children }: { id: string; title: string; children: ReactNode }) {
  return (
    <section id={id} className="mt-8">
      <h2 className="mb-2 text-head font-bold">{title}</h2>
      {children}
    </section>
  );
}

/** What each stage is for, the trade's words with drawings, and where the figures come from. */
export function Help() {
  const [text, setText] = useState('');
  const terms = GLOSSARY.filter(t =>
    `${t.term} ${t.means}`.toLowerCase().includes(text.trim().toLowerCase()),
  );
  return (
    <main className="mx-auto max-w-5xl px-5 py-6 desk:px-10">
      <Link to="/" className="inline-flex min-h-11 items-center underline">
        All plans
      </Link>
      <h1 className="text-large font-extrabold">Help</h1>
      <Section id="stages" title="The eight stages">
        <ul className="grid gap-x-6 gap-y-2 desk:grid-cols-2">
          {STAGES.map((s, i) => (
            <li key={s.id} className="flex gap-3 rounded-edge border border-scribe bg-paper p-3">
              <s.icon size={22} aria-hidden="true" className="mt-0.5 shrink-0" />
              <div>
                <h3 className="font-bold">
                  {i + 1}. {s.name}
                </h3>
                <p className="text-body leading-snug">{GUIDE[s.id].does}</p>
              </div>
            </li>
          ))}
        </ul>
      </Section>
      <Section id="glossary" title="Glossary">
        <input
          type="search"
          aria-label="Search the glossary"
          placeholder="Search the glossary"
          value={text}
          onChange={e => setText(e.target.value)}
          className="mb-3 min-h-11 w-full rounded-edge border border-scribe bg-paper px-3 placeholder:text-ink2 desk:w-80"
        />
        <ul className="grid gap-3 desk:grid-cols-2">
          {terms.map(t => (
            <li key={t.term} className="flex gap-3 border-b border-scribe/70 pb-3">
              {t.drawing && <GlossaryDrawing of={t.drawing} term={t.term} />}
              <div>
                <h3 className="font-bold">{t.term}</h3>
                <p className="leading-snug">{t.means}</p>
              </div>
            </li>
          ))}
        </ul>
        {terms.length === 0 && <p className="text-ink2">No term matches.</p>}
      </Section>
      <Section id="method" title="How the figures are computed">
        <dl className="grid gap-2">
          {METHODS.map(([id, e]) => (
            <div key={id} className="grid gap-x-4 border-b border-scribe/70 pb-2 desk:grid-cols-[14rem_1fr]">
              <dt className="font-bold">{e.name}</dt>
              <dd className="leading-snug">
                {e.formula}
                <span className="block text-small text-ink2">
                  From {e.from}. Source: {e.source} {e.estimated && `Estimate: ${e.estimated}`}
                </span>
              </dd>
            </div>
          ))}
        </dl>
        <p className="mt-3 text-small text-ink2">
          Strength and torque figures are estimates, not certificates. The vehicle maker’s values, local rules
          and licensed practice come first. Never work under a vehicle on a jack alone.
        </p>
      </Section>
    </main>
  );
}
