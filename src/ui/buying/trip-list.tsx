'use client';

import { Check, Undo2 } from 'lucide-react';
import { useState } from 'react';
import { judgeSwap, lineCost, type TripAnswer, type TripLineBody, type TripLineNow } from '@/core/buying/trip';
import { writeMoney } from '@/core/quantity/money';
import { rational } from '@/core/quantity/rational';
import { sayGrams } from '@/core/quantity/say';
import { avoidanceLabel } from '@/core/safety/avoidances';
import { useSaying } from '@/ui/saying';
import { Swap } from './swap';
import { type TripLine, type TripSaid, useTrip } from './use-trip';
import { Waiting } from './waiting';

interface Props {
  readonly tripId: string;
  readonly lines: readonly TripLine[];
  readonly said: readonly TripSaid[];
  readonly isOver: boolean;
}

/** "2 × Rice 1 kg", "600 g of onions" */
const sayWanted = ({ soldBy, packs, packGrams, product }: TripLineBody): string =>
  soldBy === 'weight' ? `${sayGrams(rational(packs * packGrams))} of ${product}` : `${packs} × ${product}`;

/** The list of a trip, in the order of the shop: for one hand, and for a shop without a network. */
export function TripList({ tripId, lines, said, isOver }: Props) {
  const saying = useSaying();
  const { now, warned, waiting, isCut, trouble, say } = useTrip(tripId, lines, said);
  const states = lines.map(({ id }) => now.get(id));
  const spent = lines.reduce((sum, { id, body }) => {
    const own = now.get(id);
    return sum + (own ? lineCost(body, own.packs, own.price, own.hand) : 0);
  }, 0);
  const planned = lines.reduce((sum, { body }) => sum + body.cost, 0);
  const aisles = [...new Set(lines.map(({ body }) => body.aisle))];
  return (
    <div className="max-w-xl">
      <Waiting count={waiting} isCut={isCut} message={trouble} />
      {warned.map(({ lineId, kits }) => (
        <p
          key={lineId}
          role="alert"
          className="mb-3 rounded-box border-l-4 border-l-error bg-error/10 p-3 font-semibold"
        >
          The server says: {lines.find(({ id }) => id === lineId)?.body.ingredient} is not safe for{' '}
          {kits.map(({ title }) => title).join(', ')}. Put it back.
        </p>
      ))}
      <p className="sticky top-0 z-10 mb-3 flex justify-between bg-base-200 py-2 text-lg font-bold" role="status">
        <span>
          {states.filter((own) => own?.state !== 'open').length} of {lines.length}
        </span>
        <span className="tabular-nums">
          {saying.money(spent)} <span className="font-normal">of {saying.money(planned)} planned</span>
        </span>
      </p>
      {aisles.map((aisle) => (
        <section key={aisle} className="mb-5" aria-label={aisle}>
          <h2 className="mb-2 text-lg font-bold first-letter:uppercase">{aisle}</h2>
          <ul className="flex flex-col gap-3">
            {lines
              .filter(({ body }) => body.aisle === aisle)
              .map(({ id, body }) => {
                const own = now.get(id);
                return own && <Line key={id} body={body} now={own} isOver={isOver} say={(answer) => say(id, answer)} />;
              })}
          </ul>
        </section>
      ))}
    </div>
  );
}

/** Allergens that brands of this food may hold, and that somebody who eats of it avoids. */
const toLookFor = ({ uses, contains, mayContain }: TripLineBody): string[] =>
  [...new Set(uses.flatMap(({ eaters }) => eaters.flatMap(({ without }) => without)))].filter(
    (code) => contains.includes(code) || mayContain.includes(code),
  );

