'use client';

import { createContext, useContext } from 'react';
import type { Actions } from './use-actions';
import type { PlanInHand } from './use-plan';
import type { Table } from './use-table';

/** The plan at work: what is in hand, the table and what is chosen in it, and what can be done to the chosen. */
export interface Desk {
  hand: PlanInHand;
  table: Table;
  actions: Actions;
}

const DeskContext = createContext<Desk | null>(null);
export const DeskProvider = DeskContext.Provider;

/** The desk on which every part of the plan screen works; each takes from it what it needs. */
export function useDesk(): Desk {
  const desk = useContext(DeskContext);
  if (!desk) throw new Error('There is no plan on the desk');
  return desk;
}
