import { BAND, type JointSeat, POST_WEB, type ResolvedJoint, stackFaults } from '@plate-fold/core/bolt';
import type { FoldedPanel } from '@plate-fold/core/fold';
import { panelWord, topPlateOf } from '@plate-fold/core/plan';
import { formatLength, type UnitSystem } from '@plate-fold/core/units';
import { sheetName } from '../ui/names';
import { box } from './box';
import { HatchDefs, hatch } from './hatch';
import { NutShape } from './nut-shape';
import {
  type DrawnLayer,
  isPost,
  isRoundTube,
  isStrap,
  isSunk,
  isTapped,
  layOutStack,
  spreadLabels,
  tubeOf,
} from './stack-layout';
import { StrapSection } from './strap-section';

interface SectionProps {
  readonly joint: ResolvedJoint;
  /** where the joint stands: what should lie together and does not is drawn apart */
  readonly seat?: JointSeat;
  readonly panels: readonly FoldedPanel[];
  readonly units: UnitSystem;
  readonly width: number;
  readonly height: number;
  readonly exploded: boolean;
}

/** Outline of a head, seen from the side: `R` half its width, `r` half the shank, from its outer face to its bearing face. */
function headPath(
  kind: string,
  cx: number,
  R: number,
  flats: number,
  r: number,
  outer: number,
  bearing: number,
): string {
  const d = bearing - outer;
  switch (kind) {
    case 'countersunk':
      return `M${cx - R} ${outer}H${cx + R}L${cx + r} ${bearing}H${cx - r}Z`;
    case 'button':
    case 'carriage':
    case 'tamper-5':
    case 'tamper-6':
      return `M${cx - R} ${bearing}C${cx - R} ${bearing - d * 0.75} ${cx - R * 0.5} ${outer} ${cx} ${outer}S${cx + R} ${bearing - d * 0.75} ${cx + R} ${bearing}Z`;
    case 'flange': {
      const step = bearing - d * 0.22;
      return `M${cx - R} ${bearing}V${step}L${cx - flats} ${bearing - d * 0.38}V${outer}H${cx + flats}V${bearing - d * 0.38}L${cx + R} ${step}V${bearing}Z`;
    }
    default:
      return box(cx - R, cx + R, outer, bearing);
  }
}

/** Labels stand so far right of the drawing, px. */
const LABEL_FROM = 12;

/** What stands beside a layer: its name and, small, its measure. */
function labelOf(part: DrawnLayer, { joint, panels, units }: SectionProps): readonly [string, string] {
  const { layer } = part;
  const thick = formatLength(layer.thickness, units, true);
  switch (layer.kind) {
    case 'head': {
      const [name = '', more] = layer.name.split(', ');
      const size = `${joint.thread.designation} × ${formatLength(joint.lengthMm, joint.thread.system === 'inch' ? 'inch' : 'metric')}`;
      return [name, more ? `${more.replace(' with pin', '')}, ${size}` : size];
    }
    case 'plate': {
      const p = panels.find(x => x.panel.id === layer.ref);
      const tapped = layer.ref === topPlateOf(joint.joint) && isTapped(joint) ? ', tapped' : '';
      return [p ? panelWord(p.panel) : 'plate', `${p ? sheetName(p.sheet) : thick}${tapped}`];
    }
    case 'bar':
      return [layer.name, `${thick} through`];
    case 'member':
      if (topPlateOf(joint.joint) !== undefined) return [layer.name, `${thick} right through`];
      return [layer.name, `wall ${thick}${isTapped(joint) ? ', tapped' : ''}`];
    case 'washer':
      return [
        layer.name,
        `⌀${formatLength(layer.diameter, units, true)} × ${formatLength(layer.thickness, units, true)}`,
      ];
    case 'nut':
      return [layer.name.split(', ')[0] ?? '', `${thick} deep`];
    default:
      return [layer.name, thick];
  }
}

interface FootProps {
  readonly j: ResolvedJoint;
  readonly cx: number;
  readonly k: number;
  readonly part: DrawnLayer;
  readonly Y: (s: number) => number;
  readonly ink: object;
}

