'use client';

import { createContext, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { useStable } from './stable';

/** True where a key goes into a field as text: then it is no command. */
export function isTyping({ target }: KeyboardEvent): boolean {
  if (target instanceof HTMLInputElement) return !['checkbox', 'radio', 'button'].includes(target.type);
  return target instanceof HTMLTextAreaElement;
}

/** Something that can be done here: found by name with Ctrl K, and by its keys where it has any. */
export interface Command {
  id: string;
  label: string;
  /** The heading under which it is listed. */
  group: string;
  /** As shown: `Ctrl Z`. Keys without Ctrl or Alt belong to the table and are only shown here. */
  keys?: string;
  /** Other keys that act too and are not shown. */
  alsoKeys?: string;
  /** Other words under which it is found. */
  words?: string;
  run: () => void;
}

/** Fields in which somebody has typed since they came to them or pressed Enter, with the text that stood there then. */
const textBefore = new WeakMap<EventTarget, string>();
const isField = (target: EventTarget | null) =>
  target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement;

/** Notes what stands in a field when somebody comes to it and when they press Enter: from there on it is typing that is not taken yet. */
function noteFields(): () => void {
  const note = ({ target }: Event) => {
    if (isField(target)) textBefore.set(target!, (target as HTMLInputElement).value);
  };
  const enter = (event: KeyboardEvent) => event.key === 'Enter' && setTimeout(() => note(event), 0);
  window.addEventListener('focusin', note);
  window.addEventListener('keydown', enter);
  return () => {
    window.removeEventListener('focusin', note);
    window.removeEventListener('keydown', enter);
  };
}

/** True where Ctrl Z belongs to the field: something was typed into it that is not taken yet. */
const undoesTyping = ({ target }: KeyboardEvent) =>
  isField(target) && textBefore.get(target!) !== (target as HTMLInputElement).value;

interface Registry {
  /** Long lists that are made when somebody looks for something. */
  listed: Map<string, () => Command[]>;
  register: (source: string, commands: Command[]) => void;
  unregister: (source: string) => void;
}

// Two contexts, so that who brings commands is not drawn again whenever somebody else does.
const RegistryContext = createContext<Registry | null>(null);
const CommandsContext = createContext<readonly Command[]>([]);

/** Holds the commands of all that is on screen. */
export function CommandsProvider({ children }: { children: ReactNode }) {
  const [sources, setSources] = useState<Record<string, Command[]>>({});
  const [registry] = useState<Registry>(() => ({
    listed: new Map(),
    register: (source, commands) => setSources((now) => ({ ...now, [source]: commands })),
    unregister: (source) => setSources(({ [source]: _, ...rest }) => rest),
  }));
  const commands = useMemo(() => Object.values(sources).flat(), [sources]);
  useEffect(noteFields, []);
  return (
    <RegistryContext value={registry}>
      <CommandsContext value={commands}>{children}</CommandsContext>
    </RegistryContext>
  );
}

/** All commands that can be given now. */
export function useAllCommands(): readonly Command[] {
  return useContext(CommandsContext);
}

/** All things of long lists that can be called up now; made by this call. */
export function useListedCommands(): Command[] {
  const registry = useContext(RegistryContext);
  return useMemo(() => [...(registry?.listed.values() ?? [])].flatMap((make) => make()), [registry]);
}

/** Adds what may be thousands of things to be found by name; they are made only when somebody looks. */
export function useListed(source: string, make: () => Command[]): void {
  const registry = useContext(RegistryContext);
  const latest = useStable(make);
  useEffect(() => {
    registry?.listed.set(source, latest);
    return () => void registry?.listed.delete(source);
  }, [source, registry, latest]);
}

const pressed = (event: KeyboardEvent): string =>
  [
    event.ctrlKey || event.metaKey ? 'Ctrl' : '',
    event.altKey ? 'Alt' : '',
    event.shiftKey ? 'Shift' : '',
    event.key.length === 1 ? event.key.toUpperCase() : event.key.replace('Arrow', ''),
  ]
    .filter(Boolean)
    .join(' ');

/** Adds commands while the component is there; those whose keys hold Ctrl or Alt act on their keys everywhere on the screen. */
export function useCommands(source: string, commands: Command[]): void {
  const registry = useContext(RegistryContext);
  const register = registry?.register;
  const unregister = registry?.unregister;
  const latest = useRef(commands);
  useEffect(() => {
    latest.current = commands;
    const shown = commands.map((command, index) => ({ ...command, run: () => latest.current[index]?.run() }));
    register?.(source, shown);
    // The list is told apart by what it shows; what a command does is looked up when it runs.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [source, register, commands.map((command) => command.id + command.label).join('|')]);
  useEffect(() => {
    latest.current = commands;
  });
  useEffect(() => () => unregister?.(source), [source, unregister]);
  useEffect(() => {
    const hear = (event: KeyboardEvent) => {
      const keys = pressed(event);
      if (!/Ctrl|Alt/.test(keys) || event.defaultPrevented) return;
      const found = latest.current.find((command) => command.keys === keys || command.alsoKeys === keys);
      if (
        !found ||
        (isTyping(event) && /^Ctrl (Shift )?[CVXA]$/.test(keys)) ||
        // Typing is undone first, by the browser; after that what was done to the plan.
        (isTyping(event) && /^Ctrl (Shift )?[ZY]$/.test(keys) && undoesTyping(event))
      )
        return;
      event.preventDefault();
      found.run();
    };
    window.addEventListener('keydown', hear);
    return () => window.removeEventListener('keydown', hear);
  }, []);
}
