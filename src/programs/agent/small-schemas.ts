import * as z from 'zod';

// An agent checks a few messages a minute, for months: what schemas would compile of themselves to be quick costs it more than it
// saves. Imported before any schema is made.
z.config({ jitless: true });
