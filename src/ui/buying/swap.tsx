'use client';

import { useState } from 'react';
import { type InHand, judgeSwap, type TripLineBody } from '@/core/buying/trip';
import { rational } from '@/core/quantity/rational';
import { sayGrams } from '@/core/quantity/say';
import { AVOIDANCES, avoidanceLabel, LATER_ALLERGENS, withoutCode } from '@/core/safety/avoidances';
import { useSaying } from '@/ui/saying';

const ALLERGENS = AVOIDANCES.filter(({ kind }) => kind === 'allergen');

/** The product in hand: what taking it would mean is worked out here, as it is ticked, without asking anybody. */
export function Swap({ line, take }: { line: TripLineBody; take: (hand: InHand, packs: number) => void }) {
  const say = useSaying();
  const [name, setName] = useState('');
  const [grams, setGrams] = useState('');
  const [price, setPrice] = useState('');
  const [isRead, setIsRead] = useState(false);
  const [label, setLabel] = useState<readonly string[]>([]);
  const hand: InHand = {
    name: name.trim(),
    packGrams: Number(grams),
    price: Math.round(Number(price.replace(',', '.')) * 100),
    // What came later to the list is asked about here; a tick stands before it.
    label: isRead ? [...label, ...LATER_ALLERGENS.map(withoutCode)] : null,
  };
  const isWhole = hand.name !== '' && hand.packGrams >= 1 && hand.price >= 1;
  const judged = isWhole ? judgeSwap(line, hand) : undefined;
  const asked = line.uses.some(({ eaters }) => eaters.some(({ without }) => without.length > 0));
  const mayTake = judged?.isSafe && judged.gaps.length === 0;
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="mb-1 font-bold">Another pack in its place</legend>
      <label className="flex flex-col gap-1">
        <span className="text-sm font-semibold">As its pack calls it</span>
        <input className="input w-full" value={name} maxLength={120} onChange={({ target }) => setName(target.value)} />
      </label>
      <div className="flex gap-2">
        <label className="flex flex-col gap-1">
          <span className="text-sm font-semibold">Grams</span>
          <input
            className="input w-28"
            inputMode="numeric"
            value={grams}
            onChange={({ target }) => setGrams(target.value)}
          />
        </label>
        <label className="flex flex-col gap-1">
          <span className="text-sm font-semibold">Price</span>
          <input
            className="input w-28"
            inputMode="decimal"
            value={price}
            onChange={({ target }) => setPrice(target.value)}
          />
        </label>
      </div>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox checkbox-lg"
          checked={isRead}
          onChange={({ target }) => setIsRead(target.checked)}
        />
        <span>I read its label; it names</span>
      </label>
      {isRead && (
        <div className="grid grid-cols-2 gap-2">
          {ALLERGENS.map(({ code, label: said }) => (
            <label key={code} className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                className="checkbox"
                checked={label.includes(code)}
                onChange={({ target }) =>
                  setLabel(target.checked ? [...label, code] : label.filter((each) => each !== code))
                }
              />
              {said}
            </label>
          ))}
        </div>
      )}
      {judged && (
        <div
          role="status"
          className={`rounded-box border-l-4 p-3 ${mayTake ? 'border-l-success bg-success/10' : 'border-l-error bg-error/10'}`}
        >
          <p className="font-semibold">
            {judged.packs} × {hand.name}: {say.money(judged.cost)},{' '}
            {judged.dearer === 0
              ? 'the same money'
              : `${say.money(Math.abs(judged.dearer))} ${judged.dearer > 0 ? 'more' : 'less'}`}
            ; {judged.left === 0 ? 'nothing' : sayGrams(rational(judged.left))} left over.
          </p>
          {judged.gaps.length > 0 && (
            <div>
              <p>
                {line.ingredient} usually contains {judged.gaps.map(avoidanceLabel).join(', ')}: look again, and tick
                what its label names.
              </p>
              {judged.gaps.map((code) => (
                <label key={code} className="flex min-h-11 items-center gap-2">
                  <input
                    type="checkbox"
                    className="checkbox"
                    checked={false}
                    onChange={() => setLabel([...label, withoutCode(code)])}
                  />
                  its pack says it is without {avoidanceLabel(code)}
                </label>
              ))}
            </div>
          )}
          {judged.kits.map(({ sessionId, title, unsafe, safe }) => (
            <p key={sessionId}>
              {title}:{' '}
              {unsafe.length === 0
                ? `right for all kits (${safe.join(', ')})`
                : unsafe
                    .map(
                      ({ letters, codes }) =>
                        `not for kits ${letters.join(', ')}: ${isRead ? 'holds' : 'holds or may hold'} ${codes.map(avoidanceLabel).join(', ')}`,
                    )
                    .join('; ')}
            </p>
          ))}
          {judged.sizeOff !== undefined && (
            <p className="font-semibold">
              Each kit gets a whole one: {Math.abs(judged.sizeOff)} % {judged.sizeOff > 0 ? 'more' : 'less'} than
              planned.
            </p>
          )}
          {judged.relabel && <p>Labels that name “{line.only}” must be printed again.</p>}
          {asked && !isRead && <p>Its label was not read: this goes by what the food usually holds.</p>}
        </div>
      )}
      <button
        type="button"
        className="btn btn-lg"
        disabled={!judged || !mayTake}
        onClick={() => judged && take(hand, judged.packs)}
      >
        Take this instead
      </button>
    </fieldset>
  );
}
