import { setupServer } from 'msw/node';

/** The server as the web application sees it; each test says what it answers. */
export const server = setupServer();
