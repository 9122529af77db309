// npm run build: the application as it is served, where it is not built yet.
import { ensureBuild } from './tools.mjs';

await ensureBuild();
