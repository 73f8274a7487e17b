'use client';

import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import { findModels } from '@/core/models';
import {
  GRADE_NAMES,
  NOT_STATED,
  OWNER_GRADES,
  REGIONS,
  REGION_NAMES,
  type OwnerGrade,
  type Region,
  USUAL_REGION,
} from '@/core/radio';
import { call, sentenceOf } from '@/api/call';
import { planApi } from '@/api/plans';
import { Button, Choice, Field, Trouble } from '@/ui';

/** Makes a plan: its name, the radio under any name that it is sold by, and the licence. */
export function NewPlan({ first, onClose }: { first: boolean; onClose: () => void }) {
  const router = useRouter();
  const sold = findModels('').map(({ model, soldAs }) => [soldAs, model.id] as const);
  const [name, setName] = useState('');
  const [soldAs, setSoldAs] = useState(sold[0]![0]);
  const [callSign, setCallSign] = useState('');
  const [grade, setGrade] = useState<OwnerGrade>(NOT_STATED);
  const [region, setRegion] = useState<Region>(USUAL_REGION);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);

  const make = async (event: FormEvent) => {
    event.preventDefault();
    if (name.trim() === '') return setTrouble('Give the plan a name, such as the place or the occasion.');
    setBusy(true);
    try {
      const modelId = sold.find(([label]) => label === soldAs)![1];
      const made = await call(planApi.createPlan, {
        body: {
          name,
          modelId,
          owner: { callSign, grade, region },
        },
      });
      router.push(`/plans/${made.plan.id}`);
    } catch (error) {
      setTrouble(sentenceOf(error));
      setBusy(false);
    }
  };

  return (
    <form
      onSubmit={make}
      aria-label="New plan"
      className="mb-6 rounded-md border border-line-strong bg-sheet p-4"
    >
      {first && (
        <p className="pb-3">
          There is no plan yet. Name one here, or read a radio on the Bench and make a plan of what it holds.
        </p>
      )}
      <div className="flex flex-wrap items-end gap-3">
        <Field
          label="Name"
          className="min-w-52 flex-1"
          autoFocus
          maxLength={60}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <Choice
          label="Radio"
          value={soldAs}
          options={sold.map(([label]) => [label, label] as const)}
          onChange={setSoldAs}
          className="w-52"
        />
        <Field
          label="Call sign"
          className="w-28"
          maxLength={16}
          value={callSign}
          onChange={(event) => setCallSign(event.target.value.toUpperCase())}
        />
        <Choice
          label="Licence grade"
          value={grade}
          options={OWNER_GRADES.map((key) => [key, GRADE_NAMES[key]] as const)}
          onChange={setGrade}
          className="w-28"
        />
        <Choice
          label="Rules of"
          value={region}
          options={REGIONS.map((key) => [key, REGION_NAMES[key]] as const)}
          onChange={setRegion}
          className="w-36"
        />
      </div>
      <div className="flex gap-2 pt-3">
        <Button kind="strong" type="submit" disabled={busy}>
          Make the plan
        </Button>
        {!first && (
          <Button kind="quiet" onClick={onClose}>
            Cancel
          </Button>
        )}
      </div>
      {trouble && <Trouble className="mt-3">{trouble}</Trouble>}
    </form>
  );
}