function Line({
  body,
  now,
  isOver,
  say,
}: {
  body: TripLineBody;
  now: TripLineNow;
  isOver: boolean;
  say: (answer: TripAnswer) => void;
}) {
  const saying = useSaying();
  const [open, setOpen] = useState(false);
  const [packs, setPacks] = useState(String(body.packs));
  const [price, setPrice] = useState(writeMoney(body.price));
  const codes = toLookFor(body);
  const cents = Math.round(Number(price.replace(',', '.')) * 100);
  const isRight = cents > 0 && Number(packs) >= 1 && Number.isInteger(Number(packs));
  return (
    <li className={`sheet p-4 ${now.state === 'open' ? '' : 'opacity-90'}`}>
      <p className="text-lg font-bold">{sayWanted(body)}</p>
      <p>
        {body.ingredient} · {saying.money(body.price)}
        {body.soldBy === 'weight' && ' a kilogram'} {body.soldBy !== 'weight' && `· ${body.packGrams} g`}
      </p>
      {codes.length > 0 && (
        <p className="font-semibold">Its label must not name {codes.map(avoidanceLabel).join(', ')}</p>
      )}
      {body.only && <p className="font-semibold">Only “{body.only}”: kits are made with its label</p>}
      {now.state === 'taken' && (
        <p className="mt-2 flex items-center gap-2 font-bold">
          <Check aria-hidden="true" /> In the basket:{' '}
          {body.soldBy === 'weight' && !now.hand
            ? sayGrams(rational(now.packs * now.packGrams))
            : `${now.packs} × ${now.name}`}{' '}
          at {saying.money(now.price)}
        </p>
      )}
      {now.state === 'not there' && <p className="mt-2 font-bold">Not there</p>}
      {!isOver && now.state === 'open' && (
        <div className="mt-3 flex flex-wrap gap-2">
          <button
            type="button"
            className="btn btn-primary btn-lg grow"
            onClick={() => say({ kind: 'taken', packs: body.packs, price: body.price })}
            aria-label={`Taken: ${sayWanted(body)}`}
          >
            <Check aria-hidden="true" /> Taken
          </button>
          <button type="button" className="btn btn-lg" aria-expanded={open} onClick={() => setOpen(!open)}>
            Something else
          </button>
        </div>
      )}
      {!isOver && now.state !== 'open' && (
        <button type="button" className="btn mt-2" onClick={() => say({ kind: 'put back' })}>
          <Undo2 aria-hidden="true" size={18} /> Back on the list
        </button>
      )}
      {now.state === 'not there' && <WaysOut body={body} say={say} isOver={isOver} />}
      {open && now.state === 'open' && (
        <div className="mt-3 flex flex-col gap-4 border-base-300 border-t pt-3">
          <div className="flex flex-wrap items-end gap-2">
            <label className="flex flex-col gap-1">
              <span className="text-sm font-semibold">{body.soldBy === 'weight' ? 'Times 100 g' : 'Packs'}</span>
              <input
                className="input w-24"
                inputMode="numeric"
                value={packs}
                onChange={({ target }) => setPacks(target.value)}
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
            <button
              type="button"
              className="btn"
              disabled={!isRight}
              onClick={() => {
                say({ kind: 'taken', packs: Number(packs), price: cents });
                setOpen(false);
              }}
            >
              Taken so
            </button>
          </div>
          {isRight && (cents !== body.price || Number(packs) !== body.packs) && (
            <p className="text-sm" role="status">
              <Consequence body={body} packs={Number(packs)} price={cents} />
            </p>
          )}
          <Swap
            line={body}
            take={(hand, count) => {
              say({ kind: 'instead', packs: count, hand });
              setOpen(false);
            }}
          />
          <button
            type="button"
            className="btn btn-lg"
            onClick={() => {
              say({ kind: 'not there' });
              setOpen(false);
            }}
          >
            It is not there
          </button>
        </div>
      )}
    </li>
  );
}

/** What another price or number means for the money and for what is left. */
function Consequence({ body, packs, price }: { body: TripLineBody; packs: number; price: number }) {
  const saying = useSaying();
  const cost = lineCost(body, packs, price);
  const left = packs * body.packGrams - (body.packs * body.packGrams - body.left);
  const money =
    cost === body.cost
      ? 'The same money'
      : `${saying.money(Math.abs(cost - body.cost))} ${cost > body.cost ? 'more' : 'less'}`;
  return left < 0 ? (
    <b>
      {money}; {sayGrams(rational(-left))} too little for {Object.values(body.sessions).join(', ')}.
    </b>
  ) : (
    <>
      {money}; {left === 0 ? 'nothing left over' : `${sayGrams(rational(left))} left over`}.
    </>
  );
}

/** What would do where it is not there: another pack of this shop at one touch where it is safe, another day, the shelf. */
function WaysOut({ body, say, isOver }: { body: TripLineBody; say: (answer: TripAnswer) => void; isOver: boolean }) {
  const saying = useSaying();
  const others = body.others.map((hand) => ({ hand, judged: judgeSwap(body, hand) }));
  if (others.length === 0 && body.elsewhere.length === 0)
    return <p className="mt-2 text-sm">Nothing else of it is known here: tell whoever plans, before you pay.</p>;
  return (
    <div className="mt-2 text-sm">
      <p className="font-semibold">What would do</p>
      <ul className="flex flex-col gap-2">
        {others.map(({ hand, judged }) => (
          <li key={hand.name} className="flex flex-wrap items-center gap-2">
            <span>
              {judged.packs} × {hand.name}: {saying.money(judged.cost)}
              {judged.isSafe ? '' : ', not for every kit'}
            </span>
            {!isOver && judged.isSafe && judged.gaps.length === 0 && (
              <button type="button" className="btn" onClick={() => say({ kind: 'instead', packs: judged.packs, hand })}>
                Take it instead
              </button>
            )}
          </li>
        ))}
        {body.elsewhere.map((way) => (
          <li key={way}>{way}</li>
        ))}
      </ul>
    </div>
  );
}
