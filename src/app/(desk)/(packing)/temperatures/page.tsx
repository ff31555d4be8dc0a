import { call } from '@/app/access';
import { saying } from '@/app/saying';
import { viewTemperatures } from '@/services/packing/made/log';

import { KIND_WORDS } from '@/ui/packing/made/batch-words';
import { Caution, Empty, PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';

export const metadata = { title: 'Temperatures' };

/** Every temperature that was taken, to be printed for an inspector. */
export default async function Temperatures() {
  const say = await saying();
  const { batches, from, to, programme } = await call(viewTemperatures, {});
  return (
    <>
      <PageTitle title="Temperatures" over={`${programme}, ${say.longDate(from)} to ${say.longDate(to)}`}>
        <a href="/temperatures.csv" className="btn">
          As CSV
        </a>
        <PrintButton />
      </PageTitle>
      {batches.length === 0 ? (
        <Empty title="No temperature was taken yet">
          <p>What is cooked ahead, heated again or kept hot is watched under “Made ahead” of its session.</p>
        </Empty>
      ) : (
        <table className="table table-sm sheet">
          <thead>
            <tr>
              <th>Food</th>
              <th>Begun</th>
              <th>Taken</th>
              <th>What became of it</th>
            </tr>
          </thead>
          <tbody>
            {batches.map(({ id, name, kind, session, begunAt, by, readings, endedAt, outcome, note, standing }) => (
              <tr key={id} className="align-top">
                <td>
                  <b>{name}</b> {KIND_WORDS[kind]}
                  <span className="block text-sm">{session}</span>
                </td>
                <td>
                  {say.moment(begunAt)}
                  <span className="block text-sm">{by}</span>
                </td>
                <td>
                  {readings.map((reading) => (
                    <span key={reading.id} className="block tabular-nums">
                      {say.moment(reading.at)}: <b>{reading.say}</b>, {reading.source}, {reading.by}
                    </span>
                  ))}
                </td>
                <td>
                  {endedAt ? `${outcome}, ${say.moment(endedAt)}` : standing.say}
                  {note && <span className="block text-sm">{note}</span>}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <div className="mt-5">
        <Caution>Limits are the usual ones of the programme’s safety profile.</Caution>
      </div>
    </>
  );
}
