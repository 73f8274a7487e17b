'use client';

import { useMemo, useState } from 'react';
import { membersBy, type MemberRule } from '@/core/organise';
import type { Zone } from '@/core/plan';
import { Button, Choice, Field, useEscape } from '@/ui';
import { PlaceField, type PlaceFound } from './place-field';
import type { Organising } from './use-organise';

/** Fills a zone by what its channels have in common; how many that are is seen as it is set. */
export function RuleForm({
  zone,
  organising,
  onClose,
}: {
  zone: Zone;
  organising: Organising;
  onClose: () => void;
}) {
  const { plan, model, sides, run } = organising;
  const [band, setBand] = useState('any');
  const [side, setSide] = useState('any');
  const [words, setWords] = useState('');
  const [place, setPlace] = useState<PlaceFound | null>(null);
  const [km, setKm] = useState('30');
  useEscape(onClose);
  const distance = Number(km.replace(',', '.'));
  const members = useMemo(() => {
    const rule: MemberRule = {
      ...(band !== 'any' && { band }),
      ...(side !== 'any' && { list: Number(side) }),
      ...(words.trim() && { words }),
      ...(place && distance > 0 && { near: { point: place, km: distance } }),
    };
    return membersBy(plan, rule, model);
  }, [plan, model, band, side, words, place, distance]);
  const fill = (ids: typeof members, how: string) => {
    run(
      { name: 'change', kind: 'zone', changes: [{ id: zone.id, set: { members: ids } }] },
      `“${zone.name}” ${how} ${members.length} by rule.`,
    );
    onClose();
  };
  const held = new Set(zone.members);
  const added = members.filter((id) => !held.has(id));
  return (
    <div
      role="group"
      aria-label={`Fill “${zone.name}” by rule`}
      className="grid shrink-0 grid-cols-2 gap-2 border-b border-line-strong bg-paper p-3"
    >
      <Choice
        label="Band"
        value={band}
        options={[['any', 'Any'], ...model.bands.map(({ name }) => [name, name] as const)]}
        onChange={setBand}
      />
      {sides.length > 1 ? (
        <Choice
          label="Side"
          value={side}
          options={[
            ['any', 'Both'],
            ...sides.map((list) => [String(list), model.lists[list]!.name] as const),
          ]}
          onChange={setSide}
        />
      ) : (
        <span />
      )}
      <PlaceField label="Near" onPlace={setPlace} />
      <Field
        label="Within, km"
        inputMode="decimal"
        value={km}
        onChange={(event) => setKm(event.target.value)}
      />
      <Field
        className="col-span-2"
        label="Name, call or note holds"
        value={words}
        onChange={(event) => setWords(event.target.value)}
      />
      <p role="status" className="col-span-2 text-[13px]">
        {members.length === 0
          ? 'Say what they have in common.'
          : `${members.length} channels, ${added.length} of them new to “${zone.name}”.`}
      </p>
      <div className="col-span-2 flex flex-wrap gap-1.5">
        <Button
          kind="strong"
          size="small"
          disabled={added.length === 0}
          onClick={() => fill([...zone.members, ...added], 'now also holds')}
        >
          Put {added.length} in
        </Button>
        <Button size="small" disabled={members.length === 0} onClick={() => fill(members, 'now holds')}>
          Only these
        </Button>
        <Button kind="quiet" size="small" onClick={onClose}>
          Cancel
        </Button>
      </div>
    </div>
  );
}
