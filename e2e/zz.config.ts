import base from './playwright.config';
const { webServer: _, ...rest } = base as Record<string, unknown>;
export default { ...rest, retries: 0, reporter: 'list' };
