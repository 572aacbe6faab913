import { Download, Printer } from 'lucide-react';
import { useState } from 'react';
import type { DrillProgress } from '../../api/client';
import { ButtonLink } from '../../ui/Button';
import { Quiet, Row } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { TextField } from '../../ui/TextField';
import { TickBox } from '../../ui/Ticks';

/** So many exercises stand on a page, and their answers on another. */
const fits = { a4: '20', a5: '12' };

/** Sheets to print, by number and level: the same number gives the same sheet. The answers that were given, as a table. */
export function Sheets({ progress }: { progress: DrillProgress }) {
  const [seed, setSeed] = useState('1');
  const [level, setLevel] = useState('1');
  const [paper, setPaper] = useState<'a4' | 'a5'>('a4');
  const [answers, setAnswers] = useState(true);
  const good = /^\d{1,9}$/.test(seed.trim());
  const query = new URLSearchParams({ seed: seed.trim(), level, paper, answers: String(answers), count: fits[paper] });
  return (
    <>
      <Row $below>
        <TextField
          name="Sheet number"
          value={seed}
          onChange={setSeed}
          wrong={good ? undefined : 'A sheet has a number from 0 to 999 999 999.'}
          most={9}
        />
        <Segments
          name="Level"
          value={level}
          options={progress.levels.map(({ number, name }) => ({ id: String(number), label: `${number} ${name}` }))}
          onChange={setLevel}
        />
        <Segments
          name="Paper"
          value={paper}
          options={[
            { id: 'a4', label: 'A4' },
            { id: 'a5', label: 'A5' },
          ]}
          onChange={setPaper}
        />
        <TickBox name="With answers" of="the sheet" value={answers} onChange={setAnswers} />
      </Row>
      <Row $below>
        {good && (
          <ButtonLink href={`/api/v1/drills/sheet.html?${query}`} target="_blank" routerOptions={undefined}>
            <Printer size={17} aria-hidden /> The sheet, to print
          </ButtonLink>
        )}
        <ButtonLink href="/api/v1/drills/answers.csv" download target="_self" routerOptions={undefined}>
          <Download size={17} aria-hidden /> All answers, CSV
        </ButtonLink>
      </Row>
      <Quiet>The same number and level give the same sheet on every machine with the same dials.</Quiet>
    </>
  );
}
