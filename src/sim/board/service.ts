import type { IncomingMessage, ServerResponse } from 'node:http';
import type { DirectoryFault } from '../directory-faults';
import { seeded } from '../random';
import { listed, ROLL_PEOPLE } from '../roll/service';

/** How many key-ups the board knows where nothing else is said. */
export const BOARD_KEY_UPS = 300_000;
const DAYS = 90;
/** Rows that are written at once. */
const AT_ONCE = 4000;
/** The newest day that it has; the same on every machine. */
const NEWEST = Date.UTC(2026, 10, 27);

/** Talkgroups of the isles, and how much is said on each. */
const GROUPS: readonly [number, number][] = [
  [100, 40],
  [101, 8],
  [102, 8],
  [110, 14],
  [120, 9],
  [130, 6],
  [140, 4],
  [145, 3],
  [150, 3],
  [1046, 2],
  [1200, 3],
];
const GROUP_SHARE = GROUPS.reduce((sum, [, share]) => sum + share, 0);

/** Rows as a board has them that nobody looked after. */
const BAD_ROWS = [
  'yesterday,100,1000001,3',
  '2026-11-20T10:00:00Z,0,1000001,3',
  '2026-11-20T10:00:00Z,100,Q7ABC,3',
  'half a row',
  '',
];

/**
 * The Heard Board: who keyed up on which talkgroup, and when, as one long CSV file. What answers under /heard-board. A few are heard most of
 * the time, and most hardly ever; repeaters speak too, and some numbers are nobody's.
 */
export class BoardService {
  private fault: DirectoryFault = { kind: 'none' };

  constructor(
    private readonly keyUps = BOARD_KEY_UPS,
    private readonly people = ROLL_PEOPLE,
  ) {}

  order(fault: DirectoryFault): void {
    this.fault = fault;
  }

  /** Answers `/heard-board/key-ups.csv`; false where the path is another. */
  async answer(url: URL, request: IncomingMessage, response: ServerResponse): Promise<boolean> {
    if (url.pathname !== '/heard-board/key-ups.csv') return false;
    const { fault } = this;
    if (fault.kind === 'refuse') {
      request.destroy();
      return true;
    }
    if (fault.kind === 'slow') await new Promise((resolve) => setTimeout(resolve, fault.ms));
    response.setHeader('Content-Type', 'text/csv');
    if (fault.kind === 'rubbish') {
      response.end('<html>The board is being wiped</html>');
      return true;
    }
    let gone = false;
    response.on('close', () => (gone = true));
    const write = async (text: string) => {
      if (!gone && !response.write(text))
        await new Promise<void>((resolve) => {
          response.once('drain', resolve);
          response.once('close', resolve);
        });
    };
    await write(fault.kind === 'other shape' ? 'moment,channel,who\r\n' : 'time,talkgroup,id,seconds\r\n');
    const random = seeded(4_711);
    const keyUps = fault.kind === 'empty' ? 0 : this.keyUps;
    for (let n = 0; n < keyUps && !gone; n += AT_ONCE) {
      if (fault.kind === 'cut off' && n >= keyUps / 2) {
        setTimeout(() => request.socket.destroy(), 20);
        return true;
      }
      let text = '';
      for (let at = n; at < Math.min(n + AT_ONCE, keyUps); at++) text += this.row(random, at / keyUps);
      await write(text);
    }
    if (fault.kind === 'bad rows') await write(`${BAD_ROWS.join('\r\n')}\r\n`);
    response.end();
    return true;
  }

  private row(random: () => number, part: number): string {
    const time = new Date(NEWEST - (1 - part) * DAYS * 86_400_000 + random() * 3_600_000);
    let left = random() * GROUP_SHARE;
    const [group] = GROUPS.find(([, share]) => (left -= share) < 0) ?? GROUPS[0]!;
    return `${time.toISOString().slice(0, 19)}Z,${group},${this.who(random)},${1 + Math.floor(random() * 40)}\r\n`;
  }

  /** Somebody: a few most of the time. */
  private who(random: () => number): number {
    const chance = random();
    // Every fiftieth is a repeater, every hundredth nobody whom the roll knows.
    if (chance < 0.02) return 100_100 + Math.floor(random() * 40);
    if (chance < 0.03) return 1_299_000 + Math.floor(random() * 900);
    // Nine hundred are nearly all that is heard; the others are heard once in a while.
    const regulars = chance < 0.96;
    const place = Math.floor(
      regulars ? random() ** 2 * Math.min(900, this.people) : random() * Math.min(30_000, this.people),
    );
    // Spread over the roll, so that who is heard most is not who comes first.
    return listed((place * 7_919) % this.people).id;
  }
}
