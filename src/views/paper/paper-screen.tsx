import clsx from 'clsx';
import { cardSheets, PAPER_NAMES, PAPERS, paperRows, type PaperRow } from '@/core/fit';
import { modelOfPlan } from '@/core/models';
import type { Plan } from '@/core/plan';
import { PrintButton } from './print-button';

interface Props {
  plan: Plan;
  /** Which paper, as the address has it; the pocket card where it says none. */
  as: string | undefined;
  /** True where this machine can make a PDF of it. */
  pdf: boolean;
}

/** A plan on paper: as it will be printed, and what prints it. */
export function PaperScreen({ plan, as: asked, pdf }: Props) {
  const as = PAPERS.find((one) => one === asked) ?? 'card';
  const model = modelOfPlan(plan)!;
  const rows = paperRows(plan, model);
  const title = `${plan.name}${plan.owner.callSign ? `, ${plan.owner.callSign}` : ''}`;
  const radio = `${model.maker} ${model.name}`;
  return (
    <main className="paper h-full overflow-auto print:h-auto print:overflow-visible">
      <header className="flex flex-wrap items-end gap-x-3 gap-y-2 px-4 py-3 print:hidden">
        <div className="flex-1">
          <h1 className="text-[21px] font-semibold leading-tight">On paper</h1>
          <p className="text-[13px] text-soft">{plan.name}, as it will be printed on A4</p>
        </div>
        <nav
          aria-label="What is printed"
          className="flex rounded-md border border-line-strong p-px text-[13px]"
        >
          {PAPERS.map((one) => (
            <a
              key={one}
              href={`/plans/${plan.id}/paper?as=${one}`}
              aria-current={one === as ? 'page' : undefined}
              title={PAPER_NAMES[one].use}
              className="rounded-[5px] px-2 py-1 text-soft hover:text-ink aria-[current]:bg-wash aria-[current]:font-medium aria-[current]:text-ink"
            >
              {PAPER_NAMES[one].name}
            </a>
          ))}
        </nav>
        <a
          href={`/plans/${plan.id}`}
          className="inline-flex h-8 items-center rounded-md border border-line-strong bg-sheet px-3 text-[13px] font-medium hover:bg-sunk"
        >
          To the plan
        </a>
        {pdf && (
          <a
            href={`/api/plans/${plan.id}/paper?as=${as}`}
            className="inline-flex h-8 items-center rounded-md border border-line-strong bg-sheet px-3 text-[13px] font-medium hover:bg-sunk"
          >
            As PDF
          </a>
        )}
        <PrintButton />
      </header>
      {rows.length === 0 ? (
        <p className="px-4 text-soft print:hidden">
          There is nothing to print yet: the plan has no channels.
        </p>
      ) : as === 'card' ? (
        <Card rows={rows} title={title} radio={radio} />
      ) : as === 'wall' ? (
        <Sheet rows={rows} title={title} under={`${radio}, ${rows.length} channels`} />
      ) : (
        <Banks plan={plan} rows={rows} title={title} radio={radio} />
      )}
    </main>
  );
}

/** Longer than so many signs a text of the card is set in a smaller size: of what is sent, and of the access. */
const TIGHT = { transmit: 7, access: 9 };
/** How wide a sign is on the card, mm: of what is received, of the other figures, and where they are set smaller. */
const SIGN = { large: 1.53, usual: 1.36, tight: 1.15 };

/** The widths of the columns of a card: what the longest figures of this plan take, so that names have all the rest. */
function cardColumns(rows: readonly PaperRow[]): (string | undefined)[] {
  const widest = (widthOf: (row: PaperRow) => number) =>
    `${(Math.max(0, ...rows.map(widthOf)) + 0.9).toFixed(1)}mm`;
  const figures = (text: string, tightOver: number) =>
    text.length * (text.length > tightOver ? SIGN.tight : SIGN.usual);
  return [
    widest(({ slot }) => slot.length * SIGN.usual),
    undefined,
    widest(({ receive }) => receive.length * SIGN.large),
    widest(({ transmit }) => figures(transmit, TIGHT.transmit)),
    widest(({ access }) => figures(access, TIGHT.access)),
  ];
}

