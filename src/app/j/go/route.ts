import { redirect } from 'next/navigation';

/** Where the form for a typed code leads: on to the page of that code. */
export function GET(request: Request): never {
  const code = new URL(request.url).searchParams.get('code')?.trim() ?? '';
  redirect(code === '' ? '/j' : `/j/${encodeURIComponent(code.slice(0, 20))}`);
}