/** A tube clamp: a foot tapped toward the head, two halves round the tube, held by a screw on either side. */
function Clamp({ j, cx, k, part, Y, ink }: FootProps) {
  const [r, w] = [(j.thread.d / 2) * k, (part.layer.diameter / 2) * k];
  const foot = Math.max(part.from, part.to - POST_WEB);
  const R = tubeOf(j) / 2;
  const band = BAND.thickness;
  const middle = Y(part.to + R);
  const ear = (R + band) * k;
  const wall = Math.min(j.member?.wall ?? 2, R / 2);
  return (
    <g fill="var(--stainless)" {...ink}>
      <path
        d={`${box(cx - w, cx - r, Y(part.from), Y(foot))}${box(cx + r, cx + w, Y(part.from), Y(foot))}${box(cx - w, cx + w, Y(foot), Y(part.to))}`}
      />
      <path
        d={`${box(cx - ear - 9 * k, cx - ear + 1, middle - 4 * k, middle + 4 * k)}${box(cx + ear - 1, cx + ear + 9 * k, middle - 4 * k, middle + 4 * k)}`}
      />
      <circle cx={cx} cy={middle} r={ear} />
      <circle cx={cx} cy={middle} r={R * k} fill={hatch('section', 'member')} />
      <circle cx={cx} cy={middle} r={(R - wall) * k} fill="var(--paper)" />
      <path d={`M${cx - ear - 9 * k} ${middle}H${cx - R * k}M${cx + R * k} ${middle}H${cx + ear + 9 * k}`} />
    </g>
  );
}

/** A threaded post: tapped toward the head, solid at its foot, its stud in the thread of the hole. */
function Post({ j, cx, k, part, Y, ink }: FootProps) {
  const [r, w] = [(j.thread.d / 2) * k, (part.layer.diameter / 2) * k];
  const foot = Math.max(part.from, part.to - POST_WEB);
  const end = part.to + (j.member?.wall ?? 0) + 0.8 * j.thread.d;
  const nut = j.mount?.hole.kind === 'captive-nut' ? part.to + (j.member?.wall ?? 0) : end;
  return (
    <g fill="var(--stainless)" {...ink}>
      <path d={box(cx - 1.6 * r, cx + 1.6 * r, Y(nut), Y(end))} />
      <path
        d={`${box(cx - w, cx - r, Y(part.from), Y(foot))}${box(cx + r, cx + w, Y(part.from), Y(foot))}${box(cx - w, cx + w, Y(foot), Y(part.to))}${box(cx - r, cx + r, Y(part.to), Y(end))}`}
      />
    </g>
  );
}

/** A joint in section, to scale: as it lies in the vehicle, up is up. Tight, or pulled apart in its order. */
export const Section = (props: SectionProps) =>
  isStrap(props.joint) ? <StrapSection {...props} /> : <BoltSection {...props} />;

