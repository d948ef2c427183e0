'use client';

import type { LinkAnswers } from './link-choice';
import { RIDES_WORDS, TUNNEL_WORDS } from './link-details';

interface LinkMoreProps {
  readonly answers: LinkAnswers;
  readonly onAnswers: (change: Partial<LinkAnswers>) => void;
}

interface ChoiceProps {
  readonly question: string;
  readonly value: string;
  readonly words: Readonly<Record<string, string>>;
  readonly onChoose: (value: string) => void;
}

function Choice({ question, value, words, onChoose }: ChoiceProps) {
  return (
    <label className="block">
      <span className="text-sm text-quiet">{question}</span>
      <select className="field" value={value} onChange={(event) => onChoose(event.target.value)}>
        <option value="">not known</option>
        {Object.entries(words).map(([key, word]) => (
          <option key={key} value={key}>
            {word}
          </option>
        ))}
      </select>
    </label>
  );
}

/** What the settings of the device show of its link, for whoever wants to look; remembered for the next time. */
export function LinkMore({ answers, onAnswers }: LinkMoreProps) {
  if (answers.link === 'wired' || answers.link === 'unknown') return null;
  if (answers.link === 'tunnel')
    return (
      <div className="grid grid-cols-2 gap-4">
        <Choice
          question="Which kind?"
          value={answers.tunnelKind}
          words={TUNNEL_WORDS}
          onChoose={(kind) => onAnswers({ tunnelKind: kind as LinkAnswers['tunnelKind'] })}
        />
        <Choice
          question="Over what?"
          value={answers.rides}
          words={RIDES_WORDS}
          onChoose={(rides) => onAnswers({ rides: rides as LinkAnswers['rides'] })}
        />
      </div>
    );
  return (
    <details>
      <summary className="min-h-11 py-2 text-sm text-quiet underline decoration-hairline underline-offset-4">
        what its Wi-Fi settings show, if you like
      </summary>
      <div className="grid grid-cols-[1.3fr_1fr] gap-4">
        <label className="block">
          <span className="text-sm text-quiet">access point</span>
          <input
            className="field"
            value={answers.accessPoint}
            maxLength={80}
            onChange={(event) => onAnswers({ accessPoint: event.target.value })}
          />
        </label>
        <label className="block">
          <span className="text-sm text-quiet">link rate, Mb/s</span>
          <input
            className="field"
            inputMode="decimal"
            value={answers.rateMbps}
            maxLength={8}
            onChange={(event) => onAnswers({ rateMbps: event.target.value })}
          />
        </label>
      </div>
    </details>
  );
}
