import { NextResponse, type NextRequest } from 'next/server';
import { CONSOLE_FAULTS, failed, PROBLEM_MEDIA_TYPE, problemOf } from '@/wire';

/** A device measures against peers at any address, so connections may go anywhere; all else comes from here. */
function policyOf(nonce: string): string {
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    // React writes style attributes; none of them comes from what a person typed.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data:",
    "font-src 'self'",
    "worker-src 'self' blob:",
    'connect-src * ws: wss:',
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
}

const HEADERS: Readonly<Record<string, string>> = {
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'same-origin',
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Permissions-Policy': 'camera=(), microphone=(), geolocation=(), payment=(), usb=()',
};

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/** Whether a request that changes something was sent from a page of another site (a browser always says which). */
function isCrossSite(request: NextRequest): boolean {
  if (SAFE.has(request.method)) return false;
  const origin = request.headers.get('origin');
  if (origin !== null) return !URL.canParse(origin) || new URL(origin).host !== request.headers.get('host');
  const site = request.headers.get('sec-fetch-site');
  return site !== null && site !== 'same-origin' && site !== 'none';
}

/** Stands before every page and route: refuses what another site sent, and tells browsers what the answer may do. */
export function proxy(request: NextRequest): NextResponse {
  if (isCrossSite(request)) {
    const problem = problemOf(CONSOLE_FAULTS, failed('cross-site').fault);
    return NextResponse.json(problem, { status: problem.status, headers: { 'Content-Type': PROBLEM_MEDIA_TYPE } });
  }
  const policy = policyOf(Buffer.from(crypto.randomUUID()).toString('base64'));
  const headers = new Headers(request.headers);
  headers.set('Content-Security-Policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('Content-Security-Policy', policy);
  for (const [name, value] of Object.entries(HEADERS)) response.headers.set(name, value);
  return response;
}

export const config = { matcher: '/((?!_next/static|icon.svg).*)' };
