/** See processes.mjs. */
export function runProgram(program: string, args: readonly string[], options?: { env?: NodeJS.ProcessEnv; cwd?: string; show?: boolean; atMost?: number | null }): Promise<{ code: number; output: string; tooLong: boolean }>;
