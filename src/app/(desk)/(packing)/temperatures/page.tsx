import { call } from '@/app/access';
import { saying } from '@/app/saying';
import { viewTemperatures } from '@/services/packing/made/log';
import { KIND_WORDS } from '@/ui/packing/made/batch-words';
import { Caution, Empty, PageTitle } from '@/ui/page';
import { PrintButton } from '@/ui/print-button';
import { AS } from '@/ui/table/stacked';

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
        <table {...AS.table} className="table stacked table-sm sheet">
          <thead {...AS.rowgroup}>
            <tr {...AS.row}>
              <th scope="col">Food</th>
              <th scope="col">Begun</th>
              <th scope="col">Taken</th>
              <th scope="col">What became of it</th>
            </tr>
          </thead>
          <tbody {...AS.rowgroup}>
            {batches.map(({ id, name, kind, session, begunAt, by, readings, endedAt, outcome, note, standing }) => (
              <tr {...AS.row} key={id} className="align-top">
                <th {...AS.rowheader} scope="row" className="font-normal">
                  <b>{name}</b> {KIND_WORDS[kind]}
                  <span className="block text-sm">{session}</span>
                </th>
                <td {...AS.cell} data-label="Begun">
                  {say.moment(begunAt)}
                  <span className="block text-sm">{by}</span>
                </td>
                <td {...AS.cell} data-label="Taken">
                  {readings.map((reading) => (
                    <span key={reading.id} className="block tabular-nums">
                      {say.moment(reading.at)}: <b>{reading.say}</b>, {reading.source}, {reading.by}
                    </span>
                  ))}
                </td>
                <td {...AS.cell} data-label="What became of it">
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
