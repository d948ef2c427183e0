import { SMALLEST_PAGE_BYTES, sizeWords, type WebFarEnd } from '@/core';
import { checkWebFarEnd, type WebPageState } from '@/services';

/** It would have to be asked for again and again, and agents do not. */
const isSmall = (state: WebPageState) =>
  state.status === 'answers' && state.sizeBytes !== null && state.sizeBytes < SMALLEST_PAGE_BYTES;

function stateWords(state: WebPageState): string {
  switch (state.status) {
    case 'answers': {
      if (isSmall(state))
        return `${state.host} answers with ${sizeWords(state.sizeBytes)} alone. Choose a larger file.`;
      const size = state.sizeBytes === null ? 'of a length that it does not say' : sizeWords(state.sizeBytes);
      return `${state.host} answers, ${size}${state.takesRanges ? '' : ', only whole'}`;
    }
    case 'refuses':
      return `${state.host} answers with status ${state.answer}. Check the address: it has to be open without signing in.`;
    case 'silent':
      return `${state.host} does not answer. Check the address.`;
  }
}

/** How the pages of a web server answer just now, asked by the server while the rest of the page is there already. */
export async function WebStateLine({ web }: { readonly web: WebFarEnd }) {
  const states = await checkWebFarEnd(web);
  const wrong = states.find((state) => state.status !== 'answers' || isSmall(state));
  const shown = wrong ?? states[0]!;
  return (
    <span className={wrong === undefined ? 'text-quiet' : 'font-medium text-starved'}>
      {stateWords(shown)}
      {wrong === undefined &&
        `${states.length > 1 ? `, and ${states.length - 1} more` : ''} · downloads by agents only`}
    </span>
  );
}
