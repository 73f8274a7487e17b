import { connect } from 'node:net';

/** A port that does not take the connection within this, ms, counts as vanished. */
const CONNECT_MS = 10_000;
/** How long the other end may take to let go of the port, ms. */
const CLOSING_MS = 5000;

/** What a carrier tells of its line. `closed` is the last of them. */
export interface CarrierEars {
  opened(): void;
  heard(bytes: Uint8Array): void;
  closed(): void;
}

/** A line that is open or being opened. */
export interface Line {
  send(bytes: Uint8Array): void;
  /** Ends it in good order, and waits until the other end has let go of it too. */
  end(): Promise<void>;
  /** Ends it at once, as if the cable were pulled. */
  cut(): void;
}

/** Carries bytes to and from a radio. What they mean is the driver's affair. */
export interface Carrier {
  open(ears: CarrierEars): Line;
}

/** Bytes over a TCP port of this machine. */
export const tcpCarrier = (port: number): Carrier => ({
  open(ears) {
    const socket = connect({ port, host: '127.0.0.1', noDelay: true });
    const opening = setTimeout(() => socket.destroy(), CONNECT_MS);
    socket.on('connect', () => {
      clearTimeout(opening);
      ears.opened();
    });
    socket.on('data', (bytes) => ears.heard(bytes));
    socket.on('error', () => socket.destroy());
    socket.on('close', () => {
      clearTimeout(opening);
      ears.closed();
    });
    return {
      send: (bytes) => void socket.write(bytes),
      cut: () => void socket.destroy(),
      end: () =>
        new Promise((done) => {
          if (socket.destroyed) return done();
          socket.once('close', () => done());
          socket.end();
          setTimeout(() => socket.destroy(), CLOSING_MS).unref();
        }),
    };
  },
});
