'use client';

import dynamic from 'next/dynamic';
import { Component, useEffect, useLayoutEffect, useState, type ComponentType, type ReactNode } from 'react';

import { holdKeys } from './held-keys';

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
 * so many ms: what is not the first thing that anybody looks for leaves the first moments to what is. With `takesKeys` what is typed
 * while its code is loading goes into its field, and never into what had the focus before.
 */
export function lazily<P extends object>(
  load: () => Promise<ComponentType<P>>,
  { after = 0, takesKeys = false } = {},
): ComponentType<P> {
  /** True once its code is there: then it is shown before the next key comes. */
  let loaded = false;
  let letGo = () => {};
  const loadWithKeys = async (): Promise<ComponentType<P>> => {
    const Part = await load().catch((error: unknown) => {
      letGo();
      throw error;
    });
    loaded = true;
    return function WithKeys(props: P) {
      // After its own effects, by which its field has the focus.
      useEffect(() => {
        const timer = setTimeout(() => letGo(), 0);
        return () => clearTimeout(timer);
      }, []);
      return <Part {...props} />;
    };
  };
  const Fetched = dynamic<P>(takesKeys ? loadWithKeys : load, { ssr: false });
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
    useLayoutEffect(() => {
      if (!takesKeys || loaded) return;
      letGo = holdKeys();
      return () => letGo();
    }, []);
    return is ? (
      <Apart>
        <Fetched {...props} />
      </Apart>
    ) : null;
  };
}
