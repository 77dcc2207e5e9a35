import { config } from 'zod';

// The pages' policy lets no text become code: the schemas do without what they would compile.
config({ jitless: true });
