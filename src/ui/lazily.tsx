'use client';

import dynamic from 'next/dynamic';
import { Component, useEffect, useState, type ComponentType, type ReactNode } from 'react';

/** Keeps a part that could not be fetched from taking the page along, and with it what is typed and not kept yet. */
class Apart extends Component<{ children: ReactNode }, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  override render() {
    return this.state.failed ? (
      <p role="alert" className="p-3 text-[13px] text-soft">
        This part could not be fetched: Veridon did not answer. All else goes on; open the page again when it
        does.
      </p>
    ) : (
      this.props.children
    );
  }
}

/**
 * A component that comes when it is first shown. Where it cannot be fetched it says so in its place, and the page goes on. `after`
 * so many ms: what is not the first thing that anybody looks for leaves the first moments to what is.
 */
export function lazily<P extends object>(
  load: () => Promise<ComponentType<P>>,
  { after = 0 } = {},
): ComponentType<P> {
  const Fetched = dynamic<P>(load, { ssr: false });
  /** Once it has been waited for it is there at once, wherever it stands next. */
  let waited = after === 0;
  return function Lazily(props: P) {
    const [is, setIs] = useState(waited);
    useEffect(() => {
      if (is) return;
      const timer = setTimeout(() => {
        waited = true;
        setIs(true);
      }, after);
      return () => clearTimeout(timer);
    }, [is]);
    return is ? (
      <Apart>
        <Fetched {...props} />
      </Apart>
    ) : null;
  };
}
