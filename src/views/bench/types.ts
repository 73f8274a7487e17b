import type { ContentChange } from '@/core/compare';
import type { ImageComparison } from '@/core/image';

/** What the HTTP API answers about the bench. */
export interface Copy {
  id: string;
  serial: string;
  reason: 'first read' | 'read' | 'before write' | 'after write';
  sha256: string;
  takenAt: string;
  bytes: number;
}

export interface Radio {
  serial: string;
  modelId: string;
  model: string;
  firmware: string;
  state: 'whole' | 'half written';
  lastSeen: string;
  port: string | null;
  copies: Copy[];
}

export interface Bench {
  reachable: boolean;
  ports: { name: string; busy: boolean; serial: string | null; reason: string | null }[];
  radios: Radio[];
}

export interface Job {
  id: string;
  kind: 'read' | 'write' | 'restore';
  serial: string;
  state: 'running' | 'done' | 'failed' | 'stopped';
  message: string;
  bytes: number;
  of: number;
  secondsLeft: number | null;
  startedAt: string;
  result: { comparison?: ImageComparison; channels?: number; heldBack?: number; radio?: string };
}

export interface WritePreview {
  serial: string;
  planName: string;
  planRevision: number;
  change: ContentChange | null;
  channels: number;
  heldBack: { id: string; name: string; slot: number; reasons: string[] }[];
}

export interface PlanName {
  id: string;
  name: string;
  modelId: string;
}
