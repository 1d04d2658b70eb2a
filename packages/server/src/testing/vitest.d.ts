import 'vitest';

declare module 'vitest' {
  interface ProvidedContext {
    databaseUrl: string;
  }
}