function BoltSection(props: SectionProps) {
  const { joint: j, panels, units, width, height, exploded } = props;
  const layout = layOutStack(j, exploded ? Math.max(7, j.thread.d * 0.8) : 0, props.seat);
  const narrow = width < 440;
  const labels = layout.parts.map(p => labelOf(p, props));
  // the longest measure beside it is read to its end
  const longest = Math.max(...labels.map(l => l[1].length));
  const [left, right] = [
    narrow ? 76 : 92,
    Math.max(narrow ? 142 : 190, LABEL_FROM + (narrow ? 6.6 : 7.5) * longest + 4),
  ];
  const pad = 22;
  const k = Math.min(
    (height - 2 * pad) / (layout.end - layout.start),
    (width - left - right) / (2 * layout.reach),
    9,
  );
  const cx = left + (width - left - right) / 2;
  const span = (layout.end - layout.start) * k;
  const below = j.joint.headSide === 'below';
  const first = below ? (height + span) / 2 : (height - span) / 2;
  const Y = (s: number): number => first + (below ? -1 : 1) * (s - layout.start) * k;
  const reach = Math.min(layout.reach, (width - left - right) / (2 * k));
  const r = (j.thread.d / 2) * k;
  const hole = (j.thread.clearance / 2) * k;
  const ink = { stroke: 'var(--ink)', strokeWidth: 1.5, strokeLinejoin: 'round' } as const;
  const half = (d: number): number => (d / 2) * k;
  const family = (part: DrawnLayer) =>
    panels.find(p => p.panel.id === part.layer.ref)?.material.family ?? 'steel';
  const mids = layout.parts.map(p => Y((p.from + p.to) / 2));
  const places = spreadLabels(mids, 38, 20, height - 26);
  const sheets = layout.parts.filter(
    p => p.layer.kind === 'plate' || p.layer.kind === 'bar' || p.layer.kind === 'member',
  );
  const top = topPlateOf(j.joint);
  /** a member that the bolt goes right through: its two walls */
  const hollow = (p: DrawnLayer): readonly DrawnLayer[] => {
    const wall = j.member?.wall ?? 0;
    return p.layer.kind === 'member' && top !== undefined && p.to - p.from > 2 * wall
      ? [
          { ...p, to: p.from + wall },
          { ...p, from: p.to - wall },
        ]
      : [p];
  };
  const pitches = Math.max(0, Math.floor((layout.bolt.to - layout.bolt.from) / j.thread.pitch) - 1);
  const thread = Array.from({ length: pitches }, (_, i) => layout.bolt.to - (i + 0.5) * j.thread.pitch);
  const headPart = layout.parts[0];
  const threadFrom = layout.bolt.from + (isSunk(j) ? j.head.height : 0);
  const gripTop = Y(j.gripMm);
  const faults = stackFaults(j, units);

  return (
    <svg
      width={width}
      height={height}
      role="img"
      aria-label={`Section of joint ${j.id}: ${labels.map(l => l.join(' ')).join(', then ')}${faults.map(f => `. Cannot be: ${f.said}`).join('')}`}
      className="block"
    >
      <HatchDefs id="section" />
      {sheets.flatMap(hollow).map(p => {
        const tapped = top === undefined ? p.layer.kind === 'member' : p.layer.ref === top;
        const clear =
          (tapped && isTapped(j)) || (p.layer.kind === 'member' && isPost(j))
            ? r
            : p.layer.kind === 'member' && j.nut && p.to > j.gripMm && !exploded
              ? half(j.nut.diameter) * 0.8
              : hole;
        const fill =
          p.layer.kind === 'member' || p.layer.kind === 'bar'
            ? hatch('section', 'member')
            : hatch('section', family(p));
        return (
          <g key={`${p.layer.kind} ${p.layer.ref} ${p.from}`} fill={fill} {...ink}>
            <path d={box(cx - reach * k, cx - clear, Y(p.from), Y(p.to))} />
            <path d={box(cx + clear, cx + reach * k, Y(p.from), Y(p.to))} />
          </g>
        );
      })}
      {layout.parts
        .filter(p => p.layer.kind === 'washer' || p.layer.kind === 'spacer' || p.layer.kind === 'nut')
        .map(p => {
          const w = half(p.layer.diameter);
          const inner = p.layer.kind === 'nut' ? r : hole * 0.98;
          if (p.layer.kind === 'spacer' && isPost(j))
            return <Post key="post" {...{ j, cx, k, part: p, Y, ink }} />;
          if (p.layer.kind === 'spacer' && isRoundTube(j))
            return <Clamp key="clamp" {...{ j, cx, k, part: p, Y, ink }} />;
          if (p.layer.kind === 'nut' && j.nut)
            return (
              <NutShape
                key={`nut ${p.from}`}
                kind={j.nut.kind}
                cx={cx}
                half={w}
                bore={r}
                near={Y(p.from)}
                far={Y(p.to)}
                scale={k}
                ink={ink}
              />
            );
          return (
            <g key={`${p.layer.kind} ${p.from}`} fill="var(--stainless)" {...ink}>
              <path d={box(cx - w, cx - inner, Y(p.from), Y(p.to))} />
              <path d={box(cx + inner, cx + w, Y(p.from), Y(p.to))} />
            </g>
          );
        })}
      <g fill="var(--paper)" {...ink}>
        <path d={box(cx - r, cx + r, Y(layout.bolt.from), Y(layout.bolt.to))} />
        {headPart && (
          <path
            d={headPath(
              j.joint.fastener.head,
              cx,
              half(j.head.bearing),
              half(j.head.flats ?? j.head.bearing * 0.8) * 1.05,
              r,
              Y(isSunk(j) ? headPart.from : headPart.from),
              Y(headPart.to),
            )}
          />
        )}
      </g>
      <path
        d={thread
          .filter(s => s > threadFrom + j.thread.pitch)
          .map(
            s =>
              `M${cx - r} ${Y(s - j.thread.pitch * 0.2).toFixed(1)}L${cx + r} ${Y(s + j.thread.pitch * 0.2).toFixed(1)}`,
          )
          .join('')}
        stroke="var(--ink)"
        strokeWidth="0.7"
        opacity="0.6"
      />
      <path
        d={`M${cx} ${Y(layout.start) + (below ? 14 : -14)}V${Y(layout.end) + (below ? -14 : 14)}`}
        stroke="var(--ghostline)"
        strokeDasharray="12 3 3 3"
      />
      {!exploded && (
        <g stroke="var(--fluid)" strokeWidth="1.4" fill="none">
          <path
            d={`M${left - 16} ${Y(0)}H${cx - reach * k - 4}M${left - 16} ${gripTop}H${cx - reach * k - 4}`}
            strokeWidth="0.8"
          />
          <path d={`M${left - 10} ${Y(0)}V${gripTop}`} />
          <text
            x={left - 16}
            y={(Y(0) + gripTop) / 2 - 2}
            textAnchor="end"
            fontSize={narrow ? 11.5 : 14}
            className="fig"
            stroke="none"
            style={{ fill: 'var(--fluid)' }}
          >
            {formatLength(j.gripMm, units, true)}
          </text>
          <text
            x={left - 16}
            y={(Y(0) + gripTop) / 2 + 13}
            textAnchor="end"
            fontSize="12"
            stroke="none"
            style={{ fill: 'var(--fluid)' }}
          >
            grip
          </text>
        </g>
      )}
      {layout.parts.map((p, i) => {
        const y = places[i] ?? 0;
        const edge =
          cx +
          (p.layer.kind === 'plate' || p.layer.kind === 'bar' || p.layer.kind === 'member'
            ? reach * k
            : half(p.layer.diameter));
        const x = width - right + LABEL_FROM;
        return (
          <g key={`label ${p.layer.kind} ${p.from}`}>
            <path d={`M${edge} ${mids[i]}H${x - 14}L${x - 5} ${y}`} fill="none" stroke="var(--ghostline)" />
            <circle cx={edge} cy={mids[i]} r="2" fill="var(--ink2)" />
            <text x={x} y={y} fontSize={narrow ? 12.5 : 14} fontWeight="600">
              {labels[i]?.[0]}
            </text>
            <text
              x={x}
              y={y + 15}
              fontSize={narrow ? 10.5 : 12}
              className="fig"
              style={{ fill: 'var(--ink2)' }}
            >
              {labels[i]?.[1]}
            </text>
          </g>
        );
      })}
      {layout.gaps.map(g => {
        const [a, b] = [Y(g.from), Y(g.to)];
        return (
          <g key={`gap ${g.from}`} stroke="var(--oxide)" fill="none">
            <rect
              x={cx - reach * k}
              y={Math.min(a, b)}
              width={2 * reach * k}
              height={Math.abs(a - b)}
              fill="var(--oxide)"
              fillOpacity="0.16"
              stroke="none"
            />
            <path d={`M${cx - reach * k - 14} ${a}v${b - a}m-4 0h8m-8 ${a - b}h8`} strokeWidth="1.6" />
            <text
              x={cx - reach * k - 6}
              y={Math.min(a, b) - 5}
              textAnchor="end"
              fontSize="13"
              fontWeight="700"
              stroke="var(--paper)"
              strokeWidth="4"
              paintOrder="stroke"
              style={{ fill: 'var(--oxide)' }}
            >
              {g.mm > 0 ? 'gap' : 'inside by'} {formatLength(Math.abs(g.mm), units, true)}
            </text>
          </g>
        );
      })}
      {faults.map((f, i) => {
        const nut = layout.parts.find(p => p.layer.kind === 'nut');
        const y =
          f.at === 'head' ? Y(0) : f.at === 'nut' && nut ? (Y(nut.from) + Y(nut.to)) / 2 : Y(layout.bolt.to);
        return (
          <g key={f.kind}>
            <circle cx={cx} cy={y} r="17" fill="none" stroke="var(--oxide)" strokeWidth="3" />
            <path
              d={`M${cx - 16} ${y - 6}L24 ${48 + 20 * (faults.length - 1)}`}
              stroke="var(--oxide)"
              strokeWidth="1.5"
              fill="none"
            />
            <text x="12" y={40 + 20 * i} fontSize="14" fontWeight="700" style={{ fill: 'var(--oxide)' }}>
              {f.said}
            </text>
          </g>
        );
      })}
      <text x="12" y={height - 10} fontSize="12" style={{ fill: 'var(--ink2)' }}>
        ground below
      </text>
      <text x="12" y="20" fontSize="12" style={{ fill: 'var(--ink2)' }}>
        vehicle above
      </text>
    </svg>
  );
}
