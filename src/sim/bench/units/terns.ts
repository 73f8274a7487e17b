import { ternP2 } from '../../../core/models/tern-p2';
import { ternP3 } from '../../../core/models/tern-p3';
import { channelsOf, type UnitSpec } from './unit';

const channel = channelsOf(ternP2);
const settings = {
  showA: 'name',
  showB: 'frequency',
  squelch: 3,
  beep: true,
  keyLock: false,
  busyLock: false,
  timeOut: 180,
  light: 5,
};

const mhz = (from: number, to: number) => ({ from: from * 1_000_000, to: to * 1_000_000 });

export const TERNS: readonly UnitSpec[] = [
  {
    id: 'tern-1',
    label: 'Tern P2, yellow tape',
    model: ternP2,
    serial: 'LK204417',
    firmware: '1.07',
    region: 3,
    seed: 204417,
    content: {
      channels: [
        channel(0, 'CALL2', 145_500_000),
        channel(1, 'ULLSM', 145_612_500, { tx: 145_012_500, send: { kind: 'tone', tone: 885 } }),
        channel(2, 'BRANN', 145_737_500, {
          tx: 145_137_500,
          send: { kind: 'tone', tone: 948 },
          expect: { kind: 'tone', tone: 948 },
        }),
        channel(3, 'KTRBY', 430_887_500, {
          tx: 438_487_500,
          send: { kind: 'code', code: 23, inverted: false },
          mode: 'NFM',
        }),
        channel(4, 'WX N', 162_400_000, { tx: null, scan: false }),
        channel(10, 'CALL70', 433_500_000),
        channel(11, 'FARROW', 433_162_500, { tx: 434_762_500, send: { kind: 'tone', tone: 770 } }),
        channel(20, 'HARBR', 156_800_000, { tx: null }),
        channel(21, 'TEST', 145_375_000, { power: 1000 }),
      ],
      settings: { ...settings, greeting: 'HELLO' },
    },
  },
  {
    id: 'tern-2',
    label: 'Tern P2, no tape',
    model: ternP2,
    serial: 'LK204533',
    firmware: '1.07',
    region: 3,
    seed: 204533,
    content: {
      channels: [
        channel(0, 'SHOP', 433_500_000, { power: 1000 }),
        channel(1, 'NORRST', 145_650_000, { tx: 145_050_000 }),
      ],
      settings: { ...settings, showA: 'frequency', greeting: 'TERN' },
    },
  },
  {
    id: 'tern-3',
    label: 'Tern P3, three bands',
    model: ternP3,
    serial: 'LK310026',
    firmware: '1.00',
    region: 3,
    seed: 310026,
    content: {
      channels: [
        channel(1, 'CALLING', 145_500_000),
        channel(2, 'KTR 222', 224_300_000, { tx: 222_700_000, send: { kind: 'tone', tone: 1000 } }),
        channel(220, 'LAST', 433_500_000, { power: 1000 }),
      ],
      settings: { ...settings, greeting: 'THREE' },
    },
  },
  // Three of the club, alike but for what is stamped on them.
  ...[204611, 204612, 204613].map((seed, at): UnitSpec => ({
    id: `tern-${at + 4}`,
    label: `Tern P2, club ${at + 1}`,
    model: ternP2,
    serial: `LK${seed}`,
    firmware: '1.07',
    // The last was sold elsewhere, and sends on less.
    ...(at === 2
      ? { region: 1, made: { sends: { '2 m': mhz(144, 146), '70 cm': mhz(430, 440) } } }
      : { region: 3 }),
    seed,
    content: {
      channels: [channel(0, 'CALL2', 145_500_000), channel(1, 'CLUB', 145_375_000, { power: 1000 })],
      settings: { ...settings, greeting: `CLUB ${at + 1}` },
    },
  })),
];
