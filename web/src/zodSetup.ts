import { z } from 'zod';

// Zod would otherwise try to compile its checks, which our content security policy reports as a violation.
z.config({ jitless: true });
