export const TEST_BUILD: string;
export function requireTestBuild(): Promise<void>;
