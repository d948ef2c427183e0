import { BLOAT_RATINGS } from '../judge/bloat-rating';
import { VERDICT_WORDS } from '../judge/verdict';
import { GLOSSARY } from './glossary';

describe('our words', () => {
  it('are explained, each verdict and each rating of delay among them, in whole sentences', () => {
    for (const word of [...VERDICT_WORDS, ...BLOAT_RATINGS, 'yardstick', 'peer', 'reach', 'hunt', 'swap', 'tunnel'])
      expect(GLOSSARY).toHaveProperty([word]);
    for (const sentence of Object.values(GLOSSARY)) expect(sentence).toMatch(/^[A-Z].*[.]$/);
  });
});
