import { finish } from '@sphalerite/core/math';
import { deliveryChecksSteps, deliveryFigures } from '@sphalerite/core/project';
import { type DeliveryWishes, delivered } from './delivery';
import { openProject } from './io';

export interface CheckWishes extends DeliveryWishes {
  readonly json?: boolean;
  readonly strict?: boolean;
}

const MARKS = { over: 'OVER', look: 'look', fine: 'ok' } as const;

/** Checks a project against a delivery; exit code 1 when it is over its budget, or, if strict, when anything is worth a look. */
export async function checkCommand(file: string, wishes: CheckWishes): Promise<void> {
  const project = openProject(file);
  const { profile, subject, made } = await delivered(file, project, wishes);
  const figures = deliveryFigures(project, made);
  const findings = finish(deliveryChecksSteps(project, subject, profile, figures));
  const passed = !findings.some((f) => f.level === 'over' || (wishes.strict === true && f.level === 'look'));
  if (wishes.json) {
    const told = findings.map(({ level, code, text, at }) => ({ level, code, text, step: at?.step ?? null }));
    console.log(JSON.stringify({ profile: profile.name, passed, figures, findings: told }, null, 2));
  } else for (const f of findings) console.log(`${MARKS[f.level].padEnd(5)} ${f.text}`);
  if (!passed) process.exitCode = 1;
}