/** Eight faces a sheet. The lower row stands on its head: folded back along the middle it reads on. */
function Card({ rows, title, radio }: { rows: readonly PaperRow[]; title: string; radio: string }) {
  const columns = cardColumns(rows);
  return cardSheets(rows).map((faces, sheet) => (
    <section key={sheet} aria-label={`Sheet ${sheet + 1}`} className="leaf leaf-card">
      {[faces.slice(0, 4), faces.slice(4)].map((half, at) => (
        <div key={at} className="card-half">
          {Array.from({ length: 4 }, (_, face) => (
            <div key={face} className="card-face">
              {sheet === 0 && at === 0 && face === 0 && (
                <p className="card-title">
                  <b>{title}</b>
                  <span>{radio}</span>
                </p>
              )}
              <table>
                <caption className="sr-only">
                  Face {at * 4 + face + 1} of sheet {sheet + 1}
                </caption>
                <colgroup>
                  {columns.map((width, column) => (
                    <col key={column} style={{ width }} />
                  ))}
                </colgroup>
                <tbody>
                  {(half[face] ?? []).map((row) => (
                    <tr key={row.id}>
                      <th scope="row" className="mono">
                        {row.slot}
                      </th>
                      <td className="card-name">{row.name || row.shown}</td>
                      <td className="mono receive">{row.receive}</td>
                      <td
                        className={clsx(
                          'mono transmit',
                          row.transmit.length > TIGHT.transmit && 'card-tight',
                        )}
                      >
                        {row.transmit}
                      </td>
                      <td className={clsx('mono', row.access.length > TIGHT.access && 'card-tight')}>
                        {row.access}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          ))}
        </div>
      ))}
    </section>
  ));
}

const HEADINGS = ['Slot', 'Name', 'Reads', 'Receive', 'Transmit', 'Access', 'Mode', 'Power'];

/** A list of channels under a title; its headings stand on every page. */
function Sheet({ rows, title, under }: { rows: readonly PaperRow[]; title: string; under: string }) {
  const noted = rows.some(({ place, note }) => place !== '' || note !== '');
  return (
    <section aria-label={title} className="leaf">
      <h2>{title}</h2>
      <p className="leaf-under">{under}</p>
      <table>
        <caption className="sr-only">{title}</caption>
        <thead>
          <tr>
            {HEADINGS.map((heading) => (
              <th key={heading} scope="col">
                {heading}
              </th>
            ))}
            {noted && <th scope="col">Place and note</th>}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.id}>
              <td className="mono">{row.slot}</td>
              <td className="leaf-name">{row.name}</td>
              <td className="mono">{row.shown}</td>
              <td className="mono receive">{row.receive}</td>
              <td className="mono transmit">
                {row.transmit || <span className="leaf-soft">listen only</span>}
              </td>
              <td className="mono">{row.access || <span className="leaf-soft">open</span>}</td>
              <td>
                {row.mode}
                {!row.scan && <span className="leaf-soft"> no scan</span>}
              </td>
              <td className="mono">{row.power}</td>
              {noted && <td className="leaf-note">{[row.place, row.note].filter(Boolean).join('. ')}</td>}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Banks({
  plan,
  rows,
  title,
  radio,
}: {
  plan: Plan;
  rows: readonly PaperRow[];
  title: string;
  radio: string;
}) {
  const byId = new Map(rows.map((row) => [row.id, row]));
  const zones = plan.zones.filter(({ members }) => members.length > 0);
  if (zones.length === 0)
    return (
      <p className="px-4 text-soft">
        The plan has no zone with channels in it. Make some on its page Organise, or print the wall list.
      </p>
    );
  return zones.map(({ id, name, members }) => (
    <Sheet
      key={id}
      title={name}
      under={`${title}, ${radio}, ${members.length} channels`}
      rows={members.flatMap((member) => byId.get(member) ?? [])}
    />
  ));
}
