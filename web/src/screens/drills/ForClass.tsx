import { Download, FileUp } from 'lucide-react';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { answered, api, linesOf, type DrillProgress, type Drills } from '../../api/client';
import { Button, ButtonLink } from '../../ui/Button';
import { Notice, Quiet, Row } from '../../ui/Panel';
import { Choice } from '../../ui/Choice';
import { TextField } from '../../ui/TextField';

type Props = { progress: DrillProgress; begin: (round: Drills) => void };

/** Drills for a class: a file that is given away, opened by everybody, and the answers as a table. */
export function ForClass({ progress, begin }: Props) {
  const [name, setName] = useState('');
  const [skill, setSkill] = useState('all');
  const [level, setLevel] = useState('1');
  const [wrong, setWrong] = useState<string[]>();
  const called = name.trim();
  const query = new URLSearchParams({
    name: called,
    level,
    skills: skill === 'all' ? '' : skill,
  });
  const open = async (files: FileList | null) => {
    const file = files?.item(0);
    if (!file) return;
    setWrong(undefined);
    try {
      const text = await file.text();
      const body = { body: text as never, bodySerializer: () => text };
      begin(
        await answered(api.POST('/api/v1/drills/class', { ...body, headers: { 'Content-Type': 'application/json' } })),
      );
    } catch (failure) {
      setWrong([`${file.name} is no class file.`, ...linesOf(failure, 'It cannot be read.')]);
    }
  };
  return (
    <>
      <Row $below>
        <TextField name="Name of the class" value={name} onChange={setName} most={80} />
        <Choice
          name="Skill"
          value={skill}
          options={[
            { id: 'all', label: 'All skills' },
            ...progress.skills.map((one) => ({ id: one.skill.code, label: one.skill.name })),
          ]}
          onChange={setSkill}
        />
        <Choice
          name="How hard"
          value={level}
          options={progress.levels.map((one) => ({ id: String(one.number), label: `${one.number} ${one.name}` }))}
          onChange={setLevel}
        />
      </Row>
      <Row $below>
        {called && (
          <>
            <ButtonLink href={`/api/v1/drills/class.json?${query}`} download target="_self" routerOptions={undefined}>
              <Download size={17} aria-hidden /> File for the class
            </ButtonLink>
            <ButtonLink
              href={`/api/v1/drills/answers.csv?${new URLSearchParams({ class: called })}`}
              download
              target="_self"
              routerOptions={undefined}
            >
              <Download size={17} aria-hidden /> Answers of the class, CSV
            </ButtonLink>
          </>
        )}
        <FileTrigger acceptedFileTypes={['.json', 'application/json']} onSelect={(files) => void open(files)}>
          <Button>
            <FileUp size={17} aria-hidden /> Open a class’s file
          </Button>
        </FileTrigger>
      </Row>
      <Quiet>
        Twenty drills on the dials Tolva comes with, so that everybody has the same. Whoever opens the file answers on a
        machine of their own; its answers go out as CSV under the name of the class.
      </Quiet>
      {wrong && (
        <Notice role="alert">
          {wrong.map((line) => (
            <div key={line}>{line}</div>
          ))}
        </Notice>
      )}
    </>
  );
}
